/**
 * Gradient-boosted decision trees (Friedman 2001): what was learned from labeled forms, applied with plain arithmetic.
 */

/**
 * One tree as flat lists. Node `n` asks whether feature `feature[n]` is below `limit[n]`: then node `2n + 1` is next,
 * otherwise `2n + 2`. A leaf has feature -1, and its `limit` is what it adds to the score.
 */
export interface Tree {
  feature: ArrayLike<number>;
  limit: ArrayLike<number>;
}

/** A sum of trees whose score is the logarithm of the odds. */
export interface Boosted {
  base: number;
  trees: Tree[];
}

/** Returns the score of a row of features: the logarithm of the odds. */
export function scoreOf(model: Boosted, row: ArrayLike<number>): number {
  let sum = model.base;
  for (const { feature, limit } of model.trees) {
    let n = 0;
    for (let f = feature[0] ?? -1; f >= 0; f = feature[n] ?? -1) n = 2 * n + ((row[f] ?? 0) < limit[n]! ? 1 : 2);
    sum += limit[n] ?? 0;
  }
  return sum;
}

/** Returns a model whose lists are typed, as they are read millions of times. */
export const typed = ({ base, trees }: Boosted): Boosted => ({
  base,
  trees: trees.map((t) => ({ feature: Int16Array.from(t.feature), limit: Float64Array.from(t.limit) })),
});

/** Returns the probability of a score. */
export const probabilityOf = (score: number): number => 1 / (1 + Math.exp(-score));
