/** Reading a table: CSV in the encodings that programs write, or a file of vCards. */
import ICAL from 'ical.js';
import { parse } from 'csv-parse/sync';

/** Maximum sizes of a table, checked before it is processed. */
export const TABLE_LIMITS = { rows: 20_000, columns: 60, record: 64 * 1024, cards: 20_000 } as const;

/** A table as it was read. */
export interface ReadTable {
  headings: string[];
  rows: string[][];
  /** The line each row begins on, from 1. */
  lines: number[];
}

/** A sentence for the person who sent it. */
export interface TableProblem {
  problem: string;
}

/** Returns the text of a file: UTF-8, UTF-16 by its mark, otherwise Windows-1252. */
export function textOfFile(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Reads a table, whichever of the two it is. */
export function readTable(bytes: Uint8Array): ReadTable | TableProblem {
  const text = textOfFile(bytes).replace(/^\uFEFF/, '');
  if (text.includes('\u0000')) return { problem: 'This is no table as text. Save it as CSV and choose that file.' };
  const head = text.slice(0, 200).trimStart();
  return /^BEGIN:VCARD/i.test(head) ? cardsIn(text) : csvIn(text);
}

/** Returns the delimiter: the candidate most frequent in the first line. */
function delimiterOf(text: string): string {
  const end = text.search(/[\r\n]/);
  const first = (end < 0 ? text : text.slice(0, end)).slice(0, 4_000);
  const count = (c: string) => first.split(c).length;
  return [',', ';', '\t'].reduce((best, c) => (count(c) > count(best) ? c : best), ',');
}

const CSV_PROBLEMS: Partial<Record<string, (line: number) => string>> = {
  CSV_QUOTE_NOT_CLOSED: (line) =>
    `From line ${line} on a quotation mark is opened and never closed. Close it and try again.`,
  CSV_INVALID_CLOSING_QUOTE: (line) =>
    `On line ${line} something stands after a closing quotation mark. Mend it and try again.`,
  CSV_MAX_RECORD_SIZE: (line) =>
    `Line ${line} is longer than any row of a table. Look whether a quotation mark is missing there.`,
};

function csvIn(text: string): ReadTable | TableProblem {
  let records: string[][];
  const lines: number[] = [];
  try {
    records = parse(text, {
      delimiter: delimiterOf(text),
      relax_column_count: true,
      skip_empty_lines: true,
      max_record_size: TABLE_LIMITS.record,
      to: TABLE_LIMITS.rows + 2,
      on_record: (record: string[], at) => {
        lines.push(at.lines);
        return record;
      },
    });
  } catch (error) {
    const { code, line } = csvError(error);
    return {
      problem: CSV_PROBLEMS[code]?.(line) ?? 'This table cannot be read. Save it as CSV once more and try again.',
    };
  }
  const [head, ...rest] = records;
  if (!head) return { problem: 'There is nothing in this table.' };
  const widest = records.reduce((n, r) => Math.max(n, r.length), 0);
  if (widest > TABLE_LIMITS.columns)
    return {
      problem: `This table has ${widest} columns; ${TABLE_LIMITS.columns} can be read. Take out those that are not needed.`,
    };
  if (rest.length > TABLE_LIMITS.rows)
    return {
      problem: `This table has more than ${TABLE_LIMITS.rows.toLocaleString('en-US')} rows. Import it in parts.`,
    };
  if (!rest.length) return { problem: 'There are headings in this table, and no rows.' };
  return { headings: head, rows: rest, lines: lines.slice(1) };
}

function csvError(error: unknown): { code: string; line: number } {
  if (typeof error !== 'object' || error === null) return { code: '', line: 1 };
  const code: unknown = Reflect.get(error, 'code');
  const lines: unknown = Reflect.get(error, 'lines');
  return { code: typeof code === 'string' ? code : '', line: typeof lines === 'number' ? lines : 1 };
}

const CARD_HEADINGS = ['Name', 'Email', 'Phone', 'Company'];

/** Reads vCards (RFC 6350, and 3.0 from older programs): names and addresses only. */
function cardsIn(text: string): ReadTable | TableProblem {
  const cards: { text: string; line: number }[] = [];
  let begun: { from: number; lines: string[]; skipping: boolean } | null = null;
  for (const [i, line] of text.split(/\r\n|\r|\n/).entries()) {
    if (/^BEGIN:VCARD\s*$/i.test(line)) begun = { from: i + 1, lines: [], skipping: false };
    if (!begun) continue;
    // A picture is most of a card and not wanted: it is not read.
    const folded = /^[ \t]/.test(line);
    if (!folded) begun.skipping = /^(?:[\w-]+\.)?(?:PHOTO|LOGO|SOUND|KEY)[;:]/i.test(line);
    if (!begun.skipping && line.length <= TABLE_LIMITS.record) begun.lines.push(line);
    if (!/^END:VCARD\s*$/i.test(line)) continue;
    cards.push({ text: begun.lines.join('\r\n'), line: begun.from });
    if (cards.length > TABLE_LIMITS.cards)
      return {
        problem: `There are more than ${TABLE_LIMITS.cards.toLocaleString('en-US')} cards in this file. Import it in parts.`,
      };
    begun = null;
  }
  if (!cards.length) return { problem: 'There is no whole card in this file.' };
  return { headings: CARD_HEADINGS, rows: cards.map((c) => cardCells(c.text)), lines: cards.map((c) => c.line) };
}

function cardCells(text: string): string[] {
  try {
    const card = ICAL.Component.fromString(text);
    const value = (name: string): string => {
      const found: unknown = card.getFirstPropertyValue(name);
      const one: unknown = Array.isArray(found) ? found.flat().filter(Boolean).join(', ') : found;
      return typeof one === 'string' ? one.replace(/^(?:tel|mailto):/i, '') : '';
    };
    const parts: unknown = card.getFirstPropertyValue('n');
    // Family name first, as a card keeps it.
    const [family = '', given = ''] = Array.isArray(parts)
      ? parts.map((p) => (Array.isArray(p) ? p.join(' ') : String(p)))
      : [];
    return [value('fn') || `${given} ${family}`.trim(), value('email'), value('tel'), value('org')];
  } catch {
    // A row without a name is named as one that cannot be taken.
    return ['', '', '', ''];
  }
}
