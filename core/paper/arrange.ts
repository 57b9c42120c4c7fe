/** Arranging several marks at once: pure geometry, in points. */
import { clampToPage, roundRect } from './geometry';
import type { Rect } from './types';
import { itemAt, lastOf } from '../sure';

/** How several marks are aligned. */
export type Edge = 'left' | 'right' | 'top' | 'bottom' | 'middle' | 'centre';

/**
 * Returns the rectangles aligned at one edge; `middle` aligns them along a horizontal line, `centre` along a vertical
 * one.
 */
export function align(rects: Rect[], edge: Edge): Rect[] {
  if (!rects.length) return [];
  const left = Math.min(...rects.map((r) => r.x));
  const right = Math.max(...rects.map((r) => r.x + r.w));
  const top = Math.min(...rects.map((r) => r.y));
  const bottom = Math.max(...rects.map((r) => r.y + r.h));
  return rects.map((r) => {
    if (edge === 'left') return roundRect({ ...r, x: left });
    if (edge === 'right') return roundRect({ ...r, x: right - r.w });
    if (edge === 'top') return roundRect({ ...r, y: top });
    if (edge === 'bottom') return roundRect({ ...r, y: bottom - r.h });
    if (edge === 'middle') return roundRect({ ...r, y: (top + bottom - r.h) / 2 });
    return roundRect({ ...r, x: (left + right - r.w) / 2 });
  });
}

/** Returns the rectangles spread so that the gaps between neighbors are equal; the outermost two stay. */
export function distribute(rects: Rect[], along: 'across' | 'down'): Rect[] {
  if (rects.length < 3) return rects;
  const at = along === 'across' ? 'x' : 'y';
  const size = along === 'across' ? 'w' : 'h';
  const order = rects.map((r, i) => ({ r, i })).sort((a, b) => a.r[at] + a.r[size] / 2 - b.r[at] - b.r[size] / 2);
  const first = itemAt(order, 0).r;
  const last = lastOf(order).r;
  const inner = order.slice(1, -1);
  const free = last[at] - (first[at] + first[size]) - inner.reduce((n, o) => n + o.r[size], 0);
  const gap = free / (order.length - 1);
  const out = [...rects];
  let next = first[at] + first[size] + gap;
  for (const o of inner) {
    out[o.i] = roundRect({ ...o.r, [at]: next });
    next += o.r[size] + gap;
  }
  return out;
}

/** Returns the rectangles in the size of the first, each at its own top left corner. */
export function sameSize(rects: Rect[]): Rect[] {
  const first = rects[0];
  return first ? rects.map((r) => ({ ...r, w: first.w, h: first.h })) : [];
}

/** Distance in points within which an edge snaps to a line. */
export const SNAP = 4;

/**
 * Returns a rectangle that is being moved, snapped to nearby lines: edges and middles of other marks, and printed
 * blanks, whose rectangle is taken if it is close.
 */
export function snap(
  rect: Rect,
  others: Rect[],
  blanks: Rect[],
  page: { width: number; height: number },
  within = SNAP,
): { rect: Rect; lines: { x?: number; y?: number }[] } {
  const close = blanks.find(
    (b) => Math.abs(b.x - rect.x) < 3 * within && Math.abs(b.y + b.h - rect.y - rect.h) < 2.5 * within,
  );
  if (close)
    return {
      rect: { ...rect, x: close.x, y: close.y + close.h - rect.h },
      lines: [{ x: close.x }, { y: close.y + close.h }],
    };
  const xs = others.flatMap((o) => [o.x, o.x + o.w / 2, o.x + o.w]);
  const ys = others.flatMap((o) => [o.y, o.y + o.h / 2, o.y + o.h]);
  const lines: { x?: number; y?: number }[] = [];
  const pull = (start: number, size: number, targets: number[], axis: 'x' | 'y') => {
    let best = within;
    let moved = start;
    let line: number | null = null;
    for (const t of targets)
      for (const part of [0, size / 2, size]) {
        const d = Math.abs(t - start - part);
        if (d < best) {
          best = d;
          moved = t - part;
          line = t;
        }
      }
    if (line !== null) lines.push({ [axis]: line });
    return moved;
  };
  const x = pull(rect.x, rect.w, xs, 'x');
  const y = pull(rect.y, rect.h, ys, 'y');
  return { rect: clampToPage({ ...rect, x, y }, page.width, page.height), lines };
}

/** Returns a rectangle on a page that is turned clockwise by quarter turns. */
export function turnRect(r: Rect, page: { width: number; height: number }, turn: 0 | 90 | 180 | 270): Rect {
  if (turn === 90) return { x: page.height - r.y - r.h, y: r.x, w: r.h, h: r.w };
  if (turn === 180) return { x: page.width - r.x - r.w, y: page.height - r.y - r.h, w: r.w, h: r.h };
  if (turn === 270) return { x: r.y, y: page.width - r.x - r.w, w: r.h, h: r.w };
  return r;
}
