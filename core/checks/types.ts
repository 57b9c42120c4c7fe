import type { Draft, DraftEdit } from '../marks/draft';
import type { Proposal } from '../marks/proposals';
import type { DocumentFacts, Unplaced } from '../marks/resolve';
import type { Ledger } from '../marks/ledger';
import type { Mark } from '../marks/types';
import type { DocumentPart } from './documents';

/** Findings that would make a worthless packet stop the sending; the others warn. */
export type Severity = 'stops' | 'warns';

/** Where a finding is, so that touching it leads there. */
export interface Place {
  documentId?: string;
  page?: number;
  partyId?: string;
  markId?: string;
  gateId?: string;
}

export interface Finding {
  /** Name of the rule, equal to its file's name. */
  rule: string;
  severity: Severity;
  /** One clear sentence for the coordinator. */
  sentence: string;
  place: Place;
  /** A mechanical way out, done in one touch. */
  mend?: { label: string; edits: DraftEdit[] };
}

/** All a rule may look at: the draft, what its pages look like, and what follows from both. */
export interface CheckInput {
  draft: Draft;
  documents: DocumentFacts[];
  /** The same document by document, for rules that look at one at a time. */
  parts: DocumentPart[];
  marks: Mark[];
  unplaced: Unplaced[];
  ledger: Ledger;
  /** What was read on the pages, with what was decided about it. */
  proposals: Proposal[];
  /** What tags in text stand for. */
  tags: ReadonlyMap<string, string>;
}

export type CheckRule = (input: CheckInput) => Finding[];
