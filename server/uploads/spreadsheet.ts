/** Converting spreadsheets to tables on pages: values as shown, formulas never run, nothing loaded from elsewhere. */
import { createRequire } from 'node:module';
import type { Cell, Workbook, Worksheet } from 'exceljs';
import JSZip from 'jszip';
import { format } from 'numfmt';
import { itemAt } from '@gatepath/core/sure';
import { printDefinition } from '../typesetting/typeset';
import { openParts, refuseTypes, textOfPart, UnfitParts } from './zip-parts';

const require = createRequire(import.meta.url);

/** Maximum bytes unpacked and cells typeset: about 300 pages. */
const LIMITS = {
  bytes: 120 * 1024 * 1024,
  parts: 2_000,
  part: 24 * 1024 * 1024,
  cells: 30_000,
  columns: 400,
  letters: 1_500_000,
};

/** Parts of the file that are read; drawings, links to other files, macros and the rest are ignored. */
const READ =
  /^(?:\[Content_Types\]\.xml|_rels\/\.rels|xl\/workbook\.xml|xl\/_rels\/workbook\.xml\.rels|xl\/styles\.xml|xl\/sharedStrings\.xml|xl\/theme\/theme1\.xml|xl\/worksheets\/[^/]+\.xml)$/i;

/** Parts of a sheet that a reader would expand cell by cell and that show nothing. */
const IGNORED = [
  'mergeCells',
  'dataValidations',
  'conditionalFormatting',
  'hyperlinks',
  'drawing',
  'picture',
  'extLst',
  'tableParts',
  'legacyDrawing',
  'sheetProtection',
  'autoFilter',
];

/** Converts a spreadsheet to PDF. @throws UnfitParts */
export async function spreadsheetToPdf(bytes: Uint8Array, title: string): Promise<Uint8Array> {
  const zip = await openParts(bytes, LIMITS);
  const kept = new JSZip();
  let left = LIMITS.bytes;
  for (const f of Object.values(zip.files)) {
    if (f.dir || !READ.test(f.name)) continue;
    const xml = await textOfPart(f, Math.min(left, LIMITS.part));
    left -= xml.length;
    refuseTypes(xml);
    requireInSheet(xml);
    kept.file(f.name, without(without(xml, 'definedNames'), 'externalReferences'));
  }
  const book = await opened(await kept.generateAsync({ type: 'nodebuffer' }));
  const sheets = book.worksheets.filter((s) => s.state === 'visible').map(tableOf);
  const total = (of: 'cells' | 'letters') => sheets.reduce((n, s) => n + s[of], 0);
  if (total('cells') > LIMITS.cells || total('letters') > LIMITS.letters) throw new UnfitParts('too_many_parts');
  const content = sheets.filter((s) => s.rows.length).flatMap((s, i) => pagesOf(s, i, sheets.length > 1));
  return printDefinition({
    info: { title },
    pageSize: 'LETTER',
    pageMargins: [MARGIN, 42, MARGIN, 50],
    pageOrientation: content[0]?.pageOrientation ?? 'portrait',
    defaultStyle: { fontSize: SIZE, lineHeight: 1.1 },
    content: content.length ? content : [{ text: 'This spreadsheet is empty.' }],
  });
}

/** Maximum rows and columns of a sheet in any program (ECMA-376). */
const MOST = { rows: 1_048_576, columns: 16_384 };

/** Refuses a sheet that names rows or columns no sheet has: a reader would allocate all of them. @throws UnfitParts */
function requireInSheet(xml: string): void {
  for (const [, row] of xml.matchAll(/<(?:\w{1,20}:)?row\s[^>]{0,400}?\br\s{0,9}=\s{0,9}["'](\d{1,20})/g))
    if (Number(row) > MOST.rows) throw new UnfitParts('too_many_parts');
  for (const [, column] of xml.matchAll(/\b(?:min|max)\s{0,9}=\s{0,9}["'](\d{1,20})/g))
    if (Number(column) > MOST.columns) throw new UnfitParts('too_many_parts');
  for (const [, letters = '', row] of xml.matchAll(/\br\s{0,9}=\s{0,9}["']([A-Za-z]{1,20})(\d{1,20})/g))
    if (letters.length > 3 || Number(row) > MOST.rows) throw new UnfitParts('too_many_parts');
}

async function opened(file: Buffer): Promise<Workbook> {
  const excel: typeof import('exceljs') = require('exceljs');
  const book = new excel.Workbook();
  // Its types know an older buffer than Node's.
  const bytes: unknown = file;
  await book.xlsx.load(bytes as Parameters<typeof book.xlsx.load>[0], { ignoreNodes: IGNORED });
  return book;
}

/** Returns the text without an element and its contents. */
function without(xml: string, name: string): string {
  let out = '';
  let at = 0;
  for (;;) {
    const open = xml.indexOf(`<${name}`, at);
    const close = open < 0 ? -1 : xml.indexOf(`</${name}>`, open);
    if (close < 0) return out + xml.slice(at);
    out += xml.slice(at, open);
    at = close + name.length + 3;
  }
}

interface TableCell {
  text: string;
  alignment: 'left' | 'center' | 'right';
  bold: boolean;
  /** Left, top, right, bottom. */
  border: [boolean, boolean, boolean, boolean];
}

interface SheetTable {
  name: string;
  rows: TableCell[][];
  /** In points, at the type size of the file. */
  widths: number[];
  cells: number;
  letters: number;
  wide: boolean;
}

/** Width of a digit with its margins, in points, in which column widths are given. */
const DIGIT = 5.4;
/** Average width of a letter. */
const LETTER = 5;
const USUAL = 8.43;

/** Returns what a sheet shows: its visible rows and columns, up to the last with content. */
function tableOf(sheet: Worksheet): SheetTable {
  const rows: { number: number; cells: Map<number, TableCell> }[] = [];
  let [cells, right, letters] = [0, 0, 0];
  sheet.eachRow({ includeEmpty: false }, (row, number) => {
    if (row.hidden) return;
    const own = new Map<number, TableCell>();
    row.eachCell({ includeEmpty: false }, (cell, column) => {
      if (sheet.getColumn(column).hidden) return;
      const shown = shownCell(cell);
      if (!shown.text && !shown.border.some(Boolean)) return;
      own.set(column, shown);
      letters += shown.text.length;
      if (shown.text || column <= LIMITS.columns) right = Math.max(right, column);
      if (++cells > LIMITS.cells) throw new UnfitParts('too_many_parts');
    });
    if (own.size) rows.push({ number, cells: own });
  });
  if (right > LIMITS.columns) throw new UnfitParts('too_many_parts');
  const columns = Array.from({ length: right }, (_, i) => i + 1).filter((c) => !sheet.getColumn(c).hidden);
  const first = columns.findIndex((c) => rows.some((r) => r.cells.has(c)));
  const used = columns.slice(Math.max(0, first));
  return {
    name: sheet.name,
    rows: withGaps(rows).map((own) => used.map((c) => own.get(c) ?? EMPTY)),
    widths: used.map((c) => widthOf(c, right, sheet.getColumn(c).width ?? USUAL, rows)),
    cells: used.length * rows.length,
    letters,
    wide: sheet.pageSetup.orientation === 'landscape',
  };
}

/** Number of letters that stay on one line; numbers and dates are never divided. */
const IN_LINE = 26;

/**
 * Returns a column's width: as the file says, and as its content needs where it cannot overflow into the next cell.
 */
function widthOf(column: number, last: number, said: number, rows: { cells: Map<number, TableCell> }[]): number {
  let letters = said;
  for (const { cells } of rows) {
    const cell = cells.get(column);
    if (!cell || (cell.alignment === 'left' && !isFramed(cell) && column < last && !cells.has(column + 1))) continue;
    const most = cell.alignment === 'right' ? 40 : IN_LINE;
    letters = Math.max(letters, Math.min(cell.text.length, most) * (cell.bold ? 1.15 : 1));
  }
  return Math.max(14, Math.min(400, letters * DIGIT + 6));
}

const isFramed = (cell: TableCell) => cell.border.some(Boolean);

const EMPTY: TableCell = { text: '', alignment: 'left', bold: false, border: [false, false, false, false] };

/** Replaces empty rows between others by one gap, however many there are. */
function withGaps(rows: { number: number; cells: Map<number, TableCell> }[]): Map<number, TableCell>[] {
  return rows.flatMap((r, i) => {
    const before = rows[i - 1];
    return before && r.number > before.number + 1 ? [new Map<number, TableCell>(), r.cells] : [r.cells];
  });
}

function shownCell(cell: Cell): TableCell {
  const value = valueOf(cell);
  const { horizontal } = cell.alignment ?? {};
  const told = horizontal === 'center' || horizontal === 'right' || horizontal === 'left' ? horizontal : null;
  const { left, top, right, bottom } = cell.border ?? {};
  return {
    text: textOf(value, cell.numFmt),
    alignment: told ?? (typeof value === 'number' || value instanceof Date ? 'right' : 'left'),
    bold: cell.font?.bold ?? false,
    border: [!!left?.style, !!top?.style, !!right?.style, !!bottom?.style],
  };
}

type Shown = string | number | boolean | Date | null;

/** Shown for a formula whose result was not stored. */
const NOT_KEPT = '(not worked out)';

/** Returns what a cell holds; for a formula its stored result, because formulas are never run. */
function valueOf(cell: Cell): Shown {
  const { value } = cell;
  if (value === null || value === undefined) return null;
  if (typeof value !== 'object' || value instanceof Date) return value;
  if ('richText' in value) return value.richText.map((t) => t.text).join('');
  if ('error' in value) return value.error;
  if ('hyperlink' in value) return textOfLink(value.text);
  if ('formula' in value || 'sharedFormula' in value) {
    // The value itself leaves out a result of nought.
    return resultOf(cell.result);
  }
  return null;
}

function resultOf(result: unknown): Shown {
  if (typeof result === 'string' || typeof result === 'number' || typeof result === 'boolean') return result;
  if (result instanceof Date) return result;
  const error: unknown = typeof result === 'object' && result ? Reflect.get(result, 'error') : null;
  return typeof error === 'string' ? error : NOT_KEPT;
}

/** Returns the text of a link, which can be rich text whatever its type says. */
function textOfLink(text: unknown): string {
  if (typeof text === 'string') return text;
  const parts: unknown = typeof text === 'object' && text ? Reflect.get(text, 'richText') : null;
  return Array.isArray(parts) ? parts.map((p: { text?: unknown }) => String(p.text ?? '')).join('') : '';
}

/** Returns a day as such files count it: days since the end of 1899. */
const serialOf = (day: Date) => day.getTime() / 86_400_000 + 25_569;
const LONGEST_FORMAT = 200;

/** Returns a value as it is shown. */
function textOf(value: Shown, numFmt: string | undefined): string {
  if (value === null) return '';
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  const usual = value instanceof Date ? 'yyyy-mm-dd' : 'General';
  const pattern = numFmt && numFmt.length <= LONGEST_FORMAT ? numFmt : usual;
  const plain = value instanceof Date ? serialOf(value) : value;
  try {
    return String(format(pattern, plain, { throws: true })).trim();
  } catch {
    return String(format(usual, plain, { throws: false }));
  }
}

const MARGIN = 36;
const SIZE = 9;
/** Smallest type size; wider sheets continue on further pages. */
const SMALLEST = 6;
const ROOM = { portrait: 612 - 2 * MARGIN, landscape: 792 - 2 * MARGIN };

interface Piece {
  pageOrientation: 'portrait' | 'landscape';
  [key: string]: unknown;
}

/** Returns the pages of a sheet: portrait if it fits, landscape if it is wide, split if it is wider still. */
function pagesOf(sheet: SheetTable, index: number, named: boolean): Piece[] {
  // What stands around the words of a cell.
  const total = sheet.widths.reduce((n, w) => n + w, 0);
  const way = sheet.wide || total > ROOM.portrait ? 'landscape' : 'portrait';
  const room = ROOM[way];
  const size = Math.max(SMALLEST, Math.min(SIZE, (SIZE * room) / total));
  const bands = bandsOf(
    sheet.widths.map((w) => Math.min(room, (w * size) / SIZE)),
    room,
  );
  return bands.map((band, i) => ({
    pageOrientation: way,
    ...(index || i ? { pageBreak: 'before' } : {}),
    fontSize: size,
    stack: [
      ...(named || bands.length > 1
        ? [
            {
              text: bands.length > 1 ? `${sheet.name} (${i + 1} of ${bands.length})` : sheet.name,
              bold: true,
              fontSize: 11,
              margin: [0, 0, 0, 6],
            },
          ]
        : []),
      tableIn(sheet, band),
    ],
  }));
}

interface Band {
  from: number;
  widths: number[];
}

/** Groups columns that fit side by side. */
function bandsOf(widths: number[], room: number): Band[] {
  const out: Band[] = [{ from: 0, widths: [] }];
  let used = 0;
  widths.forEach((w, i) => {
    if (used + w > room + 0.5 && used > 0) {
      out.push({ from: i, widths: [] });
      used = 0;
    }
    itemAt(out, out.length - 1).widths.push(w);
    used += w;
  });
  return out;
}

/** Letters of a cell that may need much of a page. */
const TALL = 500;
/** Padding of a cell, left and right, in points. */
const PAD = 2;

/** Whether the words of a cell run over those beside it: they are empty, and it is narrower than its words. */
function runsOver(row: TableCell[], at: number, widths: number[]): boolean {
  const cell = itemAt(row, at);
  if (cell.alignment !== 'left' || isFramed(cell)) return false;
  const needed = cell.text.length * LETTER;
  let width = itemAt(widths, at);
  for (let n = 1; width < needed && row[at + n] === EMPTY; n++) width += itemAt(widths, at + n);
  return width >= needed;
}

function tableIn(sheet: SheetTable, { from, widths }: Band) {
  const framed = sheet.rows.some((row) => row.some(isFramed));
  const head = sheet.rows[0]?.some((c) => c.bold) && sheet.rows.length > 1 ? 1 : 0;
  return {
    table: {
      headerRows: head,
      // A row stays together, but where it may be taller than a page.
      dontBreakRows: !sheet.rows.some((row) => row.some((c) => c.text.length > TALL)),
      widths: widths.map((w) => w - 2 * PAD),
      body: sheet.rows.map((row) => {
        const own = row.slice(from, from + widths.length);
        return own.map((cell, i) => {
          const { text, alignment, bold, border } = cell;
          return {
            text,
            alignment,
            bold,
            preserveLeadingSpaces: true,
            border: framed ? border : [false, false, false, true],
            noWrap: runsOver(own, i, widths),
          };
        });
      }),
    },
    layout: {
      hLineWidth: () => (framed ? 0.6 : 0.3),
      vLineWidth: () => 0.6,
      hLineColor: () => (framed ? '#1E2A32' : '#D8D2C4'),
      vLineColor: () => '#1E2A32',
      paddingLeft: () => PAD,
      paddingRight: () => PAD,
      paddingTop: () => 1.5,
      paddingBottom: () => 1.5,
    },
  };
}
