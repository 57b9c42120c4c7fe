/** Answers about notices: how a run stands, and every household's row. */
import * as yup from 'yup';
import type { NoticeRule } from '@gatepath/core/notices';
import { calendarDay, flag, list, moment, named, of, oneOf, shape, text, whole } from './answer-fields';
import { delivery } from './core-answers';
import { tagDef } from './shelf-views';

const after = shape({ n: whole(), unit: oneOf(['days', 'business_days'] as const) });
const rule = of<NoticeRule>()(
  named('NoticeRule', { id: text(), name: text(), day: text().nullable(), term: after, delivery }),
);
/** The firm's rules for notices, and the dates they can count from. */
export const noticeRulesView = named('NoticeRules', {
  rules: list(rule),
  /** Tags that are days: what a rule can count back from. */
  days: list(shape({ key: text(), label: text() })),
});
/** The type of `noticeRulesView`. */
export type NoticeRulesView = yup.InferType<typeof noticeRulesView>;

/** `preparing` until something goes; `stopped` by hand half-way; `gone` once nothing is left that can go. */
export const NOTICE_STATES = ['preparing', 'going', 'stopped', 'gone'] as const;

/** Households by how far they are. */
const counts = shape({
  homes: whole(),
  /** Not looked at yet. */
  fresh: whole(),
  ready: whole(),
  wrong: whole(),
  leftOut: whole(),
  gone: whole(),
  arrived: whole(),
  cameBack: whole(),
  opened: whole(),
  /** Signed, or delivered. */
  done: whole(),
  /** Letters that are to be posted. */
  letters: whole(),
});

const noticeFields = {
  id: text(),
  name: text(),
  state: oneOf(NOTICE_STATES),
  createdAt: moment(),
  by: text(),
  counts,
};
/** A notice as lists show it. */
export const noticeSummary = named('NoticeSummary', noticeFields);
/** The type of `noticeSummary`. */
export type NoticeSummary = yup.InferType<typeof noticeSummary>;

const value = yup
  .mixed<string | number | boolean>((v): v is string | number | boolean =>
    ['string', 'number', 'boolean'].includes(typeof v),
  )
  .defined()
  .meta({ jsonSchema: { type: ['string', 'number', 'boolean'] } });
const values = yup
  .mixed<Record<string, string | number | boolean>>((v): v is Record<string, string | number | boolean> =>
    Object.values(v ?? {}).every((x) => value.isValidSync(x)),
  )
  .defined()
  .meta({ jsonSchema: { type: 'object' } });

/** A notice. */
export const noticeView = named('Notice', {
  ...noticeFields,
  kit: shape({ id: text(), name: text() }),
  /** Whether it is to be signed, or only delivered. */
  signed: flag(),
  /** What the papers of the kit ask for, people and the firm apart: what rows can say. */
  tags: list(tagDef),
  values,
  rule: rule.nullable(),
  rules: list(shape({ id: text(), name: text() })),
  /** What the rule comes to for a notice that goes today; null where it has no day, or no value for it holds for all. */
  term: shape({ delivered: calendarDay(), earliest: calendarDay(), sentence: text().nullable() }).nullable(),
  allOrNone: flag(),
  /** Whether rows are being worked out now. */
  working: flag(),
});
/** The type of `noticeView`. */
export type NoticeView = yup.InferType<typeof noticeView>;

/** States of a household's row. */
export const ROW_STATES = ['new', 'ready', 'going', 'wrong', 'left_out', 'gone'] as const;
/** States of one step of a row. */
export const STEP_STATES = ['to_do', 'now', 'done', 'failed', 'none'] as const;
const step = oneOf(STEP_STATES);

/** One household's row. */
export const noticeRow = named('NoticeRow', {
  id: text(),
  /** Its place in the list, from 1. */
  n: whole(),
  /** The line of the table it stood on; null for a home that was chosen. */
  line: whole().nullable(),
  home: text(),
  dealId: text().nullable(),
  tenants: list(text()),
  values,
  state: oneOf(ROW_STATES),
  /** Why it cannot go. */
  problems: list(text()),
  /** What is worth knowing, and keeps nothing from going. */
  notes: list(text()),
  packetId: text().nullable(),
  steps: shape({ worked: step, gone: step, arrived: step, opened: step, done: step }),
  countsFrom: calendarDay().nullable(),
  /** Where it stands, in few words. */
  says: text(),
  wantsLetter: flag(),
});
/** The type of `noticeRow`. */
export type NoticeRow = yup.InferType<typeof noticeRow>;

/** Preview of a table of homes. */
export const homeTable = named('HomeTable', {
  headings: list(text()),
  map: list(text()),
  fields: list(shape({ key: text(), label: text(), needed: flag() })),
  missing: list(text()),
  sample: list(list(text())),
  /** Rows of the table, and those of them that were taken; null when it was only looked at. */
  rows: whole(),
  taken: whole().nullable(),
});
/** The type of `homeTable`. */
export type HomeTable = yup.InferType<typeof homeTable>;

/** How many letters were recorded as sent. */
export const lettersWent = named('LettersWent', { done: whole() });
