/** Deals: found, opened, and corrected. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { DealSummary, DealView, PacketSummary } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { show } from '../../test/office';
import { DealsPlace } from './deals-place';
import { FactsCard } from './facts-card';
import { NewDeal } from './new-deal';

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
const deal = (n: number, more: Partial<DealSummary> = {}): DealSummary => ({
  id: `d${n}`,
  kind: 'sale',
  address: `${n} Lantern Row`,
  city: 'Tern Lock',
  createdAt: '2026-11-23T10:00:00.000Z',
  packets: [],
  ...more,
});

test('deals come in pages, each with what holds its packets up', async () => {
  const asked = show(<DealsPlace />, ({ url }) =>
    url.includes('after=d2')
      ? { items: [deal(1)], next: null }
      : { items: [deal(3, { packets: [packet()] }), deal(2)], next: 'd2' },
  );
  await screen.findByText('3 Lantern Row');
  screen.getByText(/Wren has not opened it yet/);
  fireEvent.click(screen.getByText('Show older deals'));
  await screen.findByText('1 Lantern Row');
  expect(asked.map((a) => a.url)).toEqual(['/api/deals', '/api/deals?after=d2']);
});

test('of a long list only what is near is drawn', async () => {
  show(<DealsPlace />, () => ({ items: Array.from({ length: 400 }, (_, n) => deal(n)), next: null }));
  await screen.findByText('3 Lantern Row');
  expect(screen.getAllByTestId('deal-card').length).toBeLessThan(60);
});

test('a street is found by a part of its name, and what is not there is said so', async () => {
  const all = [1, 2, 3, 4].map((n) => deal(n));
  show(<DealsPlace />, ({ url }) => {
    const search = new URLSearchParams(url.split('?')[1]).get('search') ?? '';
    return { items: all.filter((d) => d.address.includes(search)), next: null };
  });
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
  const asked = show(<NewDeal />, () => ({ ...deal(9), parties: [], documents: [] }));
  fireEvent.click(screen.getByTestId('open-deal'));
  await screen.findByText('Give the street address.');
  expect(asked).toEqual([]);
  fireEvent.click(screen.getByTestId('choice-tenancy'));
  fireEvent.change(screen.getByTestId('field-address'), { target: { value: ' 9 Lantern Row ' } });
  fireEvent.click(screen.getByTestId('open-deal'));
  await waitFor(() => expect(mockWent).toHaveBeenCalledWith('/deals/d9'));
  expect(asked[0]).toMatchObject({
    method: 'POST',
    url: '/api/deals',
    body: { kind: 'tenancy', address: '9 Lantern Row', city: '', parties: [] },
  });
});

const facts = (more: Partial<DealView> = {}): DealView => ({
  ...deal(1),
  timeZone: 'America/New_York',
  price: '',
  closingOn: null,
  parties: [],
  documents: [],
  ...more,
});

test('facts are corrected as they are written, a day in whichever way', async () => {
  const asked = show(<FactsCard deal={facts()} />, () => facts({ price: '$415,000', closingOn: '2026-12-15' }));
  screen.getByText(/are not known yet/);
  fireEvent.click(screen.getByTestId('edit-facts'));
  const write = (id: string, value: string) => fireEvent.change(screen.getByTestId(id), { target: { value } });
  write('fact-closing', 'soon');
  screen.getByText('Please write a day, like 12/15/2026.');
  fireEvent.click(screen.getByTestId('save-facts'));
  expect(asked).toEqual([]);
  write('fact-closing', '12/15/2026');
  write('fact-price', '$415,000');
  fireEvent.click(screen.getByTestId('save-facts'));
  await waitFor(() => expect(screen.queryByTestId('save-facts')).toBeNull());
  expect(asked[0]!.body).toEqual({
    address: '1 Lantern Row',
    city: 'Tern Lock',
    price: '$415,000',
    closingOn: '2026-12-15',
  });
});

test('what the server will not take stays written, with why', async () => {
  show(<FactsCard deal={facts()} />, () => new ApiError(422, 'invalid', 'The price is too long.'));
  fireEvent.click(screen.getByTestId('edit-facts'));
  fireEvent.change(screen.getByTestId('fact-price'), { target: { value: 'a lot' } });
  fireEvent.click(screen.getByTestId('save-facts'));
  await screen.findByText('The price is too long.');
  expect(screen.getByTestId<HTMLInputElement>('fact-price').value).toBe('a lot');
});
