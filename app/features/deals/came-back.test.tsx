/** What is said of a paper that came back, and what can be done about it. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ReviewedPlaceView, DocumentView, PaperReviewView } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { dealView, show, type Asked } from '../../test/office';
import { CameBack } from './came-back';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown },
  useLocalSearchParams: () => ({ dealId: 'weir', documentId: 'back' }),
}));
beforeEach(() => mockWent.mockClear());

const doc = (id: string, name: string) =>
  ({
    id,
    name,
    status: 'ready',
    type: 'lease',
    replacedBy: null,
    leftOut: [] as DocumentView['leftOut'],
    pages: [{ width: 612, height: 792 }],
  }) as DocumentView;
const place = (id: string, more: Partial<ReviewedPlaceView> = {}): ReviewedPlaceView => ({
  id,
  page: 1,
  formPage: 1,
  kind: 'initials',
  role: 'tenant',
  ordinal: 1,
  label: '',
  rect: { x: 60, y: 700, w: 40, h: 18 },
  filled: 'yes',
  said: null,
  ...more,
});
const check = (places: ReviewedPlaceView[], more: Partial<PaperReviewView> = {}): PaperReviewView => ({
  documentId: 'back',
  blankId: 'blank',
  status: 'ready',
  problem: null,
  places,
  ended: null,
  reason: null,
  packetId: null,
  ...more,
});

/** Returns the screen, with a server where it stands as `then` after any act. */
function screenOf(now: PaperReviewView | ApiError, then: PaperReviewView = check([])): Asked[] {
  const deal = dealView({ documents: [doc('blank', 'Lease'), doc('back', 'Lease, signed')] });
  const form = { id: 'f', name: 'Lease of the house', type: 'lease', documentId: 'form-paper' };
  let stands: PaperReviewView | ApiError = now;
  return show(<CameBack />, ({ method, url }) => {
    if (url.startsWith('/api/shelf')) return { items: [form], next: null };
    if (!url.includes('/check')) return deal;
    if (method !== 'GET') stands = then;
    return stands;
  });
}
const acts = (asked: Asked[]) => asked.filter((a) => a.method !== 'GET').map((a) => [a.method, a.url, a.body]);

test('before a check it is asked which paper it was: one of the deal, a form of the shelf, or none', async () => {
  const asked = screenOf(new ApiError(404, 'not-found', 'no'), check([], { status: 'checking' }));
  fireEvent.click(await screen.findByTestId('blank-form'));
  await screen.findByTestId('checking');
  expect(screen.queryByTestId('blank')).toBeNull();
  expect(acts(asked)).toEqual([['POST', '/api/documents/back/check', { blankId: 'form-paper' }]]);
});

test('a whole paper can be counted as signed, and not sent back', async () => {
  const asked = screenOf(
    check([place('a'), place('n', { kind: 'text', filled: 'no' })]),
    check([], { ended: 'meets' }),
  );
  expect((await screen.findByTestId('gaps-sum')).textContent).toContain('Every signature, initials and date is filled');
  expect(screen.queryByTestId('send-back')).toBeNull();
  fireEvent.click(screen.getByTestId('check-meets'));
  await screen.findByTestId('check-ended');
  expect(acts(asked)).toEqual([['POST', '/api/documents/back/check/end', { how: 'meets', reason: '' }]]);
});

test('what is doubtful is said first; then it goes back for what is empty', async () => {
  const places = [place('a', { filled: 'no' }), place('b', { filled: 'doubtful', role: 'landlord' })];
  const asked = screenOf(check(places), check([places[0]!, { ...places[1]!, said: 'yes' }]));
  const back = await screen.findByTestId('send-back');
  expect(back.getAttribute('aria-disabled')).toBe('true');
  expect(screen.queryByTestId('check-meets')).toBeNull();
  fireEvent.click(screen.getByLabelText('Mark as filled: Initials, Landlord 1'));
  await waitFor(() => expect(screen.getByTestId('send-back').getAttribute('aria-disabled')).not.toBe('true'));
  screen.getByText('Filled, set by you');
  fireEvent.click(screen.getByTestId('send-back'));
  await waitFor(() => expect(acts(asked)).toHaveLength(2));
  expect(acts(asked)).toEqual([
    ['PATCH', '/api/documents/back/check', { places: [{ id: 'b', said: 'yes' }] }],
    ['POST', '/api/documents/back/check/packet', undefined],
  ]);
});

test('a page that did not come back is told, and nothing is sent back without it', async () => {
  screenOf(check([place('a', { filled: 'no' }), place('b', { filled: 'no', page: null, formPage: 3 })]));
  expect((await screen.findByTestId('pages-gone')).textContent).toContain('Page 3 of the form did not come back');
  expect(screen.queryByTestId('send-back')).toBeNull();
});

test('it is kept with a reason, and can be checked again', async () => {
  const asked = screenOf(
    check([place('a', { filled: 'no' })]),
    check([], { ended: 'kept', reason: 'The bank takes it so.' }),
  );
  const keep = await screen.findByTestId('check-keep');
  expect(keep.getAttribute('aria-disabled')).toBe('true');
  fireEvent.change(screen.getByTestId('keep-reason'), { target: { value: 'The bank takes it so.' } });
  fireEvent.click(screen.getByTestId('check-keep'));
  expect((await screen.findByTestId('check-ended')).textContent).toContain('The bank takes it so.');
  fireEvent.click(screen.getByTestId('check-again'));
  await waitFor(() => expect(acts(asked)).toHaveLength(2));
  expect(acts(asked)[1]).toEqual(['POST', '/api/documents/back/check', { blankId: 'blank' }]);
});
