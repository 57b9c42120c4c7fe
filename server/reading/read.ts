/** Reading pages: where they carry ink (drawn by PDFium), their words and their places (by pdf.js). */
import { type InkGrid, type Rect, emptyGrid, inkRect, overlapArea, packGrid, setInk } from '@gatepath/core/paper';
import {
  filledBlanks,
  type FormField,
  linesOf,
  placeOfField,
  wordsOf,
  type PageContent,
  type PrintedPlace,
} from '@gatepath/core/reading';
import { readPlaces } from '@gatepath/core/reading/read';
import type { PackedFacts } from '@gatepath/contract';
import { cachedContent, pageContent } from '../pdf/content';
import { drawPixels, openFile, type PagePixels } from '../pdf/draw';
import { formFields } from '../pdf/fields';
import { readable, withRecognized, type Readable } from '@gatepath/core/scan';
import { addDrawn } from '../scan/page';
import { itemAt } from '@gatepath/core/sure';

/** Size of a cell of the ink grid, in points; at 96 dpi a cell is four pixels wide. */
const CELL = 3;
const READ_DPI = 96;
/** Difference in brightness (of 255) from the page's background above which a pixel counts as ink. */
const INK_CONTRAST = 22;

/** What to read: a prepared file and its original. */
export interface ReadTask {
  /** The prepared file. */
  file: string;
  /** The original file if it was a PDF: its form is read there. */
  original: string | null;
  sizes: { width: number; height: number }[];
  /** From 1, both included. */
  from: number;
  to: number;
  /** Words of the pages already read, which show what type of document it is. */
  before: string;
  /** What people have put on the pages of a sealed copy. */
  putOn?: PutOn[];
}

/** Something a person put on a page. */
export interface PutOn {
  /** From 1. */
  page: number;
  rect: Rect;
}

/** Share of a printed place that must be covered for the place to count as filled. */
const FILLED = 0.25;

/** Progress of reading. */
export interface ReadStep {
  /** Pages and places as items of JSON lists, without the brackets: the server only joins and compresses them. */
  pages: string;
  places: string;
  /** Scanned pages that have no words yet. */
  scans: number[];
  /** The words of these pages. */
  text: string;
}

/** Reads some pages of a file. */
export async function readPages(task: ReadTask, at: (where: string) => void): Promise<ReadStep> {
  const drawn = await openFile(task.file);
  const prepared = await cachedContent(task.file);
  const form = await readForm(task);
  const pages: PackedFacts['pages'] = [];
  const contents: PageContent[] = [];
  const scans: number[] = [];
  const recognized = new Map<number, Readable>();
  for (let page = task.from; page <= task.to; page++) {
    at(`page ${page}`);
    const size = itemAt(task.sizes, page - 1);
    const ink = inkOfPixels(await drawPixels(drawn, page, size, READ_DPI, true), size);
    const on = (task.putOn ?? []).filter((p) => p.page === page);
    for (const { rect } of on) inkRect(ink, rect);
    const content = await pageContent(prepared, page);
    if (content.scan === 'bare') scans.push(page);
    if (content.scan === 'worded') await addDrawn(drawn, page, content);
    const lines = linesOf(content.glyphs);
    const inFields = (form?.filled ?? []).flatMap((f) => (f.page === page ? [f.rect] : []));
    const filled = [...inFields, ...filledBlanks(content, lines)];
    const words = [
      ...wordsOf(lines).map((w) => ({ ...w, text: w.text.replace(/\s+/g, '') })),
      ...content.turned.map((rect) => ({ text: TURNED, rect })),
    ];
    if (content.scan === 'worded') {
      const letters = readable(content.glyphs);
      recognized.set(page, letters);
      contents.push({ ...content, glyphs: letters.glyphs });
    } else contents.push(content.scan ? content : (form?.contents[page - task.from] ?? content));
    pages.push({
      ...size,
      cols: ink.cols,
      rows: ink.rows,
      ink: packGrid(ink),
      print: words.flatMap(({ rect }) => flat(rect)),
      words: words.map((w) => w.text || TURNED).join(' '),
      ...(filled.length ? { filled: filled.flatMap(flat) } : {}),
    });
  }
  const places = readPlaces(contents, form?.places ?? [], task.before)
    .map((p) => ({ ...p, page: p.page + task.from - 1 }))
    .filter((p) => !isFilled(p, task.putOn ?? []));
  return {
    pages: items(pages),
    places: items(withRecognized(places, (page) => recognized.get(page))),
    scans,
    text: pages.map((p) => p.words).join(' '),
  };
}

/** Returns whether a person has put something on a printed place. */
const isFilled = ({ page, rect }: PrintedPlace, putOn: PutOn[]) =>
  putOn.some(
    (p) => p.page === page && overlapArea(p.rect, rect) >= FILLED * Math.min(rect.w * rect.h, p.rect.w * p.rect.h),
  );

/** Returns a rectangle as numbers, to a tenth of a point. */
const flat = (r: Rect) => [r.x, r.y, r.w, r.h].map((n) => Math.round(n * 10) / 10);

const items = (list: unknown[]) => JSON.stringify(list).slice(1, -1);

/** Stands for words that do not run left to right: they are print, but they are not read. */
const TURNED = '\u00b7';

/** The form of an original. */
interface OriginalForm {
  places: PrintedPlace[];
  /** Its pages without what the fields draw. */
  contents: PageContent[];
  /** Fields for text that have a value already. */
  filled: FormField[];
}

/** Returns the form of the original, if it has one. */
async function readForm(task: ReadTask): Promise<OriginalForm | null> {
  if (!task.original || task.original === task.file) return null;
  const doc = await cachedContent(task.original);
  const fields = await formFields(doc, task.from, task.to);
  if (!fields.length) return null;
  const contents: PageContent[] = [];
  for (let page = task.from; page <= task.to; page++) contents.push(await pageContent(doc, page));
  // A field with a value in it keeps that value, which is part of the page now.
  const places = fields.filter((f) => !f.filled).flatMap((f) => placeOfField(f) ?? []);
  const filled = fields.filter((f) => f.filled && (f.type === 'text' || f.type === 'list'));
  return { places: places.map((p) => ({ ...p, page: p.page - task.from + 1 })), contents, filled };
}

/** Returns the ink grid of a drawn page. The background is the most common brightness, so tinted sheets work too. */
export function inkOfPixels(px: PagePixels, size: { width: number; height: number }): InkGrid {
  const histogram = new Uint32Array(256);
  for (const v of px.data) histogram[v]!++;
  let ground = 255;
  for (let v = 255; v >= 0; v--) if (itemAt(histogram, v) > itemAt(histogram, ground)) ground = v;
  const grid = emptyGrid(size.width, size.height, CELL);
  const pxPerCol = (px.width / size.width) * CELL;
  const pxPerRow = (px.height / size.height) * CELL;
  for (let y = 0; y < px.height; y++) {
    const r = Math.min(grid.rows - 1, Math.floor(y / pxPerRow));
    const row = y * px.width;
    for (let x = 0; x < px.width; x++) {
      if (Math.abs(itemAt(px.data, row + x) - ground) < INK_CONTRAST) continue;
      setInk(grid, Math.min(grid.cols - 1, Math.floor(x / pxPerCol)), r);
    }
  }
  return grid;
}
