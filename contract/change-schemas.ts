/** What the sender does with a packet that is on its way. */
import * as yup from 'yup';
import { ACTS } from '@gatepath/core/packet';
import { SIDES } from '@gatepath/core/text';
import { choiceBy } from './choice';
import { LETTER_WAYS } from '@gatepath/core/packet';
import { markItem } from './draft-schemas';
import { day, email, gate, id, language, line, object, rect, trimmed } from './fields';

/** Body of withdrawing a packet. */
export const withdrawBody = object({
  reason: trimmed(400).required('Say why in a few words; everyone who was asked will read it.'),
});
/** The type of `withdrawBody`. */
export type WithdrawBody = yup.InferType<typeof withdrawBody>;

const contact = {
  name: line(120).required('Give a name.'),
  email: email().default(''),
  phone: line(40).nullable().default(null),
};

/** What the sender may change while a packet is on its way; `type` says which. */
const changes = {
  correct_party: { partyId: id().required(), ...contact, language: language() },
  set_path: { gates: yup.array(gate.required()).min(1).max(60).required() },
  add_party: {
    ...contact,
    side: yup.string().oneOf(SIDES).required('Choose a side.'),
    act: yup.string().oneOf(ACTS).required('Choose what they do.'),
    language: language(),
    /** The gate they come after, as its index from 0; a gate of their own is put there. */
    after: yup.number().integer().min(0).max(59).required(),
    /** Documents they sign; empty for those who only approve or get a copy. */
    documentIds: yup.array(id().required()).max(60).default([]),
    /** Whether they initial every page of those documents too. */
    initials: yup.boolean().default(false),
  },
  drop_party: {
    partyId: id().required(),
    reason: trimmed(400).required('Say why in a few words; they will read it, and so does the record.'),
  },
  change_act: {
    partyId: id().required(),
    act: yup.string().oneOf(ACTS).required('Choose what they do.'),
    /** For somebody who stands at no gate yet: the gate they come after, as its index from 0. */
    after: yup.number().integer().min(0).max(59).default(59),
    /** Documents to sign and whether to initial every page, for somebody who put nothing on the pages before. */
    documentIds: yup.array(id().required()).max(60).default([]),
    initials: yup.boolean().default(false),
  },
  change_marks: {
    partyId: id().required(),
    /** Marks as they are to be; one that moved is put in place of the one before it. */
    put: yup.array(markItem.required()).max(200).default([]),
    drop: yup.array(id().required()).max(200).default([]),
    /** Whether it is meant that a mark covers print. */
    despiteWarnings: yup.boolean().default(false),
  },
  set_reading: { allowed: yup.boolean().required() },
  add_document: { documentId: id().required(), partyIds: yup.array(id().required()).max(60).default([]) },
  correct: {
    documentId: id().required(),
    page: yup.number().integer().min(1).max(5000).required(),
    kind: yup.string().oneOf(['strike', 'insert']).required(),
    text: trimmed(2000).required('Say what is struck or put in.'),
    rects: yup.array(rect.required()).min(1).max(80).required(),
  },
  extend: { lastDay: day().required('Choose the new last day.') },
  /** `words` are said in it beside what it always says. */
  nudge: { partyIds: yup.array(id().required()).max(60), words: trimmed(1000) },
  answer: { questionId: id().required(), text: trimmed(2000).required('Write an answer first.') },
  unlock: { partyId: id().required() },
  renew_link: { partyId: id().required() },
  /** The letter to somebody who cannot be written to was posted, or handed over. */
  letter: {
    partyId: id().required(),
    day: day().required('Say on which day it was sent.'),
    way: yup.string().oneOf(LETTER_WAYS).required('Say how it went.'),
  },
};
/** Body of changing a packet after sending: one of several kinds, by `type`. */
export const changeBody = choiceBy('type', changes, { unknown: 'is not a change we know' });
/** The type of `changeBody`. */
export type ChangeBody = yup.InferType<typeof changeBody>;

/** Body of starting a late signing round. */
export const lateRoundBody = object({ documentIds: yup.array(id().required()).min(1).max(60).required() });
/** The type of `lateRoundBody`. */
export type LateRoundBody = yup.InferType<typeof lateRoundBody>;
