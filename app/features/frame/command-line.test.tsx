/** One line that opens over everything: places, acts, and what is found. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Found } from '@gatepath/contract';
import { show } from '../../test/office';
import { CommandButton, CommandLine } from './command-line';

const mockWent = jest.fn();
jest.mock('expo-router', () => ({
  router: { push: (to: string) => mockWent(to) as unknown, replace: (to: string) => mockWent(to) as unknown },
  usePathname: () => '/deals',
}));
beforeAll(() => {
  // What the line measures and scrolls, this document has not.
  globalThis.ResizeObserver = class {
    observe = () => undefined;
    unobserve = () => undefined;
    disconnect = () => undefined;
  };
  Element.prototype.scrollIntoView = () => undefined;
});
beforeEach(() => mockWent.mockClear());

const NOTHING = { deals: [], people: [], packets: [], papers: [], alike: false };
const deal: Found = { kind: 'deal', id: 'd1', dealId: 'd1', title: '14 Lantern Row', detail: 'Listing, Tern Lock' };
const open = (answer: object = NOTHING) =>
  show(
    <>
      <input data-testid="elsewhere" />
      <CommandButton />
      <CommandLine />
    </>,
    () => answer,
  );
const write = (value: string) => fireEvent.change(screen.getByTestId('command-input'), { target: { value } });

test('one key opens it, but not while somebody is writing', async () => {
  open();
  fireEvent.keyDown(screen.getByTestId('elsewhere'), { key: '/' });
  expect(screen.queryByTestId('command-input')).toBeNull();
  fireEvent.keyDown(document.body, { key: '/' });
  await screen.findByTestId('command-input');
  write('new d');
  fireEvent.click(screen.getByTestId('go-/deals/new'));
  expect(mockWent).toHaveBeenCalledWith('/deals/new');
  await waitFor(() => expect(screen.queryByTestId('command-input')).toBeNull());
});

test('what is found is gone to with the keyboard; while the typing goes on nothing is asked', async () => {
  const asked = open({ ...NOTHING, deals: [deal] });
  fireEvent.click(screen.getByTestId('command-line'));
  await screen.findByTestId('command-input');
  for (const text of ['l', 'la', 'lan']) write(text);
  await screen.findByTestId('found-deal');
  expect(asked.filter((a) => a.url.startsWith('/api/find')).map((a) => a.url)).toEqual(['/api/find?q=lan']);
  await waitFor(() => expect(screen.getByTestId('found-deal').getAttribute('aria-selected')).toBe('true'));
  fireEvent.keyDown(screen.getByTestId('command-input'), { key: 'Enter' });
  expect(mockWent).toHaveBeenCalledWith('/deals/d1');
});

test('what is only alike says so', async () => {
  open({ ...NOTHING, deals: [deal], alike: true });
  act(() => void window.dispatchEvent(new Event('gatepath:command-line')));
  await screen.findByTestId('command-input');
  write('lantren');
  await screen.findByText('No exact match. Similar:');
});

test('nothing found is said in words', async () => {
  open();
  fireEvent.keyDown(document.body, { key: 'k', ctrlKey: true });
  await screen.findByTestId('command-input');
  write('zzz');
  await screen.findByText('Nothing has “zzz” in it, or anything similar.');
});
