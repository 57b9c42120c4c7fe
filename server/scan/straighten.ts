/** Pages that are pictures, set upright and laid straight as they are brought in; the pictures themselves stay as they are. */
import { degrees, type PDFDocument, type PDFPage } from '@cantoo/pdf-lib';
import { inkOf, lieOf, type Lie } from '@gatepath/core/scan';
import { drawPixels, pdfium } from '../pdf/draw';
import { spaceOfPage } from '../pdf/space';
import { wrapContent } from './wrap';
import { itemAt } from '@gatepath/core/sure';

/** Dots an inch that tell how a page lies, and most dots of a page. */
const LOOK_DPI = 100;
const MOST_DOTS = 4_000_000;
/** Degrees below which nobody sees that a page lies askew. */
const LEAST = 0.12;

/**
 * Straightens pages of a file that is being made.
 *
 * @param bytes the file as it stands
 * @param pages those that are pictures, from 1
 * @returns how the changed ones lay, by their numbers
 */
export async function straighten(
  doc: PDFDocument,
  bytes: Uint8Array,
  pages: number[],
  at: (where: string) => void,
): Promise<Map<number, Lie>> {
  const drawn = await (await pdfium()).loadDocument(Buffer.from(bytes));
  const changed = new Map<number, Lie>();
  try {
    for (const n of pages) {
      at(`page ${n}`);
      const page = itemAt(doc.getPages(), n - 1);
      const size = spaceOfPage(page);
      const dpi = Math.min(LOOK_DPI, 72 * Math.sqrt(MOST_DOTS / (size.width * size.height)));
      const pixels = await drawPixels(drawn, n, size, dpi, true);
      const lie = lieOf(inkOf(pixels));
      if (lay(page, lie)) changed.set(n, lie);
    }
  } finally {
    drawn.destroy();
  }
  return changed;
}

/** Turns what is on a page around the middle of it. */
function lay(page: PDFPage, lie: Lie): boolean {
  const skewed = Math.abs(lie.straighten) >= LEAST;
  if (skewed) {
    const { width, height, toUser } = spaceOfPage(page);
    const [a, b, c, d, e, f] = toUser;
    const cx = a * (width / 2) + c * (height / 2) + e;
    const cy = b * (width / 2) + d * (height / 2) + f;
    // Clockwise as seen is against the sense in which PDF counts.
    const angle = (-lie.straighten * Math.PI) / 180;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const m = [cos, sin, -sin, cos, cx - cos * cx + sin * cy, cy - sin * cx - cos * cy];
    wrapContent(page, `${m.map((v) => v.toFixed(6)).join(' ')} cm`, '');
  }
  if (lie.aside) page.setRotation(degrees((page.getRotation().angle + 90) % 360));
  return skewed || lie.aside;
}
