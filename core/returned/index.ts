/**
 * Papers that were signed elsewhere and returned: each printed place is checked for ink that the blank does not have.
 * Knows pages, places and pixels; must not know packets, or what follows from a gap.
 */
export { lineUp, matchSheets, type Fit, type PlacedText } from './line-up';
export { filledAt, FILLED, isOfHand, stateOf, type Filled, type Sheet } from './filled';
export { gapsOf, type PlaceReviewed, type ReturnedPage, type ReturnedPaper } from './gaps';
