/** When a kit goes, whom it reports to, in whose name it is sent, and what nudges say. */
import { addDays, dayOf, hourOf, sendingDay } from '@gatepath/core/calendar';
import type { DraftEdit } from '@gatepath/core/packet';
import type { ShelfItemView } from '@gatepath/contract';
import { listMembers } from '../firm/queries';
import { queueDueWork } from '../schedule/calendar';
import { markEdit, Way } from '../test/way';
import { paper } from '../test/papers';

jest.setTimeout(120_000);

const ZONE = 'America/New_York';
let way: Way;
let kit: ShelfItemView;
let odile: string;
let tobias: { id: string; cookie: string };

beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
  odile = way.server.cookie;
  tobias = await way.server.member('Tobias Vane', 'tobias@firm.test');
  kit = await kitOf();
});
afterAll(() => way.stop());

/** Returns a kit of one paper that one seller signs. */
async function kitOf(): Promise<ShelfItemView> {
  const deal = await way.server.deal('1 Mill Cut', ['Wren Alder']);
  const doc = await way.server.uploadReady(deal.id, 'paper.pdf', await paper({ pages: 1 }));
  const params = { dealId: deal.id };
  const draft = await way.server.ok('newPacket', { params, body: { name: 'Notice', documentIds: [doc.id] } });
  const place = { x: 72, y: 640, w: 160, h: 26 };
  await way.server.edit(draft.id, [markEdit('s', doc.id, 1, 'signature', deal.parties[0]!.id, place)]);
  const kept = await way.server.ok('addToShelf', { body: { packetId: draft.id, name: 'Notice' } });
  return kept;
}
const now = () => way.server.ctx.clock.now().toISOString();
const inZone = () => dayOf(now(), ZONE);
const schedule = (more: object) => ({ ...kit.draft.schedule, ...more });

/** Changes the kit and puts it on the shelf anew. */
async function change(edits: DraftEdit[], set: Parameters<typeof put>[0] = {}): Promise<void> {
  const params = { shelfId: kit.id };
  const { version } = await way.server.ok('editShelfItem', { params, body: { edits } });
  kit = await way.server.ok('putOnShelf', { params, body: { version } });
  await put(set);
}
const put = (body: { locks?: ('schedule' | 'reports')[]; lastIn?: number | null }) =>
  way.server.ok('setShelfItem', { params: { shelfId: kit.id }, body });
const use = (dealId: string, body: object = {}) =>
  way.server.call('useKit', {
    params: { dealId, shelfId: kit.id },
    body: { send: true, despiteWarnings: true, ...body },
  });
const look = (packetId: string) => way.server.ok('packet', { params: { packetId } });
const mails = async (packetId: string, kind: string) =>
  (await way.server.ok('mailroom', { query: { packetId } })).items.filter((m) => m.kind === kind);
const textOf = async (messageId: string) => (await way.server.ok('message', { params: { messageId } })).bodyText;
/** Lets the hour come at which the kit goes. */
async function untilItGoes(): Promise<void> {
  const due = sendingDay({ days: 1, hour: 8 }, now(), ZONE, []);
  await advanceHours((Date.parse(hourOf(due.day, due.hour, ZONE)) - Date.parse(now())) / 3_600_000 + 1);
}
async function advanceHours(hours: number): Promise<void> {
  way.server.ctx.clock.forward(hours * 3_600_000);
  await queueDueWork(way.server.ctx);
  await way.server.ctx.jobs.idle('tick');
}

test('a kit goes at its own hour, its last day counts from then, and whom it reports to is told', async () => {
  await change(
    [
      { op: 'set', field: 'schedule', value: schedule({ sending: { days: 1, hour: 8 } }) },
      { op: 'set', field: 'reports', value: [tobias.id, 'who-left-since'] },
    ],
    { lastIn: 3 },
  );
  const deal = await way.server.deal('2 Mill Cut', ['Wren Alder']);
  const trial = await way.server.ok('tryKit', { params: { dealId: deal.id, shelfId: kit.id }, body: {} });
  const due = sendingDay({ days: 1, hour: 8 }, now(), ZONE, []);
  expect(trial).toMatchObject({ later: due, timeZone: ZONE, reports: [tobias.id, 'who-left-since'] });
  expect(trial.lastDay! > addDays(due.day, 2)).toBe(true);
  const waits = (await use(deal.id)).body;
  expect([waits.status, waits.later?.by]).toEqual(['drafting', 'Odile Farrant']);
  await untilItGoes();
  expect((await look(waits.id)).status).toBe('at_gate');
  await way.signAll(await way.server.tokenFor(waits.id, 'Wren Alder'), 'Wren Alder');
  await way.sealed(waits.id);
  expect((await mails(waits.id, 'notice_executed')).map((m) => m.toName).sort()).toEqual([
    'Odile Farrant',
    'Tobias Vane',
  ]);
});

test('what is open of it is changed for one packet: another hour, at once, other members', async () => {
  const deal = await way.server.deal('3 Mill Cut', ['Wren Alder']);
  const own = { day: addDays(inZone(), 2), hour: 15 };
  const other = (await use(deal.id, { later: own, reports: [] })).body;
  expect(other.later?.at).toMatch(/T(19|20):00:00/);
  expect(other.draft).toMatchObject({ reports: [], schedule: { sending: null } });
  const past = await use(deal.id, { later: { day: addDays(inZone(), -1), hour: 9 } });
  expect([past.problem.type, past.problem.detail]).toEqual([
    '/problems/gate-check',
    'This time has passed in the deal’s time zone. Choose a later one.',
  ]);
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).packets).toHaveLength(1);
  expect((await use(deal.id, { later: null })).body.status).toBe('at_gate');
});

test('locked, it goes at its hour and no other, in use, at the desk and through the API', async () => {
  await put({ locks: ['schedule', 'reports'] });
  const deal = await way.server.deal('4 Mill Cut', ['Wren Alder']);
  for (const body of [{ later: null }, { later: { day: addDays(inZone(), 5), hour: 9 } }, { reports: [] }]) {
    const no = await use(deal.id, body);
    expect([no.status, no.problem.type]).toEqual([403, '/problems/locked-setting']);
  }
  const draft = (await use(deal.id, { send: false })).body;
  const params = { packetId: draft.id };
  const body = { version: draft.version, despiteWarnings: true };
  const atOnce = await way.server.call('sendPacket', { params, body });
  expect([atOnce.status, atOnce.problem.type]).toEqual([403, '/problems/locked-setting']);
  expect(atOnce.problem.detail).toContain('Odile Farrant locked when it goes');
  const due = sendingDay({ days: 1, hour: 8 }, now(), ZONE, []);
  const early = await way.server.call('sendLater', { params, body: { ...body, ...due, hour: 7 } });
  expect(early.problem.type).toBe('/problems/locked-setting');
  const edits: DraftEdit[] = [{ op: 'set', field: 'reports', value: [] }];
  expect((await way.server.call('editPacket', { params, body: { edits } })).status).toBe(403);
  expect((await way.server.ok('sendLater', { params, body: { ...body, ...due } })).later?.by).toBe('Odile Farrant');
  await put({ locks: [] });
});

test('sent later for a colleague it goes in their name, unless they take it back meanwhile', async () => {
  const [first, second] = [
    await way.server.deal('5 Mill Cut', ['Wren Alder']),
    await way.server.deal('6 Mill Cut', ['Wren Alder']),
  ];
  expect((await use(first.id, { forId: tobias.id })).problem.type).toBe('/problems/not-allowed-for');
  expect((await way.server.ok('deal', { params: { dealId: first.id } })).packets).toEqual([]);
  const lets = async (ids: string[]) => {
    way.server.cookie = tobias.cookie;
    await way.server.ok('setLets', { body: { lets: ids } });
    way.server.cookie = odile;
  };
  const me = (await listMembers(way.server.ctx.database.pool)).find((m) => m.name === 'Odile Farrant')!;
  await lets([me.id]);
  const waits = (await use(first.id, { forId: tobias.id })).body;
  expect(waits.later).toMatchObject({ by: 'Odile Farrant', inNameOf: 'Tobias Vane' });
  await untilItGoes();
  const [ask] = await mails(waits.id, 'ask');
  expect(await textOf(ask!.id)).toContain('Tobias Vane of Towpath & Vane Realty asks you');
  const next = (await use(second.id, { forId: tobias.id })).body;
  await lets([]);
  await untilItGoes();
  const held = await look(next.id);
  expect([held.status, held.later?.at]).toEqual(['drafting', null]);
  expect(held.later?.problem).toContain('has not allowed you');
});

test('nudges say the sender’s own words, with tags: those of the kit by themselves, others by hand', async () => {
  const nudge = { first: 1, every: 1, most: 3, businessDays: false, words: 'The lock is closed for {seller 1}.' };
  await change([{ op: 'set', field: 'schedule', value: schedule({ sending: null, nudge }) }]);
  const deal = await way.server.deal('7 Mill Cut', ['Wren Alder']);
  const sent = (await use(deal.id)).body;
  expect(sent.status).toBe('at_gate');
  const params = { packetId: sent.id };
  await way.server.ok('changePacket', {
    params,
    body: { type: 'nudge', partyIds: [], words: ' Call me before noon, {seller 1}. ' },
  });
  const said = async () => Promise.all((await mails(sent.id, 'nudge')).map((m) => textOf(m.id)));
  expect((await said())[0]).toContain('\n\nCall me before noon, Wren Alder.\n\n');
  await advanceHours(48);
  const all = (await said()).join('\n');
  expect(all).toContain('The lock is closed for Wren Alder.');
  expect(all.match(/Call me before noon/g)).toHaveLength(1);
});
