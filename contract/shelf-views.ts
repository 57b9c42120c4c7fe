/** Answers about the shelf: forms and kits, and what a kit would make of a deal. */
import * as yup from 'yup';
import { DOCUMENT_TYPES } from '@gatepath/core/reading';
import { ACTS, SLOT_KINDS } from '@gatepath/core/packet';
import { FOUND_AGAIN, LOCKS, type Again } from '@gatepath/core/shelf';
import { SIDES } from '@gatepath/core/text';
import { TAG_SOURCES, TAG_TYPES, type TagDef, type Written } from '@gatepath/core/writing';
import { calendarDay, flag, list, moment, named, of, oneOf, shape, text, whole } from './answer-fields';
import * as core from './core-answers';
import { documentView } from './document-views';
import { SHELF_KINDS } from './shelf-schemas';

const slotFields = {
  id: text(),
  name: text(),
  /** As in its token: "S1", "T+". */
  letters: text(),
  ink: whole(),
  kind: oneOf(SLOT_KINDS),
};
const slot = shape(slotFields);
/** The type of `slot`. */
export type SlotView = yup.InferType<typeof slot>;

const itemFields = {
  /** Whether the one who asks may change it. */
  own: flag(),
  id: text(),
  what: oneOf(SHELF_KINDS),
  name: text(),
  /** Editions put on the shelf; 0 while there is none to be used. */
  edition: whole(),
  /** Whether what is being prepared differs from the last edition. */
  changed: flag(),
  retired: flag(),
  endsOn: calendarDay().nullable(),
  slots: list(slot),
  /** By the ids of their slots. */
  gates: list(list(text())),
  pages: whole(),
};

/** An item of the shelf as lists show it. */
export const shelfSummary = named('ShelfSummary', {
  ...itemFields,
  /** The document whose first page shows what it is; null while there is none. */
  documentId: text().nullable(),
  type: oneOf(DOCUMENT_TYPES).nullable(),
  /** The forms of a kit, in order. */
  forms: list(text()),
});
/** The type of `shelfSummary`. */
export type ShelfSummary = yup.InferType<typeof shelfSummary>;

/** Marks of a form on its changed paper: where each was found again, or that it was not. */
export const againView = named('Again', {
  items: list(of<Again>()(shape({ markId: text(), state: oneOf(FOUND_AGAIN), page: whole(), rect: core.rect }))),
});
/** The type of `againView`. */
export type AgainView = yup.InferType<typeof againView>;

/** Who locked a setting of a kit, and which. */
const locks = list(shape({ lock: oneOf(LOCKS), by: text() }));

/** What came in with a bundle. */
export const broughtView = named('Brought', {
  items: list(shape({ id: text(), what: oneOf(SHELF_KINDS), name: text() })),
});
/** The type of `broughtView`. */
export type BroughtView = yup.InferType<typeof broughtView>;

const tagFields = {
  key: text(),
  label: text(),
  type: oneOf(TAG_TYPES),
  unit: yup.string(),
  options: yup.array(shape({ value: text(), label: text() })),
};
/** Definition of a tag. */
export const tagDef = of<TagDef>()(shape({ ...tagFields, from: oneOf(TAG_SOURCES) }));

/** The text of a form as its editor keeps it: blocks within blocks. */
const writtenText = yup
  .mixed<Written>((v): v is Written => typeof v === 'object' && v !== null)
  .defined()
  .meta({ jsonSchema: { type: 'object' } });

/** A form or a kit as it is prepared. */
export const shelfItemView = named('ShelfItem', {
  ...itemFields,
  draft: core.draft,
  version: whole(),
  documents: list(documentView),
  locks,
  owner: shape({ id: text(), name: text() }),
  /** By their ids; null for everybody of the firm. */
  users: list(text()).nullable(),
  makers: list(text()).nullable(),
  lastIn: whole().nullable(),
  /** The forms of a kit, in order, with the edition that goes into packets. */
  forms: list(shape({ id: text(), name: text(), edition: whole(), retired: flag() })),
  /** Kits that a form is in. */
  kits: list(shape({ id: text(), name: text() })),
  /** Newest first, each with what it changed of the one before; of the oldest that is not told. */
  editions: list(shape({ edition: whole(), by: text(), at: moment(), changes: list(text()) })),
  /** What is prepared and stands in no edition yet. */
  since: list(text()),
  /** The text of a form that is written here, with the tags it may have; null for a form of a paper. */
  written: shape({ text: writtenText, version: whole(), tags: list(tagDef) }).nullable(),
});
/** The type of `shelfItemView`. */
export type ShelfItemView = yup.InferType<typeof shelfItemView>;

/** Preview of a kit on a deal. */
export const kitTrial = named('KitTrial', {
  kit: shape({ id: text(), name: text(), edition: whole() }),
  /** Where the deal is. */
  address: text(),
  name: text(),
  subject: text(),
  message: text(),
  /** Both as they will be read, with what their tags stand for in this deal. */
  says: shape({ subject: text(), message: text() }),
  lastDay: calendarDay().nullable(),
  nudges: flag(),
  /** When it goes, in the deal's own time; null for at once. */
  later: shape({ day: calendarDay(), hour: whole() }).nullable(),
  timeZone: text(),
  /** Members who are told what the sender is told, by their ids. */
  reports: list(text()),
  papers: whole(),
  pages: whole(),
  slots: list(
    shape({
      ...slotFields,
      side: oneOf(SIDES),
      people: list(text()),
      /** Why nobody fills it. */
      empty: oneOf(['nobody', 'fewer']).nullable(),
      /** Papers that have something for it. */
      papers: whole(),
    }),
  ),
  /** Everybody of the packet, with what they will have to do. */
  people: list(
    shape({
      id: text(),
      name: text(),
      ink: whole(),
      side: oneOf(SIDES),
      act: oneOf(ACTS),
      signatures: whole(),
      initials: whole(),
      others: whole(),
      /** Papers that had no line for them, and on which room was found. */
      beyond: whole(),
    }),
  ),
  gates: list(list(text())),
  findings: list(shape({ sentence: text(), severity: oneOf(['stops', 'warns']) })),
  /** Tags of its forms for which the deal has nothing. */
  unknown: list(tagDef),
  /** How many packets of the deal were made of it before. */
  uses: whole(),
  /** What the deal needs and this packet would meet. */
  meets: list(text()),
  locks,
});
/** The type of `kitTrial`. */
export type KitTrial = yup.InferType<typeof kitTrial>;

/** Kits for a deal, those that fit it first. */
export const kitsView = named('Kits', {
  items: list(
    shape({
      id: text(),
      name: text(),
      papers: whole(),
      slots: list(slot),
      gates: list(list(text())),
      /** What of the deal's open needs it would meet. */
      meets: list(text()),
      /** Slots for whom the deal has nobody. */
      missing: list(text()),
    }),
  ),
});
/** The type of `kitsView`. */
export type KitsView = yup.InferType<typeof kitsView>;
