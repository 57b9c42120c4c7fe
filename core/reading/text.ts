/** From characters to lines, tokens and phrases. */
import type { Rect } from '../paper/types';
import type { DownLine, Glyph } from './types';
import { itemAt } from '../sure';

/** A part of a line without a gap: a word, or a run of characters that make a blank. */
export interface Token {
  text: string;
  x0: number;
  x1: number;
  y: number;
  size: number;
  bold: boolean;
  /** What the token is made of: underscores and dots are to be written on. */
  made: 'word' | 'underscores' | 'dots';
}

/** A line of text on a page. */
export interface TextLine {
  y: number;
  size: number;
  tokens: Token[];
}

/** Words that are together on one line, between blanks and wide gaps. */
export interface Phrase {
  text: string;
  x0: number;
  x1: number;
  y: number;
  size: number;
  bold: boolean;
}

const UNDERSCORE = /[_\u2017\uff3f\u23af]/u;
const DOT = /[.\u2024\u2025\u2026\u00b7\u2022]/u;
const FOUR_DOTS = /[.\u2024\u2025\u2026\u00b7\u2022]{4}/u;

/** Returns which kind of token a character belongs to. */
function makeOf(ch: string): Token['made'] {
  if (UNDERSCORE.test(ch)) return 'underscores';
  if (ch === '\u2026') return 'dots';
  return 'word';
}

/** Groups characters by baseline and divides each line into tokens, left to right, top to bottom. */
export function linesOf(glyphs: Glyph[]): TextLine[] {
  return rowsOf(glyphs)
    .map((row) => lineOf(row))
    .filter((l) => l.tokens.length > 0);
}

/** Returns characters on one baseline together, from the top. */
function rowsOf(glyphs: readonly Glyph[]): Glyph[][] {
  const sorted = [...glyphs].sort((a, b) => a.y - b.y || a.x0 - b.x0);
  const rows: Glyph[][] = [];
  for (const g of sorted) {
    const row = rows[rows.length - 1];
    const last = row?.[0];
    if (last && Math.abs(g.y - last.y) <= Math.max(1.2, 0.22 * Math.min(g.size, last.size))) row.push(g);
    else rows.push([g]);
  }
  return rows;
}

/** Number of spaces side by side that are a blank, underlined or in a cell. */
const BLANK_SPACES = 6;
const isSpace = (ch: string) => ch === ' ' || ch === '\u00a0';

/** Returns whether a row has so many spaces side by side that they are a blank. */
function hasBlankOfSpaces(sorted: Glyph[]): boolean {
  const spaces = sorted.filter((g) => isSpace(g.ch));
  let from = 0;
  return spaces.some((g, i) => {
    const last = spaces[i - 1];
    if (!last || g.x0 - last.x1 > 0.1 * g.size) from = g.x0;
    // Some programs print them over each other: how far they reach counts, not how many there are.
    return g.x1 - from >= BLANK_SPACES * (g.x1 - g.x0);
  });
}

/** Share of a character's width that must be covered for it to count as typed over. */
const TYPED_OVER = 0.5;

/** Returns a row's characters from left to right, without the underscores, dots and spaces of blanks that have text typed over them. */
function withoutTypedOver(row: Glyph[]): Glyph[] {
  const sorted = row.sort((a, b) => a.x0 - b.x0);
  const spaces = hasBlankOfSpaces(sorted);
  const isRule = (ch: string) => UNDERSCORE.test(ch) || (spaces && isSpace(ch));
  const covered = coveredBy(
    sorted,
    sorted.filter((g) => !isRule(g.ch) && !DOT.test(g.ch) && g.ch.trim() !== ''),
  );
  return withoutLeader(
    sorted.filter((g) => !isRule(g.ch) || !covered.has(g)),
    covered,
  );
}

/** Maximum number of letters that are compared with one character: a page may have thousands printed over each other. */
const MOST_OVER = 100;

/** Returns the underscores, dots and spaces of a row that letters cover. Both lists are sorted from left to right. */
function coveredBy(row: Glyph[], letters: Glyph[]): ReadonlySet<Glyph> {
  const out = new Set<Glyph>();
  let from = 0;
  for (const g of row) {
    if (!UNDERSCORE.test(g.ch) && !DOT.test(g.ch) && !isSpace(g.ch)) continue;
    while (from < letters.length && itemAt(letters, from).x1 < g.x0) from++;
    let covered = 0;
    const end = Math.min(letters.length, from + MOST_OVER);
    for (let i = from; i < end && itemAt(letters, i).x0 < g.x1; i++)
      covered += Math.min(g.x1, itemAt(letters, i).x1) - Math.max(g.x0, itemAt(letters, i).x0);
    if (covered >= TYPED_OVER * (g.x1 - g.x0)) out.add(g);
  }
  return out;
}

/** Least number of underscores that must be covered: a single one may only be set too close to a letter. */
const TYPED = 2;

/** A blank of underscores or dots with text typed over it. */
export interface TypedOver {
  x0: number;
  x1: number;
  /** Baseline and type size of the blank. */
  y: number;
  size: number;
  /** Length of the blank before and after the text, in points. */
  free: number;
}

/** Returns the blanks of underscores or dots that have text typed over them. */
export function typedOver(glyphs: readonly Glyph[]): TypedOver[] {
  return rowsOf(glyphs).flatMap((row) => {
    const sorted = row.sort((a, b) => a.x0 - b.x0);
    const letters = sorted.filter((g) => !UNDERSCORE.test(g.ch) && !DOT.test(g.ch) && g.ch.trim() !== '');
    const covered = coveredBy(sorted, letters);
    const out: (Omit<TypedOver, 'free'> & { covered: number; from: number; to: number; isDots: boolean })[] = [];
    for (const g of sorted) {
      const isDots = DOT.test(g.ch);
      if (!isDots && !UNDERSCORE.test(g.ch)) continue;
      let open = out.at(-1);
      if (!open || open.isDots !== isDots || g.x0 - open.x1 >= 0.6 * g.size) {
        open = { x0: g.x0, x1: g.x0, y: g.y, size: g.size, covered: 0, from: g.x0, to: g.x0, isDots };
        out.push(open);
      }
      open.x1 = Math.max(open.x1, g.x1);
      if (!covered.has(g)) continue;
      if (!open.covered) open.from = g.x0;
      open.covered++;
      open.to = g.x1;
    }
    return out
      .filter((run) => run.covered >= (run.isDots ? LEADER : TYPED))
      .map(({ x0, x1, y, size, from, to }) => ({ x0, x1, y, size, free: from - x0 + x1 - to }));
  });
}

/** How far a dot may be from where the dots of its leader are, as a share of their distance. */
const OFF = 0.12;
/** Number of covered dots on one grid that are a leader with text over it; fewer are full stops set close to a letter. */
const LEADER = 3;

/** Returns a row's characters without leader dots: where text is typed over a dot leader, dots still show between its words. */
function withoutLeader(row: Glyph[], covered: ReadonlySet<Glyph>): Glyph[] {
  const dots = row.filter((g) => DOT.test(g.ch) && covered.has(g));
  const [first, last] = [dots[0], dots.at(-1)];
  if (!first || !last || dots.length < LEADER) return row;
  // Dots between those that are covered may show: the smallest distance is that of the leader, nearly.
  let pitch = Math.min(...dots.slice(1).map((d, i) => d.x0 - itemAt(dots, i).x0));
  // Further apart than a letter is wide, they are the ends of sentences.
  if (pitch < 1 || pitch > first.size) return row;
  for (const d of dots.slice(1)) pitch = (d.x0 - first.x0) / Math.max(1, Math.round((d.x0 - first.x0) / pitch));
  const onGrid = (g: Glyph) => {
    const steps = (g.x0 - first.x0) / pitch;
    return Math.abs(steps - Math.round(steps)) <= OFF;
  };
  if (dots.filter(onGrid).length < LEADER) return row;
  const amounts = pointsInAmounts(row);
  return row.filter((g) => {
    if (!DOT.test(g.ch) || g.x0 < first.x0 - 3 * pitch || g.x0 > last.x0 + 2 * pitch || !onGrid(g)) return true;
    // The point of an amount stays, even where a leader's dot would stand.
    return !covered.has(g) && amounts.has(g);
  });
}

/** Returns the dots of a row that stand between two digits, whatever dots are beside them. */
function pointsInAmounts(row: readonly Glyph[]): ReadonlySet<Glyph> {
  const out = new Set<Glyph>();
  let dots: Glyph[] = [];
  let before: Glyph | undefined;
  for (const g of row) {
    if (DOT.test(g.ch)) {
      dots.push(g);
      continue;
    }
    if (isFigure(before) && isFigure(g)) for (const dot of dots) out.add(dot);
    dots = [];
    before = g;
  }
  return out;
}
const isFigure = (g: Glyph | undefined) => g !== undefined && /\d/.test(g.ch);

function lineOf(unsorted: Glyph[]): TextLine {
  const row = withoutTypedOver(unsorted);
  const tokens: Token[] = [];
  let open: Token | null = null;
  // An underscore may show between two letters of a typed word: the letters after it belong to the same word.
  let word: Token | null = null;
  let before: Glyph | null = null;
  for (const g of row) {
    // Bold that is faked by printing twice would double every letter.
    if (before && before.ch === g.ch && Math.abs(before.x0 - g.x0) < 0.12 * g.size) continue;
    const blank = g.ch.trim() === '' || g.ch === '\u200b';
    const made = makeOf(g.ch);
    if (blank) {
      open = word = null;
      before = g;
      continue;
    }
    if (made === 'word' && open?.made === 'underscores' && word && g.x0 - word.x1 <= 0.2 * g.size) open = word;
    const gap: number = open ? g.x0 - open.x1 : 0;
    // Underscores that do not touch are still one line to write on.
    const reach = made === 'underscores' ? 0.6 * g.size : 0.2 * g.size;
    if (open && made === open.made && gap <= reach) {
      open.text += g.ch;
      open.x1 = Math.max(open.x1, g.x1);
      open.bold = open.bold && g.bold;
    } else {
      open = { text: g.ch, x0: g.x0, x1: g.x1, y: g.y, size: g.size, bold: g.bold, made };
      tokens.push(open);
    }
    if (made === 'word') word = open;
    before = g;
  }
  const split = tokens.flatMap(splitDots);
  const sizes = split.map((t) => t.size).sort((a, b) => a - b);
  return {
    y: row[0]?.y ?? 0,
    size: sizes[Math.floor(sizes.length / 2)] ?? 0,
    tokens: joinBlanks(split),
  };
}

/** Returns a token divided before four or more dots, which are a leader or a blank, not the end of a sentence. */
function splitDots(t: Token): Token[] {
  if (t.made !== 'word' || !FOUR_DOTS.test(t.text)) return [t];
  const chars = Array.from(t.text);
  const n = chars.length;
  let from = 0;
  const out: Token[] = [];
  const at = (i: number) => t.x0 + ((t.x1 - t.x0) * i) / n;
  const cut = (a: number, b: number, made: Token['made']) => {
    if (b > a) out.push({ ...t, text: chars.slice(a, b).join(''), x0: at(a), x1: at(b), made });
  };
  for (let i = 0; i < n; i++) {
    if (!DOT.test(itemAt(chars, i))) continue;
    let j = i;
    while (j < n && DOT.test(itemAt(chars, j))) j++;
    if (j - i >= 4) {
      cut(from, i, 'word');
      cut(i, j, 'dots');
      from = j;
    }
    i = j;
  }
  cut(from, n, 'word');
  return out;
}

/** Returns dots separated by spaces, and underscores in several runs, as one token. */
function joinBlanks(tokens: Token[]): Token[] {
  const out: Token[] = [];
  for (const t of tokens) {
    const last = out[out.length - 1];
    const dotty = t.made === 'dots' || (t.made === 'word' && /^[.\u00b7\u2022]+$/u.test(t.text));
    const lastDotty = last && (last.made === 'dots' || /^[.\u00b7\u2022]+$/u.test(last.text));
    const near = last && t.x0 - last.x1 < 0.9 * t.size;
    if (last && near && dotty && lastDotty) {
      last.text += t.text;
      last.x1 = t.x1;
      if (last.text.length >= 4) last.made = 'dots';
    } else if (last && last.made === 'underscores' && t.made === 'underscores' && t.x0 - last.x1 < 0.75 * t.size) {
      // "_ _ _ _" is one blank; "____ ____" is two: the length of the pieces decides.
      if (last.text.length <= 2 || t.text.length <= 2) {
        last.text += t.text;
        last.x1 = t.x1;
      } else out.push(t);
    } else out.push({ ...t });
  }
  return out;
}

/** Returns the phrases of a line: divided at blanks, gaps wider than about two letters, and vertical lines. */
export function phrasesOf(line: TextLine, down: DownLine[]): Phrase[] {
  const out: Phrase[] = [];
  let open: Phrase | null = null;
  for (const t of line.tokens) {
    if (t.made !== 'word') {
      open = null;
      continue;
    }
    const walled: boolean =
      !!open &&
      down.some(
        (d) => d.x > open!.x1 - 1 && d.x < t.x0 + 1 && d.y0 < line.y - 0.2 * t.size && d.y1 > line.y - 0.6 * t.size,
      );
    if (open && t.x0 - open.x1 < 1.3 * t.size && !walled) {
      open.text += ` ${t.text}`;
      open.x1 = t.x1;
      open.bold = open.bold && t.bold;
    } else {
      open = { text: t.text, x0: t.x0, x1: t.x1, y: t.y, size: t.size, bold: t.bold };
      out.push(open);
    }
  }
  return out;
}

/** Returns the box of a token or phrase: from the height of capitals to a little below the baseline. */
export function boxOf(t: { x0: number; x1: number; y: number; size: number }): Rect {
  return { x: t.x0, y: t.y - 0.74 * t.size, w: t.x1 - t.x0, h: 0.94 * t.size };
}

/** Returns the words of a page with their boxes, without blanks made of characters. */
export function wordsOf(lines: TextLine[]): { text: string; rect: Rect }[] {
  return lines.flatMap((l) => l.tokens.filter((t) => t.made === 'word').map((t) => ({ text: t.text, rect: boxOf(t) })));
}
