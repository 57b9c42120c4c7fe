/** From matched words to struck and inserted text, in pieces as few and as whole as a reader would describe them. */
import { itemAt } from '../sure';
import { likeness, onlyDivided } from './alike';
import type { Token } from './tokens';

/** A difference: words a0 up to a1 of the earlier version against b0 up to b1 of the later one (ends excluded). */
export interface Run {
  a0: number;
  a1: number;
  b0: number;
  b1: number;
}

/** Fewer equal words than this between two changes only interrupt them. */
const ISLAND = 3;

const sizeOf = (r: Run) => Math.max(r.a1 - r.a0, r.b1 - r.b0);

/** Returns the differences, in order. */
export function runsOf(match: Int32Array, a: readonly Token[], b: readonly Token[]): Run[] {
  const out: Run[] = [];
  let [i, j] = [0, 0];
  for (let k = 0; k <= match.length; k++) {
    const to = k < match.length ? itemAt(match, k) : b.length;
    if (to < 0) continue;
    if (k > i || to > j) out.push({ a0: i, a1: k, b0: j, b1: to });
    [i, j] = [k + 1, to + 1];
  }
  return joined(out).map((r) => slid(r, a, b));
}

/** Real differences, and words that were most likely only read slightly differently. */
export interface Judged {
  runs: Run[];
  slight: Run[];
}

/** Maximum number of words of a difference that are compared one by one; a longer one counts as different. */
const MOST_JUDGED = 400;

/**
 * Separates real differences from slight misreadings; nothing is left out.
 *
 * @param runs differences by the words' loose keys
 */
export function judged(runs: readonly Run[], a: readonly Token[], b: readonly Token[]): Judged {
  const out: Judged = { runs: [], slight: [] };
  for (const r of runs) {
    const [x, y] = [
      a.slice(r.a0, Math.min(r.a1, r.a0 + MOST_JUDGED)),
      b.slice(r.b0, Math.min(r.b1, r.b0 + MOST_JUDGED)),
    ];
    const whole = x.length === r.a1 - r.a0 && y.length === r.b1 - r.b0;
    if (whole && (isSpeck(r, a, b) || (x.length > 0 && y.length > 0 && onlyDivided(x, y)))) out.slight.push(r);
    else if (whole && x.length > 0 && x.length === y.length) {
      // Word for word: each that nearly equals its counterpart is separate, and what differs between them stays together.
      const kinds = x.map((t, i) => likeness(t, itemAt(y, i)));
      if (kinds.every((k) => k !== 'differs'))
        kinds.forEach((_, i) => out.slight.push({ a0: r.a0 + i, a1: r.a0 + i + 1, b0: r.b0 + i, b1: r.b0 + i + 1 }));
      else out.runs.push(r);
    } else out.runs.push(r);
  }
  return out;
}

/** Single letters that are words in English or Spanish: one more or less is reported. */
const LETTER_WORDS = new Set(['a', 'e', 'i', 'o', 'u', 'y', 'x']);

/**
 * Returns whether a difference is one small letter that recognition found or missed on a scanned page. A speck of dirt
 * has that size.
 */
function isSpeck(r: Run, a: readonly Token[], b: readonly Token[]): boolean {
  const own = [...a.slice(r.a0, Math.min(r.a1, r.a0 + 2)), ...b.slice(r.b0, Math.min(r.b1, r.b0 + 2))];
  const [letter] = own;
  if (own.length !== 1 || !letter || !/^\p{Ll}$/u.test(letter.exact) || LETTER_WORDS.has(letter.exact)) return false;
  return letter.scan || [a[r.a0 - 1], b[r.b0 - 1], a[r.a1], b[r.b1]].some((t) => t?.scan);
}

/** Joins changes with only a word or two between them, if they are larger than what divides them. */
function joined(runs: Run[]): Run[] {
  const out: Run[] = [];
  for (const r of runs) {
    const last = out[out.length - 1];
    const between = last ? r.a0 - last.a1 : Infinity;
    if (last && between < ISLAND && between < Math.min(sizeOf(last), sizeOf(r)))
      out[out.length - 1] = { a0: last.a0, a1: r.a1, b0: last.b0, b1: r.b1 };
    else out.push(r);
  }
  return out;
}

/** Returns how well text may begin at a word: best at a sentence, then at a line. */
function beginsAt(tokens: readonly Token[], i: number): number {
  const before = tokens[i - 1];
  if (!before) return 3;
  const ended = /[.:;!?]["')]?$/.test(before.text);
  return (ended ? 2 : 0) + (before.ends ? 1 : 0);
}

/**
 * Returns the best of several equivalent positions of an insertion or deletion ("the buyer. The seller"): the one
 * that begins best.
 */
function slid(r: Run, a: readonly Token[], b: readonly Token[]): Run {
  const [tokens, from, to] = r.a0 === r.a1 ? [b, r.b0, r.b1] : [a, r.a0, r.a1];
  if (r.a0 !== r.a1 && r.b0 !== r.b1) return r;
  const key = (i: number) => tokens[i]?.key;
  let [best, score] = [0, beginsAt(tokens, from)];
  const most = Math.min(to - from, 200);
  for (let s = 1; s <= most && from - s >= 0 && key(from - s) === key(to - s); s++)
    if (beginsAt(tokens, from - s) > score) [best, score] = [-s, beginsAt(tokens, from - s)];
  for (let s = 1; s <= most && to + s <= tokens.length && key(from + s - 1) === key(to + s - 1); s++)
    if (beginsAt(tokens, from + s) > score) [best, score] = [s, beginsAt(tokens, from + s)];
  return { a0: r.a0 + best, a1: r.a1 + best, b0: r.b0 + best, b1: r.b1 + best };
}
