/** Tests the edits that replace a form's paper with a changed one. */
import { applyEdits, emptyDraft, NOBODY } from '../packet';
import type { Draft } from '../packet';
import { mark } from '../test/support';
import { editsOfAgain } from '.';

test('a changed paper takes the position of the old one; marks, rules and dismissed places of other papers stay', () => {
  const other = { ...mark('other', NOBODY, 'label'), documentId: 'b' };
  const rule = (id: string, documentId: string) => ({
    id,
    documentId,
    partyIds: ['x'],
    anchor: { fx: 0, fy: 1 as const },
    except: [{ page: 1, partyId: 'x' }],
    moved: [],
  });
  const draft: Draft = {
    ...emptyDraft('Papers'),
    documents: [{ id: 'a' }, { id: 'b' }, { id: 'c' }],
    marks: [{ ...mark('own', NOBODY, 'label'), documentId: 'c' }, other],
    rules: [rule('rb', 'b'), rule('rc', 'c')],
    passed: [{ id: 'c.1.1' }, { id: 'b.1.1' }, { id: 'cc.1.1' }],
  };
  const now = applyEdits(draft, editsOfAgain(draft, 'c', 'new', [], new Set()));
  expect(now.documents.map((d) => d.id)).toEqual(['a', 'b', 'new']);
  expect(now.marks).toEqual([other]);
  expect(now.rules).toEqual([rule('rb', 'b'), { ...rule('rule-new', 'new'), except: [] }]);
  expect(now.passed.map((p) => p.id)).toEqual(['b.1.1', 'cc.1.1']);
  // If the old paper is missing, the new one becomes the first.
  const first = editsOfAgain(draft, 'gone', 'new', [], new Set());
  expect(first[0]).toEqual({ op: 'put', list: 'documents', item: { id: 'new' }, index: 0 });
  expect(first).toHaveLength(2);
});
