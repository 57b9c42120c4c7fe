/**
 * Scanned pages: how they lie, where they carry ink, and which lines, boxes and words that ink is. Makes a
 * `PageContent` of a picture, as a printed page has, so that the same rules read both. Knows dots; must not know PDF,
 * packets or who recognized the words.
 */
export type { Gray, SeenWord } from './types';
export { inkOf } from './ink';
export { lieOf, type Lie } from './straight';
export { linesIn, type DrawnInk } from './lines';
export { drawnOf, wordsOfScan, type PlacedWord } from './content';
export { withoutLines } from './erase';
export { readable, withRecognized, type Readable } from './readable';
export {
  areaOf,
  cornersAsText,
  cornersOfText,
  flattened,
  isSheet,
  sheetIn,
  sidesOf,
  troubleOf,
  WHOLE,
  type Corner,
  type Corners,
  type PhotoTrouble,
  type Rgb,
} from './photo';
