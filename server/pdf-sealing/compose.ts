/** Making one document from pages of others: removed, turned, reordered, joined. */
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import { readStored } from '../files/stored';
import { sizesOf } from '../pdf/space';
import { printDefinition } from '../typesetting/typeset';
import { itemAt } from '@gatepath/core/sure';

/** A file and the pages to take from it. */
export interface ComposePart {
  file: string;
  /** From 1. */
  page: number;
  /** Clockwise, in addition to the page's own rotation. */
  turn: 0 | 90 | 180 | 270;
}

/** What to compose a PDF from. */
export interface ComposeTask {
  parts: ComposePart[];
  /** People whose signatures go on further pages, and the document's name. */
  further?: { paper: string; people: { called: string; name: string }[] };
}

/** Returns a PDF of the pages in the given order, with their sizes as displayed. */
export async function compose({
  parts,
  further,
}: ComposeTask): Promise<{ bytes: Uint8Array; pages: { width: number; height: number }[] }> {
  const out = await PDFDocument.create();
  const files = [...new Set(parts.map((p) => p.file))];
  const copied = new Map<string, Awaited<ReturnType<PDFDocument['copyPages']>>>();
  for (const file of files) {
    const source = await PDFDocument.load(await readStored(file), { updateMetadata: false });
    // All pages of a file in one go: what they share is copied once.
    const wanted = parts.filter((p) => p.file === file).map((p) => p.page - 1);
    copied.set(file, await out.copyPages(source, wanted));
  }
  const next = new Map<string, number>();
  for (const part of parts) {
    const i = next.get(part.file) ?? 0;
    next.set(part.file, i + 1);
    const page = itemAt(copied.get(part.file)!, i);
    if (part.turn) page.setRotation(degrees((page.getRotation().angle + part.turn) % 360));
    out.addPage(page);
  }
  if (further?.people.length) await addFurther(out, further);
  return { bytes: await out.save({ useObjectStreams: false }), pages: sizesOf(out) };
}

/** Adds pages for further signatures, in the size of the last page, with continued numbers. */
async function addFurther(out: PDFDocument, { paper, people }: NonNullable<ComposeTask['further']>): Promise<void> {
  const { width, height } = itemAt(sizesOf(out), out.getPageCount() - 1);
  const before = out.getPageCount();
  const margin = Math.min(64, width / 8);
  const wide = Math.min(270, (width - 2 * margin) * 0.6);
  const line = (w: number) => ({ canvas: [{ type: 'line', x1: 0, y1: 0, x2: w, y2: 0, lineWidth: 0.8 }] });
  const under = (w: number, ...words: string[]) => ({
    width: w,
    stack: [line(w), ...words.map((text) => ({ text, fontSize: 9, margin: [0, 1, 0, 0] }))],
  });
  const bytes = await printDefinition({
    pageSize: { width, height },
    pageMargins: [margin, 56, margin, 56],
    content: [
      { text: `Further signatures to “${paper}”`, bold: true, fontSize: 13, margin: [0, 0, 0, 6] },
      { text: 'These people sign the paper that this page belongs to.', fontSize: 10, margin: [0, 0, 0, 10] },
      ...people.map(({ called, name }) => ({
        unbreakable: true,
        columns: [under(wide, called, name), under(Math.min(130, wide / 2), 'Date')],
        columnGap: 24,
        margin: [0, 34, 0, 0],
      })),
    ],
    footer: (page: number) => ({
      text: `Page ${before + page}, continuing “${paper}”`,
      fontSize: 8.5,
      margin: [margin, 16, margin, 0],
    }),
  });
  const pages = await PDFDocument.load(bytes, { updateMetadata: false });
  for (const page of await out.copyPages(pages, pages.getPageIndices())) out.addPage(page);
}

/** Returns the sizes of a PDF's pages as displayed, in points. */
export async function sizes(bytes: Uint8Array): Promise<{ width: number; height: number }[]> {
  return sizesOf(await PDFDocument.load(bytes, { updateMetadata: false }));
}
