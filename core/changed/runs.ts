/** From matched words to what was struck and put in: as few and as whole pieces as a reader would tell. */
import { itemAt } from '../sure';
import type { Token } from './tokens';

/** A piece that differs: words of the earlier version from a0 to before a1, of the later one from b0 to before b1. */
export interface Run {
  a0: number;
  a1: number;
  b0: number;
  b1: number;
}

/** Words in a row between two changes, fewer than which only interrupt them. */
const ISLAND = 3;

const sizeOf = (r: Run) => Math.max(r.a1 - r.a0, r.b1 - r.b0);

/** The pieces that differ, in order. */
export function runsOf(match: Int32Array, a: readonly Token[], b: readonly Token[]): Run[] {
  const out: Run[] = [];
  let [i, j] = [0, 0];
  for (let k = 0; k <= match.length; k++) {
    const to = k < match.length ? itemAt(match, k) : b.length;
    if (to < 0) continue;
    if (k > i || to > j) out.push({ a0: i, a1: k, b0: j, b1: to });
    [i, j] = [k + 1, to + 1];
  }
  return joined(out)
    .map((r) => slid(r, a, b))
    .filter((r) => !onlySpaced(r, a, b) && !onlySpeck(r, a, b));
}

/** Changes between which only a word or two are the same are one change, where they are larger than what divides them. */
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

/** How well something may begin at a word: where a sentence, or at least a line, begins. */
function beginsAt(tokens: readonly Token[], i: number): number {
  const before = tokens[i - 1];
  if (!before) return 3;
  const ended = /[.:;!?]["')]?$/.test(before.text);
  return (ended ? 2 : 0) + (before.ends ? 1 : 0);
}

/** What is only put in, or only struck, can often be told in several ways ("the buyer. The seller"): the one that begins best. */
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

/** Whether a piece is but one small letter that a machine met, or missed, on a picture: a speck is as large. */
function onlySpeck(r: Run, a: readonly Token[], b: readonly Token[]): boolean {
  const own = [...a.slice(r.a0, Math.min(r.a1, r.a0 + 2)), ...b.slice(r.b0, Math.min(r.b1, r.b0 + 2))];
  return own.length === 1 && /^\p{Ll}$/u.test(own[0]?.text ?? '') && [a[r.a0 - 1], b[r.b0 - 1]].some((t) => t?.scan);
}

/** Longest piece that is looked at letter by letter. */
const MOST_SPACED = 400;

/** Whether a piece has the same letters, only otherwise divided: by spaces, or by the hyphen at the end of a line. */
function onlySpaced(r: Run, a: readonly Token[], b: readonly Token[]): boolean {
  if (r.a0 === r.a1 || r.b0 === r.b1 || r.a1 - r.a0 + r.b1 - r.b0 > MOST_SPACED) return false;
  const [x, y] = [a.slice(r.a0, r.a1), b.slice(r.b0, r.b1)];
  if (lettersOf(x) === lettersOf(y)) return true;
  return x.length === y.length && x.every((t, i) => nearly(t, itemAt(y, i)));
}

const lettersOf = (tokens: Token[]) =>
  tokens.map((t, i) => (t.ends && i < tokens.length - 1 ? t.key.replace(/-$/, '') : t.key)).join('');

/** What is longer is no word, and is not looked at letter by letter. */
const LONGEST_WORD = 60;

/** Whether two words may be the same one, recognised with a letter wrong. Figures are never nearly alike. */
function nearly(a: Token, b: Token): boolean {
  if (a.key === b.key) return true;
  if (!a.scan && !b.scan) return false;
  const n = Math.min(a.key.length, b.key.length);
  if (n < 5 || n > LONGEST_WORD || /\d/.test(a.key + b.key)) return false;
  return differing(a.key, b.key, n >= 9 ? 2 : 1);
}

/** Whether two words lie at most so many letters apart (changed, left out, added). */
function differing(a: string, b: string, most: number): boolean {
  if (Math.abs(a.length - b.length) > most) return false;
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++)
      next.push(
        Math.min(itemAt(row, j) + 1, itemAt(next, j - 1) + 1, itemAt(row, j - 1) + (a[i - 1] === b[j - 1] ? 0 : 1)),
      );
    row = next;
  }
  return itemAt(row, b.length) <= most;
}
