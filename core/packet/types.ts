/**
 * The vocabulary of a packet: who acts how, on which documents, at which marks. Everything here is plain data: it is what
 * drafts and the event log store, what crosses the wire, and what the screens show.
 */
import type { Schedule } from '../calendar';
import type { Rect } from '../paper/types';
import type { Side } from '../text/sides';

/** Names of the kinds of marks. */
export const MARK_KINDS = [
  'signature',
  'initials',
  'date_signed',
  'printed_name',
  'company',
  'title',
  'text',
  'number',
  'money',
  'date',
  'email',
  'tick',
  'choice',
  'list',
  'file',
  'label',
] as const;
/** One of `MARK_KINDS`. */
export type MarkKind = (typeof MARK_KINDS)[number];

/** Stands where a party's id would: a label belongs to nobody. */
export const NOBODY = 'nobody';

/** What a filled value must be, beyond its kind. Every part is optional; all that are given hold. */
export interface ValueRule {
  form?: 'digits' | 'email' | 'phone' | 'pattern';
  /** A regular expression over the whole value, for `form: 'pattern'`. */
  pattern?: string;
  /** What the client reads when the value does not pass. */
  message?: string;
  /** Least and greatest number or sum. */
  min?: number;
  max?: number;
  /** First and last day, ISO 8601. */
  from?: string;
  to?: string;
  minLength?: number;
  maxLength?: number;
}

/** A place on a page that one party fills, or a preparer's label. */
export interface Mark {
  id: string;
  documentId: string;
  /** From 1. */
  page: number;
  kind: MarkKind;
  /** The party that fills it; `NOBODY` for a label that stands for itself. */
  partyId: string;
  rect: Rect;
  required: boolean;
  /** What the mark asks for, shown to the client; for a choice, the words beside it. */
  label?: string;
  /** More about it, shown when the client is there. */
  help?: string;
  /** Several lines instead of one. */
  lines?: 'several';
  /** What stands in it from the start: text with tags, a label's words, a choice's value. */
  value?: string;
  /** The client sees the value and cannot change it. */
  readOnly?: boolean;
  check?: ValueRule;
  /** What a list offers. */
  options?: string[];
  /** Choices of one group exclude each other. */
  group?: string;
  /** The initials rule this mark was made from; absent for marks placed by hand. */
  ruleId?: string;
  /** The redline these initials belong to. */
  redlineId?: string;
  /** The printed place this mark was accepted for. */
  placeId?: string;
}

/** A preparer's change on the page: words struck out, or words put in. */
export interface Redline {
  id: string;
  documentId: string;
  page: number;
  kind: 'strike' | 'insert';
  /** The struck words, one box a line; for an insertion the one box its text stands in. */
  rects: Rect[];
  /** The words struck, as printed, or the words put in. */
  text: string;
  /** Initials beside it that were moved by hand. */
  moved: { partyId: string; rect: Rect }[];
}

/**
 * "These parties initial every page of this document, here." Marks are made from it, never
 * copied: the rule stays the one place where the wish is written down.
 */
export interface InitialsRule {
  id: string;
  documentId: string;
  partyIds: string[];
  /** The wished-for place as fractions of the free page: 0,0 top left, 1,1 bottom right. */
  anchor: { fx: number; fy: number };
  /** Pages a party was excepted from by hand; the ledger shows them. */
  except: { page: number; partyId: string }[];
  /** Marks moved by hand away from where the search put them. */
  moved: { page: number; partyId: string; rect: Rect }[];
}

/** What a party does. `desk` signs in person on a host's device; to `receive` is to have it delivered; a `copy` never holds a gate. */
export const ACTS = ['sign', 'approve', 'desk', 'receive', 'copy'] as const;
/** One of `ACTS`. */
export type Act = (typeof ACTS)[number];

/** What proves, beside the link, that it is this person: a code told in person, or one sent by email or phone. */
export const SECOND_STEPS = ['code', 'email', 'phone'] as const;
/** One of `SECOND_STEPS`. */
export type SecondStep = (typeof SECOND_STEPS)[number];

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
  /** Language of messages, ceremony and record; absent for English. */
  language?: string;
  /** A note of the sender's for this party alone. */
  note?: string;
  secondStep?: SecondStep;
  /** The code told in person, on its way to the server, which keeps a keyed hash of it and nothing else. */
  accessCode?: string;
  /** In drafts only: a code told in person is kept for this party. */
  codeKept?: true;
  /** When somebody who gets a copy gets it: with the sending too, or (absent) once all is executed. */
  copyAt?: 'sending';
  /** The member of the firm this party is, who signs from within the application. */
  memberId?: string;
  /** The company or trust they sign for; absent or empty for those who sign for themselves. */
  company?: string;
  /** In what capacity they sign ("trustee of the Alder Trust"); absent or empty for their own. It stands under their signature. */
  capacity?: string;
  /** On the shelf alone, where no person stands yet: what fills this place. */
  slot?: SlotKind;
}

/** What fills a place of a form: the one person at this place of a side, everybody of the side, or always the same person. */
export const SLOT_KINDS = ['one', 'every', 'person'] as const;
/** One of `SLOT_KINDS`. */
export type SlotKind = (typeof SLOT_KINDS)[number];

/** A point on the path where its parties must act before the packet moves on: all of them, or any one. */
export interface Gate {
  id: string;
  partyIds: string[];
  /** Absent for all. */
  need?: 'any';
}

/** A page on which a party initials nothing, because somebody said so. */
export interface LeftOutPage {
  documentId: string;
  /** From 1. */
  page: number;
  partyId: string;
}

/** A document as it is sent: its bytes are named by their SHA-256. Sizes in points, as displayed. */
export interface PlanDocument {
  id: string;
  name: string;
  sha256: string;
  pages: { width: number; height: number }[];
  /** The number of a sealed copy's own pages, without the signing record that follows them. */
  ownPages?: number;
}

/** What is on its way: as it was sent, with the changes that were recorded since. */
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
  schedule?: Schedule;
  /** The firm's holidays at the time of sending, as days. */
  holidays?: string[];
  /** Whether a party may hand over to somebody else. */
  handOver?: boolean;
  /** Whether those whose gate is still ahead may read what is signed so far. */
  readAlong?: boolean;
  /** Members who are told what the sender is told, by their ids. */
  reports?: string[];
  /** Pages on which a party’s initials were taken away under way: left out by hand, not forgotten. */
  leftOut?: LeftOutPage[];
  /** The packet this one is the new version of, and which version it is, from 2. */
  replaces?: { packetId: string; version: number };
  /** The executed packet whose sealed documents get a late signing round. */
  continues?: { packetId: string; packetName: string };
  /** How the days are counted on which what is only delivered counts as delivered; absent for the usual way. */
  delivery?: Delivery;
}

/** Ways in which a paper comes to somebody: through their link, by post, or handed over. */
export const DELIVERY_WAYS = ['link', 'post', 'hand'] as const;
/** One of `DELIVERY_WAYS`. */
export type DeliveryWay = (typeof DELIVERY_WAYS)[number];

/** Ways of what goes on paper. */
export const LETTER_WAYS = ['post', 'hand'] as const;
/** One of `LETTER_WAYS`. */
export type LetterWay = (typeof LETTER_WAYS)[number];

/** Days after the sending, the posting or the handing over. */
export interface DeemedAfter {
  n: number;
  unit: 'days' | 'business_days';
}

/** When something counts as delivered, by the way it came. */
export type Delivery = Record<DeliveryWay, DeemedAfter>;

/** Script typefaces for typed signatures. */
export const SCRIPT_FACES = ['caveat', 'dancing-script', 'la-belle-aurore', 'reenie-beanie'] as const;
/** One of `SCRIPT_FACES`. */
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
  | { form: 'drawn'; signature: Drawing; initials: Drawing; initialsText: string }
  | { form: 'picture'; signature: Picture; initials: Picture; initialsText: string };

/** A picture of somebody's writing, its background taken out: a PNG in the store, sizes in pixels. */
export interface Picture {
  sha256: string;
  width: number;
  height: number;
}

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
