/** Lines to write on are found however a program draws them. */
import { PDFDocument, PDFName } from '@cantoo/pdf-lib';
import { openContent, pageContent } from './content';

/** Returns the level lines of a page with this content, left end, right end and height from the top, rounded. */
async function linesOf(content: string): Promise<number[][]> {
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
  page.node.set(PDFName.of('Resources'), doc.context.obj({ XObject: { I: doc.context.register(image) } }));
  page.node.set(PDFName.of('Contents'), doc.context.register(doc.context.stream(content)));
  const { doc: open, destroy } = await openContent(await doc.save());
  try {
    const { across } = await pageContent(open, 1);
    return across
      .map((l) => [Math.round(l.x0), Math.round(l.x1), Math.round(l.y)])
      .sort((a, b) => a[2]! - b[2]! || a[0]! - b[0]!);
  } finally {
    await destroy();
  }
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
