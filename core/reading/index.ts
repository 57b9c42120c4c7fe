/**
 * Reading a printed form: from characters and lines on a page to the places to fill, their roles, and the type of
 * document. Knows what a page draws; must not know packets or who is in one: a place belongs to a role ("the second
 * seller"), never to a person.
 */
export {
  type AcrossLine,
  DOUBT,
  type Glyph,
  type PageContent,
  PLACE_KINDS,
  PLACE_ROLES,
  type PlaceKind,
  type PrintedPlace,
} from './types';
export { linesOf, wordsOf } from './text';
export { filledBlanks } from './filled-blanks';
export { asksForInitials, asksForSignatures, kindOfWords, roleOfWords, plain } from './words';
export { placeOfField, type FormField } from './acroform';
export { suggestType, DOCUMENT_TYPES, TYPE_WORDS, type DocumentType } from './suggest';
export { matchPages } from './match';
export { ofRole, sideOfRole } from './role-sides';
