/**
 * Reading spreadsheets (SpreadsheetML, ECMA-376 part 1, chapter 18): the visible cells of the visible sheets, their stored
 * values and how they are to be shown. Formulas are never run, and nothing is allocated for cells that are not there.
 */
import { isDateFormat } from 'numfmt';
import { SaxesParser } from 'saxes';
import { refuseTypes, UnfitParts, type Archive } from '../archives/read';

/** Maximum bytes of all parts that are read, and of one. */
const LIMITS = { bytes: 120 * 1024 * 1024, part: 24 * 1024 * 1024 };
/** Maximum rows and columns of a sheet in any program (ECMA-376). */
const MOST = { rows: 1_048_576, columns: 16_384 };
/** Maximum depth of elements in a part; such files need about ten. */
const DEEPEST = 64;
/** The number of the first day of 1970, as such files count days. */
const EPOCH = 25_569;
/** Days from the beginning of 1900 to that of 1904, from which some files count. */
const SINCE_1904 = 1_462;

/** What a cell holds; an error is its text. */
export type CellValue = string | number | boolean;

/** How the cells of one style are shown. */
export interface CellStyle {
  /** The number format, for example `#,##0.00`. */
  format: string;
  /** Whether the format shows numbers as days. */
  isDay: boolean;
  alignment: 'left' | 'center' | 'right' | null;
  bold: boolean;
  /** Left, top, right, bottom. */
  border: [boolean, boolean, boolean, boolean];
}

/** A cell with a value. */
export interface WorkbookCell {
  value: CellValue;
  style: CellStyle;
}

/** A visible sheet. */
export interface WorkbookSheet {
  name: string;
  landscape: boolean;
  /** Visible rows with at least one cell, in their order; cells by column, from 1, without those of hidden columns. */
  rows: { number: number; cells: Map<number, WorkbookCell> }[];
  /** Widths that the file gives, in digits, by column. */
  widths: Map<number, number>;
  hidden: Set<number>;
}

/** Shown for a formula whose result was not stored. */
const NO_RESULT = '(not worked out)';

const PLAIN: CellStyle = {
  format: 'General',
  isDay: false,
  alignment: null,
  bold: false,
  border: [false, false, false, false],
};

/** Number formats that files name by number only (ECMA-376, 18.8.30), days as in the United States. */
const FORMATS: Record<number, string> = {
  1: '0',
  2: '0.00',
  3: '#,##0',
  4: '#,##0.00',
  9: '0%',
  10: '0.00%',
  11: '0.00E+00',
  12: '# ?/?',
  13: '# ??/??',
  14: 'm/d/yyyy',
  15: 'd-mmm-yy',
  16: 'd-mmm',
  17: 'mmm-yy',
  18: 'h:mm AM/PM',
  19: 'h:mm:ss AM/PM',
  20: 'h:mm',
  21: 'h:mm:ss',
  22: 'm/d/yyyy h:mm',
  37: '#,##0 ;(#,##0)',
  38: '#,##0 ;[Red](#,##0)',
  39: '#,##0.00 ;(#,##0.00)',
  40: '#,##0.00 ;[Red](#,##0.00)',
  41: '_(* #,##0_);_(* \\(#,##0\\);_(* "-"_);_(@_)',
  42: '_("$"* #,##0_);_("$"* \\(#,##0\\);_("$"* "-"_);_(@_)',
  43: '_(* #,##0.00_);_(* \\(#,##0.00\\);_(* "-"??_);_(@_)',
  44: '_("$"* #,##0.00_);_("$"* \\(#,##0.00\\);_("$"* "-"??_);_(@_)',
  45: 'mm:ss',
  46: '[h]:mm:ss',
  47: 'mm:ss.0',
  48: '##0.0E+0',
  49: '@',
};

type Attributes = Record<string, string>;

interface Handlers {
  open(name: string, attributes: Attributes): void;
  /** `text` is what stood directly within the element. */
  close?(name: string, text: string): void;
}

/** Reads a part element by element; prefixes of names are left out, as programs choose them freely. */
function readXml(xml: string, handlers: Handlers): void {
  refuseTypes(xml);
  const parser = new SaxesParser();
  const bare = (name: string) => name.slice(name.indexOf(':') + 1);
  const texts: string[] = [];
  const add = (text: string) => {
    if (texts.length) texts[texts.length - 1] += text;
  };
  parser.on('text', add);
  parser.on('cdata', add);
  parser.on('opentag', (tag) => {
    if (texts.length >= DEEPEST) throw new UnfitParts('too_many_parts');
    texts.push('');
    handlers.open(bare(tag.name), tag.attributes);
  });
  parser.on('closetag', (tag) => handlers.close?.(bare(tag.name), texts.pop() ?? ''));
  parser.write(xml).close();
}

/** Returns whether an attribute says yes. */
const isOn = (value: string | undefined) => value === '1' || value === 'true' || value === 'on';

/** Returns a number within its limits, or null if there is none. @throws UnfitParts above the maximum */
function countOf(said: string | undefined, most: number): number | null {
  const n = Number(said);
  if (said === undefined || !Number.isInteger(n) || n < 1) return null;
  if (n > most) throw new UnfitParts('too_many_parts');
  return n;
}

/** Returns the column of a reference: 1 of "A7", 28 of "AB12". @throws UnfitParts beyond the last column or row */
function columnOf(reference: string | undefined): number | null {
  const found = reference && /^([A-Za-z]+)(\d+)$/.exec(reference.slice(0, 32));
  if (!found) return null;
  const [, letters = '', row] = found;
  let n = 0;
  for (const letter of letters.toUpperCase()) n = Math.min(n * 26 + letter.charCodeAt(0) - 64, MOST.columns + 1);
  countOf(row, MOST.rows);
  return countOf(String(n), MOST.columns);
}

/** Returns text with the characters that such files write as `_x000D_`. */
const unescaped = (text: string) =>
  text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));

/** Collects the text of `si` and `is` elements: their runs, without reading aids. */
function textRuns() {
  let text = '';
  let aids = 0;
  return {
    open(name: string) {
      if (name === 'rPh') aids++;
    },
    close(name: string, inner: string) {
      if (name === 'rPh') aids--;
      else if (name === 't' && !aids) text += unescaped(inner);
    },
    taken() {
      const taken = text;
      text = '';
      return taken;
    },
  };
}

/** Returns the texts that cells name by number. */
function readStrings(xml: string): string[] {
  const strings: string[] = [];
  const runs = textRuns();
  readXml(xml, {
    open: runs.open,
    close(name, text) {
      runs.close(name, text);
      if (name === 'si') strings.push(runs.taken());
    },
  });
  return strings;
}

/** Letters of a number format that are looked at; longer ones are made to hurt. */
const LONGEST_FORMAT = 200;

/** Returns a number format and whether it shows days; one that cannot be read shows values plainly. */
function formatOf(said: string): Pick<CellStyle, 'format' | 'isDay'> {
  const format = said.slice(0, LONGEST_FORMAT);
  try {
    const isDay = isDateFormat(format);
    return { format: said === format ? format : isDay ? 'yyyy-mm-dd' : 'General', isDay };
  } catch {
    return { format: 'General', isDay: false };
  }
}

const SIDES = ['left', 'top', 'right', 'bottom'];
const isAlignment = (said: string | undefined): said is 'left' | 'center' | 'right' =>
  said === 'left' || said === 'center' || said === 'right';

/** Returns the styles that cells name by number. */
function readStyles(xml: string): CellStyle[] {
  const formats = new Map<number, string>();
  const bolds: boolean[] = [];
  const borders: CellStyle['border'][] = [];
  const styles: { format: number; font: number; border: number; alignment: CellStyle['alignment'] }[] = [];
  const path: string[] = [];
  readXml(xml, {
    open(name, a) {
      const within = path.at(-1);
      path.push(name);
      if (name === 'numFmt') formats.set(Number(a['numFmtId']), a['formatCode'] ?? 'General');
      else if (name === 'font' && within === 'fonts') bolds.push(false);
      else if (name === 'b' && within === 'font' && path[1] === 'fonts')
        bolds[bolds.length - 1] = a['val'] === undefined || isOn(a['val']);
      else if (name === 'border' && within === 'borders') borders.push([false, false, false, false]);
      else if (within === 'border' && path[1] === 'borders' && SIDES.includes(name)) {
        const border = borders.at(-1);
        if (border) border[SIDES.indexOf(name)] = !!a['style'] && a['style'] !== 'none';
      } else if (name === 'xf' && within === 'cellXfs') {
        const [format, font, border] = [a['numFmtId'], a['fontId'], a['borderId']].map((n) => Number(n ?? 0));
        styles.push({ format: format ?? 0, font: font ?? 0, border: border ?? 0, alignment: null });
      } else if (name === 'alignment' && within === 'xf' && path[1] === 'cellXfs') {
        const style = styles.at(-1);
        if (style) style.alignment = isAlignment(a['horizontal']) ? a['horizontal'] : null;
      }
    },
    close: () => void path.pop(),
  });
  return styles.map((s) => ({
    ...formatOf(formats.get(s.format) ?? FORMATS[s.format] ?? 'General'),
    alignment: s.alignment,
    bold: bolds[s.font] ?? false,
    border: borders[s.border] ?? PLAIN.border,
  }));
}

interface Book {
  strings: string[];
  styles: CellStyle[];
  since1904: boolean;
  /** Counts a cell. @throws UnfitParts when there are too many */
  count(letters: number): void;
}

function readSheet(xml: string, name: string, book: Book): WorkbookSheet {
  const sheet: WorkbookSheet = { name, landscape: false, rows: [], widths: new Map(), hidden: new Set() };
  const runs = textRuns();
  let covered = 0;
  let row: { number: number; cells: Map<number, WorkbookCell>; hidden: boolean } | null = null;
  let lastRow = 0;
  let cell: { column: number; a: Attributes; v: string | null; formula: boolean } | null = null;
  let lastColumn = 0;

  const openColumns = (a: Attributes) => {
    const [from, to] = [countOf(a['min'], MOST.columns), countOf(a['max'], MOST.columns)];
    if (from === null || to === null) return;
    covered += Math.max(0, to - from + 1);
    // No column is described twice: together they cover a sheet at most once.
    if (covered > MOST.columns) throw new UnfitParts('too_many_parts');
    const width = Number(a['width']);
    for (let c = from; c <= to; c++) {
      if (a['width'] !== undefined && width >= 0) sheet.widths.set(c, width);
      if (isOn(a['hidden'])) sheet.hidden.add(c);
    }
  };
  const openRow = (a: Attributes) => {
    lastRow = countOf(a['r'], MOST.rows) ?? lastRow + 1;
    lastColumn = 0;
    row = { number: lastRow, cells: new Map(), hidden: isOn(a['hidden']) };
  };
  const closeCell = () => {
    if (!cell || !row || row.hidden || sheet.hidden.has(cell.column)) return;
    const style = book.styles[Number(cell.a['s'] ?? 0)] ?? PLAIN;
    const value = valueOf(cell, runs.taken(), style, book);
    if (value === null || value === '') return;
    book.count(typeof value === 'string' ? value.length : 0);
    row.cells.set(cell.column, { value, style });
  };
  readXml(xml, {
    open(tag, a) {
      if (tag === 'col') openColumns(a);
      else if (tag === 'row') openRow(a);
      else if (tag === 'c') {
        lastColumn = columnOf(a['r']) ?? countOf(String(lastColumn + 1), MOST.columns) ?? 1;
        cell = { column: lastColumn, a, v: null, formula: false };
        runs.taken();
      } else if (tag === 'f' && cell) cell.formula = true;
      else if (tag === 'pageSetup') sheet.landscape = a['orientation'] === 'landscape';
      else runs.open(tag);
    },
    close(tag, text) {
      if (tag === 'v' && cell) cell.v = text;
      else if (tag === 'c') {
        closeCell();
        cell = null;
      } else if (tag === 'row') {
        if (row?.cells.size) sheet.rows.push({ number: row.number, cells: row.cells });
        row = null;
      } else runs.close(tag, text);
    },
  });
  sheet.rows.sort((a, b) => a.number - b.number);
  return sheet;
}

/** Returns the value of a cell, of a formula its stored result; null if it is empty. */
function valueOf(
  { a, v, formula }: { a: Attributes; v: string | null; formula: boolean },
  inline: string,
  style: CellStyle,
  book: Book,
): CellValue | null {
  const kind = a['t'] ?? 'n';
  if (kind === 'inlineStr') return inline;
  // A formula may have an empty text as its result; without a result it was never computed.
  if (v === null || (v === '' && kind !== 'str')) return formula ? NO_RESULT : null;
  if (kind === 's') return book.strings[Number(v)] ?? null;
  if (kind === 'b') return isOn(v);
  if (kind === 'n') {
    const n = Number(v);
    if (Number.isNaN(n)) return v;
    return book.since1904 && style.isDay ? n + SINCE_1904 : n;
  }
  const day = kind === 'd' && style.isDay ? Date.parse(v) : NaN;
  return Number.isNaN(day) ? unescaped(v) : day / 86_400_000 + EPOCH;
}

const SPREADSHEET = 'xl/workbook.xml';

/** Returns the sheets that a workbook lists, with the name of their part, without hidden ones. */
function readList(workbook: string, relations: string) {
  const parts = new Map<string, string>();
  readXml(relations, {
    open(name, a) {
      if (name !== 'Relationship' || a['TargetMode'] === 'External') return;
      const target = a['Target'] ?? '';
      parts.set(a['Id'] ?? '', target.startsWith('/') ? target.slice(1) : `xl/${target.replace(/^\.\//, '')}`);
    },
  });
  const sheets: { name: string; part: string }[] = [];
  let since1904 = false;
  let all = 0;
  readXml(workbook, {
    open(name, a) {
      if (name === 'workbookPr') since1904 = isOn(a['date1904']);
      if (name !== 'sheet') return;
      all++;
      if ((a['state'] ?? 'visible') !== 'visible') return;
      const id = Object.entries(a).find(([key]) => key.endsWith(':id'))?.[1];
      sheets.push({ name: a['name'] ?? '', part: parts.get(id ?? '') ?? '' });
    },
  });
  if (!all) throw new Error('The workbook has no sheets.');
  return { sheets, since1904 };
}

/**
 * Returns the visible sheets of a workbook.
 *
 * @param most how many cells and letters may be visible in all
 * @throws UnfitParts beyond any limit
 */
export async function readWorkbook(
  archive: Archive,
  most: { cells: number; letters: number },
): Promise<WorkbookSheet[]> {
  let left = LIMITS.bytes;
  const xmlOf = async (name: string) => {
    const part = archive.get(name);
    if (!part) return null;
    const xml = await part.text(Math.min(left, LIMITS.part));
    left -= xml.length;
    return xml;
  };
  const workbook = await xmlOf(SPREADSHEET);
  if (workbook === null) throw new Error('The file has no workbook.');
  const { sheets, since1904 } = readList(workbook, (await xmlOf('xl/_rels/workbook.xml.rels')) ?? '<none/>');
  const [strings, styles] = [await xmlOf('xl/sharedStrings.xml'), await xmlOf('xl/styles.xml')];
  let [cells, letters] = [0, 0];
  const book: Book = {
    strings: strings === null ? [] : readStrings(strings),
    styles: styles === null ? [] : readStyles(styles),
    since1904,
    count(more) {
      letters += more;
      if (++cells > most.cells || letters > most.letters) throw new UnfitParts('too_many_parts');
    },
  };
  const read: WorkbookSheet[] = [];
  for (const { name, part } of sheets) {
    const xml = await xmlOf(part);
    if (xml !== null) read.push(readSheet(xml, name, book));
  }
  return read;
}
