/**
 * Matching the words of two texts: sequences of words that occur once in each are the fixed points of every
 * comparison.
 */

/** A part of each text: word indices from `a0` to before `a1`, and from `b0` to before `b1`. */
export interface Parts {
  a0: number;
  a1: number;
  b0: number;
  b1: number;
}

/**
 * Numbers the words of two texts, equal words alike.
 *
 * @example
 * numberWords(['the', 'buyer'], ['buyer']); // [[0, 1], [1]]
 */
export function numberWords(a: readonly string[], b: readonly string[]): [Int32Array, Int32Array] {
  const ids = new Map<string, number>();
  const numbersOf = (row: readonly string[]) =>
    Int32Array.from(row, (word) => {
      const known = ids.get(word);
      if (known !== undefined) return known;
      ids.set(word, ids.size);
      return ids.size - 1;
    });
  return [numbersOf(a), numbersOf(b)];
}

/**
 * Returns rows of `n` words that occur once in each part, as pairs of the indices of their first words, in the order of
 * `x`. Time is proportional to the lengths of the parts times `n`.
 */
export function onceInBoth(x: Int32Array, y: Int32Array, { a0, a1, b0, b1 }: Parts, n: number): [number, number][] {
  const there = onceIn(y, b0, b1, n);
  const out: [number, number][] = [];
  for (const [row, i] of onceIn(x, a0, a1, n)) {
    const j = there.get(row);
    if (i >= 0 && j !== undefined && j >= 0) out.push([i, j]);
  }
  return out.sort((p, q) => p[0] - q[0]);
}

/** Returns rows of `n` words with the index of their first word; -1 if they occur more than once. */
function onceIn(words: Int32Array, from: number, to: number, n: number): Map<string, number> {
  const at = new Map<string, number>();
  for (let i = from; i + n <= to; i++) {
    const row = n === 1 ? String(words[i]) : words.subarray(i, i + n).join(' ');
    at.set(row, at.has(row) ? -1 : i);
  }
  return at;
}
