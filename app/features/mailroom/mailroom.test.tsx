/** What was written to whom: read in pages, opened, let come back. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { Linking } from 'react-native';
import type { MessageSummary, MessageView } from '@gatepath/contract';
import { ApiError } from '../../api/client';
import { show, type Asked } from '../../test/office';
import { MailroomPlace } from './mailroom-place';
import { MessagePlace } from './message-place';

let mockParams: Record<string, string> = {};
const mockPush = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockPush(to) as unknown },
  useLocalSearchParams: () => mockParams,
}));

const message = (n: number, more: Partial<MessageSummary> = {}): MessageSummary => ({
  id: `m${n}`,
  kind: 'ask',
  toName: 'Wren Alder',
  toEmail: 'wren@example.com',
  subject: `Please sign ${n}`,
  createdAt: '2026-11-23T15:00:00.000Z',
  status: 'kept',
  problem: null,
  packetId: 'p',
  link: `http://localhost/sign/secret-${n}`,
  channel: 'email',
  toPhone: null,
  ...more,
});
const subjects = () => screen.getAllByTestId('message').map((m) => m.textContent);

beforeEach(() => {
  mockParams = {};
  mockPush.mockClear();
});

test('messages come in pages, newest first, each with whom it went to and how it stands', async () => {
  const pages: Record<string, unknown> = {
    '': { items: [message(3, { status: 'returned', problem: 'No such mailbox.' }), message(2)], next: 'm2' },
    m2: { items: [message(1, { channel: 'text', toPhone: '555-0111', link: null, status: 'sent' })], next: null },
  };
  const asked = show(<MailroomPlace />, ({ url }) => pages[new URLSearchParams(url.split('?')[1]).get('after') ?? '']);
  await screen.findByText('Please sign 3');
  expect(subjects()[0]).toMatch(/To Wren Alder \(wren@example.com\).*came back.*No such mailbox/);
  fireEvent.click(screen.getByText('Show older messages'));
  await screen.findByText('Please sign 1');
  expect(subjects()[2]).toMatch(/Text message to Wren Alder \(555-0111\).*sent/);
  expect(screen.queryByText('Show older messages')).toBeNull();
  expect(asked.map((a) => a.url)).toEqual(['/api/mailroom?limit=40', '/api/mailroom?after=m2&limit=100']);
});

test('those of one packet alone, when it is asked for; a link opens from the list, a message by itself', async () => {
  mockParams = { packetId: 'p' };
  const open = jest.spyOn(Linking, 'openURL').mockResolvedValue(true);
  const asked = show(<MailroomPlace />, () => ({ items: [message(1)], next: null }));
  fireEvent.click(await screen.findByTestId('open-link-Wren'));
  expect(open).toHaveBeenCalledWith('http://localhost/sign/secret-1');
  fireEvent.click(screen.getByText('Please sign 1'));
  expect(mockPush).toHaveBeenCalledWith('/mailroom/m1');
  expect(asked[0]!.url).toBe('/api/mailroom?packetId=p&limit=40');
});

test('an empty mailroom says what will lie there; one that cannot be had is tried again', async () => {
  let fails = true;
  show(<MailroomPlace />, () => (fails ? new ApiError(503, 'busy', 'Much to do.') : { items: [], next: null }));
  await screen.findByText('Much to do.');
  fails = false;
  fireEvent.click(screen.getByText('Try again'));
  await screen.findByText(/No messages yet/);
});

const whole = (more: Partial<MessageView> = {}): MessageView => ({
  ...message(1),
  bodyText: 'Dear Wren,\n\nplease sign.',
  ...more,
});

test('a message is read in its paragraphs, and let come back as a mail server would', async () => {
  mockParams = { messageId: 'm1' };
  const asked: Asked[] = show(<MessagePlace />, ({ method }) =>
    method === 'POST' ? whole({ status: 'returned', problem: 'The mailbox does not exist.' }) : whole(),
  );
  await screen.findByText('Dear Wren,');
  screen.getByText('please sign.');
  fireEvent.click(screen.getByTestId('return-message'));
  await screen.findByText('The mailbox does not exist.');
  expect(asked.find((a) => a.method === 'POST')).toMatchObject({ url: '/api/mailroom/m1/return', body: {} });
  await waitFor(() => expect(screen.queryByTestId('return-message')).toBeNull());
});

test('one that a mail server has cannot be let come back, and a text message is no file', async () => {
  mockParams = { messageId: 'm1' };
  show(<MessagePlace />, () => whole({ status: 'sent', channel: 'text', toPhone: '555-0111', link: null }));
  await screen.findByText('Dear Wren,');
  for (const words of ['Open the link', 'Save as .eml']) expect(screen.queryByText(words)).toBeNull();
  expect(screen.queryByTestId('return-message')).toBeNull();
});
