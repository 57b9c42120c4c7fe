/** Drawing pages with PDFium in a worker; the last few documents stay open. */
import { PDFiumLibrary, type PDFiumDocument } from '@hyzyla/pdfium';
import sharp from 'sharp';
import { readStored } from '../files/stored';

let library: Promise<PDFiumLibrary> | null = null;
const open = new Map<string, { doc: PDFiumDocument; pagesTouched: number }>();
/** Sealed copies, whose marks are in their forms too. Prepared files have none. */
const withForm = new WeakSet<PDFiumDocument>();
const KEEP = 3;
/** PDFium retains every loaded page until the document is closed; this limits that. */
const PAGES_BEFORE_REOPEN = 150;

/** Returns PDFium, started once per worker. */
export function pdfium(): Promise<PDFiumLibrary> {
  library ??= PDFiumLibrary.init();
  return library;
}

/** Returns the document of a file, from those open or newly opened. */
export async function openFile(file: string): Promise<PDFiumDocument> {
  const kept = open.get(file);
  if (kept && ++kept.pagesTouched < PAGES_BEFORE_REOPEN) {
    open.delete(file);
    open.set(file, kept);
    return kept.doc;
  }
  if (kept) close(file);
  const bytes = Buffer.from(await readStored(file));
  const doc = await (await pdfium()).loadDocument(bytes);
  if (bytes.includes('/AcroForm')) withForm.add(doc);
  open.set(file, { doc, pagesTouched: 1 });
  while (open.size > KEEP) close(open.keys().next().value!);
  return doc;
}

function close(file: string): void {
  open.get(file)?.doc.destroy();
  open.delete(file);
}

/** A drawn page. */
export interface PagePixels {
  width: number;
  height: number;
  data: Uint8Array;
}

/** Draws a page into raw pixels: 1 byte per pixel if `gray`, otherwise RGBA. */
export async function drawPixels(
  doc: PDFiumDocument,
  page: number,
  size: { width: number; height: number },
  dpi: number,
  gray: boolean,
): Promise<PagePixels> {
  const out = await doc.getPage(page - 1).render({
    width: Math.max(1, Math.round((size.width * dpi) / 72)),
    height: Math.max(1, Math.round((size.height * dpi) / 72)),
    scale: 1,
    renderFormFields: withForm.has(doc),
    colorSpace: gray ? 'Gray' : 'BGRA',
    render: async (o) => o.data,
  });
  return { width: out.width, height: out.height, data: out.data };
}

/** Draws a page as PNG. */
export async function drawPng(task: {
  file: string;
  page: number;
  size: { width: number; height: number };
  dpi: number;
}): Promise<Uint8Array> {
  const doc = await openFile(task.file);
  const px = await drawPixels(doc, task.page, task.size, task.dpi, false);
  const png = await sharp(px.data, { raw: { width: px.width, height: px.height, channels: 4 } })
    // Four channels as drawn: removing the last costs more time than it saves, and more bytes too.
    .png({ compressionLevel: 3 })
    .toBuffer();
  return png;
}
