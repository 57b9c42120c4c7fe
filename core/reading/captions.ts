/** The words that belong to a blank: on its left, below it, above it, on its right, in its cell. */
import type { Rect } from '../paper/types';
import { cutEnd } from '../text/ends';
import { flowOf } from './flow';
import { isRoleHeading, plain } from './words';
import type { Blank, PageScan } from './blanks';
import type { Phrase } from './text';
import { itemAt } from '../sure';

/** The words around a blank. */
export interface Captions {
  left: string;
  /** Where the words on the left begin; the blank's own left end if there are none. */
  from: number;
  /** The rest of the row to the left, including the words of other blanks. */
  row: string;
  below: Phrase[];
  above: string;
  right: string;
  /** Whether the words on the right are the caption of another blank. */
  rightTaken: boolean;
  /** Words in the same cell, in the row's first cell and in the column's first cell. */
  cell: string;
  rowHead: string;
  colHead: string;
  /** The blank just before on the same row, if only punctuation is between. */
  after: Blank | null;
  /** Whether the words on the left are the end of a sentence. */
  sentence: boolean;
}

const PUNCTUATION = /^[\s()[\]/,.;:&|\\-]*$|^(?:and|or|y|e|o|&)$|^[,;]?\s?\(?[1-9][.):]?\)?$/i;

/** Returns whether a phrase is on the row of a blank. */
function onRow(p: { y: number; size: number }, b: Blank): boolean {
  if (b.made === 'box' && b.cell) {
    const middle = b.y - b.h / 2;
    return Math.abs(p.y - 0.33 * p.size - middle) < 0.65 * Math.max(p.size, b.h);
  }
  if (b.made === 'cell') return p.y < b.y + 2 && p.y > b.y - b.h - 4;
  return p.y <= b.y + 0.35 * p.size && p.y >= b.y - 0.75 * p.size - 2;
}

/** Returns whether two blanks are on one row. */
export function sameRow(a: Blank, b: Blank): boolean {
  return Math.abs(a.y - b.y) < 7 || (a.made === 'cell' && b.made === 'cell' && Math.abs(a.y - b.y) < 10);
}

/** Collects the captions of a blank. */
// eslint-disable-next-line max-lines-per-function -- what stands on each side of a blank is found in one walk over the words around it
export function captionsOf(scan: PageScan, b: Blank): Captions {
  const out: Captions = {
    left: '',
    from: b.x0,
    row: '',
    below: [],
    above: '',
    right: '',
    rightTaken: false,
    cell: '',
    rowHead: '',
    colHead: '',
    after: null,
    sentence: false,
  };
  const others = scan.blanks.filter((o) => o !== b && sameRow(o, b));
  const row = scan.phrases.filter((p) => onRow(p, b)).sort((p, q) => p.x0 - q.x0);
  const before = row.filter((p) => p.x1 <= b.x0 + 4);
  out.row = before.map((p) => p.text).join(' ');
  const blankBefore = others.filter((o) => o.x1 <= b.x0 + 3 && o.made !== 'box').sort((o, q) => q.x1 - o.x1)[0] ?? null;
  const between = before.filter((p) => !blankBefore || p.x0 >= blankBefore.x1 - 4);
  const walled = (p: Phrase) =>
    scan.content.down.some((d) => d.x > p.x1 - 1 && d.x < b.x0 + 1 && d.y0 < p.y && d.y1 > p.y - p.size);
  const near = between[between.length - 1];
  if (blankBefore && between.every((p) => PUNCTUATION.test(p.text)) && b.x0 - blankBefore.x1 < 60)
    out.after = blankBefore;
  if (near && b.made !== 'cell' && !walled(near)) {
    const gap = b.x0 - near.x1;
    if (gap < 34 || /:\s*$/.test(near.text) || gap < 0.3 * scan.content.width) {
      // Brackets and currency signs before the blank are between it and its words.
      const words =
        PUNCTUATION.test(near.text) || near.text.length < 2 ? between.map((p) => p.text).join(' ') : near.text;
      out.left = words;
      out.from = words === near.text ? near.x0 : (between[0]?.x0 ?? near.x0);
    }
  }
  const rowFrom = Math.min(b.x0, ...others.map((o) => o.x0));
  const startsRow = !row.some((p) => p.x1 <= rowFrom + 4);
  // Brackets right after the blank before explain that one.
  if (blankBefore) {
    const own =
      /^,[^,;.:]{3,30}$/.test(out.left) && startsRow && isRoleHeading(out.left.slice(1))
        ? ''
        : out.left.replace(/^\([^)]*\)\s*/, '');
    if (own !== out.left && (between[0]?.x0 ?? 0) - blankBefore.x1 < 20) out.left = own;
  }
  // A row that begins with a blank has its words behind the blanks: "____ Buyer 1   ____ Buyer 2".
  const firstBlank = itemAt(
    [b, ...others].sort((o, q) => o.x0 - q.x0),
    0,
  );
  const behind =
    b.made !== 'cell' &&
    b.made !== 'box' &&
    !flowOf(scan, firstBlank).before &&
    !row.some((p) => p.x1 <= firstBlank.x0 + 4) &&
    others.length > 0;
  const gapAfter = row.filter((p) => p.x0 >= firstBlank.x1 - 4).sort((p, q) => p.x0 - q.x0)[0];
  if (behind && gapAfter && gapAfter.x0 - firstBlank.x1 < 14 && !/^[([\])/,]/.test(gapAfter.text)) {
    const own = row.find((p) => p.x0 >= b.x1 - 4 && p.x0 - b.x1 < 26);
    out.left = own?.text ?? '';
    out.row = own?.text ?? '';
    out.sentence = out.left.split(' ').length > 7;
    out.below = belowOf(scan, b);
    return out;
  }
  if (out.left) {
    const words = out.left.split(' ');
    out.sentence =
      words.length > 7 || (words.length > 4 && !cutEnd(out.left, /[^\w:]/).endsWith(':') && !/[(:]\s*$/.test(out.left));
  }
  const next = row.find((p) => p.x0 >= b.x1 - 4);
  const blankNext = others.filter((o) => o.x0 >= b.x1 - 3).sort((o, q) => o.x0 - q.x0)[0];
  if (next && next.x0 - b.x1 < 26 && (!blankNext || blankNext.x0 >= next.x0 - 2) && !(b.made === 'cell')) {
    out.right = next.text;
    out.rightTaken = !/^\(.*\)$/.test(next.text) && others.some((o) => o.x0 >= next.x1 - 4 && o.x0 - next.x1 < 30);
  }
  if (b.made === 'cell') cellCaptions(scan, b, out);
  if (b.made !== 'cell' && b.made !== 'box') {
    out.below = belowOf(scan, b);
    out.above = aboveOf(scan, b);
  }
  return out;
}

function belowOf(scan: PageScan, b: Blank): Phrase[] {
  return scan.phrases
    .filter((p) => {
      const top = p.y - 0.74 * p.size;
      if (top < b.y - 1.5 || top > b.y + 0.75 * p.size + 4) return false;
      if (p.x1 < b.x0 + 1 || p.x0 > b.x1 - 1) return false;
      if (p.x0 < b.x0 - 14 || (p.x0 + p.x1) / 2 > b.x1 + 4) return false;
      if (p.x1 - p.x0 > 1.35 * (b.x1 - b.x0) + 30) return false;
      // Words with a blank of their own on the right belong to that blank.
      const own = scan.blanks.some(
        (o) => o !== b && onRow(p, o) && o.x0 >= p.x1 - 4 && o.x0 - p.x1 < 26 && o.made !== 'box',
      );
      return !own;
    })
    .sort((p, q) => p.x0 - q.x0);
}

function aboveOf(scan: PageScan, b: Blank): string {
  const found = scan.phrases
    .filter((p) => {
      const rise = b.y - p.y;
      if (rise < 6 || rise > 46) return false;
      if (p.x0 < b.x0 - 10 || p.x0 > b.x0 + 0.55 * (b.x1 - b.x0)) return false;
      if (p.x1 - p.x0 > 1.2 * (b.x1 - b.x0) + 20) return false;
      // Words before a blank on their own row, or below another blank, belong to that one.
      if (scan.blanks.some((o) => o !== b && onRow(p, o) && o.x0 >= p.x1 - 4 && o.x0 - p.x1 < 26 && o.made !== 'box'))
        return false;
      if (scan.blanks.some((o) => o !== b && onRow(p, o) && o.x1 <= p.x0 + 4 && p.x0 - o.x1 < 14 && o.made !== 'box'))
        return false;
      return !scan.blanks.some(
        (o) =>
          o !== b &&
          o.y < p.y - 0.4 * p.size &&
          p.y - 0.74 * p.size - o.y < 0.75 * p.size &&
          o.x0 < p.x1 &&
          o.x1 > p.x0 &&
          Math.abs(o.x0 - p.x0) < 0.6 * (o.x1 - o.x0),
      );
    })
    .sort((p, q) => q.y - p.y)[0];
  return found?.text ?? '';
}

function cellCaptions(scan: PageScan, b: Blank, out: Captions): void {
  const c = b.cell!;
  out.cell = (b.inside ?? []).map((p) => p.text).join(' ');
  // In a grid of cells that each have their own caption, a cell is no heading of the cells after or under it.
  const captioned = new Set(out.cell ? scan.blanks.flatMap((o) => (o.inside?.length ? [o.cell] : [])) : []);
  const sameRowCells = scan.cells.filter(
    (o) => o !== c && !captioned.has(o) && Math.abs(o.y - c.y) < 4 && Math.abs(o.h - c.h) < 8 && o.x < c.x,
  );
  const sameColCells = scan.cells.filter(
    (o) => o !== c && Math.abs(o.x - c.x) < 5 && Math.abs(o.w - c.w) < 8 && o.y < c.y && c.y - o.y < 420,
  );
  const textOf = (r: { x: number; y: number; w: number; h: number }) =>
    scan.phrases
      .filter((p) => {
        const x = (p.x0 + p.x1) / 2;
        return x > r.x && x < r.x + r.w && p.y > r.y && p.y < r.y + r.h + 1;
      })
      .map((p) => p.text)
      .join(' ');
  const heads = sameRowCells
    .sort((o, q) => q.x - o.x)
    .map((o) => ({ o, text: textOf(o) }))
    .filter((h) => h.text);
  out.left = heads[0]?.text ?? '';
  out.rowHead = heads[heads.length - 1]?.text ?? '';
  const tops = sameColCells.sort((o, q) => q.y - o.y).map((o) => ({ o, text: textOf(o) }));
  // The column's head is the first cell with words, and everything between is a cell of the same table.
  let at = c.y;
  for (const t of tops) {
    if (at - (t.o.y + t.o.h) > 6) break;
    at = t.o.y;
    if (t.text && !captioned.has(t.o)) {
      out.colHead = t.text;
      break;
    }
  }
  // The role may be below it even if the kind is before it: "Initial: [  ] [  ]".
  const named = scan.phrases.find(
    (p) =>
      p.x0 > c.x - 6 &&
      p.x1 < c.x + c.w + 10 &&
      p.y - 0.74 * p.size > c.y + c.h - 1 &&
      p.y - c.y - c.h < 16 &&
      isRoleHeading(p.text),
  );
  if (!out.cell && named && !isRoleHeading(out.colHead)) out.below = [named];
  if (!out.cell && !out.left && !out.colHead) aroundBox(scan, b, c, out);
}

/** Adds the captions of a box: words beside, above or below it. */
function aroundBox(scan: PageScan, b: Blank, c: Rect, out: Captions): void {
  const beside = scan.phrases
    .filter((p) => p.x1 <= c.x + 2 && c.x - p.x1 < 60 && p.y > c.y - 2 && p.y < c.y + c.h + 4)
    .sort((p, q) => q.x1 - p.x1)[0];
  const over = scan.phrases
    .filter((p) => p.x0 < c.x + c.w && p.x1 > c.x && c.y - p.y >= 0 && c.y - p.y < 12)
    .sort((p, q) => q.y - p.y)[0];
  const under = scan.phrases
    .filter((p) => p.x0 < c.x + c.w && p.x1 > c.x - 4 && p.y - 0.74 * p.size - (c.y + c.h) > -1 && p.y - c.y - c.h < 16)
    .sort((p, q) => p.y - q.y);
  const right = scan.phrases.find(
    (p) => p.x0 >= c.x + c.w - 2 && p.x0 - c.x - c.w < 14 && p.y > c.y && p.y < c.y + c.h + 4,
  );
  const last = scan.blanks
    .filter((o) => o !== b && o.x1 <= c.x && c.x - o.x1 < 120 && sameRow(o, b))
    .sort((o, q) => q.x1 - o.x1)[0];
  // "[   ] (Tenant 1) [   ] (Tenant 2)": brackets after a box explain that box.
  const isOfLast = !!last && !!beside && beside.x0 >= last.x1 - 4 && /^\(.*\)$/.test(beside.text);
  if (isOfLast) out.after = last;
  out.right = /^\([^)]*\)/.exec(right?.text ?? '')?.[0] ?? '';
  // "[   ] Owner's initials  [   ] Buyer's initials": a row that begins with a box has its words behind them.
  const row = scan.blanks.filter((o) => sameRow(o, b));
  const from = Math.min(...row.map((o) => o.x0));
  const behind =
    !!right && row.length > 1 && !scan.phrases.some((p) => p.x1 <= from + 4 && p.y > c.y && p.y < c.y + c.h + 4);
  out.left = behind && right ? right.text : isOfLast ? '' : (beside?.text ?? '');
  out.above = over?.text ?? '';
  out.below = under.slice(0, 1);
}

/** Returns the last words of a caption, those next to the blank. */
export function tail(text: string, words: number): string {
  return plain(text).split(' ').slice(-words).join(' ');
}

/**
 * Returns whether a blank is in the column of a heading that has other headings on its row.
 *
 * @param beside  the other headings
 * @param before  how far the blank may begin before the heading, in points
 */
export function isInColumn(b: Blank, heading: Phrase, beside: readonly Phrase[], before: number): boolean {
  const next = Math.min(...beside.flatMap((o) => (o.x0 > heading.x0 ? [o.x0] : [])));
  // The middle of the blank tells the column: the lines of two columns may touch.
  return b.x0 >= heading.x0 - before && (b.x0 + b.x1) / 2 <= next - 8;
}
