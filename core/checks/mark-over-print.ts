import { coversPrint } from '../paper/geometry';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { capital, markIn, pageIn } from './words';

/** Finds marks that cover printed words. */
export const markOverPrint = onEachDocument(({ doc, marks }, input) => {
  const found: Finding[] = [];
  for (const m of marks) {
    const page = doc.pages[m.page - 1];
    if (!page || !coversPrint(page, m.rect)) continue;
    found.push({
      rule: 'mark-over-print',
      severity: 'warns',
      sentence: capital(`${markIn(input, m)} covers print on ${pageIn(input, m.documentId, m.page)}.`),
      place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
    });
  }
  return found;
});
