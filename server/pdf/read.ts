/** Reading pages: where they carry ink (drawn by PDFium) and where their words are (by pdf.js). */
import { readFile } from 'node:fs/promises';
import { getDocument, Util, VerbosityLevel } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { packGrid, setInk, emptyGrid, type InkGrid, type Rect } from '@gatepath/core/marks';
import type { PackedFacts } from '@gatepath/contract';
import { drawPixels, openFile, type PagePixels } from './draw';

/** Cells of the ink grid, in points; at 96 dpi a cell is four pixels wide. */
const CELL = 3;
const READ_DPI = 96;
/** Difference in brightness (of 255) from the page's ground from which a pixel counts as ink. */
const INK_CONTRAST = 22;

/** Facts of pages `from` to `to` (from 1, both included) of a file. */
export async function readFacts(task: {
  file: string;
  sizes: { width: number; height: number }[];
  from: number;
  to: number;
}): Promise<PackedFacts['pages']> {
  const doc = await openFile(task.file);
  const print = await readPrint(task.file, task.from, task.to);
  const out: PackedFacts['pages'] = [];
  for (let page = task.from; page <= task.to; page++) {
    const size = task.sizes[page - 1]!;
    const ink = inkOfPixels(await drawPixels(doc, page, size, READ_DPI, true), size);
    out.push({
      ...size,
      cols: ink.cols,
      rows: ink.rows,
      ink: packGrid(ink),
      print: print[page - task.from]!.flatMap((r) => [r.x, r.y, r.w, r.h].map((n) => Math.round(n * 10) / 10)),
    });
  }
  return out;
}

/** The ink grid of a drawn page. The ground is its commonest brightness, so tinted sheets work too. */
export function inkOfPixels(px: PagePixels, size: { width: number; height: number }): InkGrid {
  const histogram = new Uint32Array(256);
  for (const v of px.data) histogram[v]!++;
  let ground = 255;
  for (let v = 255; v >= 0; v--) if (histogram[v]! > histogram[ground]!) ground = v;
  const grid = emptyGrid(size.width, size.height, CELL);
  const pxPerCol = (px.width / size.width) * CELL;
  const pxPerRow = (px.height / size.height) * CELL;
  for (let y = 0; y < px.height; y++) {
    const r = Math.min(grid.rows - 1, Math.floor(y / pxPerRow));
    const row = y * px.width;
    for (let x = 0; x < px.width; x++) {
      if (Math.abs(px.data[row + x]! - ground) < INK_CONTRAST) continue;
      setInk(grid, Math.min(grid.cols - 1, Math.floor(x / pxPerCol)), r);
    }
  }
  return grid;
}

/** Boxes of printed words, page by page, in points as displayed. */
async function readPrint(file: string, from: number, to: number): Promise<Rect[][]> {
  const task = getDocument({
    data: new Uint8Array(await readFile(file)),
    verbosity: VerbosityLevel.ERRORS,
    disableFontFace: true,
    useSystemFonts: false,
    isEvalSupported: false,
  });
  const doc = await task.promise;
  const pages: Rect[][] = [];
  try {
    for (let n = from; n <= to; n++) {
      const page = await doc.getPage(n);
      const view = page.getViewport({ scale: 1 });
      const content = await page.getTextContent();
      const boxes: Rect[] = [];
      for (const item of content.items) {
        if (!('str' in item) || !item.str.trim()) continue;
        const tx = Util.transform(view.transform, item.transform) as number[];
        boxes.push(...wordBoxes(item.str, tx, item.width));
      }
      pages.push(boxes);
      page.cleanup();
    }
  } finally {
    await task.destroy();
  }
  return pages;
}

/** Relative widths are enough to tell where within a run the blanks lie. */
function charWeight(c: string): number {
  if (/[ilIj.,:;'|!()[\] ft]/.test(c)) return 0.3;
  if (/[A-Zmw@%]/.test(c)) return 0.72;
  return 0.52;
}

/** Characters that forms print to be written upon, not to be read. */
const BLANK = /[_\u2026]+|[.\u00b7]{3,}|-{4,}|\s{2,}/gu;

/** The readable stretches of one text run as boxes; underscores and leaders are left out. */
function wordBoxes(text: string, tx: number[], width: number): Rect[] {
  const [a, b, c, d, e, f] = tx as [number, number, number, number, number, number];
  const along = Math.hypot(a, b) || 1;
  const height = Math.hypot(c, d) || along;
  const ux = a / along;
  const uy = b / along;
  const vx = c / height;
  const vy = d / height;
  const ends = [0];
  for (const ch of text) ends.push(ends[ends.length - 1]! + charWeight(ch));
  const total = ends[ends.length - 1]!;
  const chars = Array.from(text);
  const out: Rect[] = [];
  const stretch = (from: number, to: number) => {
    while (from < to && chars[from]!.trim() === '') from++;
    while (to > from && chars[to - 1]!.trim() === '') to--;
    if (to <= from) return;
    const x0 = (ends[from]! / total) * width;
    const x1 = (ends[to]! / total) * width;
    // From a little below the baseline (descenders) to the height of capitals.
    const corners = [
      [x0, -0.2 * height],
      [x1, -0.2 * height],
      [x0, 0.74 * height],
      [x1, 0.74 * height],
    ].map(([s, t]) => [e + s! * ux + t! * vx, f + s! * uy + t! * vy] as const);
    const xs = corners.map((p) => p[0]);
    const ys = corners.map((p) => p[1]);
    const x = Math.min(...xs);
    const y = Math.min(...ys);
    out.push({ x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y });
  };
  let at = 0;
  const joined = chars.map((ch) => (ch.length === 1 ? ch : 'x')).join('');
  for (const m of joined.matchAll(BLANK)) {
    stretch(at, m.index);
    at = m.index + m[0].length;
  }
  stretch(at, chars.length);
  return out;
}
