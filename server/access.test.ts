/** Who may see and do what, tried against the API itself. */
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { urlOf, type DealView, type PacketView, type PathValues, type RouteName } from '@gatepath/contract';
import { hashSecret, newId } from './ids';
import { insertLink } from './links/queries';
import { TestServer, typedHand } from './test/harness';
import { paper } from './test/papers';
import { markEdit } from './test/way';

jest.setTimeout(120_000);

let server: TestServer;
let deal: DealView;
let packet: PacketView;
let documentId: string;
let wren: string;
let callum: string;

beforeAll(async () => {
  server = await TestServer.start();
  deal = await server.deal('14 Lantern Row', [
    { side: 'seller', name: 'Wren Alder', phone: '555-0111' },
    { side: 'seller', name: 'Callum Alder', phone: '555-0112' },
    { side: 'listing_broker', name: 'Tobias Mercer', phone: '555-0113' },
  ]);
  documentId = (await server.uploadReady(deal.id, 'a.pdf', await paper({ pages: 2 }))).id;
  packet = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Papers', documentIds: [documentId] },
  });
  await server.edit(
    packet.id,
    deal.parties.map((p, i) => ({
      op: 'put',
      list: 'marks',
      item: {
        id: `sig${i}`,
        documentId,
        page: 2,
        kind: 'signature',
        partyId: p.id,
        rect: { x: 40 + i * 180, y: 690, w: 150, h: 24 },
        required: true,
      },
    })),
  );
  await server.send(packet.id);
  wren = await server.tokenFor(packet.id, 'Wren Alder');
  callum = await server.tokenFor(packet.id, 'Callum Alder');
});
afterAll(() => server.stop());

const nobody = (name: RouteName, token: string, body?: unknown, more: Partial<PathValues> = {}) =>
  server.call(name, { params: { token, ...more }, body, as: 'nobody' });

test('the second gate cannot see or use the packet before the first is passed, even with a signing link in hand', async () => {
  await expect(server.tokenFor(packet.id, 'Tobias Mercer')).rejects.toThrow('no message');
  // A signing link made behind the server's back stands for a leak: the state machine still says no.
  const token = 'leaked-before-its-time';
  await insertLink(server.ctx.database.pool, {
    id: newId(),
    packet_id: packet.id,
    party_id: deal.parties[2]!.id,
    host_id: null,
    token_hash: hashSecret(token, server.ctx.config.sessionSecret),
    at: new Date(),
  });
  for (const [name, body, more] of [
    ['signing', undefined, {}],
    ['signingPage', undefined, { documentId, page: 1 }],
    ['signingFile', undefined, { documentId }],
  ] as const)
    expect((await nobody(name, token, body, more)).status).toBe(403);
  for (const [name, body, more] of [
    ['agree', { agreement: '2 (en)' }, {}],
    ['setHand', typedHand('Tobias Mercer', 'TM'), {}],
    ['fill', { actId: 'a' }, { markId: 'sig2' }],
    ['finish', { actId: 'f' }, {}],
    ['decline', { reason: 'no' }, {}],
  ] as const) {
    const a = await nobody(name, token, body, more);
    expect([name, a.status, a.problem.type]).toEqual([name, 403, '/problems/not-your-turn']);
  }
});

test('nobody can fill another’s mark, nor act before agreeing', async () => {
  expect((await nobody('fill', wren, { actId: 'a' }, { markId: 'sig0' })).problem.type).toBe('/problems/not-agreed');
  await nobody('agree', wren, { agreement: '2 (en)' });
  expect((await nobody('fill', wren, { actId: 'a' }, { markId: 'sig0' })).problem.type).toBe('/problems/no-hand');
  await nobody('setHand', wren, typedHand('Wren Alder', 'WA'));
  const a = await nobody('fill', wren, { actId: 'a' }, { markId: 'sig1' });
  expect([a.status, a.problem.type]).toEqual([409, '/problems/not-your-mark']);
  const view = await server.ok('signing', { params: { token: callum }, as: 'nobody' });
  expect(view.fills).toEqual([]);
});

test('a client never sees another party’s email or phone, nor a member anything of the secrets', async () => {
  const raw = JSON.stringify((await nobody('signing', wren)).body);
  for (const secret of ['callum@', 'tobias@', '555-0112', '555-0113', 'wren@']) expect(raw).not.toContain(secret);
  const stored = await server.ctx.database.pool.query<{ token_hash: string }>('select token_hash from signing_link');
  for (const row of stored.rows) expect(row.token_hash).toMatch(/^[0-9a-f]{64}$/);
  expect(JSON.stringify(stored.rows)).not.toContain(wren);
});

test('the same act sent five times at once, and again after a lost answer, leaves one event', async () => {
  const count = async (type: string) =>
    (
      await server.ctx.database.pool.query('select 1 from packet_event where packet_id = $1 and type = $2', [
        packet.id,
        type,
      ])
    ).rows.length;
  const five = async (name: RouteName, body: object, more: Partial<PathValues> = {}) => {
    const sends = await Promise.all(Array.from({ length: 5 }, () => nobody(name, wren, body, more)));
    // The answer was lost on the way: the same submission comes once more, later.
    sends.push(await nobody(name, wren, body, more));
    expect(sends.map((s) => s.status)).toEqual([200, 200, 200, 200, 200, 200]);
  };
  await five('fill', { actId: 'same' }, { markId: 'sig0' });
  expect(await count('mark_filled')).toBe(1);
  const hands = await count('hand_set');
  await five('setHand', { ...typedHand('Wren Alder', 'WA'), actId: 'same-hand' });
  expect(await count('hand_set')).toBe(hands + 1);
  await five('askQuestion', { actId: 'same-question', text: 'Is the shed included?' });
  expect(await count('question_asked')).toBe(1);
});

test('wrong links, foreign documents and pages that are not there say nothing of what exists', async () => {
  expect((await nobody('signing', 'no-such-token')).problem.type).toBe('/problems/dead-link');
  expect((await nobody('signingPage', wren, undefined, { documentId: 'other', page: 1 })).status).toBe(404);
  expect((await nobody('signingPage', wren, undefined, { documentId, page: 99 })).status).toBe(404);
});

test('a withdrawn packet closes every link and tells those who were asked', async () => {
  const p = await server.ok('newPacket', {
    params: { dealId: deal.id },
    body: { name: 'Second', documentIds: [documentId] },
  });
  await server.edit(
    p.id,
    deal.parties.map((x, i) => ({
      op: 'put',
      list: 'marks',
      item: {
        id: `s${i}`,
        documentId,
        page: 1,
        kind: 'signature',
        partyId: x.id,
        rect: { x: 40 + i * 180, y: 690, w: 150, h: 24 },
        required: true,
      },
    })),
  );
  await server.send(p.id);
  const token = await server.tokenFor(p.id, 'Wren Alder');
  expect((await server.call('withdrawPacket', { params: { packetId: p.id }, body: { reason: '' } })).status).toBe(422);
  await server.ok('withdrawPacket', { params: { packetId: p.id }, body: { reason: 'New terms' } });
  expect((await nobody('signing', token)).status).toBe(410);
  const page = await server.ok('mailroom', {
    query: { packetId: p.id },
  });
  expect(
    page.items
      .filter((m) => m.kind === 'withdrawn')
      .map((m) => m.toName)
      .sort(),
  ).toEqual(['Callum Alder', 'Wren Alder']);
});

test('declining ends the packet and tells the sender why', async () => {
  expect((await nobody('decline', callum, { reason: '' })).status).toBe(422);
  expect((await nobody('decline', callum, { reason: 'The price is wrong' })).status).toBe(200);
  const after = await server.ok('packet', { params: { packetId: packet.id } });
  expect(after.status).toBe('declined');
  expect((await nobody('finish', wren, { actId: 'f' })).problem.type).toBe('/problems/ended');
});

test('signing in is throttled per address, and other sites cannot act for a member', async () => {
  const attempt = (password: string) =>
    server.call('signIn', { body: { email: 'odile@example.com', password }, as: 'nobody' });
  expect((await attempt('wrong')).status).toBe(401);
  for (let i = 0; i < 7; i++) await attempt('wrong');
  expect((await attempt('long enough 1')).status).toBe(429);
  const foreign = await server.call('newDeal', {
    body: { kind: 'sale', address: 'x' },
    headers: { origin: 'https://elsewhere.test', host: 'localhost' },
  });
  expect(foreign.status).toBe(403);
  expect(
    (
      await server.call('setup', {
        body: { firmName: 'x', timeZone: 'UTC', name: 'x', email: 'x@y.zz', password: '0123456789' },
      })
    ).status,
  ).toBe(409);
});

test('a link that ends while what comes with it is still on its way opens nothing', async () => {
  const { app } = server.running;
  await app.listen({ port: 0, host: '127.0.0.1' });
  const { port } = app.server.address() as AddressInfo;
  const { sent, deal: other } = await another('Una Vane');
  const token = await server.tokenFor(sent.id, 'Una Vane');
  const body = JSON.stringify({ actId: 'question-of-una', text: 'Is the shed included?' });
  const ask = request({
    port,
    method: 'POST',
    path: urlOf('askQuestion', { token }),
    headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) },
  });
  const answered = new Promise<number>((resolve, reject) => {
    ask.on('response', (r) => resolve(r.resume().statusCode!)).on('error', reject);
  });
  ask.write(body.slice(0, 10));
  // Let in at the door; the rest of it comes when the link is another one.
  await new Promise((soon) => setTimeout(soon, 700));
  await server.ok('changePacket', {
    params: { packetId: sent.id },
    body: { type: 'renew_link', partyId: other.parties[0]!.id },
  });
  ask.end(body.slice(10));
  expect(await answered).toBe(404);
  expect((await server.ok('packet', { params: { packetId: sent.id } })).sent!.questions).toEqual([]);
});

/** Returns a packet that one person signs. */
async function another(name: string): Promise<{ sent: PacketView; deal: DealView }> {
  const own = await server.deal('5 Lock Street', [{ side: 'seller', name }]);
  const doc = await server.uploadReady(own.id, 'a.pdf', await paper({ pages: 1 }));
  const draft = await server.ok('newPacket', {
    params: { dealId: own.id },
    body: { name: 'Papers', documentIds: [doc.id] },
  });
  await server.edit(draft.id, [
    markEdit('s', doc.id, 1, 'signature', own.parties[0]!.id, { x: 72, y: 640, w: 160, h: 26 }),
  ]);
  return { sent: await server.send(draft.id), deal: own };
}
