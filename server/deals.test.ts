/** Deals, their people and their lists; drafts and what holds them. */
import { mkdtempSync, readdirSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import type { DealSummary, Page } from '@gatepath/contract';
import { FileStore } from './files/store';
import { sha256 } from './ids';
import { TestServer } from './test/harness';
import { paper } from './test/papers';

jest.setTimeout(120_000);

let server: TestServer;
beforeAll(async () => {
  server = await TestServer.start();
});
afterAll(() => server.stop());

const open = (address: string, parties: object[] = []) =>
  server.ok('newDeal', { body: { kind: 'sale', address, parties } });
const person = (side: string, name: string) => ({ side, name, email: `${name.toLowerCase()}@example.com` });

test('lists page by key, newest first, and are searched by street without wildcards of the searcher’s', async () => {
  for (let i = 1; i <= 7; i++) await open(`${i} Weir Terrace`);
  await open('100% Lane');
  const seen: string[] = [];
  let after: string | undefined;
  do {
    const page: Page<DealSummary> = await server.ok('deals', {
      query: { limit: '3', search: 'weir', ...(after ? { after } : {}) },
    });
    seen.push(...page.items.map((d) => d.address));
    after = page.next ?? undefined;
  } while (after);
  expect(seen).toEqual([7, 6, 5, 4, 3, 2, 1].map((i) => `${i} Weir Terrace`));
  const percent = await server.ok('deals', { query: { search: '%' } });
  expect(percent.items.map((d) => d.address)).toEqual(['100% Lane']);
  expect((await server.call('deals', { query: { limit: '1000' } })).status).toBe(422);
});

test('people are numbered within their side, corrected and taken out', async () => {
  const deal = await open('14 Lantern Row', [
    person('seller', 'Wren'),
    person('buyer', 'Priya'),
    person('seller', 'Callum'),
  ]);
  expect(deal.parties.map((p) => [p.name, p.ordinal])).toEqual([
    ['Wren', 1],
    ['Priya', 1],
    ['Callum', 2],
  ]);
  const [wren, priya] = deal.parties;
  const moved = await server.ok('setParty', {
    params: { partyId: priya!.id },
    body: { ...person('seller', 'Priya'), company: ' Nair Family Trust ' },
  });
  expect(moved.parties.find((p) => p.id === priya!.id)).toMatchObject({
    side: 'seller',
    ordinal: 3,
    company: 'Nair Family Trust',
  });
  const without = await server.ok('removeParty', { params: { partyId: wren!.id } });
  expect(without.parties.map((p) => p.name)).toEqual(['Priya', 'Callum']);
  expect((await server.call('removeParty', { params: { partyId: wren!.id } })).status).toBe(404);
  const bad = await server.call('addParty', {
    params: { dealId: deal.id },
    body: { side: 'seller', name: '', email: 'x' },
  });
  expect([bad.status, Object.keys('fields' in bad.problem ? bad.problem.fields! : {}).sort()]).toEqual([
    422,
    ['email', 'name'],
  ]);
});

test('a draft starts on a usual path, and a document in it cannot be removed from the deal', async () => {
  const deal = await open('3 Lock Street', [
    person('buyer', 'Priya'),
    person('seller', 'Wren'),
    person('other', 'Escrow'),
  ]);
  const doc = await server.uploadReady(deal.id, 'The_papers-v2.pdf', await paper({ pages: 1 }));
  expect(doc.name).toBe('The papers v2');
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Papers', documentIds: [doc.id] },
  });
  const names = packet.draft.gates.map((g) =>
    g.partyIds.map((id) => packet.draft.parties.find((p) => p.id === id)!.name),
  );
  expect(names).toEqual([['Wren'], ['Priya']]);
  expect(packet.draft.parties.find((p) => p.name === 'Escrow')!.act).toBe('copy');
  const drop = () => server.call('deleteDocument', { params: { documentId: doc.id } });
  expect((await drop()).problem.detail).toContain('“Papers”');
  await server.call('deletePacket', { params: { packetId: packet.id } });
  expect((await drop()).status).toBe(204);
});

test('a packet is not sent past the gate check, nor by somebody who looked at an older draft', async () => {
  const deal = await open('5 Lock Street', [person('seller', 'Wren')]);
  const doc = await server.uploadReady(deal.id, 'a.pdf', await paper({ pages: 1 }));
  const packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Papers', documentIds: [doc.id] },
  });
  const send = (version: number, despiteWarnings = false) =>
    server.call('sendPacket', {
      params: { packetId: packet.id },
      body: { version, despiteWarnings },
    });
  expect((await send(packet.version)).problem).toMatchObject({
    type: '/problems/gate-check',
    detail: 'Wren signs, but has no signature anywhere.',
  });
  const mark = {
    id: 's',
    documentId: doc.id,
    page: 1,
    kind: 'signature' as const,
    partyId: deal.parties[0]!.id,
    required: true,
  };
  // Over a printed line: allowed, but only knowingly.
  const { version } = await server.edit(packet.id, [
    { op: 'put', list: 'marks', item: { ...mark, rect: { x: 80, y: 90, w: 150, h: 24 } } },
  ]);
  expect((await send(packet.version)).problem.type).toBe('/problems/changed-meanwhile');
  expect((await send(version)).problem.type).toBe('/problems/warnings');
  expect((await send(version, true)).status).toBe(200);
  expect((await send(version, true)).problem.type).toBe('/problems/already-sent');
  expect(
    (
      await server.call('editPacket', {
        params: { packetId: packet.id },
        body: { edits: [{ op: 'set', field: 'name', value: 'x' }] },
      })
    ).status,
  ).toBe(409);
  expect((await server.call('deletePacket', { params: { packetId: packet.id } })).status).toBe(409);
});

test('files are stored once under their fingerprint, and a broken or cut-off stream leaves nothing', async () => {
  const dir = mkdtempSync(path.join(os.tmpdir(), 'gatepath-files-'));
  const store = new FileStore(dir);
  const files = () => readdirSync(dir, { recursive: true, withFileTypes: true }).filter((f) => f.isFile()).length;
  const one = await store.put(Buffer.from('paper'));
  const two = await store.putStream(Readable.from([Buffer.from('pa'), Buffer.from('per')]));
  if (two === 'truncated') throw new Error('nothing was cut');
  expect([one.fresh, two.fresh, one.sha256, files()]).toEqual([true, false, two.sha256, 1]);
  expect(one.sha256).toBe(sha256('paper'));
  expect((await store.read(one.sha256)).toString()).toBe('paper');
  const broken = Readable.from(
    (function* () {
      yield Buffer.from('half');
      throw new Error('the line was cut');
    })(),
  );
  await expect(store.putStream(broken)).rejects.toThrow('cut');
  expect(await store.putStream(Object.assign(Readable.from([Buffer.from('too long')]), { truncated: true }))).toBe(
    'truncated',
  );
  expect(files()).toBe(1);
  expect(() => store.fileOf('../../etc/passwd')).toThrow('fingerprint');
});

test('who changed the same thing meanwhile is told; whoever changed something else is not', async () => {
  const deal = await server.ok('newDeal', { body: { kind: 'sale', address: '3 Weir Terrace', parties: [] } });
  const packet = await server.ok('newPacket', { params: { dealId: deal.id }, body: { name: 'Papers' } });
  const save = (client: string, base: number, field: 'subject' | 'message', value: string) =>
    server.ok('editPacket', {
      params: { packetId: packet.id },
      body: { client, base, edits: [{ op: 'set', field, value }] },
    });
  expect((await save('desk', 1, 'subject', 'One')).over).toEqual([]);
  // Made at another screen on the version before: the subject clashes, the message does not.
  expect((await save('phone', 1, 'message', 'Hello')).over).toEqual([]);
  const clash = await save('phone', 1, 'subject', 'Two');
  expect([clash.over, clash.draft.subject, clash.draft.message]).toEqual([['Odile Farrant'], 'Two', 'Hello']);
  // Once seen, it is no surprise any more.
  expect((await save('desk', clash.version, 'subject', 'Three')).over).toEqual([]);
});
