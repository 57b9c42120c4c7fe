/** Answers about documents seen before: what was on them the last time. */
import type * as yup from 'yup';
import { RELATIONS } from '@gatepath/core/memory';
import { flag, list, moment, named, oneOf, shape, text, whole } from './answer-fields';
import * as core from './core-answers';

/** The form of the shelf, or the sent packet, that the marks are from. */
const from = shape({
  kind: oneOf(['form', 'packet'] as const),
  /** The name of the form or document. */
  name: text(),
  /** The deal's address; null for a form. */
  address: text().nullable(),
  sentAt: moment().nullable(),
  executed: flag(),
});

/** What a document of a packet had on it the last time; null if it is a new one. */
export const rememberedView = named('Remembered', {
  /** Whether the firm has it placed at once, where nothing is in doubt. */
  atOnce: flag(),
  remembered: shape({
    /** How it differs from the document of then; `other` never occurs. */
    kind: oneOf(RELATIONS),
    /** Number of printed words that are gone, and that are new; whether words stand in another order. */
    gone: whole(),
    added: whole(),
    moved: flag(),
    from,
    /** Number of packets it was sent in. */
    times: whole(),
    /** What was found for certain, for the people of the packet. */
    marks: list(core.mark),
    /** The ids of those of `marks` that moved. */
    elsewhere: list(text()),
    /** Marks whose position is not certain. A member confirms each of them. */
    doubtful: list(core.mark),
    rules: list(core.rule),
    passed: list(shape({ id: text() })),
    /** The order of acts; null where the packet's own stays. */
    gates: list(core.gate).nullable(),
    /** Number of remembered marks that were not certain, were not found, and whose slot nobody fills. */
    uncertain: whole(),
    lost: whole(),
    unfilled: whole(),
    slots: list(shape({ name: text(), partyIds: list(text()) })),
    /** People beyond the printed lines for whom room was found. */
    beyond: list(text()),
    /** Number of printed places that have no mark then. */
    open: whole(),
  }).nullable(),
});
/** The type of `rememberedView`. */
export type RememberedView = yup.InferType<typeof rememberedView>;
