/**
 * Placing initials by rule: the nearest free space to a requested place, clear of print and other marks, side by side
 * for several parties, and at the same place on every page where possible.
 */
import { emptyGrid, inkRect, sumInk, unionInk, countInk, type InkSums } from './ink';
import { grow, roundRect } from './geometry';
import type { InkGrid, PageFacts, Rect } from './types';
import { itemAt } from '../sure';

/** Width and height of one set of initials, in points, from comfortable to just readable. */
export const INITIALS_SIZES = [
  { w: 54, h: 22 },
  { w: 44, h: 18 },
  { w: 36, h: 15 },
] as const;

/** Points between the marks of neighbors. */
const GAP = 6;
/** Points around a block of marks that stay free. */
const CLEARANCE = 3;
/** Width in points of the edge of a sheet that a printer may not reach. */
export const PAGE_EDGE = 24;
/** Maximum distance in points of a shared place from the requested one; beyond it, places are chosen page by page. */
const SHARED_REACH = 220;

interface Layout {
  w: number;
  h: number;
  size: { w: number; h: number };
  perRow: number;
}

interface Cellar {
  page: number;
  facts: PageFacts;
  ink: InkGrid;
  /** Built when first needed: pages that share a place need only those of all of them together. */
  sums(): InkSums;
}

function cellar(page: number, facts: PageFacts, ink: InkGrid): Cellar {
  let sums: InkSums | null = null;
  return { page, facts, ink, sums: () => (sums ??= sumInk(ink)) };
}

/** Returns ways to lay out `n` marks as one block: one row, then more rows, then smaller marks. */
function layouts(n: number): Layout[] {
  const out: Layout[] = [];
  for (const size of INITIALS_SIZES) {
    const seen = new Set<number>();
    for (let rows = 1; rows <= n; rows++) {
      const perRow = Math.ceil(n / rows);
      if (seen.has(perRow)) continue;
      seen.add(perRow);
      const used = Math.ceil(n / perRow);
      out.push({
        size,
        perRow,
        w: perRow * size.w + (perRow - 1) * GAP,
        h: used * size.h + (used - 1) * GAP,
      });
    }
  }
  return out;
}

/**
 * Visits every position of a block on a page of this size, row by row, with its distance in points from the requested
 * place. Rows out of reach are skipped.
 *
 * @param visit  returns how far the search still reaches
 */
function eachPlace(
  page: { width: number; height: number },
  ink: { cell: number; cols: number; rows: number },
  layout: Layout,
  anchor: { fx: number; fy: number },
  reach: number,
  visit: (c: number, r: number, d: number) => number,
): void {
  const { cell } = ink;
  const wishX = PAGE_EDGE + anchor.fx * Math.max(0, page.width - 2 * PAGE_EDGE - layout.w);
  const wishY = PAGE_EDGE + anchor.fy * Math.max(0, page.height - 2 * PAGE_EDGE - layout.h);
  const { cw, ch } = blockCells(layout, cell);
  const first = Math.ceil((PAGE_EDGE - CLEARANCE) / cell);
  const lastRow = Math.min(ink.rows - ch, Math.floor((page.height - PAGE_EDGE + cell - layout.h - CLEARANCE) / cell));
  const lastCol = Math.min(ink.cols - cw, Math.floor((page.width - PAGE_EDGE + cell - layout.w - CLEARANCE) / cell));
  let within = reach;
  for (let r = first; r <= lastRow; r++) {
    const dy = blockTop(r, cell) - wishY;
    if (Math.abs(dy) > within) continue;
    for (let c = first; c <= lastCol; c++) {
      const dx = blockTop(c, cell) - wishX;
      within = visit(c, r, Math.sqrt(dx * dx + dy * dy));
    }
  }
}

/** Returns the cells a block needs, with the space around it. */
function blockCells(layout: Layout, cell: number): { cw: number; ch: number } {
  return {
    cw: Math.ceil((layout.w + 2 * CLEARANCE) / cell),
    ch: Math.ceil((layout.h + 2 * CLEARANCE) / cell),
  };
}

function blockTop(index: number, cell: number): number {
  return index * cell + CLEARANCE;
}

function splitBlock(x: number, y: number, layout: Layout, n: number): Rect[] {
  return Array.from({ length: n }, (_, i) =>
    roundRect({
      x: x + (i % layout.perRow) * (layout.size.w + GAP),
      y: y + Math.floor(i / layout.perRow) * (layout.size.h + GAP),
      w: layout.size.w,
      h: layout.size.h,
    }),
  );
}

/** Returns the nearest free position of a block on a page, or null. */
function nearestPlace(
  p: Cellar,
  layout: Layout,
  anchor: { fx: number; fy: number },
  reach: number,
): { x: number; y: number } | null {
  const sums = p.sums();
  const { cw, ch } = blockCells(layout, p.ink.cell);
  const best: { at: { c: number; r: number } | null } = { at: null };
  let nearest = reach;
  eachPlace(p.facts, p.ink, layout, anchor, reach, (c, r, d) => {
    if (d < nearest && countInk(sums, c, r, cw, ch) === 0) {
      nearest = d;
      best.at = { c, r };
    }
    return nearest;
  });
  const { at } = best;
  return at && { x: blockTop(at.c, p.ink.cell), y: blockTop(at.r, p.ink.cell) };
}

/** Returns the position within reach that is free on most of the `pages`, with those pages. */
function commonestPlace(
  pages: Cellar[],
  layout: Layout,
  anchor: { fx: number; fy: number },
): { x: number; y: number; served: Cellar[] } | null {
  const first = itemAt(pages, 0);
  const { cw, ch } = blockCells(layout, first.ink.cell);
  const best: { at: { c: number; r: number } | null } = { at: null };
  let bestScore = -Infinity;
  eachPlace(first.facts, first.ink, layout, anchor, SHARED_REACH, (c, r, d) => {
    // Every second cell is enough to find the place; a step of six points is not seen.
    if (d > SHARED_REACH || (c + r) % 2) return SHARED_REACH;
    const far = d / (4 * SHARED_REACH);
    if (1 - far <= bestScore) return SHARED_REACH;
    let n = 0;
    for (const p of pages) if (countInk(p.sums(), c, r, cw, ch) === 0) n++;
    const score = n / pages.length - far;
    if (n > 0 && score > bestScore) {
      bestScore = score;
      best.at = { c, r };
    }
    return SHARED_REACH;
  });
  const { at } = best;
  if (!at) return null;
  return {
    x: blockTop(at.c, first.ink.cell),
    y: blockTop(at.r, first.ink.cell),
    served: pages.filter((p) => countInk(p.sums(), at.c, at.r, cw, ch) === 0),
  };
}

/** A page to place on: its number, its facts, and what must stay clear besides its print. */
export interface PlacingPage {
  page: number;
  facts: PageFacts;
  obstacles: Rect[];
}

/**
 * Places `n` marks side by side on each page.
 *
 * @param pages   the pages, of any sizes; each gets one block at most
 * @param n       number of marks per page, in order: left to right, then down
 * @param anchor  the requested place as fractions of the free page, 0,0 top left
 * @returns for each page number its `n` rectangles in points, or null if the page has no free space even for the
 * smallest marks
 */
export function placeInitials(
  pages: PlacingPage[],
  n: number,
  anchor: { fx: number; fy: number },
): Map<number, Rect[] | null> {
  const out = new Map<number, Rect[] | null>();
  if (n === 0) return out;
  const groups = new Map<string, Cellar[]>();
  for (const p of pages) {
    const ink = { ...p.facts.ink, bits: new Uint8Array(p.facts.ink.bits) };
    for (const o of p.obstacles) inkRect(ink, grow(o, 1));
    const key = `${p.facts.width.toFixed(1)}x${p.facts.height.toFixed(1)}/${ink.cell}`;
    groups.set(key, [...(groups.get(key) ?? []), cellar(p.page, p.facts, ink)]);
  }
  for (const group of groups.values()) placeGroup(group, n, anchor, out);
  return out;
}

function placeGroup(
  group: Cellar[],
  n: number,
  anchor: { fx: number; fy: number },
  out: Map<number, Rect[] | null>,
): void {
  const all = layouts(n);
  const comfortable = all.filter((l) => l.size === INITIALS_SIZES[0]);
  // What is free on all of them.
  const first = itemAt(group, 0);
  const together = group.length === 1 ? first : cellar(first.page, first.facts, unionInk(group.map((p) => p.ink)));
  for (const layout of comfortable) {
    const at = nearestPlace(together, layout, anchor, SHARED_REACH);
    if (at) {
      for (const p of group) out.set(p.page, splitBlock(at.x, at.y, layout, n));
      return;
    }
  }
  let rest = group;
  for (let round = 0; round < 3 && rest.length > 1; round++) {
    const best = commonestPlace(rest, itemAt(comfortable, 0), anchor);
    if (!best || best.served.length < 2) break;
    for (const p of best.served) out.set(p.page, splitBlock(best.x, best.y, itemAt(comfortable, 0), n));
    rest = rest.filter((p) => !best.served.includes(p));
  }
  for (const p of rest) out.set(p.page, placeAlone(p, all, n, anchor));
}

function placeAlone(p: Cellar, all: Layout[], n: number, anchor: { fx: number; fy: number }): Rect[] | null {
  for (const layout of all) {
    const at = nearestPlace(p, layout, anchor, Infinity);
    if (at) return splitBlock(at.x, at.y, layout, n);
  }
  return n > 1 ? placeApart(p, n, anchor) : null;
}

/** Places each mark by itself in the nearest free space, where there is no space for a block. */
function placeApart(p: Cellar, n: number, anchor: { fx: number; fy: number }): Rect[] | null {
  const ink = { ...p.ink, bits: new Uint8Array(p.ink.bits) };
  const rects: Rect[] = [];
  const single = layouts(1);
  for (let i = 0; i < n; i++) {
    const here = cellar(p.page, p.facts, ink);
    let found: Rect | null = null;
    for (const layout of single) {
      const at = nearestPlace(here, layout, anchor, Infinity);
      if (at) {
        found = itemAt(splitBlock(at.x, at.y, layout, 1), 0);
        break;
      }
    }
    if (!found) return null;
    rects.push(found);
    inkRect(ink, grow(found, GAP / 2));
  }
  return rects;
}

/** Returns the facts of a blank page of this size. */
export function blankPage(width: number, height: number): PageFacts {
  return { width, height, ink: emptyGrid(width, height), print: [], words: [] };
}
