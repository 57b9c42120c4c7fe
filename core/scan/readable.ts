/** A scanned page's words as the rules of reading may use them, and the way back to what was recognized. */
import type { Glyph, PrintedPlace } from '../reading/types';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';
import { asPrinted } from './lexicon';

/** A word that is read as another one than was recognized. */
interface Helped {
  /** The word that is read. */
  read: string;
  /** The word that was recognized. */
  recognized: string;
  x: number;
  y: number;
}

/** A form of a recognized word for finding places; never stored as text. */
export interface Readable {
  glyphs: Glyph[];
  /** Returns the words of a text that was read near a place, as they were recognized. */
  recognized(text: string, near: Rect): string;
}

/** Gap between two letters, as a share of the type size, above which they belong to two words. */
const GAP = 0.25;
/** How far beside and above or below a place its own words may be, in points. */
const NEAR = { x: 320, y: 40 };

/** Returns the printed form of a word. An empty pair of brackets is recognized as all sorts of letters. */
const helped = (text: string) => asPrinted(text.replace(/^\[[\s\]JIl1|)]{1,2}$/, '[]'));

/** Returns a page's letters in a form for the rules, and remembers what was recognized. */
export function readable(glyphs: readonly Glyph[]): Readable {
  const changed: Helped[] = [];
  const out: Glyph[] = [];
  for (const word of wordsIn(glyphs)) {
    const text = word.map((g) => g.ch).join('');
    const read = helped(text);
    if (read === text) {
      out.push(...word);
      continue;
    }
    const first = itemAt(word, 0);
    const [x0, x1] = [first.x0, itemAt(word, word.length - 1).x1];
    const letters = Array.from(read);
    const at = (i: number) => x0 + ((x1 - x0) * i) / letters.length;
    letters.forEach((ch, i) => out.push({ ...first, ch, x0: at(i), x1: at(i + 1) }));
    for (const part of read.split(' ')) changed.push({ read: part, recognized: text, x: (x0 + x1) / 2, y: first.y });
  }
  return {
    glyphs: out,
    recognized: (text, near) =>
      text
        .split(' ')
        .map((part) => nearest(changed, part, near)?.recognized ?? part)
        .join(' '),
  };
}

function nearest(changed: Helped[], read: string, { x, y, w, h }: Rect): Helped | null {
  const [mx, my] = [x + w / 2, y + h / 2];
  const far = (c: Helped) => Math.hypot(c.x - mx, c.y - my);
  const isNear = (c: Helped) => Math.abs(c.x - mx) < NEAR.x + w / 2 && Math.abs(c.y - my) < NEAR.y;
  const [first] = changed.filter((c) => c.read === read && isNear(c)).sort((a, b) => far(a) - far(b));
  return first ?? null;
}

/** Returns letters in their order, word by word; a blank is a word of its own. */
function wordsIn(glyphs: readonly Glyph[]): Glyph[][] {
  const out: Glyph[][] = [];
  let last: Glyph | null = null;
  for (const g of glyphs) {
    const goesOn =
      last !== null &&
      last.ch !== ' ' &&
      g.ch !== ' ' &&
      last.y === g.y &&
      g.x0 - last.x1 < GAP * g.size &&
      g.x0 >= last.x0;
    if (goesOn) itemAt(out, out.length - 1).push(g);
    else out.push([g]);
    last = g;
  }
  return out;
}

/** Returns places with the words beside them as they were recognized. */
export const withRecognized = (places: PrintedPlace[], of: (page: number) => Readable | undefined): PrintedPlace[] =>
  places.map((p) => {
    const page = of(p.page);
    return page ? { ...p, label: page.recognized(p.label, p.rect) } : p;
  });
