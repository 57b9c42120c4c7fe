/** Random choices from a seed: the same seed makes the same forms. */

/** A source of random choices. */
export interface Random {
  /** Returns a number from 0 to 1; never 1 itself. */
  next(): number;
  /** Returns a whole number, both ends included. */
  int(from: number, to: number): number;
  /** Returns whether something of this probability happens. */
  is(probability: number): boolean;
  /** Returns one of a list. */
  of<T>(list: readonly T[]): T;
  /** Returns one of a list by weight. */
  weighted<T>(list: readonly (readonly [T, number])[]): T;
  /** Returns the list in random order. */
  shuffled<T>(list: readonly T[]): T[];
}

/** Returns a source of random choices (mulberry32). */
export function randomOf(seed: number): Random {
  let a = seed >>> 0;
  const next = () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const int = (from: number, to: number) => from + Math.floor(next() * (to - from + 1));
  const of = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  return {
    next,
    int,
    of,
    is: (probability) => next() < probability,
    weighted: (list) => {
      let left = next() * list.reduce((n, [, w]) => n + w, 0);
      for (const [item, w] of list) if ((left -= w) < 0) return item;
      return list[list.length - 1]![0];
    },
    shuffled: (list) =>
      list
        .map((x) => [next(), x] as const)
        .sort((p, q) => p[0] - q[0])
        .map(([, x]) => x),
  };
}
