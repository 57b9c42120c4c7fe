/** Parts of the desk with a desk around them: the check in one line and by kind, and who initials every page. */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { QueryClient } from '@tanstack/react-query';
import type { ReactElement } from 'react';
import { emptyDraft, type DocumentFacts, type Draft, type Mark } from '@gatepath/core/packet';
import { emptyGrid } from '@gatepath/core/paper';
import type { PrintedPlace } from '@gatepath/core/reading';
import { party, show, underWay } from '../../test/office';
import { CheckLine } from './check-line';
import { CheckPanel } from './check-panel';
import { PACKET_SETUP } from './desk-setup';
import { DeskStore } from './desk-store';
import { LedgerPanel } from './ledger-panel';
import { DeskContext } from './use-desk';

const place = (role: PrintedPlace['role'], kind: PrintedPlace['kind'], y: number): PrintedPlace => ({
  page: 1,
  kind,
  role,
  ordinal: 1,
  rect: { x: 60, y, w: 200, h: 24 },
  label: kind,
  source: 'print',
  confidence: 0.9,
});
const paper = (id: string, places: PrintedPlace[]): DocumentFacts => ({
  id,
  name: id.toUpperCase(),
  pages: Array.from({ length: 2 }, () => ({ width: 612, height: 792, ink: emptyGrid(612, 792), print: [], words: [] })),
  places,
});
const sign = (documentId: string, partyId: string, y: number): Mark => ({
  id: `${documentId}-${partyId}`,
  documentId,
  page: 1,
  kind: 'signature',
  partyId,
  rect: { x: 60, y, w: 200, h: 24 },
  required: true,
});

/** Shows a part of the desk of a packet with a seller and a broker. */
function open(part: ReactElement, documents: DocumentFacts[], change: (d: Draft) => void = () => undefined) {
  const { packet } = underWay({ packet: { status: 'drafting', sent: null } });
  const draft: Draft = {
    ...emptyDraft('Papers'),
    parties: [party('wren'), party('tobias', { side: 'listing_broker', ink: 1 })],
    documents: documents.map(({ id }) => ({ id })),
    gates: [{ id: 'g', partyIds: ['wren', 'tobias'] }],
  };
  change(draft);
  const desk = new DeskStore({ ...packet, draft, version: 1 }, PACKET_SETUP, new QueryClient());
  show(<DeskContext.Provider value={desk}>{part}</DeskContext.Provider>, () => {
    throw new Error('no connection');
  });
  return desk;
}
/** Hands the facts of the pages to a desk, as once they are loaded. */
const load = (desk: DeskStore, documents: DocumentFacts[]) =>
  act(() => desk.dispatch({ type: 'facts', documents, ready: true }));
const line = () => screen.getByTestId('check-line').textContent;
const tap = (testID: string) => fireEvent.click(screen.getByTestId(testID));

beforeEach(() => localStorage.clear());

test('the line says what to do first, does it, and in the end says what stays empty', async () => {
  const documents = [
    paper('a', [place('seller', 'signature', 300), place('broker', 'signature', 400), place('unknown', 'text', 500)]),
  ];
  const opened: string[] = [];
  const desk = open(<CheckLine onOpen={(panel) => void opened.push(panel)} />, documents);
  expect(line()).toBe('Reading the pages…');
  load(desk, documents);
  // The others: these people have no signature yet, and nobody signs the document.
  expect(line()).toBe('2 printed places have no mark yet.Place themand 2 more');
  tap('check-fix');
  expect(desk.store.getState().draft.marks.map((m) => m.kind)).toEqual(['signature', 'signature']);
  // Nothing stops the sending; that a blank was given to nobody is said all the same.
  expect(line()).toBe('1 printed place stays empty. Ready to send.See');
  tap('check-open');
  act(() => desk.acts.dismiss(desk.store.getState().view.proposals.filter((p) => p.state === 'open')));
  await waitFor(() => expect(line()).toBe('Nothing is missing. Ready to send.'));
  expect(opened).toEqual(['printed']);
});

test('the line fixes all findings of the first kind, and counts the other kinds', async () => {
  const documents = [paper('a', []), paper('b', [])];
  const desk = open(<CheckLine onOpen={() => undefined} />, documents, (d) => {
    d.parties[0]!.email = '';
    d.marks = ['a', 'b'].flatMap((id) => [sign(id, 'wren', 300), sign(id, 'tobias', 400)]);
    // A person who only gets a copy has marks to fill.
    d.parties[1]!.act = 'copy';
    d.gates[0]!.partyIds = ['wren'];
  });
  load(desk, documents);
  expect(line()).toMatch(/email address.*and 1 more$/);
  act(() => desk.acts.edit([{ op: 'put', list: 'parties', item: party('wren') }]));
  await waitFor(() => expect(line()).toContain('but has marks to fill.Remove the marks'));
  tap('check-fix');
  expect(desk.store.getState().draft.marks.map((m) => m.partyId)).toEqual(['wren', 'wren']);
  expect(desk.store.getState().past).toHaveLength(2);
});

test('findings of one kind are one card; touching one of its places goes there', async () => {
  const documents = [paper('a', []), paper('b', [])];
  const desk = open(<CheckPanel />, documents, (d) => {
    d.marks = ['a', 'b'].flatMap((id) => [sign(id, 'wren', 300), sign(id, 'tobias', 400)]);
    for (const m of d.marks.filter((x) => x.partyId === 'tobias')) m.rect = { ...m.rect, y: 310 };
  });
  load(desk, documents);
  const cards = await screen.findAllByTestId('finding-mark-over-mark');
  expect(cards).toHaveLength(1);
  expect(cards[0]!.textContent).toContain('Marks overlap in 2 places.');
  tap('places-mark-over-mark');
  fireEvent.click(screen.getByText(/overlap on page 1 of B/));
  expect(desk.store.getState().where).toEqual({ documentId: 'b', page: 1 });
});

test('one touch has a person initial every page of all documents, with a rule of its own for each', async () => {
  const documents = [paper('a', []), paper('b', []), paper('c', [])];
  const desk = open(<LedgerPanel />, documents);
  load(desk, documents);
  await screen.findByText('Initials on every page of all 3 documents');
  const ruled = () => desk.store.getState().draft.rules.map((r) => `${r.documentId}: ${r.partyIds.join()}`);
  tap('rule-all-Wren');
  expect(ruled()).toEqual(['a: wren', 'b: wren', 'c: wren']);
  expect(screen.getByTestId('ledger-sum').textContent).toBe('6 of 6 placed');
  // An exception is made by document; then not all of them have the rule.
  tap('rules-by-document');
  fireEvent.click(screen.getAllByTestId('rule-Wren')[1]!);
  expect(ruled()).toEqual(['a: wren', 'c: wren']);
  expect(screen.getByTestId('rule-all-Wren').textContent).toContain('Wren, 2 of 3');
  tap('rule-all-Wren');
  tap('rule-all-Wren');
  expect(ruled()).toEqual([]);
  act(() => desk.acts.undo());
  expect(ruled()).toHaveLength(3);
});
