/** Straight lines and boxes of a path, in points as displayed. */
import type { Rect } from '@gatepath/core/paper';
import { itemAt, lastOf } from '@gatepath/core/sure';

/** A PDF matrix [a b c d e f]: x' = a x + c y + e, y' = b x + d y + f. */
export type M = [number, number, number, number, number, number];

/** Returns the matrix that applies `n` first and `m` then. */
export const times = (m: M, n: M): M => [
  m[0] * n[0] + m[2] * n[1],
  m[1] * n[0] + m[3] * n[1],
  m[0] * n[2] + m[2] * n[3],
  m[1] * n[2] + m[3] * n[3],
  m[0] * n[4] + m[2] * n[5] + m[4],
  m[1] * n[4] + m[3] * n[5] + m[5],
];
/** Returns a point transformed by a matrix. */
export const point = (m: M, x: number, y: number) => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]] as const;

/** Returns whether a color is a light tint, as form fields have; neither white nor dark with white text. */
export function isTint(color: string): boolean {
  const n = parseInt(color.slice(1), 16);
  const light = (0.3 * (n >> 16) + 0.59 * ((n >> 8) & 255) + 0.11 * (n & 255)) / 255;
  return light > 0.8 && light < 0.99;
}

/** Returns whether a box is small and square like a box to tick. */
export const squarish = (b: Rect) => b.w < 20 && b.h < 20 && b.w / b.h < 1.4 && b.h / b.w < 1.4;

/** Returns whether two boxes are the outer and inner edge of one frame. */
export function nested(a: Rect, b: Rect): boolean {
  const [o, i] = a.w * a.h > b.w * b.h ? [a, b] : [b, a];
  return (
    i.x >= o.x - 0.1 &&
    i.y >= o.y - 0.1 &&
    i.x + i.w <= o.x + o.w + 0.1 &&
    i.y + i.h <= o.y + o.h + 0.1 &&
    o.w - i.w < 8 &&
    o.h - i.h < 8 &&
    i.w > 3 &&
    i.h > 3
  );
}

/** A connected part of a drawn path. */
export interface Subpath {
  edges: [number, number, number, number][];
  box: Rect;
  closed: boolean;
  curved: boolean;
  sides: number;
  /** Number of horizontal edges; `upright`: vertical ones. */
  level: number;
}

/** Returns the parts of a path as pdf.js packs it (0 move, 1 line, 2 cubic, 3 quadratic, 4 close). */
export function subpaths(data: ArrayLike<number>, m: M): Subpath[] {
  const out: Subpath[] = [];
  let points: (readonly [number, number])[] = [];
  let edges: Subpath['edges'] = [];
  let curved = false;
  let closed = false;
  const end = () => {
    if (points.length > 1) {
      const first = itemAt(points, 0);
      const last = lastOf(points);
      const meets = Math.hypot(first[0] - last[0], first[1] - last[1]) < 0.6;
      if (closed && !meets) edges.push([last[0], last[1], first[0], first[1]]);
      out.push({
        edges,
        box: bounds(points),
        closed: closed || meets,
        curved,
        sides: edges.length,
        level: edges.filter((e) => Math.abs(e[0] - e[2]) < 0.5 || Math.abs(e[1] - e[3]) < 0.5).length,
      });
    }
    points = [];
    edges = [];
    curved = false;
    closed = false;
  };
  let i = 0;
  const at = () => points[points.length - 1];
  while (i < data.length) {
    const op = data[i++];
    if (op === 0) {
      end();
      points.push(point(m, itemAt(data, i), itemAt(data, i + 1)));
      i += 2;
    } else if (op === 1) {
      const p = point(m, itemAt(data, i), itemAt(data, i + 1));
      const from = at();
      if (from) edges.push([from[0], from[1], p[0], p[1]]);
      points.push(p);
      i += 2;
    } else if (op === 2 || op === 3) {
      const n = op === 2 ? 6 : 4;
      curved = true;
      points.push(point(m, itemAt(data, i + n - 2), itemAt(data, i + n - 1)));
      i += n;
    } else {
      closed = true;
      // What follows without a move begins where this part began.
      const first = points[0];
      end();
      if (first) points.push(first);
    }
  }
  end();
  return out;
}

/** Returns the box around points. */
export function bounds(points: readonly (readonly [number, number])[]): Rect {
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (const [x, y] of points) {
    if (x < x0) x0 = x;
    if (x > x1) x1 = x;
    if (y < y0) y0 = y;
    if (y > y1) y1 = y;
  }
  return { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
}
