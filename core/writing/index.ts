/**
 * Forms written in the product: their text, its tags, and what of it is on the paper of a deal. Knows facts of deals
 * and sides; must not know typesetting or storage.
 */
export {
  type Block,
  emptyWritten,
  INLINE_KINDS,
  type InlineKind,
  type PlaceRun,
  UnfitText,
  type When,
  WHENS,
  type Written,
  WRITTEN_LIMITS,
} from './types';
export { writtenFrom } from './read';
export {
  EACH_NAME,
  isOfPaper,
  TAG_SOURCES,
  TAG_TYPES,
  type TagDef,
  tagDefs,
  tagFact,
  type TagValues,
  tagWords,
  valueIn,
} from './tags';
export { keysIn } from './keys';
export {
  composed,
  type Composed,
  type ComposeFor,
  type PaperBlock,
  type PaperPlace,
  type PaperRun,
  type Signer,
  type SlotPerson,
} from './compose';
export { namesBySide, sampleFor, slotPeople } from './slot-people';
export { textChanges } from './changed';
