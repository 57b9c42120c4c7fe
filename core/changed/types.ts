/** Types of a comparison of two versions of a document. Lengths are points from the top left of the page. */
import type { PageFacts, Rect } from '../paper/types';

/** A page of a version, and whether it is a scan whose words were recognized. */
export interface VersionPage extends PageFacts {
  scan?: boolean;
}

/** Words of a version and their position: one box per line. */
export interface Passage {
  text: string;
  boxes: { page: number; rect: Rect }[];
}

/** Kinds of change between two versions. */
export const CHANGE_KINDS = ['struck', 'put_in', 'replaced', 'moved'] as const;
/** One of `CHANGE_KINDS`. */
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/**
 * Differences that say little by themselves and can be hidden: headers and page numbers, renumbered items, and words
 * most likely read slightly differently. All of them are reported.
 */
export const ASIDES = ['header', 'page_number', 'print_date', 'numbering', 'reading'] as const;
/** One of `ASIDES`. */
export type AsideKind = (typeof ASIDES)[number];

/** One change between two versions. */
export interface Change {
  kind: ChangeKind;
  /** In the earlier version; null if it was only inserted. */
  before: Passage | null;
  /** In the later version; null if it was only struck. */
  after: Passage | null;
  /** Words before and after it that both versions have, for readers who see only this. */
  lead: string;
  tail: string;
  aside: AsideKind | null;
  /** Whether it is ink rather than words: a signature, a stroke, a tick. */
  drawn: boolean;
  /** Whether its words were recognized on a scan and may be wrong. */
  scan: boolean;
}

/** The result of comparing two versions. */
export interface Comparison {
  /** Pages shown side by side, from 1; null if a page has no counterpart. */
  pages: { before: number | null; after: number | null }[];
  /** In the order of the later version. */
  changes: Change[];
  /** Number of further changes that are not listed. */
  more: number;
  /** Number of words that were most likely only read slightly differently, listed or not. */
  slight: number;
  /** Pages of the later version on which only words could be compared. */
  wordsOnly: number[];
}
