import type { Rect } from './types';

/** Returns the area shared by two rectangles, in square points. */
export function overlapArea(a: Rect, b: Rect): number {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return w > 0 && h > 0 ? w * h : 0;
}

/** Returns whether `inner` lies on a page of `width` x `height`, with `slack` points of tolerance. */
export function onPage(inner: Rect, width: number, height: number, slack = 0.01): boolean {
  return (
    inner.x >= -slack && inner.y >= -slack && inner.x + inner.w <= width + slack && inner.y + inner.h <= height + slack
  );
}

/** Returns the rectangle grown by `by` points on every side, or shrunk if `by` is negative. */
export function grow(r: Rect, by: number): Rect {
  return { x: r.x - by, y: r.y - by, w: r.w + 2 * by, h: r.h + 2 * by };
}

/** Returns the rectangle moved so that it lies on the page; it is made smaller if it must be. */
export function clampToPage(r: Rect, width: number, height: number): Rect {
  const w = Math.min(r.w, width);
  const h = Math.min(r.h, height);
  return {
    w,
    h,
    x: Math.min(Math.max(0, r.x), width - w),
    y: Math.min(Math.max(0, r.y), height - h),
  };
}

/** Returns the smallest rectangle around two. */
export function around(a: Rect, b: Rect): Rect {
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return { x, y, w: Math.max(a.x + a.w, b.x + b.w) - x, h: Math.max(a.y + a.h, b.y + b.h) - y };
}

/** Returns the rectangle rounded to a tenth of a point: finer than any printer, and stable as text. */
export function roundRect(r: Rect): Rect {
  const t = (n: number) => Math.round(n * 10) / 10;
  return { x: t(r.x), y: t(r.y), w: t(r.w), h: t(r.h) };
}

/** Returns whether a place covers printed words of its page. An overlap of half a point is ignored. */
export function coversPrint(page: { print: readonly Rect[] }, rect: Rect): boolean {
  const inner = grow(rect, -0.5);
  return page.print.some((p) => overlapArea(inner, p) > 0.5);
}
