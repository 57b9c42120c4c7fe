import fc from 'fast-check';
import { asPrinted } from './lexicon';
import { drawnOf, inkOf, lieOf, linesIn, withoutLines, wordsOfScan, type Gray, type SeenWord } from './index';

/** A white page of dots to draw on. */
class Page {
  readonly gray: Gray;
  constructor(width = 850, height = 1100) {
    this.gray = { width, height, data: new Uint8Array(width * height).fill(245) };
  }
  box(x: number, y: number, w: number, h: number, slope = 0): this {
    for (let yy = y; yy < y + h; yy++)
      for (let xx = x; xx < x + w; xx++) {
        const at = Math.round(yy + slope * (xx - this.gray.width / 2));
        if (at >= 0 && at < this.gray.height && xx >= 0 && xx < this.gray.width)
          this.gray.data[at * this.gray.width + xx] = 30;
      }
    return this;
  }
  frame(x: number, y: number, w: number, h: number): this {
    return this.box(x, y, w, 2)
      .box(x, y + h - 2, w, 2)
      .box(x, y, 2, h)
      .box(x + w - 2, y, 2, h);
  }
  /** Returns rows of something like words. */
  print(slope = 0): this {
    for (let y = 80; y < 1000; y += 24)
      for (let x = 70 + ((y * 13) % 29), k = y; x < 760; x += 9 + ((k = (k * 31 + 7) % 97) % 9))
        this.box(x, y, 6, 9, slope);
    return this;
  }
  /** Returns the page turned clockwise by a quarter. */
  aside(): Gray {
    const { width, height, data } = this.gray;
    const out = new Uint8Array(data.length);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) out[x * height + (height - 1 - y)] = data[y * width + x]!;
    return { width: height, height: width, data: out };
  }
}

describe('how a page lies', () => {
  test.each([-3, -1.2, 0, 0.4, 2.5])('%d degrees askew are found', (degrees) => {
    const slope = Math.tan((degrees * Math.PI) / 180);
    const lie = lieOf(inkOf(new Page().print(slope).gray));
    expect(lie.aside).toBe(false);
    expect(lie.straighten).toBeCloseTo(-degrees, 0);
    expect(Math.abs(lie.straighten + degrees)).toBeLessThan(0.1);
  });

  test('a page on its side is told from one that stands', () => {
    expect(lieOf(inkOf(new Page().print().aside())).aside).toBe(true);
    expect(lieOf(inkOf(new Page().print().gray)).aside).toBe(false);
  });

  test('a page with nothing on it, and one of noise, lie as they are', () => {
    expect(lieOf(inkOf(new Page().gray))).toEqual({ aside: false, straighten: 0 });
    const noise = new Page();
    let seed = 1;
    for (let i = 0; i < noise.gray.data.length; i++) noise.gray.data[i] = (seed = (seed * 16807) % 2147483647) % 256;
    expect(lieOf(inkOf(noise.gray))).toEqual({ aside: false, straighten: 0 });
  });
});

test('ink is told from the paper around it, also in the shadow', () => {
  const page = new Page(400, 400);
  // The right half lies in the shadow: its paper is darker than half the brightness of the left.
  for (let i = 0; i < page.gray.data.length; i++) if (i % 400 >= 200) page.gray.data[i] = 105;
  page.box(50, 100, 60, 4).box(280, 300, 60, 4);
  const ink = inkOf(page.gray).data;
  expect([ink[101 * 400 + 80], ink[301 * 400 + 310], ink[200 * 400 + 60], ink[200 * 400 + 350]]).toEqual([1, 1, 0, 0]);
});

describe('lines and boxes of a page at two dots a point', () => {
  const SCALE = 2;
  const of = (page: Page) => linesIn(inkOf(page.gray), SCALE);

  test('a line to write on, a frame and a box to tick', () => {
    const found = of(new Page().box(100, 300, 240, 2).frame(100, 500, 300, 60).frame(600, 300, 20, 20));
    expect(found.across.map((l) => [l.x0, l.x1].map(Math.round))).toEqual([
      [50, 170],
      [50, 200],
      [50, 200],
    ]);
    expect(found.across[0]!.y).toBeCloseTo(150.5, 0);
    expect(found.down.map((l) => [l.x, l.y0, l.y1].map(Math.round))).toEqual([
      [51, 250, 280],
      [200, 250, 280],
    ]);
    expect(found.squares.map((s) => [s.x, s.y].map(Math.round))).toEqual([[300, 150]]);
  });

  test('a line that lies a little askew, with gaps a printer left, is one', () => {
    const page = new Page().box(100, 300, 120, 2).box(222, 301, 120, 2).box(344, 302, 100, 2);
    expect(of(page).across.map((l) => [l.x0, l.x1].map(Math.round))).toEqual([[50, 222]]);
  });

  test('words, their feet and thick bars are no lines', () => {
    const page = new Page().print().box(100, 1040, 300, 14);
    for (let x = 500; x < 560; x += 12) page.box(x, 1030, 3, 20);
    page.box(500, 1048, 60, 2);
    expect(of(page).across).toEqual([]);
  });

  test('a hand that crosses a line leaves it one', () => {
    const page = new Page().box(100, 300, 240, 2);
    for (let x = 150; x < 260; x += 22) page.box(x, 270, 3, 50);
    expect(of(page).across.map((l) => [l.x0, l.x1].map(Math.round))).toEqual([[50, 170]]);
  });

  test('lines go from the picture that is read, what stands on them stays', () => {
    const page = new Page().box(100, 300, 240, 2).box(150, 288, 3, 25);
    const mask = inkOf(page.gray);
    const bare = withoutLines(page.gray, mask, linesIn(mask, SCALE), SCALE);
    const dark = (x: number, y: number) => bare.data[y * bare.width + x]! < 128;
    expect([dark(200, 300), dark(330, 301), dark(151, 292), dark(151, 308)]).toEqual([false, false, true, true]);
  });

  test('noise has no lines, and takes no time', () => {
    const page = new Page();
    let seed = 7;
    for (let i = 0; i < page.gray.data.length; i++) page.gray.data[i] = (seed = (seed * 16807) % 2147483647) % 256;
    const { across, down, squares } = of(page);
    expect(across.length + down.length + squares.length).toBeLessThan(40);
  });

  test('any boxes anywhere: what is found lies on the page', () => {
    const box = fc.tuple(fc.nat(300), fc.nat(300), fc.integer({ min: 1, max: 200 }), fc.integer({ min: 1, max: 60 }));
    fc.assert(
      fc.property(fc.array(box, { maxLength: 12 }), (boxes) => {
        const page = new Page(300, 300);
        for (const [x, y, w, h] of boxes) page.box(x, y, w, h);
        const { across, down, frames } = drawnOf(of(page));
        for (const l of across) expect(l.x0 >= 0 && l.x1 <= 150 && l.x0 < l.x1 && l.y >= 0 && l.y <= 150).toBe(true);
        for (const l of down) expect(l.y0 >= 0 && l.y1 <= 150 && l.y0 < l.y1 && l.x >= 0 && l.x <= 150).toBe(true);
        for (const f of frames) expect(f.x >= 0 && f.y >= 0 && f.x + f.w <= 150.5 && f.y + f.h <= 150.5).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});

describe('words as they were printed', () => {
  test.each([
    ['Iandlord’s', 'Landlord’s'],
    ['Initiale:', 'Initials:'],
    ['aliendador', 'Arrendador'],
    ['SFLLER', 'SELLER'],
    ['sellers', 'sellers'],
    ["Tenant'sinitials", "Tenant's initials"],
    ['purchase', 'purchase'],
    ['Dale', 'Dale'],
    ['12345', '12345'],
    ['(Buyer)', '(Buyer)'],
  ])('%s is %s', (read, printed) => {
    expect(asPrinted(read).toLowerCase()).toBe(printed.toLowerCase());
  });

  test('any text stays a text of about its length', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), (text) => {
        expect(Math.abs(asPrinted(text).length - text.length)).toBeLessThanOrEqual(2);
      }),
    );
  });

  test('what recognition makes of lines, boxes and stains is no word', () => {
    const word = (text: string, confidence = 0.96): SeenWord => ({
      text,
      x0: 100,
      y0: 100,
      x1: 150,
      y1: 120,
      baseline: 118,
      high: 20,
      confidence,
    });
    const none = { across: [], down: [], squares: [] };
    const words = (list: SeenWord[], ink = none) => wordsOfScan(list, ink, 2).map((w) => w.text);
    expect(words([word('____'), word('|'), word('Seller'), word('xq', 0.1), word('[J')])).toEqual(['Seller', '[J']);
    const square = { ...none, squares: [{ x: 48, y: 48, w: 26, h: 14 }] };
    expect(wordsOfScan([word('O')], square, 2)).toEqual([]);
    expect(wordsOfScan([word('Only')], square, 2)).toHaveLength(1);
  });
});
