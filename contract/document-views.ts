/** Answers about documents: a paper of a deal, or of a form on the shelf. */
import * as yup from 'yup';
import { FILLED } from '@gatepath/core/returned';
import { DOCUMENT_TYPES, PLACE_KINDS, PLACE_ROLES } from '@gatepath/core/reading';
import { PAPER_KINDS } from './limits';
import { calendarDay, flag, list, moment, named, of, oneOf, shape, text, whole } from './answer-fields';
import { ASIDES, CHANGE_KINDS, type Change, type Passage } from '@gatepath/core/changed';
import * as core from './core-answers';

/** What a paper held beside its pages when it was brought in, and what of it was not taken along. */
export const LEFT_OUT = [
  'scripts',
  'actions',
  'attachments',
  'media',
  'xfa',
  'layers',
  'notes',
  'links',
  /** Digital signatures: they hold for the file as it came, and for no copy of it. */
  'signatures',
  /** The words of pages that are pictures: they could not be recognised, or nobody waited for them. */
  'words',
] as const;
/** One of `LEFT_OUT`. */
export type LeftOutKind = (typeof LEFT_OUT)[number];
const leftOut = shape({ what: oneOf(LEFT_OUT), n: whole() });
/** The type of `leftOut`. */
export type LeftOut = yup.InferType<typeof leftOut>;

/** A document of a deal or form. */
export const documentView = named('Document', {
  id: text(),
  /** Where it is: in a deal, or null on the shelf. */
  dealId: text().nullable(),
  name: text(),
  fileName: text(),
  bytes: whole(),
  pages: list(core.pageSize),
  pagesRead: whole(),
  status: oneOf(['reading', 'ready', 'failed']),
  problem: text().nullable(),
  sha256: text(),
  createdAt: moment(),
  type: oneOf(DOCUMENT_TYPES),
  /** What was brought in. */
  cameAs: oneOf(PAPER_KINDS),
  /** Documents its pages come from. */
  madeFrom: list(text()),
  /** The document that took its place. */
  replacedBy: text().nullable(),
  leftOut: list(leftOut),
  /** How many of its pages are pictures whose words are recognised. */
  scanned: whole(),
  /** The last day it holds; null for no end. */
  endsOn: calendarDay().nullable(),
  /** The last day of the form it was made of, where that has passed: told in drafts. */
  formEnded: yup.string(),
  /** The day it was signed somewhere else. */
  elsewhereOn: calendarDay().nullable(),
  /** Whether nobody signs it: it is only kept. */
  unsigned: flag(),
});
/** A printed place of a paper that came back. */
const reviewedPlace = shape({
  id: text(),
  /** Its page of the paper that came back, from 1; null where that page did not. */
  page: whole().nullable(),
  /** Its page of the form. */
  formPage: whole(),
  kind: oneOf(PLACE_KINDS),
  role: oneOf(PLACE_ROLES),
  ordinal: whole().nullable(),
  label: text(),
  rect: core.rect,
  /** Of a date: whether it is the day of signing. */
  signed: yup.boolean(),
  filled: oneOf(FILLED),
  /** What somebody said of it who looked. */
  said: oneOf(['yes', 'no']).nullable(),
});
/** The type of `reviewedPlace`. */
export type ReviewedPlaceView = yup.InferType<typeof reviewedPlace>;

/** The review of a returned paper. */
export const paperReviewView = named('PaperReview', {
  documentId: text(),
  /** The empty form it was compared with. */
  blankId: text().nullable(),
  status: oneOf(['checking', 'ready', 'failed']),
  problem: text().nullable(),
  places: list(reviewedPlace),
  ended: oneOf(['meets', 'kept', 'sent_back']).nullable(),
  reason: text().nullable(),
  /** The packet that asks for what is missing. */
  packetId: text().nullable(),
});
/** The type of `paperReviewView`. */
export type PaperReviewView = yup.InferType<typeof paperReviewView>;

/** The type of `documentView`. */
export type DocumentView = yup.InferType<typeof documentView>;

const passage = of<Passage>()(
  shape({
    text: text(),
    /** One for each line it stands on. */
    boxes: list(shape({ page: whole(), rect: core.rect })),
  }),
);
const maybePassage = of<Passage | null>()(passage.nullable());

const change = of<Change>()(
  named('Change', {
    kind: oneOf(CHANGE_KINDS),
    /** In the earlier version; null where it is only put in. */
    before: maybePassage,
    /** In the later version; null where it is only struck. */
    after: maybePassage,
    lead: text(),
    tail: text(),
    /** What says little by itself: headers, page numbers, days of printing, items counted anew, words read slightly differently. */
    aside: oneOf(ASIDES).nullable(),
    /** Whether it is ink without words. */
    drawn: flag(),
    /** Whether its words were recognised on a picture. */
    scan: flag(),
  }),
);

const changesFields = {
  /** In the order of the later version. */
  changes: list(change),
  /** Changes there are beyond those told. */
  more: whole(),
  /** Words that were most likely only read slightly differently, told or not. */
  slight: whole(),
  /** Pages of the later version on which only words could be compared. */
  wordsOnly: list(whole()),
};
/** What changed since an earlier version, without the pages. */
export const changesOfPaper = named('ChangesOfPaper', changesFields);
/** The type of `changesOfPaper`. */
export type ChangesOfPaper = yup.InferType<typeof changesOfPaper>;

const version = shape({
  id: text(),
  dealId: text().nullable(),
  name: text(),
  pages: list(core.pageSize),
  /** Of a form: the one it is the paper of. */
  shelfId: text().nullable(),
  createdAt: moment(),
});

/** What changed between two versions of a document, with both. */
export const comparisonView = named('Comparison', {
  before: version,
  after: version,
  /** Which pages lie beside each other, from 1. */
  pages: list(shape({ before: whole().nullable(), after: whole().nullable() })),
  ...changesFields,
});
/** The type of `comparisonView`. */
export type ComparisonView = yup.InferType<typeof comparisonView>;

/** How a digital signature stands that a paper came with. */
export const SIGNATURE_STATES = ['holds', 'broken', 'unknown'] as const;
const paperSignature = named('PaperSignature', {
  signer: text(),
  /** Who vouches for its certificate. */
  issuer: text().nullable(),
  /** Whether only the signer vouches for it. */
  selfMade: flag(),
  /** When, by its own word. */
  at: moment().nullable(),
  state: oneOf(SIGNATURE_STATES),
  /** What is to be said of that; empty for nothing. */
  why: text(),
});
/** The type of `paperSignature`. */
export type PaperSignature = yup.InferType<typeof paperSignature>;

/** The digital signatures a file arrived with. */
export const paperSignatures = named('PaperSignatures', {
  /** In the order in which they were made. */
  signatures: list(paperSignature),
  /** Further ones that were not looked at. */
  more: whole(),
});
/** The type of `paperSignatures`. */
export type PaperSignatures = yup.InferType<typeof paperSignatures>;
