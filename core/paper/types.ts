/**
 * Geometry. All lengths are PDF points; the origin is the top left corner of the page as displayed (rotation and crop
 * box applied) and y runs down.
 */

/** x, y of the top left corner, then width and height, in points. */
export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
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
