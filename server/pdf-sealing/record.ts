/** The signing record: the last pages of a sealed copy. Who did what, when, from where. */
import {
  PDFDocument,
  concatTransformationMatrix,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setLineWidth,
  setStrokingColor,
  stroke,
  type RGB,
} from '@cantoo/pdf-lib';
import { Typesetter, type FaceName } from '../typesetting/fonts';
import { Appearance } from '../typesetting/appearance';
import type { Spot, Spots } from './spots';
import { INK } from './stamp';
import { hexColor } from '../typesetting/color';
import { itemAt } from '@gatepath/core/sure';

/** The record of one document in one language; all texts ready to print. */
export interface RecordContent {
  title: string;
  packetName: string;
  dealName: string;
  /** Label and value, as a table at the top. */
  facts: [label: string, value: string][];
  explains: string;
  sections: RecordSection[];
}

/** A section of the signing record. */
export type RecordSection =
  | { heading: string; people: { name: string; lines: string[] }[] }
  | { heading: string; acts: { name: string; items: string[] }[] }
  | { heading: string; lines: string[] };

const PAGE = { width: 612, height: 792 };
const MARGIN = 54;
const SLATE = hexColor('#5B6770');
const RULE = rgb(0.87, 0.84, 0.77);

/** Marks a page that is reserved for the record of a packet (second-class name; ISO 32000-1, Annex E). */
const RECORD_PAGE = 'GatePath_Record';

const placeOn = (packetId: string, page: number): Spot => ({
  id: `record ${packetId} ${page}`,
  page,
  rect: { x: 0, y: 0, w: PAGE.width, h: PAGE.height },
  around: 0,
});

/** What a reserved page says before it is used, and if the record did not need it. */
export interface RecordPageWords {
  kept: string[];
  unused: string[];
}

/** Reserves as many pages at the end as such records would take. Only before the first seal. */
export async function reserveRecordPages(
  spots: Spots,
  type: Typesetter,
  packetId: string,
  like: RecordContent[],
  words: RecordPageWords,
): Promise<void> {
  // Laid out separately, so that the document does not include glyphs of words that were not said yet.
  const pages = await layRecords(new Typesetter(await PDFDocument.create()), like);
  const look = await layWords(type, words.kept);
  for (let i = 0; i < pages.length; i++) {
    const page = spots.addPage(PAGE.width, PAGE.height, { key: RECORD_PAGE, value: packetId });
    spots.keep(placeOn(packetId, page), TITLE, null, look);
  }
}

/** Scales at which a record may be set to fit its reserved pages. */
const SCALES = [0.9, 0.8, 0.7];

/**
 * Writes the records on the pages that were kept for them; set smaller if they came out longer than
 * was foreseen. Where they still do not fit, pages are added if `mayGrow`.
 *
 * @returns false when they were not written, since there is no room and none may be made
 */
export async function writeRecords(
  spots: Spots,
  type: Typesetter,
  packetId: string,
  records: RecordContent[],
  words: RecordPageWords,
  mayGrow: boolean,
): Promise<boolean> {
  const kept = spots.pagesMarked(RECORD_PAGE, packetId);
  // Not even laid out: the document would take in the letters.
  if (!kept.length && !mayGrow) return false;
  let looks = await layRecords(type, records);
  for (const scale of SCALES)
    if (kept.length && looks.length > kept.length) looks = await layRecords(type, records, scale);
  const isWritten = mayGrow || looks.length <= kept.length;
  if (!isWritten) looks = [];
  for (const [i, look] of looks.entries()) {
    const page = kept[i] ?? spots.addPage(PAGE.width, PAGE.height, null);
    spots.put(placeOn(packetId, page), `record ${i}`, look, TITLE, null);
  }
  const left = kept.slice(looks.length);
  const unused = left.length ? await layWords(type, words.unused) : new Appearance();
  for (const page of left) spots.put(placeOn(packetId, page), 'unused', unused, TITLE, null);
  return isWritten;
}

/** Returns a document without pages, to become a record of its own. */
export async function emptyRecord(): Promise<Uint8Array> {
  const doc = await PDFDocument.create();
  return doc.save({ addDefaultPage: false, useObjectStreams: false });
}

const TITLE = 'Signing record';

async function layRecords(type: Typesetter, records: RecordContent[], scale = 1): Promise<Appearance[]> {
  const pages: Appearance[] = [];
  for (const record of records) pages.push(...(await layRecord(type, record, scale)));
  return pages;
}

async function layWords(type: Typesetter, lines: string[]): Promise<Appearance> {
  const flow = new Flow(type);
  for (const l of lines) await flow.text(l, 11, 'document', SLATE);
  return itemAt(flow.pages, 0);
}

/** Returns a record laid out, one appearance per page. */
async function layRecord(type: Typesetter, record: RecordContent, scale: number): Promise<Appearance[]> {
  const flow = new Flow(type, scale);
  await flow.text(record.title, 18, 'document-bold');
  await flow.text(`${record.packetName} · ${record.dealName}`, 11);
  flow.space(8);
  for (const [label, value] of record.facts) await flow.pair(label, value);
  flow.space(4);
  await flow.text(record.explains, 9, 'document', SLATE);
  for (const section of record.sections) {
    await flow.heading(section.heading);
    if ('people' in section)
      for (const p of section.people) {
        await flow.text(p.name, 10.5, 'document-bold');
        for (const l of p.lines) await flow.text(l, 9.5, 'document', INK, 12);
        flow.space(5);
      }
    else if ('acts' in section)
      for (const a of section.acts) {
        await flow.text(a.name, 10.5, 'document-bold');
        await flow.columns(a.items, 3);
        flow.space(5);
      }
    else for (const l of section.lines) await flow.text(l, 9.5);
  }
  return flow.pages;
}

/** A column of text that continues over pages. */
class Flow {
  readonly pages: Appearance[] = [];
  private readonly width: number;
  private page!: Appearance;
  private y = 0;

  constructor(
    private readonly type: Typesetter,
    private readonly scale = 1,
  ) {
    this.width = PAGE.width / scale;
    this.turn();
  }

  private turn(): void {
    this.page = new Appearance();
    if (this.scale !== 1) this.page.push(concatTransformationMatrix(this.scale, 0, 0, this.scale, 0, 0));
    this.pages.push(this.page);
    this.y = PAGE.height / this.scale - MARGIN;
  }

  private need(height: number): void {
    if (this.y - height < MARGIN) this.turn();
  }

  space(points: number): void {
    this.y -= points;
  }

  async heading(text: string): Promise<void> {
    this.need(60);
    this.space(12);
    this.page.push(
      pushGraphicsState(),
      setStrokingColor(RULE),
      setLineWidth(0.7),
      moveTo(MARGIN, this.y),
      lineTo(this.width - MARGIN, this.y),
      stroke(),
      popGraphicsState(),
    );
    this.space(8);
    await this.text(text, 12.5, 'document-bold');
    this.space(3);
  }

  async pair(label: string, value: string): Promise<void> {
    this.need(15);
    await this.line(label, MARGIN, 9.5, 'document', SLATE);
    const at = MARGIN + 120;
    for (const l of await this.wrap(value, this.width - MARGIN - at, 9.5, 'document')) {
      this.need(14);
      await this.line(l, at, 9.5, 'document', INK);
      this.y -= 14;
    }
  }

  async text(text: string, size: number, face: FaceName = 'document', color: RGB = INK, indent = 0): Promise<void> {
    const width = this.width - 2 * MARGIN - indent;
    for (const l of await this.wrap(text, width, size, face)) {
      this.need(size * 1.4);
      await this.line(l, MARGIN + indent, size, face, color);
      this.y -= size * 1.4;
    }
  }

  /** Lays out short items in several columns. */
  async columns(items: string[], n: number): Promise<void> {
    const step = (this.width - 2 * MARGIN - 12) / n;
    for (let i = 0; i < items.length; i += n) {
      this.need(13);
      for (let c = 0; c < n && i + c < items.length; c++)
        await this.line(itemAt(items, i + c), MARGIN + 12 + c * step, 9, 'document', INK);
      this.y -= 12.5;
    }
  }

  private async line(text: string, x: number, size: number, face: FaceName, color: RGB): Promise<void> {
    if (!text) return;
    const runs = await this.type.runs(text, face);
    Typesetter.draw(this.page, runs, x, this.y - size, size, color);
  }

  private async wrap(text: string, width: number, size: number, face: FaceName): Promise<string[]> {
    const lines: string[] = [];
    let line = '';
    for (const word of text.split(/\s+/).filter(Boolean)) {
      const longer = line ? `${line} ${word}` : word;
      if (line && Typesetter.width(await this.type.runs(longer, face), size) > width) {
        lines.push(line);
        line = word;
      } else line = longer;
      // A word wider than the column (a long address) is cut where it must be.
      while (Typesetter.width(await this.type.runs(line, face), size) > width && line.length > 1) {
        let cut = line.length - 1;
        while (cut > 1 && Typesetter.width(await this.type.runs(line.slice(0, cut), face), size) > width) cut--;
        lines.push(line.slice(0, cut));
        line = line.slice(cut);
      }
    }
    if (line) lines.push(line);
    return lines;
  }
}
