/** Whether something was written at a printed place: its ink, without the ink of the blank form. */
import { connectedPieces } from '../paper/connected';
import type { Rect } from '../paper/types';
import type { PlaceKind } from '../reading/types';
import type { Mask } from '../scan/types';
import { itemAt } from '../sure';
import type { Fit } from './line-up';

/** Whether a place is filled. */
export const FILLED = ['yes', 'no', 'doubtful'] as const;
/** One of `FILLED`. */
export type Filled = (typeof FILLED)[number];

/** A place as it was measured, and what a member decided about it. */
interface ReviewedPlace {
  kind: PlaceKind;
  signed?: boolean | undefined;
  filled: Filled;
  said: 'yes' | 'no' | null;
}

/** Returns whether a place is filled; a member's decision overrides what was read. */
export const stateOf = (p: Pick<ReviewedPlace, 'filled' | 'said'>): Filled => p.said ?? p.filled;

/** Returns whether a place is a signature, initials or a date of signing. A document is not signed without these. */
export const isOfHand = (p: Pick<ReviewedPlace, 'kind' | 'signed'>): boolean =>
  p.kind === 'signature' || p.kind === 'initials' || (p.kind === 'date' && p.signed !== false);

/** A page's ink. */
export interface Sheet {
  mask: Mask;
  /** Pixels per point. */
  scale: number;
}

/** How far, in points, printed ink may be from where the blank has it. */
const STRAY = 1.1;
/** How far, in points, a place's surroundings may be shifted to match the blank's. */
const MOVED = 3;
/** Margin around a place, in points, that is used for alignment, and where strokes may begin. */
const AROUND = 14;
/** Strokes shorter than this, in points, are specks. */
const SPECK = 2.2;
/** Thickness, in points, of the rule at the bottom of a place, which is not writing. */
const RULE = 1.6;

/** Ink of a place in square points: below `no` nothing counts, from `yes` on it is filled. */
const INK: Record<'box' | 'line', { no: number; yes: number }> = {
  box: { no: 1.6, yes: 4.5 },
  line: { no: 2, yes: 7 },
};

/**
 * Returns whether a place is filled.
 *
 * @param rect its position on the returned page, in points
 * @param blank the blank form's page with their alignment; without it, everything that is not a line counts
 */
export function filledAt(back: Sheet, rect: Rect, kind: PlaceKind, blank: { sheet: Sheet; fit: Fit } | null): Filled {
  const look = blank ? rect : trimmed(rect, kind);
  // The frame of a box touches what is in it: without the form at hand only its inside is looked at.
  const extra = extraInk(back, look, blank, blank || kind !== 'checkbox' ? AROUND : 0);
  const { own, stray } = strokesIn(extra, look, back.scale);
  const { no, yes } = INK[kind === 'checkbox' ? 'box' : 'line'];
  if (own >= yes) return 'yes';
  return own + stray < no ? 'no' : 'doubtful';
}

/** Returns the inner part of a place, without its frame and rule. */
function trimmed({ x, y, w, h }: Rect, kind: PlaceKind): Rect {
  const side = kind === 'checkbox' ? Math.min(2.4, w / 4) : 1;
  return {
    x: x + side,
    y: y + (kind === 'checkbox' ? side : 1),
    w: w - 2 * side,
    h: h - (kind === 'checkbox' ? 2 * side : RULE + 1),
  };
}

/** A section of a page's pixels. */
interface Piece {
  /** Its offset on the page, in pixels. */
  x: number;
  y: number;
  width: number;
  height: number;
  data: Uint8Array;
  /** All ink that was there. */
  was: Uint8Array;
}

/** Returns the ink around a place that the blank does not have there. */
function extraInk(back: Sheet, rect: Rect, blank: { sheet: Sheet; fit: Fit } | null, grow: number): Piece {
  const { mask, scale } = back;
  const x = Math.max(0, Math.floor((rect.x - grow) * scale));
  const y = Math.max(0, Math.floor((rect.y - grow) * scale));
  const width = Math.max(0, Math.min(mask.width, Math.ceil((rect.x + rect.w + grow) * scale)) - x);
  const height = Math.max(0, Math.min(mask.height, Math.ceil((rect.y + rect.h + grow) * scale)) - y);
  const piece: Piece = { x, y, width, height, data: new Uint8Array(width * height), was: new Uint8Array() };
  for (let r = 0; r < height; r++)
    for (let c = 0; c < width; c++) piece.data[r * width + c] = itemAt(mask.data, (y + r) * mask.width + x + c);
  piece.was = piece.data.slice();
  if (blank) takeOut(piece, scale, blank);
  else takeOutRules(piece, scale);
  return piece;
}

/** Removes from a section the blank's ink at the same place, shifted so that most of it is removed. */
function takeOut(piece: Piece, scale: number, { sheet, fit }: { sheet: Sheet; fit: Fit }): void {
  const expected = expectedInk(piece, scale, sheet, fit);
  const [dx, dy] = bestMove(piece, expected, Math.round(MOVED * scale));
  const reach = Math.max(1, Math.round(STRAY * scale));
  const grown = thickened(expected, piece.width, piece.height, reach);
  const { width, height, data } = piece;
  for (let r = 0; r < height; r++)
    for (let c = 0; c < width; c++) {
      const [er, ec] = [r - dy, c - dx];
      if (er >= 0 && ec >= 0 && er < height && ec < width && grown[er * width + ec]) data[r * width + c] = 0;
    }
}

/** Returns the blank's ink in a section of the page. */
function expectedInk(piece: Piece, scale: number, { mask, scale: own }: Sheet, fit: Fit): Uint8Array {
  const [a, b, c, d, e, f] = fit.matrix;
  const det = a * e - b * d;
  const out = new Uint8Array(piece.width * piece.height);
  for (let r = 0; r < piece.height; r++)
    for (let k = 0; k < piece.width; k++) {
      const u = (piece.x + k + 0.5) / scale - c;
      const v = (piece.y + r + 0.5) / scale - f;
      const x = Math.floor(((u * e - v * b) / det) * own);
      const y = Math.floor(((v * a - u * d) / det) * own);
      if (x >= 0 && y >= 0 && x < mask.width && y < mask.height && mask.data[y * mask.width + x])
        out[r * piece.width + k] = 1;
    }
  return out;
}

/** Returns the shift, in pixels, that puts most of the expected ink onto existing ink. */
function bestMove(piece: Piece, expected: Uint8Array, most: number): [dx: number, dy: number] {
  const { width, height, data } = piece;
  const dots: [number, number][] = [];
  for (let i = 0; i < expected.length; i++) if (expected[i]) dots.push([i % width, Math.floor(i / width)]);
  const every = Math.max(1, Math.floor(dots.length / 1_500));
  let best = { n: -1, dx: 0, dy: 0 };
  for (let dy = -most; dy <= most; dy++)
    for (let dx = -most; dx <= most; dx++) {
      let n = 0;
      for (let i = 0; i < dots.length; i += every) {
        const [x, y] = itemAt(dots, i);
        const [c, r] = [x + dx, y + dy];
        if (c >= 0 && r >= 0 && c < width && r < height) n += itemAt(data, r * width + c);
      }
      // Of equally good ones the nearest.
      const score = n - 0.002 * Math.hypot(dx, dy) * (dots.length / every);
      if (score > best.n) best = { n: score, dx, dy };
    }
  return [best.dx, best.dy];
}

function thickened(ink: Uint8Array, width: number, height: number, reach: number): Uint8Array {
  const across = new Uint8Array(ink.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (ink[y * width + x])
        for (let k = Math.max(0, x - reach); k <= Math.min(width - 1, x + reach); k++) across[y * width + k] = 1;
  const out = new Uint8Array(ink.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (across[y * width + x])
        for (let k = Math.max(0, y - reach); k <= Math.min(height - 1, y + reach); k++) out[k * width + x] = 1;
  return out;
}

/** Removes long horizontal runs of ink as thin as a rule: they belong to the form. */
function takeOutRules(piece: Piece, scale: number): void {
  const { width, height, data } = piece;
  const least = Math.round(12 * scale);
  const thick = Math.round(2.4 * scale);
  for (let r = 0; r < height; r++) {
    let from = -1;
    for (let c = 0; c <= width; c++) {
      const ink =
        c < width &&
        (data[r * width + c] || (r > 0 && data[(r - 1) * width + c]) || (r + 1 < height && data[(r + 1) * width + c]));
      if (ink && from < 0) from = c;
      if (ink || from < 0) continue;
      if (c - from >= least) for (let k = from; k < c; k++) clearThin(piece, k, r, thick);
      from = -1;
    }
  }
}

/** Removes the vertical run of ink through a pixel if it is no thicker than a rule. */
function clearThin({ width, height, data }: Piece, x: number, y: number, most: number): void {
  if (!data[y * width + x]) return;
  let a = y;
  let b = y;
  while (a > 0 && data[(a - 1) * width + x] && b - a <= most) a--;
  while (b < height - 1 && data[(b + 1) * width + x] && b - a <= most) b++;
  if (b - a + 1 <= most) for (let k = a; k <= b; k++) data[k * width + x] = 0;
}

/** Thickest rule, in points, whose removal can split a stroke. */
const PARTED = 4;

/** Returns where a stroke continues behind a removed rule, in one direction; null if it ends there. */
function behindRule(
  { width, height, data, was }: Piece,
  x: number,
  y: number,
  step: 1 | -1,
  most: number,
): number | null {
  for (let k = 1; k <= most; k++) {
    const ny = y + k * step;
    if (ny < 0 || ny >= height || !was[ny * width + x]) return null;
    if (data[ny * width + x]) return k > 1 ? ny * width + x : null;
  }
  return null;
}

/**
 * Returns ink of strokes in a place, in square points: `own` is mostly inside it, `stray` reaches into it from
 * elsewhere.
 */
function strokesIn(piece: Piece, rect: Rect, scale: number): { own: number; stray: number } {
  const { width, height, data } = piece;
  const speck = SPECK * scale;
  const [x0, y0] = [rect.x * scale - piece.x, rect.y * scale - piece.y];
  const [x1, y1] = [x0 + rect.w * scale, y0 + rect.h * scale];
  const sum = { own: 0, stray: 0 };
  const behind = (x: number, y: number) =>
    ([1, -1] as const).flatMap((step) => behindRule(piece, x, y, step, PARTED * scale) ?? []);
  for (const stroke of connectedPieces(data, width, height, { also: behind })) {
    let inside = 0;
    for (const i of stroke.cells) {
      const [x, y] = [i % width, Math.floor(i / width)];
      if (x >= x0 && x < x1 && y >= y0 && y < y1) inside++;
    }
    if (!inside || Math.max(stroke.right - stroke.left, stroke.bottom - stroke.top) < speck) continue;
    // What lies mostly beside the place belongs to another; a large hand may still reach far out of its own.
    if (inside >= 0.4 * stroke.cells.length) sum.own += inside;
    else sum.stray += inside;
  }
  return { own: sum.own / scale ** 2, stray: sum.stray / scale ** 2 };
}
