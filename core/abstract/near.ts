/** Which cue a value belongs to: in its sentence, or in the caption above or below its cell. */
import type { Cue, Meaning } from './cues';
import { pieceAt, type Piece } from './pieces';

/** The cue that says what a value is. */
export interface Near {
  meaning: Meaning;
  /** Number of words between the cue and the value; 0 for a caption above or below. */
  distance: number;
  /** Whether both stand on one row. */
  onRow: boolean;
  /** Whether other words as near say something else. */
  disputed: boolean;
}

/** Words that say nothing and do not count as distance. */
const EMPTY = new Set(
  'is are be shall will takes place on or before by at of the a an in it and $ ( ) : " “ ” _ - – — amount date day dollars usd us approximately about no later than not el la los las de del es sera sea se en un una al dia fecha'.split(
    ' ',
  ),
);
const ABBREVIATIONS = new Set(
  'm no inc ltd llc co st mr mrs ms dr jr sr approx apt ave rd blvd num sra sta art sec par usd'.split(' '),
);

/** Returns whether a sentence ends at a piece. */
export function isEnd(pieces: readonly Piece[], at: number): boolean {
  const text = pieceAt(pieces, at);
  if (text === ';' || text === '?' || text === '!') return true;
  if (text !== '.') return false;
  const before = pieceAt(pieces, at - 1);
  const next = pieces[at + 1];
  if (!next) return true;
  // "1. Price" numbers a clause, "p.m." and "No." go on.
  if (/^\d{1,2}$/.test(before) && isStart(pieces, at - 1)) return false;
  if (ABBREVIATIONS.has(before) || /^[a-z]$/.test(before)) return false;
  return next.before !== 'none' && !/^\p{Ll}/u.test(next.raw);
}

/** Returns whether a piece is the first of its row or cell. */
const isStart = (pieces: readonly Piece[], at: number) => {
  const before = pieces[at]?.before;
  return at <= 0 || before === 'row' || before === 'part' || before === 'gap';
};

/** Number of pieces before and after a value in which its cue is looked for. */
const REACH = 24;
/** Number of words by which a cue after a value counts as further away than one before it. */
const AFTER = 3;
/** Number of words within which two cues with different meanings are a dispute. */
const CLOSEST = 1;
/** Maximum number of words between a cue and its value. */
const MOST_BETWEEN = 9;

type Ranked = Near & { rank: number };

/** Cues of a document by the position where they begin and end. */
export interface CueMap {
  /** By the position of their last piece. */
  last: ReadonlyMap<number, Cue>;
  first: ReadonlyMap<number, Cue>;
}

/** Returns cues by position. */
export const mapOf = (before: readonly Cue[], after: readonly Cue[] = before): CueMap => ({
  last: new Map(before.map((c) => [c.to - 1, c])),
  first: new Map(after.map((c) => [c.from, c])),
});

/**
 * Returns the cue nearest to a value in its own sentence, before or after it.
 *
 * @param from,to  the value's pieces; `to` is exclusive
 * @param valueAt  whether another value of the same type begins or ends at a piece: a cue beyond it is that one's
 * @param counts   whether a meaning is possible in this document
 * @param over     whether the value takes the place of another one in its sentence, whose cue it shares
 */
export function cueBeside(
  pieces: readonly Piece[],
  { from, to }: { from: number; to: number },
  cues: CueMap,
  valueAt: (at: number) => boolean,
  counts: (meaning: Meaning) => boolean,
  over = false,
): Near | null {
  const page = pieces[from]!.page;
  let best: Ranked | null = null as Ranked | null;
  const { rect } = pieces[from]!;
  const onRow = (cue: Cue) => Math.abs(pieces[cue.from]!.rect.y - rect.y) < 0.6 * rect.h;
  const offer = (cue: Cue, distance: number, more: number) => {
    const rank = distance + more - cue.pull;
    if (counts(cue.meaning) && (!best || rank < best.rank))
      best = { meaning: cue.meaning, distance, rank, onRow: onRow(cue), disputed: false };
  };
  /** What the cue right before the value says. */
  let before: Meaning | 'far' | null = null;
  let words = 0;
  for (let i = from - 1; i >= 0 && i >= from - REACH; i--) {
    if (pieces[i]!.page !== page || isEnd(pieces, i) || words > MOST_BETWEEN) break;
    if (valueAt(i)) {
      if (!over) break;
      continue;
    }
    const cue = cues.last.get(i);
    if (cue) {
      before ??= words <= CLOSEST ? cue.meaning : 'far';
      offer(cue, words, 0);
      i = cue.from;
    } else if (!EMPTY.has(pieceAt(pieces, i))) words++;
    if (pieces[i]!.before === 'part') break;
  }
  words = 0;
  for (let i = to; i < pieces.length && i < to + REACH; i++) {
    const p = pieces[i]!;
    if (p.page !== page || p.before === 'part' || isEnd(pieces, i) || valueAt(i) || words > AFTER) break;
    // What stands after a colon, or begins another row's caption, is another value's.
    if (p.text === ':') break;
    const cue = cues.first.get(i);
    if (cue) {
      if (pieceAt(pieces, cue.to) !== ':' && pieceAt(pieces, cue.to) !== '$') offer(cue, words, AFTER);
      i = cue.to - 1;
    } else if (!EMPTY.has(p.text)) words++;
  }
  return best && { ...best, disputed: before !== null && before !== 'far' && before !== best.meaning };
}

/** How far above and below a cell its caption may stand, in letter heights. */
const ABOVE = 3.2;
const BELOW = 2.2;
/** Maximum number of pieces of a caption. */
const MOST_CAPTION = 8;

/** Returns the cue in the caption right above or below the cell of a value; null if there is none. */
export function cueOfCell(
  pieces: readonly Piece[],
  { from, to }: { from: number; to: number },
  cues: readonly Cue[],
  counts: (meaning: Meaning) => boolean,
): Near | null {
  const lead = pieceAt(pieces, from - 1) === '$' ? from - 1 : from;
  if (!isStart(pieces, lead)) return null;
  const value = pieces[from]!;
  const right = pieces[to - 1]!.rect;
  const span = { x0: value.rect.x, x1: right.x + right.w };
  let best: { meaning: Meaning; apart: number } | null = null;
  for (const cue of cues) {
    const c = pieces[cue.from]!;
    if (c.page !== value.page || !counts(cue.meaning)) continue;
    const apart = value.rect.y - c.rect.y;
    const height = Math.min(c.rect.h, value.rect.h);
    // Below a line stands what was signed there; anything else below a value heads what follows.
    const near =
      apart > 0.6 * height
        ? apart < ABOVE * value.rect.h
        : cue.meaning === 'signed' && apart < -0.6 * height && -apart < BELOW * value.rect.h;
    if (!near) continue;
    const cell = cellOf(pieces, cue.from);
    if (!cell || cell.x0 > span.x1 || cell.x1 < span.x0 - 4) continue;
    if (!best || Math.abs(apart) < best.apart) best = { meaning: cue.meaning, apart: Math.abs(apart) };
  }
  return best && { meaning: best.meaning, distance: 0, onRow: false, disputed: false };
}

/** Returns the extent of the caption a piece belongs to; null if it is longer than a caption is, or a sentence. */
function cellOf(pieces: readonly Piece[], at: number): { x0: number; x1: number } | null {
  let from = at;
  while (from > 0 && !isStart(pieces, from) && at - from <= MOST_CAPTION) from--;
  let to = at + 1;
  while (to < pieces.length && !isStart(pieces, to) && to - at <= MOST_CAPTION) to++;
  if (to - from > MOST_CAPTION || isEnd(pieces, to - 1)) return null;
  // What has a value of its own is the caption of none.
  for (let i = from; i < to; i++) if (/\d\d|\$/.test(pieceAt(pieces, i))) return null;
  const [a, b] = [pieces[from]!.rect, pieces[to - 1]!.rect];
  return { x0: a.x, x1: b.x + b.w };
}

/** How far below its heading a column may go on, in points. */
const COLUMN = 240;

/** Returns whether a value stands in a column headed by a cue of a meaning, on a row that begins with a caption. */
export function isInColumnOf(
  pieces: readonly Piece[],
  { from, to }: { from: number; to: number },
  cues: readonly Cue[],
  meaning: Meaning,
): boolean {
  const value = pieces[from]!;
  if (value.before !== 'gap') return false;
  const right = pieces[to - 1]!.rect;
  return cues.some((cue) => {
    const c = pieces[cue.from]!;
    const apart = value.rect.y - c.rect.y;
    if (cue.meaning !== meaning || c.page !== value.page || apart < 0.6 * c.rect.h || apart > COLUMN) return false;
    const cell = cellOf(pieces, cue.from);
    return !!cell && cell.x0 < right.x + right.w && cell.x1 > value.rect.x - 40;
  });
}
