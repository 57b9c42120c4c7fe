import { grow, overlapArea } from '../marks/geometry';
import type { CheckRule, Finding } from './types';
import { capital, markIn, pageIn } from './words';

/** A mark that covers printed words makes both unreadable. A touch of half a point is forgiven. */
export const markOverPrint: CheckRule = (input) => {
  const found: Finding[] = [];
  const facts = new Map(input.documents.map((d) => [d.id, d]));
  for (const m of input.marks) {
    const page = facts.get(m.documentId)?.pages[m.page - 1];
    if (!page) continue;
    const inner = grow(m.rect, -0.5);
    if (!page.print.some((p) => overlapArea(inner, p) > 0.5)) continue;
    found.push({
      rule: 'mark-over-print',
      severity: 'warns',
      sentence: capital(`${markIn(input, m)} covers print on ${pageIn(input, m.documentId, m.page)}.`),
      place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
    });
  }
  return found;
};
