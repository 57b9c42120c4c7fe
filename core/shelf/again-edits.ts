/** Edits that replace a form's paper by its changed version, with the marks that were found on it. */
import type { Draft, DraftEdit } from '../packet/draft';
import type { Again } from './again';

/**
 * Returns the edits that replace the paper, with marks where they were found; marks that were not found are left out.
 * The initials rule is kept and places every page again.
 *
 * @param take marks to keep, including uncertain ones that a member confirmed
 */
export function editsOfAgain(
  draft: Draft,
  from: string,
  to: string,
  found: readonly Again[],
  take: ReadonlySet<string>,
): DraftEdit[] {
  const at = new Map(found.filter((a) => a.state !== 'lost' && take.has(a.markId)).map((a) => [a.markId, a]));
  const index = Math.max(
    0,
    draft.documents.findIndex((d) => d.id === from),
  );
  const edits: DraftEdit[] = [
    { op: 'put', list: 'documents', item: { id: to }, index },
    { op: 'drop', list: 'documents', id: from },
  ];
  for (const m of draft.marks) {
    if (m.documentId !== from) continue;
    const a = at.get(m.id);
    // The printed place it was accepted for is named by the old paper.
    const { placeId: _place, ...mark } = m;
    if (a) edits.push({ op: 'put', list: 'marks', item: { ...mark, documentId: to, page: a.page, rect: a.rect } });
    else edits.push({ op: 'drop', list: 'marks', id: m.id });
  }
  for (const r of draft.rules) {
    if (r.documentId !== from) continue;
    edits.push(
      { op: 'drop', list: 'rules', id: r.id },
      { op: 'put', list: 'rules', item: { ...r, id: `rule-${to}`, documentId: to, except: [], moved: [] } },
    );
  }
  for (const p of draft.passed) if (p.id.startsWith(`${from}.`)) edits.push({ op: 'drop', list: 'passed', id: p.id });
  return edits;
}
