/** Which words of a document stand in its blanks. */
import type { DocumentFacts } from '../packet/resolve';
import { overlapArea } from '../paper/geometry';
import type { Rect } from '../paper/types';
import type { Word } from '../shelf';
import { groupBy } from '../sure';

/** A position in a document: a word, or where a word would be. */
export type Spot = Pick<Word, 'page' | 'rect'>;

/** How far from its blank a value may stand, in points. */
const AROUND = 3;
/** Least share of a word's area that must lie in a blank. */
const SHARE = 0.3;

const isIn = (blanks: readonly Rect[], r: Rect) =>
  blanks.some(
    ({ x, y, w, h }) =>
      overlapArea(r, { x: x - AROUND, y: y - AROUND, w: w + 2 * AROUND, h: h + 2 * AROUND }) > SHARE * r.w * r.h,
  );

/** The rectangles of a document's places by page, kept because each document is compared with several others. */
const byPage = new WeakMap<DocumentFacts, ReadonlyMap<number, Rect[]>>();

/** Returns whether a position is in a printed place. */
export function isInPlace(doc: DocumentFacts, { page, rect }: Spot): boolean {
  let places = byPage.get(doc);
  if (!places) {
    places = new Map([...groupBy(doc.places, (p) => p.page)].map(([n, some]) => [n, some.map((p) => p.rect)]));
    byPage.set(doc, places);
  }
  return isIn(places.get(page) ?? [], rect);
}

/** Returns whether a position is in a blank that was filled in before the document came. */
export const isInFilled = (doc: DocumentFacts, { page, rect }: Spot): boolean =>
  isIn(doc.pages[page - 1]?.filled ?? [], rect);

/** Returns whether a position is in a printed place or in a filled blank. */
export const isInBlank = (doc: DocumentFacts, spot: Spot): boolean => isInPlace(doc, spot) || isInFilled(doc, spot);
