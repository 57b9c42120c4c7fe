import { overlapArea } from '../paper/geometry';
import type { Mark } from '../packet/types';
import type { Rect } from '../paper/types';
import type { CheckRule, Finding } from './types';
import { nameIn, pageIn } from './words';
import { itemAt } from '../sure';

const PIECES = new Set<Mark['kind']>(['date', 'date_signed', 'text', 'number']);
/** Maximum width of the day, month or year of a date, and of the gaps between them, in points. */
const NARROW = 80;
const GAP = 46;

/** Finds date blanks split into three marks where one date would do. */
export const dateInPieces: CheckRule = (input) => {
  const found: Finding[] = [];
  const rows = new Map<string, Mark[]>();
  for (const m of input.marks) {
    if (!PIECES.has(m.kind) || m.rect.w > NARROW || m.lines || m.readOnly) continue;
    const key = `${m.documentId}:${m.page}:${m.partyId}`;
    rows.set(key, [...(rows.get(key) ?? []), m]);
  }
  for (const marks of rows.values()) {
    const sorted = [...marks].sort((a, b) => a.rect.x - b.rect.x);
    const used = new Set<string>();
    for (const a of sorted) {
      if (used.has(a.id)) continue;
      const b = next(sorted, a);
      const c = b && next(sorted, b);
      if (!b || !c) continue;
      const three = [a, b, c];
      // Three answers side by side are a date only if one of them says so.
      if (
        !three.some(
          (m) => m.kind === 'date' || m.kind === 'date_signed' || /\b(?:date|day|month|year|20)\b/i.test(m.label ?? ''),
        )
      )
        continue;
      for (const m of three) used.add(m.id);
      const print = input.documents.find((d) => d.id === a.documentId)?.pages[a.page - 1]?.print ?? [];
      const whole: Rect = {
        x: a.rect.x,
        y: Math.min(a.rect.y, b.rect.y, c.rect.y),
        w: c.rect.x + c.rect.w - a.rect.x,
        h: Math.max(a.rect.h, b.rect.h, c.rect.h),
      };
      const widest = itemAt(
        [...three].sort((p, q) => q.rect.w - p.rect.w),
        0,
      );
      const rect = print.some((p) => overlapArea(p, whole) > 0.5) ? widest.rect : whole;
      found.push({
        rule: 'date-in-pieces',
        severity: 'warns',
        sentence: `${nameIn(input, a.partyId)} would fill one date in three pieces on ${pageIn(input, a.documentId, a.page)}.`,
        place: { documentId: a.documentId, page: a.page, partyId: a.partyId, markId: a.id },
        mend: {
          label: 'Make it one date signed',
          edits: [
            { op: 'drop', list: 'marks', id: b.id },
            { op: 'drop', list: 'marks', id: c.id },
            { op: 'put', list: 'marks', item: { ...a, kind: 'date_signed', rect, required: true, check: undefined } },
          ],
        },
      });
    }
  }
  return found;
};

function next(sorted: Mark[], a: Mark): Mark | undefined {
  return sorted.find(
    (m) =>
      m.rect.x >= a.rect.x + a.rect.w - 1 &&
      m.rect.x - a.rect.x - a.rect.w < GAP &&
      Math.abs(m.rect.y + m.rect.h - a.rect.y - a.rect.h) < 5,
  );
}
