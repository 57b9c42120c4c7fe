/** Which words of two documents stand at the same position. */
import { itemAt } from '../sure';
import type { Word } from '../shelf';

/** The words that stand at the same position in two documents. */
export interface Stayed {
  /** For each word of the earlier document, the index of the same word in the later one; -1 if it did not stay. */
  went: Int32Array;
  /** For each word of the earlier and of the later document, 1 if it stayed. */
  was: Uint8Array;
  now: Uint8Array;
}

/** Least share of the earlier document's words that must stand at the same position for the layout to be the same. */
const SAME_LAYOUT = 0.5;
/** Positions may differ by this many points in each direction, because different programs round differently. */
const OFFSETS = [0, -1, 1].flatMap((x) => [0, -1, 1].map((y) => ({ x, y })));

/**
 * Returns the words that are printed alike at the same position in both documents; null if the layout is not the same.
 *
 * Rows of a form repeat the same words. If the words between them differ, matching by order alone can pair the words of one
 * row with those of another.
 */
export function samePosition(was: readonly Word[], now: readonly Word[]): Stayed | null {
  const keyOf = ({ page, printed, rect }: Word, off = { x: 0, y: 0 }) =>
    `${page} ${Math.round(rect.x) + off.x} ${Math.round(rect.y) + off.y} ${printed}`;
  const at = new Map(now.map((w, j) => [keyOf(w), j]));
  const went = new Int32Array(was.length).fill(-1);
  const taken = new Uint8Array(now.length);
  for (const [i, w] of was.entries())
    for (const off of OFFSETS) {
      const j = at.get(keyOf(w, off));
      if (j === undefined || taken[j]) continue;
      went[i] = j;
      taken[j] = 1;
      break;
    }
  const stayed = Uint8Array.from(went, (j) => (j >= 0 ? 1 : 0));
  const count = stayed.reduce((sum, one) => sum + one, 0);
  return count < SAME_LAYOUT * was.length ? null : { went, was: stayed, now: taken };
}

/** Returns the words that stayed, and for all others what they were matched with, unless that word stayed itself. */
export function withStayed({ went, now }: Stayed, matched: Int32Array): Int32Array {
  return went.map((j, i) => {
    const other = itemAt(matched, i);
    return j >= 0 || other < 0 || now[other] ? j : other;
  });
}
