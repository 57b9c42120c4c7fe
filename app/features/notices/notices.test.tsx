/** Notices on their screens: the ledger, a row that is mended, the run, and letters. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { NoticeRow, NoticeView } from '@gatepath/contract';
import { show, type Asked } from '../../test/office';
import { NoticePlace } from './notice-place';

jest.mock('expo-router', () => ({
  router: { navigate: jest.fn(), push: jest.fn() },
  useLocalSearchParams: () => ({ noticeId: 'n' }),
}));

const COUNTS = {
  homes: 2,
  fresh: 0,
  ready: 1,
  wrong: 1,
  leftOut: 0,
  gone: 0,
  arrived: 0,
  cameBack: 0,
  opened: 0,
  done: 0,
  letters: 0,
};
const notice = (more: Partial<NoticeView> = {}, counts: Partial<NoticeView['counts']> = {}): NoticeView => ({
  id: 'n',
  name: 'Rent from spring',
  state: 'preparing',
  createdAt: '2026-11-23T15:00:00.000Z',
  by: 'Odile Farrant',
  kit: { id: 'k', name: 'Change of rent' },
  signed: false,
  tags: [
    { key: 'rent', label: 'Rent a month', type: 'money', from: 'deal' },
    { key: 'paper.new_rent', label: 'New rent a month', type: 'money', from: 'paper' },
  ],
  values: {},
  rule: null,
  rules: [{ id: 'rent_change', name: 'Rent change' }],
  term: null,
  allOrNone: false,
  working: false,
  ...more,
  counts: { ...COUNTS, ...counts },
});
const STEPS = { worked: 'done', gone: 'to_do', arrived: 'none', opened: 'none', done: 'none' } as const;
const row = (more: Partial<NoticeRow> = {}): NoticeRow => ({
  id: 'a',
  n: 1,
  line: 2,
  home: 'Unit 1, 4 Basin Street',
  dealId: 'd1',
  tenants: ['Odile Barrow'],
  values: { 'paper.new_rent': 1190 },
  state: 'ready',
  problems: [],
  notes: [],
  packetId: null,
  steps: STEPS,
  countsFrom: null,
  says: '',
  wantsLetter: false,
  ...more,
});
const bad = row({
  id: 'b',
  n: 2,
  home: 'Unit 2, 4 Basin Street',
  values: {},
  state: 'wrong',
  steps: { ...STEPS, worked: 'failed', gone: 'none' },
  problems: ['New rent a month is not known, and a paper needs it.'],
  says: 'New rent a month is not known, and a paper needs it.',
});

const place = (view: NoticeView, rows: NoticeRow[], then: (asked: Asked) => unknown = () => view) =>
  show(<NoticePlace />, (asked) =>
    asked.method !== 'GET' ? then(asked) : asked.url.includes('/rows') ? { items: rows, next: null } : view,
  );

test('every row says its steps to whoever cannot see them, and what is wrong stands in it', async () => {
  place(notice(), [row(), bad]);
  const right = await screen.findByLabelText(/^Unit 1, 4 Basin Street, Odile Barrow\./);
  expect(right.getAttribute('aria-label')).toContain('New rent a month: $1,190. prepared: yes. sent: not yet');
  expect(screen.getByLabelText(/^Unit 2/).getAttribute('aria-label')).toContain('prepared: no');
  screen.getByText('0 of 2 sent');
  screen.getByText('Send to 1 home');
});

test('a row is mended where it stands: only what is wanted is asked for, and only that is sent', async () => {
  const asked = place(notice(), [bad], () => row({ id: 'b', state: 'new' }));
  fireEvent.click(await screen.findByLabelText(/^Unit 2/));
  const open = screen.getByTestId('home-open');
  // The tenancy knows its rent: it is not asked for.
  expect(open.querySelector('[data-testid="fact-rent"]')).toBeNull();
  const field = open.querySelector<HTMLInputElement>('[data-testid="fact-paper.new_rent"]')!;
  expect(screen.getByTestId('mend-row').getAttribute('aria-disabled')).toBe('true');
  fireEvent.change(field, { target: { value: 'much' } });
  expect(screen.getByTestId('mend-row').getAttribute('aria-disabled')).toBe('true');
  fireEvent.change(field, { target: { value: '1,650' } });
  fireEvent.click(screen.getByTestId('mend-row'));
  await waitFor(() => expect(asked.some((a) => a.method === 'PATCH')).toBe(true));
  const sent = asked.find((a) => a.method === 'PATCH')!;
  expect([sent.url, sent.body]).toEqual([
    expect.stringContaining('/notices/n/rows/b'),
    { values: { 'paper.new_rent': 1650 } },
  ]);
});

test('a row whose home was not found is given one', async () => {
  const lost = row({ id: 'c', home: 'Unit 9', dealId: null, state: 'wrong', problems: ['No tenancy is at “Unit 9”.'] });
  const asked = show(<NoticePlace />, (a) => {
    if (a.method === 'PATCH') return row();
    if (a.url.includes('/deals?')) return { items: [{ id: 'd9', address: 'Unit 9B', city: 'Tern Lock' }], next: null };
    return a.url.includes('/rows') ? { items: [lost], next: null } : notice();
  });
  fireEvent.click(await screen.findByLabelText(/^Unit 9/));
  fireEvent.click(await screen.findByText('Unit 9B, Tern Lock'));
  await waitFor(() => expect(asked.find((a) => a.method === 'PATCH')?.body).toEqual({ dealId: 'd9' }));
  expect(asked.find((a) => a.url.includes('/deals?'))!.url).toContain('kind=tenancy');
});

test('a run that goes is stopped, and what was stopped says that it waits', async () => {
  const going = notice({ state: 'going' }, { gone: 1, ready: 1, wrong: 0 });
  const stopped = notice({ state: 'stopped' }, { gone: 1, ready: 1, wrong: 0 });
  let now = going;
  const asked = show(<NoticePlace />, (a) => {
    if (a.method === 'POST') now = stopped;
    return a.url.includes('/rows') ? { items: [row()], next: null } : now;
  });
  fireEvent.click(await screen.findByTestId('stop-notice'));
  await screen.findByText(/Stopped: the rest has not been sent/);
  screen.getByText('Send the last notice');
  expect(asked.find((a) => a.method === 'POST')!.url).toContain('/notices/n/stop');
});

test('letters are printed, and said to have gone on a day', async () => {
  const view = notice({ state: 'gone' }, { gone: 2, ready: 0, wrong: 0, letters: 1 });
  const asked = place(view, [row({ state: 'gone', wantsLetter: true })], () => ({ done: 1 }));
  await screen.findByText('Letters for 1 home');
  fireEvent.change(screen.getByTestId('letters-day'), { target: { value: '2026-11-20' } });
  fireEvent.click(screen.getByTestId('letters-went'));
  await waitFor(() => expect(asked.some((a) => a.method === 'POST')).toBe(true));
  expect(asked.find((a) => a.method === 'POST')!.body).toEqual({ rowIds: [], day: '2026-11-20', way: 'post' });
});
