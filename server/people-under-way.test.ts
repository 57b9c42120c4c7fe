/** Whom the sender takes out, whose act and marks change, and who reads along, while a packet is on its way. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { judged, sound } from './test/judges';
import { tokenIn, Way } from './test/way';

jest.setTimeout(180_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

const THREE = [
  { name: 'Wren Alder', email: 'wren@example.com' },
  { name: 'Callum Alder', email: 'callum@example.com' },
  { name: 'Tobias Mercer', email: 'tobias@example.com' },
];
const IN_A_ROW = [{ names: ['Wren'] }, { names: ['Callum'] }, { names: ['Tobias'] }];

/** Returns the words of a PDF, as another program reads them. */
function textOf(pdf: Uint8Array): string {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-words-'));
  try {
    const file = path.join(dir, 'sealed.pdf');
    writeFileSync(file, new Uint8Array(pdf));
    return execFileSync('pdftotext', ['-layout', file, '-']).toString();
  } finally {
    rmSync(dir, { recursive: true });
  }
}

test('somebody is taken out after another has signed: kindly, on record, and every seal still holds', async () => {
  const { packet, id } = await way.send(THREE, IN_A_ROW);
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const token = await way.server.tokenFor(packet.id, 'Callum Alder');
  expect((await way.statusOf(token)).status).toBe(200);
  // One who has signed cannot be taken out.
  const refused = await way.server.call('changePacket', {
    params: { packetId: packet.id },
    body: { type: 'drop_party', partyId: id('Wren'), reason: 'Sold' },
  });
  expect([refused.status, refused.problem.type]).toEqual([409, '/problems/has-acted']);
  const now = await way.change(packet.id, { type: 'drop_party', partyId: id('Callum'), reason: 'He sold his share.' });
  expect(now.sent!.gate).toBe(2);
  expect(now.sent!.parties.map((p) => p.status)).toEqual(['done', 'dropped', 'asked']);
  expect(now.sent!.activity.map((l) => l.sentence)).toContain(
    'Odile Farrant removed Callum Alder from the packet: “He sold his share.”',
  );
  const letter = await way.newest(packet.id, 'Callum Alder', 'taken_out');
  expect(letter.bodyText).toContain('He sold his share.');
  expect(letter.link).toBeNull();
  const at = await way.statusOf(token);
  expect([at.status, at.problem.type, at.problem.detail]).toEqual([
    410,
    '/problems/taken-out',
    expect.stringContaining('You do not have to do anything.'),
  ]);
  await way.signAll(await way.server.tokenFor(packet.id, 'Tobias Mercer'), 'Tobias Mercer');
  const [pdf] = await way.sealed(packet.id);
  expect(judged(pdf!)).toEqual(sound(3));
  expect(textOf(pdf!)).toContain('Removed before acting: “He sold his share.”');
  // Nothing is written to them about the end.
  expect((await way.messagesOf(packet.id)).filter((m) => m.toName === 'Callum Alder' && m.kind === 'executed')).toEqual(
    [],
  );
});

test('marks of somebody ahead are moved, taken away and added after the first seal', async () => {
  const { packet, id } = await way.send(THREE.slice(0, 2), IN_A_ROW.slice(0, 2));
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  await way.server.until(packet.id, (p) => (p.sent?.revisions.length ?? 0) > 0);
  const { marks } = (await way.look(packet.id)).sent!.plan;
  const mine = marks.filter((m) => m.partyId === id('Callum'));
  const signature = mine.find((m) => m.kind === 'signature')!;
  const first = mine.find((m) => m.kind === 'initials' && m.page === 1)!;
  const { redlineId: _r, ruleId: _u, ...plain } = signature;
  const moved = { ...plain, rect: { ...signature.rect, x: 380, y: 680 } };
  const note = {
    ...plain,
    id: 'note',
    kind: 'text' as const,
    label: 'Which keys',
    rect: { x: 380, y: 712, w: 120, h: 22 },
  };
  const over = await way.server.call('changePacket', {
    params: { packetId: packet.id },
    body: {
      type: 'change_marks',
      partyId: id('Callum'),
      put: [{ ...moved, page: 1, rect: { x: 72, y: 72, w: 200, h: 120 } }],
      drop: [],
    },
  });
  expect([over.status, over.problem.type]).toEqual([409, '/problems/warnings']);
  const now = await way.change(packet.id, {
    type: 'change_marks',
    partyId: id('Callum'),
    put: [moved, note],
    drop: [first.id],
    despiteWarnings: false,
  });
  const cells = now.sent!.ledger.rows.map((r) => r.cells.find((c) => c.partyId === id('Callum'))!.state);
  expect(cells).toEqual(['excepted', 'signature']);
  // One that moved is another mark: the room kept for the old one in the sealed file stays empty.
  expect(now.sent!.plan.marks.some((m) => m.id === signature.id)).toBe(false);
  const token = await way.server.tokenFor(packet.id, 'Callum Alder');
  const view = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  const asked = view.marks.find((m) => m.label === 'Which keys')!;
  await way.server.ok('agree', { params: { token }, body: { agreement: view.agreementText.version }, as: 'nobody' });
  await way.server.ok('fill', {
    params: { token, markId: asked.id },
    body: { actId: 'keys', text: 'Both front keys' },
    as: 'nobody',
  });
  await way.signAll(token, 'Callum Alder');
  const [pdf] = await way.sealed(packet.id);
  expect(judged(pdf!)).toEqual(sound(3));
  expect(textOf(pdf!)).toContain('Both front keys');
  expect((await way.look(packet.id)).sent!.ledger).toMatchObject({ done: now.sent!.ledger.total });
});

test('an act is changed ahead: who only approved signs, and gets places; a new version keeps all of it', async () => {
  const people = [THREE[0]!, { ...THREE[1]!, more: { act: 'approve' as const } }, THREE[2]!];
  const { packet, id } = await way.send(people, IN_A_ROW);
  const documentId = packet.draft.documents[0]!.id;
  let now = await way.change(packet.id, {
    type: 'change_act',
    partyId: id('Callum'),
    act: 'sign',
    after: 59,
    documentIds: [documentId],
    initials: true,
  });
  const own = now.sent!.plan.marks.filter((m) => m.partyId === id('Callum'));
  expect(own.map((m) => m.kind).sort()).toEqual(['date_signed', 'initials', 'initials', 'signature']);
  now = await way.change(packet.id, { type: 'drop_party', partyId: id('Tobias'), reason: 'Another office signs.' });
  await way.change(packet.id, {
    type: 'change_marks',
    partyId: id('Callum'),
    put: [],
    drop: [own[0]!.id],
    despiteWarnings: false,
  });
  const draft = await way.server.ok('newVersion', { params: { packetId: packet.id }, body: { reason: 'Once more' } });
  expect(draft.draft.parties.map((p) => [p.name, p.act])).toEqual([
    ['Wren Alder', 'sign'],
    ['Callum Alder', 'sign'],
  ]);
  expect(draft.draft.gates.map((g) => g.partyIds)).toEqual([[id('Wren')], [id('Callum')]]);
  expect(draft.draft.marks.filter((m) => m.partyId === id('Callum')).map((m) => m.id)).toEqual(
    own.slice(1).map((m) => m.id),
  );
  expect(draft.draft.rules[0]!.partyIds).toEqual([id('Wren')]);
});

test('those ahead read along when the sender lets them, act only at their gate, and no more when it is ended', async () => {
  const { packet } = await way.send(THREE.slice(0, 2), IN_A_ROW.slice(0, 2), [
    { op: 'set', field: 'readAlong', value: true },
  ]);
  const letter = await way.newest(packet.id, 'Callum Alder', 'read_along');
  expect(letter.bodyText).toContain('before it is your turn');
  const token = tokenIn(letter);
  const view = await way.server.ok('signing', { params: { token }, as: 'nobody' });
  expect([view.mine, view.myTurn, view.documents.length]).toEqual(['waiting', false, 1]);
  const early = await way.server.call('agree', {
    params: { token },
    body: { agreement: view.agreementText.version },
    as: 'nobody',
  });
  expect([early.status, early.problem.type]).toEqual([403, '/problems/not-your-turn']);
  // What is signed meanwhile is seen.
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  await way.signAll(await way.server.tokenFor(packet.id, 'Callum Alder'), 'Callum Alder');
  await way.sealed(packet.id);

  const other = await way.send(THREE.slice(0, 2), IN_A_ROW.slice(0, 2));
  expect(await way.newest(other.packet.id, 'Callum Alder')).toBeUndefined();
  await way.change(other.packet.id, { type: 'set_reading', allowed: true });
  const second = tokenIn(await way.newest(other.packet.id, 'Callum Alder', 'read_along'));
  expect((await way.statusOf(second)).status).toBe(200);
  await way.change(other.packet.id, { type: 'set_reading', allowed: false });
  expect((await way.statusOf(second)).status).toBe(403);
});

test('a capacity stands under the signature, beside the printed name, and in the record', async () => {
  const { packet } = await way.send(
    [{ name: 'Wren Alder', email: 'wren@example.com', more: { capacity: 'trustee of the Lockside Trust' } }],
    [{ names: ['Wren'] }],
    [],
  );
  const token = await way.server.tokenFor(packet.id, 'Wren Alder');
  expect((await way.server.ok('signing', { params: { token }, as: 'nobody' })).me.capacity).toBe(
    'trustee of the Lockside Trust',
  );
  await way.signAll(token, 'Wren Alder');
  const [pdf] = await way.sealed(packet.id);
  expect(judged(pdf!)).toEqual(sound(2));
  const text = textOf(pdf!);
  expect(text.match(/trustee of the Lockside Trust/g)).toHaveLength(2);
  expect(text).toContain('Signs as: trustee of the Lockside Trust');
});
