/** How a page lies in its picture: its orientation, and its tilt. */
import { itemAt } from '../sure';
import type { Mask } from './types';

/** Maximum tilt in degrees that is corrected. */
const MOST_ASKEW = 6;
/** Number of dots examined; more would tell no more. */
const ENOUGH = 60_000;

/** Minimum number of dots needed. */
const FEWEST = 400;

/** How much sharper rows of print are at their own angle than at others. */
const SHARP = 1.3;

/** How a scanned page is turned and tilted. */
export interface Lie {
  /** Whether its lines run from the top down: it is to be turned by 90 degrees. */
  aside: boolean;
  /** Degrees by which it is then still to be turned, clockwise, to lie straight. */
  straighten: number;
}

/**
 * Returns how a page lies, by its lines of print. Which end is up only its words tell. A page without print lies as
 * it is.
 */
export function lieOf(mask: Mask): Lie {
  const points = pointsOf(mask);
  if (points.length < 2 * FEWEST) return { aside: false, straighten: 0 };
  const across = bestAngle(points, mask.height);
  const down = bestAngle(aside(points, mask.height), mask.width);
  // Lines of print run across unless they clearly do not.
  const lying = down.score > across.score * 1.15;
  const best = lying ? down : across;
  // Noise and photographs are as sharp at any angle.
  if (best.score < SHARP * best.usual) return { aside: false, straighten: 0 };
  return { aside: lying, straighten: -best.angle };
}

type Points = Float32Array;

/** Returns the inked dots as x and y in turn. */
function pointsOf({ width, height, data }: Mask): Points {
  let n = 0;
  for (const v of data) n += v;
  const every = Math.max(1, Math.floor(n / ENOUGH));
  const out: number[] = [];
  // The rim of a scan shows the edge of the paper and the shadow of the lid.
  const rim = Math.round(0.025 * Math.max(width, height));
  let k = 0;
  for (let y = rim; y < height - rim; y++)
    for (let x = rim; x < width - rim; x++) if (data[y * width + x] && k++ % every === 0) out.push(x, y);
  return Float32Array.from(out);
}

/** Returns the picture turned clockwise by 90 degrees. */
function aside(points: Points, height: number): Points {
  const out = new Float32Array(points.length);
  for (let i = 0; i < points.length; i += 2) {
    out[i] = height - itemAt(points, i + 1);
    out[i + 1] = itemAt(points, i);
  }
  return out;
}

/** Returns the ink per row if the page were turned back by an angle. */
function profile(points: Points, height: number, angle: number): Float64Array {
  const slope = Math.tan((angle * Math.PI) / 180);
  const rows = new Float64Array(height * 2);
  const off = height / 2;
  for (let i = 0; i < points.length; i += 2) {
    const r = Math.round(itemAt(points, i + 1) - itemAt(points, i) * slope + off);
    if (r >= 0 && r < rows.length) rows[r]!++;
  }
  return rows;
}

/** Returns the angle at which rows of print and the space between them differ most. */
function bestAngle(points: Points, height: number): { angle: number; score: number; usual: number } {
  const score = (angle: number) => {
    const rows = profile(points, height, angle);
    let sum = 0;
    for (let i = 1; i < rows.length; i++) sum += (itemAt(rows, i) - itemAt(rows, i - 1)) ** 2;
    return sum;
  };
  let best = { angle: 0, score: score(0) };
  const scores: number[] = [];
  const tries = (from: number, to: number, step: number) => {
    for (let a = from; a <= to + step / 2; a += step) {
      const s = score(a);
      scores.push(s);
      if (s > best.score) best = { angle: a, score: s };
    }
  };
  tries(-MOST_ASKEW, MOST_ASKEW, 0.25);
  const usual = itemAt(
    [...scores].sort((a, b) => a - b),
    scores.length >> 1,
  );
  const near = best.angle;
  tries(near - 0.25, near + 0.25, 0.03);
  return { ...best, usual };
}
