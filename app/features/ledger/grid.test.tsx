import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import type { CellState, LedgerRow } from '@gatepath/core/packet';
import { makeTheme } from '../../ui/theme';
import { LedgerGrid } from './grid';

const cell = (partyId: string, state: CellState): LedgerRow['cells'][number] => ({
  partyId,
  state,
  wants: state === 'none' || state === 'excepted' ? 'none' : 'initials',
  markIds: [],
  total: 1,
  done: state === 'done' ? 1 : 0,
  gapFrom: state === 'gap' ? 'rule' : null,
});

const rows: LedgerRow[] = [
  { documentId: 'd', page: 1, cells: [cell('w', 'done'), cell('c', 'initials')] },
  { documentId: 'd', page: 2, cells: [cell('w', 'gap'), cell('c', 'excepted')] },
];
const parties = [
  { id: 'w', name: 'Wren Alder', ink: 0 },
  { id: 'c', name: 'Callum Alder', ink: 1 },
];

function show(onTouch: (...a: unknown[]) => void) {
  render(
    <PaperProvider theme={makeTheme(false)}>
      <LedgerGrid rows={rows} parties={parties} documents={[{ id: 'd', name: 'Disclosure' }]} onTouch={onTouch} />
    </PaperProvider>,
  );
}

test('each cell says page, person and what is wanted, for those who do not see it', () => {
  show(jest.fn());
  for (const label of [
    'Page 1, Wren Alder: done',
    'Page 1, Callum Alder: initials needed',
    'Page 2, Wren Alder: gap: initials are missing',
    'Page 2, Callum Alder: left out of the initials',
  ])
    expect(screen.getByLabelText(label)).toBeTruthy();
  expect(screen.getByText('Disclosure')).toBeTruthy();
});

test('touching a cell goes to its page with its party', () => {
  const onTouch = jest.fn();
  show(onTouch);
  fireEvent.click(screen.getByLabelText('Page 2, Wren Alder: gap: initials are missing'));
  expect(onTouch).toHaveBeenCalledWith('d', 2, 'w');
});
