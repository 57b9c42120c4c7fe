/**
 * Geometry. All lengths are PDF points; the origin is the top left corner of the page as displayed (rotation and crop
 * box applied), and y runs down.
 */

/** x, y of the top left corner, then width and height, in points. */
export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

/** What the rules know of a page: its size, where it carries ink, where its words are. */
export interface PageFacts {
  width: number;
  height: number;
  ink: InkGrid;
  /** Boxes of printed words; lines, underscores and blanks are not included. */
  print: Rect[];
  /** The words, one for each box. */
  words: string[];
  /** Blanks that were filled in before the document came. Missing for pages that an earlier version read. */
  filled?: Rect[];
}

/** Which cells of a page carry ink, as drawn. One bit per cell, row by row. */
export interface InkGrid {
  /** Side of a cell in points. */
  cell: number;
  cols: number;
  rows: number;
  bits: Uint8Array;
}
