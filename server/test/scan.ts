/** Makes of a paper what a scanner makes of it: 200 dots an inch, laid in a little askew, with grain, compressed. */
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import { itemAt } from '@gatepath/core/sure';
import sharp from 'sharp';
import { pdfium } from '../pdf/draw';

export interface ScanCondition {
  /** Dots an inch. */
  dpi: number;
  /** Degrees the paper lies askew; each page a little differently. */
  askew: number;
  /** How much the brightness of a dot strays, of 255. */
  grain: number;
  /** Of JPEG, 1 to 100. */
  quality: number;
  /** Clockwise degrees the paper was laid in by. */
  turned: 0 | 90 | 180 | 270;
  /** Exactly so far askew, each page. */
  always?: boolean;
}

export const OFFICE: ScanCondition = { dpi: 200, askew: 1.2, grain: 14, quality: 55, turned: 0 };

/** Numbers that look like chance and are the same each time (Park and Miller 1988). */
export function chance(seed: number): () => number {
  let at = (seed % 2147483646) + 1;
  return () => (at = (at * 16807) % 2147483647) / 2147483647;
}

/** Returns the pages of a paper as pictures in gray, drawn at some dots an inch. */
export async function drawn(
  paper: Uint8Array,
  dpi: number,
): Promise<{ width: number; height: number; data: Uint8Array }[]> {
  const doc = await (await pdfium()).loadDocument(Buffer.from(paper));
  try {
    const out = [];
    for (let n = 0; n < doc.getPageCount(); n++) {
      const { width, height, data } = await doc
        .getPage(n)
        .render({ scale: dpi / 72, colorSpace: 'Gray', renderFormFields: true, render: async (o) => o.data });
      out.push({ width, height, data: new Uint8Array(data) });
    }
    return out;
  } finally {
    doc.destroy();
  }
}

/** Returns one page as a scanner sees it, as JPEG. */
async function scannedPage(
  page: { width: number; height: number; data: Uint8Array },
  look: ScanCondition,
  askew: number,
  random: () => number,
): Promise<Uint8Array> {
  const { width, height } = page;
  const lain = await sharp(page.data, { raw: { width, height, channels: 1 } })
    .rotate(askew, { background: '#ffffff' })
    .blur(0.6)
    .toColourspace('b-w')
    .raw()
    .toBuffer({ resolveWithObject: true });
  // The glass is as large as the paper: what stands over is cut off.
  const at = { left: (lain.info.width - width) >> 1, top: (lain.info.height - height) >> 1 };
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const v = lain.data[((y + at.top) * lain.info.width + x + at.left) * lain.info.channels]!;
      data[y * width + x] = Math.max(0, Math.min(255, 0.9 * v + 16 + look.grain * (random() + random() - 1)));
    }
  return new Uint8Array(
    await sharp(data, { raw: { width, height, channels: 1 } })
      .rotate(look.turned)
      .jpeg({ quality: look.quality })
      .toBuffer(),
  );
}

export interface Scan {
  bytes: Uint8Array;
  /** Where something on the scan lies on the paper it was made of. */
  onPaper: (page: number, rect: Rect) => Rect;
}

/** Returns a paper as it comes out of a scanner: a PDF of pictures. */
export async function scanOf(paper: Uint8Array, look: ScanCondition = OFFICE, seed = 1): Promise<Scan> {
  const random = chance(seed);
  const doc = await PDFDocument.create();
  const lain: { askew: number; width: number; height: number }[] = [];
  for (const page of await drawn(paper, look.dpi)) {
    const askew = look.always ? look.askew : look.askew * (2 * random() - 1);
    const picture = await doc.embedJpg(await scannedPage(page, look, askew, random));
    const width = (picture.width * 72) / look.dpi;
    const height = (picture.height * 72) / look.dpi;
    doc.addPage([width, height]).drawImage(picture, { x: 0, y: 0, width, height });
    lain.push({ askew, width, height });
  }
  return {
    bytes: await doc.save(),
    onPaper: (page, rect) => {
      const { askew, width, height } = itemAt(lain, page - 1);
      return turnedBack(
        upright(rect, look.turned, width, height),
        askew,
        look.turned % 180 ? [height, width] : [width, height],
      );
    },
  };
}

function upright({ x, y, w, h }: Rect, turned: ScanCondition['turned'], width: number, height: number): Rect {
  if (turned === 90) return { x: y, y: width - x - w, w: h, h: w };
  if (turned === 180) return { x: width - x - w, y: height - y - h, w, h };
  if (turned === 270) return { x: height - y - h, y: x, w: h, h: w };
  return { x, y, w, h };
}

/** Returns the middle of a rectangle turned back around the middle of its page. */
function turnedBack({ x, y, w, h }: Rect, askew: number, [width, height]: [number, number]): Rect {
  const a = (-askew * Math.PI) / 180;
  const dx = x + w / 2 - width / 2;
  const dy = y + h / 2 - height / 2;
  return {
    x: width / 2 + dx * Math.cos(a) - dy * Math.sin(a) - w / 2,
    y: height / 2 + dx * Math.sin(a) + dy * Math.cos(a) - h / 2,
    w,
    h,
  };
}

/**
 * Returns a lease with lines for the landlord and the tenant on its last page, and their initials at the foot of each
 * page.
 */
export async function lease({
  pages = 1,
  initials = false,
}: { pages?: number; initials?: boolean } = {}): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  for (let n = 1; n <= pages; n++) {
    const page = doc.addPage([612, 792]);
    const text = (words: string, x: number, y: number, size = 11) => page.drawText(words, { x, y, size, font });
    const line = (x: number, y: number, w: number) =>
      page.drawLine({ start: { x, y }, end: { x: x + w, y }, thickness: 0.8 });
    text(n === 1 ? 'Residential lease agreement' : `Residential lease agreement, section ${n}`, 72, 720, 16);
    for (let y = 690; y > 420; y -= 18)
      text(`${n}. The tenant keeps the dwelling at Tern Lock in good order and pays the rent on the first day.`, 72, y);
    if (n === pages)
      for (const [who, y] of [
        ['Landlord', 300],
        ['Tenant', 240],
      ] as const) {
        line(72, y, 200);
        text(`${who}'s signature`, 72, y - 13, 9);
        line(320, y, 110);
        text('Date', 320, y - 13, 9);
      }
    if (initials) {
      text("Landlord's initials", 72, 60, 10);
      line(160, 58, 44);
      text("Tenant's initials", 330, 60, 10);
      line(410, 58, 44);
    }
  }
  return doc.save();
}
