/** A possible pair: an item of each list by its index, and how similar they are. */
export interface ScoredPair {
  a: number;
  b: number;
  score: number;
}

/**
 * Pairs items of two lists, such as the pages of two versions: most similar first, each item at most once. Of equally
 * similar pairs the one listed first is taken.
 *
 * @returns the partner of each item of the first list that has one
 * @example pairBest([{ a: 0, b: 1, score: 2 }, { a: 0, b: 0, score: 1 }]) // Map { 0 => 1 }
 */
export function pairBest(scored: readonly ScoredPair[]): Map<number, number> {
  const partners = new Map<number, number>();
  const taken = new Set<number>();
  for (const { a, b } of [...scored].sort((x, y) => y.score - x.score)) {
    if (partners.has(a) || taken.has(b)) continue;
    partners.set(a, b);
    taken.add(b);
  }
  return partners;
}
