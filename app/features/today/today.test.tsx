/** The first screen: what waits is done from where it stands, and nothing to do looks like it. */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { TodayView } from '@gatepath/contract';
import { show } from '../../test/office';
import { longDay, TodayPlace } from './today-place';
import { postsOfWeek } from './week';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({ router: { push: (to: string) => mockWent(to) as unknown } }));
beforeEach(() => mockWent.mockClear());

const EMPTY: TodayView = {
  today: '2026-11-30',
  sentence: 'Nothing waits for you. Nothing is late.',
  deals: 3,
  packets: 0,
  waiting: { items: [], pressing: 0, more: 0 },
  week: { items: [], more: 0 },
  still: { items: [], more: 0 },
  through: { since: null, items: [], more: 0 },
};
const thing = (id: string, day: string, more: Partial<TodayView['week']['items'][number]> = {}) => ({
  dealId: 'd1',
  address: '7 Weir Terrace',
  id,
  day,
  title: `Paper ${id}`,
  what: 'paper' as const,
  packetId: null,
  ...more,
});
const still = (n: number, more: Partial<TodayView['still']['items'][number]> = {}) => ({
  dealId: `d${n}`,
  address: `${n} Mill Cut`,
  packetId: `p${n}`,
  name: 'Purchase papers',
  since: '2026-11-26',
  days: 4,
  partyId: 'priya',
  who: 'Priya Nair',
  words: 'Priya has not opened it',
  phone: '555-0101',
  act: 'nudge' as const,
  gate: 0,
  gates: [['priya']],
  parties: [{ id: 'priya', name: 'Priya Nair', ink: 0, act: 'sign' as const, done: false }],
  ...more,
});

test('nothing to do is a good state; without a deal it says where to begin', async () => {
  show(<TodayPlace />, () => EMPTY);
  await screen.findByText('Everything is on its way');
  expect(screen.getByTestId('today-sentence').textContent).toBe('Nothing waits for you. Nothing is late.');
});

test('whoever has no deal yet is led to the first', async () => {
  show(<TodayPlace />, () => ({ ...EMPTY, deals: 0 }));
  fireEvent.click(await screen.findByTestId('new-deal'));
  expect(mockWent).toHaveBeenCalledWith('/deals/new');
});

test('a packet that stands still is nudged; it leaves, and comes back when that is taken back', async () => {
  const asked = show(<TodayPlace />, ({ url }) =>
    url === '/api/today' ? { ...EMPTY, still: { items: [still(1), still(2)], more: 0 } } : {},
  );
  const [row] = await screen.findAllByTestId('still-row');
  expect(row!.textContent).toContain('4 days');
  within(row!).getByLabelText('Call Priya Nair');
  fireEvent.click(within(row!).getByTestId('still-nudge'));
  expect(screen.getAllByTestId('still-row')).toHaveLength(1);
  fireEvent.click(screen.getByText('Undo'));
  expect(screen.getAllByTestId('still-row')).toHaveLength(2);
  expect(asked.filter((a) => a.method === 'POST')).toEqual([]);
  fireEvent.click(screen.getAllByTestId('still-nudge')[1]!);
  act(() => void window.dispatchEvent(new Event('pagehide')));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')).toEqual({
      method: 'POST',
      url: '/api/packets/p2/changes',
      body: { type: 'nudge', partyIds: ['priya'] },
    }),
  );
});

test('one whose message came back is not nudged: its address is corrected where the packet is', async () => {
  show(<TodayPlace />, () => ({ ...EMPTY, still: { items: [still(1, { act: 'address' })], more: 0 } }));
  fireEvent.click(await screen.findByTestId('still-address'));
  expect(mockWent).toHaveBeenCalledWith('/packets/p1');
});

test('what is late stands before the first post; days of rest without anything are left out', () => {
  const items = [
    thing('late', '2026-11-20'),
    thing('a', '2026-11-30'),
    thing('b', '2026-12-03'),
    thing('end', '2026-12-12', { what: 'term' }),
  ];
  const posts = postsOfWeek({ ...EMPTY, week: { items, more: 0 } });
  expect(posts.map((p) => [p.day, p.items.map((i) => i.id)])).toEqual([
    [null, ['late']],
    ['2026-11-30', ['a']],
    ['2026-12-01', []],
    ['2026-12-02', []],
    ['2026-12-03', ['b']],
    ['2026-12-04', []],
    ['2026-12-12', ['end']],
  ]);
});

test('acts lead to where they are done, and what presses is counted apart from what can wait', async () => {
  const item = (n: number, due: string | null) => ({
    dealId: 'd1',
    address: '7 Weir Terrace',
    id: `bring r${n}`,
    act: { do: 'bring' as const, ruleId: `r${n}` },
    title: `Add paper ${n}`,
    detail: 'why',
    due,
    since: null,
    weight: 1,
  });
  const items = [1, 2, 3, 4, 5, 6, 7].map((n) => item(n, '2026-11-27')).concat([8, 9].map((n) => item(n, null)));
  show(<TodayPlace />, () => ({ ...EMPTY, waiting: { items, pressing: 7, more: 20 } }));
  fireEvent.click(await screen.findByLabelText('Add: paper 1, 7 Weir Terrace'));
  expect(mockWent).toHaveBeenCalledWith('/deals/d1?add=r1');
  expect(screen.getAllByTestId('waiting-bring')[0]!.textContent).toContain('late since Fri, Nov 27');
  fireEvent.click(screen.getByText(/^\d more$/));
  expect(screen.getAllByTestId('waiting-bring')).toHaveLength(9);
  screen.getByText('20 more are shown in their deals.');
});

test('a day in words', () => expect(longDay('2026-11-30')).toBe('Monday, November 30'));
