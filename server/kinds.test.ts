/** Kinds of marks from the desk to the paper: who is asked, what stands there, what the record says. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { DraftEdit } from '@gatepath/core/packet';
import { newId } from './ids';
import { removeFolder } from './test/folders';
import { typedHand } from './test/harness';
import { paper } from './test/papers';
import { markEdit, Way } from './test/way';
import { judged, sound } from './test/judges';

jest.setTimeout(240_000);

let way: Way;
let folder: string;
beforeAll(async () => {
  way = await Way.start();
  folder = mkdtempSync(path.join(os.tmpdir(), 'gatepath-kinds-'));
});
afterAll(async () => {
  await way.server.stop();
  removeFolder(folder);
});

test('a company fills itself from the deal and an email address is written; both stand on the paper and in the record', async () => {
  const { server } = way;
  const deal = await server.ok('newDeal', {
    body: {
      kind: 'sale',
      address: '7 Weir Terrace',
      parties: [{ side: 'seller', name: 'Wren Alder', email: 'wren@example.com', company: 'Alder Family Trust' }],
    },
  });
  const wren = deal.parties[0]!.id;
  const doc = await server.uploadReady(deal.id, 'deed.pdf', await paper({ pages: 1 }));
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Deed', documentIds: [doc.id] },
  });
  expect(packet.draft.parties[0]!.company).toBe('Alder Family Trust');
  const at = (y: number) => ({ x: 72, y, w: 200, h: 20 });
  const marks: DraftEdit[] = [
    markEdit('sign', doc.id, 1, 'signature', wren, { x: 72, y: 640, w: 160, h: 26 }),
    markEdit('firm', doc.id, 1, 'company', wren, at(690)),
    markEdit('mail', doc.id, 1, 'email', wren, at(720)),
  ];
  await server.edit(packet.id, marks);
  await server.send(packet.id);
  const token = await server.tokenFor(packet.id, 'Wren Alder');
  const params = { token };
  const view = await server.ok('signing', { params, as: 'nobody' });
  expect(view.me.company).toBe('Alder Family Trust');
  expect(view.marks.map((m) => [m.id, m.automatic])).toEqual([
    ['sign', false],
    ['firm', true],
    ['mail', false],
  ]);
  await server.ok('agree', { params, body: { agreement: view.agreementText.version }, as: 'nobody' });
  await server.ok('setHand', { params, body: typedHand('Wren Alder', 'WA'), as: 'nobody' });
  const fill = (markId: string, text?: string) =>
    server.call('fill', { params: { token, markId }, body: { actId: newId(), text }, as: 'nobody' });
  expect((await fill('firm', 'Another')).problem.type).toBe('/problems/fills-itself');
  expect((await fill('mail', 'wren at home')).problem.detail).toContain('not an email address');
  expect((await fill('mail', 'wren@example.com')).status).toBe(200);
  expect((await fill('sign')).status).toBe(200);
  await server.ok('finish', { params, body: { actId: 'finish' }, as: 'nobody' });

  const done = await server.until(packet.id, (p) => !!p.sent?.sealed);
  expect(done.sent!.activity.map((a) => a.sentence).join('\n')).toContain('1 company');
  const { raw } = await server.call('sealedCopy', { params: { packetId: packet.id, documentId: doc.id } });
  const file = path.join(folder, 'sealed.pdf');
  writeFileSync(file, new Uint8Array(raw));
  const page = execFileSync('pdftotext', ['-l', '1', file, '-']).toString();
  expect(page).toContain('Alder Family Trust');
  expect(page).toContain('wren@example.com');
  const record = execFileSync('pdftotext', ['-f', '2', '-layout', file, '-']).toString();
  expect(record).toContain('Signs for Alder Family Trust');
  expect(record).toContain('p. 1 company');
  expect(judged(raw)).toEqual(sound(2));
});

test('nobody is asked to sign for a company that is not known', async () => {
  const { server } = way;
  const deal = await server.deal('5 Lock Street', [{ side: 'seller', name: 'Callum Alder' }]);
  const doc = await server.uploadReady(deal.id, 'deed.pdf', await paper({ pages: 1 }));
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Deed', documentIds: [doc.id] },
  });
  const party = packet.draft.parties[0]!;
  const { version } = await server.edit(packet.id, [
    markEdit('sign', doc.id, 1, 'signature', party.id, { x: 72, y: 640, w: 160, h: 26 }),
    markEdit('firm', doc.id, 1, 'company', party.id, { x: 72, y: 690, w: 200, h: 20 }),
  ]);
  const send = (v: number) =>
    server.call('sendPacket', { params: { packetId: packet.id }, body: { version: v, despiteWarnings: true } });
  const no = await send(version);
  expect([no.problem.type, no.problem.detail]).toEqual([
    '/problems/gate-check',
    expect.stringContaining('would stay empty'),
  ]);
  const next = await server.edit(packet.id, [
    { op: 'put', list: 'parties', item: { ...party, company: 'Lock Street Holdings' } },
  ]);
  expect((await send(next.version)).status).toBe(200);
});
