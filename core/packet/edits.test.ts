import fc from 'fast-check';
import { cleanDraft, facts, mark, page } from '../test/support';
import { applyEdits, invertEdits, isDraftEdit } from './draft';
import { copyEdits, editsToInitialAll, handEdits, moveEdits, pageRange, removeEdits } from './edits';
import { overlapArea } from '../paper/geometry';
import { resolveMarks } from './resolve';
import type { Mark } from './types';

const ids = () => {
  let n = 0;
  return () => `n${++n}`;
};
const doc = () => facts([page(), page(), page()]);
const put = (edits: ReturnType<typeof copyEdits>): Mark[] =>
  edits.flatMap((e) => (e.op === 'put' && e.list === 'marks' ? [e.item] : []));

test('a moved mark of a rule stays the rule’s, one beside a change the change’s', () => {
  const draft = {
    ...cleanDraft(),
    redlines: [
      {
        id: 'r',
        documentId: 'doc',
        page: 2,
        kind: 'strike' as const,
        rects: [{ x: 60, y: 60, w: 60, h: 10 }],
        text: 'x',
        moved: [],
      },
    ],
  };
  const d = doc();
  const { marks } = resolveMarks(draft, [d]);
  const ruled = marks.find((m) => m.ruleId && m.page === 2)!;
  const beside = marks.find((m) => m.redlineId)!;
  const own = marks.find((m) => m.id === 's1')!;
  const to = (m: Mark, x: number) => ({ mark: m, rect: { ...m.rect, x, y: 300 } });
  const after = applyEdits(draft, moveEdits(draft, [d], [to(ruled, 50), to(beside, 150), to(own, 250)]));
  const moved = resolveMarks(after, [d]).marks;
  expect(moved.find((m) => m.id === ruled.id)!.rect).toMatchObject({ x: 50, y: 300 });
  expect(moved.find((m) => m.id === beside.id)!.rect).toMatchObject({ x: 150, y: 300 });
  expect(moved.find((m) => m.id === 's1')!.rect).toMatchObject({ x: 250, y: 300 });
  expect(after.marks).toHaveLength(draft.marks.length);
});

test('a mark cannot be moved off its page or made too small to touch', () => {
  const d = doc();
  const [edit] = moveEdits(cleanDraft(), [d], [{ mark: cleanDraft().marks[0]!, rect: { x: 900, y: -40, w: 2, h: 2 } }]);
  expect(put([edit!])[0]!.rect).toEqual({ x: 612 - 18, y: 0, w: 18, h: 9 });
});

test('removing a rule’s mark is an exception; initials of a change stay', () => {
  const draft = cleanDraft();
  const { marks } = resolveMarks(draft, [doc()]);
  const ruled = marks.filter((m) => m.ruleId && m.page === 3);
  const after = applyEdits(draft, removeEdits(draft, [...ruled, marks[0]!, { ...marks[0]!, id: 'x', redlineId: 'r' }]));
  expect(after.rules[0]!.except).toEqual(ruled.map((m) => ({ page: 3, partyId: m.partyId })));
  expect(after.marks.map((m) => m.id)).toEqual(['s2']);
});

test('marks are repeated at the same place on every page but their own; groups of choices stay apart', () => {
  const choice = (id: string): Mark => ({ ...mark(id, 'wren', 'choice'), group: 'heat' });
  const made = put(copyEdits([choice('a'), choice('b')], [doc()], pageRange('doc', 3, 1), ids()));
  expect(made.map((m) => m.page).sort()).toEqual([2, 2, 3, 3]);
  const groups = made.map((m) => m.group);
  expect(new Set(groups).size).toBe(2);
  expect(groups).not.toContain('heat');
  expect(new Set(made.map((m) => m.id)).size).toBe(4);
});

test('what another party is handed lies free of print and of every other mark', () => {
  const box = fc.record({
    x: fc.integer({ min: 20, max: 500 }),
    y: fc.integer({ min: 20, max: 740 }),
    w: fc.integer({ min: 20, max: 200 }),
    h: fc.integer({ min: 8, max: 30 }),
  });
  fc.assert(
    fc.property(fc.array(box, { maxLength: 14 }), (print) => {
      const d = facts([page(print)]);
      const group = [
        mark('a', 'wren', 'signature', 1, { x: 60, y: 300, w: 150, h: 26 }),
        mark('b', 'wren', 'date_signed', 1, { x: 240, y: 306, w: 90, h: 18 }),
      ];
      const made = put(handEdits(group, 'callum', [d], group, ids()));
      expect(made.map((m) => [m.partyId, m.kind])).toEqual([
        ['callum', 'signature'],
        ['callum', 'date_signed'],
      ]);
      expect(made[1]!.rect.x - made[0]!.rect.x).toBeCloseTo(180);
      for (const m of made)
        for (const o of [...print, ...group.map((g) => g.rect)]) expect(overlapArea(m.rect, o)).toBeLessThan(0.01);
    }),
    { numRuns: 40 },
  );
});

test('everything done to marks can be undone', () => {
  const draft = cleanDraft();
  const d = doc();
  const all = resolveMarks(draft, [d]).marks;
  for (const edits of [
    removeEdits(draft, all),
    copyEdits(all, [d], pageRange('doc', 1, 3), ids()),
    handEdits(all, 'callum', [d], all, ids()),
    moveEdits(
      draft,
      [d],
      all.map((m) => ({ mark: m, rect: { ...m.rect, x: 5 } })),
    ),
  ])
    expect(applyEdits(applyEdits(draft, edits), invertEdits(draft, edits))).toEqual(draft);
});

test('one touch has a person initial every page of every document they get, and another takes that back', () => {
  const draft = cleanDraft();
  draft.documents = ['doc', 'b', 'c'].map((id) => ({ id }));
  draft.parties[1]!.only = ['doc', 'b'];
  draft.rules[0]!.except = [
    { page: 2, partyId: 'wren' },
    { page: 1, partyId: 'callum' },
  ];
  const by = (d: typeof draft) => d.rules.map((r) => [r.documentId, r.partyIds]).sort();
  const wren = applyEdits(draft, editsToInitialAll(draft, 'wren', true));
  expect(by(wren)).toEqual([
    ['b', ['wren']],
    ['c', ['wren']],
    ['doc', ['wren', 'callum']],
  ]);
  // "Every page" leaves no page out for them; what is excepted for others stays.
  expect(wren.rules.find((r) => r.documentId === 'doc')!.except).toEqual([{ page: 1, partyId: 'callum' }]);
  const both = applyEdits(wren, editsToInitialAll(wren, 'callum', true));
  expect(by(both).map(([, who]) => who)).toEqual([['wren', 'callum'], ['wren'], ['wren', 'callum']]);
  expect(editsToInitialAll(both, 'wren', true)).toEqual([]);
  const none = applyEdits(both, editsToInitialAll(both, 'wren', false));
  expect(by(none)).toEqual([
    ['b', ['callum']],
    ['doc', ['callum']],
  ]);
  expect(editsToInitialAll(none, 'nobody here', true)).toEqual([]);
});

test('what has the shape of an edit can be applied; anything else is told apart', () => {
  const draft = cleanDraft();
  fc.assert(
    fc.property(fc.anything(), (value) => {
      if (isDraftEdit(value)) applyEdits(draft, [value]);
    }),
  );
  const item = draft.marks[0]!;
  expect(isDraftEdit({ op: 'put', list: 'marks', item })).toBe(true);
  expect(isDraftEdit({ op: 'drop', list: 'marks', id: 's1' })).toBe(true);
  expect(isDraftEdit({ op: 'set', field: 'subject', value: '' })).toBe(true);
  for (const bad of [
    null,
    [],
    { op: 'put', list: 'marks', item: null },
    { op: 'put', list: 'marks', item: { id: 7 } },
    { op: 'put', list: 'constructor', item },
    { op: 'drop', list: 'marks' },
    { op: 'set', field: 'parties', value: [] },
    { op: 'set', field: 'subject' },
  ])
    expect([bad, isDraftEdit(bad)]).toEqual([bad, false]);
});
