/**
 * Types of a packet after sending. All of it is plain data: what the event log stores, the API sends and screens
 * show.
 */
import type {
  Act,
  FillValue,
  Gate,
  Hand,
  Mark,
  PacketParty,
  Plan,
  PlanDocument,
  Redline,
  SecondStep,
} from '../packet/types';

/** Who caused an event. */
export type Actor =
  /** `for` is the colleague in whose name it was done. */
  | { kind: 'member'; id: string; name: string; for?: { id: string; name: string } }
  | { kind: 'party'; id: string }
  | { kind: 'system' };

/** Where an act came from, as far as the server can tell. */
export interface Origin {
  ip: string | null;
  device: string | null;
}

/** What each event says. Stored events keep these names for good. */
export type PacketEventBody =
  | { type: 'sent'; plan: Plan }
  | { type: 'gate_opened'; gate: number }
  | { type: 'asked'; partyId: string }
  | { type: 'opened'; partyId: string }
  | { type: 'agreed'; partyId: string; agreement: string }
  | { type: 'hand_set'; partyId: string; hand: Hand }
  | { type: 'mark_filled'; partyId: string; markId: string; value: FillValue; actId: string }
  | { type: 'mark_cleared'; partyId: string; markId: string; actId: string }
  | { type: 'party_done'; partyId: string; actId: string }
  /** Accepted by the mail server, or the phone network, of its recipient. */
  | { type: 'arrived'; partyId: string; channel: 'email' | 'phone' }
  /** A letter replaced a message. `day` is the day it was mailed or handed over. */
  | { type: 'letter_went'; partyId: string; day: string; way: 'post' | 'hand' }
  /** `day` is the one it counts from; null if none could be determined yet. */
  | { type: 'delivered'; partyId: string; how: 'opened' | 'deemed'; day: string | null }
  | { type: 'gate_passed'; gate: number }
  | { type: 'excused'; partyId: string }
  | { type: 'executed' }
  | { type: 'declined'; partyId: string; reason: string }
  | { type: 'withdrawn'; reason: string; newVersion?: string }
  | { type: 'lapsed'; lastDay: string }
  // Getting in.
  | { type: 'proved'; partyId: string; step: SecondStep }
  | { type: 'locked'; partyId: string }
  | { type: 'unlocked'; partyId: string }
  | { type: 'language_chosen'; partyId: string; language: string }
  | { type: 'hosted'; partyId: string; hostName: string }
  | { type: 'link_renewed'; partyId: string }
  | { type: 'bounced'; partyId: string; channel: 'email' | 'phone'; why: string }
  // Talking.
  | { type: 'question_asked'; partyId: string; questionId: string; text: string }
  | { type: 'question_answered'; partyId: string; questionId: string; text: string }
  // Changes while it is on its way.
  | { type: 'party_corrected'; partyId: string; contact: Contact }
  | { type: 'handed_over'; partyId: string; contact: Contact; reason: string }
  | { type: 'path_changed'; gates: Gate[] }
  | { type: 'party_added'; party: PacketParty; gates: Gate[]; marks: Mark[] }
  | { type: 'document_added'; document: PlanDocument; marks: Mark[] }
  /** Removed before they put anything on a page. */
  | { type: 'party_dropped'; partyId: string; reason: string }
  /** `marks` are new; those they had stay when they still put something on the pages, and go otherwise. */
  | { type: 'act_changed'; partyId: string; act: Act; only?: string[]; gates: Gate[]; marks: Mark[] }
  | { type: 'marks_changed'; partyId: string; put: Mark[]; dropped: string[] }
  | { type: 'reading_changed'; allowed: boolean }
  /** May read before their gate opens. */
  | { type: 'shown'; partyId: string }
  | { type: 'corrected'; redline: Redline; marks: Mark[] }
  | { type: 'asked_again'; partyId: string; redlineId: string }
  // Time.
  | { type: 'extended'; lastDay: string }
  /** `words` are the sender's own, where they reminded by hand. */
  | { type: 'nudged'; partyId: string; n: number; words?: string }
  | { type: 'warned'; lastDay: string }
  // Proof.
  | { type: 'revised'; forSeq: number; partyId: string | null; documents: SealedFile[] }
  | { type: 'sealed'; documents: SealedFile[] };

/** How somebody is called and reached. */
export interface Contact {
  name: string;
  email: string;
  phone: string | null;
  /** A new language for this party; absent to leave it. */
  language?: string;
}

/** The file a document is in after a seal, by its SHA-256. */
export interface SealedFile {
  documentId: string;
  sha256: string;
  /** Given when it is a signing record in a file of its own, beside the document `recordOf`. */
  recordOf?: string;
  pages?: PlanDocument['pages'];
}

/** Type of an event. */
export type PacketEventType = PacketEventBody['type'];

/** One line of the log: what happened, when (UTC, ISO 8601), by whom and from where. */
export interface PacketEvent {
  packetId: string;
  /** Position in the packet's log, from 1 without gaps. */
  seq: number;
  at: string;
  actor: Actor;
  origin: Origin | null;
  body: PacketEventBody;
}

/**
 * `excused`: another at the same gate has done what any one of them had to do.
 * `dropped`: taken out by the sender before they put anything on a page.
 */
export const PARTY_STATUSES = [
  'waiting',
  'asked',
  'opened',
  'in_progress',
  'done',
  'declined',
  'excused',
  'dropped',
] as const;
/** One of `PARTY_STATUSES`. */
export type PartyStatus = (typeof PARTY_STATUSES)[number];
/** Statuses of a packet that was sent. */
export const PACKET_STATUSES = ['at_gate', 'executed', 'declined', 'withdrawn', 'lapsed'] as const;
/** One of `PACKET_STATUSES`. */
export type PacketStatus = (typeof PACKET_STATUSES)[number];

/** How far a party is. */
export interface PartyProgress {
  status: PartyStatus;
  askedAt: string | null;
  openedAt: string | null;
  agreedAt: string | null;
  doneAt: string | null;
  lastActAt: string | null;
  hand: { seq: number; hand: Hand } | null;
  /** Why they declined, or were taken out. */
  reason: string | null;
  /** Since when they may read before their gate; absent or null when they were never told so. */
  shownAt?: string | null;
  /** Asked once more because of a change after it was done; holds the packet until it is done again. */
  again: boolean;
  /** When and by what the second step was passed. */
  proved: { at: string; step: SecondStep } | null;
  locked: boolean;
  hostName: string | null;
  /** Why messages do not arrive; null when nothing is known. */
  bounced: string | null;
  nudges: { n: number; lastAt: string | null };
  /** When a message reached their mail server or phone; kept for those to whom something is only delivered. */
  arrivedAt?: string | null;
  /** When they were written to anew because the first message came back. */
  writtenAt?: string;
  /** The letter that went to them on paper. */
  letter?: { day: string; way: 'post' | 'hand' };
  /** How it was delivered, and the day that counts. */
  delivered?: { how: 'opened' | 'deemed'; day: string | null };
  /** Who it was before it was handed over, oldest first. */
  before: { name: string; email: string; at: string; reason: string }[];
}

/** Something a party wanted to know. */
export interface Question {
  id: string;
  partyId: string;
  text: string;
  at: string;
  answer: { text: string; at: string; by: string } | null;
}

/** A recorded change on a page while the packet was on its way. */
export interface Correction {
  redline: Redline;
  seq: number;
  at: string;
  by: string;
  /** Those who had already acted and were asked to initial the change. */
  askedAgain: string[];
}

/** What still has to be written into the documents as a signed revision. */
export interface RevisionDue {
  seq: number;
  at: string;
  /** The party whose acts it holds; null for a correction. */
  partyId: string | null;
}

/** A filled mark. */
export interface Fill {
  value: FillValue;
  at: string;
  seq: number;
  partyId: string;
}

/** What the reducer makes of a packet's events. `null` is a packet that was never sent. */
export interface PacketState {
  packetId: string;
  seq: number;
  status: PacketStatus;
  /** Index of the open gate; equal to the number of gates once executed. */
  gate: number;
  plan: Plan;
  sentAt: string;
  endedAt: string | null;
  parties: Record<string, PartyProgress>;
  /** By mark. A map: there are thousands, and each act makes its own copy. */
  fills: Map<string, Fill>;
  /** Hands by the sequence number that set them, so an early act keeps the hand it was made with. */
  hands: Record<number, { partyId: string; hand: Hand }>;
  sealed: SealedFile[] | null;
  questions: Question[];
  corrections: Correction[];
  /** Revisions written so far, in order; packets sealed all at once at the end have none. */
  revisions: { forSeq: number; partyId: string | null; at: string; documents: SealedFile[] }[];
  /** What is to be written, in order. */
  due: RevisionDue[];
  warnedFor: string | null;
}
