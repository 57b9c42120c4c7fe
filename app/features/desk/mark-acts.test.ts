import { viewDraft } from '@gatepath/core/checks';
import {
  type DocumentFacts,
  type Draft,
  type DraftEdit,
  type Mark,
  applyEdits,
  emptyDraft,
} from '@gatepath/core/packet';
import { emptyGrid } from '@gatepath/core/paper';
import type { Tool } from './desk-setup';
import { markActs } from './mark-acts';

const blankPage = () => ({
  width: 612,
  height: 792,
  ink: emptyGrid(612, 792),
  print: [
    { x: 60, y: 100, w: 40, h: 11 },
    { x: 104, y: 100, w: 50, h: 11 },
  ],
  words: ['the', 'stove'],
});
const doc: DocumentFacts = {
  id: 'doc',
  name: 'Paper',
  pages: [blankPage(), blankPage(), blankPage()],
  places: [
    {
      page: 1,
      kind: 'signature',
      role: 'seller',
      ordinal: 1,
      rect: { x: 60, y: 400, w: 200, h: 24 },
      label: 'Seller',
      source: 'print',
      confidence: 0.9,
    },
  ],
};

/** Returns a desk with two sellers, driven without a screen. */
function desk(tool: Tool = 'signature') {
  const party = (id: string, ordinal: number) => ({
    id,
    name: `${id} Alder`,
    email: `${id}@example.com`,
    phone: null,
    side: 'seller' as const,
    ordinal,
    act: 'sign' as const,
    ink: ordinal,
  });
  let draft: Draft = {
    ...emptyDraft('Papers'),
    documents: [{ id: 'doc' }],
    parties: [party('wren', 1), party('callum', 2)],
  };
  let selected: string[] = [];
  let copied: Mark[] = [];
  let redline: string | null = null;
  let said = '';
  let at = { documentId: 'doc', page: 1 };
  let hand = tool;
  const view = () => viewDraft(draft, [doc]);
  const acts = () =>
    markActs({
      draft,
      edit: (edits: DraftEdit[]) => (draft = applyEdits(draft, edits)),
      view: view(),
      at,
      partyId: 'wren',
      tool: hand,
      selected: selected.flatMap((id) => view().marks.find((m) => m.id === id) ?? []),
      copied,
      setCopied: (m) => (copied = m),
      setSelected: (ids) => (selected = ids),
      setRedline: (id) => (redline = id),
      setSaid: (what) => (said = what),
    });
  return {
    acts,
    view,
    take: (t: Tool) => (hand = t),
    goTo: (page: number) => (at = { documentId: 'doc', page }),
    select: (ids: string[]) => (selected = ids),
    get draft() {
      return draft;
    },
    get selected() {
      return selected;
    },
    get redline() {
      return redline;
    },
    get said() {
      return said;
    },
  };
}

test('a mark is put where the page is touched, and rests on a printed blank near by', () => {
  const d = desk();
  d.acts().placeAt(400, 600);
  expect(d.draft.marks[0]).toMatchObject({ kind: 'signature', partyId: 'wren', page: 1, required: true });
  expect(d.selected).toEqual([d.draft.marks[0]!.id]);
  d.acts().placeAt(148, 408);
  expect(d.draft.marks[1]!.rect).toMatchObject({ x: 60, y: 394 });
  expect(d.view().proposals[0]!.state).toBe('accepted');
});

test('choices come in twos, labels belong to nobody, ticks may stay empty', () => {
  const d = desk('choice');
  d.acts().placeAt(300, 300);
  expect(d.draft.marks.map((m) => [m.kind, m.label])).toEqual([
    ['choice', 'First'],
    ['choice', 'Second'],
  ]);
  expect(new Set(d.draft.marks.map((m) => m.group)).size).toBe(1);
  d.take('label');
  d.acts().placeAt(300, 500);
  expect(d.draft.marks[2]).toMatchObject({ partyId: 'nobody', required: false });
  d.take('tick');
  d.acts().placeAt(300, 550);
  expect(d.draft.marks[3]).toMatchObject({ partyId: 'wren', required: false });
});

test('what is copied is pasted at the same place of another page, and a little lower on its own', () => {
  const d = desk();
  d.acts().placeAt(300, 300);
  d.acts().copy();
  d.goTo(3);
  d.acts().paste();
  expect(d.draft.marks[1]).toMatchObject({ page: 3, rect: d.draft.marks[0]!.rect });
  d.goTo(1);
  d.acts().paste();
  expect(d.draft.marks[2]!.rect.y).toBe(d.draft.marks[0]!.rect.y + 12);
  expect(d.said).toBe('1 mark pasted.');
});

test('what is in hand is moved, repeated, handed on and removed together', () => {
  const d = desk();
  d.acts().placeAt(300, 300);
  d.take('date_signed');
  d.acts().placeAt(300, 340);
  d.select(d.draft.marks.map((m) => m.id));
  const before = d.draft.marks.map((m) => m.rect.y);
  d.acts().nudge(0, 10);
  expect(d.draft.marks.map((m, i) => m.rect.y - before[i]!)).toEqual([10, 10]);
  d.acts().alignTo('left');
  expect(new Set(d.draft.marks.map((m) => m.rect.x)).size).toBe(1);
  d.acts().repeat(2, 3);
  expect(d.draft.marks.filter((m) => m.page > 1)).toHaveLength(4);
  d.acts().handTo('callum');
  expect(d.draft.marks.filter((m) => m.partyId === 'callum')).toHaveLength(2);
  d.acts().remove();
  expect(d.draft.marks.filter((m) => m.partyId === 'callum')).toHaveLength(0);
});

test('words are struck, their stretch moved by words, and gone with their initials', () => {
  const d = desk('strike');
  d.acts().strike({ x: 62, y: 105 }, { x: 150, y: 105 });
  expect(d.draft.redlines[0]).toMatchObject({ kind: 'strike', text: 'the stove' });
  expect(d.redline).toBe(d.draft.redlines[0]!.id);
  expect(d.view().marks.filter((m) => m.redlineId)).toHaveLength(2);
  d.acts().moveStrike(d.redline!, { first: 0, last: -1 });
  expect(d.draft.redlines[0]!.text).toBe('the');
  // Initials beside a change cannot be removed by themselves.
  d.acts().remove(d.view().marks.filter((m) => m.redlineId));
  expect(d.said).toMatch(/delete the text change/);
  expect(d.view().marks.filter((m) => m.redlineId)).toHaveLength(2);
  d.acts().removeRedline(d.redline!);
  expect([d.draft.redlines, d.view().marks]).toEqual([[], []]);
  d.acts().strike({ x: 500, y: 700 }, { x: 510, y: 700 });
  expect([d.draft.redlines, d.said]).toEqual([[], 'No printed words are there.']);
});

test('initials on every page, like the one that was placed', () => {
  const d = desk('initials');
  d.acts().placeAt(500, 740);
  d.acts().everyPageLikeThis();
  expect(d.draft.marks).toEqual([]);
  expect(d.draft.rules[0]).toMatchObject({ partyIds: ['wren'] });
  expect(d.draft.rules[0]!.anchor.fx).toBeGreaterThan(0.8);
  expect(
    d
      .view()
      .marks.filter((m) => m.ruleId)
      .map((m) => m.page),
  ).toEqual([1, 2, 3]);
});

test('a printed place is accepted, for somebody else too, or left out', () => {
  const d = desk();
  d.acts().accept(d.view().proposals.slice(0, 1), { partyId: 'callum' });
  expect(d.draft.marks[0]).toMatchObject({ partyId: 'callum', kind: 'signature', rect: doc.places[0]!.rect });
  const e = desk();
  e.acts().dismiss(e.view().proposals);
  expect(e.view().proposals.every((p) => p.state === 'passed')).toBe(true);
});
