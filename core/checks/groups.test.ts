import fc from 'fast-check';
import { cleanDraft, facts, mark, page, party } from '../test/support';
import { applyEdits, type Draft } from '../packet/draft';
import { CHECK_RULES, FORM_ADVICE, GROUPED_RULES, editsToFix, groupFindings, viewDraft } from './index';
import { itemAt } from '../sure';

const documents = ['a', 'b'].map((id) => facts([page(), page(), page(), page()], id, id.toUpperCase()));

/** Returns a draft of two documents in which some people initial only some of the pages. */
function draftWith(initials: [documentId: string, partyId: string, page: number][]): Draft {
  const draft = cleanDraft();
  draft.documents = documents.map(({ id }) => ({ id }));
  draft.rules = [];
  draft.marks = [];
  draft.parties = ['wren', 'callum', 'priya'].map((id, ink) => party(id, { ink, ordinal: ink + 1 }));
  draft.gates = [{ id: 'g', partyIds: draft.parties.map((p) => p.id) }];
  draft.marks = draft.parties.map((p, i) => {
    const m = mark(`s-${p.id}`, p.id, 'signature', 1, { x: 60, y: 100 + 60 * i, w: 120, h: 26 });
    return { ...m, documentId: 'a' };
  });
  for (const [documentId, partyId, n] of initials) {
    const y = 300 + 40 * draft.parties.findIndex((p) => p.id === partyId);
    const m = mark(`i-${documentId}-${partyId}-${n}`, partyId, 'initials', n, { x: 60, y, w: 54, h: 22 });
    draft.marks.push({ ...m, documentId });
  }
  return draft;
}
const findingsOf = (draft: Draft) => viewDraft(draft, documents).findings;
const missing = (draft: Draft) => groupFindings(findingsOf(draft)).filter((g) => g.rule === 'page-without-initials');

test('every rule has a sentence for several findings', () => {
  // The name of a rule is that of its file, and of its function without dashes.
  const named = [...CHECK_RULES, ...FORM_ADVICE].length;
  expect(GROUPED_RULES).toHaveLength(named);
});

test('a single finding keeps its sentence; several of one kind are counted by their places', () => {
  const one = itemAt(missing(draftWith([['a', 'wren', 2]])), 0);
  expect(one.sentence).toBe('Wren has no initials on pages 1, 3, 4 of A.');
  const two = itemAt(
    missing(
      draftWith([
        ['a', 'wren', 2],
        ['b', 'callum', 1],
        ['b', 'callum', 2],
      ]),
    ),
    0,
  );
  expect([two.sentence, two.findings.length, two.fix]).toEqual([
    'Initials are missing in 5 places.',
    2,
    'Initial every page',
  ]);
});

test('two fixes of one rule do not undo each other', () => {
  const draft = draftWith([
    ['a', 'wren', 2],
    ['a', 'callum', 3],
  ]);
  const group = itemAt(missing(draft), 0);
  expect(group.findings).toHaveLength(2);
  const edits = editsToFix(draft, findingsOf, group);
  // The second is made on top of the first: none is made in vain.
  expect(edits).toHaveLength(2);
  const fixed = applyEdits(draft, edits);
  expect(missing(fixed)).toEqual([]);
  expect(itemAt(fixed.rules, 0).partyIds.sort()).toEqual(['callum', 'wren']);
});

test('whoever initials which pages: every finding is in one group, and fixing a group leaves none of its kind', () => {
  const where = fc.uniqueArray(
    fc.tuple(fc.constantFrom('a', 'b'), fc.constantFrom('wren', 'callum', 'priya'), fc.integer({ min: 1, max: 4 })),
    { maxLength: 12, selector: (t) => t.join() },
  );
  fc.assert(
    fc.property(where, (initials) => {
      const draft = draftWith(initials);
      const found = findingsOf(draft);
      const groups = groupFindings(found);
      expect(groups.flatMap((g) => g.findings)).toHaveLength(found.length);
      for (const g of groups.filter((x) => x.fix)) {
        const after = groupFindings(findingsOf(applyEdits(draft, editsToFix(draft, findingsOf, g))));
        expect(after.some((x) => x.rule === g.rule && x.fix === g.fix)).toBe(false);
      }
    }),
    { numRuns: 60 },
  );
});

test('a fix that does not help ends, and makes no edit twice without end', () => {
  const draft = cleanDraft();
  const finding = {
    rule: 'mark-over-print',
    severity: 'warns' as const,
    sentence: 'x',
    place: {},
    mend: { label: 'Fix', edits: [{ op: 'set' as const, field: 'name' as const, value: 'Papers' }] },
  };
  const edits = editsToFix(draft, () => [finding], itemAt(groupFindings([finding]), 0));
  expect(edits.length).toBeLessThanOrEqual(60);
});
