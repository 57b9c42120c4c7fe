/** Words that occur once in each of two texts, and connected pieces of ink, against the plainest way to find them. */
import fc from 'fast-check';
import { connectedPieces } from './connected';
import { numberWords, onceInBoth } from './words-match';
import { pairBest } from './pair-best';

const text = fc.array(fc.constantFrom('the', 'buyer', 'seller', 'pays', '$500', 'by', 'noon'), { maxLength: 14 });

test('rows of words that occur once in each text are found, and no others', () => {
  fc.assert(
    fc.property(text, text, fc.integer({ min: 1, max: 3 }), (a, b, n) => {
      const rows = (words: string[]) =>
        words.slice(0, Math.max(0, words.length - n + 1)).map((_, i) => words.slice(i, i + n).join(' '));
      const [ra, rb] = [rows(a), rows(b)];
      const once = (all: string[], row: string) => all.filter((r) => r === row).length === 1;
      const expected = ra.flatMap((row, i) => (once(ra, row) && once(rb, row) ? [[i, rb.indexOf(row)]] : []));
      const [x, y] = numberWords(a, b);
      expect(onceInBoth(x, y, { a0: 0, a1: a.length, b0: 0, b1: b.length }, n)).toEqual(expected);
    }),
  );
});

test('only the named parts of the texts count', () => {
  const [x, y] = numberWords(['noon', 'by', 'noon'], ['by', 'noon']);
  expect(onceInBoth(x, y, { a0: 0, a1: 3, b0: 0, b1: 2 }, 1)).toEqual([[1, 0]]);
  expect(onceInBoth(x, y, { a0: 1, a1: 3, b0: 0, b1: 2 }, 1)).toEqual([
    [1, 0],
    [2, 1],
  ]);
});

/** Labels every cell with the smallest index it can be reached from, by repeating until nothing changes. */
function labels(grid: number[], cols: number, corners: boolean): number[] {
  const label = grid.map((on, i) => (on ? i : -1));
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < grid.length; i++)
      for (let j = 0; j < grid.length; j++) {
        const across = Math.abs((i % cols) - (j % cols));
        const down = Math.abs(Math.floor(i / cols) - Math.floor(j / cols));
        const near = corners ? across <= 1 && down <= 1 : across + down <= 1;
        if (grid[i] && grid[j] && near && label[j]! < label[i]!) {
          label[i] = label[j]!;
          changed = true;
        }
      }
  }
  return label;
}

test('cells that touch are one piece, with its bounds, and each cell is in one piece', () => {
  const cols = 6;
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 1 }), { minLength: 30, maxLength: 30 }),
      fc.boolean(),
      (grid, corners) => {
        const label = labels(grid, cols, corners);
        const expected = [...new Set(label)].filter((l) => l >= 0).sort((a, b) => a - b);
        const pieces = connectedPieces(Uint8Array.from(grid), cols, 5, { corners });
        expect(pieces.map((p) => [...p.cells].sort((a, b) => a - b))).toEqual(
          expected.map((l) => label.flatMap((x, i) => (x === l ? [i] : []))),
        );
        for (const p of pieces) {
          const [xs, ys] = [p.cells.map((i) => i % cols), p.cells.map((i) => Math.floor(i / cols))];
          expect([p.left, p.right, p.top, p.bottom]).toEqual([
            Math.min(...xs),
            Math.max(...xs),
            Math.min(...ys),
            Math.max(...ys),
          ]);
        }
      },
    ),
  );
});

test('cells that are said to be connected are, though they do not touch', () => {
  const grid = Uint8Array.from([1, 0, 0, 1]);
  expect(connectedPieces(grid, 4, 1)).toHaveLength(2);
  expect(connectedPieces(grid, 4, 1, { also: (col) => (col === 0 ? [3] : []) })).toEqual([
    { cells: [0, 3], left: 0, right: 3, top: 0, bottom: 0 },
  ]);
});

test('pairs are the most similar first, each item once, and no pair that could still be made is missing', () => {
  const pair = fc.record({ a: fc.nat(5), b: fc.nat(5), score: fc.nat(4) });
  fc.assert(
    fc.property(fc.array(pair, { maxLength: 30 }), (scored) => {
      const partners = pairBest(scored);
      const bs = [...partners.values()];
      expect(new Set(bs).size).toBe(bs.length);
      const made = scored.filter((s) => partners.get(s.a) === s.b);
      for (const s of scored) {
        // What was not made was in the way of something at least as similar.
        const rivals = made.filter((m) => m.a === s.a || m.b === s.b);
        expect(Math.max(...rivals.map((m) => m.score))).toBeGreaterThanOrEqual(s.score);
      }
    }),
  );
  expect([
    ...pairBest([
      { a: 1, b: 0, score: 1 },
      { a: 0, b: 0, score: 1 },
    ]),
  ]).toEqual([[1, 0]]);
});
