/** Blanks that already have a value in them. The value differs from packet to packet; the rest of the page does not. */
import type { Rect } from '../paper/types';
import { framesOf, joinAcross } from './frames';
import { typedOver, type TextLine, type Token } from './text';
import type { AcrossLine, PageContent } from './types';

/**
 * Returns the filled blanks of a page: underscores or dots with text typed over them, drawn lines with words on them, and cells
 * with a value under a caption in smaller type.
 *
 * @param lines  the page's lines of text
 */
export function filledBlanks(content: PageContent, lines: readonly TextLine[]): Rect[] {
  return [
    ...typedOver(content.glyphs).flatMap(({ x0, x1, y, size, free }) =>
      isUnderlined(x1 - x0, free) ? [] : [{ x: x0, y: y - size, w: x1 - x0, h: 1.25 * size }],
    ),
    ...filledLines(content, lines),
    ...filledCells(content, lines),
  ];
}

/** Least length of a blank that its value leaves free, in points and as a share of the blank. */
const FREE = 10;
const FREE_SHARE = 0.1;

/** Returns whether a line is no longer than the words on it: then it underlines them, and they are printed. */
const isUnderlined = (length: number, free: number) => free < Math.max(FREE, FREE_SHARE * length);

/** Least length of a drawn line that is a blank, in points. */
const SHORTEST = 30;
/** Greatest length of a drawn line that is a blank, as a share of the width of the page's text. Longer ones divide sections. */
const LONGEST = 0.6;
/** Tolerance at the ends of a line or cell within which words still belong to it, in points. */
const OVER = 2;
/** Greatest distance from an end of a line to the words before or after it, in points. */
const BESIDE = 24;
/** Distance from a line down to the baseline of its caption, in points. */
const UNDER = { from: 4, to: 18 };
/** Maximum number of drawn lines on a page that is examined. Drawings and maps have more. */
const MANY = 400;

/** Returns the filled blanks that are drawn lines: longer than the words on them, with words beside or a caption below. */
function filledLines({ across, down, frames }: PageContent, lines: readonly TextLine[]): Rect[] {
  const words = lines.flatMap((l) => l.tokens);
  if (!across.length || across.length > MANY || !words.length) return [];
  const left = words.reduce((x, t) => Math.min(x, t.x0), Infinity);
  const right = words.reduce((x, t) => Math.max(x, t.x1), -Infinity);
  const walls = [...down, ...frames.flatMap((f) => [f.x, f.x + f.w].map((x) => ({ x, y0: f.y, y1: f.y + f.h })))];
  const isWalled = (l: AcrossLine) =>
    walls.some((d) => d.x > l.x0 - 3 && d.x < l.x1 + 3 && d.y0 < l.y + 3 && d.y1 > l.y - 3);
  return joinAcross(across, 0.6).flatMap((l) => {
    const w = l.x1 - l.x0;
    if (w < SHORTEST || w > LONGEST * (right - left) || isWalled(l)) return [];
    const on = lines.find(
      (line) => line.y <= l.y + 1.2 && line.y >= l.y - 0.55 * line.size && wordsOver(line, l).length,
    );
    if (!on) return [];
    const over = wordsOver(on, l);
    const first = over.reduce((x, t) => Math.min(x, t.x0), Infinity);
    const last = over.reduce((x, t) => Math.max(x, t.x1), -Infinity);
    if (first < l.x0 - OVER || last > l.x1 + OVER || isUnderlined(w, first - l.x0 + l.x1 - last)) return [];
    if (!hasBeside(on, l) && !hasCaptionUnder(lines, l)) return [];
    return [{ x: l.x0, y: on.y - on.size, w, h: l.y - on.y + on.size + 1 }];
  });
}

const isWord = (t: Token) => t.made === 'word';
const wordsOver = (line: TextLine, l: AcrossLine) => line.tokens.filter((t) => isWord(t) && t.x0 < l.x1 && t.x1 > l.x0);

/** Returns whether there are words close before or close after a line. */
const hasBeside = (on: TextLine, l: AcrossLine) =>
  on.tokens.some(
    (t) =>
      isWord(t) && ((t.x1 <= l.x0 + OVER && t.x1 > l.x0 - BESIDE) || (t.x0 >= l.x1 - OVER && t.x0 < l.x1 + BESIDE)),
  );

/** Returns whether there is a caption below a line. Text that is wider than the line is a paragraph and not its caption. */
function hasCaptionUnder(lines: readonly TextLine[], l: AcrossLine): boolean {
  const under = lines.find(
    ({ y, tokens }) => y > l.y + UNDER.from && y < l.y + UNDER.to && tokens.some((t) => t.x0 < l.x1 && t.x1 > l.x0),
  );
  if (!under) return false;
  const near = under.tokens.filter((t) => t.x1 > l.x0 - BESIDE / 2 && t.x0 < l.x1 + BESIDE / 2);
  return near.every((t) => isWord(t) && t.x0 > l.x0 - OVER && t.x1 < l.x1 + OVER);
}

/** Least and greatest height of a cell that holds a caption and one value, in points. */
const CELL = { from: 14, to: 60 };
/** Greatest type size of a caption, as a share of the type size of the value below it. */
const SMALLER = 0.9;
/** Maximum number of cells on a page that is examined. */
const MANY_CELLS = 2_000;

/** Returns the room below the caption of each cell that holds exactly a caption and one line in larger type. */
function filledCells(content: PageContent, lines: readonly TextLine[]): Rect[] {
  const { cells } = framesOf(content);
  if (cells.length > MANY_CELLS) return [];
  return cells.flatMap((c) => {
    if (c.h < CELL.from || c.h > CELL.to) return [];
    const rows = lines.flatMap((l) => {
      if (l.y <= c.y || l.y > c.y + c.h + 1) return [];
      const inside = l.tokens.filter((t) => t.x0 > c.x - OVER && t.x1 < c.x + c.w + OVER);
      const size = inside.reduce((most, t) => Math.max(most, t.size), 0);
      return inside.length && inside.every(isWord) ? [{ y: l.y, size }] : [];
    });
    const [caption, value] = rows;
    if (rows.length !== 2 || !caption || !value || caption.size > SMALLER * value.size) return [];
    const top = caption.y + 0.25 * caption.size;
    return [{ x: c.x, y: top, w: c.w, h: c.y + c.h - top }];
  });
}
