/** Two papers and how their words were matched, as marks are searched on them. */
import type { DocumentFacts } from '../packet/resolve';
import type { Rect } from '../paper/types';
import { matchPages } from '../reading/match';
import { groupBy } from '../sure/group';
import { matchWords, wordsOf, type Word } from './matched';

/** Two papers that are compared. */
export interface Papers {
  before: DocumentFacts;
  after: DocumentFacts;
  was: Word[];
  /** The words of each old page, by their index among all. */
  onPage: ReadonlyMap<number, number[]>;
  now: Word[];
  /** The new words by page and text: see `keyOf`. */
  byText: ReadonlyMap<string, Word[]>;
  went: Int32Array;
  pages: (number | null)[];
  /** The new words of each page that no old word became. */
  added: ReadonlyMap<number, Word[]>;
  /** See `findAgain`. */
  unseen: boolean;
  /** Whether nearly all words are where they were. */
  stays: boolean;
}

/** Returns the key of a word among those of all pages. */
export const keyOf = ({ page, text }: Pick<Word, 'page' | 'text'>) => `${page} ${text}`;

/** How far apart, in points, two words may place a mark and still mean the same place. */
export const APART = 14;

/** Returns whether two rectangles have the same position, within two points. */
export const isAt = (a: Rect, b: Rect) => Math.abs(a.x - b.x) < 2 && Math.abs(a.y - b.y) < 2;

/** Share of the matched words that must be where they were, within so many points, for a layout to be the same. */
const STAYS = 0.7;
const STILL = 3;

/** Returns whether nearly all words that are on both are at the same position of the same page. */
function staysPut(was: readonly Word[], now: readonly Word[], went: Int32Array): boolean {
  let [matched, still] = [0, 0];
  for (const [i, { page, rect }] of was.entries()) {
    const to = now[went[i] ?? -1];
    if (!to) continue;
    matched++;
    if (to.page === page && Math.abs(to.rect.x - rect.x) < STILL && Math.abs(to.rect.y - rect.y) < STILL) still++;
  }
  return still > STAYS * matched;
}

/** Compares two papers. @param unseen see `findAgain` */
export function compared(before: DocumentFacts, after: DocumentFacts, unseen: boolean): Papers {
  const was = wordsOf(before);
  const now = wordsOf(after);
  const went = matchWords(was, now);
  const pages = matchPages(
    before.pages.map((p) => p.words.join(' ')),
    after.pages.map((p) => p.words.join(' ')),
  );
  const onPage = groupBy([...was.keys()], (i) => was[i]?.page ?? 0);
  const byText = groupBy(now, keyOf);
  const matched = new Set(went);
  const added = groupBy(
    now.filter((_, j) => !matched.has(j)),
    (w) => w.page,
  );
  return { before, after, was, onPage, now, byText, went, pages, added, unseen, stays: staysPut(was, now, went) };
}
