/** Two versions of one paper, and what lies between them. Lengths are points from the top left of the page. */
import type { PageFacts, Rect } from '../paper/types';

/** A page of a version, with whether it is a picture whose words were recognised. */
export interface VersionPage extends PageFacts {
  scan?: boolean;
}

/** Words of a version and where they are: one box a line they stand on. */
export interface Passage {
  text: string;
  boxes: { page: number; rect: Rect }[];
}

export const CHANGE_KINDS = ['struck', 'put_in', 'replaced', 'moved'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];

/**
 * What says little by itself, and can be left aside: what stands at the rim of pages, items that are only counted anew,
 * and words that were most likely only read slightly differently. All of it is reported.
 */
export const ASIDES = ['header', 'page_number', 'print_date', 'numbering', 'reading'] as const;
export type AsideKind = (typeof ASIDES)[number];

export interface Change {
  kind: ChangeKind;
  /** In the earlier version; null where it is only put in. */
  before: Passage | null;
  /** In the later version; null where it is only struck. */
  after: Passage | null;
  /** Words before and after it that both versions have, for whoever reads only this. */
  lead: string;
  tail: string;
  aside: AsideKind | null;
  /** Whether it is no words, but ink: a signature, a stroke, a tick. */
  drawn: boolean;
  /** Whether its words were recognised on a picture, and may be wrong. */
  scan: boolean;
}

export interface Comparison {
  /** Which pages lie beside each other, from 1; null where one has no counterpart. */
  pages: { before: number | null; after: number | null }[];
  /** In the order of the later version. */
  changes: Change[];
  /** Changes there are beyond those told. */
  more: number;
  /** Words that were most likely only read slightly differently, told or not. */
  slight: number;
  /** Pages of the later version on which only words could be compared. */
  wordsOnly: number[];
}
