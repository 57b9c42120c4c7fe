/**
 * Geometry and marks. All lengths are PDF points; the origin is the top left corner of the
 * page as displayed (rotation and crop box applied) and y runs down.
 */

/** x, y of the top left corner, then width and height, in points. */
export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

export const MARK_KINDS = [
  'signature',
  'initials',
  'date_signed',
  'printed_name',
  'title',
  'text',
  'number',
  'money',
  'date',
  'tick',
  'choice',
  'list',
  'file',
  'label',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** Stands where a party's id would: a label belongs to nobody. */
export const NOBODY = 'nobody';

/** What a filled value must be, beyond its kind. Every part is optional; all that are given hold. */
export interface MarkCheck {
  form?: 'digits' | 'email' | 'phone' | 'pattern';
  /** A regular expression over the whole value, for `form: 'pattern'`. */
  pattern?: string;
  /** What the client reads when the value does not pass. */
  message?: string;
  /** Least and greatest number or sum. */
  min?: number;
  max?: number;
  /** First and last day, ISO 8601. */
  from?: string;
  to?: string;
  minLength?: number;
  maxLength?: number;
}

/** A place on a page that one party fills, or a preparer's label. */
export interface Mark {
  id: string;
  documentId: string;
  /** From 1. */
  page: number;
  kind: MarkKind;
  /** The party that fills it; `NOBODY` for a label that stands for itself. */
  partyId: string;
  rect: Rect;
  required: boolean;
  /** What the mark asks for, shown to the client; for a choice, the words beside it. */
  label?: string;
  /** More about it, shown when the client is there. */
  help?: string;
  /** Several lines instead of one. */
  lines?: 'several';
  /** What stands in it from the start: text with tags, a label's words, a choice's value. */
  value?: string;
  /** The client sees the value and cannot change it. */
  readOnly?: boolean;
  check?: MarkCheck;
  /** What a list offers. */
  options?: string[];
  /** Choices of one group exclude each other. */
  group?: string;
  /** The initials rule this mark was made from; absent for marks placed by hand. */
  ruleId?: string;
  /** The redline these initials belong to. */
  redlineId?: string;
  /** The printed place this mark was accepted for. */
  placeId?: string;
}

/** A preparer's change on the page: words struck out, or words put in. */
export interface Redline {
  id: string;
  documentId: string;
  page: number;
  kind: 'strike' | 'insert';
  /** The struck words, one box a line; for an insertion the one box its text stands in. */
  rects: Rect[];
  /** The words struck, as printed, or the words put in. */
  text: string;
  /** Initials beside it that were moved by hand. */
  moved: { partyId: string; rect: Rect }[];
}

/**
 * "These parties initial every page of this document, here." Marks are made from it, never
 * copied: the rule stays the one place where the wish is written down.
 */
export interface InitialsRule {
  id: string;
  documentId: string;
  partyIds: string[];
  /** The wished-for place as fractions of the free page: 0,0 top left, 1,1 bottom right. */
  anchor: { fx: number; fy: number };
  /** Pages a party was excepted from by hand; the ledger shows them. */
  except: { page: number; partyId: string }[];
  /** Marks moved by hand away from where the search put them. */
  moved: { page: number; partyId: string; rect: Rect }[];
}

/** What one page looks like to the rules: its size, where it carries ink, where its words are. */
export interface PageFacts {
  width: number;
  height: number;
  ink: InkGrid;
  /** Boxes of printed words; rules, underscores and blanks are not in here. */
  print: Rect[];
  /** The words themselves, one for each box. */
  words: string[];
}

/** Which cells of a page carry any ink at all, as drawn. One bit a cell, row by row. */
export interface InkGrid {
  /** Side of a cell in points. */
  cell: number;
  cols: number;
  rows: number;
  bits: Uint8Array;
}
