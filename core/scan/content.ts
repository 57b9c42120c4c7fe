/** What stands on a page that is a picture, told as a printed page tells of itself. */
import type { Rect } from '../paper/types';
import type { PageContent } from '../reading/types';
import { asPrinted } from './lexicon';
import type { DrawnInk } from './lines';
import type { SeenWord } from './types';

/** Words we are less sure of than this are strokes of a pen, stains or lines. */
const LEAST = 0.3;
/** Type size as a share of the height from capitals to descenders. */
const OF_HEIGHT = 0.98;

/** Characters that recognition makes of lines and frames. */
const NO_WORD = /^[_\-\u2013\u2014=|~.,'"`:;\\/\u00b0\u00a6\u2022*]+$/u;

/** A word as it stands on a page, in points. */
export interface PlacedWord {
  text: string;
  x: number;
  /** Where its letters stand. */
  y: number;
  w: number;
  size: number;
}

/** Lines and boxes as a page's own drawing. */
export const drawnOf = (ink: DrawnInk): Pick<PageContent, 'across' | 'down' | 'frames'> => ({
  across: ink.across,
  down: ink.down,
  frames: ink.squares,
});

/**
 * The words of a page as they were most likely printed; what recognition made of lines, boxes and stains is none.
 *
 * @param scale dots a point
 */
export function wordsOfScan(words: SeenWord[], ink: DrawnInk, scale: number): PlacedWord[] {
  return words.flatMap((word) => {
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
}

function covers(s: Rect, b: Rect): boolean {
  const w = Math.min(s.x + s.w, b.x + b.w) - Math.max(s.x, b.x);
  const h = Math.min(s.y + s.h, b.y + b.h) - Math.max(s.y, b.y);
  return w > 0.5 * b.w && h > 0.4 * b.h;
}

/** Words we are surer of than this are taken as they were read. */
const SURE = 0.93;

/** An empty pair of brackets is read as all sorts of letters. */
function tidied({ text, confidence }: SeenWord): string {
  const bare = text.replace(/^\[[\s\]JIl1|)]{1,2}$/, '[]').replace(/_{2,}/g, '');
  return confidence < SURE ? asPrinted(bare) : bare;
}
