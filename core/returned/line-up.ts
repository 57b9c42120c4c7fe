/** Aligning a returned page with its blank by the words both have. */
import type { Rect } from '../paper/types';
import { matchPages } from '../reading/match';
import { plain } from '../reading/words';
import { itemAt } from '../sure';

/** A word with its position. */
export interface PlacedText {
  text: string;
  rect: Rect;
}

/** Maps points of the blank to points of the returned page. */
export interface Fit {
  /** x' = a x + b y + c, y' = d x + e y + f. */
  matrix: [a: number, b: number, c: number, d: number, e: number, f: number];
  /** Number of words it is based on; 0 if the pages are merely overlaid. */
  words: number;
}

/** How far, in points, a word may be from where the others put it, in successive passes. */
const NEAR = [40, 12, 4, 2.5];
/** Minimum number of matching words needed to align a page. */
const FEWEST = 5;

/** Matches pages of the blank with returned pages. Where words do not decide, the same page number is taken. */
export function matchSheets(blank: PlacedText[][], back: PlacedText[][]): (number | null)[] {
  const text = (pages: PlacedText[][]) => pages.map((p) => p.map((w) => w.text).join(' '));
  const found = matchPages(text(blank), text(back));
  const taken = new Set(found);
  return found.map((j, i) => j ?? (i < back.length && !taken.has(i) ? i : null));
}

/** Aligns a page with its blank. */
export function lineUp(
  blank: { width: number; height: number; words: PlacedText[] },
  back: { width: number; height: number; words: PlacedText[] },
): Fit {
  const laid: Fit = { matrix: [back.width / blank.width, 0, 0, 0, back.height / blank.height, 0], words: 0 };
  let pairs = pairsOf(blank.words, back.words, laid);
  let fit = laid;
  for (const near of NEAR) {
    const close = pairs.filter((p) => off(fit, p) <= near);
    if (close.length < FEWEST) return fit;
    // The first time only moved: a few wrong pairs would turn the page.
    fit = near === NEAR[0] ? moved(laid, close) : (solved(close) ?? fit);
    pairs = close;
  }
  return { ...fit, words: pairs.length };
}

/** Returns a rectangle of the blank on the returned page. */
export function rectOn({ matrix: [a, b, c, d, e, f] }: Fit, { x, y, w, h }: Rect): Rect {
  const cx = x + w / 2;
  const cy = y + h / 2;
  const [sw, sh] = [w * Math.hypot(a, d), h * Math.hypot(b, e)];
  return { x: a * cx + b * cy + c - sw / 2, y: d * cx + e * cy + f - sh / 2, w: sw, h: sh };
}

interface Pair {
  x: number;
  y: number;
  u: number;
  v: number;
}

const off = ({ matrix: [a, b, c, d, e, f] }: Fit, { x, y, u, v }: Pair) =>
  Math.hypot(a * x + b * y + c - u, d * x + e * y + f - v);

/** Returns pairs of words that occur once on both pages, and of the others the nearest to where they would be. */
function pairsOf(blank: PlacedText[], back: PlacedText[], laid: Fit): Pair[] {
  const byText = new Map<string, PlacedText[]>();
  for (const w of back) {
    const t = bare(w.text);
    if (t) byText.set(t, [...(byText.get(t) ?? []), w]);
  }
  const out: Pair[] = [];
  for (const w of blank) {
    const there = byText.get(bare(w.text));
    if (!there || bare(w.text).length < 3) continue;
    const from = { x: w.rect.x, y: w.rect.y + w.rect.h / 2 };
    const best = there
      .map((o) => ({ ...from, u: o.rect.x, v: o.rect.y + o.rect.h / 2 }))
      .sort((p, q) => off(laid, p) - off(laid, q))[0];
    if (best) out.push(best);
  }
  return out;
}

const bare = (text: string) => plain(text).replace(/[^\p{L}\p{N}]+/gu, '');

function moved({ matrix: [a, , , , e] }: Fit, pairs: Pair[]): Fit {
  const median = (list: number[]) => {
    const sorted = list.sort((p, q) => p - q);
    return itemAt(sorted, sorted.length >> 1);
  };
  return {
    matrix: [a, 0, median(pairs.map((p) => p.u - a * p.x)), 0, e, median(pairs.map((p) => p.v - e * p.y))],
    words: pairs.length,
  };
}

/** Returns the best affine map (least squares); null if the words are on one line. */
function solved(pairs: Pair[]): Fit | null {
  const n = pairs.length;
  const mean = (of: (p: Pair) => number) => pairs.reduce((s, p) => s + of(p), 0) / n;
  const [mx, my, mu, mv] = [mean((p) => p.x), mean((p) => p.y), mean((p) => p.u), mean((p) => p.v)];
  let [xx, xy, yy, xu, yu, xv, yv] = [0, 0, 0, 0, 0, 0, 0];
  for (const p of pairs) {
    const [x, y, u, v] = [p.x - mx, p.y - my, p.u - mu, p.v - mv];
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xu += x * u;
    yu += y * u;
    xv += x * v;
    yv += y * v;
  }
  const det = xx * yy - xy * xy;
  // Words all over the page turn and stretch it surely; those of one line would only guess.
  if (det < 1e-9 || xx / n < 900 || yy / n < 900) return null;
  const a = (xu * yy - yu * xy) / det;
  const b = (yu * xx - xu * xy) / det;
  const d = (xv * yy - yv * xy) / det;
  const e = (yv * xx - xv * xy) / det;
  return { matrix: [a, b, mu - a * mx - b * my, d, e, mv - d * mx - e * my], words: n };
}
