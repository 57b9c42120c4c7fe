/** What the sender does with a packet that is on its way. */
import * as yup from 'yup';
import { ACTS, type Gate } from '@gatepath/core/packet';
import { SIDES } from '@gatepath/core/text';
import { day, email, gate, id, language, line, object, rect, trimmed } from './fields';

export const withdrawBody = object({
  reason: trimmed(400).required('Say why in a few words; everyone who was asked will read it.'),
});
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
  add_document: { documentId: id().required(), partyIds: yup.array(id().required()).max(60).default([]) },
  correct: {
    documentId: id().required(),
    page: yup.number().integer().min(1).max(5000).required(),
    kind: yup.string().oneOf(['strike', 'insert']).required(),
    text: trimmed(2000).required('Say what is struck or put in.'),
    rects: yup.array(rect.required()).min(1).max(80).required(),
  },
  extend: { lastDay: day().required('Choose the new last day.') },
  nudge: { partyIds: yup.array(id().required()).max(60) },
  answer: { questionId: id().required(), text: trimmed(2000).required('Write an answer first.') },
  unlock: { partyId: id().required() },
  renew_link: { partyId: id().required() },
};
type Changes = {
  [T in keyof typeof changes]: { type: T } & yup.InferType<
    yup.ObjectSchema<yup.TypeFromShape<(typeof changes)[T], yup.AnyObject>>
  >;
};
const typeOfChange = yup.string().oneOf(Object.keys(changes), 'is not a change we know').required();
/** One schema a kind of change, made once; a kind nobody knows is told by the last one. */
const byType = new Map(
  Object.entries(changes).map(([type, shape]) => [type, object({ type: typeOfChange, ...shape })]),
);
const unknownChange = object({ type: typeOfChange });
export const changeBody = yup.lazy((value: unknown) => {
  const type = (value as { type?: unknown } | null)?.type;
  return (typeof type === 'string' && byType.get(type)) || unknownChange;
});
export type ChangeBody = Exclude<Changes[keyof Changes], { type: 'set_path' }> | { type: 'set_path'; gates: Gate[] };

export const lateRoundBody = object({ documentIds: yup.array(id().required()).min(1).max(60).required() });
export type LateRoundBody = yup.InferType<typeof lateRoundBody>;
