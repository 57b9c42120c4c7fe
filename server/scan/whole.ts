/** Reading a whole file outside the server: for `npm run inspect` and for measuring. */
import { PDFDocument } from '@cantoo/pdf-lib';
import type { PrintedPlace } from '@gatepath/core/reading';
import { pdfium } from '../pdf/draw';
import { sizesOf } from '../pdf/space';
import { itemAt } from '@gatepath/core/sure';
import { withWords, type ReadPage } from './layer';
import { grayOf, recogniseGray, scaleOf } from './page';
import type { ScanLanguage } from './recognise';

/** A file whose pages were all recognized. */
export interface ReadWhole {
  /** The file with its pages straightened and their words laid over them. */
  bytes: Uint8Array;
  /** Maps a place on a straightened page to its position in the original. */
  asItCame: (place: PrintedPlace) => PrintedPlace;
}

/** Straightens and reads the scanned pages of a file. */
export async function readWhole(bytes: Uint8Array, pages: number[]): Promise<ReadWhole> {
  const came = sizesOf(await PDFDocument.load(bytes, { updateMetadata: false }));
  const drawn = await (await pdfium()).loadDocument(Buffer.from(bytes));
  const read = new Map<number, ReadPage>();
  try {
    let language: ScanLanguage = 'eng';
    for (const page of pages) {
      const size = itemAt(came, page - 1);
      const found = await recogniseGray(await grayOf(drawn, page, size), scaleOf(size), language);
      language = found.language;
      read.set(page, { ...found, page });
    }
  } finally {
    drawn.destroy();
  }
  return {
    bytes: (await withWords(bytes, [...read.values()])).bytes,
    asItCame: (place) => {
      const lay = read.get(place.page);
      return lay ? back(place, itemAt(came, place.page - 1), lay) : place;
    },
  };
}

/** Undoes the turns of a page for a place on it; its center moves, a quarter turn exchanges its sides. */
function back(place: PrintedPlace, came: { width: number; height: number }, { lie, over }: ReadPage): PrintedPlace {
  const { rect: r } = place;
  const size = lie.aside ? { width: came.height, height: came.width } : came;
  let [x, y, w, h] = [r.x + r.w / 2, r.y + r.h / 2, r.w, r.h];
  if (over) [x, y] = [size.width - x, size.height - y];
  const angle = (-lie.straighten * Math.PI) / 180;
  const [dx, dy] = [x - size.width / 2, y - size.height / 2];
  x = size.width / 2 + dx * Math.cos(angle) - dy * Math.sin(angle);
  y = size.height / 2 + dx * Math.sin(angle) + dy * Math.cos(angle);
  // It was turned clockwise by a quarter: what is now at the top was at the left.
  if (lie.aside) [x, y, w, h] = [y, came.height - x, h, w];
  const round = (v: number) => Math.round(v * 10) / 10;
  return { ...place, rect: { x: round(x - w / 2), y: round(y - h / 2), w, h } };
}
