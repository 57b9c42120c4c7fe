/** Boosted trees are applied as they were trained. */
import fc from 'fast-check';
import { probabilityOf, scoreOf, type Boosted, type Tree } from './trees';

/** Applies a tree by its definition, node by node. */
function byHand({ feature, limit }: Tree, row: number[]): number {
  const at = (n: number): number =>
    (feature[n] ?? -1) < 0 ? (limit[n] ?? 0) : at(2 * n + ((row[feature[n]!] ?? 0) < limit[n]! ? 1 : 2));
  return at(0);
}

const tree: fc.Arbitrary<Tree> = fc.record({
  feature: fc.array(fc.integer({ min: -1, max: 4 }), { minLength: 1, maxLength: 31 }),
  limit: fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 31, maxLength: 31 }),
});

test('a score is the base and what each tree adds', () => {
  const row = fc.array(fc.double({ min: -6, max: 6, noNaN: true }), { minLength: 5, maxLength: 5 });
  fc.assert(
    fc.property(
      fc.array(tree, { maxLength: 6 }),
      row,
      fc.double({ min: -3, max: 3, noNaN: true }),
      (trees, x, base) => {
        const sum = trees.reduce((n, t) => n + byHand(t, x), base);
        expect(scoreOf({ base, trees }, x)).toBeCloseTo(sum, 9);
      },
    ),
  );
});

test('a value at the limit goes to the right, one below it to the left', () => {
  const one: Boosted = { base: 0, trees: [{ feature: [0, -1, -1], limit: [2, 10, 20] }] };
  expect([1.999, 2, 2.001].map((v) => scoreOf(one, [v]))).toEqual([10, 20, 20]);
  // A feature that is not there is 0.
  expect(scoreOf(one, [])).toBe(10);
});

test('a probability rises with its score, and is a half at 0', () => {
  expect(probabilityOf(0)).toBe(0.5);
  expect(probabilityOf(2)).toBeCloseTo(1 - probabilityOf(-2), 12);
  expect(probabilityOf(5)).toBeGreaterThan(0.99);
});
