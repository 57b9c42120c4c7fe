/** A page's words in reading order, divided into words, figures and signs. */
import type { Rect } from '../paper/types';
import { plain } from '../reading/words';
import type { AbstractPage, Source } from './types';

/** A word, figure or sign, with what separates it from the one before. */
export interface Piece {
  /** As printed. */
  raw: string;
  /** In lower case, without accents, with straight quotation marks. */
  text: string;
  page: number;
  rect: Rect;
  /** What stands before it: nothing, a space, a gap as wide as a blank, a new row, or space between paragraphs. */
  before: 'none' | 'space' | 'gap' | 'row' | 'part';
}

/** Maximum number of words of one document that are read. */
export const MOST_WORDS = 60_000;

/** Words whose heights overlap by this share stand on one row. */
const SAME_ROW = 0.5;
/** A gap this many letter heights wide is a blank, or the edge of a column. */
const WIDE = 1.1;
/** Rows further apart than this many row heights belong to different paragraphs. */
const APART = 2.3;

/** Divides a word into its figures, letters and signs. */
const PIECE = /\d[\d.,/-]*\d|\d|[\p{L}\p{M}][\p{L}\p{M}'’\u2010-]*|[^\s\p{L}\p{M}\d]/gu;

interface Word {
  text: string;
  rect: Rect;
}

const middle = (w: Word) => w.rect.y + w.rect.h / 2;

/** Returns words in rows from top to bottom, each from left to right; a filled-in word stands on the row of its line. */
function rowsOf(words: Word[]): Word[][] {
  const sorted = [...words].sort((a, b) => middle(a) - middle(b));
  const rows: Word[][] = [];
  for (const w of sorted) {
    const row = rows.at(-1);
    const last = row?.at(-1);
    if (row && last && middle(w) - middle(last) < SAME_ROW * Math.min(w.rect.h, last.rect.h)) row.push(w);
    else rows.push([w]);
  }
  return rows.map((row) => row.sort((a, b) => a.rect.x - b.rect.x));
}

/** Returns the pieces of a page in reading order. */
export function piecesOf(page: Pick<AbstractPage, 'words'>, number: number): Piece[] {
  const out: Piece[] = [];
  let above: Word | null = null;
  for (const row of rowsOf(page.words)) {
    let left: Word | null = null;
    for (const word of row) {
      const gap = left ? word.rect.x - (left.rect.x + left.rect.w) : 0;
      const apart = above && middle(word) - middle(above) > APART * Math.min(word.rect.h, above.rect.h);
      const before = left ? (gap > WIDE * word.rect.h ? 'gap' : 'space') : apart ? 'part' : 'row';
      pushWord(out, word, before, number);
      left = word;
    }
    above = row[0] ?? above;
  }
  return out;
}

/** Returns the pieces of all pages of a document. */
export const piecesOfAll = (pages: readonly Pick<AbstractPage, 'words'>[]): Piece[] =>
  pages.flatMap((p, i) => piecesOf(p, i + 1));

function pushWord(out: Piece[], word: Word, before: Piece['before'], page: number): void {
  let first = true;
  for (const m of word.text.matchAll(PIECE)) {
    const { x, y, w, h } = word.rect;
    const rect = { x: x + (w * m.index) / word.text.length, y, w: (w * m[0].length) / word.text.length, h };
    out.push({ raw: m[0], text: plain(m[0]), page, rect, before: first ? before : 'none' });
    first = false;
  }
}

/** Returns pieces as they are printed, in one line. */
export function textOf(pieces: readonly Piece[]): string {
  return pieces.map((p, i) => (i && p.before !== 'none' ? ' ' : '') + p.raw).join('');
}

/** Number of pieces shown before and after a value. */
const SHOWN = 8;

/** Returns where a run of pieces is printed, with a few words around it. `to` is exclusive. */
export function sourceOf(pieces: readonly Piece[], from: number, to: number): Source {
  const own = pieces.slice(from, to);
  const first = own[0]!;
  const onRow = own.filter((p) => p.page === first.page && Math.abs(p.rect.y - first.rect.y) < first.rect.h);
  const x = Math.min(...onRow.map((p) => p.rect.x));
  const y = Math.min(...onRow.map((p) => p.rect.y));
  const right = Math.max(...onRow.map((p) => p.rect.x + p.rect.w));
  const bottom = Math.max(...onRow.map((p) => p.rect.y + p.rect.h));
  return { page: first.page, rect: { x, y, w: right - x, h: bottom - y }, words: wordsAround(pieces, from, to) };
}

/** Returns a run of pieces with a few words of its own sentence before and after it. */
function wordsAround(pieces: readonly Piece[], from: number, to: number): string {
  const { page } = pieces[from]!;
  const goesOn = (at: number) => pieces[at]?.page === page && pieces[at]?.before !== 'part';
  let start = from;
  while (from - start < SHOWN && goesOn(start) && pieces[start - 1]?.page === page && !endsSentence(pieces, start - 1))
    start--;
  // A sign that closes something before says nothing here.
  while (start < from && /^[”"’')\]}:;,.]$/.test(pieces[start]!.raw)) start++;
  let end = to;
  while (end - to < SHOWN && goesOn(end) && !endsSentence(pieces, end)) end++;
  while (end > to && /^[“"‘'([{$]$/.test(pieces[end - 1]!.raw)) end--;
  const words = textOf(pieces.slice(start, end));
  // A bracket that is not closed here explains nothing.
  const open = words.lastIndexOf('(');
  return open > 0 && !words.includes(')', open) && end > to ? words.slice(0, open).trim() : words;
}

/** Returns whether a full stop at a piece ends a sentence, as far as quoting needs to know. */
const endsSentence = (pieces: readonly Piece[], at: number) =>
  pieces[at]!.text === '.' &&
  pieces[at + 1]?.before !== 'none' &&
  /^(?:\p{L}{3,}|\d.*)$/u.test(pieces[at - 1]?.raw ?? '');

/** Returns the text of the piece at a position; empty outside of the document. */
export const pieceAt = (pieces: readonly Piece[], at: number): string => pieces[at]?.text ?? '';
