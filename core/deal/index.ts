/**
 * A deal as a whole: kind, facts and key dates, requirements by the firm's rules, status of its documents, readiness
 * and what to do next. Knows document types by name only; must not know packets' insides, storage or the clock:
 * callers pass the day.
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
export { daysWords, type Next, type NextAct, nextActs, type PacketNow, type Stating } from './next';
