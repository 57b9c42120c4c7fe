/** The list of deals on a wide screen: rows, order, columns, several in hand, and lists kept under a name. */
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { DealSummary } from '@gatepath/contract';
import { dealSummary, show, type Asked } from '../../test/office';
import { DealsPlace } from './deals-place';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({ router: { push: (to: string) => mockWent(to) as unknown } }));
jest.mock('../../ui/hooks', () => ({ ...jest.requireActual<object>('../../ui/hooks'), useWide: () => true }));
beforeEach(() => window.localStorage.clear());

const deals: DealSummary[] = [1, 2, 3, 4, 5].map((n) => dealSummary(n, { goalOn: n === 2 ? '2026-12-10' : null }));

function table(more: (asked: Asked) => unknown = () => undefined): Asked[] {
  return show(<DealsPlace />, (a) => {
    const own = more(a);
    if (own !== undefined) return own;
    if (a.url.startsWith('/api/deals?')) return { items: deals, next: null };
    if (a.url === '/api/views') return { items: [] };
    if (a.url.startsWith('/api/shelf')) return { items: [], next: null };
    if (a.url === '/api/deal-tags') return { tags: ['canal'] };
    if (a.url === '/api/firm') return { members: [{ id: 'tobias', name: 'Tobias Mercer', email: 't@example.com' }] };
    return {};
  });
}
const rows = () => screen.getAllByTestId('deal-row');

test('a row for each deal; the list is ordered by a heading, and columns are chosen and stay chosen', async () => {
  const asked = table();
  await screen.findByText('3 Lantern Row');
  expect(rows()).toHaveLength(5);
  expect(rows()[1]!.textContent).toContain('Thu, Dec 10');
  fireEvent.click(screen.getByTestId('order-goal'));
  await waitFor(() => expect(asked.some((a) => a.url.includes('order=goal'))).toBe(true));
  expect(screen.queryByText('Tags')).toBeNull();
  fireEvent.click(screen.getByTestId('columns'));
  fireEvent.click(await screen.findByText('Show Tags'));
  await screen.findByText('Tags');
  expect(JSON.parse(window.localStorage.getItem('gatepath:deal-columns')!)).toMatchObject({ tags: true });
});

test('several in hand are nudged at once; those with which nothing was done stay, and say why', async () => {
  const asked = table((a) =>
    a.url === '/api/deals/acts'
      ? { done: 1, left: [{ dealId: 'd2', address: '2 Lantern Row', why: 'No packet waits.' }] }
      : undefined,
  );
  await screen.findByText('3 Lantern Row');
  fireEvent.click(screen.getByLabelText('Select 1 Lantern Row'));
  fireEvent.click(screen.getByLabelText('Select 2 Lantern Row'));
  const foot = screen.getByTestId('in-hand');
  within(foot).getByText('2 deals selected');
  fireEvent.click(screen.getByTestId('hand-nudge'));
  await within(foot).findByText(/Not with 2 Lantern Row \(No packet waits\.\)/);
  expect(asked.find((a) => a.url === '/api/deals/acts')!.body).toEqual({ act: 'nudge', dealIds: ['d1', 'd2'] });
  fireEvent.click(within(foot).getByText('Clear the selection'));
  expect(screen.queryByTestId('in-hand')).toBeNull();
});

test('what is asked for narrows the list, and is kept under a name for everybody', async () => {
  const asked = table();
  await screen.findByText('3 Lantern Row');
  fireEvent.click(screen.getByText('Due'));
  fireEvent.click(await screen.findByText('Something is late'));
  await waitFor(() => expect(asked.some((a) => a.url.includes('due=late'))).toBe(true));
  fireEvent.click(screen.getByText('Saved lists'));
  fireEvent.click(await screen.findByText('Save this list'));
  fireEvent.change(await screen.findByTestId('view-name'), { target: { value: 'Late ones' } });
  fireEvent.click(screen.getByLabelText('Everyone in the firm sees it'));
  fireEvent.click(screen.getByTestId('keep-now'));
  await waitFor(() => expect(screen.queryByTestId('keep-view')).toBeNull());
  expect(asked.find((a) => a.method === 'POST')!.body).toEqual({
    name: 'Late ones',
    shared: true,
    query: { archived: false, due: 'late' },
  });
});
