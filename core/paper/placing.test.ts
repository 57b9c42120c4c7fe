import fc from 'fast-check';
import { page } from '../test/support';
import { grow, onPage, overlapArea } from './geometry';
import { countInk, emptyGrid, hasInk, inkRect, packGrid, sumInk, unpackGrid } from './ink';
import { blankPage, placeInitials } from './placing';
import type { Rect } from './types';

const rectIn = (w: number, h: number): fc.Arbitrary<Rect> =>
  fc.record({
    x: fc.double({ min: 0, max: w - 10, noNaN: true }),
    y: fc.double({ min: 0, max: h - 10, noNaN: true }),
    w: fc.double({ min: 5, max: w, noNaN: true }),
    h: fc.double({ min: 5, max: h / 4, noNaN: true }),
  });

const anyPage = fc
  .constantFrom([612, 792], [595, 842], [792, 612], [300, 200])
  .chain(([w, h]) => fc.array(rectIn(w!, h!), { maxLength: 14 }).map((print) => ({ ...page(print, w, h), print })));

test('placed marks never touch print, other marks or each other, and lie on the page', () => {
  fc.assert(
    fc.property(
      fc.array(anyPage, { minLength: 1, maxLength: 6 }),
      fc.integer({ min: 1, max: 6 }),
      fc.record({ fx: fc.double({ min: 0, max: 1, noNaN: true }), fy: fc.double({ min: 0, max: 1, noNaN: true }) }),
      fc.array(rectIn(300, 200), { maxLength: 3 }),
      (pages, n, anchor, obstacles) => {
        const placed = placeInitials(
          pages.map((facts, i) => ({ page: i + 1, facts, obstacles })),
          n,
          anchor,
        );
        pages.forEach((facts, i) => {
          const rects = placed.get(i + 1);
          expect(placed.has(i + 1)).toBe(true);
          if (!rects) return;
          expect(rects).toHaveLength(n);
          rects.forEach((r, k) => {
            expect(onPage(r, facts.width, facts.height)).toBe(true);
            for (const o of [...facts.print, ...obstacles, ...rects.slice(k + 1)]) expect(overlapArea(r, o)).toBe(0);
          });
        });
      },
    ),
    { numRuns: 150 },
  );
});

test('pages that allow it get the same place, near the anchor', () => {
  const body: Rect = { x: 60, y: 60, w: 490, h: 600 };
  const pages = Array.from({ length: 12 }, (_, i) => ({ page: i + 1, facts: page([body]), obstacles: [] }));
  const placed = placeInitials(pages, 3, { fx: 0, fy: 1 });
  const first = placed.get(1)!;
  for (const rects of placed.values()) expect(rects).toEqual(first);
  expect(first[0]!.x).toBeLessThan(40);
  expect(first[0]!.y).toBeGreaterThan(720);
  expect(new Set(first.map((r) => r.y)).size).toBe(1);
});

test('a page that is full at the usual place gets one of its own; the others keep theirs', () => {
  const foot: Rect = { x: 0, y: 690, w: 612, h: 102 };
  const pages = [1, 2, 3, 4].map((n) => ({
    page: n,
    facts: page(n === 3 ? [foot, { x: 0, y: 0, w: 612, h: 560 }] : []),
    obstacles: [],
  }));
  const placed = placeInitials(pages, 2, { fx: 1, fy: 1 });
  expect(placed.get(1)).toEqual(placed.get(4));
  for (const r of placed.get(3)!) expect(overlapArea(grow(r, 1), foot)).toBe(0);
});

test('a page without free space is said to have none, and a blank one always has', () => {
  const full = page([{ x: 0, y: 0, w: 612, h: 792 }]);
  const placed = placeInitials(
    [
      { page: 1, facts: full, obstacles: [] },
      { page: 2, facts: blankPage(612, 792), obstacles: [] },
    ],
    2,
    { fx: 0, fy: 1 },
  );
  expect(placed.get(1)).toBeNull();
  expect(placed.get(2)).toHaveLength(2);
});

test('ink grids survive packing, and their sums count what is inked', () => {
  fc.assert(
    fc.property(fc.array(rectIn(200, 150), { maxLength: 8 }), (rects) => {
      const g = emptyGrid(200, 150);
      for (const r of rects) inkRect(g, r);
      expect(unpackGrid(packGrid(g), g.cols, g.rows, g.cell)).toEqual(g);
      let n = 0;
      for (let r = 3; r < 20; r++) for (let c = 5; c < 40; c++) if (hasInk(g, c, r)) n++;
      expect(countInk(sumInk(g), 5, 3, 35, 17)).toBe(n);
    }),
  );
  expect(() => unpackGrid('5', 10, 10, 3)).toThrow('cells');
});
