import fc from 'fast-check';
import type { PrintedPlace } from '../reading/types';
import { filledAt, gapsOf, lineUp, matchSheets, type PlacedText, type ReturnedPage, type Sheet } from './index';
import { rectOn } from './line-up';

const SCALE = 2;

/** A page of dots with rules and strokes at points of it. */
class Drawn {
  readonly sheet: Sheet;
  constructor(width = 300, height = 200) {
    const [w, h] = [width * SCALE, height * SCALE];
    this.sheet = { mask: { width: w, height: h, data: new Uint8Array(w * h) }, scale: SCALE };
  }
  box(x: number, y: number, w: number, h: number): this {
    const { mask } = this.sheet;
    for (let r = Math.round(y * SCALE); r < (y + h) * SCALE; r++)
      for (let c = Math.round(x * SCALE); c < (x + w) * SCALE; c++)
        if (r >= 0 && c >= 0 && r < mask.height && c < mask.width) mask.data[r * mask.width + c] = 1;
    return this;
  }
  /** Returns strokes of a hand: upright ones, joined at their feet. */
  hand(x: number, y: number, w: number, h = 12): this {
    for (let k = 0; k < w; k += 5) this.box(x + k, y - h, 1.2, h);
    return this.box(x, y - 1.5, w, 1.2);
  }
}

const LINE = { x: 60, y: 82, w: 120, h: 18 };
const form = (dx = 0, dy = 0) => new Drawn().box(60 + dx, 99 + dy, 120, 1).box(20 + dx, 88 + dy, 30, 8);
const SAME = { matrix: [1, 0, 0, 0, 1, 0] as [number, number, number, number, number, number], words: 20 };

describe('whether a place is filled', () => {
  const against = (back: Drawn) => filledAt(back.sheet, LINE, 'signature', { sheet: form().sheet, fit: SAME });

  test('the empty form’s own ink is none, also where it lies a little elsewhere', () => {
    for (const [dx, dy] of [
      [0, 0],
      [1.5, -1],
      [-2, 2],
    ] as const)
      expect(against(form(dx, dy))).toBe('no');
  });
  test('a hand on the line is seen, with the form at hand and without it', () => {
    const signed = form(1, 1).hand(80, 98, 60);
    expect(against(signed)).toBe('yes');
    expect(filledAt(signed.sheet, LINE, 'signature', null)).toBe('yes');
    expect(filledAt(form().sheet, LINE, 'signature', null)).toBe('no');
  });
  test('strokes that come from the line above are not this one’s, and are not left unsaid', () => {
    // A signature over the place whose loops reach down into it.
    const above = form().box(80, 60, 80, 16);
    for (let x = 84; x < 160; x += 12) above.box(x, 70, 2, 16);
    expect(against(above)).toBe('doubtful');
  });
  test('specks are nothing', () => {
    const specks = form();
    for (let x = 62; x < 176; x += 9) specks.box(x, 88, 0.6, 0.6);
    expect(against(specks)).toBe('no');
  });
  test('a box to tick: its frame is none, a cross in it is', () => {
    const box = { x: 30, y: 30, w: 10, h: 10 };
    const frame = () =>
      new Drawn().box(30, 30, 10, 0.8).box(30, 39.2, 10, 0.8).box(30, 30, 0.8, 10).box(39.2, 30, 0.8, 10);
    expect(filledAt(frame().sheet, box, 'checkbox', null)).toBe('no');
    const ticked = frame();
    for (let k = 0; k < 7; k++) ticked.box(31.5 + k, 31.5 + k, 1.4, 1.4).box(37.5 - k, 31.5 + k, 1.4, 1.4);
    expect(filledAt(ticked.sheet, box, 'checkbox', null)).toBe('yes');
  });
  test('places anywhere, also off the page, have an answer', () => {
    const rect = fc.record({
      x: fc.integer({ min: -50, max: 350 }),
      y: fc.integer({ min: -50, max: 250 }),
      w: fc.nat(80),
      h: fc.nat(40),
    });
    fc.assert(
      fc.property(rect, (r) => {
        expect(['yes', 'no', 'doubtful']).toContain(
          filledAt(form().sheet, r, 'text', { sheet: form().sheet, fit: SAME }),
        );
      }),
      { numRuns: 40 },
    );
  });
});

const WORDS =
  'the tenant keeps this dwelling at tern lock in good order and pays rent every first day of each month'.split(' ');
const words = (move: (x: number, y: number) => [number, number]): PlacedText[] =>
  WORDS.map((text, i) => {
    const [x, y] = move(40 + (i % 5) * 90, 60 + Math.floor(i / 5) * 120);
    return { text: `${text}${i}`, rect: { x, y, w: 40, h: 9 } };
  });

test('a page that was turned, stretched and moved is lined up with its blank', () => {
  const turn = (1.4 * Math.PI) / 180;
  const move = (x: number, y: number): [number, number] => [
    1.03 * (x * Math.cos(turn) - y * Math.sin(turn)) + 9,
    1.03 * (x * Math.sin(turn) + y * Math.cos(turn)) - 6,
  ];
  const page = { width: 612, height: 792, words: words((x, y) => [x, y]) };
  // Some words were read wrong, and one stands elsewhere.
  const back = words(move).map((w, i) =>
    i % 6 === 1 ? { ...w, text: 'xx' } : i === 3 ? { ...w, rect: { ...w.rect, y: 700 } } : w,
  );
  const fit = lineUp(page, { ...page, words: back });
  const [x, y] = move(300, 500);
  const there = rectOn(fit, { x: 290, y: 495, w: 20, h: 10 });
  expect(Math.hypot(there.x + there.w / 2 - x, there.y + there.h / 2 - y)).toBeLessThan(1.5);
  expect(lineUp(page, { width: 306, height: 396, words: [] })).toEqual({ matrix: [0.5, 0, 0, 0, 0.5, 0], words: 0 });
});

test('pages are told by their words, and by their numbers where these say nothing', () => {
  const a = words((x, y) => [x, y]);
  const b = a.map((w) => ({ ...w, text: `b${w.text}` }));
  expect(matchSheets([a, b], [b, a])).toEqual([1, 0]);
  expect(matchSheets([[], b], [[], b])).toEqual([0, 1]);
  expect(matchSheets([a, b], [b])).toEqual([null, 0]);
});

/** Returns a printed signature line of the tenant on a page. */
const tenantLine = (page: number): PrintedPlace => ({
  page,
  kind: 'signature',
  role: 'tenant',
  ordinal: 1,
  rect: LINE,
  label: 'Tenant',
  source: 'print',
  confidence: 0.9,
});
/** Returns a page with words and drawn ink. */
const returnedPage = (drawn: Drawn, text: PlacedText[]): ReturnedPage => ({
  width: 300,
  height: 200,
  words: text,
  sheet: async () => drawn.sheet,
});

test('words of one line do not turn the page, and a page without common words proves nothing', async () => {
  // Every second word lies a point lower, and on the returned page three points to the right: taken as a turn of the
  // page, that would throw its foot two thousand points aside.
  const row = (right: number): PlacedText[] =>
    WORDS.map((text, i) => ({
      text: `${text}${i}`,
      rect: { x: 20 + i * 28 + (i % 2) * right, y: 60 + (i % 2), w: 24, h: 9 },
    }));
  const page = { width: 612, height: 792, words: row(0) };
  const foot = rectOn(lineUp(page, { ...page, words: row(3) }), { x: 72, y: 740, w: 100, h: 16 });
  expect(Math.abs(foot.x - 72)).toBeLessThan(12);
  expect(Math.abs(foot.y - 740)).toBeLessThan(12);

  const blank = { pages: [returnedPage(form(), [])], places: [tenantLine(1)] };
  for (const drawn of [form(), form().hand(80, 98, 60)]) {
    const found = await gapsOf({ pages: [returnedPage(drawn, [])], places: [] }, blank);
    expect(found.map((f) => f.filled)).toEqual(['doubtful']);
  }
});

test('a paper’s gaps: what is empty, what is filled, and a page that did not come back', async () => {
  const text = (k: string) => words((x, y) => [x / 2, y / 4]).map((w) => ({ ...w, text: `${k}${w.text}` }));
  const blank = { pages: ['a', 'b', 'c'].map((k) => returnedPage(form(), text(k))), places: [1, 2, 3].map(tenantLine) };
  const back = {
    pages: [returnedPage(form().hand(80, 98, 60), text('b')), returnedPage(form(), text('a'))],
    places: [],
  };
  const found = await gapsOf(back, blank);
  expect(found.map((f) => [f.place.page, f.page, f.filled])).toEqual([
    [1, 2, 'no'],
    [2, 1, 'yes'],
    [3, null, 'no'],
  ]);
});
