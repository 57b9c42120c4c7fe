import { grow, overlapArea } from '../marks/geometry';
import type { Mark, PageFacts } from '../marks/types';
import type { CheckRule, Finding } from './types';
import { capital, markIn, pageIn } from './words';

/** A mark and a page never change once made, so what was found out about them stays true. */
const known = new WeakMap<Mark, { page: PageFacts; covers: boolean }>();

function covers(m: Mark, page: PageFacts): boolean {
  const had = known.get(m);
  if (had && had.page === page) return had.covers;
  const inner = grow(m.rect, -0.5);
  const covered = page.print.some((p) => overlapArea(inner, p) > 0.5);
  known.set(m, { page, covers: covered });
  return covered;
}

/** A mark that covers printed words makes both unreadable. A touch of half a point is forgiven. */
export const markOverPrint: CheckRule = (input) => {
  const found: Finding[] = [];
  const facts = new Map(input.documents.map((d) => [d.id, d]));
  for (const m of input.marks) {
    const page = facts.get(m.documentId)?.pages[m.page - 1];
    if (!page) continue;
    if (!covers(m, page)) continue;
    found.push({
      rule: 'mark-over-print',
      severity: 'warns',
      sentence: capital(`${markIn(input, m)} covers print on ${pageIn(input, m.documentId, m.page)}.`),
      place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
    });
  }
  return found;
};
