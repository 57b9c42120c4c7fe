/**
 * The page as a sheet: where it carries ink and print, where it is free, how text fits into a box. Knows points and
 * boxes; must not know kinds of marks, people, or what a form says.
 */
export type { InkGrid, PageFacts, Rect } from './types';
export { clampToPage, overlapArea, roundRect, coversPrint } from './geometry';
export { emptyGrid, inkRect, packGrid, setInk, unpackGrid } from './ink';
export { FreeSpace } from './space';
export { INITIALS_SIZES, PAGE_EDGE } from './placing';
export { align, distribute, type Edge, sameSize, snap } from './arrange';
export { fitLine } from './fit';
