/**
 * The one place that knows PDF user space. Everywhere else a point is in PDF points from the
 * top left corner of the page as displayed, y down. Here pages are turned by /Rotate and
 * cropped by /CropBox (ISO 32000-1, 7.7.3.3 and 14.11.2).
 */
import type { PDFDocument, PDFPage } from '@cantoo/pdf-lib';

/** A PDF matrix [a b c d e f]: x' = a x + c y + e, y' = b x + d y + f. */
export type Matrix = [number, number, number, number, number, number];

/** How a page's user space maps to the page as displayed. */
export interface PageSpace {
  /** Size as displayed, in points. */
  width: number;
  height: number;
  rotation: 0 | 90 | 180 | 270;
  /** From displayed space with y up (origin bottom left as displayed) to user space. */
  toUser: Matrix;
}

/** Returns the space of a page from its visible box in user space and its rotation (clockwise degrees). */
export function pageSpace(box: { x: number; y: number; width: number; height: number }, rotate: number): PageSpace {
  const rotation = ((((Math.round(rotate / 90) * 90) % 360) + 360) % 360) as PageSpace['rotation'];
  const { x, y, width: w, height: h } = box;
  const turned = rotation === 90 || rotation === 270;
  const toUser: Matrix =
    rotation === 0
      ? [1, 0, 0, 1, x, y]
      : rotation === 90
        ? [0, 1, -1, 0, x + w, y]
        : rotation === 180
          ? [-1, 0, 0, -1, x + w, y + h]
          : [0, -1, 1, 0, x, y + h];
  return { width: turned ? h : w, height: turned ? w : h, rotation, toUser };
}

/** Returns the space of a pdf-lib page: its crop box within the media box. */
export function spaceOfPage(page: PDFPage): PageSpace {
  const m = page.getMediaBox();
  const c = page.getCropBox();
  const x0 = Math.max(m.x, c.x);
  const y0 = Math.max(m.y, c.y);
  const x1 = Math.min(m.x + m.width, c.x + c.width);
  const y1 = Math.min(m.y + m.height, c.y + c.height);
  const box = x1 > x0 && y1 > y0 ? { x: x0, y: y0, width: x1 - x0, height: y1 - y0 } : m;
  return pageSpace(box, page.getRotation().angle);
}

/** Returns the sizes of a file's pages as displayed, in points, rounded to a thousandth. */
export function sizesOf(doc: PDFDocument): { width: number; height: number }[] {
  const round = (n: number) => Math.round(n * 1000) / 1000;
  return doc.getPages().map((page) => {
    const { width, height } = spaceOfPage(page);
    return { width: round(width), height: round(height) };
  });
}

/** Returns a point as displayed (y down) in user space. */
export function toUserPoint(space: PageSpace, x: number, y: number): { x: number; y: number } {
  const [a, b, c, d, e, f] = space.toUser;
  const up = space.height - y;
  return { x: a * x + c * up + e, y: b * x + d * up + f };
}
