import fc from 'fast-check';
import { cleanDraft, facts, mark, page, party } from '../test/support';
import {
  applyEdits,
  DRAFT_LISTS,
  editsToRemoveDocument,
  editsToRemoveParty,
  invertEdits,
  type Draft,
  type DraftEdit,
} from './draft';
import { marksOfRule, resolveMarks } from './resolve';
import { buildLedger } from './ledger';

const anyEdit = (draft: Draft): fc.Arbitrary<DraftEdit> => {
  const id = fc.constantFrom('wren', 'callum', 'nobody', 's1', 's2', 'new', 'rule', 'g1', 'doc');
  return fc.oneof(
    fc.record({
      op: fc.constant('set' as const),
      field: fc.constantFrom('name' as const, 'message' as const),
      value: fc.string(),
    }),
    fc.record({
      op: fc.constant('drop' as const),
      list: fc.constantFrom(...DRAFT_LISTS),
      id,
    }),
    fc
      .tuple(id, fc.option(fc.nat(5), { nil: undefined }))
      .map(([x, index]) => ({ op: 'put' as const, list: 'marks' as const, item: mark(x, 'wren', 'initials'), index })),
    fc
      .tuple(id, fc.option(fc.nat(5), { nil: undefined }))
      .map(([x, index]) => ({ op: 'put' as const, list: 'parties' as const, item: party(x), index })),
    fc.constant<DraftEdit>({ op: 'put', list: 'rules', item: { ...draft.rules[0]!, partyIds: [] } }),
    fc.tuple(id, fc.nat(3)).map(([x, n]): DraftEdit => ({
      op: 'put',
      list: 'redlines',
      item: {
        id: x,
        documentId: 'doc',
        page: 1,
        kind: 'insert',
        rects: [{ x: n, y: n, w: 9, h: 9 }],
        text: x,
        moved: [],
      },
    })),
    id.map((x): DraftEdit => ({ op: 'put', list: 'passed', item: { id: x } })),
  );
};

test('undo after any sequence of edits restores the draft exactly', () => {
  const draft = cleanDraft();
  fc.assert(
    fc.property(fc.array(anyEdit(draft), { maxLength: 25 }), (edits) => {
      const after = applyEdits(draft, edits);
      expect(applyEdits(after, invertEdits(draft, edits))).toEqual(draft);
    }),
  );
});

test('taking out a party or a document leaves nothing that points at it', () => {
  const draft = cleanDraft();
  const without = applyEdits(draft, editsToRemoveParty(draft, 'wren'));
  expect(JSON.stringify(without)).not.toContain('wren');
  const noDoc = applyEdits(draft, editsToRemoveDocument(draft, 'doc'));
  expect([noDoc.documents, noDoc.marks, noDoc.rules]).toEqual([[], [], []]);
});

test('a rule makes initials on every page, signature pages included, except where excepted', () => {
  const draft = cleanDraft();
  const doc = facts([page(), page(), page()]);
  const all = resolveMarks(draft, [doc]).marks.filter((m) => m.kind === 'initials');
  expect(all).toHaveLength(6);
  const rule = { ...draft.rules[0]!, except: [{ page: 2, partyId: 'wren' }] };
  const made = marksOfRule(rule, doc, draft.marks, draft.parties).marks;
  expect(made.map((m) => `${m.page}${m.partyId}`).sort()).toEqual(['1callum', '1wren', '2callum', '3callum', '3wren']);
});

test('initials placed or moved by hand stand in for the rule’s', () => {
  const draft = cleanDraft();
  const doc = facts([page(), page()]);
  const byHand = mark('h', 'wren', 'initials', 2, { x: 400, y: 300, w: 54, h: 22 });
  const there = { x: 10, y: 10, w: 60, h: 24 };
  const rule = { ...draft.rules[0]!, moved: [{ page: 1, partyId: 'callum', rect: there }] };
  const made = marksOfRule(rule, doc, [...draft.marks, byHand], draft.parties).marks;
  expect(made.filter((m) => m.page === 2 && m.partyId === 'wren')).toEqual([]);
  expect(made.find((m) => m.page === 1 && m.partyId === 'callum')!.rect).toEqual(there);
});

test('marks that point at nothing in the packet are left out', () => {
  const draft = { ...cleanDraft(), rules: [] };
  draft.marks.push(mark('x', 'stranger', 'text'), { ...mark('y', 'wren', 'text'), page: 9 });
  expect(resolveMarks(draft, [facts([page()])]).marks.map((m) => m.id)).toEqual(['s1', 's2']);
});

test('the ledger counts, shows gaps and exceptions, and fills up', () => {
  const { marks } = resolveMarks(cleanDraft(), [facts([page(), page()])]);
  const input = {
    documents: [{ id: 'doc', pageCount: 2 }],
    partyIds: ['wren', 'callum'],
    marks,
    rules: cleanDraft().rules,
  };
  const empty = buildLedger({ ...input, filled: new Set() });
  expect([empty.total, empty.done, empty.gaps]).toEqual([6, 0, 0]);
  expect(empty.rows.map((r) => r.cells.map((c) => c.state))).toEqual([
    ['signature', 'signature'],
    ['initials', 'initials'],
  ]);
  const full = buildLedger({ ...input, filled: new Set(marks.map((m) => m.id)) });
  expect(full.rows.every((r) => r.cells.every((c) => c.state === 'done'))).toBe(true);
  const gap = buildLedger({
    ...input,
    marks: marks.filter((m) => !(m.page === 2 && m.partyId === 'wren')),
    filled: new Set(),
  });
  expect(gap.rows[1]!.cells[0]!).toMatchObject({ state: 'gap', gapFrom: 'rule' });
  const pattern = buildLedger({ ...input, rules: [], marks: [mark('i', 'wren', 'initials', 1)], filled: new Set() });
  expect(pattern.rows[1]!.cells[0]!).toMatchObject({ state: 'gap', gapFrom: 'pattern' });
  const rules = [{ ...cleanDraft().rules[0]!, except: [{ page: 2, partyId: 'wren' }] }];
  const excepted = buildLedger({ ...input, rules, marks: marks.filter((m) => m.page === 1), filled: new Set() });
  expect(excepted.rows[1]!.cells.map((c) => c.state)).toEqual(['excepted', 'gap']);
});
