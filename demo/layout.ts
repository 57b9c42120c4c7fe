/** Setting the demo's papers: a small flow of headings, clauses, blanks and signature blocks over pages. */
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';
import { PDFDocument, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';

const require = createRequire(import.meta.url);
const SIZE = { width: 612, height: 792 };
const LEFT = 66;
const RIGHT = SIZE.width - 66;
const TOP = SIZE.height - 62;
const FOOT = 104;
const INK = rgb(0.12, 0.16, 0.2);
const GREY = rgb(0.42, 0.45, 0.48);

async function face(doc: PDFDocument, bold: boolean): Promise<PDFFont> {
  const root = path.dirname(require.resolve('@expo-google-fonts/atkinson-hyperlegible/package.json'));
  const file = bold ? '700Bold/AtkinsonHyperlegible_700Bold.ttf' : '400Regular/AtkinsonHyperlegible_400Regular.ttf';
  return doc.embedFont(new Uint8Array(await readFile(path.join(root, file))), { subset: true });
}

/** A paper being written, top to bottom; pages turn by themselves. */
export class PaperWriter {
  private page!: PDFPage;
  private y = 0;

  private constructor(
    private readonly doc: PDFDocument,
    private readonly text: PDFFont,
    private readonly bold: PDFFont,
    private readonly title: string,
    private readonly initialsLine: string | null,
    /** Line spacing as a multiple of the usual one. */
    private readonly air: number,
  ) {}

  /**
   * Begins a paper.
   *
   * @param initialsLine  words before the initials blanks at the foot of every page, or null for none
   */
  static async begin(title: string, initialsLine: string | null, air = 1): Promise<PaperWriter> {
    const doc = await PDFDocument.create();
    doc.registerFontkit(fontkit as never);
    doc.setTitle(title);
    doc.setAuthor('Towpath & Vane Realty');
    const w = new PaperWriter(doc, await face(doc, false), await face(doc, true), title, initialsLine, air);
    w.turn();
    return w;
  }

  private turn(): void {
    this.page = this.doc.addPage([SIZE.width, SIZE.height]);
    this.y = TOP;
  }

  private need(height: number): void {
    if (this.y - height < FOOT) this.turn();
  }

  private lines(text: string, font: PDFFont, size: number, width: number): string[] {
    const out: string[] = [];
    let line = '';
    for (const word of text.split(/\s+/)) {
      const next = line ? `${line} ${word}` : word;
      if (line && font.widthOfTextAtSize(next, size) > width) {
        out.push(line);
        line = word;
      } else line = next;
    }
    if (line) out.push(line);
    return out;
  }

  private put(text: string, x: number, size: number, font: PDFFont, color = INK): void {
    this.page.drawText(text, { x, y: this.y - size, size, font, color });
  }

  head(text: string, under: string): this {
    this.put(text, LEFT, 19, this.bold);
    this.y -= 28;
    this.put(under, LEFT, 10.5, this.text, GREY);
    this.y -= 26;
    return this;
  }

  section(text: string): this {
    this.need(60);
    this.y -= 14;
    this.put(text, LEFT, 13.5, this.bold);
    this.y -= 26;
    return this;
  }

  clause(text: string): this {
    for (const l of this.lines(text, this.text, 11.5, RIGHT - LEFT)) {
      this.need(18 * this.air);
      this.put(l, LEFT, 11.5, this.text);
      this.y -= 18 * this.air;
    }
    this.y -= 9 * this.air;
    return this;
  }

  /** Draws a question with boxes for yes, no and unknown. */
  question(text: string): this {
    const lines = this.lines(text, this.text, 10.5, 330);
    this.need(lines.length * 17 + 9);
    for (const [i, l] of lines.entries()) {
      this.put(l, LEFT, 10.5, this.text);
      if (i === 0) {
        ['Yes', 'No', 'Unknown'].forEach((label, k) => {
          const x = 418 + k * 44;
          this.page.drawRectangle({ x, y: this.y - 10.5, width: 9, height: 9, borderColor: INK, borderWidth: 0.8 });
          this.put(label, x + 12, 9, this.text);
        });
      }
      this.y -= 17 * this.air;
    }
    this.y -= 9 * this.air;
    return this;
  }

  blank(label: string): this {
    this.need(34);
    this.put(label, LEFT, 10.5, this.text);
    const from = LEFT + this.text.widthOfTextAtSize(label, 10.5) + 8;
    this.page.drawLine({
      start: { x: from, y: this.y - 11 },
      end: { x: RIGHT, y: this.y - 11 },
      thickness: 0.7,
      color: INK,
    });
    this.y -= 30 * this.air;
    return this;
  }

  /** Turns the page unless so many points are left: what belongs together stays together. */
  keep(height: number): this {
    this.need(height);
    return this;
  }

  /** Draws a signature line and a date line with their captions. */
  signature(label: string): this {
    this.need(64);
    this.y -= 30;
    this.page.drawLine({
      start: { x: LEFT, y: this.y },
      end: { x: LEFT + 280, y: this.y },
      thickness: 0.8,
      color: INK,
    });
    this.page.drawLine({
      start: { x: LEFT + 310, y: this.y },
      end: { x: RIGHT, y: this.y },
      thickness: 0.8,
      color: INK,
    });
    this.y -= 3;
    this.put(label, LEFT, 9, this.text, GREY);
    this.put('Date', LEFT + 310, 9, this.text, GREY);
    this.y -= 20;
    return this;
  }

  async finish(): Promise<Uint8Array> {
    const pages = this.doc.getPages();
    pages.forEach((page, i) => {
      if (this.initialsLine)
        page.drawText(`${this.initialsLine} ( ______ ) ( ______ )`, {
          x: LEFT,
          y: 58,
          size: 9.5,
          font: this.text,
          color: INK,
        });
      const number = `${this.title}, page ${i + 1} of ${pages.length}`;
      page.drawText(number, {
        x: RIGHT - this.text.widthOfTextAtSize(number, 8.5),
        y: 36,
        size: 8.5,
        font: this.text,
        color: GREY,
      });
      page.drawText('Towpath & Vane Realty, Tern Lock', { x: LEFT, y: 36, size: 8.5, font: this.text, color: GREY });
    });
    return this.doc.save();
  }
}
