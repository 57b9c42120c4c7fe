/** Finding free space: the spot nearest to a requested one that carries no ink and no mark. */
import { grow, roundRect } from './geometry';
import { countInk, inkRect, sumInk, type InkSums } from './ink';
import type { InkGrid, PageFacts, Rect } from './types';

/** A page being filled: its ink, and what was placed on it since. */
export class FreeSpace {
  private readonly ink: InkGrid;
  /** Null until the first search, and after that kept up to date: many pages have no room to search for. */
  private known: InkSums | null = null;

  /** @param obstacles  marks and other boxes to keep clear of, in points */
  constructor(
    private readonly page: Pick<PageFacts, 'width' | 'height' | 'ink'>,
    obstacles: Rect[] = [],
  ) {
    this.ink = { ...page.ink, bits: new Uint8Array(page.ink.bits) };
    for (const o of obstacles) inkRect(this.ink, grow(o, 1));
  }

  private get sums(): InkSums {
    return (this.known ??= sumInk(this.ink));
  }

  /** Marks a rectangle as taken. */
  take(rect: Rect): void {
    const clear = grow(rect, 1);
    inkRect(this.ink, clear);
    if (this.known) sumInk(this.ink, this.known, Math.max(0, Math.floor(clear.y / this.ink.cell)));
  }

  /**
   * Returns the free spot for a box that is nearest to a requested one.
   *
   * @param size   width and height in points
   * @param wish   the requested top left corner
   * @param reach  maximum distance from it, in points
   * @param edge   distance to the sheet's edge, in points
   * @param weight how much a point up or down counts compared with one to the side
   * @returns the box, or null if nothing is free within reach
   */
  nearest(
    size: { w: number; h: number },
    wish: { x: number; y: number },
    reach: number,
    edge = 18,
    weight = 1,
  ): Rect | null {
    const { cell, cols, rows } = this.ink;
    const clear = 1.5;
    const cw = Math.ceil((size.w + 2 * clear) / cell);
    const ch = Math.ceil((size.h + 2 * clear) / cell);
    const c0 = Math.max(Math.ceil(edge / cell), Math.floor((wish.x - reach) / cell));
    const c1 = Math.min(
      Math.floor((this.page.width - edge) / cell) - cw,
      cols - cw,
      Math.ceil((wish.x + reach) / cell),
    );
    const r0 = Math.max(Math.ceil(edge / cell), Math.floor((wish.y - reach) / cell));
    const r1 = Math.min(
      Math.floor((this.page.height - edge) / cell) - ch,
      rows - ch,
      Math.ceil((wish.y + reach) / cell),
    );
    const { sums } = this;
    let best: Rect | null = null;
    let nearest = reach;
    for (let r = r0; r <= r1; r++) {
      const y = r * cell + clear;
      const dy = (y - wish.y) * weight;
      if (Math.abs(dy) >= nearest) continue;
      for (let c = c0; c <= c1; c++) {
        const x = c * cell + clear;
        const dx = x - wish.x;
        const d = Math.sqrt(dx * dx + dy * dy);
        if (d >= nearest || countInk(sums, c, r, cw, ch) > 0) continue;
        nearest = d;
        best = { x, y, w: size.w, h: size.h };
      }
    }
    return best && roundRect(best);
  }

  /** Returns whether a rectangle carries no ink. */
  isFree(rect: Rect): boolean {
    const { cell, cols, rows } = this.ink;
    const c0 = Math.max(0, Math.floor(rect.x / cell));
    const r0 = Math.max(0, Math.floor(rect.y / cell));
    const c1 = Math.min(cols, Math.ceil((rect.x + rect.w) / cell));
    const r1 = Math.min(rows, Math.ceil((rect.y + rect.h) / cell));
    return c1 > c0 && r1 > r0 && countInk(this.sums, c0, r0, c1 - c0, r1 - r0) === 0;
  }
}
