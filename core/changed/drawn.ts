/**
 * Comparing ink that is not words: a signature, a struck sum, a tick. Where the words of two pages agree on their
 * alignment, the rest must agree too.
 */
import { connectedPieces } from '../paper/connected';
import { eachInked, hasInk } from '../paper/ink';
import { around, grow, overlapArea } from '../paper/geometry';
import type { InkGrid, Rect } from '../paper/types';
import { groupBy, itemAt } from '../sure';
import { UNREAD, type Token } from './tokens';
import type { Change, Comparison, Passage, VersionPage } from './types';

/** Minimum number of common words for comparing what is between them. */
const FEWEST_WORDS = 8;
/** How far, in cells, ink may be from where the words around it put it. */
const STRAY = 2;
/** Pieces with fewer cells are specks; on a scan more are. */
const SPECK = 7;
const SPECK_ON_SCAN = 14;
/** Height and width, in points, below which a piece is a rule or the edge of a letter. */
const THIN = 7;
/** Maximum number of pieces reported per page. With more, the pages cannot be compared this way. */
const MOST_PIECES = 12;
/** How far apart, in points, pieces of one drawing may be. */
const APART = 14;

interface Pair {
  a: Rect;
  b: Rect;
}

/** Returns what is drawn on one version's page and not on the other's. */
export function drawnBetween(
  before: readonly VersionPage[],
  after: readonly VersionPage[],
  pages: Comparison['pages'],
  words: { a: readonly Token[]; b: readonly Token[]; match: Int32Array },
  told: readonly Change[],
): { changes: Change[]; wordsOnly: number[] } {
  const pairs = pairsByPage(words);
  const known = boxesByPage(told);
  const changes: Change[] = [];
  const wordsOnly: number[] = [];
  for (const { before: p, after: q } of pages) {
    if (p === null || q === null) continue;
    const [old, now] = [itemAt(before, p - 1), itemAt(after, q - 1)];
    const own = (pairs.get(`${p} ${q}`) ?? []).map(([a, b]): Pair => ({ a: a.rect, b: b.rect }));
    const fresh = own.length < FEWEST_WORDS ? null : piecesOf(now, old, own, rectsOf(known.get(`after ${q}`)));
    const back = own.map(({ a, b }) => ({ a: b, b: a }));
    const gone = fresh && piecesOf(old, now, back, rectsOf(known.get(`before ${p}`)));
    if (!fresh || !gone) wordsOnly.push(q);
    else {
      const scan = !!(old.scan || now.scan);
      changes.push(...fresh.map((rect) => changeOf('put_in', null, { text: '', boxes: [{ page: q, rect }] }, scan)));
      changes.push(...gone.map((rect) => changeOf('struck', { text: '', boxes: [{ page: p, rect }] }, null, scan)));
    }
  }
  return { changes, wordsOnly };
}

const rectsOf = (boxes: readonly { rect: Rect }[] | undefined) => (boxes ?? []).map((b) => b.rect);

const changeOf = (kind: 'put_in' | 'struck', before: Passage | null, after: Passage | null, scan: boolean): Change => ({
  kind,
  before,
  after,
  lead: '',
  tail: '',
  aside: null,
  drawn: true,
  scan,
});

/** Returns the matching words by the pages they are on. */
function pairsByPage({ a, b, match }: { a: readonly Token[]; b: readonly Token[]; match: Int32Array }) {
  const same = Array.from(match, (j, i) => (j < 0 ? [] : [[itemAt(a, i), itemAt(b, j)] as const])).flat();
  return groupBy(same, ([x, y]) => `${x.page} ${y.page}`);
}

/** Returns the boxes already reported, by version and page. */
function boxesByPage(told: readonly Change[]) {
  const sides = ['before', 'after'] as const;
  const boxes = told.flatMap((c) => sides.flatMap((side) => (c[side]?.boxes ?? []).map((box) => ({ side, ...box }))));
  return groupBy(boxes, ({ side, page }) => `${side} ${page}`);
}

/** Returns pieces of ink on `page` besides its words that `other` does not have; null if too much differs to say. */
function piecesOf(page: VersionPage, other: VersionPage, pairs: Pair[], known: Rect[]): Rect[] | null {
  const extra = extraInk(page, other, pairs);
  const scan = page.scan || other.scan;
  const pieces = clusters(extra, page.ink, scan ? SPECK_ON_SCAN : SPECK).filter(
    (r) => !known.some((k) => overlapArea(grow(k, 5), r) > 0),
  );
  const whole = merged(pieces);
  return whole.length > MOST_PIECES ? null : whole;
}

/** Returns cells with ink that belongs to no word and that the other page lacks where its words put it. */
function extraInk(page: VersionPage, other: VersionPage, pairs: Pair[]): Uint8Array {
  const { cols, rows, cell } = page.ink;
  const worded = new Uint8Array(cols * rows);
  for (const [n, rect] of page.print.entries()) {
    // Words that could not be read are compared as ink.
    if (page.words[n] === UNREAD) continue;
    const r = grow(rect, 2);
    const [c0, c1] = [Math.max(0, Math.floor(r.x / cell)), Math.min(cols, Math.ceil((r.x + r.w) / cell))];
    const [r0, r1] = [Math.max(0, Math.floor(r.y / cell)), Math.min(rows, Math.ceil((r.y + r.h) / cell))];
    for (let y = r0; y < r1; y++) worded.fill(1, y * cols + c0, y * cols + Math.max(c0, c1));
  }
  const nearest = offsets(pairs, rows, cell);
  const out = new Uint8Array(cols * rows);
  eachInked(page.ink, (i) => {
    if (worded[i]) return;
    const y = Math.floor(i / cols);
    const { dx, dy } = itemAt(nearest, y);
    const u = Math.floor(((i - y * cols + 0.5) * cell + dx) / other.ink.cell);
    const v = Math.floor(((y + 0.5) * cell + dy) / other.ink.cell);
    if (!inkNear(other.ink, u, v)) out[i] = 1;
  });
  return out;
}

function inkNear(g: InkGrid, c: number, r: number): boolean {
  for (let y = Math.max(0, r - STRAY); y <= Math.min(g.rows - 1, r + STRAY); y++)
    for (let x = Math.max(0, c - STRAY); x <= Math.min(g.cols - 1, c + STRAY); x++) if (hasInk(g, x, y)) return true;
  return false;
}

/** Returns for each row of cells the offset to the other page, taken from the nearest word above or below. */
function offsets(pairs: Pair[], rows: number, cell: number): { dx: number; dy: number }[] {
  const middle = (r: Rect) => r.y + r.h / 2;
  const sorted = [...pairs].sort((p, q) => middle(p.b) - middle(q.b));
  const out: { dx: number; dy: number }[] = [];
  let k = 0;
  for (let y = 0; y < rows; y++) {
    const at = (y + 0.5) * cell;
    while (
      k + 1 < sorted.length &&
      Math.abs(middle(itemAt(sorted, k + 1).b) - at) <= Math.abs(middle(itemAt(sorted, k).b) - at)
    )
      k++;
    const { a, b } = itemAt(sorted, k);
    out.push({ dx: a.x - b.x, dy: middle(a) - middle(b) });
  }
  return out;
}

/** Returns connected cells as rectangles in points, without specks and thin rules. */
function clusters(cells: Uint8Array, { cols, rows, cell }: InkGrid, speck: number): Rect[] {
  const out: Rect[] = [];
  for (const { cells: all, left, right, top, bottom } of connectedPieces(cells, cols, rows)) {
    const rect = { x: left * cell, y: top * cell, w: (right - left + 1) * cell, h: (bottom - top + 1) * cell };
    if (all.length >= speck && rect.w >= THIN && rect.h >= THIN) out.push(rect);
  }
  return out;
}

/** Merges pieces that are close to each other. */
function merged(pieces: Rect[]): Rect[] {
  const out: Rect[] = [];
  for (const piece of pieces.slice(0, 400)) {
    let whole = piece;
    for (let i = out.length - 1; i >= 0; i--) {
      const r = itemAt(out, i);
      if (overlapArea(grow(r, APART / 2), grow(whole, APART / 2)) <= 0) continue;
      whole = around(r, whole);
      out.splice(i, 1);
    }
    out.push(whole);
  }
  return out;
}
