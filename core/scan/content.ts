/** What is on a scanned page, in the form that a printed page has. */
import type { Rect } from '../paper/types';
import type { PageContent } from '../reading/types';
import { itemAt } from '../sure';
import type { DrawnInk } from './lines';
import type { SeenWord } from './types';

/** Minimum confidence of a word; below it are pen strokes, stains and lines. */
const LEAST = 0.3;
/** Type size as a share of the height from capitals to descenders. */
const OF_HEIGHT = 0.98;

/** Characters that recognition reads in lines and frames. */
const NO_WORD = /^[_\-\u2013\u2014=|~.,'"`:;\\/\u00b0\u00a6\u2022*]+$/u;

/** A word on a page, in points. */
export interface PlacedWord {
  text: string;
  x: number;
  /** The baseline of its letters. */
  y: number;
  w: number;
  size: number;
}

/** Returns lines and boxes as a page's drawing. */
export const drawnOf = (ink: DrawnInk): Pick<PageContent, 'across' | 'down' | 'frames'> => ({
  across: ink.across,
  down: ink.down,
  frames: ink.squares,
});

/**
 * Returns the words of a page as recognized, without what recognition read in lines, boxes and stains.
 *
 * @param scale dots per point
 */
export function wordsOfScan(words: SeenWord[], ink: DrawnInk, scale: number): PlacedWord[] {
  const placed = words.flatMap((word) => {
    const text = tidied(word);
    if (!text || word.confidence < LEAST || NO_WORD.test(text)) return [];
    const box: Rect = {
      x: word.x0 / scale,
      y: word.y0 / scale,
      w: (word.x1 - word.x0) / scale,
      h: (word.y1 - word.y0) / scale,
    };
    // A box to tick, taken for a letter.
    if (text.length <= 3 && ink.squares.some((s) => covers(s, box))) return [];
    return [{ text, x: box.x, y: word.baseline / scale, w: box.w, size: (OF_HEIGHT * word.high) / scale }];
  });
  return parted(levelled(placed));
}

/**
 * Maximum gap between words of one line, and maximum difference of height between neighbors, as shares of their size.
 */
const GAP = 4;
const STRAY = 0.34;

/** Returns words that follow each other on a line on one baseline; on a photograph a line may rise a little. */
function levelled(words: PlacedWord[]): PlacedWord[] {
  const sorted = [...words].sort((a, b) => a.x - b.x);
  const rows: PlacedWord[][] = [];
  for (const word of sorted) {
    const row = rows.find((r) => {
      const last = itemAt(r, r.length - 1);
      const gap = word.x - last.x - last.w;
      return (
        gap < GAP * word.size &&
        gap > -0.3 * word.size &&
        Math.abs(last.y - word.y) < STRAY * Math.min(last.size, word.size)
      );
    });
    if (row) row.push(word);
    else rows.push([word]);
  }
  return rows.flatMap((row) => {
    const ys = row.map((w) => w.y).sort((a, b) => a - b);
    return row.map((w) => ({ ...w, y: itemAt(ys, ys.length >> 1) }));
  });
}

/** Space between two words, as a share of their size. */
const SPACE = 0.28;

/** Returns words whose boxes end a space before the next begins: boxes that nearly touch would join their words. */
function parted(words: PlacedWord[]): PlacedWord[] {
  const rows = [...words].sort((a, b) => a.y - b.y);
  return words.map((word) => {
    let end = word.x + word.w;
    for (const o of near(rows, word))
      if (o !== word && o.x > word.x) end = Math.min(end, Math.max(o.x - SPACE * word.size, word.x + 0.5 * word.w));
    return { ...word, w: end - word.x };
  });
}

/** Returns those of some words, sorted by height, that are on the line of another. */
function near(rows: PlacedWord[], { y, size }: PlacedWord): PlacedWord[] {
  let from = 0;
  let to = rows.length;
  while (from < to) {
    const middle = (from + to) >> 1;
    if (itemAt(rows, middle).y < y - 0.4 * size) from = middle + 1;
    else to = middle;
  }
  const out: PlacedWord[] = [];
  for (let i = from; i < rows.length && itemAt(rows, i).y <= y + 0.4 * size; i++) out.push(itemAt(rows, i));
  return out;
}

function covers(s: Rect, b: Rect): boolean {
  const w = Math.min(s.x + s.w, b.x + b.w) - Math.max(s.x, b.x);
  const h = Math.min(s.y + s.h, b.y + b.h) - Math.max(s.y, b.y);
  return w > 0.5 * b.w && h > 0.4 * b.h;
}

/** Returns a word without the blank after it, which recognition reads as part of it; the blank is found as a line. */
const tidied = ({ text }: SeenWord): string => text.replace(/_{2,}/g, '');
