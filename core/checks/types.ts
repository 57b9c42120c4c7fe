import type { Draft, DraftEdit } from '../packet/draft';
import type { Proposal } from '../packet/proposal';
import type { DocumentFacts, Unplaced } from '../packet/resolve';
import type { Ledger } from '../packet/ledger';
import type { Mark } from '../packet/types';

/** Findings that would make a worthless packet stop the sending; the others warn. */
export type Severity = 'stops' | 'warns';

/** Where a finding is, so that touching it leads there. */
export interface FindingPlace {
  documentId?: string;
  page?: number;
  partyId?: string;
  markId?: string;
  gateId?: string;
}

/** One finding of the gate check: what is wrong, how severe it is, where it is and, if possible, a fix. */
export interface Finding {
  /** Name of the rule, equal to its file's name. */
  rule: string;
  severity: Severity;
  /** One clear sentence for the coordinator. */
  sentence: string;
  place: FindingPlace;
  /** A mechanical way out, done in one touch. */
  mend?: { label: string; edits: DraftEdit[] };
}

/** What there is on one document. Never changed; the same one as before as long as nothing in it is another. */
export interface DocumentPart {
  doc: DocumentFacts;
  marks: Mark[];
  proposals: Proposal[];
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

/** What a finding needs to name people and documents. */
export interface Named {
  draft: Pick<Draft, 'parties'>;
  documents: Pick<DocumentFacts, 'id' | 'name'>[];
}

/** A rule of the gate check. Returns its findings; none if the draft passes. */
export type CheckRule = (input: CheckInput) => Finding[];
