/** Converting spreadsheets to tables on pages: values as shown, formulas never run, nothing loaded from elsewhere. */
import { format } from 'numfmt';
import { itemAt } from '@gatepath/core/sure';
import { printDefinition } from '../typesetting/typeset';
import { type CellStyle, type CellValue, readWorkbook, type WorkbookCell, type WorkbookSheet } from './workbook';
import { openArchive, UnfitParts } from '../archives/read';

/** Maximum bytes unpacked and cells typeset: about 300 pages. */
const LIMITS = {
  bytes: 120 * 1024 * 1024,
  parts: 2_000,
  cells: 30_000,
  columns: 400,
  letters: 1_500_000,
};

/** Converts a spreadsheet to PDF. @throws UnfitParts */
export async function spreadsheetToPdf(bytes: Uint8Array, title: string): Promise<Uint8Array> {
  const sheets = (await readWorkbook(await openArchive(bytes, LIMITS), LIMITS)).map(tableOf);
  if (sheets.reduce((n, s) => n + s.cells, 0) > LIMITS.cells) throw new UnfitParts('too_many_parts');
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
  wide: boolean;
}

/** Width of a digit with its margins, in points, in which column widths are given. */
const DIGIT = 5.4;
/** Average width of a letter. */
const LETTER = 5;
const USUAL = 8.43;

/** Returns what a sheet shows: its visible rows and columns, up to the last with content. */
function tableOf(sheet: WorkbookSheet): SheetTable {
  const rows = sheet.rows.map(({ number, cells }) => ({
    number,
    cells: new Map([...cells].map(([column, cell]) => [column, shownCell(cell)])),
  }));
  const right = rows.reduce((most, r) => Math.max(most, ...r.cells.keys()), 0);
  if (right > LIMITS.columns) throw new UnfitParts('too_many_parts');
  const columns = Array.from({ length: right }, (_, i) => i + 1).filter((c) => !sheet.hidden.has(c));
  const first = columns.findIndex((c) => rows.some((r) => r.cells.has(c)));
  const used = columns.slice(Math.max(0, first));
  return {
    name: sheet.name,
    rows: withGaps(rows).map((own) => used.map((c) => own.get(c) ?? EMPTY)),
    widths: used.map((c) => widthOf(c, right, sheet.widths.get(c) ?? USUAL, rows)),
    cells: used.length * rows.length,
    wide: sheet.landscape,
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

function shownCell({ value, style }: WorkbookCell): TableCell {
  return {
    text: textOf(value, style),
    alignment: style.alignment ?? (typeof value === 'number' ? 'right' : 'left'),
    bold: style.bold,
    border: style.border,
  };
}

/** Returns a value as it is shown. */
function textOf(value: CellValue, { format: pattern, isDay }: CellStyle): string {
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  try {
    return String(format(pattern, value, { throws: true })).trim();
  } catch {
    return String(format(isDay ? 'yyyy-mm-dd' : 'General', value, { throws: false }));
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
  // Space around the words of a cell.
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

/**
 * Returns whether the text of a cell extends over its neighbors: they are empty, and the cell is narrower than its
 * text.
 */
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
      // A row stays together unless it may be taller than a page.
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
