/** The paper of a written form, with the positions of its places. */
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';
import type { PaperBlock, PaperPlace, PaperRun, Signer } from '@gatepath/core/writing';
import { itemAt } from '@gatepath/core/sure';
import type { Rect } from '@gatepath/core/paper';
import { missingCharacters } from './fonts';
import { printDefinition } from './typeset';

/** A composed paper to typeset. */
export interface WrittenTask {
  title: string;
  blocks: PaperBlock[];
  places: PaperPlace[];
}

/** A typeset paper with its places. */
export interface WrittenPaper {
  bytes: Uint8Array;
  pages: { width: number; height: number }[];
  /** The position of each place, by its index; a place that is on no page is missing. */
  rects: { place: number; page: number; rect: Rect }[];
  /** Letters that no font here has, each once. */
  unprintable: string[];
}

type Content = Record<string, unknown>;

const SIZE = 10.5;
const HEADINGS = [18, 14, 12];
/** Margins in points; the bottom one leaves room for initials. */
const MARGINS = [64, 60, 64, 96];
const LETTER = { width: 612, height: 792 };
/** Width of a no-break space relative to the type size. */
const SPACE = 0.26;
const blank = (w: number, size = SIZE) => '\u00a0'.repeat(Math.max(1, Math.floor(w / (SPACE * size))));
/** Number of signers kept together on a page; more continue in another block. */
const TOGETHER = 8;
/** A paragraph up to this length, or a heading, stays with the signatures after it. */
const LEADS_LETTERS = 500;
/** Fixed creation time: the same text gives the same bytes. */
const SET_AT = new Date(Date.UTC(2000, 0, 1));
/** Links with this prefix report where a blank is; they are removed again. */
const AT = 'place:';

/** Typesets a paper in US Letter. The same input gives the same bytes. */
export async function setWritten({ title, blocks, places }: WrittenTask): Promise<WrittenPaper> {
  const set = await printDefinition({
    pageSize: LETTER,
    pageMargins: MARGINS,
    info: { title, creationDate: SET_AT, modDate: SET_AT },
    defaultStyle: { fontSize: SIZE, lineHeight: 1.25 },
    content: contentOf(blocks, places),
    footer: (page: number, of: number) => ({
      text: `${page} / ${of}`,
      alignment: 'center',
      fontSize: 8,
      margin: [0, 68, 0, 0],
    }),
    // A heading is never alone at the foot of a page.
    pageBreakBefore: (node: { headlineLevel?: number }, on: { getFollowingNodesOnPage(): unknown[] }) =>
      !!node.headlineLevel && on.getFollowingNodesOnPage().length === 0,
  });
  const doc = await PDFDocument.load(set, { updateMetadata: false });
  const rects = takePlaces(doc, places);
  const words = wordsOf(blocks).join('');
  return {
    bytes: await doc.save({ useObjectStreams: false }),
    pages: doc.getPages().map((p) => p.getSize()),
    rects,
    unprintable: [...new Set(await missingCharacters(words, 'document', true))],
  };
}

function contentOf(blocks: readonly PaperBlock[], places: readonly PaperPlace[]): Content[] {
  const out: Content[] = [];
  blocks.forEach((b, i) => {
    const next = blocks[i + 1];
    if (next?.is === 'signers' && leads(b)) return;
    const before = blocks[i - 1];
    if (b.is === 'signers') {
      const lead = before && leads(before) ? blockContent(before, places) : [];
      out.push(...signersContent(b, places, lead));
    } else out.push(...blockContent(b, places));
  });
  return out;
}

const leads = (b: PaperBlock) =>
  b.is === 'heading' || (b.is === 'paragraph' && b.runs.reduce((n, r) => n + r.text.length, 0) < LEADS_LETTERS);

function blockContent(b: PaperBlock, places: readonly PaperPlace[]): Content[] {
  switch (b.is) {
    case 'heading':
      return [
        {
          text: runsContent(b.runs, places),
          fontSize: HEADINGS[b.level - 1] ?? 12,
          bold: true,
          headlineLevel: b.level,
          preserveLeadingSpaces: true,
          margin: [0, b.level === 1 ? 0 : 10, 0, 6],
        },
      ];
    case 'paragraph':
      return [
        {
          text: runsContent(b.runs, places),
          alignment: b.align,
          margin: [0, 0, 0, 7],
          preserveLeadingSpaces: true,
          // Handwriting needs more space than print.
          ...(b.runs.some((r) => r.place !== undefined) ? { lineHeight: 1.6 } : {}),
        },
      ];
    case 'list':
      return [
        {
          [b.ordered ? 'ol' : 'ul']: b.items.map((item) => ({ stack: contentOf(item, places) })),
          margin: [0, 0, 0, 4],
        },
      ];
    case 'table':
      return [tableContent(b.rows, places)];
    case 'break':
      return [{ text: '', pageBreak: 'after' }];
    case 'signers':
      return signersContent(b, places, []);
  }
}

function tableContent(rows: Extract<PaperBlock, { is: 'table' }>['rows'], places: readonly PaperPlace[]): Content {
  const width = Math.max(1, ...rows.map((r) => r.reduce((n, c) => n + c.across, 0)));
  const body = rows.map((row) => {
    const cells: Content[] = row.flatMap((c): Content[] => [
      {
        stack: contentOf(c.blocks, places),
        ...(c.across > 1 ? { colSpan: c.across } : {}),
        ...(c.head ? { bold: true } : {}),
        margin: [0, 3, 0, 0],
      },
      ...Array.from({ length: c.across - 1 }, () => ({ text: '' })),
    ]);
    while (cells.length < width) cells.push({ text: '' });
    return cells;
  });
  const heads = rows.findIndex((r) => !r.every((c) => c.head));
  return {
    table: {
      widths: Array.from({ length: width }, () => '*'),
      body,
      headerRows: heads === -1 ? 0 : heads,
      dontBreakRows: true,
    },
    margin: [0, 4, 0, 10],
  };
}

/** Returns signers one below another, in groups that stay on a page, the first with what precedes it. */
function signersContent(
  { signers, dateWord }: Extract<PaperBlock, { is: 'signers' }>,
  places: readonly PaperPlace[],
  lead: Content[],
): Content[] {
  const out: Content[] = [];
  for (let i = 0; i < signers.length; i += TOGETHER)
    out.push({
      stack: [...(i ? [] : lead), ...signers.slice(i, i + TOGETHER).map((s) => signerContent(s, dateWord, places))],
      unbreakable: true,
    });
  return out;
}

function signerContent(s: Signer, dateWord: string, places: readonly PaperPlace[]): Content {
  const column = (place: number, beneath: string): Content => {
    const { w } = itemAt(places, place);
    return {
      width: w + 14,
      stack: [
        { text: blank(w), link: `${AT}${place}`, margin: [0, 20, 0, 0], lineHeight: 1, preserveLeadingSpaces: true },
        { canvas: [{ type: 'line', x1: 0, y1: 1, x2: w, y2: 1, lineWidth: 0.7 }] },
        { text: beneath, fontSize: 9, margin: [0, 2, 0, 0] },
      ],
    };
  };
  const name = s.under ? `${s.name}, ${s.under}` : s.name;
  return {
    columns: [column(s.sign, name), ...(s.date === null ? [] : [column(s.date, dateWord)])],
    columnGap: 16,
  };
}

function runsContent(runs: readonly PaperRun[], places: readonly PaperPlace[]): Content[] | string {
  if (!runs.length) return ' ';
  return runs.map((r) => {
    if (r.place !== undefined) {
      const { kind, w } = itemAt(places, r.place);
      const link = `${AT}${r.place}`;
      return kind === 'tick'
        ? { text: `[${blank(w)}]`, link }
        : { text: blank(w), link, decoration: 'underline', decorationColor: 'black' };
    }
    const has = (style: NonNullable<PaperRun['styles']>[number]) => r.styles?.includes(style) ?? false;
    const lines = [...(has('underline') ? ['underline'] : []), ...(has('strike') ? ['lineThrough'] : [])];
    return {
      text: r.text.replace(/\t/g, '    '),
      ...(has('bold') ? { bold: true } : {}),
      ...(has('italic') ? { italics: true } : {}),
      ...(lines.length ? { decoration: lines } : {}),
    };
  });
}

/** Reads the positions of places from their links, and removes the links. */
function takePlaces(doc: PDFDocument, places: readonly PaperPlace[]): WrittenPaper['rects'] {
  const out: WrittenPaper['rects'] = [];
  doc.getPages().forEach((page, index) => {
    const annots = page.node.lookupMaybe(PDFName.of('Annots'), PDFArray);
    if (!annots) return;
    const { height } = page.getSize();
    for (const item of annots.asArray()) {
      const annot = doc.context.lookup(item, PDFDict);
      const n = placeOf(annot);
      const box = annot.lookup(PDFName.of('Rect'), PDFArray).asRectangle();
      const place = places[n];
      if (place) out.push({ place: n, page: index + 1, rect: rectOf(place, box, height) });
      if (item instanceof PDFRef) doc.context.delete(item);
    }
    page.node.delete(PDFName.of('Annots'));
  });
  return out;
}

function placeOf(annot: PDFDict): number {
  const action = annot.lookupMaybe(PDFName.of('A'), PDFDict);
  const uri = action?.lookup(PDFName.of('URI'));
  const text = uri instanceof PDFString || uri instanceof PDFHexString ? uri.decodeText() : '';
  return text.startsWith(AT) ? Number(text.slice(AT.length)) : -1;
}

/** Returns a place on its line, with its bottom at the blank's. Coordinates from the top left. */
function rectOf(place: PaperPlace, box: { x: number; y: number; width: number; height: number }, page: number): Rect {
  const foot = page - box.y;
  const round = (n: number) => Math.round(n * 10) / 10;
  if (place.kind === 'tick')
    return {
      x: round(box.x + (box.width - place.w) / 2),
      y: round(foot - (box.height + place.h) / 2),
      w: place.w,
      h: place.h,
    };
  // Below a line of print there is some space for descenders.
  return { x: round(box.x), y: round(foot - place.h), w: Math.min(place.w, round(box.width)), h: place.h };
}

function wordsOf(blocks: readonly PaperBlock[]): string[] {
  return blocks.flatMap((b): string[] => {
    switch (b.is) {
      case 'heading':
      case 'paragraph':
        return b.runs.map((r) => r.text);
      case 'list':
        return b.items.flatMap(wordsOf);
      case 'table':
        return b.rows.flatMap((r) => r.flatMap((c) => wordsOf(c.blocks)));
      case 'break':
        return [];
      case 'signers':
        return b.signers.map((s) => `${s.name}${s.under}`);
    }
  });
}
