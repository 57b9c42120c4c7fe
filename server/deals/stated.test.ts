/** Documents that state something otherwise than their deal, against a real server. */
import type { DealView } from '@gatepath/contract';
import { extension, type ExtensionTerms } from '../test/contract';
import { serverAtNoon, type Way } from '../test/way';

jest.setTimeout(120_000);

let way: Way;
serverAtNoon((started) => (way = started));

const look = (id: string) => way.server.ok('deal', { params: { dealId: id } });

/** Opens a sale that closes on January 15 for $412,000. */
async function sale(): Promise<DealView> {
  const deal = await way.server.ok('newDeal', {
    body: {
      kind: 'sale',
      address: '26 Lock Hill',
      parties: [
        { side: 'seller', name: 'Orla Byrne' },
        { side: 'buyer', name: 'Maren Aalto' },
      ],
    },
  });
  await way.server.ok('setDeal', {
    params: { dealId: deal.id },
    body: { facts: { price: 412_000 }, dates: { accepted: '2026-12-20', closing: '2027-01-15' } },
  });
  return look(deal.id);
}

/** Adds an extension to a deal, and returns the deal once it is read. */
async function extended(deal: DealView, terms: ExtensionTerms = {}, name = 'Extension.pdf'): Promise<DealView> {
  await way.server.uploadReady(deal.id, name, await extension(terms));
  await way.server.ctx.jobs.idle('read');
  await way.server.ctx.jobs.idle('abstract');
  await way.server.ctx.jobs.idle('deal');
  return look(deal.id);
}

const act = (deal: DealView, what: 'accept' | 'dismiss', n = 0) => {
  const { documentId, field, value } = deal.stated[n]!;
  return way.server.call('actOnStated', {
    params: { dealId: deal.id },
    body: { documentId, field, value, act: what },
  });
};

test('an extension that moves closing is reported with its words, and accepted in one act', async () => {
  const deal = await extended(await sale());
  expect(deal.stated).toMatchObject([
    {
      field: 'date.closing',
      value: '2027-01-29',
      words: 'closing Fri, Jan 29, 2027; the deal says Fri, Jan 15, 2027',
      source: { page: 1 },
    },
  ]);
  expect(deal.stated[0]!.source.words).toContain('extended to January 29, 2027');
  expect(deal.next.map((n) => n.act.do)).toContain('stated');
  const accepted = (await act(deal, 'accept')).body;
  expect(accepted.dates.closing).toBe('2027-01-29');
  expect(accepted.stated).toEqual([]);
  const said = JSON.stringify(await way.server.ok('dealActivity', { params: { dealId: deal.id } }));
  expect(said).toContain('“Extension”, page 1');
});

test('the due days that count from closing move with it', async () => {
  const before = await extended(await sale());
  const due = (d: DealView) =>
    d.requirements.flatMap((r) => (r.due && r.due.why.includes('before') ? [[r.ruleId, r.due.day]] : []));
  const closing = due(before);
  expect(closing.length).toBeGreaterThan(0);
  const after = due((await act(before, 'accept')).body);
  expect(after.map(([id]) => id)).toEqual(closing.map(([id]) => id));
  for (const [i, [, day]] of after.entries()) expect(day! > closing[i]![1]!).toBe(true);
});

test('the first screen reports it', async () => {
  const deal = await extended(await sale());
  const today = await way.server.ok('today');
  const item = today.waiting.items.find((i) => i.dealId === deal.id && i.act.do === 'stated');
  expect(item).toMatchObject({ title: 'Review what “Extension” says' });
  expect(item!.detail).toContain('closing Fri, Jan 29, 2027; the deal says Fri, Jan 15, 2027');
});

test('an addendum that nobody has signed changes nothing', async () => {
  expect((await extended(await sale(), { signed: '' })).stated).toEqual([]);
});

test('what is dismissed is not reported again, and the deal stays as it is', async () => {
  const deal = await extended(await sale(), { price: '$405,000' });
  expect(deal.stated.map((s) => s.field).sort()).toEqual(['date.closing', 'fact.price']);
  const n = deal.stated.findIndex((s) => s.field === 'fact.price');
  const left = (await act(deal, 'dismiss', n)).body;
  expect(left.stated.map((s) => s.field)).toEqual(['date.closing']);
  expect(left.facts['price']).toBe(412_000);
});

test('of two addenda the newer one counts', async () => {
  const first = await extended(await sale(), { closing: 'January 22, 2027' });
  const both = await extended(first, { closing: 'February 5, 2027' }, 'Second extension.pdf');
  expect(both.stated).toMatchObject([{ field: 'date.closing', value: '2027-02-05', name: 'Second extension' }]);
});

test('another buyer is reported and added', async () => {
  const deal = await extended(await sale(), { closing: 'January 15, 2027', buyers: 'Priya Nair' });
  const n = deal.stated.findIndex((s) => s.field === 'side.buyer');
  expect(deal.stated[n]).toMatchObject({ value: 'Priya Nair', words: 'buyer Priya Nair; the deal says Maren Aalto' });
  const added = (await act(deal, 'accept', n)).body;
  expect(added.parties.filter((p) => p.side === 'buyer').map((p) => p.name)).toEqual(['Maren Aalto', 'Priya Nair']);
});

test('a day that is counted beyond the calendar is not reported', async () => {
  const deal = await sale();
  await way.server.ok('setDeal', { params: { dealId: deal.id }, body: { dates: { closing: '2200-12-30' } } });
  expect((await extended(await look(deal.id), { closing: 'January 15, 9999' })).stated).toEqual([]);
});

test('what no document states cannot be accepted', async () => {
  const deal = await extended(await sale());
  const { documentId } = deal.stated[0]!;
  for (const body of [
    { documentId, field: 'date.closing', value: '2030-01-01', act: 'accept' },
    { documentId: 'nothing', field: 'date.closing', value: '2027-01-29', act: 'accept' },
    { documentId, field: 'fact.rent', value: '2027-01-29', act: 'dismiss' },
  ])
    expect((await way.server.call('actOnStated', { params: { dealId: deal.id }, body })).status).toBe(404);
  await act(deal, 'accept');
  expect((await act(deal, 'accept')).status).toBe(404);
});
