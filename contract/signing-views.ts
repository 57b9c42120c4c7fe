/** Answers to a client: the packet through their own signing link. Times are ISO 8601 in UTC, lengths PDF points. */
import * as yup from 'yup';
import { ACTS, MARK_KINDS, SCRIPT_FACES, SECOND_STEPS } from '@gatepath/core/packet';
import { PACKET_STATUSES, PARTY_STATUSES } from '@gatepath/core/routing';
import { SIDES } from '@gatepath/core/text';
import { calendarDay, flag, list, moment, named, oneOf, shape, text, whole } from './answer-fields';
import { choiceOf } from './choice';
import * as core from './core-answers';

const ownMark = shape({
  id: text(),
  documentId: text(),
  page: whole(),
  kind: oneOf(MARK_KINDS),
  rect: core.rect,
  required: flag(),
  label: text().nullable(),
  help: text().nullable(),
  several: flag(),
  /** What stands in it to begin with, for the client to change. */
  value: text().nullable(),
  check: core.valueRule.nullable(),
  options: list(text()),
  redlineId: text().nullable(),
  group: text().nullable(),
  done: flag(),
  automatic: flag(),
});

/** The packet as one client sees it through their own signing link: own marks, others' results. */
export const signingView = named('Signing', {
  /** How far the packet’s log goes in this view. */
  seq: whole(),
  packetId: text(),
  packetName: text(),
  dealName: text(),
  firmName: text(),
  message: text(),
  timeZone: text(),
  /** The one who is signing. No other party's address ever stands in here. */
  me: shape({
    id: text(),
    name: text(),
    side: oneOf(SIDES),
    ordinal: whole(),
    act: oneOf(ACTS),
    ink: whole(),
    /** The company or trust they sign for; empty for none. */
    company: text(),
    /** In what capacity; empty for their own. */
    capacity: text(),
  }),
  status: oneOf(PACKET_STATUSES),
  mine: oneOf(PARTY_STATUSES),
  myTurn: flag(),
  agreed: flag(),
  agreementText: shape({ version: text(), paragraphs: list(text()) }),
  language: text(),
  languages: list(shape({ tag: text(), name: text() })),
  /** The sender’s note for this party alone. */
  note: text(),
  /** Last day for signing; null for none. */
  lastDay: calendarDay().nullable(),
  /** A code that is still wanted before anything is shown. */
  step: shape({ kind: oneOf(SECOND_STEPS), locked: flag(), sent: flag() }).nullable(),
  hostName: text().nullable(),
  /** Changes this party is asked to initial, or has initialled. */
  changes: list(shape({ redline: core.redline, open: flag() })),
  /** Documents of which this party signed an earlier version, and the day they did. */
  revised: list(shape({ documentId: text(), on: calendarDay() })),
  /** Asked once more because of a change. */
  again: flag(),
  questions: list(
    shape({ id: text(), text: text(), at: moment(), answer: shape({ text: text(), at: moment() }).nullable() }),
  ),
  mayHandOver: flag(),
  /** A hand the person let the firm keep. */
  savedHand: core.maybeHand,
  /** Whether something is signed that could be downloaded. */
  somethingSigned: flag(),
  hand: core.maybeHand,
  suggestedInitials: text(),
  /** Script faces that can write every letter of the party's name. */
  faces: list(oneOf(SCRIPT_FACES)),
  documents: list(shape({ id: text(), name: text(), pages: list(core.pageSize), sealed: flag() })),
  /** Own marks in reading order. */
  marks: list(ownMark),
  fills: list(core.shownFill),
  redlines: list(core.redline),
  /** Given names of those who come after, for "what happens next". */
  others: list(shape({ name: text(), ink: whole(), done: flag() })),
});
/** The type of `signingView`. */
export type SigningView = yup.InferType<typeof signingView>;

/** What an act of a client changed, for a screen that showed everything up to `since`. */
const signingPatch = named('SigningPatch', {
  since: whole(),
  seq: whole(),
  mine: oneOf(PARTY_STATUSES),
  somethingSigned: flag(),
  mayHandOver: flag(),
  /** Marks that were filled or emptied. */
  marks: list(shape({ id: text(), done: flag() })),
  /** What stands in those that are filled. */
  fills: list(core.shownFill),
  /** Which of the changes of pages are still to be initialled, in the view’s order. */
  changesOpen: list(flag()),
});
/** The type of `signingPatch`. */
export type SigningPatch = yup.InferType<typeof signingPatch>;

const patched = shape({ patch: signingPatch });
/** The answer to an act: the whole view, or only what changed in it. */
export const actAnswer = choiceOf<SigningView | yup.InferType<typeof patched>>([signingView, patched], (value) =>
  typeof value === 'object' && value !== null && 'patch' in value ? patched : signingView,
);
/** The type of `actAnswer`. */
export type ActAnswer = yup.InferType<typeof actAnswer>;
