/** Training boosted trees: histograms of 32 bins, logistic loss, rows and features drawn at random from a seed. */
import type { Boosted, Tree } from '@gatepath/core/reading/trees';
import { randomOf } from '../forms/generator/random';

export interface BoostOptions {
  trees: number;
  depth: number;
  rate: number;
  /** Shares of rows and of features each tree sees. */
  rows: number;
  features: number;
  leastRows: number;
  lambda: number;
  seed: number;
}

export const BOOST: BoostOptions = {
  trees: 60,
  depth: 6,
  rate: 0.15,
  rows: 0.4,
  features: 0.3,
  leastRows: 12,
  lambda: 2,
  seed: 7,
};

/** A tree while it grows. */
interface Growing {
  feature: number[];
  limit: number[];
}

const BINS = 32;

/** Rows of features, by feature, each value replaced by the number of its bin. */
export interface Binned {
  n: number;
  bins: Uint8Array[];
  /** Upper limits of the bins of each feature: a value below `edges[f][b]` is in bin b or lower. */
  edges: number[][];
}

/** Maximum number of rows that are sorted to choose the limits of a feature's bins; all rows are then put into the bins. */
const SAMPLED = 30_000;

/** Returns the limits between the bins of a feature. */
function cutsOf(values: Float64Array): number[] {
  const step = Math.max(1, Math.floor(values.length / SAMPLED));
  const sorted = Float64Array.from({ length: Math.ceil(values.length / step) }, (_, i) => values[i * step]!).sort();
  const cuts: number[] = [];
  const distinct: number[] = [];
  for (const v of sorted) if (distinct[distinct.length - 1] !== v && distinct.length <= 40) distinct.push(v);
  if (distinct.length <= BINS)
    for (let i = 1; i < distinct.length; i++) cuts.push((distinct[i - 1]! + distinct[i]!) / 2);
  else
    for (let b = 1; b < BINS; b++) {
      const v = sorted[Math.floor((b * sorted.length) / BINS)]!;
      if (cuts[cuts.length - 1] !== v && v > sorted[0]!) cuts.push(v);
    }
  return cuts;
}

/** Divides the values of each feature into at most 32 bins of about equal size. */
export function binned(rows: readonly ArrayLike<number>[]): Binned {
  const n = rows.length;
  const width = rows[0]?.length ?? 0;
  const edges: number[][] = [];
  const bins: Uint8Array[] = [];
  const values = new Float64Array(n);
  for (let f = 0; f < width; f++) {
    for (let i = 0; i < n; i++) values[i] = rows[i]![f] ?? 0;
    const cuts = cutsOf(values);
    edges.push(cuts);
    const of = new Uint8Array(n);
    for (let i = 0; i < n; i++) {
      const v = values[i]!;
      let [lo, hi] = [0, cuts.length];
      while (lo < hi) {
        const mid = (lo + hi) >> 1;
        if (v < cuts[mid]!) hi = mid;
        else lo = mid + 1;
      }
      of[i] = lo;
    }
    bins.push(of);
  }
  return { n, bins, edges };
}

/** Length of one histogram: sums of both derivatives and numbers of rows, for each bin. */
const SPAN = 3 * (BINS + 1);

/** Trains on binned rows; `target` is 0 or 1 for each. */
export function boost(
  data: Binned,
  target: ArrayLike<number>,
  weight: ArrayLike<number> | null,
  o: BoostOptions = BOOST,
): Boosted {
  const { n, bins, edges } = data;
  const r = randomOf(o.seed);
  let [sum, all] = [0, 0];
  for (let i = 0; i < n; i++) {
    const w = weight?.[i] ?? 1;
    sum += w * target[i]!;
    all += w;
  }
  const p0 = Math.min(0.999, Math.max(0.001, sum / Math.max(1, all)));
  const base = Math.log(p0 / (1 - p0));
  const score = new Float64Array(n).fill(base);
  const [g, h] = [new Float64Array(n), new Float64Array(n)];
  const trees: Tree[] = [];
  for (let t = 0; t < o.trees; t++) {
    const chosen: number[] = [];
    for (let i = 0; i < n; i++) if (r.next() < o.rows) chosen.push(i);
    for (let i = 0; i < n; i++) {
      const p = 1 / (1 + Math.exp(-score[i]!));
      const w = weight?.[i] ?? 1;
      g[i] = w * (p - target[i]!);
      h[i] = w * Math.max(1e-6, p * (1 - p));
    }
    const features = bins.map((_, f) => f).filter((f) => edges[f]!.length && r.next() < o.features);
    const tree = grow(data, features, Int32Array.from(chosen), g, h, o);
    // What each row, chosen or not, gets of this tree.
    const below = tree.feature.map((f, node) => (f < 0 ? 0 : edges[f]!.indexOf(tree.limit[node]!)));
    for (let i = 0; i < n; i++) {
      let node = 0;
      while (tree.feature[node]! >= 0) node = 2 * node + (bins[tree.feature[node]!]![i]! <= below[node]! ? 1 : 2);
      score[i]! += tree.limit[node]!;
    }
    trees.push(slim(tree));
  }
  return { base, trees };
}

/** Grows a tree on the chosen rows, by their first and second derivatives. */
function grow(
  { bins, edges }: Binned,
  features: readonly number[],
  order: Int32Array,
  g: Float64Array,
  h: Float64Array,
  o: BoostOptions,
): Growing {
  const nodes = 2 ** (o.depth + 1) - 1;
  const tree: Growing = { feature: new Array<number>(nodes).fill(-1), limit: new Array<number>(nodes).fill(0) };
  const spare = new Int32Array(order.length);
  const [gs, hs] = [new Float64Array(order.length), new Float64Array(order.length)];
  const free: Float64Array[] = [];

  /** Returns the histograms of rows, one after the other. */
  const histogramsOf = (from: number, to: number): Float64Array => {
    const out = free.pop()?.fill(0) ?? new Float64Array(features.length * SPAN);
    for (let i = from; i < to; i++) {
      gs[i] = g[order[i]!]!;
      hs[i] = h[order[i]!]!;
    }
    features.forEach((f, k) => {
      const of = bins[f]!;
      const base = k * SPAN;
      for (let i = from; i < to; i++) {
        const at = base + 3 * of[order[i]!]!;
        out[at]! += gs[i]!;
        out[at + 1]! += hs[i]!;
        out[at + 2]!++;
      }
    });
    return out;
  };

  /** Returns the split that explains most: the position of its feature, and the highest bin on its left. */
  const bestSplit = (sums: Float64Array, G: number, H: number, count: number) => {
    let [best, at, bin] = [1e-3, -1, -1];
    const whole = (G * G) / (H + o.lambda);
    features.forEach((f, k) => {
      const cuts = edges[f]!.length;
      let [gl, hl, nl] = [0, 0, 0];
      for (let b = 0; b < cuts; b++) {
        const i = k * SPAN + 3 * b;
        gl += sums[i]!;
        hl += sums[i + 1]!;
        nl += sums[i + 2]!;
        if (nl < o.leastRows || count - nl < o.leastRows) continue;
        const gain = (gl * gl) / (hl + o.lambda) + ((G - gl) * (G - gl)) / (H - hl + o.lambda) - whole;
        if (gain > best) [best, at, bin] = [gain, k, b];
      }
    });
    return { at, bin };
  };

  const split = (node: number, from: number, to: number, depth: number, sums: Float64Array | null): void => {
    let [G, H] = [0, 0];
    for (let i = from; i < to; i++) {
      G += g[order[i]!]!;
      H += h[order[i]!]!;
    }
    const found = sums && depth < o.depth ? bestSplit(sums, G, H, to - from) : { at: -1, bin: -1 };
    const f = features[found.at];
    if (f === undefined) {
      tree.limit[node] = (-G / (H + o.lambda)) * o.rate;
      if (sums) free.push(sums);
      return;
    }
    const of = bins[f]!;
    let [left, right] = [from, 0];
    for (let i = from; i < to; i++) {
      const row = order[i]!;
      if (of[row]! <= found.bin) order[left++] = row;
      else spare[right++] = row;
    }
    order.set(spare.subarray(0, right), left);
    tree.feature[node] = f;
    tree.limit[node] = edges[f]![found.bin]!;
    const deeper = depth + 1 < o.depth;
    // Histograms are counted for the smaller half only; those of the other half are the difference.
    const isLeft = left - from <= to - left;
    const small = deeper ? (isLeft ? histogramsOf(from, left) : histogramsOf(left, to)) : null;
    if (small) for (let i = 0; i < small.length; i++) sums![i]! -= small[i]!;
    else free.push(sums!);
    const rest = small ? sums : null;
    split(2 * node + 1, from, left, depth + 1, isLeft ? small : rest);
    split(2 * node + 2, left, to, depth + 1, isLeft ? rest : small);
  };
  split(0, 0, order.length, 0, histogramsOf(0, order.length));
  return tree;
}

/** Returns a tree with numbers short enough to store, cut after its last node. */
function slim(t: Growing): Tree {
  let last = 0;
  const used = (n: number): void => {
    last = Math.max(last, n);
    if (t.feature[n]! >= 0) {
      used(2 * n + 1);
      used(2 * n + 2);
    }
  };
  used(0);
  const short = (v: number) => Number(v.toPrecision(5));
  return { feature: t.feature.slice(0, last + 1), limit: t.limit.slice(0, last + 1).map(short) };
}
