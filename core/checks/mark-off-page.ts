import { clampToPage, onPage } from '../paper/geometry';
import { KINDS } from '../packet/kinds';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { nameIn, pageIn } from './words';

/** Finds marks that extend beyond the edge of their page and would be cut off. */
export const markOffPage = onEachDocument(({ doc, marks }, input) => {
  const found: Finding[] = [];
  for (const m of marks) {
    const page = doc.pages[m.page - 1];
    if (!page || onPage(m.rect, page.width, page.height, 0.5)) continue;
    const finding: Finding = {
      rule: 'mark-off-page',
      severity: 'stops',
      sentence: `${nameIn(input, m.partyId)}’s ${KINDS[m.kind].word} extends beyond the edge of ${pageIn(input, m.documentId, m.page)}.`,
      place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
    };
    // A mark made from a rule is moved by the rule.
    if (!m.ruleId && !m.redlineId)
      finding.mend = {
        label: 'Move it onto the page',
        edits: [{ op: 'put', list: 'marks', item: { ...m, rect: clampToPage(m.rect, page.width, page.height) } }],
      };
    found.push(finding);
  }
  return found;
});
