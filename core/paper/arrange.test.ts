import fc from 'fast-check';
import { align, distribute, sameSize, snap, turnRect } from './arrange';
import type { Rect } from './types';

const rect: fc.Arbitrary<Rect> = fc.record({
  x: fc.integer({ min: 0, max: 500 }),
  y: fc.integer({ min: 0, max: 700 }),
  w: fc.integer({ min: 10, max: 100 }),
  h: fc.integer({ min: 10, max: 60 }),
});
const sheet = { width: 612, height: 792 };

test('aligning lines up one edge and keeps sizes', () => {
  fc.assert(
    fc.property(fc.array(rect, { minLength: 1, maxLength: 8 }), (rects) => {
      const left = align(rects, 'left');
      expect(new Set(left.map((r) => r.x)).size).toBe(1);
      const bottom = align(rects, 'bottom');
      expect(new Set(bottom.map((r) => Math.round(r.y + r.h))).size).toBe(1);
      expect(bottom.map((r) => [r.w, r.h])).toEqual(rects.map((r) => [r.w, r.h]));
    }),
  );
});

test('distributing makes equal gaps between the outermost two', () => {
  const out = distribute(
    [
      { x: 0, y: 5, w: 10, h: 10 },
      { x: 90, y: 5, w: 10, h: 10 },
      { x: 20, y: 5, w: 30, h: 10 },
    ],
    'across',
  );
  expect(out.map((r) => r.x)).toEqual([0, 90, 35]);
});

test('same size takes the first one’s', () => {
  expect(
    sameSize([
      { x: 1, y: 1, w: 50, h: 20 },
      { x: 9, y: 9, w: 5, h: 5 },
    ])[1],
  ).toEqual({ x: 9, y: 9, w: 50, h: 20 });
});

test('a mark dropped near a printed blank rests on its line; near another mark it lines up', () => {
  const blank = { x: 100, y: 500, w: 200, h: 24 };
  expect(snap({ x: 106, y: 497, w: 150, h: 30 }, [], [blank], sheet).rect).toEqual({ x: 100, y: 494, w: 150, h: 30 });
  const other = { x: 50, y: 300, w: 60, h: 20 };
  const near = snap({ x: 52, y: 402, w: 60, h: 20 }, [other], [], sheet);
  expect(near.rect).toMatchObject({ x: 50, y: 402 });
  expect(snap({ x: 70, y: 402, w: 63, h: 21 }, [other], [], sheet).rect.y).toBe(402);
});

test('four quarter turns bring a rectangle back', () => {
  fc.assert(
    fc.property(rect, (r) => {
      let at = r;
      let page = sheet;
      for (let i = 0; i < 4; i++) {
        at = turnRect(at, page, 90);
        page = { width: page.height, height: page.width };
      }
      expect(at).toEqual(r);
      expect(turnRect(turnRect(r, sheet, 180), sheet, 180)).toEqual(r);
      expect(turnRect(turnRect(r, sheet, 90), { width: 792, height: 612 }, 270)).toEqual(r);
    }),
  );
});
