/**
 * Papers that were filled in elsewhere and came back: each printed place is looked at for ink that the empty form does not
 * have. It knows pages, places and dots; it must not know of packets, or of what is made of a gap.
 */
export { lineUp, matchSheets, type Fit, type PlacedText } from './line-up';
export { filledAt, FILLED, isOfHand, stateOf, type Filled, type Sheet } from './filled';
export { gapsOf, type PlaceReviewed, type ReturnedPage, type ReturnedPaper } from './gaps';
