/** Between "send" and the last signature: what the sender changes, and what follows. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { verifySealed } from './pdf-sealing/verify';
import { typedHand } from './test/harness';
import { paper } from './test/papers';
import { tokenIn, Way } from './test/way';
import { judged, sound } from './test/judges';

jest.setTimeout(180_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-way-'));
let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

test('an address is fixed under way: the old link dies, a new one goes out', async () => {
  const { packet, id } = await way.send([{ name: 'Wren Alder', email: 'wrong@example.com' }], [{ names: ['Wren'] }]);
  const first = await way.newest(packet.id, 'Wren Alder', 'ask');
  await way.server.ok('returnMessage', { params: { messageId: first.id }, body: { why: 'No such mailbox' } });
  expect((await way.look(packet.id)).sent!.holdUp.sentence).toBe('The message to Wren came back. Correct the address.');
  expect((await way.newest(packet.id, 'Odile Farrant')).subject).toContain('came back');
  const now = await way.change(packet.id, {
    type: 'correct_party',
    partyId: id('Wren'),
    name: 'Wren Alder',
    email: 'wren@example.com',
    phone: null,
  });
  expect(now.sent!.parties[0]!.bounced).toBeNull();
  const dead = await way.statusOf(tokenIn(first));
  expect([dead.status, dead.problem.detail]).toEqual([404, expect.stringContaining('newest message')]);
  const second = await way.newest(packet.id, 'Wren Alder', 'new_link');
  expect(second.toEmail).toBe('wren@example.com');
  expect((await way.statusOf(tokenIn(second))).status).toBe(200);
});

test('a correction is initialled by those who had signed, and holds the packet until then', async () => {
  const { packet } = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Callum'] }, { names: ['Tobias'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const now = await way.change(packet.id, {
    type: 'correct',
    documentId,
    page: 1,
    kind: 'insert',
    text: 'The shed stays.',
    rects: [{ x: 300, y: 680, w: 120, h: 16 }],
  });
  expect(now.sent!.parties.map((p) => [p.status, p.again])).toEqual([
    ['asked', true],
    ['asked', false],
    ['waiting', false],
  ]);
  // Callum, whose gate is open, can finish; the gate stays until Wren has initialled.
  await way.signAll(await way.server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  expect((await way.look(packet.id)).sent!.gate).toBe(1);
  const m = await way.newest(packet.id, 'Wren Alder', 'ask_again');
  expect(m.bodyText).toContain('The shed stays.');
  const view = await way.server.ok('signing', { params: { token: tokenIn(m) }, as: 'nobody' });
  expect(view.changes).toEqual([expect.objectContaining({ open: true })]);
  expect(view.marks.filter((x) => !x.done)).toHaveLength(1);
  await way.signAll(tokenIn(m), 'Wren Alder');
  expect((await way.look(packet.id)).sent!.gate).toBe(2);
  await way.signAll(await way.server.tokenFor(packet.id, 'Tobias Mercer'), 'Tobias Mercer');
  const [pdf] = await way.sealed(packet.id);
  const check = verifySealed(pdf!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => `${r.name}: ${r.reason.split(':')[0]}`)).toEqual([
    'Wren Alder, Seller 1: Signed',
    'Odile Farrant: Changed while on its way',
    'Callum Alder, Seller 2: Signed',
    'Wren Alder, Seller 1: Signed',
    'Tobias Mercer, Seller 3: Signed',
    'Towpath & Vane Realty: Executed',
  ]);
});

test('people, documents and gates are added ahead; a packet is taken back into a new version', async () => {
  const { packet, deal } = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Tobias Mercer' }],
    [{ names: ['Wren'] }, { names: ['Tobias'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  let now = await way.change(packet.id, {
    type: 'add_party',
    name: 'Callum Alder',
    email: 'callum@example.com',
    phone: null,
    side: 'seller',
    act: 'sign',
    after: 0,
    documentIds: [documentId],
    initials: true,
  });
  const plan = now.sent!.plan;
  expect(plan.gates.map((g) => g.partyIds.map((x) => plan.parties.find((p) => p.id === x)!.name))).toEqual([
    ['Wren Alder'],
    ['Callum Alder'],
    ['Tobias Mercer'],
  ]);
  const own = plan.marks.filter((m) => m.partyId === plan.parties.find((p) => p.name === 'Callum Alder')!.id);
  expect(own.map((m) => m.kind).sort()).toEqual(['date_signed', 'initials', 'initials', 'signature']);
  const extra = await way.server.uploadReady(deal.id, 'addendum.pdf', await paper({ pages: 1 }));
  now = await way.change(packet.id, {
    type: 'add_document',
    documentId: extra.id,
    partyIds: [deal.parties.find((p) => p.name === 'Tobias Mercer')!.id],
  });
  expect(now.sent!.plan.documents).toHaveLength(2);
  // Wren's gate was open already: the new document is not for her.
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  expect((await way.server.ok('signing', { params: { token }, as: 'nobody' })).documents).toHaveLength(1);
  const turned = [now.sent!.plan.gates[0]!, now.sent!.plan.gates[2]!, now.sent!.plan.gates[1]!];
  now = await way.change(packet.id, { type: 'set_path', gates: turned });
  expect(now.sent!.plan.gates.map((g) => g.id)).toEqual(turned.map((g) => g.id));
  const behind = await way.server.call('changePacket', {
    params: { packetId: packet.id },
    body: { type: 'set_path', gates: [...turned].reverse() },
  });
  expect(behind.status).toBe(422);
  const draft = await way.server.ok('newVersion', {
    params: { packetId: packet.id },
    body: { reason: 'The price changed' },
  });
  expect(draft.draft.replaces).toEqual({ packetId: packet.id, version: 2 });
  // It begins where the packet stood: who and what was added under way is in it.
  expect(draft.draft.parties.map((p) => p.name)).toContain('Callum Alder');
  expect(draft.draft.documents).toHaveLength(2);
  expect(draft.draft.gates).toEqual(turned);
  expect(draft.draft.marks.filter((m) => own.some((o) => o.id === m.id))).toHaveLength(own.length);
  expect((await way.look(packet.id)).kin).toEqual([{ id: draft.id, name: 'Papers', how: 'new_version' }]);
  expect((await way.newest(packet.id, 'Wren Alder', 'new_version')).bodyText).toContain('The price changed');
  expect((await way.statusOf(token)).status).toBe(410);
});

test('what somebody has signed so far can be had at any time, also after another has finished meanwhile', async () => {
  const { packet } = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }],
    [{ names: ['Wren', 'Callum'] }],
  );
  const documentId = packet.draft.documents[0]!.id;
  const wren = await way.server.tokenFor(packet.id, 'Wren Alder');
  const words = async () => {
    const file = path.join(dir, 'so-far.pdf');
    const got = await way.server.call('signingFile', { params: { token: wren, documentId }, as: 'nobody' });
    writeFileSync(file, new Uint8Array(got.raw));
    return execFileSync('pdftotext', ['-f', '1', '-l', '1', file, '-']).toString();
  };
  expect(await words()).not.toMatch(/\bWA\b/);
  // The first place only: her initials on page 1.
  await way.server.sign(wren, typedHand('Wren Alder', 'WA'), 1);
  expect(await words()).toMatch(/\bWA\b/);
  await way.signAll(await way.server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  await way.server.until(packet.id, (p) => p.sent!.revisions.length === 1);
  const both = await words();
  expect([/\bWA\b/.test(both), /\bCA\b/.test(both)]).toEqual([true, true]);
  // The seal of the other stays valid in it: her own marks so far only come after.
  expect(judged(readFileSync(path.join(dir, 'so-far.pdf')))).toEqual(sound(1));
});

test('any one of several at a gate is enough; the others are told', async () => {
  const { packet } = await way.send(
    [{ name: 'Wren Alder' }, { name: 'Callum Alder' }],
    [{ names: ['Wren', 'Callum'], need: 'any' }],
  );
  expect((await way.look(packet.id)).sent!.holdUp.sentence).toBe('Waiting for any one of Wren and Callum.');
  await way.signAll(await way.server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  const now = await way.look(packet.id);
  expect([now.status, now.sent!.parties.map((p) => p.status)]).toEqual(['executed', ['excused', 'done']]);
  expect(now.sent!.ledger.done).toBe(now.sent!.ledger.total);
  expect((await way.messagesOf(packet.id)).map((m) => m.kind)).toContain('excused');
});

test('a member who is a party signs from the application; nobody else can open that ceremony', async () => {
  const { member } = await way.server.ok('session');
  const { packet, id } = await way.send(
    [{ name: 'Odile Farrant', more: { memberId: member!.id } }, { name: 'Wren Alder' }],
    [{ names: ['Odile', 'Wren'] }],
  );
  const own = (partyId: string) => way.server.call('ownLink', { params: { packetId: packet.id, partyId } });
  expect((await own(id('Wren'))).status).toBe(403);
  const host = await way.server.call('hostParty', { params: { packetId: packet.id, partyId: id('Wren') } });
  expect(host.status).toBe(403);
  const view = await way.signAll((await own(id('Odile'))).body.token, 'Odile Farrant');
  expect(view.mine).toBe('done');
});
