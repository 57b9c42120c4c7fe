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

export const MARK_KINDS = ['signature', 'initials', 'date_signed', 'printed_name', 'text'] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** A place on a page that one party fills. */
export interface Mark {
  id: string;
  documentId: string;
  /** From 1. */
  page: number;
  kind: MarkKind;
  partyId: string;
  rect: Rect;
  required: boolean;
  /** What a text mark asks for, shown to the client. */
  label?: string;
  /** The initials rule this mark was made from; absent for marks placed by hand. */
  ruleId?: string;
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
}

/** Which cells of a page carry any ink at all, as drawn. One bit a cell, row by row. */
export interface InkGrid {
  /** Side of a cell in points. */
  cell: number;
  cols: number;
  rows: number;
  bits: Uint8Array;
}
