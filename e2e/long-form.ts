/** A form of 14 pages with printed places for two sellers and two buyers, as a form library would send it. */
import { PDFDocument, rgb, StandardFonts } from '@cantoo/pdf-lib';

const CLAUSE =
  'The sellers and the buyers agree that the house, the mooring and everything that is fixed to them are handed over as they stand, unless this form says otherwise in the section that follows.';

export const LONG_PAGES = 14;

export async function longForm(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const bold = await doc.embedFont(StandardFonts.TimesRomanBold);
  const lines = (text: string, size: number, width: number) => {
    const out: string[] = [];
    let line = '';
    for (const word of text.split(' ')) {
      const next = line ? `${line} ${word}` : word;
      if (font.widthOfTextAtSize(next, size) > width) {
        out.push(line);
        line = word;
      } else line = next;
    }
    return [...out, line];
  };
  for (let n = 1; n <= LONG_PAGES; n++) {
    const page = doc.addPage([612, 792]);
    const last = n === LONG_PAGES;
    page.drawText(n === 1 ? 'Purchase agreement with disclosure' : `Section ${n}`, {
      x: 60,
      y: 730,
      size: 15,
      font: bold,
    });
    let y = 700;
    const clauses = last ? 3 : 8;
    for (let c = 0; c < clauses; c++) {
      for (const l of lines(`${n}.${c + 1} ${CLAUSE}`, 11, 490)) {
        page.drawText(l, { x: 60, y, size: 11, font });
        y -= 14;
      }
      y -= 10;
    }
    if (last)
      for (const who of ['Seller 1', 'Seller 2', 'Buyer 1', 'Buyer 2']) {
        y -= 34;
        page.drawLine({ start: { x: 60, y }, end: { x: 320, y }, thickness: 0.8, color: rgb(0, 0, 0) });
        page.drawLine({ start: { x: 350, y }, end: { x: 500, y }, thickness: 0.8, color: rgb(0, 0, 0) });
        page.drawText(who, { x: 60, y: y - 11, size: 9, font });
        page.drawText('Date', { x: 350, y: y - 11, size: 9, font });
        y -= 14;
      }
    page.drawText('Seller’s initials ( ______ ) ( ______ )', { x: 60, y: 60, size: 10, font });
    page.drawText('Buyer’s initials ( ______ ) ( ______ )', { x: 340, y: 60, size: 10, font });
    page.drawText(`page ${n} of ${LONG_PAGES}`, { x: 285, y: 30, size: 9, font });
  }
  return doc.save();
}
