/**
 * Gradient-boosted decision trees (Friedman 2001): what was learned from labeled forms, applied with plain arithmetic.
 */

/**
 * One tree as flat lists. Node `n` asks whether feature `feature[n]` is below `limit[n]`: then node `2n + 1` is next,
 * otherwise `2n + 2`. A leaf has feature -1, and its `limit` is what it adds to the score.
 */
export interface Tree {
  feature: number[];
  limit: number[];
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
    let f = feature[0] ?? -1;
    while (f >= 0) {
      n = 2 * n + ((row[f] ?? 0) < (limit[n] ?? 0) ? 1 : 2);
      f = feature[n] ?? -1;
    }
    sum += limit[n] ?? 0;
  }
  return sum;
}

/** Returns the probability of a score. */
export const probabilityOf = (score: number): number => 1 / (1 + Math.exp(-score));
