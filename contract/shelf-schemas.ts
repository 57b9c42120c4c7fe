/** The shelf: forms and kits, and using a kit on a deal. */
import * as yup from 'yup';
import { LOCKS } from '@gatepath/core/shelf';
import { givenFacts } from './deal-schemas';
import { sendingHour } from './draft-schemas';
import { day, id, line, object, text } from './fields';

/** Kinds of items on the shelf. */
export const SHELF_KINDS = ['form', 'kit'] as const;

/** Query of a list of the shelf. */
export const shelfQuery = object({
  what: yup.string().oneOf(SHELF_KINDS).required('Ask for forms or for kits.'),
  /** Part of a name. */
  search: line(120),
  /** Whether those that were retired are asked for. */
  retired: yup.boolean().default(false),
  after: id(),
  limit: yup.number().integer().min(1).max(100).default(40),
});

/** The type of `shelfQuery`. */
export type ShelfQuery = yup.InferType<typeof shelfQuery>;

/** A form of a document of a packet, or a kit of the whole of it. */
export const saveToShelfBody = object({
  packetId: id().required(),
  /** One document of it, for a form; absent for a kit of all of them. */
  documentId: id(),
  name: line(120).required('Give it a name.'),
});
/** The type of `saveToShelfBody`. */
export type SaveToShelfBody = yup.InferType<typeof saveToShelfBody>;

/** Body of making a kit. */
export const kitBody = object({
  name: line(120).required('Give the kit a name.'),
  formIds: yup.array(id().required()).min(1, 'Choose a form.').max(60).required('Choose a form.'),
});
/** The type of `kitBody`. */
export type KitBody = yup.InferType<typeof kitBody>;

/** A form that is written here, and its name. */
export const writtenFormBody = object({ name: line(120).required('Give the form a name.') });
/** The type of `writtenFormBody`. */
export type WrittenFormBody = yup.InferType<typeof writtenFormBody>;

/** Body of saving the text of a written form. */
export const writtenBody = object({
  /** The version of the text that was at hand when it was changed. */
  version: yup.number().integer().min(0).required(),
  /** As the editor keeps it; looked over part by part by `writtenFrom` of the core. */
  text: yup
    .mixed<object>((v): v is object => typeof v === 'object' && v !== null && !Array.isArray(v))
    .required('There is no text.')
    .meta({ jsonSchema: { type: 'object' } }),
});
/** The type of `writtenBody`. */
export type WrittenBody = yup.InferType<typeof writtenBody>;

/** Body of changing a form or kit besides its draft. */
export const shelfPatch = object({
  /** The last day on which this edition may be used; null for no end. */
  endsOn: day().nullable(),
  retired: yup.boolean(),
  /** What those who use a kit cannot change. */
  locks: yup.array(yup.string().oneOf(LOCKS).required()).max(LOCKS.length),
  /** Who may use it and who may change it, by their ids; null for everybody of the firm. */
  users: yup.array(id().required()).max(200).nullable(),
  makers: yup.array(id().required()).max(200).nullable(),
  /** Who answers for it from now on. */
  ownerId: id(),
  /** Business days after sending until the last day to sign; null for none. */
  lastIn: yup.number().integer().min(1).max(365).nullable(),
});
/** The type of `shelfPatch`. */
export type ShelfPatch = yup.InferType<typeof shelfPatch>;

/** Body of putting an edition on the shelf. */
export const editionBody = object({
  /** The version that was looked at when deciding to put it on the shelf. */
  version: yup.number().integer().min(1).required(),
});
/** The type of `editionBody`. */
export type EditionBody = yup.InferType<typeof editionBody>;

const kitChanges = {
  name: line(120).min(1, 'The packet needs a name.'),
  subject: line(200),
  message: text(4000),
  /** Another last day than the kit's; null for none. */
  lastDay: day().nullable(),
  /** Another day and hour than the kit's, in the deal's own time; null for the moment it is sent. */
  later: sendingHour.nullable().default(undefined).optional(),
  /** Members who are told what the sender is told, where that is other than in the kit. */
  reports: yup.array(id().required()).max(60),
  /** What tags of its forms stand for, where the deal does not know it. */
  values: givenFacts(),
};
/** Body of previewing a kit on a deal. */
export const kitTrialBody = object(kitChanges);
/** Body of using a kit on a deal. */
export const kitUseBody = object({
  ...kitChanges,
  /** Whether it goes out at once; otherwise it is a draft on the desk. */
  send: yup.boolean().default(false),
  despiteWarnings: yup.boolean().default(false),
  /** Whether the values are the deal's from now on; otherwise they are this packet's alone. */
  saveValues: yup.boolean().default(false),
  /** The colleague in whose name it is sent. */
  forId: id(),
  /** `uses` of the preview. If the kit has made more packets on the deal since, the request is refused. */
  uses: yup.number().integer().min(0).max(100_000),
});
/** The type of `kitUseBody`. */
export type KitUseBody = yup.InferType<typeof kitUseBody>;
