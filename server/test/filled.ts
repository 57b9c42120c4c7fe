/** Fills printed places with a pen, for measuring what is seen of it. */
import { PDFDocument, rgb } from '@cantoo/pdf-lib';
import type { Rect } from '@gatepath/core/paper';
import type { PlaceKind } from '@gatepath/core/reading';
import { itemAt } from '@gatepath/core/sure';
import { wrapContent } from '../scan/wrap';

export interface ToFill {
  /** From 1. */
  page: number;
  kind: PlaceKind;
  rect: Rect;
}

/** Returns a copy of a paper with something written at some places; all pages must stand upright. */
export async function filledIn(paper: Uint8Array, places: ToFill[], random: () => number): Promise<Uint8Array> {
  const doc = await PDFDocument.load(paper, { updateMetadata: false });
  // What a page's own content leaves turned or stretched is not the pen's.
  for (const page of doc.getPages()) wrapContent(page, '', '');
  for (const { page: n, kind, rect } of places) {
    const page = itemAt(doc.getPages(), n - 1);
    const { height } = page.getSize();
    const pen = [rgb(0.1, 0.14, 0.42), rgb(0.08, 0.08, 0.1), rgb(0.05, 0.2, 0.5)][Math.floor(random() * 3)]!;
    const strokes = kind === 'checkbox' ? tick(rect, random) : hand(rect, kind, random);
    page.drawSvgPath(strokes, { x: 0, y: height, borderColor: pen, borderWidth: 0.7 + 0.9 * random() });
  }
  return doc.save();
}

function tick({ x, y, w, h }: Rect, random: () => number): string {
  const s = Math.min(w, h, 11) * (0.7 + 0.5 * random());
  const cx = x + Math.min(w, 12) / 2;
  const cy = y + h - Math.min(h, 12) / 2;
  return random() < 0.5
    ? `M ${cx - s / 2} ${cy - s / 2} L ${cx + s / 2} ${cy + s / 2} M ${cx + s / 2} ${cy - s / 2} L ${cx - s / 2} ${cy + s / 2}`
    : `M ${cx - s / 2} ${cy} L ${cx - s / 8} ${cy + s / 2} L ${cx + s * 0.7} ${cy - s * 0.6}`;
}

/** Loops and strokes along the line, as long as a signature, initials or a date are. */
function hand({ x, y, w, h }: Rect, kind: PlaceKind, random: () => number): string {
  const foot = y + h - 1.5;
  const long = kind === 'initials' ? Math.min(w * 0.8, 16 + 8 * random()) : w * (0.35 + 0.4 * random());
  const tall = Math.min(kind === 'signature' ? 22 : 11, 7 + 14 * random());
  const from = x + 2 + random() * Math.max(0, w - long - 4);
  let at = from;
  let path = `M ${at} ${foot - tall * 0.3}`;
  while (at < from + long) {
    const step = 3 + 5 * random();
    const up = foot - tall * (0.4 + 0.6 * random());
    const down = foot - tall * (0.25 * random()) + (random() < 0.15 ? 4 : 0);
    path += ` C ${at + step * 0.2} ${up}, ${at + step * 0.9} ${up}, ${at + step} ${foot - tall * 0.3} S ${at + step * 0.4} ${down}, ${at + step * 1.2} ${down}`;
    at += step;
  }
  return path;
}
