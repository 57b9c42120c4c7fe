/**
 * Photographs of paper: where the sheet is in the picture, whether it can be read, and the sheet as if it had been
 * scanned.
 */
import { connectedPieces } from '../paper/connected';
import { itemAt } from '../sure';
import type { Gray } from './types';

/** A point of a picture, as shares of its width and height from the top left. */
export interface Corner {
  x: number;
  y: number;
}
/** The corners of a sheet in order: top left, top right, bottom right, bottom left. */
export type Corners = [Corner, Corner, Corner, Corner];

/** Corners of a picture that is used whole. */
export const WHOLE: Corners = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/** Longest side of the reduced picture, in dots: edges of sheets need no more. */
const LOOK = 320;
/** Minimum share of a picture that a sheet covers, and minimum share of its outline that is paper. */
const LEAST = 0.15;
const FULL = 0.86;

/**
 * Finds the sheet of paper in a photograph: the brightest connected area.
 *
 * @returns its corners; the whole picture if no sheet stands out
 */
export function sheetIn(gray: Gray): Corners {
  const small = smaller(gray, LOOK);
  const { width, height } = small;
  const bright = brightIn(small);
  const { size, dots } = largest(bright, width, height);
  if (size < LEAST * width * height) return WHOLE;
  const far = (value: (x: number, y: number) => number): Corner => {
    let best = -Infinity;
    let found = 0;
    for (const i of dots) {
      const v = value(i % width, Math.floor(i / width));
      if (v > best) [best, found] = [v, i];
    }
    return { x: ((found % width) + 0.5) / width, y: (Math.floor(found / width) + 0.5) / height };
  };
  const corners: Corners = [far((x, y) => -x - y), far((x, y) => x - y), far((x, y) => x + y), far((x, y) => y - x)];
  const outline = areaOf(corners) * width * height;
  // A sheet that fills the picture has no edge to cut along.
  if (areaOf(corners) > 0.95) return WHOLE;
  return isSheet(corners) && size >= FULL * outline && size <= 1.15 * outline ? corners : WHOLE;
}

/** Returns the area of a sheet's outline, as a share of the picture (Gauss's formula). */
export function areaOf(corners: Corners): number {
  let sum = 0;
  corners.forEach((a, i) => {
    const b = itemAt(corners, (i + 1) % 4);
    sum += a.x * b.y - b.x * a.y;
  });
  return sum / 2;
}

/** Returns whether four corners can be a sheet's: in order, convex, and not tiny. */
export function isSheet(corners: Corners): boolean {
  const turns = corners.every((a, i) => {
    const b = itemAt(corners, (i + 1) % 4);
    const c = itemAt(corners, (i + 2) % 4);
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x) > 0;
  });
  return turns && areaOf(corners) > 0.02;
}

function smaller({ width, height, data }: Gray, most: number): Gray {
  const step = Math.max(1, Math.ceil(Math.max(width, height) / most));
  const w = Math.max(1, Math.floor(width / step));
  const h = Math.max(1, Math.floor(height / step));
  const out = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let sum = 0;
      for (let dy = 0; dy < step; dy++)
        for (let dx = 0; dx < step; dx++) sum += itemAt(data, (y * step + dy) * width + x * step + dx);
      out[y * w + x] = sum / (step * step);
    }
  return { width: w, height: h, data: out };
}

/** Returns the dots above the threshold that best divides the picture into bright and dark (Otsu 1979). */
function brightIn({ data }: Gray): Uint8Array {
  const counts = new Float64Array(256);
  for (const v of data) counts[v]!++;
  let total = 0;
  for (let v = 0; v < 256; v++) total += v * itemAt(counts, v);
  let below = 0;
  let sum = 0;
  let best = { spread: -1, at: 128 };
  for (let v = 0; v < 255; v++) {
    below += itemAt(counts, v);
    sum += v * itemAt(counts, v);
    const above = data.length - below;
    if (!below || !above) continue;
    const spread = below * above * (sum / below - (total - sum) / above) ** 2;
    if (spread > best.spread) best = { spread, at: v };
  }
  return data.map((v) => (v > best.at ? 1 : 0));
}

/** Returns the largest connected piece of dots. Print does not divide a sheet: there is paper around it. */
function largest(set: Uint8Array, width: number, height: number): { size: number; dots: number[] } {
  let dots: number[] = [];
  for (const { cells } of connectedPieces(set, width, height, { corners: false }))
    if (cells.length > dots.length) dots = cells;
  return { size: filledSize(dots, width), dots };
}

/** Returns the size of a piece including the print on it: each row from its first dot to its last. */
function filledSize(dots: number[], width: number): number {
  const rows = new Map<number, [number, number]>();
  for (const i of dots) {
    const y = Math.floor(i / width);
    const x = i % width;
    const row = rows.get(y);
    if (!row) rows.set(y, [x, x]);
    else {
      row[0] = Math.min(row[0], x);
      row[1] = Math.max(row[1], x);
    }
  }
  let n = 0;
  for (const [a, b] of rows.values()) n += b - a + 1;
  return n;
}

/** What is wrong with a photograph of a page. */
export type PhotoTrouble = 'dark' | 'blurred';

/** Brightness of paper below which a photograph is too dark to read. */
const DARK = 70;
/** Steps in brightness between neighboring dots of sharp print, as a share of the difference between ink and paper. */
const SHARP = 0.3;

/**
 * Returns what is wrong with a photograph of print; null if nothing is. `gray` is examined as it is: give it some
 * 1,000 dots per side.
 */
export function troubleOf(gray: Gray): PhotoTrouble | null {
  const { width, height, data } = gray;
  const sorted = Uint8Array.from(data).sort();
  const paper = itemAt(sorted, Math.floor(sorted.length * 0.9));
  if (paper < DARK) return 'dark';
  // The steepest of the steps are the edges of print; out of focus none is steep.
  const steps = new Uint32Array(256);
  let n = 0;
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      const step = Math.max(
        Math.abs(itemAt(data, i + 1) - itemAt(data, i)),
        Math.abs(itemAt(data, i + width) - itemAt(data, i)),
      );
      steps[step]!++;
      n++;
    }
  let left = Math.max(1, Math.round(n * 0.004));
  let steep = 255;
  while (steep > 0 && (left -= itemAt(steps, steep)) > 0) steep--;
  const ink = itemAt(sorted, Math.floor(sorted.length * 0.01));
  return steep < SHARP * Math.max(40, paper - ink) ? 'blurred' : null;
}

/** A color picture: three bytes per dot, row by row. */
export interface Rgb {
  width: number;
  height: number;
  data: Uint8Array;
}

/** Returns the lengths of a sheet's sides in a picture, the longer of each pair, in dots. */
export function sidesOf(corners: Corners, { width, height }: { width: number; height: number }) {
  const far = (a: Corner, b: Corner) => Math.hypot((a.x - b.x) * width, (a.y - b.y) * height);
  const [tl, tr, br, bl] = corners;
  return { across: Math.max(far(tl, tr), far(bl, br)), down: Math.max(far(tl, bl), far(tr, br)) };
}

/** Returns the sheet alone, flat, in the size asked for: each dot is looked up where perspective put it. */
export function flattened(picture: Rgb, corners: Corners, width: number, height: number): Rgb {
  const out = new Uint8Array(width * height * 3);
  const [a, b, c, d, e, f, g, h] = perspective(corners, picture);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const u = (x + 0.5) / width;
      const v = (y + 0.5) / height;
      const w = g * u + h * v + 1;
      const px = Math.min(picture.width - 1.001, Math.max(0, (a * u + b * v + c) / w - 0.5));
      const py = Math.min(picture.height - 1.001, Math.max(0, (d * u + e * v + f) / w - 0.5));
      const x0 = Math.floor(px);
      const y0 = Math.floor(py);
      const at = (y0 * picture.width + x0) * 3;
      const below = at + picture.width * 3;
      const [fx, fy] = [px - x0, py - y0];
      for (let k = 0; k < 3; k++)
        out[(y * width + x) * 3 + k] =
          (itemAt(picture.data, at + k) * (1 - fx) + itemAt(picture.data, at + 3 + k) * fx) * (1 - fy) +
          (itemAt(picture.data, below + k) * (1 - fx) + itemAt(picture.data, below + 3 + k) * fx) * fy;
    }
  return { width, height, data: out };
}

type Projection = [number, number, number, number, number, number, number, number];

/**
 * Returns the mapping from the unit square to a sheet's corners (Heckbert 1989, 2.2.1): x = (a u + b v + c) / (g u +
 * h v + 1), y likewise.
 */
function perspective(corners: Corners, { width, height }: { width: number; height: number }): Projection {
  const [p0, p1, p2, p3] = corners.map((p) => ({ x: p.x * width, y: p.y * height })) as Corners;
  const sx = p0.x - p1.x + p2.x - p3.x;
  const sy = p0.y - p1.y + p2.y - p3.y;
  const dx1 = p1.x - p2.x;
  const dx2 = p3.x - p2.x;
  const dy1 = p1.y - p2.y;
  const dy2 = p3.y - p2.y;
  const det = dx1 * dy2 - dx2 * dy1;
  const g = det ? (sx * dy2 - dx2 * sy) / det : 0;
  const h = det ? (dx1 * sy - sx * dy1) / det : 0;
  return [
    p1.x - p0.x + g * p1.x,
    p3.x - p0.x + h * p3.x,
    p0.x,
    p1.y - p0.y + g * p1.y,
    p3.y - p0.y + h * p3.y,
    p0.y,
    g,
    h,
  ];
}

/** Returns corners as text: eight shares, "x,y" for each corner in turn. */
export const cornersAsText = (corners: Corners): string =>
  corners.flatMap(({ x, y }) => [x, y].map((n) => String(Math.round(n * 10_000) / 10_000))).join(',');

/** Returns corners read from text; null if they cannot be a sheet's. */
export function cornersOfText(text: string): Corners | null {
  const parts = text.split(',');
  if (parts.length !== 8 || !parts.every((n) => /^-?\d(?:\.\d{1,6})?$/.test(n))) return null;
  const n = parts.map(Number);
  if (!n.every((v) => v >= -0.2 && v <= 1.2)) return null;
  const at = (i: number): Corner => ({ x: itemAt(n, 2 * i), y: itemAt(n, 2 * i + 1) });
  const corners: Corners = [at(0), at(1), at(2), at(3)];
  return isSheet(corners) ? corners : null;
}
