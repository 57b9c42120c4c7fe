/** The core's plain data, as answers tell it. Compiling fails where a schema and the core's type part. */
import * as yup from 'yup';
import type { Source } from '@gatepath/core/abstract';
import type { Schedule } from '@gatepath/core/calendar';
import type { DealFacts } from '@gatepath/core/merge';
import {
  ACTS,
  CELL_STATES,
  CELL_WANTS,
  MARK_KINDS,
  SCRIPT_FACES,
  SECOND_STEPS,
  SLOT_KINDS,
  type Draft,
  type Delivery,
  type Drawing,
  type Gate,
  type Hand,
  type InitialsRule,
  type LedgerRow,
  type Mark,
  type ValueRule,
  type PacketParty,
  type Picture,
  type Plan,
  type PlanDocument,
  type Redline,
  type ShownFill,
} from '@gatepath/core/packet';
import type { Rect } from '@gatepath/core/paper';
import { PLACE_KINDS, PLACE_ROLES, type PrintedPlace } from '@gatepath/core/reading';
import type { ActivityLine, Correction, Question } from '@gatepath/core/routing';
import { SIDES } from '@gatepath/core/text';
import { calendarDay, flag, list, moment, named, number, of, oneOf, shape, text, whole } from './answer-fields';
import { choiceBy } from './choice';

/** A rectangle on a page, in points from its top left. */
export const rect = of<Rect>()(named('Rect', { x: number(), y: number(), w: number(), h: number() }));
/** Where something is printed, with a few words around it. */
export const source = of<Source>()(named('Source', { page: whole(), rect, words: text() }));
/** Width and height of a page, in points. */
export const pageSize = named('PageSize', { width: number(), height: number() });

/** What a value must satisfy. */
export const valueRule = of<ValueRule>()(
  named('ValueRule', {
    form: yup.string().oneOf(['digits', 'email', 'phone', 'pattern'] as const),
    pattern: yup.string(),
    message: yup.string(),
    min: yup.number(),
    max: yup.number(),
    from: yup.string(),
    to: yup.string(),
    minLength: yup.number().integer(),
    maxLength: yup.number().integer(),
  }),
);

/** A mark of a draft or plan. */
export const mark = of<Mark>()(
  named('Mark', {
    id: text(),
    documentId: text(),
    page: whole(),
    kind: oneOf(MARK_KINDS),
    partyId: text(),
    rect,
    required: flag(),
    label: yup.string(),
    help: yup.string(),
    lines: yup.string().oneOf(['several'] as const),
    value: yup.string(),
    readOnly: yup.boolean(),
    check: valueRule.optional(),
    options: yup.array(text()),
    group: yup.string(),
    ruleId: yup.string(),
    redlineId: yup.string(),
    placeId: yup.string(),
  }),
);

/** A redline of a draft or plan. */
export const redline = of<Redline>()(
  named('Redline', {
    id: text(),
    documentId: text(),
    page: whole(),
    kind: oneOf(['strike', 'insert']),
    rects: list(rect),
    text: text(),
    moved: list(shape({ partyId: text(), rect })),
  }),
);

/** An initials rule of a draft. */
export const rule = of<InitialsRule>()(
  named('InitialsRule', {
    id: text(),
    documentId: text(),
    partyIds: list(text()),
    anchor: shape({ fx: number(), fy: number() }),
    except: list(shape({ page: whole(), partyId: text() })),
    moved: list(shape({ page: whole(), partyId: text(), rect })),
  }),
);

/** A party of a packet. */
export const party = of<PacketParty>()(
  named('PacketParty', {
    id: text(),
    name: text(),
    email: text(),
    phone: text().nullable(),
    side: oneOf(SIDES),
    ordinal: whole(),
    act: oneOf(ACTS),
    ink: whole(),
    only: yup.array(text()),
    language: yup.string(),
    note: yup.string(),
    secondStep: yup.string().oneOf(SECOND_STEPS),
    accessCode: yup.string(),
    codeKept: yup.boolean().isTrue(),
    copyAt: yup.string().oneOf(['sending'] as const),
    memberId: yup.string(),
    company: yup.string(),
    capacity: yup.string(),
    slot: yup.string().oneOf(SLOT_KINDS),
  }),
);

/** A gate of a draft or plan. */
export const gate = of<Gate>()(
  named('Gate', { id: text(), partyIds: list(text()), need: yup.string().oneOf(['any'] as const) }),
);

const schedule = of<Schedule>()(
  named('Schedule', {
    lastDay: calendarDay().nullable(),
    warnDays: whole(),
    nudge: shape({
      first: whole(),
      every: whole(),
      most: whole(),
      businessDays: flag(),
      words: yup.string(),
    }).nullable(),
    sending: shape({ days: whole(), hour: whole() }).nullable().optional(),
  }),
);

const after = shape({ n: whole(), unit: oneOf(['days', 'business_days'] as const) });
/** When something counts as delivered, by way of delivery. */
export const delivery = of<Delivery>()(shape({ link: after, post: after, hand: after }));
const replaces = shape({ packetId: text(), version: whole() }).optional();
const continues = shape({ packetId: text(), packetName: text() }).optional();

/** A draft. */
export const draft = of<Draft>()(
  named('Draft', {
    name: text(),
    subject: text(),
    message: text(),
    parties: list(party),
    documents: list(shape({ id: text(), byHand: yup.boolean() })),
    gates: list(gate),
    marks: list(mark),
    rules: list(rule),
    redlines: list(redline),
    passed: list(shape({ id: text() })),
    schedule,
    handOver: flag(),
    readAlong: yup.boolean(),
    reports: yup.array(text()),
    replaces,
    continues,
    delivery: delivery.optional(),
  }),
);

const planDocument = of<PlanDocument>()(
  named('PlanDocument', {
    id: text(),
    name: text(),
    sha256: text(),
    pages: list(pageSize),
    ownPages: whole().optional(),
  }),
);

/** A plan. */
export const plan = of<Plan>()(
  named('Plan', {
    packetName: text(),
    dealName: text(),
    timeZone: text(),
    subject: text(),
    message: text(),
    parties: list(party),
    gates: list(gate),
    documents: list(planDocument),
    marks: list(mark),
    redlines: yup.array(redline),
    schedule: schedule.optional(),
    holidays: yup.array(text()),
    handOver: yup.boolean(),
    readAlong: yup.boolean(),
    reports: yup.array(text()),
    leftOut: yup.array(shape({ documentId: text(), page: whole(), partyId: text() })),
    replaces,
    continues,
    delivery: delivery.optional(),
  }),
);

const drawing = of<Drawing>()(named('Drawing', { width: number(), height: number(), strokes: list(list(number())) }));
/** A picture of a hand, by its fingerprint, with its size in pixels. */
export const picture = of<Picture>()(named('Picture', { sha256: text(), width: whole(), height: whole() }));

const handOfPictures = { initialsText: text() };
/** A hand, or null where there is none yet. */
export const maybeHand = choiceBy(
  'form',
  {
    typed: { face: oneOf(SCRIPT_FACES), signature: text(), initials: text() },
    drawn: { signature: drawing, initials: drawing, ...handOfPictures },
    picture: { signature: picture, initials: picture, ...handOfPictures },
  },
  { nullable: true },
) satisfies yup.ISchema<Hand | null>;

const shows = choiceBy('form', {
  typed: { face: oneOf(SCRIPT_FACES), text: text() },
  drawn: { drawing, spoken: text() },
  picture: { picture, spoken: text() },
  text: { text: text() },
  tick: {},
});
/** What a filled mark shows. */
export const shownFill = of<ShownFill>()(
  named('ShownFill', {
    markId: text(),
    documentId: text(),
    page: whole(),
    rect,
    kind: oneOf(MARK_KINDS),
    partyId: text(),
    ink: whole(),
    lines: yup.string().oneOf(['several'] as const),
    under: yup.string(),
    shows,
  }),
);

/** A row of the page ledger. */
export const ledgerRow = of<LedgerRow>()(
  named('LedgerRow', {
    documentId: text(),
    page: whole(),
    cells: list(
      shape({
        partyId: text(),
        state: oneOf(CELL_STATES),
        wants: oneOf(CELL_WANTS),
        markIds: list(text()),
        total: whole(),
        done: whole(),
        gapFrom: oneOf(['rule', 'pattern']).nullable(),
      }),
    ),
  }),
);

/** A party's question and its answer. */
export const question = of<Question>()(
  named('Question', {
    id: text(),
    partyId: text(),
    text: text(),
    at: moment(),
    answer: shape({ text: text(), at: moment(), by: text() }).nullable(),
  }),
);

/** A redline that was made after sending. */
export const correction = of<Correction>()(
  named('Correction', { redline, seq: whole(), at: moment(), by: text(), askedAgain: list(text()) }),
);

/** A line of a packet's activity. */
export const activityLine = of<ActivityLine>()(
  named('ActivityLine', { seq: whole(), at: moment(), partyId: text().nullable(), sentence: text() }),
);

/** A printed place of a document. */
export const printedPlace = of<PrintedPlace>()(
  named('PrintedPlace', {
    page: whole(),
    kind: oneOf(PLACE_KINDS),
    role: oneOf(PLACE_ROLES),
    ordinal: whole().nullable(),
    rect,
    signed: yup.boolean(),
    label: text(),
    source: oneOf(['print', 'acroform']),
    confidence: number(),
    other: shape({ kind: oneOf(PLACE_KINDS), role: oneOf(PLACE_ROLES), ordinal: whole().nullable() }).optional(),
    field: shape({
      name: text(),
      required: flag(),
      multiline: flag(),
      maxLength: whole().nullable(),
      options: list(text()),
      group: text().nullable(),
      readOnly: flag(),
    }).optional(),
    dismissed: yup.boolean(),
    read: shape({ kind: oneOf(PLACE_KINDS), role: oneOf(PLACE_ROLES), ordinal: whole().nullable(), rect }).optional(),
  }),
);

/** Facts that text in packets can insert. */
export const dealFacts = of<DealFacts>()(
  named('DealFacts', { address: text(), city: text(), price: text(), closing: text() }),
);
