import { grow, overlapArea } from '../paper/geometry';
import { groupBy } from '../sure/group';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { isTwice } from './mark-twice';
import { capital, markIn, pageIn } from './words';
import { itemAt } from '../sure';

/** Finds marks that overlap others: neither could be read. */
export const markOverMark = onEachDocument((part, input) => {
  const found: Finding[] = [];
  for (const marks of groupBy(part.marks, (m) => m.page).values()) {
    for (let i = 0; i < marks.length; i++) {
      for (let j = i + 1; j < marks.length; j++) {
        const a = itemAt(marks, i);
        const b = itemAt(marks, j);
        if (overlapArea(grow(a.rect, -0.5), grow(b.rect, -0.5)) <= 0 || isTwice(a, b)) continue;
        found.push({
          rule: 'mark-over-mark',
          severity: 'stops',
          sentence: capital(
            `${markIn(input, a)} and ${markIn(input, b)} overlap on ${pageIn(input, a.documentId, a.page)}.`,
          ),
          place: { documentId: a.documentId, page: a.page, partyId: b.partyId, markId: b.id },
        });
      }
    }
  }
  return found;
});
