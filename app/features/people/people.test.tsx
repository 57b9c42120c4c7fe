/** The address book: one page a person, and two made one only by a member's word. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { PersonView } from '@gatepath/contract';
import { show } from '../../test/office';
import { PeoplePlace } from './people-place';
import { PersonPlace } from './person-place';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown, navigate: (to: string) => mockWent(to) as unknown },
  useLocalSearchParams: () => ({ personId: 'ivo' }),
}));
beforeEach(() => mockWent.mockClear());

const ivo = (more: Partial<PersonView> = {}): PersonView => ({
  id: 'ivo',
  name: 'Ivo Castellan',
  email: 'ivo@example.com',
  phone: '555-0101',
  company: '',
  deals: [{ id: 'd1', address: '4 Mill Cut', kind: 'sale', status: 'active', side: 'buyer', ordinal: 1 }],
  packets: [
    {
      id: 'p1',
      name: 'Purchase papers',
      address: '4 Mill Cut',
      status: 'at_gate',
      holdUp: 'Ivo has not opened it yet.',
      at: '2026-11-23T12:00:00.000Z',
    },
  ],
  messages: [],
  alike: [{ id: 'two', name: 'Ivo Castellan', email: 'old@example.com', phone: null, company: '' }],
  ...more,
});

test('people are looked for, and opened', async () => {
  const { id, name, email, phone, company } = ivo();
  const asked = show(<PeoplePlace />, ({ url }) =>
    url.includes('search=ana')
      ? { items: [], next: null }
      : { items: [{ id, name, email, phone, company, deals: 3 }], next: null },
  );
  fireEvent.click(await screen.findByTestId('person-card'));
  expect(mockWent).toHaveBeenCalledWith('/people/ivo');
  fireEvent.change(screen.getByPlaceholderText(/Find a name/), { target: { value: 'ana' } });
  await screen.findByText('No one found');
  expect(asked.at(-1)?.url).toBe('/api/people?search=ana&limit=40');
});

test('a person’s page tells their deals and packets, and who may be the same', async () => {
  const asked = show(<PersonPlace />, ({ method }) => (method === 'POST' ? ivo({ alike: [] }) : ivo()));
  await screen.findByText('Sale, active · Buyer 1');
  screen.getByText('Ivo has not opened it yet.');
  fireEvent.click(screen.getByTestId('merge'));
  screen.getByText(/cannot be undone/);
  fireEvent.click(screen.getByTestId('merge-now'));
  await waitFor(() => expect(screen.queryByTestId('alike')).toBeNull());
  const posted = asked.filter((a) => a.method === 'POST');
  expect(posted).toEqual([{ method: 'POST', url: '/api/people/ivo/merge', body: { personId: 'two' } }]);
});

test('how somebody is reached is corrected once for all their deals', async () => {
  const asked = show(<PersonPlace />, () => ivo());
  fireEvent.click(await screen.findByTestId('edit-person'));
  fireEvent.change(screen.getByTestId('field-name'), { target: { value: 'Ivo Castellan-Ruiz' } });
  fireEvent.click(screen.getByTestId('save-person'));
  await waitFor(() => expect(screen.queryByTestId('save-person')).toBeNull());
  const patched = asked.find((a) => a.method === 'PATCH');
  expect(patched).toMatchObject({ body: { name: 'Ivo Castellan-Ruiz', phone: '555-0101' } });
});

test('an address that is none is said at its field, and nothing is saved', async () => {
  const asked = show(<PersonPlace />, () => ivo());
  fireEvent.click(await screen.findByTestId('edit-person'));
  fireEvent.change(screen.getByTestId('field-email'), { target: { value: 'ivo at example' } });
  fireEvent.click(screen.getByTestId('save-person'));
  await waitFor(() => expect(screen.getByTestId('field-email').getAttribute('aria-invalid')).toBe('true'));
  expect(asked.filter((a) => a.method === 'PATCH')).toEqual([]);
  screen.getByTestId('save-person');
});
