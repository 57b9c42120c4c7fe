/** Requests as Yup schemas; their TypeScript types are inferred from them. */
import * as yup from 'yup';
import { MARK_KINDS, MAX_TEXT_LINES, DRAFT_FIELDS, DRAFT_LISTS, type DraftEdit } from '@gatepath/core/marks';
import { ACTS, SCRIPT_FACES, SECOND_STEPS, SIDES, type Gate, type Hand } from '@gatepath/core/routing';
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

/** A language by its tag (BCP 47), as its file of words is named. */
const language = () => yup.string().matches(/^[a-z]{2,3}(-[A-Za-z]{2,8})?$/, 'is not a language, like en or es');

const gate = yup
  .object({
    id: id().required(),
    partyIds: yup.array(id().required()).max(60).required(),
    need: yup.string().oneOf(['any']),
  })
  .noUnknown();

const schedule = yup
  .object({
    lastDay: day().nullable().defined(),
    warnDays: yup.number().integer().min(0).max(60).required(),
    nudge: yup
      .object({
        first: yup.number().integer().min(1).max(90).required(),
        every: yup.number().integer().min(1).max(90).required(),
        most: yup.number().integer().min(0).max(20).required(),
        businessDays: yup.boolean().required(),
      })
      .noUnknown()
      .nullable()
      .default(null),
  })
  .noUnknown();

const fieldValues = {
  schedule: schedule.required(),
  handOver: yup.boolean().required(),
};

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
      language: language(),
      note: yup.string().max(1000),
      secondStep: yup.string().oneOf(SECOND_STEPS),
      accessCode: line(40),
      copyAt: yup.string().oneOf(['sending']),
      memberId: id(),
    })
    .noUnknown(),
  documents: yup.object({ id: id().required() }).noUnknown(),
  gates: gate,
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
  const edit = (value ?? {}) as { op?: string; list?: string; field?: string };
  const list = yup.string().oneOf(DRAFT_LISTS).required();
  if (edit.op === 'set')
    return yup
      .object({
        op: yup.string().oneOf(['set']).required(),
        field: yup.string().oneOf(DRAFT_FIELDS).required(),
        value: fieldValues[edit.field as keyof typeof fieldValues] ?? yup.string().max(4000).defined(),
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
    text: yup.string().trim().max(2000).required('Say what is struck or put in.'),
    rects: yup.array(rect.required()).min(1).max(80).required(),
  },
  extend: { lastDay: day().required('Choose the new last day.') },
  nudge: { partyIds: yup.array(id().required()).max(60) },
  answer: { questionId: id().required(), text: yup.string().trim().max(2000).required('Write an answer first.') },
  unlock: { partyId: id().required() },
  renew_link: { partyId: id().required() },
};
type Changes = {
  [T in keyof typeof changes]: { type: T } & yup.InferType<
    yup.ObjectSchema<yup.TypeFromShape<(typeof changes)[T], yup.AnyObject>>
  >;
};
export const changeBody = yup.lazy((value: unknown) => {
  const type = (value as { type?: string } | null)?.type as keyof typeof changes;
  const shape = changes[type];
  return yup
    .object({ type: yup.string().oneOf(Object.keys(changes), 'is not a change we know').required(), ...(shape ?? {}) })
    .noUnknown();
});
export type ChangeBody = Exclude<Changes[keyof Changes], { type: 'set_path' }> | { type: 'set_path'; gates: Gate[] };

export const lateRoundBody = yup.object({ documentIds: yup.array(id().required()).min(1).max(60).required() });
export type LateRoundBody = yup.InferType<typeof lateRoundBody>;

export const NOTICES = ['asked', 'opened', 'done', 'declined', 'question', 'lapsing', 'executed', 'trouble'] as const;
/** What a member wants to be written to about. */
export type Notice = (typeof NOTICES)[number];
export const noticesBody = yup.object({
  notices: yup.array(yup.string().oneOf(NOTICES).required()).max(NOTICES.length).required(),
  digest: yup.boolean().required(),
});
export interface NoticesBody {
  notices: Notice[];
  digest: boolean;
}

export const holidaysBody = yup.object({ holidays: yup.array(day().required()).max(400).required() });
export type HolidaysBody = yup.InferType<typeof holidaysBody>;

export const clockBody = yup.object({
  hours: yup
    .number()
    .integer()
    .min(1)
    .max(24 * 120)
    .required(),
});
export type ClockBody = yup.InferType<typeof clockBody>;

export const returnBody = yup.object({ why: line(200).default('The mailbox does not exist.') });
export type ReturnBody = yup.InferType<typeof returnBody>;

const picture = yup
  .object({
    sha256: yup
      .string()
      .matches(/^[0-9a-f]{64}$/)
      .required(),
    width: yup.number().integer().min(1).max(4000).required(),
    height: yup.number().integer().min(1).max(4000).required(),
  })
  .noUnknown();

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
  if (form === 'picture')
    return yup
      .object({
        form: yup.string().oneOf(['picture']).required(),
        signature: picture.required(),
        initials: picture.required(),
        initialsText: line(8).required(),
        keep: yup.boolean(),
        actId: id(),
      })
      .noUnknown();
  if (form === 'drawn')
    return yup
      .object({
        form: yup.string().oneOf(['drawn']).required(),
        signature: drawing.required(),
        initials: drawing.required(),
        initialsText: line(8).required(),
        keep: yup.boolean(),
        actId: id(),
      })
      .noUnknown();
  return yup
    .object({
      form: yup.string().oneOf(['typed'], 'Choose a typed or a drawn signature.').required(),
      face: yup.string().oneOf(SCRIPT_FACES).required(),
      signature: line(80).required('Write your name.'),
      initials: line(8).required('Write your initials.'),
      keep: yup.boolean(),
      actId: id(),
    })
    .noUnknown();
});
/** A hand, and whether to keep it for the person's other packets of the firm. */
export type HandBody = Hand & { keep?: boolean; actId?: string };

/** Every act carries an id made on the client: sent twice, it counts once. */
export const agreementBody = yup.object({ agreement: line(20).required(), actId: id() });
export const fillBody = yup.object({
  actId: id().required(),
  /** What was written; for ticks and choices any word, and nothing to take it back. */
  text: yup.string().max(MAX_TEXT_LINES),
});
export type FillBody = yup.InferType<typeof fillBody>;
export const finishBody = yup.object({ actId: id().required() });
export const declineBody = yup.object({
  /** The core asks for it in the client's own language. */
  reason: line(600).default(''),
});
export type DeclineBody = yup.InferType<typeof declineBody>;
export const questionBody = yup.object({ actId: id().required(), text: line(2000).default('') });
export type QuestionBody = yup.InferType<typeof questionBody>;
export const handOverBody = yup.object({
  name: line(120).defined().default(''),
  email: line(254).defined().default(''),
  phone: line(40).nullable().default(null),
  reason: line(600).defined().default(''),
});
export type HandOverBody = yup.InferType<typeof handOverBody>;
export const codeBody = yup.object({ code: line(40).default('') });
export const languageBody = yup.object({ language: language().required() });

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
