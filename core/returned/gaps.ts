/** The review of a returned paper: each printed place, where it is now, and whether it is filled. */
import type { Rect } from '../paper/types';
import type { PrintedPlace } from '../reading/types';
import { itemAt } from '../sure';
import { filledAt, type Filled, type Sheet } from './filled';
import { lineUp, matchSheets, rectOn, type PlacedText } from './line-up';

/** A page of a returned paper or its blank. */
export interface ReturnedPage {
  /** In points. */
  width: number;
  height: number;
  words: PlacedText[];
  /** Its ink, drawn on demand: a document may have many pages. */
  sheet: () => Promise<Sheet>;
}

/** A returned paper or its blank: pages and the places read on them. */
export interface ReturnedPaper {
  pages: ReturnedPage[];
  places: PrintedPlace[];
}

/** A place after its review. */
export interface PlaceReviewed {
  place: PrintedPlace;
  /** Its page of the returned paper, from 1; null if that page was not returned. */
  page: number | null;
  /** Its position there. */
  rect: Rect;
  filled: Filled;
}

/**
 * Reviews every place of a returned paper, page by page.
 *
 * @param back the returned paper with the places read on it
 * @param blank the blank form, if available: then its places are used
 * @param told called after each page
 */
export async function gapsOf(
  back: ReturnedPaper,
  blank: ReturnedPaper | null,
  told: (page: number) => void = () => undefined,
): Promise<PlaceReviewed[]> {
  const form = blank ?? back;
  const pages = blank
    ? matchSheets(
        blank.pages.map((p) => p.words),
        back.pages.map((p) => p.words),
      )
    : back.pages.map((_, i) => i);
  const out: PlaceReviewed[] = [];
  for (const [i, page] of form.pages.entries()) {
    const places = form.places.filter((p) => p.page === i + 1);
    if (!places.length) continue;
    told(i + 1);
    const at = pages[i] ?? null;
    // A page that did not come back has nothing written on it.
    if (at === null)
      out.push(...places.map((place) => ({ place, page: null, rect: place.rect, filled: 'no' as const })));
    else out.push(...(await gapsOfPage(places, blank && page, itemAt(back.pages, at), at + 1)));
  }
  return out;
}

async function gapsOfPage(
  places: PrintedPlace[],
  blank: ReturnedPage | null,
  back: ReturnedPage,
  page: number,
): Promise<PlaceReviewed[]> {
  const there = await back.sheet();
  if (!blank)
    return places.map((place) => ({
      place,
      page,
      rect: place.rect,
      filled: filledAt(there, place.rect, place.kind, null),
    }));
  const fit = lineUp(blank, back);
  const sheet = await blank.sheet();
  return places.map((place) => {
    const rect = rectOn(fit, place.rect);
    const filled = filledAt(there, rect, place.kind, { sheet, fit });
    // Pages that could not be lined up prove nothing.
    return { place, page, rect, filled: fit.words ? filled : 'doubtful' };
  });
}
