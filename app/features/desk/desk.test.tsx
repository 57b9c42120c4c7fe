/** The desk as a whole, on a phone: each panel's acts, against a server that keeps the draft by the core's own rules. */
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { DocumentView, PackedFacts, PacketView } from '@gatepath/contract';
import {
  applyEdits,
  emptyDraft,
  gatesOfPattern,
  type Draft,
  type DraftEdit,
  type PacketParty,
} from '@gatepath/core/packet';
import { emptyGrid, packGrid } from '@gatepath/core/paper';
import type { PrintedPlace } from '@gatepath/core/reading';
import { ApiError } from '../../api/client';
import { party, show, underWay, type Asked } from '../../test/office';
import { DeskScreen } from './desk';

jest.mock('expo-router', () => ({ router: { navigate: jest.fn(), replace: jest.fn() } }));

const PAGES = 3;
const blank = (role: 'seller' | 'broker', kind: PrintedPlace['kind'], y: number): PrintedPlace => ({
  page: PAGES,
  kind,
  role,
  ordinal: 1,
  rect: { x: 60, y, w: 200, h: 24 },
  label: kind,
  source: 'print',
  confidence: 0.9,
});

const FACTS: PackedFacts = {
  cell: 3,
  pages: Array.from({ length: PAGES }, () => {
    const grid = emptyGrid(612, 792);
    return { width: 612, height: 792, cols: grid.cols, rows: grid.rows, ink: packGrid(grid), print: [], words: '' };
  }),
  places: [blank('seller', 'signature', 400), blank('broker', 'signature', 500)],
};

const DOCUMENT: DocumentView = {
  id: 'doc',
  dealId: 'd',
  name: 'Disclosure',
  fileName: 'disclosure.pdf',
  bytes: 1000,
  pages: FACTS.pages.map(({ width, height }) => ({ width, height })),
  pagesRead: PAGES,
  status: 'ready',
  problem: null,
  sha256: '0'.repeat(64),
  createdAt: '2026-11-23T12:00:00.000Z',
  type: 'disclosure',
  cameAs: 'pdf',
  madeFrom: [],
  replacedBy: null,
  leftOut: [],
  scanned: 0,
  endsOn: null,
  elsewhereOn: null,
  unsigned: false,
};

let draft: Draft;
let version: number;
let asked: Asked[];
let refuse: ApiError | null;

function answer({ method, url, body }: Asked): unknown {
  if (url.endsWith('/facts')) return FACTS;
  if (url.endsWith('/edits')) {
    if (refuse) return refuse;
    draft = applyEdits(draft, (body as { edits: DraftEdit[] }).edits);
    return { draft, version: ++version, over: [] };
  }
  if (url.endsWith('/send')) return refuse ?? packet({ status: 'at_gate' });
  throw new Error(`nobody asks for ${method} ${url}`);
}

const WREN = party('wren');
const TOBIAS = party('tobias', { side: 'listing_broker', ink: 1 });
function packet(more: Partial<PacketView> = {}): PacketView {
  return underWay({
    packet: { status: 'drafting', sent: null, draft, version, documents: [DOCUMENT], ...more },
  }).packet;
}

/** Opens the desk of a draft with two people and one paper of three pages. */
async function open(change: (d: Draft) => void = () => undefined, more: Partial<PacketView> = {}): Promise<void> {
  const parties: PacketParty[] = [WREN, TOBIAS];
  let n = 0;
  draft = {
    ...emptyDraft('Papers'),
    parties,
    documents: [{ id: 'doc' }],
    gates: gatesOfPattern('by_side', parties, () => `g${n++}`),
  };
  change(draft);
  asked = show(<DeskScreen packet={packet(more)} />, answer);
  await screen.findByText('page 1 of 3');
}

const tap = (testID: string) => fireEvent.click(screen.getByTestId(testID));
/** Tabs answer a button that goes down; arrow keys go from one to the next. */
const turnTo = (tab: string) => fireEvent.mouseDown(screen.getByTestId(`tab-${tab}`));
const names = () => draft.gates.map((g) => g.partyIds);
/** Returns the draft as the server has it after the edits that the desk has sent. */
const kept = (what: () => void) => waitFor(what, { timeout: 10_000 });

beforeEach(() => {
  localStorage.clear();
  version = 1;
  refuse = null;
});

test('the path: a pattern, a gate more, somebody moved, any one of them enough', async () => {
  await open();
  turnTo('path');
  tap('path-together');
  await kept(() => expect(names()).toEqual([['wren', 'tobias']]));
  tap('any-1');
  await kept(() => expect(draft.gates[0]!.need).toBe('any'));
  tap('add-gate');
  await kept(() => expect(names()).toEqual([['wren', 'tobias'], []]));
  fireEvent.click(screen.getByLabelText('Change what Tobias Alder does, or where'));
  fireEvent.click(await screen.findByText('To gate 2'));
  await kept(() => expect(names()).toEqual([['wren'], ['tobias']]));
  fireEvent.click(screen.getByLabelText('Gate 2 earlier'));
  await kept(() => expect(names()).toEqual([['tobias'], ['wren']]));
  fireEvent.click(screen.getByLabelText('Remove gate 1'));
  await kept(() => expect(names()).toEqual([['wren']]));
  screen.getByText('At no gate');
});

test('an act: whoever only gets a copy leaves the gates; whoever signs for a company says so', async () => {
  await open();
  turnTo('path');
  fireEvent.click(screen.getByLabelText('Change what Tobias Alder does, or where'));
  fireEvent.click(await screen.findByText('Tobias only gets a copy'));
  await kept(() => expect(draft.parties[1]!.act).toBe('copy'));
  expect(names().flat()).toEqual(['wren']);
  fireEvent.click(screen.getByLabelText('Change what Wren Alder does, or where'));
  fireEvent.click(await screen.findByText('Language, company, note, code…'));
  const field = await screen.findByTestId('company-Wren');
  fireEvent.change(field, { target: { value: ' Alder Family Trust ' } });
  fireEvent.blur(field);
  await kept(() => expect(draft.parties[0]!.company).toBe('Alder Family Trust'));
  screen.getByText(/for Alder Family Trust/);
});

test('somebody of the deal joins the packet, and goes out of it with all that is theirs', async () => {
  const callum = {
    id: 'callum',
    side: 'seller' as const,
    ordinal: 2,
    name: 'Callum Alder',
    email: 'c@example.com',
    phone: null,
    company: '',
    capacity: '',
    personId: null,
  };
  await open(undefined, { dealParties: [callum] });
  turnTo('path');
  fireEvent.click(screen.getByText('Add Callum Alder'));
  await kept(() => expect(draft.parties.map((p) => p.id)).toEqual(['wren', 'tobias', 'callum']));
  expect(draft.parties[2]!.ink).toBe(2);
  // The server takes no key in a draft that it does not know.
  expect(draft.parties[2]).not.toHaveProperty('personId');
  fireEvent.click(screen.getByLabelText('Change what Tobias Alder does, or where'));
  fireEvent.click(await screen.findByText('Remove from the packet'));
  await kept(() => expect(draft.parties.map((p) => p.id)).toEqual(['wren', 'callum']));
  expect(names().flat()).not.toContain('tobias');
});

test('the ledger: initials on every page by rule, counted as they are placed; a cell leads to its page', async () => {
  await open();
  turnTo('ledger');
  fireEvent.click(await screen.findByTestId('rule-Wren'));
  await kept(() => expect(draft.rules[0]!.partyIds).toEqual(['wren']));
  expect(screen.getByTestId('ledger-sum').textContent).toBe('3 of 3 placed');
  tap('rule-Tobias');
  await kept(() => expect(screen.getByTestId('ledger-sum').textContent).toBe('6 of 6 placed'));
  // Touching a cell goes to its page, with its person in hand.
  fireEvent.click(screen.getAllByTestId('cell-2-initials')[0]!);
  await waitFor(() => expect(screen.getByTestId('tab-pages').getAttribute('aria-selected')).toBe('true'));
  screen.getByText('page 2 of 3');
});

test('printed places: accepted for whom they name, left out knowingly, and decided on', async () => {
  await open();
  turnTo('printed');
  fireEvent.click(await screen.findByTestId('accept-all'));
  await kept(() =>
    expect(draft.marks.map((m) => [m.kind, m.partyId])).toEqual([
      ['signature', 'wren'],
      ['signature', 'tobias'],
    ]),
  );
  expect(draft.marks.every((m) => m.placeId)).toBe(true);
  screen.getByText('Every printed place is decided');
});

test('the gate check: what stops is said, one kind in one card, fixed in one touch, and the sending waits for it', async () => {
  await open((d) => (d.rules = []));
  tap('send');
  const check = await screen.findByTestId('gate-check');
  expect(within(check).getAllByText('Stops sending').length).toBeGreaterThan(1);
  // Findings of one kind are one card with its places inside, and one fix.
  const card = within(screen.getByTestId('finding-printed-place-open'));
  card.getByText('2 printed places have no mark yet.');
  tap('places-printed-place-open');
  expect(card.getAllByText(/on page 3 of Disclosure has no mark/)).toHaveLength(2);
  tap('fix-printed-place-open');
  await kept(() => expect(draft.marks).toHaveLength(2));
  await screen.findByTestId('check-clean');
  expect(asked.some((a) => a.url.endsWith('/send'))).toBe(false);
});

test('sending says who is asked first, sends what was looked at, and tells why it was not taken', async () => {
  const sign = (id: string, y: number) => ({
    id: `s-${id}`,
    documentId: 'doc',
    page: PAGES,
    kind: 'signature' as const,
    partyId: id,
    rect: { x: 60, y, w: 200, h: 24 },
    required: true,
  });
  await open((d) => d.marks.push(sign('wren', 400), sign('tobias', 500)));
  tap('send');
  await screen.findByText('Wren Alder is asked now; the others when it is their turn.');
  refuse = new ApiError(409, 'changed-meanwhile', 'The draft was changed since you looked at it.');
  tap('send-now');
  await screen.findByText('The draft was changed since you looked at it.');
  const { body } = asked.find((a) => a.url.endsWith('/send'))!;
  expect(body).toEqual({ version: 1, despiteWarnings: false });
});

test('undo and redo go back over everything, also from the keyboard', async () => {
  await open();
  turnTo('path');
  tap('path-together');
  await kept(() => expect(names()).toEqual([['wren', 'tobias']]));
  act(() => void fireEvent.keyDown(window, { key: 'z', ctrlKey: true }));
  await kept(() => expect(names()).toEqual([['wren'], ['tobias']]));
  act(() => void fireEvent.keyDown(window, { key: 'z', ctrlKey: true, shiftKey: true }));
  await kept(() => expect(names()).toEqual([['wren', 'tobias']]));
});
