/**
 * What a packet consists of: parties with their acts, kinds of marks and their values, the draft with its rules,
 * redlines and edits, and what a printed form proposes for it. Knows pages and what was read on them; must not know
 * how a packet moves from gate to gate.
 */
export {
  type Act,
  ACTS,
  type Delivery,
  type Drawing,
  type FillValue,
  type Gate,
  type Hand,
  type InitialsRule,
  LETTER_WAYS,
  type Mark,
  MARK_KINDS,
  type ValueRule,
  type MarkKind,
  NOBODY,
  type PacketParty,
  type Picture,
  type Plan,
  type PlanDocument,
  type Redline,
  SCRIPT_FACES,
  type ScriptFace,
  SECOND_STEPS,
  type SecondStep,
  SLOT_KINDS,
  type Stroke,
} from './types';
export { ACT_FACTS, approves, byLink, holdsGate, puts, receives } from './acts';
export { calledOf, lettersOf, slotLetters } from './called';
export {
  applyEdits,
  type Draft,
  DRAFT_FIELDS,
  DRAFT_LISTS,
  type DraftEdit,
  type DraftField,
  type DraftList,
  editsToRemoveDocument,
  editsToRemoveParty,
  emptyDraft,
  invertEdits,
  isDraftEdit,
  overLimit,
  PACKET_LIMITS,
} from './draft';
export {
  buildLedger,
  CELL_STATES,
  CELL_WANTS,
  type CellState,
  type LedgerCell,
  type LedgerRow,
  requiredPlaces,
} from './ledger';
export {
  validateValue,
  filledHow,
  handOf,
  isAutomatic,
  isFixed,
  isForClient,
  isOwn,
  isSenders,
  KINDS,
  kinOf,
  takesHand,
  takesText,
} from './kinds';
export {
  drawingSteps,
  fitPicture,
  type PathStep,
  PEN_WIDTH,
  setParagraph,
  setScript,
  setText,
  tickStrokes,
  withUnder,
} from './hand';
export type { DocumentFacts } from './resolve';
export { shiftStrike, wordsBetween, marksOfRedline } from './redline';
export { MAX_TEXT_LINES, showDay } from './values';
export type { Proposal } from './proposal';
export { acceptEdits, canAccept, isSure, KIND_OF_PLACE, leaveOutEdits, proposalsOf, twinsOf } from './proposals';
export { furtherName, furtherPlaces, peopleWithoutLine } from './further';
export { missingEdits } from './missing';
export { editsToSwapPages, matchPagesOf, type PageMove } from './swap';
export { copyEdits, editsToInitialAll, handEdits, moveEdits, pageRange, removeEdits, ruleOf } from './edits';
export { gatesOfPattern, type PathPattern } from './path';
export { hasDocument, signsDocument } from './place-party';
export { findWords, type PickedWords, pickWords, roomForWords } from './correction';
export { type ShownFill, shownWords } from './shown';
export { marksForNewcomer } from './newcomer';
