/** Blanks that have words in them already: what stands there was filled in, and differs from packet to packet. */
import type { Rect } from '../paper/types';
import { framesOf, joinAcross } from './frames';
import { typedOver, type TextLine, type Token } from './text';
import type { AcrossLine, PageContent } from './types';

/**
 * Returns the blanks of a page that have words in them: underscores and dots with text typed over them, drawn lines with words
 * on them, and cells with words under a caption in smaller type.
 *
 * @param lines  the page's lines of text
 */
export function filledBlanks(content: PageContent, lines: readonly TextLine[]): Rect[] {
  return [
    ...typedOver(content.glyphs).map(({ x0, x1, y, size }) => ({ x: x0, y: y - size, w: x1 - x0, h: 1.25 * size })),
    ...filledLines(content, lines),
    ...filledCells(content, lines),
  ];
}

/** Least length of a line that words were written on, in points, and greatest, as a share of the width of the page's text: longer ones divide sections. */
const SHORTEST = 30;
const LONGEST = 0.6;
/** Least part of a line that its words leave free, in points and as a share: what is underlined to its end is print. */
const FREE = 10;
const FREE_SHARE = 0.1;
/** How far beyond the ends of a line its words may reach, in points. */
const OVER = 2;
/** How far beside a line, in points, the words of its sentence or its caption may be. */
const BESIDE = 24;
/** Where the caption under a line stands: baselines so far below it, in points. */
const UNDER = { from: 4, to: 18 };
/** Maximum number of lines of a page that are looked at; drawings and maps have more. */
const MANY = 400;

/** Returns the room over each drawn line that has words on it, is longer than they are, and has words beside or a caption under it. */
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
    if (first < l.x0 - OVER || last > l.x1 + OVER) return [];
    if (first - l.x0 + l.x1 - last < Math.max(FREE, FREE_SHARE * w)) return [];
    if (!hasBeside(on, l) && !hasCaptionUnder(lines, l)) return [];
    return [{ x: l.x0, y: on.y - on.size, w, h: l.y - on.y + on.size + 1 }];
  });
}

const isWord = (t: Token) => t.made === 'word';
const wordsOver = (line: TextLine, l: AcrossLine) => line.tokens.filter((t) => isWord(t) && t.x0 < l.x1 && t.x1 > l.x0);

/** Returns whether the text goes on right before or right after a line. */
const hasBeside = (on: TextLine, l: AcrossLine) =>
  on.tokens.some(
    (t) =>
      isWord(t) && ((t.x1 <= l.x0 + OVER && t.x1 > l.x0 - BESIDE) || (t.x0 >= l.x1 - OVER && t.x0 < l.x1 + BESIDE)),
  );

/** Returns whether words under a line stand within its ends: its caption. Words of a paragraph go beyond them. */
function hasCaptionUnder(lines: readonly TextLine[], l: AcrossLine): boolean {
  const under = lines.find(
    ({ y, tokens }) => y > l.y + UNDER.from && y < l.y + UNDER.to && tokens.some((t) => t.x0 < l.x1 && t.x1 > l.x0),
  );
  if (!under) return false;
  const near = under.tokens.filter((t) => t.x1 > l.x0 - BESIDE / 2 && t.x0 < l.x1 + BESIDE / 2);
  return near.every((t) => isWord(t) && t.x0 > l.x0 - OVER && t.x1 < l.x1 + OVER);
}

/** Height of a cell with a caption and one value, in points. */
const CELL = { from: 14, to: 60 };
/** How large a caption's type is at most, as a share of the type of the value under it. */
const SMALLER = 0.9;

/** Returns the room under the caption of each cell that has one line of words there, in larger type than the caption. */
function filledCells(content: PageContent, lines: readonly TextLine[]): Rect[] {
  const { cells } = framesOf(content);
  return cells.flatMap((c) => {
    if (c.h < CELL.from || c.h > CELL.to) return [];
    const rows = lines.flatMap((l) => {
      if (l.y <= c.y || l.y > c.y + c.h + 1) return [];
      const inside = l.tokens.filter((t) => t.x0 > c.x - OVER && t.x1 < c.x + c.w + OVER);
      return inside.length && inside.every(isWord) ? [{ y: l.y, size: Math.max(...inside.map((t) => t.size)) }] : [];
    });
    const [caption, value] = rows;
    if (rows.length !== 2 || !caption || !value || caption.size > SMALLER * value.size) return [];
    const top = caption.y + 0.25 * caption.size;
    return [{ x: c.x, y: top, w: c.w, h: c.y + c.h - top }];
  });
}
