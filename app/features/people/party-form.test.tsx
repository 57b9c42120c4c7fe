/** Entering somebody of a deal, and what the server finds wrong with it. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { ApiError, call } from '../../api/client';
import { show } from '../../test/office';
import { PartyForm } from './party-form';

const input = (name: string) => screen.getByTestId<HTMLInputElement>(`field-${name}`);
const write = (name: string, text: string) => fireEvent.change(input(name), { target: { value: text } });
const add = (body: Parameters<typeof call<'addParty'>>[1]['body']) =>
  call('addParty', { params: { dealId: 'weir' }, body });

test('what the form can see itself is said before anything is sent', async () => {
  const asked = show(<PartyForm start={{ side: 'seller' }} saveLabel="Add" onSave={add} />);
  write('email', 'wren at home');
  fireEvent.click(screen.getByTestId('save-party'));
  expect(await screen.findByText('Give a name.')).toBeTruthy();
  expect(screen.getByText(/not an email address/)).toBeTruthy();
  expect(asked).toEqual([]);
});

test('what only the server can see stands beside its field, and what was written stays', async () => {
  const no = new ApiError(422, 'invalid', 'Not so.', { email: 'Nobody is reached there.' });
  const asked = show(<PartyForm start={{ side: 'buyer' }} saveLabel="Add" onSave={add} />, () => no);
  write('name', 'Wren Alder');
  write('email', 'wren@example.com');
  fireEvent.click(screen.getByTestId('save-party'));
  expect(await screen.findByText('Nobody is reached there.')).toBeTruthy();
  expect(asked.map((a) => [a.method, a.url, a.body])).toEqual([
    [
      'POST',
      '/api/deals/weir/parties',
      {
        side: 'buyer',
        name: 'Wren Alder',
        email: 'wren@example.com',
        phone: null,
        company: '',
        capacity: '',
        personId: null,
      },
    ],
  ]);
  expect([input('name').value, input('email').value]).toEqual(['Wren Alder', 'wren@example.com']);
});

test('somebody who was added leaves room for the next', async () => {
  show(<PartyForm start={{ side: 'buyer' }} saveLabel="Add" onSave={add} />);
  write('name', 'Wren Alder');
  fireEvent.click(screen.getByTestId('save-party'));
  await waitFor(() => expect(input('name').value).toBe(''));
});

test('somebody of the address book is filled in with one touch', async () => {
  const wren = { id: 'w', name: 'Wren Alder', email: 'wren@example.com', phone: '555-0101', company: '', deals: 2 };
  const asked = show(<PartyForm start={{ side: 'buyer' }} saveLabel="Add" onSave={add} />, ({ url }) =>
    url.startsWith('/api/people') ? { items: [wren], next: null } : {},
  );
  write('name', 'Wre');
  fireEvent.click(await screen.findByTestId('suggestion'));
  expect([input('name').value, input('email').value]).toEqual(['Wren Alder', 'wren@example.com']);
  expect(screen.queryByTestId('suggestion')).toBeNull();
  fireEvent.click(screen.getByTestId('save-party'));
  await waitFor(() =>
    expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({ personId: 'w', phone: '555-0101' }),
  );
});
