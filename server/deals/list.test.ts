/** The list of deals: narrowed, ordered and paged to its end, several in hand, kept under names. */
import fc from 'fast-check';
import { Way } from '../test/way';

jest.setTimeout(180_000);

let way: Way;
const made: { id: string; address: string; goal: string | null }[] = [];
beforeAll(async () => {
  way = await Way.start();
  const table = [
    'Address,Kind,Status,Tags,Closing (day)',
    ...Array.from({ length: 130 }, (_, i) => {
      const day = i % 4 ? `2027-0${1 + (i % 9)}-${String(1 + (i % 27)).padStart(2, '0')}` : '';
      return `${(i * 37) % 211} Weir Terrace,${i % 2 ? 'sale' : 'listing'},${i % 5 ? 'active' : 'closed'},${i % 3 ? '' : 'canal'},${day}`;
    }),
  ].join('\n');
  const a = await way.server.post('importTable', { tableKind: 'deals' }, 't.csv', Buffer.from(table), { take: 'all' });
  if (a.status !== 200) throw new Error(a.raw.toString());
  for await (const d of pages({})) made.push({ id: d.id, address: d.address, goal: d.goalOn });
});
afterAll(() => way.stop());

async function* pages(query: Record<string, string>) {
  let after: string | null = null;
  do {
    const page: Awaited<ReturnType<typeof one>> = await one({ ...query, ...(after ? { after } : {}) });
    yield* page.items;
    after = page.next;
  } while (after);
}
const one = (query: Record<string, string>) => way.server.ok('deals', { query });
const all = async (query: Record<string, string>) => {
  const out = [];
  for await (const d of pages(query)) out.push(d);
  return out;
};

test('whatever it is ordered by and however large its pages, a list comes to its end with each deal once', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom('opened', 'address', 'goal'),
      fc.integer({ min: 7, max: 100 }),
      async (order, limit) => {
        const list = await all({ order, limit: String(limit) });
        expect(new Set(list.map((d) => d.id)).size).toBe(made.length);
        expect(list).toHaveLength(made.length);
        const key = (d: (typeof list)[number]) =>
          order === 'address' ? d.address.toLowerCase() : order === 'goal' ? (d.goalOn ?? '9999') : '';
        const keys = list.map(key);
        // As the database compares, which is not always by letters.
        if (order === 'goal') expect(keys).toEqual([...keys].sort());
      },
    ),
    { numRuns: 8 },
  );
});

test('it is narrowed by kind, status, tag, who works on it, what waits and what is archived', async () => {
  const count = async (query: Record<string, string>) => (await all(query)).length;
  expect(await count({ kind: 'sale' })).toBe(65);
  expect(await count({ status: 'closed' })).toBe(26);
  expect(await count({ status: 'open' })).toBe(104);
  expect(await count({ tag: 'canal', kind: 'listing' })).toBe(22);
  expect(await count({ waits: 'true' })).toBe(0);
  expect(await count({ search: '%' })).toBe(0);
  const me = (await way.server.ok('session')).member!.id;
  expect(await count({ memberId: me })).toBe(0);
  const ids = made.slice(0, 5).map((d) => d.id);
  const given = await way.server.ok('dealsAct', { body: { dealIds: ids, act: 'give', memberId: me } });
  expect([given, await count({ memberId: me })]).toEqual([{ done: 5, left: [] }, 5]);
  await way.server.ok('dealsAct', { body: { dealIds: ids, act: 'archive' } });
  expect([await count({ archived: 'true' }), await count({ archived: 'false' })]).toEqual([5, made.length - 5]);
  expect(await way.server.ok('dealsAct', { body: { dealIds: ids.slice(0, 2), act: 'archive' } })).toMatchObject({
    done: 0,
    left: [{ why: 'It is so already.' }, { why: 'It is so already.' }],
  });
});

test('an act on several names what it could not do, and leaves the others done', async () => {
  const { packet, deal } = await way.send([{ name: 'Wren Alder', email: 'wren@example.com' }], [{ names: ['Wren'] }]);
  const nudged = await way.server.ok('dealsAct', { body: { dealIds: [deal.id, made[9]!.id, 'gone'], act: 'nudge' } });
  expect(nudged).toEqual({
    done: 1,
    left: [{ dealId: made[9]!.id, address: made[9]!.address, why: 'No packet waits.' }],
  });
  expect((await way.newest(packet.id, 'Wren Alder', 'nudge')).subject).toContain('Reminder');
  const tag = (t: object) => way.server.call('dealsAct', { body: { dealIds: [deal.id], ...t } });
  expect((await tag({ act: 'tag' })).problem.type).toBe('/problems/bad-act');
  expect((await tag({ act: 'give', memberId: 'nobody' })).problem.type).toBe('/problems/unknown-member');
  expect((await tag({ act: 'tag', tag: 'slow' })).body).toEqual({ done: 1, left: [] });
  expect((await way.server.ok('deal', { params: { dealId: deal.id } })).tags).toEqual(['slow']);
});

test('it is narrowed by the gate a packet stands at and by whose side holds it up; tags that are in use can be chosen', async () => {
  const { deal } = await way.send([{ name: 'Tobias Mercer', email: 'tobias@example.com' }], [{ names: ['Tobias'] }]);
  const has = async (query: Record<string, string>) => (await all(query)).some((d) => d.id === deal.id);
  expect([await has({ waits: 'true' }), await has({ gate: '1' }), await has({ gate: '2' })]).toEqual([
    true,
    true,
    false,
  ]);
  expect([await has({ holdUp: 'seller' }), await has({ holdUp: 'buyer' })]).toEqual([true, false]);
  expect((await way.server.call('deals', { query: { gate: '0' } })).status).toBe(422);
  expect((await way.server.ok('dealTags')).tags[0]).toBe('canal');
});

test('what is found of open deals stands before what is found of those that are over', async () => {
  const over = await way.server.deal('1 Halcyon Quay', []);
  const open = await way.server.deal('2 Halcyon Quay', []);
  const find = async () => (await way.server.ok('find', { query: { q: 'halcyon' } })).deals.map((d) => d.id);
  await way.server.ok('setDeal', { params: { dealId: over.id }, body: { status: 'fell_through' } });
  expect(await find()).toEqual([open.id, over.id]);
  await way.server.ok('setDeal', { params: { dealId: open.id }, body: { status: 'closed' } });
  await way.server.ok('setDeal', { params: { dealId: over.id }, body: { status: 'active' } });
  expect(await find()).toEqual([over.id, open.id]);
});

test('a list is kept under a name, replaced under the same one, and only its own member lets it go', async () => {
  const keep = (name: string, query: object, shared = false) =>
    way.server.ok('saveView', { body: { name, shared, query } });
  await keep('Late', { due: 'late' });
  const { items } = await keep('late', { due: 'late', kind: 'sale' }, true);
  expect(items).toEqual([
    expect.objectContaining({ name: 'late', shared: true, own: true, query: { due: 'late', kind: 'sale' } }),
  ]);
  // What a list is narrowed by is checked like the list itself.
  const odd = await way.server.call('saveView', { body: { name: 'x', query: { kind: 'boat' } } });
  expect(odd.status).toBe(422);
  expect((await way.server.call('deleteView', { params: { viewId: 'another' } })).status).toBe(404);
  expect((await way.server.ok('deleteView', { params: { viewId: items[0]!.id } })).items).toEqual([]);
});

test('a deal that is to be kept is not thrown away before its day', async () => {
  const deal = await way.server.deal('9 Mill Cut', []);
  const set = (retainUntil: string | null) =>
    way.server.ok('setDeal', { params: { dealId: deal.id }, body: { retainUntil } });
  const { deal: kept } = await set('2099-01-01');
  expect([kept.retainUntil, kept.disposable]).toEqual(['2099-01-01', false]);
  expect((await way.server.call('deleteDeal', { params: { dealId: deal.id } })).status).toBe(409);
  await set(null);
  expect((await way.server.call('deleteDeal', { params: { dealId: deal.id } })).status).toBe(204);
});
