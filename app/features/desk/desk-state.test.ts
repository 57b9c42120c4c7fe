/** The desk's reducer and selectors, without a screen. */
import fc from 'fast-check';
import {
  applyEdits,
  emptyDraft,
  type DocumentFacts,
  type Draft,
  type DraftEdit,
  type Mark,
} from '@gatepath/core/packet';
import { emptyGrid } from '@gatepath/core/paper';
import { underWay, party } from '../../test/office';
import { PACKET_SETUP } from './desk-setup';
import {
  isGathering,
  onPage,
  openDesk,
  pageBeside,
  partyInHand,
  positionOf,
  proposalInHand,
  reduceDesk,
  selectedMarks,
  shownPages,
  type DeskAction,
  type DeskState,
} from './desk-state';

const PAGE = { width: 612, height: 792, ink: emptyGrid(612, 792), print: [], words: [] };
const facts = (id: string, pages: number): DocumentFacts => ({
  id,
  name: id.toUpperCase(),
  pages: Array.from({ length: pages }, () => PAGE),
  places: [
    {
      page: 1,
      kind: 'signature',
      role: 'broker',
      ordinal: 1,
      rect: { x: 60, y: 400, w: 200, h: 24 },
      label: 'Broker',
      source: 'print',
      confidence: 0.9,
    },
  ],
});
const DOCUMENTS = [facts('a', 5), facts('b', 2)];
const mark = (id: string, documentId: string, page: number): Mark => ({
  id,
  documentId,
  page,
  kind: 'initials',
  partyId: 'wren',
  rect: { x: 60, y: 100, w: 54, h: 22 },
  required: true,
});
const put = (item: Mark): DraftEdit => ({ op: 'put', list: 'marks', item });

/** Returns a desk with two people, two documents and some marks. */
function desk(marks: Mark[] = []): DeskState {
  const { packet } = underWay({ packet: { status: 'drafting', sent: null } });
  const draft: Draft = {
    ...emptyDraft('Papers'),
    parties: [party('wren'), party('tobias', { side: 'listing_broker', ink: 1 })],
    documents: [{ id: 'a' }, { id: 'b' }],
    marks,
  };
  return after(openDesk({ ...packet, draft, version: 1 }, PACKET_SETUP), {
    type: 'facts',
    documents: DOCUMENTS,
    ready: true,
  });
}
const after = (state: DeskState, ...actions: DeskAction[]) => actions.reduce(reduceDesk, state);
const saving = { state: 'saving', sentence: '' } as const;

test('pages are gone through one at a time, across documents, and end at the ends', () => {
  let state = desk();
  const seen = [];
  for (let at = positionOf(state); at; at = pageBeside(state, 1)) {
    seen.push(`${at.documentId}${at.page}`);
    state = after(state, { type: 'go', to: at });
  }
  expect(seen).toEqual(['a1', 'a2', 'a3', 'a4', 'a5', 'b1', 'b2']);
  const back = [];
  for (let at = positionOf(state); at; at = pageBeside(state, -1)) {
    back.unshift(`${at.documentId}${at.page}`);
    state = after(state, { type: 'go', to: at });
  }
  expect(back).toEqual(seen);
});

test('two at a time every page is shown once, whichever of the two is the current one', () => {
  for (const current of [0, 1]) {
    let state = after(desk(), { type: 'show-pages', pages: 2 });
    const seen: string[] = [];
    for (let at = positionOf(state); at; at = pageBeside(state, 1)) {
      state = after(state, { type: 'go', to: at });
      const shown = shownPages(state);
      seen.push(...shown.map((x) => `${x.documentId}${x.page}`));
      state = after(state, { type: 'make-current', at: shown[current] ?? shown[0]! });
    }
    expect(seen).toEqual(['a1', 'a2', 'a3', 'a4', 'a5', 'b1', 'b2']);
  }
});

test('a mark is selected alone or with others, on the page where it is; going elsewhere lets go of it', () => {
  const state = desk([mark('m1', 'a', 2), mark('m2', 'a', 3)]);
  const one = after(state, { type: 'select', markId: 'm1' });
  expect([selectedMarks(one).map((m) => m.id), positionOf(one)?.page]).toEqual([['m1'], 2]);
  const both = after(one, { type: 'select', markId: 'm2', also: true });
  expect(selectedMarks(both).map((m) => m.id)).toEqual(['m1', 'm2']);
  expect(selectedMarks(after(both, { type: 'select', markId: 'm1', also: true })).map((m) => m.id)).toEqual(['m2']);
  expect(selectedMarks(after(both, { type: 'go', to: { documentId: 'b', page: 1 } }))).toEqual([]);
  // The other of two pages becomes the current one without changing the selection.
  expect(selectedMarks(after(both, { type: 'make-current', at: { documentId: 'a', page: 1 } }))).toHaveLength(2);
});

test('marks, a printed place and a change are never selected at once', () => {
  const state = desk([mark('m1', 'a', 2)]);
  const [place] = state.view.proposals;
  const picked = after(state, { type: 'select', markId: 'm1' }, { type: 'pick-proposal', id: place!.id });
  expect([selectedMarks(picked), proposalInHand(picked)?.id, partyInHand(picked)]).toEqual([[], place!.id, 'tobias']);
  const change = after(picked, { type: 'pick-redline', id: 'r' });
  expect([proposalInHand(change), change.redlineId]).toEqual([null, 'r']);
  expect(after(change, { type: 'select', markId: 'm1' }).redlineId).toBeNull();
  const all = after(picked, { type: 'select-many', markIds: ['m1'] });
  expect([selectedMarks(all).map((m) => m.id), proposalInHand(all)]).toEqual([['m1'], null]);
});

test('a mark that is gone is not selected, and nobody gathers with nothing in hand', () => {
  const state = after(desk([mark('m1', 'a', 2)]), { type: 'select', markId: 'm1' }, { type: 'gather', on: true });
  expect(isGathering(state)).toBe(true);
  const gone = after(state, { type: 'queue', waiting: [{ op: 'drop', list: 'marks', id: 'm1' }], saving });
  expect([selectedMarks(gone), isGathering(gone)]).toEqual([[], false]);
});

test('an answer of the server leaves what is equal the same objects', () => {
  const waiting = [put(mark('m2', 'a', 3))];
  const state = after(desk([mark('m1', 'a', 2)]), { type: 'queue', waiting, saving });
  const fromServer = JSON.parse(JSON.stringify(state.draft)) as Draft;
  const answered = after(state, { type: 'queue', waiting: [], saving, base: { draft: fromServer, version: 2 } });
  expect(answered.base.version).toBe(2);
  expect(answered.draft).toBe(state.draft);
  expect(answered.view).toBe(state.view);
  const other = { ...fromServer, marks: fromServer.marks.map((m) => (m.id === 'm1' ? { ...m, page: 4 } : m)) };
  const changed = after(answered, { type: 'base', base: { draft: other, version: 3 } });
  expect(changed.draft.marks[0]).toMatchObject({ id: 'm1', page: 4 });
  expect(changed.draft.marks[1]).toBe(state.draft.marks[1]);
});

test('an edit of one page leaves the marks of the others the same objects, those of rules included', () => {
  const rule = { id: 'r', documentId: 'a', partyIds: ['wren'], anchor: { fx: 1, fy: 1 }, except: [], moved: [] };
  const state = after(desk(), { type: 'queue', waiting: [{ op: 'put', list: 'rules', item: rule }], saving });
  const next = after(state, {
    type: 'queue',
    waiting: [...state.waiting, put({ ...mark('m', 'a', 1), kind: 'text' })],
    saving,
  });
  expect(onPage(next.view.marks, { documentId: 'a', page: 1 })).toHaveLength(2);
  for (const page of [2, 3, 4, 5]) {
    const at = { documentId: 'a', page };
    expect(onPage(next.view.marks, at)[0]).toBe(onPage(state.view.marks, at)[0]);
  }
});

test('whatever is done, undoing all of it leads back to the beginning, and doing it again to the end', () => {
  const edit = fc.oneof(
    fc
      .tuple(fc.nat(3), fc.constantFrom('a', 'b'), fc.integer({ min: 1, max: 2 }))
      .map(([n, d, p]) => put(mark(`m${n}`, d, p))),
    fc.nat(3).map((n): DraftEdit => ({ op: 'drop', list: 'marks', id: `m${n}` })),
    fc.string().map((value): DraftEdit => ({ op: 'set', field: 'subject', value })),
  );
  const acts = fc.array(fc.array(edit, { minLength: 1, maxLength: 4 }), { maxLength: 8 });
  /** Makes an act as the store does: what undoes it first, then the edits at the end of the queue. */
  const make = (state: DeskState, type: 'act' | 'undo' | 'redo', edits: DraftEdit[]) =>
    after(state, type === 'act' ? { type, edits } : { type }, {
      type: 'queue',
      waiting: [...state.waiting, ...edits],
      saving,
    });
  fc.assert(
    fc.property(acts, (all) => {
      const start = desk([mark('m0', 'a', 1)]);
      let state = start;
      for (const edits of all) state = make(state, 'act', edits);
      const end = state.draft;
      expect(end).toEqual(all.reduce(applyEdits, start.draft));
      while (state.past.length) state = make(state, 'undo', state.past[state.past.length - 1]!);
      expect(state.draft).toEqual(start.draft);
      while (state.future.length) state = make(state, 'redo', state.future[state.future.length - 1]!);
      expect(state.draft).toEqual(end);
    }),
    { numRuns: 60 },
  );
});
