/** A PostgreSQL server that crashes three times while clients sign: the server stays up, and no answered act is lost. */
import { createRequire } from 'node:module';
import path from 'node:path';
import type { SigningView } from '@gatepath/contract';
import { sure } from '@gatepath/core/sure';
import { paper } from '../server/test/papers';
import { emptyDatabaseOn } from '../server/test/postgres';
import { markEdit } from '../server/test/way';
import { eventually } from './browser';
import { Office } from './office';
import { ROOT, ServerProcess } from './server';

interface Cluster {
  url: string;
  crash(): void;
  start(): void;
  remove(): void;
}
const { startCluster } = createRequire(path.join(ROOT, 'package.json'))('./server/test/cluster.cjs') as {
  startCluster(options: { durable: boolean }): Promise<Cluster>;
};

jest.setTimeout(400_000);

const CLIENTS = ['Wren', 'Callum', 'Priya', 'Mateo'];
const PAGES = 12;
const RESTARTS = 3;

let cluster: Cluster;
let server: ServerProcess;
let office: Office;
beforeAll(async () => {
  cluster = await startCluster({ durable: true });
  server = await ServerProcess.start({}, { databaseUrl: await emptyDatabaseOn(cluster.url) });
  office = new Office(server);
  await office.setUp();
});
afterAll(async () => {
  await server?.remove();
  cluster?.remove();
});

/** Number of responses by HTTP status. */
const statuses = new Map<number, number>();
const refused = () => statuses.get(503) ?? 0;

/** Repeats a request until it succeeds, as a client's device does. Fails on any status but 200 and 503. */
async function insist<T>(method: string, url: string, body?: object): Promise<T> {
  for (;;) {
    const r = await fetch(server.url + url, {
      method,
      headers: body ? { 'content-type': 'application/json' } : {},
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    statuses.set(r.status, (statuses.get(r.status) ?? 0) + 1);
    if (r.ok) return (await r.json()) as T;
    expect([r.status, await r.text()]).toEqual([503, expect.any(String)]);
    expect(Number(r.headers.get('retry-after'))).toBeGreaterThan(0);
    await new Promise((next) => setTimeout(next, 150));
  }
}

/**
 * Returns a packet of one paper out for one seller, who initials each page and signs the last.
 *
 * @returns its id and the link's path
 */
async function packetFor(name: string): Promise<{ id: string; sign: string }> {
  const deal = await office.deal(`${name}’s house`, [{ side: 'seller', name, email: `${name}@example.com` }]);
  const seller = sure(deal.parties[0], 'the seller').id;
  const doc = await office.paper(deal.id, 'paper.pdf', await paper({ pages: PAGES, title: name }));
  const packet = await office.packet(deal.id, name, [doc.id]);
  const every = { id: 'r', documentId: doc.id, partyIds: [seller], anchor: { fx: 0, fy: 1 }, except: [], moved: [] };
  const { version } = await office.edit(packet.id, [
    { op: 'put', list: 'rules', item: every },
    markEdit('s', doc.id, PAGES, 'signature', seller, { x: 72, y: 690, w: 150, h: 24 }),
  ]);
  await office.call('POST', `/api/packets/${packet.id}/send`, { version, despiteWarnings: true });
  return { id: packet.id, sign: `/api/signing/${(await office.link(packet.id, name)).split('/sign/')[1]}` };
}

test('the database crashes three times while four clients sign: 503 meanwhile, and everything answered is there', async () => {
  const packets = [];
  for (const name of CLIENTS) packets.push({ name, ...(await packetFor(name)) });
  let acts = 0;
  const pause = (ms: number) => new Promise<'pause'>((next) => setTimeout(next, ms, 'pause'));
  const signing = packets.map(async ({ name, sign }) => {
    const view = await insist<SigningView>('GET', sign);
    await insist('POST', `${sign}/agreement`, { agreement: view.agreementText.version });
    await insist('PUT', `${sign}/hand`, { form: 'typed', face: 'caveat', signature: name, initials: name[0] });
    for (const m of view.marks.filter((x) => !x.automatic)) {
      await insist('PUT', `${sign}/marks/${m.id}`, { actId: `act-${m.id}` });
      acts++;
      // What was answered is there for whoever looks next.
      const now = await insist<SigningView>('GET', sign);
      expect(now.marks.find((x) => x.id === m.id)?.done).toBe(true);
    }
    await insist('POST', `${sign}/finish`, { actId: 'finish' });
  });
  const everybody = Promise.all(signing);
  const total = CLIENTS.length * (PAGES + 1);
  for (let n = 1; n <= RESTARTS; n++) {
    // Ends with the error of whoever failed.
    while (acts < (total * n) / (RESTARTS + 1)) await Promise.race([everybody, pause(20)]);
    cluster.crash();
    // Keep the database down until a client has received a 503.
    const before = refused();
    while (refused() === before) await Promise.race([everybody, pause(20)]);
    cluster.start();
  }
  await everybody;
  expect(acts).toBe(total);
  expect(refused()).toBeGreaterThanOrEqual(RESTARTS);
  expect(server.isRunning).toBe(true);
  // Work that was under way is taken up again: each packet is executed and sealed, with every mark once.
  for (const { id } of packets) {
    const { sent } = await eventually(async () => {
      const packet = await office.look(id);
      expect([packet.status, packet.sent!.sealed?.length]).toEqual(['executed', 1]);
      return packet;
    }, 180);
    expect(sent!.fills.filter((f) => f.kind === 'initials' || f.kind === 'signature')).toHaveLength(PAGES + 1);
  }
  expect(await server.stop()).toBe(0);
});
