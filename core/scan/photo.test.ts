import fc from 'fast-check';
import {
  cornersAsText,
  cornersOfText,
  flattened,
  sheetIn,
  sidesOf,
  troubleOf,
  WHOLE,
  type Corners,
  type Gray,
  type Rgb,
} from './index';

/** Returns a sheet with rows of print on a dark table, seen at an angle: every dot asked where it lies. */
function photograph(corners: Corners, width = 400, height = 520, blur = 0): Gray {
  const data = new Uint8Array(width * height);
  const inside = (x: number, y: number) =>
    corners.every((a, i) => {
      const b = corners[(i + 1) % 4]!;
      return (b.x - a.x) * (y / height - a.y) - (b.y - a.y) * (x / width - a.x) > 0;
    });
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const print = y % 12 < 3 && x % 9 < 5 && inside(x - 20, y - 20) && inside(x + 20, y + 20);
      data[y * width + x] = inside(x, y) ? (print ? 60 : 225) : 80;
    }
  for (let n = 0; n < blur; n++) {
    const was = data.slice();
    for (let i = width + 1; i < data.length - width - 1; i++)
      data[i] = (was[i]! + was[i - 1]! + was[i + 1]! + was[i - width]! + was[i + width]!) / 5;
  }
  return { width, height, data };
}

const SHEET: Corners = [
  { x: 0.16, y: 0.1 },
  { x: 0.88, y: 0.14 },
  { x: 0.94, y: 0.92 },
  { x: 0.08, y: 0.88 },
];

test('a sheet on a table is found by its corners', () => {
  const found = sheetIn(photograph(SHEET));
  found.forEach((c, i) => {
    expect(Math.abs(c.x - SHEET[i]!.x)).toBeLessThan(0.015);
    expect(Math.abs(c.y - SHEET[i]!.y)).toBeLessThan(0.015);
  });
});

test('where no sheet stands out the whole picture is taken', () => {
  expect(sheetIn(photograph(WHOLE))).toEqual(WHOLE);
  expect(sheetIn({ width: 90, height: 90, data: new Uint8Array(8_100).fill(200) })).toEqual(WHOLE);
  const patches = new Uint8Array(90 * 90).map((_, i) =>
    (i % 90) % 30 < 12 && Math.floor(i / 90) % 30 < 12 ? 230 : 30,
  );
  expect(sheetIn({ width: 90, height: 90, data: patches })).toEqual(WHOLE);
});

test('dark and blurred ones are called that', () => {
  const sharp = photograph(SHEET);
  expect(troubleOf(sharp)).toBeNull();
  expect(troubleOf({ ...sharp, data: sharp.data.map((v) => v / 5) })).toBe('dark');
  expect(troubleOf(photograph(SHEET, 400, 520, 14))).toBe('blurred');
});

test('what lies on the sheet comes to lie flat', () => {
  const width = 400;
  const height = 500;
  const picture: Rgb = { width, height, data: new Uint8Array(width * height * 3).fill(200) };
  // A dark spot in the middle of the upper edge as perspective shows it: on the line between the upper corners.
  const dot = (x: number, y: number) => {
    for (let dy = -3; dy <= 3; dy++)
      for (let dx = -3; dx <= 3; dx++)
        picture.data.fill(10, ((y + dy) * width + x + dx) * 3, ((y + dy) * width + x + dx) * 3 + 3);
  };
  // Where the diagonals of the sheet cross, its middle is, from wherever it is seen.
  const [tl, tr, br, bl] = SHEET.map((c) => ({ x: c.x * width, y: c.y * height })) as Corners;
  const t =
    ((bl.x - tl.x) * (tr.y - bl.y) - (bl.y - tl.y) * (tr.x - bl.x)) /
    ((br.x - tl.x) * (tr.y - bl.y) - (br.y - tl.y) * (tr.x - bl.x));
  dot(Math.round(tl.x + t * (br.x - tl.x)), Math.round(tl.y + t * (br.y - tl.y)));
  const flat = flattened(picture, SHEET, 200, 260);
  expect(flat.data[(130 * 200 + 100) * 3]).toBeLessThan(60);
  expect(flat.data[(20 * 200 + 20) * 3]).toBe(200);
  expect(sidesOf(WHOLE, picture)).toEqual({ across: 400, down: 500 });
});

test('corners travel as text, and only those of a sheet are taken', () => {
  expect(cornersOfText(cornersAsText(SHEET))).toEqual(SHEET);
  expect(cornersOfText('0,0,1,0,1,1,0,1')).toEqual(WHOLE);
  for (const bad of [
    '',
    '0,0,1,0,1,1',
    '1,1,0,1,0,0,1,0,',
    '0,0,0,1,1,1,1,0',
    '0,0,0,0,0,0,0,0',
    '0,0,9,0,9,9,0,9',
    'a,b,c,d,e,f,g,h',
  ])
    expect(cornersOfText(bad)).toBeNull();
  fc.assert(
    fc.property(fc.string(), (text) => {
      const corners = cornersOfText(text);
      expect(corners === null || corners.length === 4).toBe(true);
    }),
  );
});
