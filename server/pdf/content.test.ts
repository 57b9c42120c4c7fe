/** Lines to write on are found however a program draws them. */
import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import type { PageContent } from '@gatepath/core/reading';
import { openContent, pageContent } from './content';

/** Returns what is read of a page with this content: a font is `/F`, a picture `/I`. */
async function read(content: string): Promise<PageContent> {
  const doc = await PDFDocument.create();
  const page = doc.addPage([612, 792]);
  const image = doc.context.stream(new Uint8Array([0]), {
    Type: 'XObject',
    Subtype: 'Image',
    Width: 1,
    Height: 1,
    BitsPerComponent: 8,
    ColorSpace: 'DeviceGray',
  });
  const font = doc.context.obj({ Type: 'Font', Subtype: 'Type1', BaseFont: 'Helvetica' });
  page.node.set(
    PDFName.of('Resources'),
    doc.context.obj({ XObject: { I: doc.context.register(image) }, Font: { F: doc.context.register(font) } }),
  );
  page.node.set(PDFName.of('Contents'), doc.context.register(doc.context.stream(content)));
  const { doc: open, destroy } = await openContent(await doc.save());
  try {
    return await pageContent(open, 1);
  } finally {
    await destroy();
  }
}

/** Returns the level lines of a page with this content, left end, right end and height from the top, rounded. */
async function linesOf(content: string): Promise<number[][]> {
  const { across } = await read(content);
  return across
    .map((l) => [Math.round(l.x0), Math.round(l.x1), Math.round(l.y)])
    .sort((a, b) => a[2]! - b[2]! || a[0]! - b[0]!);
}

const many = (n: number, piece: (x: number) => string, step: number) =>
  Array.from({ length: n }, (_, i) => piece(100 + i * step)).join('\n');

test.each([
  ['a stroke', '100 692 m 300 692 l S', [[100, 300, 100]]],
  ['a flat box', '100 691.6 200 0.8 re f', [[100, 300, 100]]],
  ['underlined spaces, one stroke each', many(40, (x) => `${x} 692 m ${x + 2.8} 692 l S`, 2.75), [[100, 210, 100]]],
  ['dashes', many(20, (x) => `${x} 692 m ${x + 4} 692 l S`, 6), [[100, 218, 100]]],
  ['dots of a border', many(60, (x) => `${x} 691.5 1 1 re f`, 2), [[100, 219, 100]]],
  ['a picture half a point high', 'q 200 0 0 0.5 100 692 cm /I Do Q', [[100, 300, 100]]],
])('drawn as %s', async (_, content, lines) => {
  expect(await linesOf(content)).toEqual(lines);
});

test('pieces far apart, or at other heights, are no line', async () => {
  expect(await linesOf(many(20, (x) => `${x} 692 m ${x + 2} 692 l S`, 12))).toEqual([]);
  expect(await linesOf(many(20, (x) => `${x} ${692 - (x % 50)} m ${x + 2} ${692 - (x % 50)} l S`, 3))).toEqual([]);
});

test('two lines on one row stay two', async () => {
  const left = many(20, (x) => `${x} 692 m ${x + 2.8} 692 l S`, 2.75);
  const right = many(20, (x) => `${x + 120} 692 m ${x + 122.8} 692 l S`, 2.75);
  expect(await linesOf(`${left}\n${right}`)).toEqual([
    [100, 155, 100],
    [220, 275, 100],
  ]);
});

const words = (c: PageContent) => c.glyphs.map((g) => g.ch).join('');
const say = (text: string, color: string) => `BT /F 10 Tf ${color} rg 100 600 Td (${text}) Tj ET`;

test.each([
  ['black', say('Buyer', '0 0 0'), 'Buyer'],
  ['white on white', say('Seller', '1 1 1'), ''],
  ['white on a dark band', `0.2 g 90 590 200 30 re f ${say('Seller', '1 1 1')}`, 'Seller'],
  ['white beside a dark band', `0.2 g 290 590 200 30 re f ${say('Seller', '1 1 1')}`, ''],
  ['white on a picture', `q 200 0 0 30 90 590 cm /I Do Q ${say('Seller', '1 1 1')}`, 'Seller'],
  ['white on a thick stroke', `30 w 0.2 G 90 605 m 290 605 l S ${say('Seller', '1 1 1')}`, 'Seller'],
  ['white on a tint', `0.95 g 90 590 200 30 re f ${say('Seller', '1 1 1')}`, ''],
])('words printed %s are read if they can be seen', async (_, content, seen) => {
  expect(words(await read(content))).toBe(seen);
});

test('words printed white under a scanned page are its recognized words', async () => {
  const white = `BT /F 10 Tf 1 1 1 rg 100 600 Td (Initials of the buyer) Tj ET`;
  const scan = await read(`${white}\nq 612 0 0 792 0 0 cm /I Do Q`);
  expect([scan.scan, words(scan)]).toEqual(['worded', 'Initialsofthebuyer']);
});

test('pictures that may cover a place are noted, bullets and whole pages are not', async () => {
  const at = (w: number, h: number) => `q ${w} 0 0 ${h} 100 600 cm /I Do Q`;
  const { pictures } = await read(`${at(8, 8)}\n${at(200, 40)}`);
  expect(pictures.map((p) => [p.x, p.y, p.w, p.h].map(Math.round))).toEqual([[100, 152, 200, 40]]);
  expect((await read('q 612 0 0 792 0 0 cm /I Do Q')).pictures).toEqual([]);
});
