/**
 * The abstract of a contract: what it says about its deal, each value with the words it was read from and whether it
 * is certain. Knows words on pages; must not know storage, drafts or the clock.
 */
export { knownBlanks, type KnownBlank, type KnownDeal } from './blanks';
export {
  changesStated,
  statementKey,
  workedOut,
  type StatedChange,
  type StatedDeal,
  type StatingDocument,
} from './compare';
export { dayOfStated, type WorkedOut } from './due';
export {
  acceptedAtFirst,
  datesOf,
  dealOf,
  fieldsShown,
  readingOf,
  forWhomOf,
  valueOf,
  type Accepted,
  type AcceptedDeal,
  type Chosen,
  type ChosenPerson,
} from './accepted';
export { abstractOf } from './read';
export { isStatedDay } from './types';
export type { Abstract, AbstractPage, FieldKey, FieldRead, PersonRead, Reading, Source, StatedDay } from './types';
