/**
 * Aligning the words of two texts: words that occur once in both are fixed points, and between them the longest
 * common subsequence is found.
 */
import { numberWords, onceInBoth, type Parts } from '../paper/words-match';
import { itemAt } from '../sure';

/** Maximum number of cells of one longest-common-subsequence table. */
const MOST_CELLS = 400_000;
/** Lengths of rows of words that become fixed points if they occur once in both; longer rows first. */
const ROWS = [8, 4, 2, 1];

/**
 * Aligns two rows of words.
 *
 * @returns for each word of `a` the index of its match in `b`, ascending, or -1. Time is about proportional to both.
 */
export function align(a: readonly string[], b: readonly string[]): Int32Array {
  const [x, y] = numberWords(a, b);
  const out = new Int32Array(a.length).fill(-1);
  const todo: Span[] = [{ a0: 0, a1: a.length, b0: 0, b1: b.length, row: 0 }];
  for (let span = todo.pop(); span; span = todo.pop()) for (const left of within(x, y, span, out)) todo.push(left);
  return out;
}

interface Span extends Parts {
  /** Index into `ROWS` of the row length that is tried. */
  row: number;
}

/** Matches what is unambiguous in a span. @returns the rest */
function within(x: Int32Array, y: Int32Array, span: Span, out: Int32Array): Span[] {
  let { a0, a1, b0, b1 } = span;
  while (a0 < a1 && b0 < b1 && x[a0] === y[b0]) out[a0++] = b0++;
  while (a0 < a1 && b0 < b1 && x[a1 - 1] === y[b1 - 1]) out[--a1] = --b1;
  if (a0 === a1 || b0 === b1) return [];
  if ((a1 - a0) * (b1 - b0) <= MOST_CELLS) {
    longestCommon(x, y, { ...span, a0, a1, b0, b1 }, out);
    return [];
  }
  for (let row = span.row; row < ROWS.length; row++) {
    const n = itemAt(ROWS, row);
    const fast = rising(onceInBoth(x, y, { a0, a1, b0, b1 }, n));
    if (!fast.length) continue;
    const left: Span[] = [];
    let [p, q] = [a0, b0];
    for (const [i, j] of fast) {
      if (i < p || j < q) continue;
      left.push({ a0: p, a1: i, b0: q, b1: j, row });
      for (let k = 0; k < n; k++) out[i + k] = j + k;
      [p, q] = [i + n, j + n];
    }
    left.push({ a0: p, a1, b0: q, b1, row });
    return left;
  }
  // Nothing connects them: the part was rewritten.
  return [];
}

/** Returns the longest subset of pairs in which both sides ascend (patience sorting). */
function rising(pairs: [number, number][]): [number, number][] {
  const ends: number[] = [];
  const before = new Int32Array(pairs.length).fill(-1);
  pairs.forEach(([, j], k) => {
    let [lo, hi] = [0, ends.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (itemAt(pairs, itemAt(ends, mid))[1] < j) lo = mid + 1;
      else hi = mid;
    }
    if (lo > 0) before[k] = itemAt(ends, lo - 1);
    ends[lo] = k;
  });
  const out: [number, number][] = [];
  for (let k = ends[ends.length - 1] ?? -1; k >= 0; k = itemAt(before, k)) out.push(itemAt(pairs, k));
  return out.reverse();
}

/** Returns the longest common subsequence of a small span, by dynamic programming. */
function longestCommon(x: Int32Array, y: Int32Array, { a0, a1, b0, b1 }: Span, out: Int32Array): void {
  const [n, m] = [a1 - a0, b1 - b0];
  const w = m + 1;
  const len = new Uint16Array((n + 1) * w);
  for (let i = n - 1; i >= 0; i--)
    for (let j = m - 1; j >= 0; j--)
      len[i * w + j] =
        x[a0 + i] === y[b0 + j] ? len[(i + 1) * w + j + 1]! + 1 : Math.max(len[(i + 1) * w + j]!, len[i * w + j + 1]!);
  let [i, j] = [0, 0];
  while (i < n && j < m) {
    if (x[a0 + i] === y[b0 + j]) out[a0 + i++] = b0 + j++;
    else if (len[(i + 1) * w + j]! >= len[i * w + j + 1]!) i++;
    else j++;
  }
}
