/** Whoever signed an earlier version is shown what changed. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ChangesOfPaper, SigningView } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { show as draw } from '../../test/office';
import { RevisedStep } from './revised-step';
import type { Signing } from './use-signing';

const view = {
  me: { id: 'w', name: 'Wren Alder', side: 'seller', ordinal: 1, act: 'sign', ink: 0 },
  documents: [{ id: 'd', name: 'Counteroffer', pages: [], sealed: false }],
  revised: [{ documentId: 'd', on: '2026-11-27' }],
} as unknown as SigningView;

const at = (text: string) => ({ text, boxes: [{ page: 2, rect: { x: 1, y: 1, w: 1, h: 1 } }] });
const change = (more: Partial<ChangesOfPaper['changes'][number]>) => ({
  kind: 'replaced' as const,
  before: at('$410,000'),
  after: at('$415,000'),
  lead: 'The price shall be',
  tail: 'at closing.',
  aside: null,
  drawn: false,
  scan: false,
  ...more,
});

function shown(answer: Partial<ChangesOfPaper> | ApiError) {
  const onGo = jest.fn();
  const props = { token: 't', signing: {} as Signing, view, onBack: jest.fn(), onSide: jest.fn() };
  const full = answer instanceof ApiError ? answer : { changes: [], more: 0, slight: 0, wordsOnly: [], ...answer };
  const asked = draw(<RevisedStep {...props} onGo={onGo} />, () => full);
  return { onGo, asked };
}

test('each change is told with its page; one goes on when all is there', async () => {
  const { onGo, asked } = shown({ changes: [change({}), change({ kind: 'put_in', drawn: true, before: null })] });
  const go = screen.getByTestId('seen-changes');
  expect(go.getAttribute('aria-disabled')).toBe('true');
  const rows = await screen.findAllByTestId('revised-change');
  expect(rows.map((r) => r.textContent)).toEqual([
    'Page 2. Changed… The price shall be $410,000 $415,000 at closing. …',
    'Page 2. Something drawn or written was added. Look at the page.',
  ]);
  expect(screen.getByText(/earlier version on Friday, November 27/)).toBeTruthy();
  expect(asked.map((a) => a.url)).toEqual(['/api/signing/t/documents/d/changes']);
  fireEvent.click(go);
  expect(onGo).toHaveBeenCalledTimes(1);
});

test('page numbers say nothing; a header may, and is told', async () => {
  shown({ changes: [change({ aside: 'page_number' }), change({ aside: 'header' })], more: 3 });
  expect(await screen.findAllByTestId('revised-change')).toHaveLength(1);
  expect(screen.getByText(/There are 3 more changes/)).toBeTruthy();
});

test('what could not be determined stops nobody, and is not called the same', async () => {
  const { onGo } = shown(new ApiError(422, 'not-worked-out', 'no'));
  await screen.findByText(/could not be determined/);
  expect(screen.queryByText(/the same as before/)).toBeNull();
  await waitFor(() => expect(screen.getByTestId('seen-changes').getAttribute('aria-disabled')).not.toBe('true'));
  fireEvent.click(screen.getByTestId('seen-changes'));
  expect(onGo).toHaveBeenCalled();
});
