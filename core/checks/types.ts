import type { Draft, DraftEdit } from '../packet/draft';
import type { Proposal } from '../packet/proposal';
import type { DocumentFacts, Unplaced } from '../packet/resolve';
import type { Ledger } from '../packet/ledger';
import type { Mark } from '../packet/types';

/** Findings that stop the sending, because the packet would be worthless, and findings that warn. */
export type Severity = 'stops' | 'warns';

/** Where a finding is; touching the finding leads there. */
export interface FindingPlace {
  documentId?: string;
  page?: number;
  partyId?: string;
  markId?: string;
  gateId?: string;
}

/** One finding of the gate check: what is wrong, how severe it is, where it is and, if possible, a fix. */
export interface Finding {
  /** Name of the rule; its file has the same name. */
  rule: string;
  severity: Severity;
  /** One clear sentence for the coordinator. */
  sentence: string;
  place: FindingPlace;
  /** The number of places it is about; 1 if absent. */
  places?: number;
  /** A fix that one touch makes. */
  mend?: { label: string; edits: DraftEdit[] };
}

/** One document of the packet. Never changed; the same object as before as long as nothing in it changes. */
export interface DocumentPart {
  doc: DocumentFacts;
  marks: Mark[];
  proposals: Proposal[];
}

/** Everything a rule may examine: the draft, its pages, and what follows from both. */
export interface CheckInput {
  draft: Draft;
  documents: DocumentFacts[];
  /** The same document by document, for rules that examine one at a time. */
  parts: DocumentPart[];
  marks: Mark[];
  unplaced: Unplaced[];
  ledger: Ledger;
  /** What was read on the pages, with what was decided about it. */
  proposals: Proposal[];
  /** The values of tags in text. */
  tags: ReadonlyMap<string, string>;
}

/** What a finding needs to name people and documents. */
export interface Named {
  draft: Pick<Draft, 'parties'>;
  documents: Pick<DocumentFacts, 'id' | 'name'>[];
}

/** A rule of the gate check. Returns its findings; none if the draft passes. */
export type CheckRule = (input: CheckInput) => Finding[];
