/** Answers: what the server shows. Times are ISO 8601 in UTC, lengths PDF points. */
import type { Act, Draft, LedgerRow, Plan, Redline, SecondStep, ShownFill } from '@gatepath/core/packet';
import type { ActivityLine, Correction, PacketStatus, PartyStatus, Question } from '@gatepath/core/routing';
import type { Side } from '@gatepath/core/text';
import type { Finding } from '@gatepath/core/checks';
import type { DocumentType, PrintedPlace } from '@gatepath/core/reading';
import type { DealFacts } from '@gatepath/core/merge';

export type { ShownFill };
import type { DEAL_KINDS, Notice } from './schemas';

/** Problem details after RFC 9457; `fields` names what was wrong with single fields. */
export interface ProblemDetails {
  type: string;
  title: string;
  status: number;
  detail: string;
  fields?: Record<string, string>;
  findings?: Finding[];
}

export type DealKind = (typeof DEAL_KINDS)[number];

export interface SessionView {
  /** null until the firm is set up. */
  firm: { name: string; timeZone: string } | null;
  member: { id: string; name: string; email: string; notices: Notice[]; digest: boolean } | null;
  /** Whether the demo world is loaded; then its sign-ins may be shown. */
  demo: { signIns: { name: string; email: string; password: string }[] } | null;
  /** Whether the clock can be set forward here. */
  clockForward: boolean;
  /** Where messages go. */
  mail: 'mailroom' | 'smtp';
  /** Languages a client can be written to in, by tag. */
  languages: { tag: string; name: string }[];
  now: string;
}

export type AnyPacketStatus = 'drafting' | PacketStatus;

export interface PacketSummary {
  id: string;
  dealId: string;
  name: string;
  status: AnyPacketStatus;
  gate: number;
  gateCount: number;
  marksDone: number;
  marksTotal: number;
  /** Who holds it up, in words; empty while drafting. */
  holdUp: string;
  /** The path with its parties, for the drawing of it. */
  path: { partyIds: string[] }[];
  parties: { id: string; name: string; ink: number; act: Act; done: boolean }[];
  sentAt: string | null;
  endedAt: string | null;
  createdAt: string;
}

export interface DealSummary {
  id: string;
  kind: DealKind;
  address: string;
  city: string;
  createdAt: string;
  packets: PacketSummary[];
}

export interface PartyView {
  id: string;
  side: Side;
  ordinal: number;
  name: string;
  email: string;
  phone: string | null;
}

/** What a paper held beside its pages when it was brought in, and what of it was not taken along. */
export type LeftOutKind =
  | 'scripts'
  | 'actions'
  | 'attachments'
  | 'media'
  | 'xfa'
  | 'layers'
  | 'notes'
  | 'links'
  /** Digital signatures: they hold for the file as it came, and for no copy of it. */
  | 'signatures';
export interface LeftOut {
  what: LeftOutKind;
  n: number;
}

export interface DocumentView {
  id: string;
  dealId: string;
  name: string;
  fileName: string;
  bytes: number;
  pages: { width: number; height: number }[];
  pagesRead: number;
  status: 'reading' | 'ready' | 'failed';
  problem: string | null;
  sha256: string;
  createdAt: string;
  type: DocumentType;
  /** What was brought in. */
  cameAs: 'pdf' | 'docx' | 'text' | 'picture';
  /** Documents its pages come from. */
  madeFrom: string[];
  /** The document that took its place. */
  replacedBy: string | null;
  leftOut: LeftOut[];
}

export interface DealView extends Omit<DealSummary, 'packets'> {
  timeZone: string;
  price: string;
  /** The day of the hand-over, ISO 8601. */
  closingOn: string | null;
  parties: PartyView[];
  documents: DocumentView[];
  packets: PacketSummary[];
}

export interface Page<T> {
  items: T[];
  /** Hand back as `after` for the next page; null at the end. */
  next: string | null;
}

/** Facts of a document's pages as they travel: ink grids packed, print as flat x, y, w, h numbers. */
export interface PackedFacts {
  cell: number;
  pages: {
    width: number;
    height: number;
    cols: number;
    rows: number;
    ink: string;
    print: number[];
    /** The printed words, one a box, with spaces between. */
    words: string;
  }[];
  /** What was read on the pages. */
  places: PrintedPlace[];
}

export interface PacketView {
  id: string;
  dealId: string;
  dealName: string;
  timeZone: string;
  name: string;
  status: AnyPacketStatus;
  draft: Draft;
  version: number;
  documents: DocumentView[];
  /** What tags in its text stand for. */
  facts: DealFacts;
  /** The parties of the deal, for adding to the draft. */
  dealParties: PartyView[];
  /** Days on which the firm reminds nobody. */
  holidays: string[];
  /** Packets that came of this one, or that it came of. */
  kin: { id: string; name: string; how: 'new_version' | 'old_version' | 'late_round' | 'first_round' }[];
  sent: SentView | null;
}

/** What became of edits: the draft after them, and whether somebody else had just changed the same things. */
export interface SavedDraft {
  draft: Draft;
  version: number;
  /** Names of those whose change of the same items these edits stand over; empty nearly always. */
  over: string[];
}

/** A packet on its way or at its end. */
export interface SentView {
  /** How far the packet’s log goes in this view. */
  seq: number;
  plan: Plan;
  gate: number;
  sentAt: string;
  endedAt: string | null;
  parties: {
    partyId: string;
    status: PartyStatus;
    askedAt: string | null;
    openedAt: string | null;
    doneAt: string | null;
    lastActAt: string | null;
    device: string | null;
    /** Places the party still has to fill itself, and those it has in all. */
    left: number;
    total: number;
    reason: string | null;
    seenAt: string | null;
    agreedAt: string | null;
    again: boolean;
    locked: boolean;
    proved: SecondStep | null;
    hostName: string | null;
    bounced: string | null;
    nudges: number;
    lastNudgeAt: string | null;
    before: { name: string; at: string; reason: string }[];
    /** Whether it may be acted on now. */
    turn: boolean;
  }[];
  questions: Question[];
  corrections: Correction[];
  /** When somebody is reminded next, warned, or the packet lapses, if nobody does anything. */
  ahead: { what: 'nudge' | 'warning' | 'last_day'; day: string; partyId: string | null }[];
  revisions: { forSeq: number; partyId: string | null; at: string; documents: number }[];
  ledger: { rows: LedgerRow[]; partyIds: string[]; total: number; done: number };
  /** What stands in the filled marks, as each page shows it. */
  fills: ShownFill[];
  redlines: Redline[];
  holdUp: { partyIds: string[]; sentence: string };
  activity: ActivityLine[];
  sealed: { documentId: string; name: string; sha256: string }[] | null;
}

export interface MessageSummary {
  id: string;
  kind: string;
  toName: string;
  toEmail: string;
  subject: string;
  createdAt: string;
  status: 'queued' | 'kept' | 'sent' | 'failed' | 'returned';
  problem: string | null;
  packetId: string | null;
  link: string | null;
  channel: 'email' | 'text';
  toPhone: string | null;
}

export interface MessageView extends MessageSummary {
  bodyText: string;
}

/** Something the server could not do, and has stopped trying by itself. */
export interface WorkFailureView {
  queue: string;
  thing: string;
  /** What it was about, in words. */
  sentence: string;
  /** What went wrong, as the server saw it. */
  detail: string;
  tries: number;
  at: string;
}

export interface FirmView {
  name: string;
  timeZone: string;
  members: { id: string; name: string; email: string }[];
  holidays: string[];
  seal: { subject: string; issuer: string; validUntil: string; fingerprint: string; selfMade: boolean };
  mail: 'mailroom' | 'smtp';
  /** Background work that was given up after its tries. */
  failures: WorkFailureView[];
}

/** One signed revision of a sealed PDF. */
export interface CheckedRevision {
  /** From 1. */
  n: number;
  whole: boolean;
  /** Why not, in words; empty when whole. */
  why: string;
  /** Whose acts it holds, and what they did, as the seal says. */
  name: string;
  reason: string;
  /** Time in the seal, ISO 8601, as the sealing server's clock gave it. */
  at: string | null;
  /** The name in the certificate it was sealed with. */
  signer: string | null;
  fingerprint: string | null;
  /** The first so many bytes of the file are this revision. */
  end: number;
  /** SHA-256 of those bytes. */
  sha256: string;
}

/** What a sealed PDF says when it is checked. */
export interface CheckView {
  fileName: string;
  whole: boolean;
  /** Why not, in words; empty when whole. */
  why: string;
  revisions: (CheckedRevision & {
    /** Whether the certificate is vouched for by nobody but its owner. */
    selfMade: boolean;
    /** Pages of the file as it was then. */
    pages: number | null;
  })[];
  /** Whether this server made the last seal. */
  ours: boolean;
}
