/**
 * A packet after sending: commands become events, events make states, and a state says who is waited for, what is
 * left to do and what is shown. Knows what a packet consists of; must not know clocks, storage or messages: callers
 * stamp events and do what follows from them.
 */
export { countsFrom, wantsLetter } from './delivery';
export {
  type Actor,
  type Correction,
  type Fill,
  type Origin,
  PACKET_STATUSES,
  type PacketEvent,
  type PacketEventBody,
  type PacketEventType,
  type PacketState,
  PARTY_STATUSES,
  type PartyProgress,
  type Question,
  type RevisionDue,
  type SealedFile,
} from './types';
export { EVENTS } from './events';
export { type Refusal, type RefusalCode, REFUSALS } from './refusal';
export {
  countPlaces,
  gateOf,
  hasFilled,
  inReadingOrder,
  isNeeded,
  isTurnOf,
  marksLeft,
  marksOfParty,
  marksThatCount,
  partyOf,
  progressOf,
  readsAlong,
  stillIn,
  waitingFor,
} from './progress';
export { evolve, replay } from './reduce';
export { decide, type PacketCommand } from './decide';
export { ahead, initialsOfChange, type ChangeCommand } from './changes';
export { MAX_QUESTIONS, type PartyCommand } from './party-acts';
export { nextTick, nudgesOf, type SystemCommand } from './system-acts';
export { activity, type ActivityLine, holdUp } from './words';
export { documentsOf, shownFills, shownRedlines } from './shown';
