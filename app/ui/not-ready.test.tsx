import { fireEvent, screen } from '@testing-library/react';
import { ApiError } from '../api/client';
import { show } from '../test/office';
import { isReady, NotReady } from './not-ready';

const problem = (status: number) => new ApiError(status, 'internal', 'The line is busy.');
const query = (data: string | undefined, error: Error | null, refetch = jest.fn()) => ({ data, error, refetch });

test('what was fetched stays when the connection is lost or the server fails, not when it is refused', () => {
  expect(isReady(query('deal', null))).toBe(true);
  expect(isReady(query('deal', problem(0)))).toBe(true);
  expect(isReady(query('deal', problem(503)))).toBe(true);
  expect(isReady(query('deal', problem(401)))).toBe(false);
  expect(isReady(query('deal', problem(404)))).toBe(false);
  expect(isReady(query(undefined, null))).toBe(false);
  expect(isReady(query(undefined, problem(0)))).toBe(false);
});

test('while it loads the screen has a heading that says what for', () => {
  show(<NotReady query={query(undefined, null)} what="the deal" />);
  screen.getByRole('heading', { name: 'Loading the deal…' });
});

test('when it did not load the screen says what and why, and tries again', () => {
  const refetch = jest.fn();
  show(<NotReady query={query(undefined, problem(0), refetch)} what="the deal" />);
  screen.getByRole('heading', { name: 'The deal did not load' });
  screen.getByText('The line is busy.');
  fireEvent.click(screen.getByText('Try again'));
  expect(refetch).toHaveBeenCalledTimes(1);
});
