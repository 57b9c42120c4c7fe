/** What is known of each sort of event beside how it changes the state: one entry each, none forgotten. */
import type { PacketEventType } from './types';

export interface EventFacts {
  /** Follows by itself from another act (a gate opens): it is the system's doing, whoever acted. */
  consequence?: true;
  /** Parties, gates, documents or marks of the plan are others afterwards. */
  changesPlan?: true;
  /** Which files the packet needs is another matter afterwards. */
  changesFiles?: true;
}

export const EVENT_FACTS: Record<PacketEventType, EventFacts> = {
  sent: { changesPlan: true, changesFiles: true },
  gate_opened: { consequence: true },
  asked: { consequence: true },
  opened: {},
  agreed: {},
  hand_set: { changesFiles: true },
  mark_filled: { changesFiles: true },
  mark_cleared: { changesFiles: true },
  party_done: {},
  gate_passed: { consequence: true },
  excused: { consequence: true },
  executed: { consequence: true },
  declined: {},
  withdrawn: {},
  lapsed: {},
  proved: {},
  locked: {},
  unlocked: {},
  language_chosen: {},
  hosted: {},
  link_renewed: {},
  bounced: {},
  question_asked: {},
  question_answered: {},
  party_corrected: { changesPlan: true },
  handed_over: { changesPlan: true },
  path_changed: { changesPlan: true },
  party_added: { changesPlan: true },
  document_added: { changesPlan: true, changesFiles: true },
  corrected: { changesPlan: true },
  asked_again: { consequence: true },
  extended: {},
  nudged: {},
  warned: {},
  revised: { changesFiles: true },
  sealed: { changesFiles: true },
};
