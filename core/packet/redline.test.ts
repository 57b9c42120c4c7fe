import fc from 'fast-check';
import { cleanDraft, facts, page, party } from '../test/support';
import { applyEdits, editsToRemoveParty } from './draft';
import { overlapArea } from '../paper/geometry';
import { marksOfRedline, shiftStrike, wordsBetween } from './redline';
import { resolveMarks } from './resolve';
import { editsToSwapPages } from './swap';
import type { Redline } from './types';

const strike = (rects = [{ x: 100, y: 300, w: 120, h: 11 }]): Redline => ({
  id: 'r',
  documentId: 'doc',
  page: 1,
  kind: 'strike',
  rects,
  text: 'the stove stays',
  moved: [],
});

test('every signing party who has the document initials a change; it goes, and they go', () => {
  const doc = facts([page(), page()]);
  const draft = { ...cleanDraft(), rules: [], redlines: [strike()] };
  draft.parties = [...draft.parties, party('esc', { act: 'copy' }), party('bo', { only: ['other'] })];
  const beside = resolveMarks(draft, [doc]).marks.filter((m) => m.redlineId);
  expect(beside.map((m) => m.partyId)).toEqual(['wren', 'callum']);
  const gone = resolveMarks(applyEdits(draft, editsToRemoveParty(draft, 'wren')), [doc]).marks.filter(
    (m) => m.redlineId,
  );
  expect(gone.map((m) => m.partyId)).toEqual(['callum']);
  expect(resolveMarks({ ...draft, redlines: [] }, [doc]).marks.filter((m) => m.redlineId)).toEqual([]);
});

test('initials of a change are no initials of the page: the rule still makes its own', () => {
  const draft = { ...cleanDraft(), redlines: [strike()] };
  const marks = resolveMarks(draft, [facts([page()])]).marks.filter((m) => m.kind === 'initials');
  expect(marks.filter((m) => m.ruleId)).toHaveLength(2);
  expect(marks.filter((m) => m.redlineId)).toHaveLength(2);
});

test('initials beside a change never touch print, the change, or each other', () => {
  const print = fc.array(
    fc.record({
      x: fc.integer({ min: 20, max: 500 }),
      y: fc.integer({ min: 20, max: 740 }),
      w: fc.integer({ min: 20, max: 300 }),
      h: fc.integer({ min: 8, max: 30 }),
    }),
    { maxLength: 40 },
  );
  fc.assert(
    fc.property(print, fc.integer({ min: 1, max: 6 }), (boxes, n) => {
      const sheet = page([...boxes, ...strike().rects]);
      const made = marksOfRedline(
        strike(),
        sheet,
        Array.from({ length: n }, (_, i) => party(`p${i}`)),
        [],
      );
      expect(made.marks.length + made.unplaced.length).toBe(n);
      made.marks.forEach((m, i) => {
        for (const b of sheet.print) expect(overlapArea(m.rect, b)).toBe(0);
        made.marks.slice(i + 1).forEach((o) => expect(overlapArea(m.rect, o.rect)).toBe(0));
      });
    }),
    { numRuns: 80 },
  );
});

test('a strike follows the words from one point to another, line by line', () => {
  const word = (x: number, y: number, w: number) => ({ x, y, w, h: 11 });
  const sheet = {
    ...page([word(60, 100, 30), word(95, 100, 40), word(140, 100, 30), word(60, 116, 50), word(115, 116, 20)]),
    words: ['the', 'stove', 'and', 'lamps', 'stay'],
  };
  const found = wordsBetween(sheet, { x: 100, y: 105 }, { x: 80, y: 120 })!;
  expect(found.text).toBe('stove and lamps');
  expect(found.rects).toEqual([
    { x: 95, y: 100, w: 75, h: 11 },
    { x: 60, y: 116, w: 50, h: 11 },
  ]);
  // By words instead of by drawing: one more at the end, one fewer at the beginning.
  const more = shiftStrike(sheet, found, { first: 1, last: 1 })!;
  expect(more.text).toBe('and lamps stay');
  expect(shiftStrike(sheet, more, { first: 0, last: 1 })).toBeNull();
  expect(shiftStrike(sheet, more, { first: 3, last: 0 })).toBeNull();
  expect(wordsBetween(sheet, { x: 500, y: 700 }, { x: 501, y: 700 })).toBeNull();
});

test('pages that move take their marks, changes and exceptions along; pages that go take theirs with them', () => {
  const draft = { ...cleanDraft(), redlines: [strike()] };
  draft.rules[0]!.except = [{ page: 2, partyId: 'wren' }];
  draft.marks.push({ ...draft.marks[0]!, id: 'two', page: 2 });
  const size = { width: 612, height: 792 };
  const moves = [
    { from: { documentId: 'doc', page: 1 }, to: { documentId: 'new', page: 2, turn: 90 as const }, size },
    { from: { documentId: 'doc', page: 2 }, to: { documentId: 'new', page: 1, turn: 0 as const }, size },
    { from: { documentId: 'doc', page: 3 }, to: null, size },
  ];
  const after = applyEdits(draft, editsToSwapPages(draft, moves, ['new']));
  expect(after.documents).toEqual([{ id: 'new' }]);
  expect(after.marks.find((m) => m.id === 'two')).toMatchObject({
    documentId: 'new',
    page: 1,
    rect: draft.marks[0]!.rect,
  });
  expect(after.marks.find((m) => m.id === 's1')).toMatchObject({
    page: 2,
    rect: { x: 792 - 600 - 26, y: 100, w: 26, h: 120 },
  });
  expect(after.redlines[0]).toMatchObject({ documentId: 'new', page: 2 });
  expect(after.rules).toMatchObject([{ documentId: 'new', except: [{ page: 1, partyId: 'wren' }] }]);
  expect(JSON.stringify(after)).not.toContain('"doc"');
});
