import { overlapArea } from '../paper/geometry';
import { KINDS } from '../packet/kinds';
import type { Mark } from '../packet/types';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { nameIn, pageIn } from './words';

/** Returns whether two marks are the same one placed twice: one party, one kind, nearly one spot. */
export function isTwice(a: Mark, b: Mark): boolean {
  if (a.partyId !== b.partyId || a.kind !== b.kind || a.page !== b.page || a.documentId !== b.documentId) return false;
  const both = overlapArea(a.rect, b.rect);
  return both > 0.6 * Math.min(a.rect.w * a.rect.h, b.rect.w * b.rect.h);
}

/** Finds marks of one party that were placed twice on the same spot. */
export const markTwice = onEachDocument(({ marks }, input) => {
  const found: Finding[] = [];
  const spots = new Map<string, Mark[]>();
  for (const m of marks) {
    const key = `${m.page}:${m.partyId}:${m.kind}`;
    const before = spots.get(key);
    if (!before) {
      spots.set(key, [m]);
      continue;
    }
    const first = before.find((o) => isTwice(o, m));
    before.push(m);
    if (!first) continue;
    // A mark made from a rule is removed by the rule; of two placed by hand one is removed.
    const drop = [m, first].find((x) => !x.ruleId && !x.redlineId);
    found.push({
      rule: 'mark-twice',
      severity: 'stops',
      sentence: `${nameIn(input, m.partyId)} has the same ${KINDS[m.kind].word} twice in the same place on ${pageIn(input, m.documentId, m.page)}.`,
      place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
      ...(drop
        ? { mend: { label: 'Keep one', edits: [{ op: 'drop' as const, list: 'marks' as const, id: drop.id }] } }
        : {}),
    });
  }
  return found;
});
