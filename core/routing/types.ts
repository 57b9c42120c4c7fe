/**
 * The vocabulary of a packet on its way. Everything here is plain data: it is what the
 * event log stores, what crosses the wire, and what the screens show.
 */
import type { Mark, Rect, Redline } from '../marks/types';

/** Which side of the deal a party stands on. */
export const SIDES = [
  'seller',
  'buyer',
  'landlord',
  'tenant',
  'guarantor',
  'listing_broker',
  'buyer_broker',
  'manager',
  'other',
] as const;
export type Side = (typeof SIDES)[number];

/** What a party does at its gate. A `copy` never holds a gate. */
export const ACTS = ['sign', 'approve', 'copy'] as const;
export type Act = (typeof ACTS)[number];

/** A party as it stands in one packet: a snapshot of the deal's party, plus its act and ink. */
export interface PacketParty {
  id: string;
  name: string;
  email: string;
  phone: string | null;
  side: Side;
  /** Place in the side, from 1: Seller 1, Seller 2. */
  ordinal: number;
  act: Act;
  /** Index of the party's ink (colour and shape), 0 to 7, repeating after eight. */
  ink: number;
  /** The documents this party gets; absent for all of them. */
  only?: string[];
}

/** A point on the path where its parties must all act before the packet moves on. */
export interface Gate {
  id: string;
  partyIds: string[];
}

/** A document as it is sent: its bytes are named by their SHA-256. Sizes in points, as displayed. */
export interface PlanDocument {
  id: string;
  name: string;
  sha256: string;
  pages: { width: number; height: number }[];
}

/** Everything that was decided when the packet was sent. Never changes afterwards. */
export interface Plan {
  packetName: string;
  dealName: string;
  /** IANA zone of the deal; every date shown to a person is in it. */
  timeZone: string;
  subject: string;
  message: string;
  parties: PacketParty[];
  gates: Gate[];
  documents: PlanDocument[];
  marks: Mark[];
  /** The preparer's changes on the pages; packets of the first days have none. */
  redlines?: Redline[];
}

export const SCRIPT_FACES = ['caveat', 'dancing-script', 'la-belle-aurore', 'reenie-beanie'] as const;
export type ScriptFace = (typeof SCRIPT_FACES)[number];

/** One pen stroke as x, y pairs, in the units of the drawing's own box. */
export type Stroke = number[];

/** A drawing: strokes inside a box of `width` x `height`. */
export interface Drawing {
  width: number;
  height: number;
  strokes: Stroke[];
}

/** The form of someone's signature and initials. */
export type Hand =
  | { form: 'typed'; face: ScriptFace; signature: string; initials: string }
  | { form: 'drawn'; signature: Drawing; initials: Drawing; initialsText: string };

/** A file a client added, by its fingerprint. */
export interface AddedFile {
  sha256: string;
  name: string;
  bytes: number;
  /** Sizes in points, as displayed. */
  pages: { width: number; height: number }[];
}

/** What stands in a mark: the hand that was set at that event, text, a tick, or a file. */
export type FillValue = { hand: number } | { text: string } | { tick: true } | { file: AddedFile };

/** Who caused an event. */
export type Actor = { kind: 'member'; id: string; name: string } | { kind: 'party'; id: string } | { kind: 'system' };

/** Where an act came from, as far as the server could see. */
export interface Origin {
  ip: string | null;
  device: string | null;
}

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
  | { type: 'gate_passed'; gate: number }
  | { type: 'executed' }
  | { type: 'declined'; partyId: string; reason: string }
  | { type: 'withdrawn'; reason: string }
  | { type: 'sealed'; documents: { documentId: string; sha256: string }[] };

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

export type PartyStatus = 'waiting' | 'asked' | 'opened' | 'in_progress' | 'done' | 'declined';
export type PacketStatus = 'at_gate' | 'executed' | 'declined' | 'withdrawn' | 'lapsed';

export interface PartyProgress {
  status: PartyStatus;
  askedAt: string | null;
  openedAt: string | null;
  agreedAt: string | null;
  doneAt: string | null;
  lastActAt: string | null;
  hand: { seq: number; hand: Hand } | null;
  reason: string | null;
}

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
  fills: Record<string, Fill>;
  /** Hands by the sequence number that set them, so an early act keeps the hand it was made with. */
  hands: Record<number, { partyId: string; hand: Hand }>;
  sealed: { documentId: string; sha256: string }[] | null;
}

export type { Mark, Rect };
