/** Everything on a page that looks like a place to write, before it is known what for. */
import type { Rect } from '../paper/types';
import { framesOf } from './frames';
import { boxOf, linesOf, phrasesOf, type Phrase, type TextLine, type Token } from './text';
import type { AcrossLine, PageContent } from './types';
import { isRoleHeading, kindOfWords, plain, roleOfWords } from './words';
import { itemAt, lastOf } from '../sure';

/** A blank found on a page, before it is known what it is for. */
export interface Blank {
  x0: number;
  x1: number;
  /** The line to write on. */
  y: number;
  /** Free height above the line. */
  h: number;
  made: 'underscores' | 'rule' | 'cell' | 'box' | 'parens' | 'dots' | 'space';
  /** Words in the same cell. */
  inside?: Phrase[];
  cell?: Rect;
  /** Whether it consists of blanks joined by slashes: a date in pieces. */
  pieces?: boolean;
}

/** Lines, words, boxes and blanks of a page. */
export interface PageScan {
  content: PageContent;
  lines: TextLine[];
  phrases: Phrase[];
  blanks: Blank[];
  cells: Rect[];
  /** Left and right edge of the page's text. */
  left: number;
  right: number;
}

/** Characters that are printed as an empty box. */
export const BOX_GLYPH = /[\u2610-\u2612\u25a1\u25a2\u25fb\u25fd\u2b1c\u2b1a\u274f-\u2752\u25cb\u25ef\u2751\u2752]/u;
const TICKED = /^[xX\u2713-\u2718\u2022]$/u;

/** Returns the lines, words, boxes and blanks of a page. */
export function scanPage(content: PageContent): PageScan {
  const lines = linesOf(content.glyphs);
  const phrases = lines.flatMap((l) => phrasesOf(l, content.down));
  const { cells, alone } = framesOf(content);
  const xs = phrases.flatMap((p) => [p.x0, p.x1]);
  const left = xs.length ? Math.min(...xs) : 0;
  const right = xs.length ? Math.max(...xs) : content.width;
  const scan: PageScan = { content, lines, phrases, blanks: [], cells, left, right };
  const typed = lines.flatMap((l) => typedBlanks(l));
  const boxes = boxBlanks(scan);
  const inCells = cellBlanks(scan, boxes);
  const alones = alone.flatMap((l) => ruledBlank(scan, l));
  const ruled = [...alones, ...lastLines(scan, alones)];
  scan.blanks = [...boxes, ...inCells];
  for (const b of [...typed, ...ruled]) if (!scan.blanks.some((o) => clash(o, b))) scan.blanks.push(b);
  for (const b of scan.blanks)
    if (b.made === 'underscores' || b.made === 'dots' || b.made === 'parens') b.h = Math.max(b.h, freeAbove(scan, b));
  scan.blanks.sort((a, b) => (Math.abs(a.y - b.y) > 4 ? a.y - b.y : a.x0 - b.x0));
  return scan;
}

/** Returns the free height above a typed blank: handwriting needs more than the line's type size. */
function freeAbove(scan: PageScan, b: Blank): number {
  let top = b.y - 26;
  const over = (x0: number, x1: number) => x0 < b.x1 - 0.5 && x1 > b.x0 + 0.5;
  for (const p of scan.phrases)
    if (p.y < b.y - 0.6 * p.size && over(p.x0, p.x1)) top = Math.max(top, p.y + 0.24 * p.size);
  for (const o of scan.blanks) if (o !== b && o.y < b.y - 3 && over(o.x0, o.x1)) top = Math.max(top, o.y + 1);
  for (const l of scan.content.across) if (l.y < b.y - 3 && over(l.x0, l.x1)) top = Math.max(top, l.y + 1);
  return b.y - top - 1;
}

function clash(a: Blank, b: Blank): boolean {
  const across = Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0);
  if (across < 0.5 * Math.min(a.x1 - a.x0, b.x1 - b.x0)) return false;
  return Math.min(a.y, b.y) > Math.max(a.y - a.h, b.y - b.h) - 0.5 && Math.abs(a.y - b.y) < Math.max(6, 0.6 * a.h);
}

/** Words by which a line says that its blanks are for days, or for initials. */
const OF_DAYS = /\b(?:date|dated|day|month|fecha|dia|mm|dd)\b|\b(?:on|by|from|until|el)\W*$/;
const OF_INITIALS = /\b(?:initials?|iniciales)\b/;
/** Maximum gap between a piece of a date and its slash, relative to the size of the type. */
const TIGHT = 0.35;

/**
 * Returns whether blanks joined by slashes are the day, month and year of one date. The initials of three people are joined by
 * slashes, too: in brackets, beside the word for initials, or beside who they are and apart from their slashes.
 */
function isDate(line: TextLine, from: number, pieces: readonly Token[]): boolean {
  if (pieces.length !== 3) return false;
  const t = line.tokens;
  const [before, after] = [t[from - 1], t[from + 2 * pieces.length - 1]];
  if (/[([]$/.test(before?.text ?? '') && /^[)\]]/.test(after?.text ?? '')) return false;
  const textOf = (some: readonly Token[]) => plain(some.flatMap((o) => (o.made === 'word' ? [o.text] : [])).join(' '));
  const [left, right] = [
    textOf(t.slice(Math.max(0, from - NEAR_WORDS), from)),
    textOf(t.slice(from, from + 2 * NEAR_WORDS)),
  ];
  if (OF_INITIALS.test(left) || OF_INITIALS.test(right)) return false;
  const isTight = itemAt(t, from + 1).x0 - itemAt(pieces, 0).x1 < TIGHT * itemAt(pieces, 0).size;
  return isTight || OF_DAYS.test(left) || OF_DAYS.test(right) || !roleOfWords(left || right);
}
/** Number of words on either side by which it is told what blanks joined by slashes are for. */
const NEAR_WORDS = 6;

/** Returns the blanks made of characters: underscores, dots, brackets and box characters. */
// eslint-disable-next-line max-lines-per-function -- one walk over the words of a page; what it looks for hangs together
function typedBlanks(line: TextLine): Blank[] {
  const out: Blank[] = [];
  const t = line.tokens;
  const blank = (x0: number, x1: number, made: Blank['made'], size: number, more: Partial<Blank> = {}): Blank => ({
    x0,
    x1,
    y: line.y + 0.16 * size,
    h: 1.35 * size,
    made,
    ...more,
  });
  for (let i = 0; i < t.length; i++) {
    const tok = itemAt(t, i);
    const next = t[i + 1];
    const after = t[i + 2];
    const chars = Array.from(tok.text);
    if (tok.made === 'word' && BOX_GLYPH.test(tok.text)) {
      const each = (tok.x1 - tok.x0) / chars.length;
      chars.forEach((c, k) => {
        if (BOX_GLYPH.test(c))
          out.push({
            ...blank(tok.x0 + k * each, tok.x0 + (k + 1) * each, 'box', tok.size),
            y: tok.y + 0.15 * tok.size,
            h: 0.95 * tok.size,
          });
      });
      continue;
    }
    const opener = /[[({]$/.exec(tok.text)?.[0];
    if (tok.made === 'word' && /\[\]|\(\)|^\[_+\]$/.test(tok.text)) {
      out.push(blank(tok.x0, Math.min(tok.x1, tok.x0 + 2 * tok.size), 'box', tok.size));
      continue;
    }
    if (opener && next?.made === 'word' && /^[\])}]/.test(next.text)) {
      const gap = next.x0 - tok.x1;
      // Square brackets around spaces are a box, however many spaces there are.
      if (gap <= (opener === '[' ? 32 : 17) && gap > 1)
        out.push(blank(tok.x1 - 0.35 * tok.size, next.x0 + 0.35 * tok.size, 'box', tok.size));
      else if (gap < 160) out.push(blank(tok.x1 + 1, next.x0 - 1, 'parens', tok.size));
      continue;
    }
    if (opener && next?.made === 'underscores' && next.x1 - next.x0 <= 17 && after && /^[\])}]/.test(after.text)) {
      out.push(blank(tok.x1 - 0.35 * tok.size, after.x0 + 0.35 * tok.size, 'box', tok.size));
      i++;
      continue;
    }
    if (tok.made === 'underscores') {
      const pieces = [tok];
      let j = i;
      // "__/__/____" and "__-__-____" are one blank in pieces.
      while (
        t[j + 1]?.made === 'word' &&
        /^[/\-\u2013](?:20)?$/.test(itemAt(t, j + 1).text) &&
        t[j + 2]?.made === 'underscores' &&
        itemAt(t, j + 2).x0 - itemAt(t, j).x1 < 2.2 * tok.size &&
        itemAt(t, j).x1 - itemAt(t, j).x0 < 60 &&
        itemAt(t, j + 2).x1 - itemAt(t, j + 2).x0 < 75
      ) {
        pieces.push(itemAt(t, j + 2));
        j += 2;
      }
      const x1 = lastOf(pieces).x1;
      const yearOf = /20$/.test(t[i - 1]?.text ?? '') && tok.x0 - itemAt(t, i - 1).x1 < 0.4 * tok.size;
      if (isDate(line, i, pieces)) out.push(blank(tok.x0, x1, 'underscores', tok.size, { pieces: true }));
      else if (pieces.length > 1) for (const p of pieces) out.push(blank(p.x0, p.x1, 'underscores', p.size));
      else if (tok.text.length >= 3 || yearOf || x1 - tok.x0 > 14) out.push(blank(tok.x0, x1, 'underscores', tok.size));
      i = j;
      continue;
    }
    if (tok.made === 'dots') {
      const rest = t.slice(i + 1);
      if (!leader(rest, tok)) out.push(blank(tok.x0, tok.x1, 'dots', tok.size));
    }
  }
  return out;
}

/** Returns whether dots lead to a page number, price or answer, and are not a blank. */
function leader(rest: Token[], dots: Token): boolean {
  const next = rest[0];
  if (!next) return dots.x1 - dots.x0 < 24;
  if (/^[$\u20ac\u00a3]?[.,]*\d[\d.,]*%?$|^[ivxlc]+$/i.test(next.text) && rest.length <= 2) return true;
  return !/[:)]/.test(rest.map((r) => r.text).join(' ')) && next.made === 'word' && next.x0 - dots.x1 < 12;
}

/** Returns small squares and circles, empty or checked. */
function boxBlanks(scan: PageScan): Blank[] {
  const squares: Rect[] = [];
  for (const c of scan.cells) {
    if (c.w < 5 || c.h < 5 || c.w > 19 || c.h > 19 || c.w / c.h > 1.45 || c.h / c.w > 1.45) continue;
    if (squares.some((s) => Math.abs(s.x - c.x) < 4 && Math.abs(s.y - c.y) < 4)) continue;
    const words = textIn(scan, c, 1);
    if (words.some((w) => !TICKED.test(w.text.trim()))) continue;
    squares.push(c);
  }
  // Many squares that touch are the cells of one number, letter by letter.
  return squares
    .filter((c) => squares.filter((o) => o !== c && Math.abs(o.y - c.y) < 2 && gapBetween(o, c) < 2).length < 2)
    .map((c) => ({ x0: c.x, x1: c.x + c.w, y: c.y + c.h, h: c.h, made: 'box', cell: c }));
}

function gapBetween(a: Rect, b: Rect): number {
  return Math.max(a.x, b.x) - Math.min(a.x + a.w, b.x + b.w);
}

/** Returns phrases whose center is in a rectangle. */
export function textIn(scan: PageScan, r: Rect, grow = 0): Phrase[] {
  return scan.phrases.filter((p) => {
    const x = (p.x0 + p.x1) / 2;
    const y = p.y - 0.3 * p.size;
    return x > r.x - grow && x < r.x + r.w + grow && y > r.y - grow && y < r.y + r.h + grow;
  });
}

/** Where the foot of a page begins, as a share of its height. */
const FOOT = 0.86;
const textOf = (words: Phrase[]) => words.map((w) => w.text).join(' ');

/** Returns table cells and drawn boxes with room to write in. */
function cellBlanks(scan: PageScan, boxes: Blank[]): Blank[] {
  const out: Blank[] = [];
  for (const c of scan.cells) {
    if (c.w < 20 || c.h < 9 || c.h > 130 || boxes.some((b) => b.cell === c)) continue;
    if (c.w > 0.97 * scan.content.width) continue;
    // A frame around other cells is not one to write in.
    if (scan.cells.some((o) => o !== c && inside(o, c))) continue;
    if (scan.lines.some((l) => l.tokens.some((t) => t.made !== 'word' && within(t, c)))) continue;
    if (boxes.some((b) => b.cell && inside(b.cell, c))) continue;
    const words = textIn(scan, c);
    if (words.some((w) => BOX_GLYPH.test(w.text) || /\[\s*\]|\(\s*\)/.test(w.text))) continue;
    if (!words.length) {
      if (c.h > 100) continue;
      out.push({ x0: c.x + 2, x1: c.x + c.w - 2, y: c.y + c.h - 1.5, h: c.h - 3, made: 'cell', cell: c, inside: [] });
      continue;
    }
    const bottom = Math.max(...words.map((w) => w.y + 0.25 * w.size));
    const end = Math.max(...words.map((w) => w.x1));
    const size = Math.max(...words.map((w) => w.size));
    const single = new Set(words.map((w) => Math.round(w.y))).size === 1;
    const top = Math.min(...words.map((w) => w.y - 0.74 * w.size));
    const over = top - c.y;
    const below = c.y + c.h - bottom;
    const beside = c.x + c.w - end;
    // Words at the foot of a cell leave the room over them.
    if (single && over >= Math.max(13, 1.2 * size) && over > below && asksFor(words) && !isHead(scan, c))
      out.push({ x0: c.x + 2, x1: c.x + c.w - 2, y: top - 0.5, h: over - 2, made: 'cell', cell: c, inside: words });
    else if (single && below >= Math.max(11, 1.05 * size) && itemAt(words, 0).y - c.y < 0.62 * c.h)
      out.push({
        x0: c.x + 2,
        x1: c.x + c.w - 2,
        y: c.y + c.h - 1.5,
        h: below - 3,
        made: 'cell',
        cell: c,
        inside: words,
      });
    else if (single && hasRoomBeside(scan, c, { words, beside, size }))
      out.push({
        x0: end + 3,
        x1: c.x + c.w - 2,
        y: c.y + c.h - 1.5,
        h: c.h - 3,
        made: 'cell',
        cell: c,
        inside: words,
      });
  }
  return out;
}

/** Maximum room between the last caption of a cell and the edge under it, in points. */
const LAST_ROOM = 30;

/**
 * Returns the blanks whose line is the lower edge of their cell: the cell has lines to write on, which begin where its last words
 * do, and those words ask for something and stand over the edge.
 */
function lastLines(scan: PageScan, ruled: readonly Blank[]): Blank[] {
  if (!ruled.length || scan.cells.length > MANY_CELLS) return [];
  return scan.cells.flatMap((c): Blank[] => {
    const lines = ruled.filter((b) => b.x0 > c.x - 1 && b.x1 < c.x + c.w + 1 && b.y > c.y && b.y < c.y + c.h - 6);
    const last = lines[lines.length - 1];
    if (!last) return [];
    const words = textIn(scan, c).sort((p, q) => p.y - q.y);
    const caption = words[words.length - 1];
    const bottom = c.y + c.h;
    const room = caption ? bottom - caption.y : 0;
    if (!caption || caption.y < last.y || room < 12 || room > LAST_ROOM) return [];
    if (Math.abs(caption.x0 - last.x0) > 3 || !kindOfWords(caption.text)) return [];
    return [{ x0: last.x0, x1: last.x1, y: bottom - 1.5, h: room - 3, made: 'rule' }];
  });
}

/** Number of cells of a page from which on it is not searched for lines within them. */
const MANY_CELLS = 400;

/** Returns whether a cell is to be filled beside its words: "Phone: ____", and "Lessor ____" at the foot of a page. */
function hasRoomBeside(scan: PageScan, c: Rect, o: { words: Phrase[]; beside: number; size: number }): boolean {
  const text = textOf(o.words);
  if (o.beside > 20 && c.w < 130 && c.y > FOOT * scan.content.height && isRoleHeading(text)) return true;
  if (o.beside <= Math.max(34, 0.3 * c.w)) return false;
  return /:\s*$/.test(text) || (c.h > 2.4 * o.size && asksFor(o.words) && !isHead(scan, c));
}

/** Returns whether the cell right below or beside this one is empty: then this one is its heading. */
function isHead(scan: PageScan, c: Rect): boolean {
  return scan.cells.some(
    (o) =>
      ((Math.abs(o.x - c.x) < 4 && Math.abs(o.w - c.w) < 6 && Math.abs(o.y - c.y - c.h) < 4) ||
        (Math.abs(o.y - c.y) < 4 && Math.abs(o.h - c.h) < 4 && Math.abs(o.x - c.x - c.w) < 4)) &&
      !textIn(scan, o).length,
  );
}

/**
 * Returns whether a cell's few words ask for a signature, a day or a name: a heading would be no higher than its
 * words.
 */
function asksFor(words: Phrase[]): boolean {
  const text = words.map((w) => w.text).join(' ');
  const kind = kindOfWords(text);
  return text.split(' ').length < 5 && kind !== null && kind !== 'text' && !words.some((w) => w.bold);
}

function within(t: Token, c: Rect): boolean {
  return (t.x0 + t.x1) / 2 > c.x && (t.x0 + t.x1) / 2 < c.x + c.w && t.y > c.y && t.y < c.y + c.h + 2;
}

function inside(a: Rect, b: Rect): boolean {
  return (
    a.x >= b.x - 1 &&
    a.y >= b.y - 1 &&
    a.x + a.w <= b.x + b.w + 1 &&
    a.y + a.h <= b.y + b.h + 1 &&
    a.w * a.h < 0.9 * b.w * b.h
  );
}

/** Returns a line that stands alone as a blank, unless it underlines words or divides the page. */
function ruledBlank(scan: PageScan, l: AcrossLine): Blank[] {
  const w = l.x1 - l.x0;
  if (w < 14) return [];
  let covered = 0;
  for (const line of scan.lines) {
    if (line.y > l.y + 1.2 || line.y < l.y - 0.55 * line.size) continue;
    for (const t of line.tokens)
      if (t.made === 'word') covered += Math.max(0, Math.min(t.x1, l.x1) - Math.max(t.x0, l.x0));
  }
  if (covered > 0.22 * w) return [];
  // A long line close below words divides a table's rows or underlines a heading.
  const long = w > 0.6 * (scan.right - scan.left);
  if (
    long &&
    scan.phrases.some((p) => l.y - p.y > 1 && l.y - p.y < 14 && p.x0 < l.x1 && p.x1 > l.x0 && !/[:?]\s*$/.test(p.text))
  )
    return [];
  // A line right under words that begin where it begins underlines them, or ends a row of a table.
  if (
    scan.phrases.some(
      (p) => l.y - p.y > 0 && l.y - p.y < 11 && p.x0 > l.x0 - 3 && p.x0 < l.x0 + 14 && !/[:?]\s*$/.test(p.text),
    )
  )
    return [];
  // What is printed through the line strikes it out.
  if (
    scan.phrases.some(
      (p) =>
        Math.min(p.x1, l.x1) - Math.max(p.x0, l.x0) > 0.3 * w && l.y < p.y - 0.15 * p.size && l.y > p.y - 0.6 * p.size,
    )
  )
    return [];
  const above = scan.phrases
    .filter((p) => p.y < l.y - 0.5 && p.x0 < l.x1 - 2 && p.x1 > l.x0 + 2)
    .reduce((y, p) => Math.max(y, p.y + 0.22 * p.size), l.y - 40);
  return [{ x0: l.x0, x1: l.x1, y: l.y, h: Math.max(9, Math.min(26, l.y - above - 1)), made: 'rule' }];
}

export { boxOf };
