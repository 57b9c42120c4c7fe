/** Two versions of a document in one file: the changes in words, then both side by side with marks. */
import {
  PDFDocument,
  rgb,
  StandardFonts,
  type PDFEmbeddedPage,
  type PDFFont,
  type PDFPage,
  type TransformationMatrix,
} from '@cantoo/pdf-lib';
import {
  ASIDE_WORDS,
  kindInWords,
  MARK_INKS,
  markedAs,
  pageOf,
  type Change,
  type Comparison,
  type Passage,
} from '@gatepath/core/changed';
import { count } from '@gatepath/core/text';
import { readStored } from '../files/stored';
import { groupBy, itemAt } from '@gatepath/core/sure';
import { spaceOfPage } from '../pdf/space';
import { hexColor } from './color';
import { printDefinition } from './typeset';

interface Side {
  /** The prepared file. */
  file: string;
  name: string;
  /** Its pages as displayed, in points. */
  sizes: { width: number; height: number }[];
}

/** Two versions with their changes, to lay out side by side. */
export interface ChangesPdfTask {
  before: Side;
  after: Side;
  comparison: Comparison;
}

/** US Letter, landscape, in points. */
const SHEET = { width: 792, height: 612 };
const MARGIN = 26;
const HEAD = 40;

/** Makes the file. */
export async function changesPdf(t: ChangesPdfTask, at: (where: string) => void): Promise<Uint8Array> {
  const changes = [...t.comparison.changes.filter((c) => !c.aside), ...t.comparison.changes.filter((c) => c.aside)];
  const out = await PDFDocument.load(await listed(t, changes), { updateMetadata: false });
  const font = await out.embedFont(StandardFonts.Helvetica);
  const before = { pages: await pagesIn(out, t.before), marks: marksOf(changes, 'before') };
  const after = { pages: await pagesIn(out, t.after), marks: marksOf(changes, 'after') };
  for (const [i, row] of t.comparison.pages.entries()) {
    at(`sheet ${i + 1}`);
    const sheet = out.addPage([SHEET.width, SHEET.height]);
    half(sheet, font, { ...before, page: row.before, left: true });
    half(sheet, font, { ...after, page: row.after, left: false });
  }
  return out.save({ useObjectStreams: false });
}

/** A page of a version as displayed; empty for a page without content. */
interface PlacedPage {
  embedded: PDFEmbeddedPage | null;
  size: { width: number; height: number };
}

/** Embeds all pages of a version, upright and cropped, at once, so that shared resources are copied once. */
async function pagesIn(out: PDFDocument, side: Side): Promise<PlacedPage[]> {
  const source = await PDFDocument.load(await readStored(side.file), { updateMetadata: false });
  const pages = source.getPages();
  const drawn = pages.filter((page) => page.node.Contents());
  const placed = drawn.map(placeOf);
  const embedded = await out.embedPages(
    drawn,
    placed.map((p) => p.box),
    placed.map((p) => p.matrix),
  );
  const byPage = new Map(drawn.map((page, i) => [page, itemAt(embedded, i)]));
  return pages.map((page) => {
    const { width, height } = spaceOfPage(page);
    return { embedded: byPage.get(page) ?? null, size: { width, height } };
  });
}

interface PageMark {
  kind: keyof typeof MARK_INKS;
  n: number;
  rect: Passage['boxes'][number]['rect'];
  /** Whether it is the first box of its change. */
  first: boolean;
}

/** Returns what is marked on which page of a version, with its number in the list. */
function marksOf(changes: Change[], side: 'before' | 'after'): Map<number, PageMark[]> {
  const marks = changes.flatMap((c, i) =>
    (c[side]?.boxes ?? []).map(({ page, rect }, k) => ({
      page,
      mark: { kind: markedAs(c, side), n: i + 1, rect, first: k === 0 },
    })),
  );
  return new Map([...groupBy(marks, (m) => m.page)].map(([page, own]) => [page, own.map((m) => m.mark)]));
}

function half(
  sheet: PDFPage,
  font: PDFFont,
  o: { pages: PlacedPage[]; page: number | null; left: boolean; marks: Map<number, PageMark[]> },
): void {
  const width = (SHEET.width - 3 * MARGIN) / 2;
  const height = SHEET.height - HEAD - MARGIN;
  const x = o.left ? MARGIN : 2 * MARGIN + width;
  const word = o.left ? 'Before' : 'After';
  const title = o.page === null ? `${word}: no page here` : `${word}, page ${o.page} of ${o.pages.length}`;
  sheet.drawText(title, { x, y: SHEET.height - HEAD + 12, size: 10, font, color: hexColor('#1E2A32') });
  if (o.page === null) return;
  const { embedded, size } = itemAt(o.pages, o.page - 1);
  const scale = Math.min(width / size.width, height / size.height);
  const top = SHEET.height - HEAD;
  if (embedded) sheet.drawPage(embedded, { x, y: top - size.height * scale, xScale: scale, yScale: scale });
  sheet.drawRectangle({
    x,
    y: top - size.height * scale,
    width: size.width * scale,
    height: size.height * scale,
    borderColor: rgb(0.75, 0.72, 0.66),
    borderWidth: 0.7,
  });
  for (const mark of o.marks.get(o.page) ?? []) drawMark(sheet, font, mark, { x, top, scale });
}

/** Returns the visible part of a page and the matrix that shows it as displayed. */
function placeOf(page: PDFPage) {
  const { width, height, toUser } = spaceOfPage(page);
  const [a, b, c, d, e, f] = toUser;
  // From user space back to the page as displayed; the turns are by quarters, so their inverse is their transpose.
  const matrix: TransformationMatrix = [a, c, b, d, -(a * e + b * f), -(c * e + d * f)];
  const corner = { x: Math.min(e, e + a * width + c * height), y: Math.min(f, f + b * width + d * height) };
  const user = a ? { w: width, h: height } : { w: height, h: width };
  return { matrix, box: { left: corner.x, bottom: corner.y, right: corner.x + user.w, top: corner.y + user.h } };
}

/** Draws a mark by shape as well as color: struck text is crossed out, inserted text underlined, moved text framed. */
function drawMark(sheet: PDFPage, font: PDFFont, mark: PageMark, at: { x: number; top: number; scale: number }): void {
  const { rect: r, kind } = mark;
  const color = hexColor(MARK_INKS[kind]);
  const [x, y] = [at.x + r.x * at.scale, at.top - (r.y + r.h) * at.scale];
  const [width, height] = [r.w * at.scale, r.h * at.scale];
  sheet.drawRectangle({ x: x - 1, y: y - 1, width: width + 2, height: height + 2, color, opacity: 0.16 });
  const line = (dy: number) =>
    sheet.drawLine({ start: { x, y: y + dy }, end: { x: x + width, y: y + dy }, thickness: 0.9, color });
  if (kind === 'struck') line(height / 2);
  if (kind === 'put_in') line(-1);
  if (kind === 'moved')
    sheet.drawRectangle({
      x: x - 1,
      y: y - 1,
      width: width + 2,
      height: height + 2,
      borderColor: color,
      borderWidth: 0.8,
    });
  if (mark.first) {
    // Above it: what stands beside it is print.
    sheet.drawText(String(mark.n), { x: x - 1, y: y + height + 1.5, size: 6, font, color });
  }
}

/** Returns the list of changes, as the first pages. */
function listed(t: ChangesPdfTask, changes: Change[]): Promise<Uint8Array> {
  const own = changes.filter((c) => !c.aside).length;
  const { more, slight, wordsOnly } = t.comparison;
  const small = (text: string) => ({ text, fontSize: 9, color: '#5B6770', margin: [0, 2, 0, 6] });
  return printDefinition({
    info: { title: `What changed in ${t.after.name}` },
    pageSize: SHEET,
    pageMargins: [54, 48, 54, 54],
    defaultStyle: { fontSize: 10, lineHeight: 1.25 },
    content: [
      { text: 'What changed', fontSize: 19, bold: true },
      small(`Before: ${t.before.name}, ${count(t.before.sizes.length, 'page')}`),
      small(`After: ${t.after.name}, ${count(t.after.sizes.length, 'page')}`),
      {
        text: own ? count(own, 'change') : 'Nothing but what is left aside below.',
        bold: true,
        margin: [0, 4, 0, 8],
      },
      ...changes.flatMap((c, i) => [
        ...(i === own ? [{ text: 'Left aside', bold: true, margin: [0, 10, 0, 6] }] : []),
        entryOf(c, i + 1),
      ]),
      ...(slight ? [small(`${count(slight, 'word was', 'words were')} read slightly differently.`)] : []),
      ...(more ? [small(`And ${count(more, 'further change')}: look at both versions by eye.`)] : []),
      ...(wordsOnly.length
        ? [small(`Only words could be compared on ${wordsOnly.length > 1 ? 'pages' : 'page'} ${wordsOnly.join(', ')}.`)]
        : []),
    ],
  });
}

function entryOf(c: Change, n: number) {
  const own = (text: string, ink: keyof typeof MARK_INKS, decoration: string) => ({
    text,
    color: MARK_INKS[ink],
    decoration,
  });
  const what = c.aside ? `${ASIDE_WORDS[c.aside]}, ` : '';
  return {
    margin: [0, 0, 0, 6],
    text: [
      { text: `${n}. `, bold: true },
      { text: `${what}${kindInWords(c)}, ${pageOf(c)}${c.scan ? ', read from a picture' : ''}: `, color: '#5B6770' },
      c.lead && !c.drawn ? `${c.lead} ` : '',
      c.before?.text && c.kind !== 'moved' ? own(c.before.text, 'struck', 'lineThrough') : '',
      c.before && c.after ? ' ' : '',
      c.after?.text
        ? own(c.after.text, c.kind === 'moved' ? 'moved' : 'put_in', c.kind === 'moved' ? '' : 'underline')
        : '',
      c.tail && !c.drawn ? ` ${c.tail}` : '',
    ],
  };
}
