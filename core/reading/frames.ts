/** From drawn lines to cells, boxes and lines that stand alone. */
import type { Rect } from '../paper/types';
import type { AcrossLine, DownLine, PageContent } from './types';
import { itemAt } from '../sure';

/** Cells and lines of a page. */
export interface Frames {
  /** The smallest closed rectangles between lines. */
  cells: Rect[];
  /** Horizontal lines that are not a border of a cell. */
  alone: AcrossLine[];
  /** All horizontal lines, joined where they touch. */
  across: AcrossLine[];
}

const TOUCH = 2;

/** Returns horizontal lines at one height that touch or overlap as one. */
export function joinAcross(lines: AcrossLine[], touch = 1): AcrossLine[] {
  const sorted = [...lines].sort((a, b) => a.y - b.y || a.x0 - b.x0);
  const out: AcrossLine[] = [];
  // Lines are sorted by height: those far above cannot touch any more.
  let from = 0;
  for (const l of sorted) {
    while (from < out.length && l.y - itemAt(out, from).y >= 1.1) from++;
    let same: AcrossLine | undefined;
    for (let i = from; i < out.length && !same; i++) {
      const o = itemAt(out, i);
      if (Math.abs(o.y - l.y) < 1.1 && l.x0 <= o.x1 + touch && l.x1 >= o.x0 - touch) same = o;
    }
    if (same) {
      same.x0 = Math.min(same.x0, l.x0);
      same.x1 = Math.max(same.x1, l.x1);
    } else out.push({ ...l });
  }
  return out;
}

function joinDown(lines: DownLine[]): DownLine[] {
  return joinAcross(
    lines.map((d) => ({ x0: d.y0, x1: d.y1, y: d.x })),
    TOUCH,
  ).map((l) => ({ y0: l.x0, y1: l.x1, x: l.y }));
}

/** Maximum number of lines of a page whose cells are looked for; drawings and maps have more. */
const MANY = 900;

/** The frames of pages that were asked for already. */
const kept = new WeakMap<PageContent, Frames>();

/** Returns the cells of a page, and the lines that stand alone. */
export function framesOf(content: PageContent): Frames {
  const known = kept.get(content);
  if (known) return known;
  const found = findFrames(content);
  kept.set(content, found);
  return found;
}

function findFrames(content: PageContent): Frames {
  const across = joinAcross([
    ...content.across,
    ...content.frames.flatMap((f) => [
      { x0: f.x, x1: f.x + f.w, y: f.y },
      { x0: f.x, x1: f.x + f.w, y: f.y + f.h },
    ]),
  ]);
  const down = joinDown([
    ...content.down,
    ...content.frames.flatMap((f) => [
      { y0: f.y, y1: f.y + f.h, x: f.x },
      { y0: f.y, y1: f.y + f.h, x: f.x + f.w },
    ]),
  ]);
  const cells = across.length + down.length > MANY ? [] : cellsOf(across, down);
  for (const f of content.frames) if (!cells.some((c) => same(c, f))) cells.push(f);
  for (const s of content.shades) if (!cells.some((c) => overlaps(c, s))) cells.push(s);
  const alone = content.across.length
    ? joinAcross(content.across, 0.6).filter((l) => !bordersCell(l, cells) && !crossed(l, down))
    : [];
  return { cells, alone, across };
}

function same(a: Rect, b: Rect): boolean {
  return Math.abs(a.x - b.x) < 3 && Math.abs(a.y - b.y) < 3 && Math.abs(a.w - b.w) < 4 && Math.abs(a.h - b.h) < 4;
}

function overlaps(a: Rect, b: Rect): boolean {
  return a.x < b.x + b.w - 2 && b.x < a.x + a.w - 2 && a.y < b.y + b.h - 2 && b.y < a.y + a.h - 2;
}

/** Returns the smallest rectangles with all four sides drawn. */
function cellsOf(across: AcrossLine[], down: DownLine[]): Rect[] {
  const out: Rect[] = [];
  const cols = [...down].sort((a, b) => a.x - b.x);
  const rows = [...across].sort((a, b) => a.y - b.y);
  for (const [i, top] of rows.entries()) {
    const touching = cols.filter(
      (d) => d.x >= top.x0 - TOUCH && d.x <= top.x1 + TOUCH && d.y0 <= top.y + TOUCH && d.y1 > top.y + TOUCH,
    );
    for (let k = 0; k + 1 < touching.length; k++) {
      const left = itemAt(touching, k);
      const right = touching.slice(k + 1).find((d) => d.x - left.x > 3);
      if (!right) continue;
      const bottom = rows
        .slice(i + 1)
        .find(
          (b) =>
            b.y - top.y > 3 &&
            b.x0 <= left.x + TOUCH &&
            b.x1 >= right.x - TOUCH &&
            left.y1 >= b.y - TOUCH &&
            right.y1 >= b.y - TOUCH,
        );
      if (bottom) out.push({ x: left.x, y: top.y, w: right.x - left.x, h: bottom.y - top.y });
    }
  }
  return out;
}

function bordersCell(l: AcrossLine, cells: Rect[]): boolean {
  return cells.some(
    (c) =>
      (Math.abs(l.y - c.y) < 1.6 || Math.abs(l.y - c.y - c.h) < 1.6) &&
      Math.min(l.x1, c.x + c.w) - Math.max(l.x0, c.x) > 0.5 * Math.min(l.x1 - l.x0, c.w),
  );
}

/** Returns whether vertical lines cross a line or hang from it: it belongs to a drawing or an open table. */
function crossed(l: AcrossLine, down: DownLine[]): boolean {
  return down.filter((d) => d.x > l.x0 - 1 && d.x < l.x1 + 1 && d.y0 < l.y + 1 && d.y1 > l.y - 1).length >= 2;
}
