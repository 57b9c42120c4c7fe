/** Drafts and their edits, and sending them. */
import * as yup from 'yup';
import {
  ACTS,
  DRAFT_FIELDS,
  DRAFT_LISTS,
  type DraftEdit,
  type DraftField,
  type DraftList,
  MARK_KINDS,
  SECOND_STEPS,
  SLOT_KINDS,
} from '@gatepath/core/packet';
import { SIDES } from '@gatepath/core/text';
import { choiceOf } from './choice';
import { day, gate, id, language, line, object, rect, text } from './fields';
import { EDITS_AT_ONCE } from './limits';

/** So many business days after what is done, at a full hour of the deal's own time. */
const sendingTime = object({
  days: yup.number().integer().min(0).max(60).required(),
  hour: yup.number().integer().min(0).max(23).required(),
});

const schedule = object({
  lastDay: day().nullable().defined(),
  warnDays: yup.number().integer().min(0).max(60).required(),
  nudge: object({
    first: yup.number().integer().min(1).max(90).required(),
    every: yup.number().integer().min(1).max(90).required(),
    most: yup.number().integer().min(0).max(20).required(),
    businessDays: yup.boolean().required(),
    words: text(1000),
  })
    .nullable()
    .default(null),
  sending: sendingTime.nullable().default(undefined).optional(),
});

/** A mark as a member sends it: without what only rules and changes make. */
export const markItem = object({
  id: id().required(),
  documentId: id().required(),
  page: yup.number().integer().min(1).max(5000).required(),
  kind: yup.string().oneOf(MARK_KINDS).required(),
  partyId: id().required(),
  rect: rect.required(),
  required: yup.boolean().required(),
  label: line(200),
  help: text(400),
  lines: yup.string().oneOf(['several'] as const),
  value: text(4000),
  readOnly: yup.boolean(),
  check: object({
    form: yup.string().oneOf(['digits', 'email', 'phone', 'pattern'] as const),
    pattern: text(200),
    message: line(200),
    min: yup.number(),
    max: yup.number(),
    from: day(),
    to: day(),
    minLength: yup.number().integer().min(1).max(4000),
    maxLength: yup.number().integer().min(1).max(4000),
  })
    .default(undefined)
    .optional(),
  options: yup.array(line(120).required()).max(100),
  group: id(),
  placeId: id(),
});

const draftItems: Record<DraftList, yup.Schema> = {
  parties: object({
    id: id().required(),
    name: line(120).required(),
    email: line(254).defined().default(''),
    phone: line(40).nullable().default(null),
    side: yup.string().oneOf(SIDES).required(),
    ordinal: yup.number().integer().min(1).max(99).required(),
    act: yup.string().oneOf(ACTS).required(),
    ink: yup.number().integer().min(0).max(99).required(),
    only: yup.array(id().required()).max(60),
    language: language(),
    note: text(1000),
    secondStep: yup.string().oneOf(SECOND_STEPS),
    accessCode: line(40),
    codeKept: yup.boolean().oneOf([true]),
    copyAt: yup.string().oneOf(['sending']),
    memberId: id(),
    company: line(160),
    capacity: line(120),
    slot: yup.string().oneOf(SLOT_KINDS),
  }),
  documents: object({ id: id().required(), byHand: yup.boolean() }),
  gates: gate,
  marks: markItem,
  redlines: object({
    id: id().required(),
    documentId: id().required(),
    page: yup.number().integer().min(1).max(5000).required(),
    kind: yup.string().oneOf(['strike', 'insert']).required(),
    rects: yup.array(rect.required()).min(1).max(80).required(),
    text: text(2000).defined(),
    moved: yup
      .array(object({ partyId: id().required(), rect: rect.required() }))
      .max(60)
      .required(),
  }),
  passed: object({ id: id().required() }),
  rules: object({
    id: id().required(),
    documentId: id().required(),
    partyIds: yup.array(id().required()).max(60).required(),
    anchor: object({ fx: yup.number().min(0).max(1).required(), fy: yup.number().min(0).max(1).required() }).required(),
    except: yup.array(object({ page: yup.number().integer().min(1).required(), partyId: id().required() })).required(),
    moved: yup
      .array(
        object({ page: yup.number().integer().min(1).required(), partyId: id().required(), rect: rect.required() }),
      )
      .required(),
  }),
};

const MAX_INDEX = 20_000;
const setOf = <F extends string>(field: F, value: yup.Schema) =>
  object({ op: yup.string().oneOf(['set']).required(), field: yup.string().oneOf([field]).required(), value });
const putOf = (list: string, item: yup.Schema) =>
  object({
    op: yup.string().oneOf(['put']).required(),
    list: yup.string().oneOf([list]).required(),
    item: item.required(),
    index: yup.number().integer().min(0).max(MAX_INDEX),
  });
const fieldValues: Record<DraftField, yup.Schema> = {
  name: text(4000).defined(),
  subject: text(4000).defined(),
  message: text(4000).defined(),
  schedule: schedule.required(),
  handOver: yup.boolean().required(),
  readAlong: yup.boolean().required(),
  reports: yup.array(id().required()).max(60).required(),
};
// Made once: a body holds thousands of edits, and a schema costs more to make than to use.
const sets = new Map<unknown, yup.Schema>(
  Object.entries(fieldValues).map(([field, value]) => [field, setOf(field, value)]),
);
const puts = new Map<unknown, yup.Schema>(Object.entries(draftItems).map(([list, item]) => [list, putOf(list, item)]));
const drop = object({
  op: yup.string().oneOf(['drop']).required(),
  list: yup.string().oneOf(DRAFT_LISTS).required(),
  id: id().required(),
});
/** What refuses the rest, saying what is wrong with it. */
const unknownSet = object({
  op: yup.mixed(),
  field: yup.string().oneOf(DRAFT_FIELDS).required(),
  value: yup.mixed(),
});
const unknownPut = object({
  op: yup.string().oneOf(['put', 'drop', 'set']).required(),
  list: yup.string().oneOf(DRAFT_LISTS).required(),
  item: object({}).required(),
  index: yup.mixed(),
});

const draftEdit = choiceOf<DraftEdit>([...sets.values(), drop, ...puts.values()], (value) => {
  const part = (name: string): unknown =>
    typeof value === 'object' && value !== null ? Reflect.get(value, name) : undefined;
  if (part('op') === 'set') return sets.get(part('field')) ?? unknownSet;
  if (part('op') === 'drop') return drop;
  return puts.get(part('list')) ?? unknownPut;
});

/** Body of editing a draft. */
export const editsBody = object({
  edits: yup.array(draftEdit).min(1).max(EDITS_AT_ONCE).required(),
  /** The version these edits were made on, and the screen they were made at. */
  base: yup.number().integer().min(0),
  client: id(),
});
/** The type of `editsBody`. */
export type EditsBody = yup.InferType<typeof editsBody>;

/** Body of sending a draft. */
export const sendBody = object({
  /** The version the sender looked at when deciding to send. */
  version: yup.number().integer().min(1).required(),
  /** Whether the sender has seen the warnings and sends all the same. */
  despiteWarnings: yup.boolean().default(false),
  /** The colleague in whose name it is sent. */
  forId: id(),
});
/** The type of `sendBody`. */
export type SendBody = yup.InferType<typeof sendBody>;

/** A day and an hour of the deal's own time. */
export const sendingHour = object({
  day: day().required('Choose a day.'),
  hour: yup.number().integer().min(0).max(23).required('Choose an hour.'),
});

/** Body of scheduling a draft. */
export const sendLaterBody = object({
  version: yup.number().integer().min(1).required(),
  despiteWarnings: yup.boolean().default(false),
  /** A day and an hour of the deal's own time. */
  day: day().required('Choose a day.'),
  hour: yup.number().integer().min(0).max(23).required('Choose an hour.'),
  /** The colleague in whose name it is sent. */
  forId: id(),
});
/** The type of `sendLaterBody`. */
export type SendLaterBody = yup.InferType<typeof sendLaterBody>;
