/** Making filled marks part of their pages: typed hands as text, drawn hands as vector strokes. */
import {
  LineCapStyle,
  LineJoinStyle,
  TextRenderingMode,
  appendBezierCurve,
  concatTransformationMatrix,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setLineCap,
  setLineJoin,
  setLineWidth,
  setStrokingColor,
  setTextRenderingMode,
  stroke,
  type PDFDocument,
  type PDFImage,
  type PDFPage,
  type RGB,
} from '@cantoo/pdf-lib';
import {
  drawingSteps,
  fitPicture,
  fitLine,
  PEN_WIDTH,
  setParagraph,
  setScript,
  setText,
  tickStrokes,
  type PathStep,
  type Rect,
  type Redline,
} from '@gatepath/core/marks';
import { inkOf } from '@gatepath/core/inks';
import type { ShownFill } from '@gatepath/contract';
import { Typesetter } from './fonts';
import { spaceOfPage, type PageSpace } from './space';

export function hexColor(hex: string): RGB {
  const n = (i: number) => parseInt(hex.slice(i, i + 2), 16) / 255;
  return rgb(n(1), n(3), n(5));
}

export const INK = hexColor('#1E2A32');

/** Draws every fill of one document onto its pages. */
export async function stampFills(
  doc: PDFDocument,
  type: Typesetter,
  fills: ShownFill[],
  pictures: Record<string, Uint8Array> = {},
): Promise<void> {
  const pages = doc.getPages();
  const embedded = new Map<string, PDFImage>();
  for (const [sha256, bytes] of Object.entries(pictures)) embedded.set(sha256, await doc.embedPng(bytes));
  for (const fill of fills) {
    const page = pages[fill.page - 1];
    if (!page) throw new Error(`mark ${fill.markId} is on page ${fill.page} of ${pages.length}`);
    await stampFill(page, type, fill, embedded);
  }
}

async function stampFill(
  page: PDFPage,
  type: Typesetter,
  fill: ShownFill,
  pictures: Map<string, PDFImage>,
): Promise<void> {
  const space = spaceOfPage(page);
  const color = hexColor(inkOf(fill.ink).color);
  const shows = fill.shows;
  if (shows.form === 'drawn' || shows.form === 'picture') {
    if (shows.form === 'drawn')
      upright(page, space, () => strokeSteps(page, space, drawingSteps(shows.drawing, fill.rect), color));
    else {
      const image = pictures.get(shows.picture.sha256);
      if (!image) throw new Error(`the picture of mark ${fill.markId} was not handed in`);
      const box = fitPicture(shows.picture, fill.rect);
      upright(page, space, () =>
        page.drawImage(image, { x: box.x, y: space.height - box.y - box.h, width: box.w, height: box.h }),
      );
    }
    const runs = await type.runs(shows.spoken, 'atkinson');
    // The words lie under it unseen, so that the page can be searched and read aloud.
    const fit = fitLine(shows.spoken, fill.rect, (_, s) => Typesetter.width(runs, s), 12, 2);
    upright(page, space, () => {
      page.pushOperators(setTextRenderingMode(TextRenderingMode.Invisible));
      Typesetter.draw(page, runs, fill.rect.x, space.height - fill.rect.y - fill.rect.h * 0.7, fit.size, color);
    });
    return;
  }
  if (shows.form === 'tick') {
    upright(page, space, () => strokeSteps(page, space, tickStrokes(fill.rect).map(lineSteps), INK));
    return;
  }
  if (shows.form === 'text') {
    await writeText(page, space, type, shows.text, fill.rect, fill.lines === 'several', INK);
    return;
  }
  const runs = await type.runs(shows.text, shows.face);
  const kind = fill.kind === 'initials' ? 'initials' : 'signature';
  const line = setScript(shows.text, kind, fill.rect, (_, size) => Typesetter.width(runs, size));
  upright(page, space, () => Typesetter.draw(page, runs, line.x, space.height - line.baseline, line.size, color));
}

/** Plain text in a box: one line resting on its foot, or several from its top. */
async function writeText(
  page: PDFPage,
  space: PageSpace,
  type: Typesetter,
  text: string,
  rect: Rect,
  several: boolean,
  color: RGB,
): Promise<void> {
  const runs = await type.runs(text.replace(/\n/g, ' '), 'atkinson');
  if (!several) {
    const line = setText(text, rect, (_, size) => Typesetter.width(runs, size));
    upright(page, space, () => Typesetter.draw(page, runs, line.x, space.height - line.baseline, line.size, color));
    return;
  }
  // Widths of words are summed up; the words of one text share their faces.
  const widths = new Map<string, number>();
  for (const word of new Set(text.split(/\s+/).filter(Boolean)))
    widths.set(word, Typesetter.width(await type.runs(word, 'atkinson'), 1));
  const gap = Typesetter.width(await type.runs(' ', 'atkinson'), 1);
  const measure = (t: string, size: number) => {
    const words = t.split(/\s+/).filter(Boolean);
    return (words.reduce((n, w) => n + (widths.get(w) ?? 0), 0) + Math.max(0, words.length - 1) * gap) * size;
  };
  for (const line of setParagraph(text, rect, measure)) {
    if (!line.text) continue;
    const own = await type.runs(line.text, 'atkinson');
    upright(page, space, () => Typesetter.draw(page, own, line.x, space.height - line.baseline, line.size, color));
  }
}

/** The ink of a preparer's changes: never a party's, never the print's. */
const REDLINE = hexColor('#8E1B2F');

/** Draws the preparer's changes: a line through what is struck, the words put in. */
export async function stampRedlines(doc: PDFDocument, type: Typesetter, redlines: Redline[]): Promise<void> {
  const pages = doc.getPages();
  for (const r of redlines) {
    const page = pages[r.page - 1];
    if (!page) throw new Error(`a change is on page ${r.page} of ${pages.length}`);
    const space = spaceOfPage(page);
    if (r.kind === 'insert') {
      await writeText(page, space, type, r.text, r.rects[0]!, true, REDLINE);
      continue;
    }
    const lines = r.rects.map((b) => lineSteps([b.x - 1, b.y + b.h * 0.52, b.x + b.w + 1, b.y + b.h * 0.52]));
    upright(page, space, () => strokeSteps(page, space, lines, REDLINE));
  }
}

const lineSteps = (p: readonly number[]): PathStep[] => [
  { to: 'M', x: p[0]!, y: p[1]! },
  { to: 'L', x: p[2]!, y: p[3]! },
];

/** Runs `draw` in displayed space with y up, whatever the page's rotation and crop. */
export function upright(page: PDFPage, space: PageSpace, draw: () => void): void {
  page.pushOperators(pushGraphicsState(), concatTransformationMatrix(...space.toUser));
  draw();
  page.pushOperators(popGraphicsState());
}

function strokeSteps(page: PDFPage, space: PageSpace, paths: PathStep[][], color: RGB): void {
  page.pushOperators(
    setStrokingColor(color),
    setLineWidth(PEN_WIDTH),
    setLineCap(LineCapStyle.Round),
    setLineJoin(LineJoinStyle.Round),
  );
  const up = (y: number) => space.height - y;
  for (const steps of paths) {
    let from = { x: 0, y: 0 };
    for (const s of steps) {
      if (s.to === 'M') page.pushOperators(moveTo(s.x, up(s.y)));
      else if (s.to === 'L') page.pushOperators(lineTo(s.x, up(s.y)));
      else {
        // PDF knows cubic curves only: a quadratic one raised by a degree.
        const third = (end: number, control: number) => end + (2 / 3) * (control - end);
        page.pushOperators(
          appendBezierCurve(
            third(from.x, s.cx),
            up(third(from.y, s.cy)),
            third(s.x, s.cx),
            up(third(s.y, s.cy)),
            s.x,
            up(s.y),
          ),
        );
      }
      from = s;
    }
    page.pushOperators(stroke());
  }
}
