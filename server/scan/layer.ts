/**
 * Scanned pages, upright and straightened, with invisible words over them, so that they can be searched, selected and
 * read. The images themselves are unchanged.
 */
import { degrees, PDFDocument, StandardFonts, type PDFFont, type PDFName, type PDFPage } from '@cantoo/pdf-lib';
import type { Lie, PlacedWord } from '@gatepath/core/scan';
import { sizesOf, spaceOfPage } from '../pdf/space';
import { wrapContent } from './wrap';
import { itemAt } from '@gatepath/core/sure';

/** A recognized page. */
export interface ReadPage {
  /** From 1. */
  page: number;
  lie: Lie;
  /** Whether the straightened page is upside down. */
  over: boolean;
  words: PlacedWord[];
}

/** Returns a copy of a file with some of its pages straightened and their words laid over them. */
export async function withWords(
  bytes: Uint8Array,
  pages: ReadPage[],
): Promise<{ bytes: Uint8Array; pages: { width: number; height: number }[] }> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const read of pages) {
    const page = itemAt(doc.getPages(), read.page - 1);
    if (read.lie.straighten) straighten(page, read.lie.straighten);
    const turn = (read.lie.aside ? 90 : 0) + (read.over ? 180 : 0);
    if (turn) page.setRotation(degrees((page.getRotation().angle + turn) % 360));
    if (read.words.length) lay(page, font, read.words);
  }
  return { bytes: await doc.save({ useObjectStreams: false }), pages: sizesOf(doc) };
}

/** Turns what is on a page clockwise around its center. */
function straighten(page: PDFPage, byDegrees: number): void {
  const { width, height, toUser } = spaceOfPage(page);
  const [a, b, c, d, e, f] = toUser;
  const cx = a * (width / 2) + c * (height / 2) + e;
  const cy = b * (width / 2) + d * (height / 2) + f;
  // Clockwise as seen is against the sense in which PDF counts.
  const angle = (-byDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const m = [cos, sin, -sin, cos, cx - cos * cx + sin * cy, cy - sin * cx - cos * cy];
  wrapContent(page, `${m.map((v) => v.toFixed(6)).join(' ')} cm`, '');
}

function lay(page: PDFPage, font: PDFFont, words: PlacedWord[]): void {
  const name = page.node.newFontDictionary('Words', font.ref);
  wrapContent(page, '', textOf(page, name, font, words));
}

function textOf(page: PDFPage, name: PDFName, font: PDFFont, words: PlacedWord[]): string {
  const { height, toUser } = spaceOfPage(page);
  const [a, b, c, d, e, f] = toUser;
  const known = new Set(font.getCharacterSet());
  const n = (v: number) => String(Math.round(v * 1000) / 1000);
  const lines = ['q BT 3 Tr'];
  for (const word of words) {
    const text = Array.from(word.text)
      .filter((ch) => known.has(ch.codePointAt(0) ?? 0))
      .join('');
    // Letter by letter: nobody kerns what is shown as one string.
    const natural = Array.from(text).reduce((w, ch) => w + font.widthOfTextAtSize(ch, 1), 0);
    if (!natural || !(word.size > 0) || !(word.w > 0)) continue;
    const up = height - word.y;
    const at = [a, b, c, d, a * word.x + c * up + e, b * word.x + d * up + f];
    const stretch = (100 * word.w) / (natural * word.size);
    // A space after each word divides it from the next when text is copied.
    lines.push(
      `${name.toString()} ${n(word.size)} Tf ${n(stretch)} Tz ${at.map(n).join(' ')} Tm ${font.encodeText(`${text} `).toString()} Tj`,
    );
  }
  return `${lines.join('\n')}\nET Q\n`;
}
