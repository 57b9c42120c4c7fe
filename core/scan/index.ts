/**
 * Pages that are pictures: how they lie, where they carry ink, and which lines, boxes and words that ink is. It makes of a
 * picture what a printed page says of itself (`PageContent`), so that the same rules read both. It knows dots; it must not
 * know of PDF, of packets or of who recognised the words.
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
