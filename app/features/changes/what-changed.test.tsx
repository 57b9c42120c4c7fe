/** What is said of two versions of a paper. */
import { fireEvent, screen } from '@testing-library/react';
import type { ComparisonView } from '@gatepath/contract';
import type { Change } from '@gatepath/core/changed';
import { ApiError } from '../../api/client';
import { show } from '../../test/office';
import { WhatChanged } from './what-changed';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown },
  useLocalSearchParams: () => ({ documentId: 'now', beforeId: 'was' }),
}));

const at = (page: number, text: string) => ({ text, boxes: [{ page, rect: { x: 60, y: 100, w: 80, h: 10 } }] });
const change = (more: Partial<Change>): Change => ({
  kind: 'replaced',
  before: at(1, '$410,000'),
  after: at(1, '$415,000'),
  lead: 'The price shall be',
  tail: 'payable at closing.',
  aside: null,
  drawn: false,
  scan: false,
  ...more,
});
const version = (id: string, name: string, more = {}) => ({
  id,
  name,
  dealId: 'weir',
  shelfId: null,
  pages: [
    { width: 612, height: 792 },
    { width: 612, height: 792 },
  ],
  createdAt: '2026-11-27T10:00:00.000Z',
  ...more,
});
const compared = (changes: Change[], more: Partial<ComparisonView> = {}): ComparisonView => ({
  before: version('was', 'Counteroffer'),
  after: version('now', 'Counteroffer two'),
  pages: [
    { before: 1, after: 1 },
    { before: 2, after: 2 },
  ],
  changes,
  more: 0,
  slight: 0,
  wordsOnly: [],
  ...more,
});
const names = () => screen.getAllByRole('button').flatMap((b) => b.getAttribute('aria-label') ?? []);

test('a change says what was and what is, also to whoever listens; it opens where it stands', async () => {
  show(<WhatChanged />, () =>
    compared([change({}), change({ kind: 'put_in', before: null, after: at(2, 'And a well.') })]),
  );
  expect((await screen.findByTestId('changes-sum')).textContent).toBe('2 changes');
  expect(names()).toEqual([
    'Change 1, changed, page 1: $410,000 became $415,000',
    'Change 2, put in, page 2: And a well.',
  ]);
  // The first one is open.
  expect(screen.getByLabelText('Before, page 1')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /^Change 2/ }));
  expect(screen.getByLabelText('Now, page 2')).toBeTruthy();
  expect(screen.queryByLabelText('Before, page 1')).toBeNull();
});

test('what says nothing is left aside, and can be seen', async () => {
  show(<WhatChanged />, () => compared([change({ aside: 'page_number' })]));
  expect((await screen.findByTestId('changes-sum')).textContent).toBe('No visible changes');
  fireEvent.click(screen.getByTestId('leave-aside'));
  expect(screen.getByTestId('changes-sum').textContent).toBe('1 change');
  expect(names()).toEqual(['Change 1, Page number, changed, page 1: $410,000 became $415,000']);
});

test('what could not be compared, or is too much to tell, is said', async () => {
  show(<WhatChanged />, () => compared([change({ scan: true })], { wordsOnly: [2], more: 7 }));
  expect((await screen.findByTestId('changes-sum')).textContent).toBe('8 changes');
  expect(screen.getByText(/^On page 2 only words could be compared/)).toBeTruthy();
  expect(screen.getByText(/^7 further changes are not listed/)).toBeTruthy();
  expect(screen.getByText(/^Read from a scan/)).toBeTruthy();
});

test('a move is no change of words; ink is told as ink; a long passage is told by its ends', async () => {
  const long = Array.from({ length: 120 }, (_, i) => `word${i}`).join(' ');
  show(<WhatChanged />, () =>
    compared([
      change({ kind: 'moved', before: at(1, 'The roof is new.'), after: at(2, 'The roof is new.') }),
      change({ kind: 'put_in', drawn: true, before: null, after: at(1, ''), lead: '', tail: '' }),
      change({ kind: 'struck', before: at(1, long), after: null }),
    ]),
  );
  await screen.findByTestId('changes-sum');
  const rows = screen.getAllByTestId('change').map((r) => r.textContent ?? '');
  expect(rows[0]).toMatch(/^1\. Moved, from page 1 to page 2/);
  expect(rows[0]!.match(/The roof is new/g)).toHaveLength(1);
  expect(rows[1]).toContain('Something drawn, put in, page 1');
  expect(rows[2]).toContain('[…]');
  expect(rows[2]).toContain('word119');
});

test('papers that do not belong together say so, with a way back', async () => {
  show(<WhatChanged />, () => new ApiError(404, 'not-found', 'The earlier version is not there.'));
  expect(await screen.findByText(/is not there/)).toBeTruthy();
});
