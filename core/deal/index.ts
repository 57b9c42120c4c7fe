/**
 * A deal as a whole: its kind, facts and key dates, what a firm's rules make of them, how its papers stand, how ready it
 * is and what to do next. It knows types of paper by name only; it must not know of packets' insides, of storage, or of
 * the clock: whoever asks says what day it is.
 */
export {
  DATE_PHRASES,
  DATE_WORDS,
  DATES_OF,
  DEAL_KINDS,
  DEAL_STATUSES,
  type DealKind,
  type DealStatus,
  FOR_WHOM,
  FOR_WHOM_OF,
  type ForWhom,
  forWhomWords,
  GOAL,
  isOurs,
  isOver,
  KEY_DATES,
  type KeyDate,
  type KeyDates,
  KIND_WORDS,
  sidesOf,
  STATUS_WORDS,
  STATUSES_OF,
} from './kinds';
export {
  dateOfKey,
  FACT_TYPES,
  type FactDef,
  type Facts,
  FACTS,
  factsByKey,
  type FactValue,
  factWords,
  moneyWords,
  MOST_FACT_TEXT,
  wrongWith,
} from './facts';
export {
  type Compare,
  COMPARES,
  compareWords,
  type Comparison,
  type Condition,
  CONDITION_LIMITS,
  conditionFaults,
  conditionWords,
  factsIn,
  holds,
  isOrdered,
} from './conditions';
export { type Rule, RULE_LIMITS, ruleFaults, sampleRules, type Term, termWords } from './rules';
export {
  type Asked,
  changedNeeds,
  type Corner,
  dueOf,
  factsBehind,
  factsOf,
  type Figures,
  figuresOf,
  type Moved,
  type Needs,
  type NeedsDeal,
  needsOf,
  type DealDocument,
  type Readiness,
  readinessOf,
  type Requirement,
  ruleAsWaived,
  type DocumentStatus,
  DOCUMENT_STATUSES,
  type Waiver,
} from './needs';
export { type Person, signersIn } from './signed';
export { daysWords, type Next, type NextAct, nextActs, type PacketNow } from './next';
