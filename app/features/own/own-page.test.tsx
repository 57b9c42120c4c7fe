/** A person's own page on its own: the code at the door, what waits first, then by year. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { OwnPage as View } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { show } from '../../test/office';
import { OwnPage } from './own-page';

const mockPush = jest.fn();
jest.mock('expo-router', () => ({ router: { push: (to: string) => mockPush(to) as unknown } }));

const packet = (id: string, more: Partial<View['packets'][number]> = {}): View['packets'][number] => ({
  id,
  partyId: 'wren',
  name: `Papers ${id}`,
  dealName: '14 Lantern Row, Tern Lock',
  status: 'executed',
  act: 'sign',
  left: 0,
  opened: true,
  lastDay: null,
  on: '2026-11-20',
  documents: [{ id: 'doc', name: 'Disclosure', pages: 2, sealed: true }],
  ...more,
});
const page = (more: Partial<View> = {}): View => ({
  firmName: 'Towpath & Vane Realty',
  firstName: 'Wren',
  language: 'en',
  languages: [{ tag: 'en', name: 'English' }],
  code: { to: 'w…@example.com', sent: false },
  proved: true,
  name: 'Wren Alder',
  packets: [],
  next: null,
  ...more,
});
const shut = page({ proved: false, name: '' });

test('the door tells where the code goes, and opens with it', async () => {
  const asked = show(<OwnPage token="t" />, (a) =>
    a.url.endsWith('/code')
      ? { ...shut, code: { ...shut.code, sent: true } }
      : a.url.endsWith('/step')
        ? page({ packets: [packet('1')] })
        : shut,
  );
  await screen.findByText('Is it you, Wren?');
  screen.getByText('We send a code of six digits to w…@example.com.');
  expect(screen.queryByTestId('code')).toBeNull();
  fireEvent.click(screen.getByTestId('send-code'));
  fireEvent.change(await screen.findByTestId('code'), { target: { value: '123456' } });
  fireEvent.click(screen.getByTestId('give-code'));
  await screen.findByText('Papers 1');
  expect(asked.find((a) => a.url.endsWith('/step'))!.body).toEqual({ code: '123456' });
});

test('a wrong code is told, and can be given again', async () => {
  const sent = { ...shut, code: { ...shut.code, sent: true } };
  show(<OwnPage token="t" />, (a) =>
    a.url.endsWith('/step') ? new ApiError(422, 'wrong-code', 'That code is not right.') : sent,
  );
  fireEvent.change(await screen.findByTestId('code'), { target: { value: '000000' } });
  fireEvent.click(screen.getByTestId('give-code'));
  await screen.findByText('That code is not right.');
  expect((screen.getByTestId('code') as HTMLInputElement).value).toBe('');
});

test('what waits comes first and is one touch away; what is done stands by its year', async () => {
  const packets = [
    packet('old', { on: '2025-03-01' }),
    packet('read', { status: 'delivered', act: 'receive', opened: false }),
    packet('sign', { status: 'to_do', left: 3, documents: [] }),
    packet('new'),
  ];
  const asked = show(<OwnPage token="t" />, (a) => (a.method === 'POST' ? { token: 'pass' } : page({ packets })));
  await screen.findByText('Waiting for you');
  const names = screen.getAllByTestId('own-packet').map((e) => /Papers \w+?(?=14)/.exec(e.textContent!)![0]);
  expect(names).toEqual(['Papers sign', 'Papers read', 'Papers old', 'Papers new']);
  screen.getByText('2025');
  fireEvent.click(screen.getAllByTestId('own-open')[0]!);
  await waitFor(() => expect(mockPush).toHaveBeenCalledWith('/sign/pass'));
  expect(asked.find((a) => a.method === 'POST')!.url).toContain('/mine/t/packets/sign');
  // Papers behind a second step tell nothing here.
  expect(screen.getAllByLabelText('Sealed copy: Disclosure')).toHaveLength(3);
});

test('an address that is none is told kindly', async () => {
  show(<OwnPage token="t" />, () => new ApiError(404, 'dead-link', 'This page does not open, or no longer does.'));
  await screen.findByText('This page does not open, or no longer does.');
});
