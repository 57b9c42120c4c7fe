/** What is printed on a PDF: its pages and places, for the desk and for `npm run inspect`. */
import type { PDFiumDocument } from '@hyzyla/pdfium';
import { roundRect } from '@gatepath/core/paper';
import { linesOf, placeOfField, wordsOf, type PageContent, type PrintedPlace } from '@gatepath/core/reading';
import { readPlaces } from '@gatepath/core/reading/read';
import { gapsOf, type Filled, type ReturnedPaper } from '@gatepath/core/returned';
import { inkOf } from '@gatepath/core/scan';
import { readStored } from '../files/stored';
import { addDrawn, grayOf, scaleOf } from '../scan/page';
import { readWhole } from '../scan/whole';
import { openContent, pageContent } from '../pdf/content';
import { pdfium } from '../pdf/draw';
import { formFields } from '../pdf/fields';

/** What `inspect` prints of a file. */
export interface Inspection {
  pages: { width: number; height: number; rotation: number }[];
  /** Each place, and whether it is filled. */
  places: (PrintedPlace & { filled: Filled })[];
}

/**
 * Reads the places of a file: printed places, form fields, and places on scanned pages.
 *
 * @param blank the empty form, if there is one: its places are looked for in the file
 */
export async function inspect(file: string | Uint8Array, blank?: string | Uint8Array): Promise<Inspection> {
  const back = await wholePaper(file);
  const form = blank === undefined ? null : await wholePaper(blank);
  try {
    const round = (v: number) => Math.round(v * 1000) / 1000;
    const checked = await gapsOf(back, form);
    return {
      pages: back.came.map((c) => ({ width: round(c.width), height: round(c.height), rotation: c.rotation })),
      places: checked.flatMap(({ place, page, rect, filled }) => {
        // A page that did not come back is listed with the form's own number and place.
        const there = form ? { ...place, page: page ?? place.page, rect: roundRect(rect) } : place;
        return [{ ...(page === null ? there : back.asItCame(there)), filled }];
      }),
    };
  } finally {
    back.close();
    form?.close();
  }
}

interface WholePaper extends ReturnedPaper {
  /** The pages as read, before they were straightened. */
  came: PageContent[];
  asItCame: (place: PrintedPlace) => PrintedPlace;
  close: () => void;
}

/**
 * Returns the places of a file. Whether somebody has already written in them is not examined.
 *
 * @param placesOf  reads the places of pages; the bench reads with weights of its own
 */
export async function placesIn(file: string | Uint8Array, placesOf = readPlaces): Promise<PrintedPlace[]> {
  const paper = await wholePaper(file, placesOf);
  paper.close();
  return paper.places.map(paper.asItCame);
}

/** Returns a file with everything that is read on it. */
async function wholePaper(file: string | Uint8Array, placesOf = readPlaces): Promise<WholePaper> {
  const bytes = typeof file === 'string' ? await readStored(file) : file;
  const came = await contentsOf(bytes);
  const bare = came.contents.flatMap((c, i) => (c.scan === 'bare' ? [i + 1] : []));
  const read = bare.length ? await readWhole(bytes, bare) : null;
  const { contents, fields } = read ? await contentsOf(read.bytes) : came;
  // Pages are drawn only when somebody wants to see them.
  let drawn: Promise<PDFiumDocument> | null = null;
  const doc = () => (drawn ??= pdfium().then((p) => p.loadDocument(Buffer.from(read?.bytes ?? bytes))));
  for (const [i, content] of contents.entries()) if (content.scan) await addDrawn(await doc(), i + 1, content);
  return {
    came: came.contents,
    pages: contents.map((c, i) => ({
      width: c.width,
      height: c.height,
      words: wordsOf(linesOf(c.glyphs)),
      sheet: async () => ({ mask: inkOf(await grayOf(await doc(), i + 1, c)), scale: scaleOf(c) }),
    })),
    places: placesOf(contents, fields),
    asItCame: read?.asItCame ?? ((place) => place),
    close: () => void drawn?.then((d) => d.destroy()),
  };
}

/** Returns the text and drawing of every page of a file, and the places of its form fields. */
export async function contentsOf(bytes: Uint8Array): Promise<{ contents: PageContent[]; fields: PrintedPlace[] }> {
  const { doc, destroy } = await openContent(bytes);
  try {
    const contents: PageContent[] = [];
    for (let n = 1; n <= doc.numPages; n++) contents.push(await pageContent(doc, n));
    return { contents, fields: (await formFields(doc)).flatMap((f) => placeOfField(f) ?? []) };
  } finally {
    await destroy();
  }
}
