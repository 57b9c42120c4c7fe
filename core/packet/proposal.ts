import type { Rect } from '../paper/types';
import type { PrintedPlace } from '../reading/types';
import type { MarkKind } from './types';

/** A printed place, or one beside it, with the mark it would become. */
export interface Proposal {
  /** The place's id: document, page and place. */
  id: string;
  documentId: string;
  page: number;
  rect: Rect;
  kind: MarkKind;
  /** Whose it would be; null if the page does not say, or nobody in the packet fits. */
  partyId: string | null;
  /** Whether the page names somebody who is not in this packet. */
  stranger: boolean;
  label: string;
  place: PrintedPlace;
  state: 'open' | 'accepted' | 'passed';
  /** Whether the page leaves open what it is for, or whose: it is looked at before it is accepted. */
  doubtful?: true;
  /** For a doubtful one: what else it may be, and whose, if that person is in the packet. */
  other?: { kind: MarkKind; partyId: string };
  /** Boxes that answer one question and exclude each other. */
  group?: string;
  /** For a place beyond the printed ones: the printed place it is beside. */
  beside?: string;
  /** For a place beyond the printed ones: where the name is printed under it. */
  nameAt?: Rect;
}
