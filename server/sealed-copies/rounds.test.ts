/** Seals over a whole packet, and a late round on top of it: other tools agree. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { unpackFacts } from '@gatepath/contract';
import type { PacketParty } from '@gatepath/core/packet';
import { FreeSpace } from '@gatepath/core/paper';
import { say } from '@gatepath/core/words';
import { wordsOf } from '../words';
import { disagreements, verifyChain } from '../proof/chain-file';
import { verifySealed } from '../pdf-sealing/verify';
import { changedBeyondMarks } from '../test/revisions';
import { forbidden, forbiddenChanges, judged, sound } from '../test/judges';
import { markEdit, Way } from '../test/way';

jest.setTimeout(180_000);

const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-way-'));
let way: Way;
beforeAll(async () => {
  way = await Way.start();
});
afterAll(() => way.stop());

test('from the first seal to the record: every state can be cut out, and other tools agree', async () => {
  const { packet, id } = await way.send(
    [
      { name: 'Wren Alder' },
      { name: 'Callum Alder', more: { language: 'es' } },
      { name: 'Ana Attorney', more: { act: 'approve' } },
      { name: 'Tobias Mercer', email: '', more: { act: 'desk' } },
      { name: 'Escrow Desk', more: { act: 'copy' } },
    ],
    [{ names: ['Wren', 'Callum'] }, { names: ['Ana'] }, { names: ['Tobias'] }],
  );
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const callum = await way.server.tokenFor(packet.id, 'Callum Alder');
  await way.signAll(callum, 'Callum Alder');
  await way.signAll(await way.server.tokenFor(packet.id, 'Ana Attorney', 'ask_approve'), 'Ana Attorney');
  // At the desk nobody gets a link: the host opens the ceremony, and is in the record.
  expect((await way.messagesOf(packet.id)).filter((m) => m.toName === 'Tobias Mercer')).toEqual([]);
  const { token } = await way.server.ok('hostParty', {
    params: { packetId: packet.id, partyId: id('Tobias') },
  });
  await way.signAll(token, 'Tobias Mercer');
  const [pdf] = await way.sealed(packet.id);
  const check = verifySealed(pdf!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => r.name)).toEqual([
    'Wren Alder, Seller 1',
    'Callum Alder, Seller 2',
    'Ana Attorney, Seller 3',
    'Tobias Mercer, Seller 4',
    'Towpath & Vane Realty',
  ]);
  for (const r of check.revisions) {
    const cut = path.join(dir, `cut-${r.n}.pdf`);
    writeFileSync(cut, new Uint8Array(pdf!.subarray(0, r.end)));
    expect(verifySealed(pdf!.subarray(0, r.end)).whole).toBe(true);
    expect(judged(pdf!.subarray(0, r.end))).toEqual(sound(r.n));
  }
  // After the first seal no page changes: places kept for it are filled, and that is all.
  for (const [i, r] of check.revisions.slice(1).entries()) {
    const before = pdf!.subarray(0, check.revisions[i]!.end);
    expect([r.n, await changedBeyondMarks(before, pdf!.subarray(0, r.end))]).toEqual([r.n, []]);
  }
  for (const [what, changed] of await forbidden(pdf!)) {
    expect([what, forbiddenChanges(changed)]).not.toEqual([what, 0]);
    expect([what, verifySealed(Buffer.from(changed)).why]).toEqual([what, 'something was added after it was sealed']);
  }
  const record = execFileSync('pdftotext', ['-layout', path.join(dir, 'cut-5.pdf'), '-']).toString();
  expect(record).toContain('At the desk of Odile Farrant');
  expect(record).toContain('Registro de firmas');
  // The chain and the PDF tell the same; another packet's chain does not.
  const chain = verifyChain((await way.server.call('chain', { params: { packetId: packet.id } })).raw.toString());
  if (!chain.whole) throw new Error(chain.why);
  expect(disagreements(check, chain)).toEqual([]);
  expect(disagreements(verifySealed(pdf!.subarray(0, check.revisions[1]!.end)), chain).join()).toContain(
    'earlier state',
  );
  // Callum reads what he signed in his language.
  const { subject } = await way.newest(packet.id, 'Callum Alder');
  expect(subject).toBe(say(wordsOf('es'), 'mail.executed.subject', { packetName: `${packet.name}, 14 Lantern Row` }));
});

test('a late signing round: old seals stay valid, new marks are free of print, one file', async () => {
  const { packet } = await way.send([{ name: 'Wren Alder' }], [{ names: ['Wren'] }]);
  await way.signAll(await way.server.tokenFor(packet.id, 'Wren Alder'), 'Wren Alder');
  const [first] = await way.sealed(packet.id);
  const late = await way.server.ok('lateRound', {
    params: { packetId: packet.id },
    body: { documentIds: [packet.draft.documents[0]!.id] },
  });
  const doc = await way.server.ready(late.dealId, late.draft.documents[0]!.id);
  expect(doc.pages.length).toBeGreaterThan(2);
  // Its pages are not to be changed: that would break the seals.
  const compose = await way.server.call('composeDocument', {
    params: { dealId: late.dealId },
    body: { name: 'Less', parts: [{ documentId: doc.id, page: 1 }] },
  });
  expect(compose.status).toBe(422);
  const trustee: PacketParty = {
    id: 'trustee',
    name: 'Theo Trustee',
    email: 'theo@example.com',
    phone: null,
    side: 'seller',
    ordinal: 2,
    act: 'sign',
    ink: 1,
  };
  await way.server.edit(late.id, [
    { op: 'put', list: 'parties', item: trustee },
    { op: 'put', list: 'gates', item: { id: 'g', partyIds: ['trustee'] } },
    markEdit('ts', doc.id, 2, 'signature', 'trustee', { x: 330, y: 600, w: 160, h: 26 }),
    {
      op: 'put',
      list: 'rules',
      item: { id: 'r', documentId: doc.id, partyIds: ['trustee'], anchor: { fx: 1, fy: 1 }, except: [], moved: [] },
    },
  ]);
  const sent = await way.server.send(late.id);
  // What is new stands clear of all that is printed and signed already, on every page of the old record too.
  const packed = await way.server.ok('documentFacts', { params: { documentId: doc.id } });
  const { pages } = unpackFacts(doc.id, doc.name, packed);
  const made = sent.sent!.plan.marks.filter((m) => m.ruleId);
  // On every page of its own; the signing record behind them asks for nothing.
  expect(made).toHaveLength(packed.ownPages!);
  expect(doc.pages.length).toBeGreaterThan(packed.ownPages!);
  for (const m of made) expect([m.page, new FreeSpace(pages[m.page - 1]!).isFree(m.rect)]).toEqual([m.page, true]);
  await way.signAll(await way.server.tokenFor(sent.id, 'Theo Trustee'), 'Theo Trustee');
  const [second, apart] = await way.sealed(sent.id);
  expect(second!.subarray(0, first!.length).equals(first!)).toBe(true);
  const check = verifySealed(second!);
  expect(check.why).toBe('');
  expect(check.revisions.map((r) => r.name)).toEqual([
    'Wren Alder, Seller 1',
    'Towpath & Vane Realty',
    'Theo Trustee, Seller 2',
    'Towpath & Vane Realty',
  ]);
  // Nobody could keep pages for a second record: it has a file of its own beside it.
  expect([await changedBeyondMarks(first!, second!), judged(second!)]).toEqual([[], sound(4)]);
  const record = path.join(dir, 'record.pdf');
  writeFileSync(record, new Uint8Array(apart!));
  expect(execFileSync('pdftotext', [record, '-']).toString()).toContain('Theo Trustee');
  expect(verifySealed(apart!)).toMatchObject({ whole: true, revisions: [{ name: 'Towpath & Vane Realty' }] });
  expect(judged(apart!)).toEqual(sound(1));
  for (const packetId of [packet.id, sent.id]) {
    const chain = verifyChain((await way.server.call('chain', { params: { packetId } })).raw.toString());
    if (!chain.whole) throw new Error(chain.why);
    if (packetId === sent.id)
      for (const of of [check, verifySealed(apart!)]) expect(disagreements(of, chain)).toEqual([]);
  }
});
