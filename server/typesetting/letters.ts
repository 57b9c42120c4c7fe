/** Letters to mail: for each a first page with the address and a slip to sign, then its documents, in one file. */
import { PDFDocument } from '@cantoo/pdf-lib';
import { readStored } from '../files/stored';
import { printDefinition } from './typeset';

interface Cover {
  from: string;
  /** Name and address, line by line. */
  to: string[];
  day: string;
  subject: string;
  /** Paragraphs. */
  text: string[];
  /** Names of the enclosed documents. */
  enclosed: string[];
  enclosedWord: string;
  /** What the slip confirms. */
  slip: string;
  signWord: string;
  dateWord: string;
}

/** A letter to typeset. */
export interface LetterTask {
  letters: {
    /** Null for the documents alone. */
    cover: Cover | null;
    files: ({ file: string } | { bytes: Uint8Array })[];
  }[];
}

/** Puts letters one after another; each starts on a sheet of its own when printed on both sides. */
export async function setLetters({ letters }: LetterTask, at: (where: string) => void): Promise<Uint8Array> {
  const out = await PDFDocument.create();
  for (const [i, { cover, files }] of letters.entries()) {
    at(`letter ${i + 1}`);
    const parts = cover ? [await coverOf(cover)] : [];
    for (const f of files) parts.push('file' in f ? await readStored(f.file) : f.bytes);
    let pages = 0;
    for (const bytes of parts) {
      const source = await PDFDocument.load(bytes, { updateMetadata: false });
      // Fields cannot be copied page by page: their contents become part of the page.
      if (source.getForm().getFields().length) source.getForm().flatten();
      for (const page of await out.copyPages(source, source.getPageIndices())) {
        out.addPage(page);
        pages++;
      }
    }
    if (letters.length > 1 && pages % 2) out.addPage([612, 792]);
  }
  return out.save({ useObjectStreams: false });
}

function coverOf(c: Cover): Promise<Uint8Array> {
  const line = (w: number) => ({ canvas: [{ type: 'line', x1: 0, y1: 1, x2: w, y2: 1, lineWidth: 0.7 }] });
  const under = (w: number, word: string) => ({
    width: w,
    stack: [line(w), { text: word, fontSize: 9, margin: [0, 2, 0, 0] }],
  });
  return printDefinition({
    pageSize: { width: 612, height: 792 },
    pageMargins: [64, 60, 64, 200],
    info: { title: c.subject },
    defaultStyle: { fontSize: 11, lineHeight: 1.25 },
    content: [
      { text: c.from, bold: true, margin: [0, 0, 0, 40] },
      { stack: c.to, margin: [0, 0, 0, 28] },
      { text: c.day, margin: [0, 0, 0, 20] },
      { text: c.subject, bold: true, fontSize: 13, margin: [0, 0, 0, 10] },
      ...c.text.map((t) => ({ text: t, margin: [0, 0, 0, 8], preserveLeadingSpaces: true })),
      { text: c.enclosedWord, bold: true, margin: [0, 12, 0, 4] },
      { ul: c.enclosed },
    ],
    // The slip is at the foot of the first page, to be cut off; other pages have none.
    footer: (page: number) =>
      page === 1
        ? {
            margin: [64, 0, 64, 0],
            stack: [
              { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 484, y2: 0, lineWidth: 0.7, dash: { length: 4 } }] },
              { text: c.slip, fontSize: 10, margin: [0, 16, 0, 46] },
              { columns: [under(240, c.signWord), under(120, c.dateWord)], columnGap: 24 },
            ],
          }
        : '',
  });
}
