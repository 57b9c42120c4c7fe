/** Sending at a day and hour of the deal's own time. */
import type { PacketView } from '@gatepath/contract';
import { addDays, dayOf } from '@gatepath/core/calendar';
import { queueDueWork } from '../schedule/calendar';
import { markEdit, Way } from '../test/way';
import { paper } from '../test/papers';

jest.setTimeout(120_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
});
afterAll(() => way.stop());

const tomorrow = () => addDays(dayOf(way.server.ctx.clock.now().toISOString(), 'America/New_York'), 1);

/** Returns a draft that can go. */
async function ready(name: string): Promise<PacketView> {
  const deal = await way.server.deal('14 Lantern Row', [name]);
  const doc = await way.server.uploadReady(deal.id, 'paper.pdf', await paper({ pages: 1 }));
  const params = { dealId: deal.id };
  const draft = await way.server.ok('newPacket', { params, body: { name: 'Papers', documentIds: [doc.id] } });
  const who = deal.parties[0]!.id;
  await way.server.edit(draft.id, [markEdit('s', doc.id, 1, 'signature', who, { x: 72, y: 640, w: 160, h: 26 })]);
  return way.server.ok('packet', { params: { packetId: draft.id } });
}
const set = (p: PacketView, more: object = {}) =>
  way.server.call('sendLater', {
    params: { packetId: p.id },
    body: { version: p.version, day: tomorrow(), hour: 8, despiteWarnings: true, ...more },
  });
const look = (p: PacketView) => way.server.ok('packet', { params: { packetId: p.id } });
const advanceHours = async (hours: number) => {
  way.server.ctx.clock.forward(hours * 3_600_000);
  await queueDueWork(way.server.ctx);
  await way.server.ctx.jobs.idle('tick');
};

test('a draft waits for its hour where the deal is, and goes then, once', async () => {
  const p = await ready('Wren Alder');
  const waits = (await set(p)).body;
  // Eight in the morning in New York.
  expect(waits.later?.at).toMatch(/T1[23]:00:00/);
  expect(waits.later).toMatchObject({ by: 'Odile Farrant', problem: null });
  await advanceHours(12);
  expect((await look(p)).status).toBe('drafting');
  await advanceHours(9);
  const sent = await look(p);
  expect([sent.status, sent.later]).toEqual(['at_gate', null]);
  await advanceHours(1);
  const asks = (await way.server.ok('mailroom', { query: { packetId: p.id } })).items.filter((m) => m.kind === 'ask');
  expect(asks).toHaveLength(1);
  expect((await set(p)).problem.type).toBe('/problems/already-sent');
});

test('a sending that waits is stopped, and the draft stays', async () => {
  const p = await ready('Callum Alder');
  await set(p);
  const stopped = await way.server.ok('sendNotLater', { params: { packetId: p.id } });
  expect([stopped.status, stopped.later]).toEqual(['drafting', null]);
  await advanceHours(48);
  expect((await look(p)).status).toBe('drafting');
});

test('what could not go is not set to go; what cannot go any more stays a draft, and whoever set it is told why', async () => {
  const p = await ready('Agnes Thorvald');
  for (const body of [{ day: addDays(tomorrow(), -3) }, { day: addDays(tomorrow(), 500) }])
    expect((await set(p, body)).problem.type).toBe('/problems/bad-day');
  await set(p);
  await way.server.edit(p.id, [{ op: 'drop', list: 'marks', id: 's' }]);
  expect((await set(await look(p))).problem.type).toBe('/problems/gate-check');
  await advanceHours(24);
  const still = await look(p);
  expect([still.status, still.later?.at, still.later?.problem]).toEqual([
    'drafting',
    null,
    expect.stringContaining('has no signature anywhere'),
  ]);
  const { items } = await way.server.ok('mailroom', { query: { limit: '20' } });
  const mail = await way.server.ok('message', { params: { messageId: items.find((m) => m.kind === 'not_sent')!.id } });
  expect(mail.bodyText).toContain('has no signature anywhere');
  await advanceHours(24);
  const told = (await way.server.ok('mailroom', { query: { limit: '40' } })).items.filter((m) => m.kind === 'not_sent');
  expect(told).toHaveLength(1);
});
