/** Which ink of a page is lines and boxes, drawn to write on or to divide a table. */
import type { Rect } from '../paper/types';
import type { AcrossLine, DownLine } from '../reading/types';
import { itemAt } from '../sure';
import type { Mask } from './types';

/** Lengths in points: the shortest horizontal line, the shortest vertical one, and the maximum thickness. */
const SHORTEST = 13;
const SHORTEST_DOWN = 14;
const THICKEST = 3;
/** Maximum length of the feet of a word's letters. */
const LETTERS = 60;
/** Maximum length of a line that must be free of letters. */
const SHORT = 26;
/** Sides of a checkbox, in points. */
const BOX = { from: 6.4, to: 20 };
/** Maximum number of lines examined on a page: drawings and noise have more. */
const MANY = 2_500;

/** Lines and boxes found in the ink of a scanned page. */
export interface DrawnInk {
  across: AcrossLine[];
  down: DownLine[];
  /** Small squares, empty or checked. */
  squares: Rect[];
}

/** A part of a line, in dots. */
interface Stretch {
  from: number;
  to: number;
  /** Its center, and its thickness in dots. */
  at: number;
  thick: number;
}

/**
 * Returns the lines and boxes of a page that lies straight.
 *
 * @param scale dots per point
 */
export function linesIn(mask: Mask, scale: number): DrawnInk {
  const level = stretches(mask, scale, SHORTEST);
  const upright = stretches(turnedMask(mask), scale, SHORTEST_DOWN);
  const squares = squaresIn(mask, scale);
  const inSquare = (x: number, y: number) =>
    squares.some((s) => x > s.x - 2 && x < s.x + s.w + 2 && y > s.y - 2 && y < s.y + s.h + 2);
  return {
    across: level
      .map((l) => ({ x0: l.from / scale, x1: l.to / scale, y: l.at / scale }))
      .filter((l) => l.x1 - l.x0 > BOX.to || !inSquare((l.x0 + l.x1) / 2, l.y)),
    down: upright
      .map((l) => ({ y0: l.from / scale, y1: l.to / scale, x: l.at / scale }))
      .filter((l) => l.y1 - l.y0 > BOX.to || !inSquare(l.x, (l.y0 + l.y1) / 2)),
    squares,
  };
}

/** Returns the mask with rows and columns exchanged. */
function turnedMask({ width, height, data }: Mask): Mask {
  const out = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if (data[y * width + x]) out[x * height + y] = 1;
  return { width: height, height: width, data: out };
}

/**
 * Returns long thin runs of ink along rows. A run may drift by a dot up or down and miss a few dots. What is thick in
 * most places is not a line; where handwriting or a letter crosses it, it may be.
 */
function stretches(mask: Mask, scale: number, shortest: number): Stretch[] {
  const { width, height, data } = mask;
  const least = shortest * scale;
  const gap = Math.max(2, Math.round(0.9 * scale));
  const found: Stretch[] = [];
  for (let y = 1; y < height - 1; y++) {
    let from = -1;
    let last = -1;
    let ink = 0;
    const end = () => {
      if (from >= 0 && last - from >= least && ink > 0.86 * (last - from))
        found.push({ from, to: last + 1, at: y, thick: 1 });
      from = -1;
      ink = 0;
    };
    const row = y * width;
    for (let x = 0; x < width; x++) {
      // Rows beside it count: a line that lies a little askew goes from one to the next.
      if (data[row + x] || (data[row - width + x] && data[row + width + x])) {
        if (from < 0) from = x;
        ink++;
        last = x;
      } else if (from >= 0 && x - last > gap) end();
    }
    end();
    if (found.length > MANY * 6) return [];
  }
  return thin(mask, joined(found, gap), scale, least).slice(0, MANY);
}

/** Returns runs of neighboring rows that lie beside or behind each other as one line. */
function joined(runs: Stretch[], gap: number): (Stretch & { top: number; foot: number })[] {
  const out: (Stretch & { top: number; foot: number })[] = [];
  let open: (Stretch & { top: number; foot: number })[] = [];
  for (const r of runs) {
    open = open.filter((o) => r.at - o.foot <= 2);
    const mine = open.filter((o) => r.from <= o.to + gap && r.to >= o.from - gap);
    const first = mine[0];
    if (!first) {
      const line = { ...r, top: r.at, foot: r.at };
      out.push(line);
      open.push(line);
      continue;
    }
    for (const other of mine.slice(1)) {
      first.from = Math.min(first.from, other.from);
      first.to = Math.max(first.to, other.to);
      first.top = Math.min(first.top, other.top);
      open.splice(open.indexOf(other), 1);
      out.splice(out.indexOf(other), 1);
    }
    first.from = Math.min(first.from, r.from);
    first.to = Math.max(first.to, r.to);
    first.foot = r.at;
  }
  return out;
}

function thin(mask: Mask, lines: (Stretch & { top: number; foot: number })[], scale: number, least: number): Stretch[] {
  const { width, height, data } = mask;
  const most = Math.max(2, Math.round(THICKEST * scale));
  return lines.flatMap((l) => {
    if (l.foot - l.top + 1 > 2 * most) return [];
    let sound = 0;
    let seen = 0;
    let weight = 0;
    let count = 0;
    for (let x = l.from; x < l.to; x++) {
      // How far the ink goes on above and below the line at this dot.
      let a = l.top;
      while (a > 0 && a > l.top - most - 2 && data[(a - 1) * width + x]) a--;
      let b = l.foot;
      while (b < height - 1 && b < l.foot + most + 2 && data[(b + 1) * width + x]) b++;
      let here = 0;
      for (let y = l.top; y <= l.foot; y++)
        if (data[y * width + x]) {
          here++;
          weight += y;
          count++;
        }
      if (!here) continue;
      seen++;
      // Free above or below it: a letter's stem may touch a line on one side.
      if (l.top - a < most / 2 || b - l.foot < most / 2) if (here + (l.top - a) + (b - l.foot) <= most + 1) sound++;
    }
    if (l.to - l.from < LETTERS * scale && standsOn(mask, l, scale)) return [];
    // The feet of letters that touch make short lines, with stems on them.
    const share = l.to - l.from < SHORT * scale ? 0.86 : 0.62;
    if (seen < 0.8 * (l.to - l.from) || sound < share * seen || l.to - l.from < least) return [];
    return [{ from: l.from, to: l.to, at: weight / Math.max(1, count) + 0.5, thick: l.foot - l.top + 1 }];
  });
}

/** Returns whether letters stand on all of a short line: then it is their feet. */
function standsOn({ width, data }: Mask, l: { from: number; to: number; top: number }, scale: number): boolean {
  const up = Math.round(3.2 * scale);
  if (l.top <= up) return false;
  let last = l.from;
  let stems = 0;
  let widest = 0;
  for (let x = l.from; x < l.to; x++) {
    let n = 0;
    for (let k = 1; k <= up; k++) n += itemAt(data, (l.top - k) * width + x);
    if (n < 0.8 * up) continue;
    if (x - last > 2) stems++;
    widest = Math.max(widest, x - last);
    last = x;
  }
  widest = Math.max(widest, l.to - last);
  return stems >= 1 && widest < 10 * scale;
}

/** Counts of ink, in dots. */
class Ink {
  constructor(private readonly mask: Mask) {}

  at(x: number, y: number): number {
    const { width, height, data } = this.mask;
    return x < 0 || y < 0 || x >= width || y >= height ? 0 : itemAt(data, y * width + x);
  }

  /** Returns the share of a row that has ink in it or right beside it. */
  across(x0: number, x1: number, y: number): number {
    let n = 0;
    for (let x = x0; x <= x1; x++) if (this.at(x, y) || this.at(x, y - 1) || this.at(x, y + 1)) n++;
    return n / (x1 - x0 + 1);
  }

  down(y0: number, y1: number, x: number): number {
    let n = 0;
    for (let y = y0; y <= y1; y++) if (this.at(x, y) || this.at(x - 1, y) || this.at(x + 1, y)) n++;
    return n / (y1 - y0 + 1);
  }

  /** Returns the share of ink in exactly one row or column of dots. */
  exactly(from: number, to: number, at: number, level: boolean): number {
    let n = 0;
    for (let k = from; k <= to; k++) n += level ? this.at(k, at) : this.at(at, k);
    return n / (to - from + 1);
  }

  /** Returns whether there is ink within a dot of a box's corner: letters have round corners. */
  isCorner(cx: number, cy: number): boolean {
    let n = 0;
    for (let y = cy - 1; y <= cy + 1; y++) for (let x = cx - 1; x <= cx + 1; x++) n += this.at(x, y);
    return n >= 3;
  }

  /** Returns whether a box is filled, as letters are: most of a box is paper. */
  isFilled(x: number, y: number, w: number, h: number): boolean {
    const edge = Math.max(2, Math.round(0.14 * w));
    let filled = 0;
    for (let yy = y + edge; yy < y + h - edge; yy++)
      for (let xx = x + edge; xx < x + w - edge; xx++) filled += this.at(xx, yy);
    return filled > 0.62 * (h - 2 * edge) * (w - 2 * edge);
  }
}

/** Returns the height of the box whose top side runs between two dots; 0 if there is none. */
function heightOfBox(ink: Ink, x: number, end: number, y: number, height: number): number {
  const w = end - x + 1;
  let found = 0;
  for (let h = Math.round(w * 0.84); h <= Math.min(Math.round(w * 1.2), height - y - 2); h++) {
    const foot = y + h - 1;
    const drawn =
      ink.across(x, end, foot) > 0.94 &&
      ink.down(y, foot, x) > 0.94 &&
      ink.down(y, foot, end) > 0.94 &&
      [y, foot].every((cy) => [x, end].every((cx) => ink.isCorner(cx, cy)));
    // Round letters bulge beyond the ends of their flat strokes.
    const alone =
      drawn &&
      ink.exactly(x, end, y - 3, true) + ink.exactly(x, end, foot + 3, true) < 0.3 &&
      ink.exactly(y, foot, x - 3, false) + ink.exactly(y, foot, end + 3, false) < 0.3;
    if (alone) found = h;
  }
  return found;
}

/** Returns small squares whose four sides are drawn; what is in them does not matter. */
function squaresIn(mask: Mask, scale: number): Rect[] {
  const { width, height, data } = mask;
  const ink = new Ink(mask);
  const from = Math.round(BOX.from * scale);
  const to = Math.round(BOX.to * scale);
  const out: Rect[] = [];
  for (let y = 1; y < height - from; y++)
    for (let x = 1; x < width - from; x++) {
      // A corner: ink here, none to the left or above.
      if (!data[y * width + x] || data[(y - 1) * width + x] || data[y * width + x - 1]) continue;
      if (!data[y * width + x + 2] || !data[(y + 2) * width + x]) continue;
      let end = x;
      while (end < width - 1 && end - x <= to && (ink.at(end + 1, y) || ink.at(end + 1, y + 1))) end++;
      const w = end - x + 1;
      if (w < from || w > to) continue;
      const h = heightOfBox(ink, x, end, y, height);
      // The line goes on beyond the corner where it is the border of something larger.
      if (!h || ink.at(end + 3, y) || ink.at(x, y + h + 3) || ink.isFilled(x, y, w, h)) continue;
      const rect = { x: x / scale, y: y / scale, w: w / scale, h: h / scale };
      if (!out.some((o) => Math.abs(o.x - rect.x) < 4 && Math.abs(o.y - rect.y) < 4)) out.push(rect);
      if (out.length > 400) return out;
    }
  return out;
}
