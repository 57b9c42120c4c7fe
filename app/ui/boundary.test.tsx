import { lazy, Suspense } from 'react';
import { fireEvent, screen } from '@testing-library/react';
import { show } from '../test/office';
import { Boundary, Part } from './boundary';

/** React tells of every error that a boundary catches. */
beforeEach(() => jest.spyOn(console, 'error').mockImplementation(() => undefined));
afterEach(() => jest.restoreAllMocks());

test('a screen that could not be fetched leaves a word and a way on, not an empty page', async () => {
  const Lost = lazy(() => Promise.reject(new Error('Loading chunk failed')));
  const again = jest.fn();
  show(
    <Boundary again={again}>
      <Suspense>
        <Lost />
      </Suspense>
    </Boundary>,
  );
  await screen.findByRole('heading', { name: 'This page could not be shown' });
  fireEvent.click(screen.getByTestId('show-again'));
  expect(again).toHaveBeenCalledTimes(1);
});

test('a screen that is well is shown as it is', () => {
  show(
    <Boundary>
      <p>All is well</p>
    </Boundary>,
  );
  screen.getByText('All is well');
  expect(screen.queryByTestId('not-shown')).toBeNull();
});

test('a part that fails takes nothing else with it, and can be shown again', () => {
  let well = false;
  const Panel = () => {
    if (!well) throw new Error('no such page');
    return <p>The path</p>;
  };
  show(
    <>
      <Part name="Path">
        <Panel />
      </Part>
      <p>The ledger</p>
    </>,
  );
  screen.getByText(/“Path” cannot be shown/);
  screen.getByText('The ledger');
  well = true;
  fireEvent.click(screen.getByTestId('show-part-again'));
  screen.getByText('The path');
});
