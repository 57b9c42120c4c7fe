/** Requests as Yup schemas; their TypeScript types are inferred from them. */
import * as yup from 'yup';
import { MARK_KINDS, MAX_TEXT_LINES, DRAFT_FIELDS, DRAFT_LISTS, type DraftEdit } from '@gatepath/core/marks';
import { ACTS, SCRIPT_FACES, SIDES, type Hand } from '@gatepath/core/routing';
import { DOCUMENT_TYPES } from '@gatepath/core/reading';
import { isEmail } from '@gatepath/core/text';

const id = () =>
  yup
    .string()
    .trim()
    .min(1)
    .max(200)
    .matches(/^[\w.:-]+$/, 'is not an id');
const line = (max: number) => yup.string().trim().max(max);
const email = () =>
  line(254).test('email', 'This is not an email address, like name@example.com.', (v) => !v || isEmail(v));
const day = () => yup.string().matches(/^\d{4}-\d{2}-\d{2}$/, 'is not a day, like 2026-11-23');
const points = () => yup.number().min(-20000).max(20000);

export const DEAL_KINDS = ['listing', 'sale', 'tenancy'] as const;

export const setupBody = yup.object({
  firmName: line(120).required('Give the name of your firm.'),
  timeZone: line(60).required('Choose a time zone.'),
  name: line(120).required('Give your name.'),
  email: email().required('Give your email address.'),
  password: yup.string().min(10, 'Use at least 10 characters.').max(200).required('Choose a password.'),
});
export type SetupBody = yup.InferType<typeof setupBody>;

export const signInBody = yup.object({
  email: line(254).required('Give your email address.'),
  password: yup.string().max(200).required('Give your password.'),
});
export type SignInBody = yup.InferType<typeof signInBody>;

export const partyBody = yup.object({
  side: yup.string().oneOf(SIDES).required('Choose a side.'),
  name: line(120).required('Give a name.'),
  email: email().default(''),
  phone: line(40).nullable().default(null),
});
export type PartyBody = yup.InferType<typeof partyBody>;

export const dealBody = yup.object({
  kind: yup.string().oneOf(DEAL_KINDS).required('Choose what kind of deal it is.'),
  address: line(160).required('Give the street address.'),
  city: line(120).default(''),
  parties: yup.array(partyBody).max(40).default([]),
});
export type DealBody = yup.InferType<typeof dealBody>;

export const listQuery = yup.object({
  after: yup.string().max(60),
  limit: yup.number().integer().min(1).max(100).default(20),
  search: line(80),
});
export type ListQuery = yup.InferType<typeof listQuery>;

export const mailroomQuery = listQuery.shape({ packetId: yup.string().max(60) });

export const newPacketBody = yup.object({
  name: line(120).required('Give the packet a name.'),
  documentIds: yup.array(id().required()).max(60).default([]),
});
export type NewPacketBody = yup.InferType<typeof newPacketBody>;

const rect = yup
  .object({
    x: points().required(),
    y: points().required(),
    w: points().min(1).required(),
    h: points().min(1).required(),
  })
  .noUnknown();

const draftItems = {
  parties: yup
    .object({
      id: id().required(),
      name: line(120).required(),
      email: line(254).defined().default(''),
      phone: line(40).nullable().default(null),
      side: yup.string().oneOf(SIDES).required(),
      ordinal: yup.number().integer().min(1).max(99).required(),
      act: yup.string().oneOf(ACTS).required(),
      ink: yup.number().integer().min(0).max(99).required(),
      only: yup.array(id().required()).max(60),
    })
    .noUnknown(),
  documents: yup.object({ id: id().required() }).noUnknown(),
  gates: yup.object({ id: id().required(), partyIds: yup.array(id().required()).max(60).required() }).noUnknown(),
  marks: yup
    .object({
      id: id().required(),
      documentId: id().required(),
      page: yup.number().integer().min(1).max(5000).required(),
      kind: yup.string().oneOf(MARK_KINDS).required(),
      partyId: id().required(),
      rect: rect.required(),
      required: yup.boolean().required(),
      label: line(200),
      help: line(400),
      lines: yup.string().oneOf(['several']),
      value: yup.string().max(4000),
      readOnly: yup.boolean(),
      check: yup
        .object({
          form: yup.string().oneOf(['digits', 'email', 'phone', 'pattern']),
          pattern: yup.string().max(200),
          message: line(200),
          min: yup.number(),
          max: yup.number(),
          from: day(),
          to: day(),
          minLength: yup.number().integer().min(1).max(4000),
          maxLength: yup.number().integer().min(1).max(4000),
        })
        .noUnknown()
        .default(undefined),
      options: yup.array(line(120).required()).max(100),
      group: id(),
      placeId: id(),
    })
    .noUnknown(),
  redlines: yup
    .object({
      id: id().required(),
      documentId: id().required(),
      page: yup.number().integer().min(1).max(5000).required(),
      kind: yup.string().oneOf(['strike', 'insert']).required(),
      rects: yup.array(rect.required()).min(1).max(80).required(),
      text: yup.string().max(2000).defined(),
      moved: yup
        .array(yup.object({ partyId: id().required(), rect: rect.required() }).noUnknown())
        .max(60)
        .required(),
    })
    .noUnknown(),
  passed: yup.object({ id: id().required() }).noUnknown(),
  rules: yup
    .object({
      id: id().required(),
      documentId: id().required(),
      partyIds: yup.array(id().required()).max(60).required(),
      anchor: yup
        .object({ fx: yup.number().min(0).max(1).required(), fy: yup.number().min(0).max(1).required() })
        .noUnknown()
        .required(),
      except: yup
        .array(yup.object({ page: yup.number().integer().min(1).required(), partyId: id().required() }).noUnknown())
        .required(),
      moved: yup
        .array(
          yup
            .object({ page: yup.number().integer().min(1).required(), partyId: id().required(), rect: rect.required() })
            .noUnknown(),
        )
        .required(),
    })
    .noUnknown(),
};

const draftEdit = yup.lazy((value: unknown) => {
  const edit = (value ?? {}) as { op?: string; list?: string };
  const list = yup.string().oneOf(DRAFT_LISTS).required();
  if (edit.op === 'set')
    return yup
      .object({
        op: yup.string().oneOf(['set']).required(),
        field: yup.string().oneOf(DRAFT_FIELDS).required(),
        value: yup.string().max(4000).defined(),
      })
      .noUnknown();
  if (edit.op === 'drop')
    return yup.object({ op: yup.string().oneOf(['drop']).required(), list, id: id().required() }).noUnknown();
  const item = draftItems[(edit.list ?? '') as keyof typeof draftItems] ?? yup.object().required();
  return yup
    .object({
      op: yup.string().oneOf(['put']).required(),
      list,
      item: item.required(),
      index: yup.number().integer().min(0).max(10_000),
    })
    .noUnknown();
});

export const editsBody = yup.object({
  edits: yup.array(draftEdit).min(1).max(4000).required(),
  /** The version these edits were made on, and the screen they were made at. */
  base: yup.number().integer().min(0),
  client: yup.string().max(60),
});
export interface EditsBody {
  edits: DraftEdit[];
  base?: number;
  client?: string;
}

export const sendBody = yup.object({
  /** The version the sender looked at when deciding to send. */
  version: yup.number().integer().min(1).required(),
  /** Whether the sender has seen the warnings and sends all the same. */
  despiteWarnings: yup.boolean().default(false),
});
export type SendBody = yup.InferType<typeof sendBody>;

export const withdrawBody = yup.object({
  reason: line(400).required('Say why in a few words; everyone who was asked will read it.'),
});
export type WithdrawBody = yup.InferType<typeof withdrawBody>;

const drawing = yup
  .object({
    width: yup.number().min(10).max(5000).required(),
    height: yup.number().min(10).max(5000).required(),
    strokes: yup
      .array(
        yup
          .array(yup.number().min(-100).max(6000).required())
          .min(2)
          .max(8000)
          .required()
          .test('pairs', 'A stroke is a list of x, y pairs.', (v) => v.length % 2 === 0),
      )
      .min(1, 'Draw something first.')
      .max(200)
      .required(),
  })
  .noUnknown();

export const handBody = yup.lazy((value: unknown) => {
  const form = (value as { form?: string } | null)?.form;
  if (form === 'drawn')
    return yup
      .object({
        form: yup.string().oneOf(['drawn']).required(),
        signature: drawing.required(),
        initials: drawing.required(),
        initialsText: line(8).required(),
      })
      .noUnknown();
  return yup
    .object({
      form: yup.string().oneOf(['typed'], 'Choose a typed or a drawn signature.').required(),
      face: yup.string().oneOf(SCRIPT_FACES).required(),
      signature: line(80).required('Write your name.'),
      initials: line(8).required('Write your initials.'),
    })
    .noUnknown();
});
export type HandBody = Hand;

/** Every act carries an id made on the client: sent twice, it counts once. */
export const agreementBody = yup.object({ agreement: line(20).required() });
export const fillBody = yup.object({
  actId: id().required(),
  /** What was written; for ticks and choices any word, and nothing to take it back. */
  text: yup.string().max(MAX_TEXT_LINES),
});
export type FillBody = yup.InferType<typeof fillBody>;
export const finishBody = yup.object({ actId: id().required() });
export const declineBody = yup.object({
  reason: line(600).required('Please say in a few words why you decline.'),
});
export type DeclineBody = yup.InferType<typeof declineBody>;
export const documentPatch = yup.object({
  name: line(120).min(1, 'Give the document a name.'),
  type: yup.string().oneOf(DOCUMENT_TYPES),
  replacedBy: id().nullable(),
});
export type DocumentPatch = yup.InferType<typeof documentPatch>;

export const composeBody = yup.object({
  name: line(120).required('Give the document a name.'),
  parts: yup
    .array(
      yup
        .object({
          documentId: id().required(),
          page: yup.number().integer().min(1).required(),
          turn: yup.number().oneOf([0, 90, 180, 270]).default(0),
        })
        .required(),
    )
    .min(1, 'Leave at least one page in.')
    .max(1000, 'A document takes at most 1,000 pages.')
    .required(),
  /** Documents whose place the new one takes. */
  replaces: yup.array(id().required()).max(60).default([]),
});
export type ComposeBody = yup.InferType<typeof composeBody>;

export const dealPatch = yup.object({
  address: line(160).min(1, 'Give the street address.'),
  city: line(120),
  price: line(40),
  closingOn: day().nullable(),
});
export type DealPatch = yup.InferType<typeof dealPatch>;
