/** Finding moves: text that was struck in one place and inserted at another. */
import { itemAt } from '../sure';
import type { Run } from './differences';
import type { Token } from './tokens';

/** A row of words that is elsewhere now, the same on both sides. */
interface Row {
  a0: number;
  b0: number;
  n: number;
}

/** Differences sorted into moves and the rest. */
export interface Sorted {
  /** Each moved piece with its old and new position. */
  moves: Run[];
  /** Pairs of matching words within moved pieces. */
  same: [number, number][];
  /** The remaining differences; a change within a moved piece has both its sides. */
  runs: Run[];
  /** Item numbers that moved. */
  numbering: Run[];
}

/** Number of words by which a piece is looked up; fewer are a coincidence. */
const SEED = 4;
const FEWEST = 6;
/** Fewer are enough if a whole piece moved: a heading, a short item. */
const FEWEST_WHOLE = 3;
/** A row of words that occurs at more places than this is boilerplate. */
const MOST_PLACES = 12;
/** Maximum number of changed words within a moved piece. */
const WITHIN = 6;

const seedAt = (tokens: readonly Token[], i: number, n: number) => {
  let key = '';
  for (let k = 0; k < n; k++) key += `${itemAt(tokens, i + k).key}\u0000`;
  return key;
};

/** Separates moves from struck and inserted text. */
export function movesOf(runs: readonly Run[], a: readonly Token[], b: readonly Token[]): Sorted {
  const found = candidates(runs, a, b).sort((p, q) => q.n - p.n || p.b0 - q.b0);
  const gone = { a: new Uint8Array(a.length), b: new Uint8Array(b.length) };
  const free = { a: spansOf(runs, 'a', a.length), b: spansOf(runs, 'b', b.length) };
  const same: [number, number][] = [];
  const within: Run[] = [];
  const moves: Run[] = [];
  for (const c of found) {
    const row = freePart(c, gone.a, gone.b);
    if (!row || (row.n < FEWEST && row.n < c.n)) continue;
    const span = { a0: row.a0, a1: row.a0 + row.n, b0: row.b0, b1: row.b0 + row.n };
    for (let k = 0; k < row.n; k++) same.push([row.a0 + k, row.b0 + k]);
    const open = (side: 'a' | 'b', i: number, edge: number) => free[side][i] === free[side][edge] && !gone[side][i];
    for (const way of [1, -1] as const) while (goesOn(span, way, a, b, open, same, within));
    gone.a.fill(1, span.a0, span.a1);
    gone.b.fill(1, span.b0, span.b1);
    moves.push(span);
  }
  moves.sort((p, q) => p.b0 - q.b0);
  const rest = runs.flatMap((r) => remaining(r, gone.a, gone.b)).flatMap((r) => withoutNumber(r, gone, a, b));
  const isNumbering = numberingOf(moves, a, b);
  return {
    moves,
    same,
    runs: [...rest.filter((r) => !isNumbering(r)), ...within],
    numbering: rest.filter(isNumbering).filter((r) => r.a1 > r.a0 || r.b1 > r.b0),
  };
}

/** Returns for each word the number of its difference, from 1; 0 if it did not change. */
function spansOf(runs: readonly Run[], side: 'a' | 'b', length: number): Int32Array {
  const out = new Int32Array(length);
  runs.forEach((r, i) => out.fill(i + 1, side === 'a' ? r.a0 : r.b0, side === 'a' ? r.a1 : r.b1));
  return out;
}

/** Number of equal words that must follow a change within a moved piece. */
const GOES_ON = 2;

/** Extends a moved piece over a few changed words. @returns whether it did */
function goesOn(
  span: Run,
  way: 1 | -1,
  a: readonly Token[],
  b: readonly Token[],
  open: (side: 'a' | 'b', i: number, edge: number) => boolean,
  same: [number, number][],
  within: Run[],
): boolean {
  // The words next to the piece on this side, by how far they are from it.
  const ends = way > 0 ? { a: span.a1 - 1, b: span.b1 - 1 } : { a: span.a0, b: span.b0 };
  const at = (k: number, edge: number) => edge + way * (k + 1);
  const room = (side: 'a' | 'b') => {
    let n = 0;
    while (n < 200 && open(side, at(n, ends[side]), ends[side])) n++;
    return n;
  };
  const [na, nb] = [room('a'), room('b')];
  const alike = (i: number, j: number) => {
    let n = 0;
    while (i + n < na && j + n < nb && a[at(i + n, ends.a)]?.key === b[at(j + n, ends.b)]?.key) n++;
    return n;
  };
  for (let sum = 1; sum <= 2 * WITHIN; sum++)
    for (let i = Math.max(0, sum - WITHIN); i <= Math.min(sum, WITHIN); i++) {
      const j = sum - i;
      const n = alike(i, j);
      if (n < GOES_ON) continue;
      const edges = (k: number, edge: number): [number, number] =>
        way > 0 ? [edge + 1, edge + 1 + k] : [edge - k, edge];
      const [[a0, a1], [b0, b1]] = [edges(i, ends.a), edges(j, ends.b)];
      within.push({ a0, a1, b0, b1 });
      for (let k = 0; k < n; k++) same.push([at(i + k, ends.a), at(j + k, ends.b)]);
      if (way > 0) [span.a1, span.b1] = [a1 + n, b1 + n];
      else [span.a0, span.b0] = [a0 - n, b0 - n];
      return true;
    }
  return false;
}

/** Returns rows of words that are struck in one place and inserted at another, each as long as possible. */
function candidates(runs: readonly Run[], a: readonly Token[], b: readonly Token[]): Row[] {
  const out: Row[] = [];
  const struck = new Map<string, { at: number; run: Run }[]>();
  const note = (at: number, n: number, run: Run) => {
    const key = seedAt(a, at, n);
    const list = struck.get(key);
    if (list) list.push({ at, run });
    else struck.set(key, [{ at, run }]);
  };
  for (const r of runs) {
    for (let i = r.a0; i + SEED <= r.a1; i++) note(i, SEED, r);
    if (r.a1 - r.a0 === FEWEST_WHOLE) note(r.a0, FEWEST_WHOLE, r);
  }
  for (const r of runs) {
    const whole = r.b1 - r.b0;
    for (let j = r.b0; j < r.b1;) {
      const n = Math.min(whole >= SEED ? SEED : FEWEST_WHOLE, r.b1 - j);
      const places = n >= FEWEST_WHOLE ? (struck.get(seedAt(b, j, n)) ?? []) : [];
      let longest = 0;
      if (places.length <= MOST_PLACES)
        for (const { at, run } of places) {
          let k = n;
          while (at + k < run.a1 && j + k < r.b1 && itemAt(a, at + k).key === itemAt(b, j + k).key) k++;
          const all = k === whole && run.a0 === at && run.a1 === at + k;
          if (k >= FEWEST || all) {
            out.push({ a0: at, b0: j, n: k });
            longest = Math.max(longest, k);
          }
        }
      j += Math.max(1, longest);
    }
  }
  return out;
}

/** Returns the longest part of a move that no other move has taken; null if nothing is left. */
function freePart(m: Row, goneA: Uint8Array, goneB: Uint8Array): Row | null {
  let best: Row | null = null;
  let from = 0;
  for (let k = 0; k <= m.n; k++) {
    if (k < m.n && !goneA[m.a0 + k] && !goneB[m.b0 + k]) continue;
    const n = k - from;
    if (n > (best?.n ?? 0)) best = { a0: m.a0 + from, b0: m.b0 + from, n };
    from = k + 1;
  }
  return best;
}

/** Returns the parts of a difference that did not move, keeping together what was and is at the same place. */
function remaining(r: Run, goneA: Uint8Array, goneB: Uint8Array): Run[] {
  const parts = (from: number, to: number, gone: Uint8Array) => {
    const out: [number, number][] = [];
    let start = from;
    for (let i = from; i <= to; i++) {
      if (i < to && !gone[i]) continue;
      if (i > start) out.push([start, i]);
      start = i + 1;
    }
    return out;
  };
  const [a, b] = [parts(r.a0, r.a1, goneA), parts(r.b0, r.b1, goneB)];
  const [one, other] = [a[0], b[0]];
  if (one && other && a.length === 1 && b.length === 1) return [{ a0: one[0], a1: one[1], b0: other[0], b1: other[1] }];
  return [
    ...a.map(([a0, a1]) => ({ a0, a1, b0: r.b0, b1: r.b0 })),
    ...b.map(([b0, b1]) => ({ a0: r.a1, a1: r.a1, b0, b1 })),
  ];
}

const NUMBERING = /^\(?(?:\d{1,3}(?:\.\d{1,3})*|[a-z]|[ivxlc]{1,6})[.):]?\)?$/i;

/** Removes a moved item's number from the end of the text before it. */
function withoutNumber(
  r: Run,
  gone: { a: Uint8Array; b: Uint8Array },
  a: readonly Token[],
  b: readonly Token[],
): Run[] {
  const stands = (tokens: readonly Token[], from: number, to: number, moved: Uint8Array) =>
    to - from > 1 && !!moved[to] && NUMBERING.test(tokens[to - 1]?.text ?? '');
  const [inA, inB] = [stands(a, r.a0, r.a1, gone.a), stands(b, r.b0, r.b1, gone.b)];
  return [
    { ...r, a1: r.a1 - Number(inA), b1: r.b1 - Number(inB) },
    ...(inA ? [{ a0: r.a1 - 1, a1: r.a1, b0: r.b1, b1: r.b1 }] : []),
    ...(inB ? [{ a0: r.a1, a1: r.a1, b0: r.b1 - 1, b1: r.b1 }] : []),
  ];
}

/** Returns differences that are only item numbers next to a moved piece. */
function numberingOf(moves: readonly Run[], a: readonly Token[], b: readonly Token[]): (r: Run) => boolean {
  const [rimA, rimB] = [new Set(moves.flatMap((m) => [m.a0, -m.a1])), new Set(moves.flatMap((m) => [m.b0, -m.b1]))];
  return (r) => {
    const [n, k] = [r.a1 - r.a0, r.b1 - r.b0];
    if (n > 1 || k > 1) return false;
    if (![...a.slice(r.a0, r.a1), ...b.slice(r.b0, r.b1)].every((t) => NUMBERING.test(t.text))) return false;
    // It ends where one begins, or begins where one ends.
    return (n > 0 && (rimA.has(r.a1) || rimA.has(-r.a0))) || (k > 0 && (rimB.has(r.b1) || rimB.has(-r.b0)));
  };
}
