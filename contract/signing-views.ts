/** Answers to a client: the packet through their own pass. Times are ISO 8601 in UTC, lengths PDF points. */
import type {
  Hand,
  MarkCheck,
  MarkKind,
  PacketParty,
  Redline,
  ScriptFace,
  SecondStep,
  ShownFill,
} from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import type { PacketStatus, PartyStatus } from '@gatepath/core/routing';

/** What an act of a client changed, for a screen that showed everything up to `since`. */
export interface SigningPatch {
  since: number;
  seq: number;
  mine: SigningView['mine'];
  somethingSigned: boolean;
  mayHandOver: boolean;
  /** Marks that were filled or emptied. */
  marks: { id: string; done: boolean }[];
  /** What stands in those that are filled. */
  fills: ShownFill[];
  /** Which of the changes of pages are still to be initialled, in the view’s order. */
  changesOpen: boolean[];
}

/** The answer to an act: the whole view, or only what changed in it. */
export type ActAnswer = SigningView | { patch: SigningPatch };

/** The packet as one client sees it through their own pass: own marks, others' results. */
export interface SigningView {
  /** How far the packet’s log goes in this view. */
  seq: number;
  packetId: string;
  packetName: string;
  dealName: string;
  firmName: string;
  message: string;
  timeZone: string;
  /** The one who is signing. No other party's address ever stands in here. */
  me: Pick<PacketParty, 'id' | 'name' | 'side' | 'ordinal' | 'act' | 'ink'>;
  status: PacketStatus;
  mine: PartyStatus;
  myTurn: boolean;
  agreed: boolean;
  agreementText: { version: string; paragraphs: string[] };
  language: string;
  languages: { tag: string; name: string }[];
  /** The sender’s note for this party alone. */
  note: string;
  /** Last day for signing, ISO 8601; null for none. */
  lastDay: string | null;
  /** A code that is still wanted before anything is shown. */
  step: { kind: SecondStep; locked: boolean; sent: boolean } | null;
  hostName: string | null;
  /** Changes this party is asked to initial, or has initialled. */
  changes: { redline: Redline; open: boolean }[];
  /** Asked once more because of a change. */
  again: boolean;
  questions: { id: string; text: string; at: string; answer: { text: string; at: string } | null }[];
  mayHandOver: boolean;
  /** A hand the person let the firm keep. */
  keptHand: Hand | null;
  /** Whether something is signed that could be downloaded. */
  somethingSigned: boolean;
  hand: Hand | null;
  suggestedInitials: string;
  /** Script faces that can write every letter of the party's name. */
  faces: ScriptFace[];
  documents: { id: string; name: string; pages: { width: number; height: number }[]; sealed: boolean }[];
  /** Own marks in reading order. */
  marks: {
    id: string;
    documentId: string;
    page: number;
    kind: MarkKind;
    rect: Rect;
    required: boolean;
    label: string | null;
    help: string | null;
    several: boolean;
    /** What stands in it to begin with, for the client to change. */
    value: string | null;
    check: MarkCheck | null;
    options: string[];
    redlineId: string | null;
    group: string | null;
    done: boolean;
    automatic: boolean;
  }[];
  fills: ShownFill[];
  redlines: Redline[];
  /** Given names of those who come after, for "what happens next". */
  others: { name: string; ink: number; done: boolean }[];
}
