/** Ink grids: which cells of a page carry ink, and constant-time counts within rectangles. */
import type { InkGrid, Rect } from './types';
import { itemAt } from '../sure';

/** Returns an empty grid for a page of `width` x `height` points. */
export function emptyGrid(width: number, height: number, cell = 3): InkGrid {
  const cols = Math.max(1, Math.ceil(width / cell));
  const rows = Math.max(1, Math.ceil(height / cell));
  return { cell, cols, rows, bits: new Uint8Array(Math.ceil((cols * rows) / 8)) };
}

/** Marks the cell in column `c`, row `r` as inked. */
export function setInk(g: InkGrid, c: number, r: number): void {
  const i = r * g.cols + c;
  g.bits[i >> 3]! |= 1 << (i & 7);
}

/** Returns whether the cell in column `c`, row `r` is inked. */
export const hasInk = (g: InkGrid, c: number, r: number): boolean => isInked(g, r * g.cols + c);

/** Returns whether a cell is inked. `i` is its index in the grid, row by row from 0. */
const isInked = (g: InkGrid, i: number): boolean => (itemAt(g.bits, i >> 3) & (1 << (i & 7))) !== 0;

/**
 * Calls `visit` with the index of every inked cell, row by row. Skips eight blank cells at a time, because most of a
 * page is blank.
 */
export function eachInked(g: InkGrid, visit: (i: number) => void): void {
  for (const [byte, eight] of g.bits.entries())
    if (eight) for (let bit = 0; bit < 8; bit++) if ((eight >> bit) & 1) visit(byte * 8 + bit);
}

/** Marks every cell that a rectangle (in points) touches. */
export function inkRect(g: InkGrid, rect: Rect): void {
  const c0 = Math.max(0, Math.floor(rect.x / g.cell));
  const r0 = Math.max(0, Math.floor(rect.y / g.cell));
  const c1 = Math.min(g.cols - 1, Math.ceil((rect.x + rect.w) / g.cell) - 1);
  const r1 = Math.min(g.rows - 1, Math.ceil((rect.y + rect.h) / g.cell) - 1);
  for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) setInk(g, c, r);
}

/** Returns the cells that are inked in any of the grids, which have the same shape; there is at least one grid. */
export function unionInk(grids: InkGrid[]): InkGrid {
  const bits = new Uint8Array(itemAt(grids, 0).bits);
  for (const { bits: more } of grids.slice(1)) for (let i = 0; i < bits.length; i++) bits[i]! |= more[i]!;
  return { ...itemAt(grids, 0), bits };
}

/**
 * A summed-area table over a grid (Crow 1984): the number of inked cells in any block in four look-ups. Shape (rows +
 * 1) x (cols + 1), row by row.
 */
export interface InkSums {
  cols: number;
  rows: number;
  sums: Int32Array;
}

/**
 * Builds the summed-area table of a grid.
 *
 * @param from  the first row that changed since `known` was built; rows above are copied from it
 */
export function sumInk(g: InkGrid, known?: InkSums, from = 0): InkSums {
  const { bits, cols, rows } = g;
  const stride = cols + 1;
  const sums = known?.sums ?? new Int32Array(stride * (rows + 1));
  let i = from * cols;
  for (let r = from; r < rows; r++) {
    let above = r * stride + 1;
    let at = above + stride;
    let run = 0;
    for (const end = i + cols; i < end; i++) {
      run += (bits[i >> 3]! >> (i & 7)) & 1;
      sums[at++] = sums[above++]! + run;
    }
  }
  return { cols, rows, sums };
}

/** Returns the number of inked cells in the block of `w` x `h` cells whose top left cell is column `c`, row `r`. */
export function countInk(s: InkSums, c: number, r: number, w: number, h: number): number {
  const stride = s.cols + 1;
  const top = r * stride;
  const bottom = (r + h) * stride;
  const { sums } = s;
  return sums[bottom + c + w]! - sums[top + c + w]! - sums[bottom + c]! + sums[top + c]!;
}

/**
 * Returns a grid as text: run lengths of blank and inked cells in turn, starting with blank, in base 36, joined by
 * commas. A letter page takes two to four kilobytes.
 */
export function packGrid(g: InkGrid): string {
  const runs: string[] = [];
  let inked = false;
  let run = 0;
  const total = g.cols * g.rows;
  for (let i = 0; i < total; i++) {
    const bit = isInked(g, i);
    if (bit === inked) run++;
    else {
      runs.push(run.toString(36));
      inked = bit;
      run = 1;
    }
  }
  runs.push(run.toString(36));
  return runs.join(',');
}

/** Reads what `packGrid` wrote. @throws Error if the runs do not fill the grid exactly */
export function unpackGrid(packed: string, cols: number, rows: number, cell: number): InkGrid {
  const total = cols * rows;
  const bits = new Uint8Array(Math.ceil(total / 8));
  let at = 0;
  let inked = false;
  for (const part of packed.split(',')) {
    const run = parseInt(part, 36);
    if (inked) for (let i = at; i < at + run; i++) bits[i >> 3]! |= 1 << (i & 7);
    at += run;
    inked = !inked;
  }
  if (at !== total) throw new Error(`ink grid has ${at} cells where ${total} were promised`);
  return { cell, cols, rows, bits };
}
