/** Making one document of pages of others: left out, turned, reordered, joined. */
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import { readStored } from '../files/stored';
import { spaceOfPage } from './space';
import { itemAt } from '@gatepath/core/sure';

export interface ComposePart {
  file: string;
  /** From 1. */
  page: number;
  /** Clockwise, beyond how the page stands already. */
  turn: 0 | 90 | 180 | 270;
}

/** A PDF of the pages in the order given, with their sizes as displayed. */
export async function compose(
  parts: ComposePart[],
): Promise<{ bytes: Uint8Array; pages: { width: number; height: number }[] }> {
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
  return { bytes: await out.save({ useObjectStreams: false }), pages: sizesOf(out) };
}

function sizesOf(doc: PDFDocument): { width: number; height: number }[] {
  const round = (n: number) => Math.round(n * 1000) / 1000;
  return doc.getPages().map((p) => {
    const s = spaceOfPage(p);
    return { width: round(s.width), height: round(s.height) };
  });
}

/** The sizes of a PDF's pages as displayed, in points. */
export async function sizes(bytes: Uint8Array): Promise<{ width: number; height: number }[]> {
  return sizesOf(await PDFDocument.load(bytes, { updateMetadata: false }));
}
