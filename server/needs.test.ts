/** What a deal needs, on a real server: facts change it, papers meet it, members and first screens hear of it. */
import { existsSync } from 'node:fs';
import type { DealView } from '@gatepath/contract';
import { addDays } from '@gatepath/core/calendar';
import { Way } from './test/way';
import { paper } from './test/papers';

jest.setTimeout(240_000);

let way: Way;
beforeAll(async () => {
  way = await Way.start();
  way.server.toNoon();
});
afterAll(() => way.stop());

const params = (dealId: string) => ({ params: { dealId } });
const set = (dealId: string, body: object) => way.server.ok('setDeal', { ...params(dealId), body });
const look = (dealId: string) => way.server.ok('deal', params(dealId));
const settled = async (dealId: string): Promise<DealView> => {
  await way.server.ctx.jobs.idle('deal');
  return look(dealId);
};
const needed = (deal: DealView, paper: string) => deal.requirements.find((r) => r.paper === paper);
const today = async () => (await way.server.ok('today')).today;

test('a year that changes adds a paper with its day; an executed one meets it; waived it stays so until the facts change', async () => {
  const people = [{ name: 'Wren Alder', email: 'wren@example.com' }];
  const sent = await way.send(people, [{ names: ['Wren'] }]);
  const dealId = sent.deal.id;
  // Rules for a house we sell: seller alone signs here, so that one person can meet it.
  const { rules } = await way.server.ok('rules');
  const lead = rules.find((r) => r.id === 'sample-sale-lead_paint')!;
  const { id: _, sample: __, ...body } = lead;
  await way.server.ok('setRule', { params: { ruleId: lead.id }, body: { ...body, signers: ['seller'] } });
  await way.server.ctx.jobs.idle('rules');
  const day = await today();
  await set(dealId, { facts: { year_built: 1985 }, dates: { accepted: day } });
  expect(needed(await look(dealId), 'lead_paint')).toBeUndefined();

  const changed = await set(dealId, { facts: { year_built: 1972 } });
  expect(changed.added).toEqual(['Lead paint disclosure']);
  expect(needed(changed.deal, 'lead_paint')).toMatchObject({ state: 'open', reason: 'built before 1978' });
  expect(needed(changed.deal, 'lead_paint')!.due!.why).toMatch(/3 business days after/);
  const before = changed.deal.readiness;

  const documentId = sent.packet.sent!.plan.documents[0]!.id;
  await way.server.ok('setDocument', { params: { documentId }, body: { type: 'lead_paint' } });
  expect(needed(await settled(dealId), 'lead_paint')).toMatchObject({ corner: 'out' });
  await way.signAll(await way.server.tokenFor(sent.packet.id, 'Wren Alder'), 'Wren Alder');
  const after = await settled(dealId);
  expect(needed(after, 'lead_paint')).toMatchObject({ state: 'met', corner: 'executed', packetId: sent.packet.id });
  expect(after.readiness.met).toBe(before.met + 1);
  expect(after.signatures).toEqual({ done: 1, of: 1 });
  expect(after.initials).toEqual({ done: 2, of: 2 });

  const moved = await set(dealId, { dates: { accepted: addDays(day, 7) } });
  expect(moved.moved.map((m) => m.title)).toContain('Lead paint disclosure');
  const { sentence } = (await way.server.ok('dealActivity', params(dealId))).items[0]!;
  expect(sentence).toMatch(/^Odile Farrant: accepted, the day, was .*, is /);
});

test('what is done without is said with a name, and asked for again when the facts behind it change', async () => {
  const deal = await way.server.deal('2 Weir Terrace', ['Wren Alder']);
  await set(deal.id, { facts: { association: true } });
  const ruleId = 'sample-sale-association';
  const waived = await way.server.ok('waive', { params: { dealId: deal.id, ruleId }, body: { reason: 'dissolved' } });
  expect(needed(waived.deal, 'association')).toMatchObject({
    state: 'waived',
    words: 'waived by Odile Farrant: dissolved',
  });
  await set(deal.id, { facts: { association: false } });
  const back = await set(deal.id, { facts: { association: true } });
  // The same facts again: what was said of them holds.
  expect(needed(back.deal, 'association')!.state).toBe('waived');
  await way.server.ok('unwaive', { params: { dealId: deal.id, ruleId } });
  expect(needed(await look(deal.id), 'association')!.state).toBe('open');
  const no = await way.server.call('unwaive', { params: { dealId: deal.id, ruleId } });
  expect(no.status).toBe(404);
});

test('a paper from elsewhere, and one nobody signs, stand for what they are', async () => {
  const deal = await way.server.deal('3 Weir Terrace', ['Wren Alder']);
  await set(deal.id, { facts: { association: true, water: 'well' } });
  const a = await way.server.uploadReady(deal.id, 'rules of the association.pdf', await paper({ pages: 1 }));
  const w = await way.server.uploadReady(deal.id, 'well.pdf', await paper({ pages: 1 }));
  await way.server.ok('setDocument', {
    params: { documentId: a.id },
    body: { type: 'association', unsigned: true, endsOn: '2027-06-30' },
  });
  await way.server.ok('setDocument', {
    params: { documentId: w.id },
    body: { type: 'water', elsewhereOn: '2026-11-20' },
  });
  const now = await settled(deal.id);
  expect(needed(now, 'association')).toMatchObject({ state: 'met' });
  expect(needed(now, 'water')).toMatchObject({ state: 'met', words: 'signed elsewhere Fri, Nov 20' });
  expect(now.documents.find((d) => d.id === a.id)).toMatchObject({ endsOn: '2027-06-30', unsigned: true });
});

test('facts, statuses and members that are none are refused by name, and change nothing', async () => {
  const deal = await way.server.deal('4 Weir Terrace', ['Wren Alder']);
  const no = async (body: object) => {
    const a = await way.server.call('setDeal', { ...params(deal.id), body });
    return [a.status, a.problem.detail];
  };
  expect(await no({ facts: { year_built: 'old' } })).toEqual([422, 'Year built: write a year, like 1972.']);
  expect(await no({ facts: { nothing: 1 } })).toEqual([422, '“nothing” is not a fact of this firm.']);
  expect(await no({ facts: { kind: 'sale' } })).toEqual([422, '“kind” is not a fact of this firm.']);
  expect(await no({ status: 'running' })).toEqual([422, 'A sale cannot be “current”.']);
  expect(await no({ forWhom: 'tenant' })).toEqual([
    422,
    'In a sale the firm cannot act for the tenant. Choose another side.',
  ]);
  expect((await no({ memberIds: ['nobody'] }))[0]).toBe(422);
  expect((await no({ dates: { closing: '2026-02-30' } }))[0]).toBe(422);
  expect((await no({ dates: { party: '2026-02-20' } }))[0]).toBe(422);
  expect((await look(deal.id)).facts).toEqual({});
  // A deal that becomes another kind keeps what it can, and stands as deals of that kind begin.
  const { deal: now } = await set(deal.id, { kind: 'tenancy' });
  expect([now.kind, now.forWhom, now.status]).toEqual(['tenancy', 'landlord', 'offered']);
});

test('a deal is closed, taken up again and archived; it is thrown away only while nothing was sent', async () => {
  const fresh = await way.server.deal('5 Weir Terrace', ['Wren Alder']);
  const doc = await way.server.uploadReady(fresh.id, 'x.pdf', await paper({ pages: 1, title: 'Nowhere else' }));
  expect((await look(fresh.id)).disposable).toBe(true);
  expect((await way.server.call('deleteDeal', params(fresh.id))).status).toBe(204);
  expect((await way.server.call('deal', params(fresh.id))).status).toBe(404);
  await way.server.afterAnHour();
  expect(existsSync(way.server.ctx.files.fileOf(doc.sha256))).toBe(false);

  const sent = await way.send([{ name: 'Wren Alder', email: 'wren@example.com' }], [{ names: ['Wren'] }]);
  const no = await way.server.call('deleteDeal', params(sent.deal.id));
  expect([no.status, no.problem.detail]).toEqual([
    409,
    'Papers of this deal were sent, so it cannot be deleted. Close it, or move it to the archive.',
  ]);
  const waits = async () => (await way.server.ok('today')).still.items.some((i) => i.packetId === sent.packet.id);
  await way.server.ctx.jobs.idle('deal');
  expect(await waits()).toBe(true);
  await set(sent.deal.id, { status: 'fell_through' });
  expect(await waits()).toBe(false);
  expect((await look(sent.deal.id)).next).toEqual([]);
  await set(sent.deal.id, { status: 'active' });
  expect(await waits()).toBe(true);
  await set(sent.deal.id, { archived: true });
  expect(await waits()).toBe(false);
  expect((await look(sent.deal.id)).archivedAt).not.toBeNull();
});

test('a rule is tried on the open deals before it is kept, and what is wrong with it is named', async () => {
  const deal = await way.server.deal('6 Weir Terrace', ['Wren Alder'], 'tenant', 'tenancy');
  await set(deal.id, { facts: { pets: true }, dates: { move_in: '2027-01-04' } });
  const rule = {
    kinds: ['tenancy'],
    when: { fact: 'pets', compare: 'is', value: true },
    paper: 'pets',
    title: 'Pet addendum',
    signers: ['tenant'],
    due: { n: 2, unit: 'business_days', way: 'before', roll: true, from: 'move_in' },
    reason: 'pets move in',
  };
  const trial = await way.server.ok('tryRule', { body: rule });
  expect(trial).toMatchObject({ faults: [], asks: 1, unknown: 1 });
  expect(trial.deals[0]).toMatchObject({ id: deal.id, due: '2026-12-31' });
  const { deals } = await way.server.ok('tryRule', {
    body: { ...rule, when: { fact: 'furnished', compare: 'is', value: true } },
  });
  expect(deals[0]!.hangsOn).toEqual(['Furnished']);
  const wrong = { ...rule, when: { all: [rule.when, { fact: 'pets', compare: 'before', value: true }] } };
  const bad = await way.server.ok('tryRule', { body: wrong });
  expect(bad.faults).toEqual([{ part: 'when', at: '1', words: 'Pets has no order: choose “is” or “is not”.' }]);
  const no = await way.server.call('newRule', { body: wrong });
  expect([no.status, no.problem.detail]).toEqual([422, 'Pets has no order: choose “is” or “is not”.']);
  let deep: object = rule.when;
  for (let i = 0; i < 2_000; i++) deep = { not: deep };
  // So deep that it is not even parsed.
  expect((await way.server.call('tryRule', { body: { ...rule, when: deep } })).status).toBe(422);
});

test('a fact of the firm’s own is asked about by its rules, and not taken away while one does', async () => {
  const own = { key: 'own.dock', label: 'Dock', type: 'flag', kinds: ['sale'] };
  const { ownFacts } = await way.server.ok('setOwnFacts', { body: { facts: [own] } });
  expect(ownFacts).toEqual([own]);
  const made = await way.server.ok('newRule', {
    body: {
      kinds: ['sale'],
      when: { fact: 'own.dock', compare: 'is', value: true },
      paper: 'addendum',
      title: 'Dock addendum',
      signers: ['seller'],
      due: null,
      reason: 'there is a dock',
    },
  });
  await way.server.ctx.jobs.idle('rules');
  const deal = await way.server.deal('7 Weir Terrace', ['Wren Alder']);
  expect(deal.asked.map((a) => a.fact)).toContain('own.dock');
  const { deal: now } = await set(deal.id, { facts: { 'own.dock': true } });
  expect(needed(now, 'addendum')).toMatchObject({ title: 'Dock addendum', due: null });
  const no = await way.server.call('setOwnFacts', { body: { facts: [] } });
  expect(no.status).toBe(409);
  await way.server.ok('deleteOneRule', { params: { ruleId: made.rules.find((r) => r.title === 'Dock addendum')!.id } });
  await way.server.ctx.jobs.idle('rules');
  expect(needed(await settled(deal.id), 'addendum')).toBeUndefined();
});

test('the first screen: what waits, what is due, what stands still, what came through, and it is put away', async () => {
  const people = [{ name: 'Priya Nair', email: 'priya@example.com', phone: '555-0101' }];
  const sent = await way.send(people, [{ names: ['Priya'] }]);
  const day = await today();
  await set(sent.deal.id, { dates: { inspection: addDays(day, 2), accepted: addDays(day, -20) } });
  const token = await way.server.tokenFor(sent.packet.id, 'Priya Nair');
  await way.server.ok('askQuestion', {
    params: { token },
    body: { actId: 'ask-the-shed', text: 'Does the shed stay?' },
    as: 'nobody',
  });
  await way.server.ctx.jobs.idle('deal');
  const t = await way.server.ok('today');
  const mine = <T extends { dealId: string }>(list: { items: T[] }) =>
    list.items.filter((i) => i.dealId === sent.deal.id);
  expect(mine(t.waiting).find((a) => a.act.do === 'answer')).toMatchObject({
    title: 'Answer Priya',
    act: { packetId: sent.packet.id },
  });
  expect(mine(t.week).map((i) => [i.what, i.title])).toEqual(
    expect.arrayContaining([
      ['date', 'Inspection'],
      ['paper', 'Purchase agreement'],
    ]),
  );
  expect(mine(t.still)[0]).toMatchObject({ who: 'Priya Nair', phone: '555-0101', act: 'nudge', gate: 0 });
  expect(t.sentence).toMatch(/late\.$/);

  await way.signAll(token, 'Priya Nair');
  await way.sealed(sent.packet.id);
  await way.server.ctx.jobs.idle('deal');
  const through = (await way.server.ok('today')).through;
  expect(mine(through)).toHaveLength(1);
  const now = way.server.ctx.clock.now().toISOString();
  expect((await way.server.ok('seen', { body: { until: now } })).through.items).toEqual([]);
  expect(mine((await way.server.ok('seen', { body: { until: through.since } })).through)).toHaveLength(1);
  expect((await way.server.call('seen', { body: { until: 'never' } })).status).toBe(422);
});

test('of two looks at a deal at once the one that began later stays', async () => {
  const deal = await way.server.deal('8 Weir Terrace', ['Wren Alder']);
  const years = [1950, 1985, 1960, 1990, 1970];
  await Promise.all(years.map((year_built) => set(deal.id, { facts: { year_built } })));
  const now = await settled(deal.id);
  expect(!!needed(now, 'lead_paint')).toBe(Number(now.facts['year_built']) < 1978);
});

test('activity is told by person and by paper, and in parts', async () => {
  const sent = await way.send([{ name: 'Wren Alder', email: 'wren@example.com' }], [{ names: ['Wren'] }]);
  await way.signAll(await way.server.tokenFor(sent.packet.id, 'Wren Alder'), 'Wren Alder');
  const all = await way.server.ok('dealActivity', params(sent.deal.id));
  expect(all.items.map((i) => i.sentence)).toEqual(
    expect.arrayContaining(['Odile Farrant opened the deal.', 'Wren Alder finished.']),
  );
  const seen: string[] = [];
  let before: string | undefined;
  do {
    const part = await way.server.ok('dealActivity', {
      ...params(sent.deal.id),
      query: { limit: '3', ...(before ? { before } : {}) },
    });
    seen.push(...part.items.map((i) => i.id));
    before = part.next ?? undefined;
  } while (before);
  expect(new Set(seen).size).toBe(all.items.length);
  const of = await way.server.ok('dealActivity', { ...params(sent.deal.id), query: { partyId: sent.id('Wren') } });
  expect(of.items.every((i) => i.partyId === sent.id('Wren'))).toBe(true);
  const documentId = sent.packet.sent!.plan.documents[0]!.id;
  const by = await way.server.ok('dealActivity', { ...params(sent.deal.id), query: { documentId } });
  expect(by.items.length).toBeGreaterThan(3);
});
