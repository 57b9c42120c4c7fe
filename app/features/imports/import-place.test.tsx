/** A table brought in: looked at first, its columns mended, then the good rows of it taken. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { ImportView } from '@gatepath/contract';
import { show } from '../../test/office';
import { ImportPlace } from './import-place';

jest.mock('expo-router', () => ({
  router: { navigate: jest.fn() },
  useLocalSearchParams: () => ({ what: 'people' }),
}));
const mockSent = jest.fn();
jest.mock('../../api/client', () => ({
  ...jest.requireActual<object>('../../api/client'),
  uploadFile: (name: string, _file: File, o: unknown) => mockSent(name, o) as unknown,
}));

const seen = (more: Partial<ImportView> = {}): ImportView => ({
  headings: ['Who', 'E-mail'],
  map: ['', 'email'],
  fields: [
    { key: 'name', label: 'Name', needed: true },
    { key: 'email', label: 'Email', needed: false },
  ],
  missing: ['Name'],
  sample: [['Wren Alder', 'wren@example.com']],
  good: 0,
  bad: 2,
  wrong: [{ line: 2, why: ['Name: missing.'] }],
  taken: null,
  ...more,
});

test('a column that was not understood is chosen by hand; then the good rows come in, and the bad ones are named', async () => {
  mockSent
    .mockResolvedValueOnce(seen())
    .mockResolvedValueOnce(
      seen({
        map: ['name', 'email'],
        missing: [],
        good: 1,
        bad: 1,
        wrong: [{ line: 3, why: ['Email: “x” is no address.'] }],
      }),
    )
    .mockResolvedValueOnce(seen({ taken: { added: 1, known: 2 } }));
  show(<ImportPlace />);
  const file = new File(['Who,E-mail\n'], 'people.csv', { type: 'text/csv' });
  fireEvent.change(screen.getByTestId('import-file'), { target: { files: [file] } });
  await screen.findByText('No column is set for: Name. Choose one.');
  expect(screen.getByTestId('import-take').getAttribute('aria-disabled')).toBe('true');
  fireEvent.click(screen.getByLabelText('Who is: left out. Change it'));
  fireEvent.click(await screen.findByText('Name'));
  await screen.findByText('Email: “x” is no address.');
  screen.getByText('Line 3');
  fireEvent.click(screen.getByText('Import the 1 good row'));
  await screen.findByText(/1 person imported\. 2 were already there/);
  await waitFor(() => expect(mockSent).toHaveBeenCalledTimes(3));
  expect(mockSent.mock.calls.map(([, o]) => (o as { query: unknown }).query)).toEqual([
    { take: 'none' },
    { take: 'none', map: 'name,email' },
    { take: 'good', map: 'name,email' },
  ]);
});
