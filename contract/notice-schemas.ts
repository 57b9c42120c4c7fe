/** Notices: one kit's papers to many households, and the rules a firm holds them to. */
import * as yup from 'yup';
import { MOST_HOMES, MOST_NOTICE_RULES } from '@gatepath/core/notices';
import { LETTER_WAYS } from '@gatepath/core/packet';
import { dealFilters, givenFacts } from './deal-schemas';
import { day, id, line, object } from './fields';

/** Homes by their deals, or all those a list of deals would show. */
const homes = {
  dealIds: yup.array(id().required()).max(MOST_HOMES).default([]),
  filter: object(dealFilters).optional().default(undefined),
};

/** Body of starting a notice. */
export const noticeBody = object({
  kitId: id().required('Choose a kit.'),
  /** Absent for the name of the kit. */
  name: line(120),
  ...homes,
});
/** The type of `noticeBody`. */
export type NoticeBody = yup.InferType<typeof noticeBody>;

/** Body of adding homes to a notice. */
export const homesBody = object(homes);
/** The type of `homesBody`. */
export type HomesBody = yup.InferType<typeof homesBody>;

/** Body of changing a notice. */
export const noticePatch = object({
  name: line(120).min(1, 'The notice needs a name.'),
  /** What its papers say for every household, where its row says nothing else; null takes a value away. */
  values: givenFacts(),
  /** The rule it is held to; null for none. */
  ruleId: id().nullable(),
  /** Whether nothing goes while a row is wrong. */
  allOrNone: yup.boolean(),
});
/** The type of `noticePatch`. */
export type NoticePatch = yup.InferType<typeof noticePatch>;

/** Body of changing one household's row. */
export const noticeRowPatch = object({
  values: givenFacts(),
  /** Another home than the one that was found. */
  dealId: id(),
  leftOut: yup.boolean(),
});
/** The type of `noticeRowPatch`. */
export type NoticeRowPatch = yup.InferType<typeof noticeRowPatch>;

/** Filters of a notice's rows. */
export const NOTICE_SHOWS = ['all', 'wrong', 'ready', 'gone', 'letters'] as const;
/** Query of a notice's rows. */
export const noticeRowsQuery = object({
  show: yup.string().oneOf(NOTICE_SHOWS).default('all'),
  /** The place of the last row of the page before. */
  after: yup.number().integer().min(0).max(1_000_000),
  limit: yup.number().integer().min(1).max(100).default(50),
});
/** The type of `noticeRowsQuery`. */
export type NoticeRowsQuery = yup.InferType<typeof noticeRowsQuery>;

/** Query of the list of notices. */
export const noticesQuery = object({
  after: id(),
  limit: yup.number().integer().min(1).max(100).default(40),
});
/** The type of `noticesQuery`. */
export type NoticesQuery = yup.InferType<typeof noticesQuery>;

/** Query of previewing or adding a table of homes. */
export const homeTableQuery = object({
  /** The field of each column, parted by commas; left out, they are guessed by their headings. */
  map: yup.string().max(8_000),
  take: yup.boolean().default(false),
});
/** The type of `homeTableQuery`. */
export type HomeTableQuery = yup.InferType<typeof homeTableQuery>;

/** Body of recording that letters were sent. */
export const lettersBody = object({
  /** Rows whose letters went; empty for all that want one. */
  rowIds: yup.array(id().required()).max(MOST_HOMES).default([]),
  day: day().required('Say on which day they were sent.'),
  way: yup.string().oneOf(LETTER_WAYS).required('Say how they went.'),
});
/** The type of `lettersBody`. */
export type LettersBody = yup.InferType<typeof lettersBody>;

const after = object({
  n: yup
    .number()
    .integer()
    .min(0, 'Give 0 days or more.')
    .max(365, 'Give at most 365 days.')
    .required('Give a number of days.'),
  unit: yup
    .string()
    .oneOf(['days', 'business_days'] as const)
    .required(),
});
/** Body of saving the firm's rules for notices. */
export const noticeRulesBody = object({
  rules: yup
    .array(
      object({
        id: id().required(),
        name: line(60).min(1, 'Give the rule a name.').required('Give the rule a name.'),
        day: id().nullable().default(null),
        term: after.required(),
        delivery: object({ link: after.required(), post: after.required(), hand: after.required() }).required(),
      }).required(),
    )
    .max(MOST_NOTICE_RULES)
    .required(),
});
/** The type of `noticeRulesBody`. */
export type NoticeRulesBody = yup.InferType<typeof noticeRulesBody>;
