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
  depth: 5,
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

/** Divides the values of each feature into at most 32 bins of about equal size. */
export function binned(rows: readonly ArrayLike<number>[]): Binned {
  const n = rows.length;
  const width = rows[0]?.length ?? 0;
  const edges: number[][] = [];
  const bins: Uint8Array[] = [];
  for (let f = 0; f < width; f++) {
    const values = Float64Array.from(rows, (r) => r[f] ?? 0);
    const sorted = Float64Array.from(values).sort();
    const cuts: number[] = [];
    let distinct: number[] = [];
    for (const v of sorted) if (distinct[distinct.length - 1] !== v && distinct.length <= 40) distinct.push(v);
    if (distinct.length <= BINS)
      for (let i = 1; i < distinct.length; i++) cuts.push((distinct[i - 1]! + distinct[i]!) / 2);
    else {
      for (let b = 1; b < BINS; b++) {
        const v = sorted[Math.floor((b * n) / BINS)]!;
        if (cuts[cuts.length - 1] !== v && v > sorted[0]!) cuts.push(v);
      }
    }
    distinct = [];
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
  const nodes = 2 ** (o.depth + 1) - 1;
  const [hg, hh, hn] = [new Float64Array(BINS + 1), new Float64Array(BINS + 1), new Int32Array(BINS + 1)];
  for (let t = 0; t < o.trees; t++) {
    const chosen: number[] = [];
    for (let i = 0; i < n; i++) {
      if (r.next() >= o.rows) continue;
      chosen.push(i);
    }
    for (let i = 0; i < n; i++) {
      const p = 1 / (1 + Math.exp(-score[i]!));
      const w = weight?.[i] ?? 1;
      g[i] = w * (p - target[i]!);
      h[i] = w * Math.max(1e-6, p * (1 - p));
    }
    const features = bins.map((_, f) => f).filter((f) => edges[f]!.length && r.next() < o.features);
    const tree: Growing = { feature: new Array<number>(nodes).fill(-1), limit: new Array<number>(nodes).fill(0) };
    const order = Int32Array.from(chosen);
    const spare = new Int32Array(order.length);
    const split = (node: number, from: number, to: number, depth: number): void => {
      let [G, H] = [0, 0];
      for (let i = from; i < to; i++) {
        G += g[order[i]!]!;
        H += h[order[i]!]!;
      }
      const leaf = () => {
        tree.limit[node] = (-G / (H + o.lambda)) * o.rate;
      };
      if (depth === o.depth || to - from < 2 * o.leastRows) return leaf();
      let [best, bestF, bestB] = [1e-3, -1, -1];
      const whole = (G * G) / (H + o.lambda);
      for (const f of features) {
        const cuts = edges[f]!.length;
        hg.fill(0, 0, cuts + 1);
        hh.fill(0, 0, cuts + 1);
        hn.fill(0, 0, cuts + 1);
        const of = bins[f]!;
        for (let i = from; i < to; i++) {
          const row = order[i]!;
          const b = of[row]!;
          hg[b]! += g[row]!;
          hh[b]! += h[row]!;
          hn[b]!++;
        }
        let [gl, hl, nl] = [0, 0, 0];
        for (let b = 0; b < cuts; b++) {
          gl += hg[b]!;
          hl += hh[b]!;
          nl += hn[b]!;
          if (nl < o.leastRows || to - from - nl < o.leastRows) continue;
          const gain = (gl * gl) / (hl + o.lambda) + ((G - gl) * (G - gl)) / (H - hl + o.lambda) - whole;
          if (gain > best) [best, bestF, bestB] = [gain, f, b];
        }
      }
      if (bestF < 0) return leaf();
      const of = bins[bestF]!;
      let [left, right] = [from, 0];
      for (let i = from; i < to; i++) {
        const row = order[i]!;
        if (of[row]! <= bestB) order[left++] = row;
        else spare[right++] = row;
      }
      order.set(spare.subarray(0, right), left);
      tree.feature[node] = bestF;
      tree.limit[node] = edges[bestF]![bestB]!;
      split(2 * node + 1, from, left, depth + 1);
      split(2 * node + 2, left, to, depth + 1);
    };
    split(0, 0, order.length, 0);
    // What each row, chosen or not, gets of this tree.
    for (let i = 0; i < n; i++) {
      let node = 0;
      while (tree.feature[node]! >= 0) {
        const f = tree.feature[node]!;
        const limit = tree.limit[node]!;
        const b = bins[f]![i]!;
        node = 2 * node + (b < edges[f]!.length && edges[f]![b]! <= limit ? 1 : 2);
      }
      score[i]! += tree.limit[node]!;
    }
    trees.push(slim(tree));
  }
  return { base, trees };
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
