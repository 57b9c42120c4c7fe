/** Words laid unseen over the picture of a page, so that they can be searched for, selected and read. */
import { degrees, PDFDocument, StandardFonts, type PDFFont, type PDFName, type PDFPage } from '@cantoo/pdf-lib';
import type { PlacedWord } from '@gatepath/core/scan';
import { spaceOfPage } from '../pdf/space';
import { wrapContent } from './wrap';
import { itemAt } from '@gatepath/core/sure';

export interface ReadPage {
  /** From 1. */
  page: number;
  /** Whether it stands on its head. */
  over: boolean;
  words: PlacedWord[];
}

/** A copy of a file with the words of its pages laid over them. */
export async function withWords(bytes: Uint8Array, pages: ReadPage[]): Promise<Uint8Array> {
  const doc = await PDFDocument.load(bytes, { updateMetadata: false });
  const font = await doc.embedFont(StandardFonts.Helvetica);
  for (const read of pages) {
    const page = itemAt(doc.getPages(), read.page - 1);
    if (read.over) page.setRotation(degrees((page.getRotation().angle + 180) % 360));
    if (read.words.length) lay(page, font, read.words);
  }
  return doc.save({ useObjectStreams: false });
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
    // A space behind each word parts it from the next for whoever copies them.
    lines.push(
      `${name.toString()} ${n(word.size)} Tf ${n(stretch)} Tz ${at.map(n).join(' ')} Tm ${font.encodeText(`${text} `).toString()} Tj`,
    );
  }
  return `${lines.join('\n')}\nET Q\n`;
}
