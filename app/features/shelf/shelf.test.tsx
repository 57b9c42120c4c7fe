/** The shelf's screens: what a kit would make of a deal, what is locked, several deals, and marks found again. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import type { KitTrial, ShelfItemView, ShelfSummary } from '@gatepath/contract';
import { emptyDraft } from '@gatepath/core/packet';
import { ApiError } from '../../api/client';
import { dealView, show, type Asked } from '../../test/office';
import { KitChooser } from './kit-chooser';
import { NewKit } from './new-kit';
import { Sharing, NotOwn } from './sharing';
import { ShelfPlace } from './shelf-place';
import { UseKit } from './use-kit';

const mockWent = jest.fn();
let mockAsked: Record<string, string> = {};
jest.mock('expo-router', () => ({
  router: {
    push: (to: string) => mockWent(to) as unknown,
    replace: (to: string) => mockWent(to) as unknown,
    navigate: (to: string) => mockWent(to) as unknown,
  },
  useLocalSearchParams: () => mockAsked,
}));
beforeEach(() => mockWent.mockClear());

const slot = (id: string, name: string, letters: string, ink = 0) => ({ id, name, letters, ink, kind: 'one' as const });
const summary = (more: Partial<ShelfSummary> = {}): ShelfSummary => ({
  own: true,
  id: 'k1',
  what: 'kit',
  name: 'Older home',
  edition: 1,
  changed: false,
  retired: false,
  endsOn: null,
  slots: [slot('s1', 'Seller 1', 'S1'), slot('b1', 'Buyer 1', 'B1', 1)],
  gates: [['s1'], ['b1']],
  pages: 6,
  documentId: null,
  type: null,
  forms: ['Seller’s disclosure', 'Lead paint disclosure'],
  ...more,
});
const trial = (more: Partial<KitTrial> = {}): KitTrial => ({
  kit: { id: 'k1', name: 'Older home', edition: 1 },
  address: '7 Weir Terrace',
  name: 'Older home',
  subject: 'The papers for {address}',
  message: '',
  says: { subject: 'The papers for 7 Weir Terrace', message: '' },
  lastDay: '2026-12-09',
  later: null,
  timeZone: 'America/New_York',
  reports: [],
  nudges: true,
  papers: 2,
  pages: 6,
  slots: [
    { ...slot('s1', 'Seller 1', 'S1'), side: 'seller', people: ['wren'], empty: null, papers: 2 },
    { ...slot('b1', 'Buyer 1', 'B1', 1), side: 'buyer', people: [], empty: 'nobody', papers: 2 },
  ],
  people: [
    {
      id: 'wren',
      name: 'Wren Alder',
      ink: 0,
      side: 'seller',
      act: 'sign',
      signatures: 2,
      initials: 6,
      others: 0,
      beyond: 0,
    },
    {
      id: 'cal',
      name: 'Callum Alder',
      ink: 1,
      side: 'seller',
      act: 'sign',
      signatures: 2,
      initials: 6,
      others: 0,
      beyond: 1,
    },
  ],
  gates: [['wren', 'cal']],
  findings: [{ sentence: 'No one fills the place of Buyer 1.', severity: 'warns' }],
  unknown: [],
  uses: 0,
  meets: ['Lead paint disclosure'],
  locks: [{ lock: 'schedule', by: 'Odile Farrant' }],
  ...more,
});
const item = (more: Partial<ShelfItemView> = {}): ShelfItemView => ({
  ...summary(),
  draft: emptyDraft('Older home'),
  version: 3,
  documents: [],
  locks: [],
  owner: { id: 'odile', name: 'Odile Farrant' },
  users: null,
  makers: null,
  lastIn: null,
  forms: [{ id: 'f1', name: 'Seller’s disclosure', edition: 1, retired: false }],
  kits: [],
  editions: [],
  since: [],
  written: null,
  ...more,
});

test('kits stand with their roles and how they stand; forms are a touch away, and an empty shelf says what it is for', async () => {
  show(<ShelfPlace />, ({ url }) =>
    url.includes('what=form') ? { items: [], next: null } : { items: [summary({ changed: true })], next: null },
  );
  await screen.findByText('Older home');
  screen.getByText('edition 1, changed since');
  expect(screen.getByLabelText('Seller 1')).toBeTruthy();
  fireEvent.click(screen.getByRole('radio', { name: 'Forms' }));
  await screen.findByText('No forms yet');
  screen.getByText(/A form is a paper whose places belong to roles/);
});

test('a kit says who fills which place, who is missing, what it meets, and sends in one act what was changed', async () => {
  mockAsked = { dealId: 'd1', kitId: 'k1' };
  const asked = show(<UseKit />, ({ url, method }) =>
    url.endsWith('/trial')
      ? trial()
      : method === 'POST'
        ? { id: 'p9' }
        : dealView({ id: 'd1', address: '7 Weir Terrace' }),
  );
  await screen.findByText('2 papers, 6 pages. Meets 1 of what the deal needs: Lead paint disclosure.');
  screen.getByText('signs 2, initials 6');
  screen.getByText('signs 2, initials 6; a paper has no line for them; space was found');
  screen.getByText('No buyer 1 yet');
  screen.getByText('The papers for 7 Weir Terrace');
  expect(screen.queryByTestId('change-Last day')).toBeNull();
  expect(screen.getAllByLabelText('Locked by Odile Farrant')).toHaveLength(3);
  fireEvent.click(screen.getByTestId('change-Subject'));
  const field = screen.getByTestId('kit-subject');
  fireEvent.change(field, { target: { value: 'Sign here' } });
  fireEvent.blur(field);
  await waitFor(() =>
    expect(asked.filter((a) => a.url.endsWith('/trial')).at(-1)?.body).toEqual({ subject: 'Sign here' }),
  );
  // While it is worked out anew nothing can be sent.
  await waitFor(() => expect(screen.getByTestId('kit-send').getAttribute('aria-disabled')).not.toBe('true'));
  fireEvent.click(screen.getByText('Send to Wren and Callum'));
  await waitFor(() => expect(mockWent).toHaveBeenCalledWith('/packets/p9'));
  expect(asked.find((a) => a.url.endsWith('/kits/k1'))?.body).toEqual({
    subject: 'Sign here',
    send: true,
    despiteWarnings: true,
    saveValues: false,
    // What the preview counted: a second packet meanwhile stops this one.
    uses: 0,
  });
});

test('it goes at a day and an hour when that is wished, in a colleague’s name, and others are told', async () => {
  mockAsked = { dealId: 'd1', kitId: 'k1' };
  const members = ['Odile Farrant', 'Tobias Vane'].map((name) => ({ id: name.toLowerCase().replace(' ', '-'), name }));
  const asked = show(<UseKit />, ({ url, method, body }) => {
    if (url.endsWith('/trial')) return trial({ locks: [], ...(body as Partial<KitTrial>) });
    if (url === '/api/firm') return { members };
    if (url === '/api/session/colleagues') return { others: members, lets: [], mayFor: [members[1]] };
    return method === 'POST' ? { id: 'p9' } : dealView({ id: 'd1', address: '7 Weir Terrace' });
  });
  fireEvent.click(await screen.findByTestId('change-When'));
  const day = screen.getByTestId('kit-later-day');
  fireEvent.change(day, { target: { value: '2026-12-03' } });
  fireEvent.blur(day);
  await screen.findByText('sent Thu, Dec 3 at 9:00');
  fireEvent.click(screen.getByTestId('kit-later-hour'));
  fireEvent.click(await screen.findByText('15:00'));
  await screen.findByText('Send it Thu, Dec 3 at 15:00');
  fireEvent.click(screen.getByTestId('change-Who is notified'));
  fireEvent.click(screen.getByTestId('told-Tobias Vane'));
  await screen.findByText('you, Tobias Vane');
  fireEvent.click(screen.getByRole('radio', { name: 'For Tobias Vane' }));
  await waitFor(() => expect(screen.getByTestId('kit-send').getAttribute('aria-disabled')).not.toBe('true'));
  fireEvent.click(screen.getByTestId('kit-send'));
  await waitFor(() =>
    expect(asked.find((a) => a.url.endsWith('/kits/k1'))?.body).toMatchObject({
      later: { day: '2026-12-03', hour: 15 },
      reports: ['tobias-vane'],
      forId: 'tobias-vane',
    }),
  );
});

test('what stops the packet is told, and it cannot be sent', async () => {
  mockAsked = { dealId: 'd1', kitId: 'k1' };
  show(<UseKit />, ({ url }) =>
    url.endsWith('/trial')
      ? trial({ findings: [{ sentence: 'Wren has no address.', severity: 'stops' }] })
      : dealView({ id: 'd1' }),
  );
  await screen.findByText('Wren has no address.');
  expect(screen.getByTestId('kit-send').getAttribute('aria-disabled')).toBe('true');
});

test('kits for a deal are asked for when they are wanted, each with what it meets and whom it misses', async () => {
  const asked = show(<KitChooser dealId="d1" />, () => ({
    items: [
      {
        id: 'k1',
        name: 'Older home',
        papers: 2,
        slots: [],
        gates: [],
        meets: ['Lead paint disclosure'],
        missing: ['Buyer 1'],
      },
    ],
  }));
  expect(asked).toEqual([]);
  fireEvent.click(screen.getByTestId('use-kit'));
  await screen.findByText('2 papers; meets Lead paint disclosure; no one yet for Buyer 1');
  fireEvent.click(screen.getByTestId('kit-choice'));
  expect(mockWent).toHaveBeenCalledWith('/deals/d1/kit/k1');
});

test('a new kit takes forms in the order in which they are chosen; a refusal is told', async () => {
  const forms = ['f1', 'f2'].map((id) => summary({ id, what: 'form', name: `Form ${id}`, forms: [] }));
  const answer = ({ method }: Asked) =>
    method === 'POST' ? new ApiError(409, 'not-on-shelf', 'A form was retired.') : { items: forms, next: null };
  const asked = show(<NewKit />, answer);
  fireEvent.change(await screen.findByTestId('kit-name'), { target: { value: 'Kit' } });
  for (const id of ['f2', 'f1']) fireEvent.click(screen.getByTestId(`choose-Form ${id}`));
  screen.getByText('1. Form f2');
  fireEvent.click(screen.getByTestId('make-kit'));
  await screen.findByText('A form was retired.');
  expect(asked.at(-1)?.body).toEqual({ name: 'Kit', formIds: ['f2', 'f1'] });
});

test('who may use it is everybody or those who are named; who may only use it is told so', async () => {
  const members = [
    { id: 'odile', name: 'Odile Farrant', email: 'o@example.com' },
    { id: 'tobias', name: 'Tobias Mercer', email: 't@example.com' },
  ];
  const asked = show(<Sharing item={item({ users: [] })} />, ({ method }) =>
    method === 'PATCH' ? item() : { members },
  );
  fireEvent.click(await screen.findByLabelText('Tobias Mercer'));
  await waitFor(() => expect(asked.at(-1)?.body).toEqual({ users: ['tobias'] }));
  fireEvent.click(screen.getByTestId('all-make'));
  await waitFor(() => expect(asked.at(-1)?.body).toEqual({ makers: [] }));
});

test('what is not one’s own is shown with a way to a copy', async () => {
  show(<NotOwn item={item({ own: false })} />, () => item({ id: 'copy' }));
  screen.getByText('Odile Farrant owns it. You can use it on a deal but not change it.');
  fireEvent.click(screen.getByTestId('copy-item'));
  await waitFor(() => expect(mockWent).toHaveBeenCalledWith('/shelf/copy'));
});
