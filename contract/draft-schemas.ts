/** Drafts and their edits, and sending them. */
import * as yup from 'yup';
import { DRAFT_FIELDS, DRAFT_LISTS, MARK_KINDS, type DraftEdit } from '@gatepath/core/marks';
import { ACTS, SECOND_STEPS, SIDES } from '@gatepath/core/routing';
import { day, gate, id, language, line, rect } from './fields';

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
