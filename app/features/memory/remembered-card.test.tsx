/** The offer to place what a paper had on it: what it says, what it places and removes, and when it places at once. */
import { fireEvent, screen, waitFor } from '@testing-library/react';
import { emptyDraft, applyEdits, type Draft, type DraftEdit } from '@gatepath/core/packet';
import type { PacketView, RememberedView } from '@gatepath/contract';
import { useState } from 'react';
import { show } from '../../test/office';
import { RememberedCards } from './remembered-card';

type Remembered = NonNullable<RememberedView['remembered']>;

const mark = {
  id: 'm1',
  documentId: 'doc',
  page: 1,
  kind: 'signature' as const,
  partyId: 'agnes',
  rect: { x: 1, y: 2, w: 100, h: 20 },
  required: true,
};
const found: Remembered = {
  kind: 'filled',
  gone: 0,
  added: 0,
  moved: false,
  from: { kind: 'packet', name: 'Paint', address: '26 Lock Hill', sentAt: '2026-11-17T15:00:00.000Z', executed: true },
  times: 1,
  marks: [mark],
  elsewhere: [],
  doubtful: [],
  rules: [],
  passed: [{ id: 'doc.1.4' }],
  gates: null,
  uncertain: 0,
  lost: 0,
  unfilled: 0,
  slots: [{ name: 'Seller 1', partyIds: ['agnes'] }],
  beyond: [],
  open: 0,
};
const packet = {
  id: 'p',
  timeZone: 'UTC',
  documents: [{ id: 'doc', name: 'Paint', status: 'ready', pages: [{ width: 612, height: 792 }] }],
} as unknown as PacketView;
const draft = {
  ...emptyDraft('Papers'),
  parties: [{ id: 'agnes', name: 'Agnes Thorvald', side: 'seller', ordinal: 1, act: 'sign' }],
  documents: [{ id: 'doc' }],
} as unknown as Draft;

/** Shows the cards over a draft that takes edits; returns what became of it. */
function desk(remembered: Partial<Remembered> | null, { atOnce = false, version = 1, isShort = false } = {}) {
  const state = { draft, edits: [] as DraftEdit[][], sent: 0 };
  function Desk() {
    const [now, setNow] = useState(draft);
    const edit = (edits: DraftEdit[]) => {
      state.edits.push(edits);
      state.draft = applyEdits(now, edits);
      setNow(state.draft);
    };
    const on = { packet, draft: now, edit, version };
    return <RememberedCards on={on} onSend={() => state.sent++} {...(isShort ? { only: 'doc', isShort } : {})} />;
  }
  const asked = show(<Desk />, () => ({ atOnce, remembered: remembered && { ...found, ...remembered } }));
  return { state, asked };
}

test('what was found is offered, placed in one touch, and removed in one', async () => {
  const { state } = desk({});
  const card = await screen.findByTestId('remembered');
  expect(card.textContent).toContain('the paper for 26 Lock Hill, executed Tue, Nov 17');
  expect(card.textContent).toContain('Seller 1: Agnes Thorvald.');
  fireEvent.click(screen.getByText('Place the mark'));
  expect(state.draft.marks).toEqual([mark]);
  expect(state.draft.passed).toEqual(found.passed);
  expect(screen.getByTestId('remembered-placed').textContent).toContain('1 mark placed');
  fireEvent.click(screen.getByTestId('remove-remembered'));
  expect([state.draft.marks, state.draft.passed]).toEqual([[], []]);
  expect(screen.getByTestId('remembered')).toBeTruthy();
});

test('where nothing is in doubt, it is placed and sent in one touch; otherwise it is looked at before', async () => {
  const { state } = desk({});
  fireEvent.click(await screen.findByTestId('place-and-send'));
  expect([state.draft.marks, state.sent]).toEqual([[mark], 1]);
  desk({ kind: 'edition', added: 1 });
  await waitFor(() => expect(screen.getByTestId('place-remembered')).toBeTruthy());
  expect(screen.queryByTestId('place-and-send')).toBeNull();
});

test('what is left out is said, also where there is little room', async () => {
  desk(
    {
      uncertain: 1,
      lost: 2,
      unfilled: 3,
      slots: [{ name: 'Buyer 1', partyIds: [] }],
      kind: 'edition',
      gone: 1,
      added: 7,
    },
    { isShort: true },
  );
  const { textContent } = await screen.findByTestId('remembered');
  expect(textContent).toContain('differs from the paper');
  expect(textContent).toContain('7 words added and 1 word gone');
  expect(textContent).toContain('3 marks left out because this packet has no Buyer 1.');
  expect(textContent).toContain('1 mark may not belong where it was found.');
  expect(textContent).toContain('2 marks could not be matched to this paper and were left out.');
});

test('uncertain and moved marks are looked at one by one; uncertain ones are placed only if somebody chooses them', async () => {
  const [doubtful, moved] = [
    { ...mark, id: 'm2', kind: 'initials' as const },
    { ...mark, id: 'm3', kind: 'date_signed' as const },
  ];
  const { state } = desk({
    kind: 'edition',
    added: 1,
    uncertain: 1,
    marks: [mark, moved],
    doubtful: [doubtful],
    elsewhere: ['m3'],
  });
  const look = await screen.findByTestId('review-places');
  expect(look.textContent).toBe('Review 1 uncertain mark and 1 moved mark');
  expect(screen.getByTestId('place-remembered').textContent).toBe('Place the 2 marks');
  fireEvent.click(look);
  expect(screen.getByTestId('found-places').textContent).toContain('Agnes Thorvald: initials, page 1');
  fireEvent.click(screen.getByTestId('found-uncertain'));
  fireEvent.click(screen.getByTestId('found-elsewhere'));
  fireEvent.click(screen.getByTestId('place-remembered'));
  expect(state.draft.marks).toEqual([mark, doubtful]);
});

test('where nothing is certain, nothing is placed until somebody chooses a mark', async () => {
  const { state } = desk({ marks: [], doubtful: [mark], uncertain: 1 }, { atOnce: true });
  fireEvent.click(await screen.findByTestId('review-places'));
  expect(screen.queryByTestId('place-remembered')).toBeNull();
  fireEvent.click(screen.getByTestId('found-uncertain'));
  fireEvent.click(screen.getByTestId('place-remembered'));
  expect(state.draft.marks).toEqual([mark]);
});

test('nothing is shown of a new paper, of one with marks on it, or of one that nothing was found for', async () => {
  const { asked } = desk(null);
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(screen.queryByTestId('remembered')).toBeNull();
  desk({ marks: [], rules: [] });
  await waitFor(() => expect(screen.queryByTestId('remembered')).toBeNull());
});

test('a firm has it placed at once where nothing is in doubt and nobody has worked on the draft', async () => {
  const { state } = desk({}, { atOnce: true });
  await screen.findByTestId('remembered-placed');
  expect(state.edits).toHaveLength(1);
  // What was removed is not placed again.
  fireEvent.click(screen.getByTestId('remove-remembered'));
  expect(screen.queryByTestId('remembered-placed')).toBeNull();
  expect(state.draft.marks).toEqual([]);
});

test.each<[string, Partial<Remembered>, number]>([
  ['words differ', { kind: 'edition', added: 1 }, 1],
  ['a mark was not found', { lost: 1 }, 1],
  ['nobody fills a slot', { unfilled: 1 }, 1],
  ['somebody has worked on the draft', {}, 2],
])('it is offered and not placed at once where %s', async (_, change, version) => {
  const { state } = desk(change, { atOnce: true, version });
  await screen.findByTestId('remembered');
  expect(state.edits).toEqual([]);
});

test('a paper that was sent three times is offered for the shelf', async () => {
  desk({ times: 3 });
  fireEvent.click(await screen.findByTestId('place-remembered'));
  expect(screen.getByTestId('remembered-to-shelf')).toBeTruthy();
});
