/** Deals: found, opened, and corrected. */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { DealView, PacketSummary } from '@gatepath/contract';
import type { Next, Requirement } from '@gatepath/core/deal';
import { ApiError } from '../../api/client';
import { dealSummary as deal, dealView, show, type Asked } from '../../test/office';
import { DealsPlace } from './deals-place';
import { FactsCard } from './facts-card';
import { MilePosts, postsOf } from './mile-posts';
import { NeedsCard } from './needs-card';
import { NewDeal } from './new-deal';
import { NextCard } from './next-card';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown, replace: (to: string) => mockWent(to) as unknown },
}));
beforeEach(() => mockWent.mockClear());

const packet = (more: Partial<PacketSummary> = {}): PacketSummary => ({
  id: 'p',
  dealId: 'd1',
  name: 'Papers',
  status: 'at_gate',
  gate: 0,
  gateCount: 2,
  marksDone: 3,
  marksTotal: 12,
  holdUp: 'Wren has not opened it yet.',
  path: [{ partyIds: ['wren'] }, { partyIds: ['tobias'] }],
  parties: [
    { id: 'wren', name: 'Wren Alder', ink: 0, act: 'sign', done: false },
    { id: 'tobias', name: 'Tobias Mercer', ink: 1, act: 'sign', done: false },
  ],
  sentAt: '2026-11-23T12:00:00.000Z',
  endedAt: null,
  createdAt: '2026-11-23T11:00:00.000Z',
  ...more,
});
/** Answers for the list of deals as the server does, whatever else its filters ask for being there and empty. */
const listed = (answer: (url: string) => unknown) => (asked: Asked) =>
  asked.url.startsWith('/api/deals?') ? answer(asked.url) : { tags: [], views: [], items: [], members: [] };

test('deals come in pages, each with what holds its packets up', async () => {
  const asked = show(
    <DealsPlace />,
    listed((url) =>
      url.includes('after=d2')
        ? { items: [deal(1)], next: null }
        : { items: [deal(3, { packets: [packet()] }), deal(2)], next: 'd2' },
    ),
  );
  await screen.findByText('3 Lantern Row');
  screen.getByText(/Wren has not opened it yet/);
  fireEvent.click(screen.getByText('Show older deals'));
  await screen.findByText('1 Lantern Row');
  expect(asked.map((a) => a.url)).toEqual([
    '/api/deals?archived=false&limit=40',
    '/api/deals?archived=false&after=d2&limit=100',
  ]);
});

test('of a long list only what is near is drawn', async () => {
  show(
    <DealsPlace />,
    listed(() => ({ items: Array.from({ length: 400 }, (_, n) => deal(n)), next: null })),
  );
  await screen.findByText('3 Lantern Row');
  expect(screen.getAllByTestId('deal-card').length).toBeLessThan(60);
});

test('a street is found by a part of its name, and what is not there is said so', async () => {
  const all = [1, 2, 3, 4].map((n) => deal(n));
  show(
    <DealsPlace />,
    listed((url) => {
      const search = new URLSearchParams(url.split('?')[1]).get('search') ?? '';
      return { items: all.filter((d) => d.address.includes(search)), next: null };
    }),
  );
  const field = await screen.findByPlaceholderText('Find a street or town');
  fireEvent.change(field, { target: { value: '3 Lan' } });
  await waitFor(() => expect(screen.queryByText('4 Lantern Row')).toBeNull());
  await screen.findByText('3 Lantern Row');
  fireEvent.change(field, { target: { value: 'Quay' } });
  await screen.findByText('No deal has “Quay” in its street or town.');
});

test('whoever begins is told what a deal is', async () => {
  show(<DealsPlace />, () => ({ items: [], next: null }));
  await screen.findByText('No deals yet');
  fireEvent.click(screen.getByTestId('new-deal'));
  expect(mockWent).toHaveBeenCalledWith('/deals/new');
});

test('a deal is opened with its kind and address; without one it is not sent', async () => {
  const all = show(<NewDeal />, () => ({ ...deal(9), parties: [], documents: [], items: [] }));
  // The contracts that wait are asked for as the screen opens.
  const asked = () => all.filter((a) => a.method !== 'GET');
  fireEvent.click(screen.getByTestId('open-deal'));
  await screen.findByText('Give the street address.');
  expect(asked()).toEqual([]);
  fireEvent.click(screen.getByTestId('choice-tenancy'));
  fireEvent.change(screen.getByTestId('field-address'), { target: { value: ' 9 Lantern Row ' } });
  fireEvent.click(screen.getByTestId('open-deal'));
  await waitFor(() => expect(mockWent).toHaveBeenCalledWith('/deals/d9'));
  expect(asked()[0]).toMatchObject({
    method: 'POST',
    url: '/api/deals',
    body: { kind: 'tenancy', forWhom: 'landlord', address: '9 Lantern Row', city: '', parties: [] },
  });
});

const changed = (more: Partial<DealView> = {}) => ({ deal: dealView(more), moved: [], added: [], gone: [] });
const write = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });

test('facts are corrected by their types; only what changed is sent, and what it changed is told', async () => {
  const asked = show(<FactsCard deal={dealView({ facts: { pets: true, price: 400_000 } })} />, () => ({
    ...changed({ facts: { price: 415_000, year_built: 1972 } }),
    added: ['Lead paint disclosure'],
    moved: [{ title: 'Well statement', from: '2026-12-03', to: null }],
  }));
  screen.getByText('Price: $400,000');
  fireEvent.click(screen.getByTestId('edit-facts'));
  write('fact-year_built', 'old');
  screen.getByText('Year built: write a year, like 1972.');
  fireEvent.click(screen.getByTestId('save-facts'));
  expect(asked).toEqual([]);
  write('fact-year_built', '1972');
  write('fact-price', '$415,000');
  fireEvent.click(within(screen.getByTestId('fact-association')).getByLabelText('No'));
  fireEvent.click(screen.getByTestId('save-facts'));
  await screen.findByTestId('moved');
  expect(asked[0]!.body).toEqual({
    address: '1 Lantern Row',
    city: 'Tern Lock',
    facts: { year_built: 1972, price: 415_000, association: false },
  });
  expect(screen.getByTestId('moved').textContent).toContain('Lead paint disclosure is needed now.');
  expect(screen.getByTestId('moved').textContent).toContain('Well statement: from Thu, Dec 3 to no day.');
});

test('what the server will not take stays written, with why', async () => {
  show(<FactsCard deal={dealView()} />, () => new ApiError(422, 'bad-fact', 'The price is too long.'));
  fireEvent.click(screen.getByTestId('edit-facts'));
  write('fact-price', '1');
  fireEvent.click(screen.getByTestId('save-facts'));
  await screen.findByText('The price is too long.');
  expect(screen.getByTestId<HTMLInputElement>('fact-price').value).toBe('1');
});

test('a fact that papers hang on is asked for, one at a time, and filled in at once', async () => {
  const asked = show(
    <FactsCard
      deal={dealView({
        asked: [
          { fact: 'year_built', papers: ['Lead paint disclosure'] },
          { fact: 'tank', papers: ['Buried tank statement'] },
        ],
      })}
      open="tank"
    />,
    () => changed(),
  );
  expect(screen.getByTestId('asked').textContent).toContain(
    'Your answer tells us whether this deal needs Buried tank statement. 1 more question after this one.',
  );
  fireEvent.click(screen.getByLabelText('Yes'));
  await waitFor(() => expect(asked[0]?.body).toEqual({ facts: { tank: true } }));
});

const need = (more: Partial<Requirement>): Requirement => ({
  ruleId: 'r1',
  paper: 'lead_paint',
  title: 'Lead paint disclosure',
  reason: 'built before 1978',
  state: 'open',
  corner: 'needed',
  words: 'needed',
  due: { day: '2026-12-03', why: 'Thu, Dec 3: 3 business days after Mon, Nov 30, no holiday between' },
  dueHangsOn: null,
  documentId: null,
  packetId: null,
  signers: ['seller', 'buyer'],
  waiver: null,
  ...more,
});

test('a paper that is needed says why and by when; it is waived only with a reason', async () => {
  const asked = show(<NeedsCard deal={dealView({ requirements: [need({})] })} />, () => changed());
  const row = screen.getByTestId('need-lead_paint');
  expect(row.textContent).toContain('built before 1978');
  expect(row.textContent).toContain('Thu, Dec 3');
  fireEvent.click(row);
  screen.getByText('Thu, Dec 3: 3 business days after Mon, Nov 30, no holiday between');
  screen.getByText('Signed by: seller and buyer.');
  fireEvent.click(screen.getByTestId('waive'));
  fireEvent.click(screen.getByTestId('waive-now'));
  expect(asked).toEqual([]);
  write('waive-reason', 'no paint');
  fireEvent.click(screen.getByTestId('waive-now'));
  await waitFor(() =>
    expect(asked[0]).toMatchObject({ method: 'PUT', url: '/api/deals/d1/waivers/r1', body: { reason: 'no paint' } }),
  );
});

test('what is open stands before what is in; a late one says so', () => {
  const list = [
    need({ ruleId: 'a', title: 'In', state: 'met', corner: 'executed', words: 'executed Tue, Dec 1, no gap' }),
    need({ ruleId: 'b', title: 'Late', due: { day: '2026-11-27', why: '' } }),
  ];
  show(<NeedsCard deal={dealView({ requirements: list })} />);
  const rows = screen.getAllByTestId('need-lead_paint').map((r) => r.textContent);
  expect(rows[0]).toContain('late, Fri, Nov 27');
  expect(rows[1]).toContain('executed Tue, Dec 1, no gap');
});

test('key dates stand in their order; one is set by touch, and what moved is told', async () => {
  const deal = dealView({
    dates: { accepted: '2026-11-20', closing: '2027-01-04', inspection: '2026-12-09' },
    requirements: [need({})],
  });
  expect(postsOf(deal).map((x) => [x.date, x.state, x.hangs])).toEqual([
    ['accepted', 'passed', 0],
    ['disclosed', 'unknown', 0],
    ['inspection', 'next', 1],
    ['loan', 'unknown', 0],
    ['closing', 'ahead', 0],
  ]);
  const asked = show(<MilePosts deal={deal} />, () => ({
    ...changed(),
    moved: [{ title: 'Lead paint disclosure', from: '2026-12-03', to: '2026-12-07' }],
  }));
  fireEvent.click(screen.getByTestId('post-accepted'));
  fireEvent.change(screen.getByTestId('key-date'), { target: { value: '2026-12-02' } });
  fireEvent.click(screen.getByTestId('save-date'));
  await screen.findByText('Lead paint disclosure: from Thu, Dec 3 to Mon, Dec 7.');
  expect(asked[0]!.body).toEqual({ dates: { accepted: '2026-12-02' } });
});

const nudge = (more: Partial<Next> = {}): Next => ({
  id: 'nudge p1 priya',
  act: { do: 'nudge', packetId: 'p1', partyId: 'priya' },
  title: 'Nudge Priya',
  detail: 'Papers: has not opened it, 3 days',
  due: null,
  since: '2026-11-27',
  weight: 50,
  ...more,
});

test('a nudge leaves with a way back, and goes out when the time for that is over', async () => {
  jest.useFakeTimers();
  try {
    const asked = show(<NextCard deal={dealView({ next: [nudge()] })} />);
    fireEvent.click(screen.getByLabelText('Nudge: Priya'));
    expect(screen.getByTestId('done-row').textContent).toContain('Nudged Priya');
    fireEvent.click(screen.getByText('Undo'));
    await act(async () => jest.advanceTimersByTimeAsync(10_000));
    expect(asked).toEqual([]);
    fireEvent.click(screen.getByLabelText('Nudge: Priya'));
    await act(async () => jest.advanceTimersByTimeAsync(10_000));
    expect(asked.map((a) => a.body)).toEqual([{ type: 'nudge', partyIds: ['priya'] }]);
  } finally {
    jest.useRealTimers();
  }
});

test('a nudge that could still be taken back is not lost when the page is closed', async () => {
  const asked = show(<NextCard deal={dealView({ next: [nudge()] })} />);
  fireEvent.click(screen.getByLabelText('Nudge: Priya'));
  act(() => void window.dispatchEvent(new Event('pagehide')));
  await waitFor(() => expect(asked).toHaveLength(1));
});

test('other acts lead to where they are done', () => {
  const next = [
    nudge({
      id: 'a',
      act: { do: 'answer', packetId: 'p1', partyId: 'x', questionId: 'q', text: '' },
      title: 'Answer Priya',
    }),
    nudge({ id: 'b', act: { do: 'fact', fact: 'year_built' }, title: 'Fill in: year built' }),
    nudge({ id: 'c', act: { do: 'date', date: 'accepted' }, title: 'Set the day: accepted' }),
  ];
  show(<NextCard deal={dealView({ next })} />);
  for (const label of ['Answer: Priya', 'Fill in: year built', 'Set: the day: accepted'])
    fireEvent.click(screen.getByLabelText(label));
  expect(mockWent.mock.calls.map(([to]) => to as string)).toEqual([
    '/packets/p1',
    '/deals/d1?fact=year_built',
    '/deals/d1?date=accepted',
  ]);
});
