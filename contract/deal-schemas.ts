/** Requests about deals: facts and days, rules, waivers, what stands on the first screen. */
import * as yup from 'yup';
import {
  CONDITION_LIMITS,
  DEAL_KINDS,
  DEAL_STATUSES,
  FACT_TYPES,
  FOR_WHOM,
  KEY_DATES,
  MOST_FACT_TEXT,
  RULE_LIMITS,
  type Condition,
  type FactValue,
} from '@gatepath/core/deal';
import { DOCUMENT_TYPES } from '@gatepath/core/reading';
import { isOneOf } from '@gatepath/core/sure';
import { isClean, SIDES } from '@gatepath/core/text';
import { day, email, id, line, object } from './fields';

const FACT_KEY = /^[a-z][\w.]{0,59}$/;
/** Facts a patch may name at once. */
const MOST_FACTS = 120;

const isValue = (v: unknown): v is FactValue =>
  typeof v === 'boolean' ||
  (typeof v === 'number' && Number.isFinite(v)) ||
  (typeof v === 'string' && v.length <= MOST_FACT_TEXT && isClean(v));

/**
 * Returns the schema of values of facts by their keys; null for "not known". The firm's own facts decide whether a
 * value fits its fact.
 */
export const givenFacts = () =>
  yup
    .mixed<Record<string, FactValue | null>>((v): v is Record<string, FactValue | null> => {
      if (typeof v !== 'object' || v === null || Array.isArray(v)) return false;
      const entries = Object.entries(v);
      return entries.length <= MOST_FACTS && entries.every(([k, x]) => FACT_KEY.test(k) && (x === null || isValue(x)));
    })
    .meta({ jsonSchema: { type: 'object' } });

const dates = object(Object.fromEntries(KEY_DATES.map((k) => [k, day().nullable()])));

/** Returns the schema of the days of a deal by their names; null removes a day. */
export const dateValues = () =>
  yup
    .mixed<Partial<Record<(typeof KEY_DATES)[number], string | null>>>(
      (v): v is object => typeof v === 'object' && v !== null && dates.isValidSync(v, { strict: true }),
    )
    .meta({ jsonSchema: { type: 'object' } });

/** Orders of the list of deals. */
export const DEAL_ORDERS = ['opened', 'address', 'goal'] as const;
/** What is asked of the list of deals, beside where a page begins. */
export const dealFilters = {
  search: line(80),
  kind: yup.string().oneOf(DEAL_KINDS),
  forWhom: yup.string().oneOf(FOR_WHOM),
  /** One way of standing, or `open` for all that are not over. */
  status: yup.string().oneOf([...DEAL_STATUSES, 'open'] as const),
  tag: line(40),
  /** Who works on it. */
  memberId: id(),
  /** With something that is late, or due within the week. */
  due: yup.string().oneOf(['late', 'week'] as const),
  /** With a packet that waits for somebody; at this gate, from 1; for somebody of this side. */
  waits: yup.boolean(),
  gate: yup.number().integer().min(1).max(60),
  holdUp: yup.string().oneOf(SIDES),
  archived: yup.boolean(),
  order: yup.string().oneOf(DEAL_ORDERS),
};
/** Query of the list of deals: filters, order and page. */
export const dealsQuery = object({
  ...dealFilters,
  after: id(),
  limit: yup.number().integer().min(1).max(100).default(20),
});
/** The type of `dealsQuery`. */
export type DealsQuery = yup.InferType<typeof dealsQuery>;

/** A list to be found again under a name. */
export const viewBody = object({
  name: line(60).min(1, 'Give it a name.').required(),
  shared: yup.boolean().default(false),
  query: object(dealFilters).required(),
});
/** The type of `viewBody`. */
export type ViewBody = yup.InferType<typeof viewBody>;

/** One act on several deals in hand. */
export const dealsActBody = object({
  dealIds: yup.array(id().required()).min(1).max(100).required(),
  act: yup
    .string()
    .oneOf(['nudge', 'tag', 'give', 'archive', 'take_out'] as const)
    .required(),
  tag: line(40),
  memberId: id(),
});
/** The type of `dealsActBody`. */
export type DealsActBody = yup.InferType<typeof dealsActBody>;

/** Body of changing a deal; absent fields stay as they are. */
export const dealPatch = object({
  kind: yup.string().oneOf(DEAL_KINDS),
  forWhom: yup.string().oneOf(FOR_WHOM),
  address: line(160).min(1, 'Give the street address.'),
  city: line(120),
  status: yup.string().oneOf(DEAL_STATUSES),
  facts: givenFacts(),
  dates: dateValues(),
  tags: yup.array(line(40).min(1).required()).max(20),
  memberIds: yup.array(id().required()).max(60),
  archived: yup.boolean(),
  /** Until when it is kept at the least; null for no day. */
  retainUntil: day().nullable(),
});
/** The type of `dealPatch`. */
export type DealPatch = yup.InferType<typeof dealPatch>;

/** What is done about a statement of a document: the value is as the deal's view has it. */
export const statedBody = object({
  documentId: id().required(),
  field: line(60).required(),
  value: line(MOST_FACT_TEXT).required(),
  act: yup
    .string()
    .oneOf(['accept', 'dismiss'] as const)
    .required(),
});
/** The type of `statedBody`. */
export type StatedBody = yup.InferType<typeof statedBody>;

/** Body of waiving a requirement. */
export const waiverBody = object({ reason: line(300).required('Say why it is waived.') });
/** The type of `waiverBody`. */
export type WaiverBody = yup.InferType<typeof waiverBody>;

/**
 * Returns the schema of a condition. Only its outer form is checked here; the core checks the rest, to a limited depth,
 * and says where a condition is wrong.
 */
const condition = () =>
  yup
    .mixed<Condition>((v): v is Condition => typeof v === 'object' && v !== null && !Array.isArray(v))
    .nullable()
    .defined()
    .meta({ jsonSchema: { type: ['object', 'null'], description: `at most ${CONDITION_LIMITS.depth} deep` } });

/** When a document is due, counted from a key date. */
export const term = object({
  n: yup.number().integer().min(0).required(),
  unit: yup.string().oneOf(['days', 'business_days']).required(),
  way: yup.string().oneOf(['after', 'before']).required(),
  roll: yup.boolean().required(),
  from: yup.string().oneOf(KEY_DATES).required(),
});

/** Body of saving a rule. */
export const ruleBody = object({
  kinds: yup.array(yup.string().oneOf(DEAL_KINDS).required()).max(DEAL_KINDS.length).required(),
  when: condition(),
  paper: yup.string().oneOf(DOCUMENT_TYPES).required('Choose the type of paper it calls for.'),
  title: line(RULE_LIMITS.title).required('Say what the paper is called.'),
  signers: yup.array(yup.string().oneOf(SIDES).required()).max(SIDES.length).required(),
  due: term.nullable().default(null),
  reason: line(RULE_LIMITS.reason).required('Say why, in a few words.'),
  on: yup.boolean().default(true),
});
/** The type of `ruleBody`. */
export type RuleBody = yup.InferType<typeof ruleBody>;

/** A rule that is still being written: anything may be missing from it, and what is wrong is told in words. */
export const ruleTrialBody = object({
  kinds: yup.array(yup.string().max(40).required()).max(10),
  when: condition().optional(),
  paper: yup.string().max(60),
  title: yup.string().max(1_000),
  signers: yup.array(yup.string().max(40).required()).max(40),
  due: yup
    .mixed<object>((v): v is object => typeof v === 'object')
    .nullable()
    .meta({ jsonSchema: { type: ['object', 'null'] } }),
  reason: yup.string().max(1_000),
});
/** The type of `ruleTrialBody`. */
export type RuleTrialBody = yup.InferType<typeof ruleTrialBody>;

/** Several rules turned on or off at once. */
export const rulesOnBody = object({
  ids: yup.array(id().required()).max(RULE_LIMITS.rules).required(),
  on: yup.boolean().required(),
});
/** The type of `rulesOnBody`. */
export type RulesOnBody = yup.InferType<typeof rulesOnBody>;

/** Facts a firm adds to those of the house. */
export const MOST_OWN_FACTS = 60;
/** Body of replacing the firm's own facts. */
export const ownFactsBody = object({
  facts: yup
    .array(
      object({
        key: yup
          .string()
          .matches(/^own\.[\w-]{1,50}$/, 'is not the key of a fact of your own')
          .required(),
        label: line(60).required('Give the fact a name.'),
        type: yup.string().oneOf(FACT_TYPES).required(),
        unit: line(20),
        options: yup
          .array(
            object({
              value: yup
                .string()
                .matches(/^[\w-]{1,60}$/)
                .required(),
              label: line(60).required(),
            }).required(),
          )
          .max(20),
        kinds: yup
          .array(yup.string().oneOf(DEAL_KINDS).required())
          .min(1, 'Choose at least one kind of deal.')
          .required(),
      }).required(),
    )
    .max(MOST_OWN_FACTS)
    .test('keys', 'names a fact twice', (list) => new Set(list?.map((f) => f.key)).size === (list?.length ?? 0))
    .test(
      'options',
      'has a choice with nothing to choose',
      (list) => !list?.some((f) => isOneOf(['choice'], f.type) && !f.options?.length),
    )
    .required(),
});
/** The type of `ownFactsBody`. */
export type OwnFactsBody = yup.InferType<typeof ownFactsBody>;

/** A part of a deal's activity: at most so many lines, those before a moment. */
export const activityQuery = object({
  /** The `next` of the part before. */
  before: line(120),
  partyId: id(),
  documentId: id(),
  limit: yup.number().integer().min(1).max(200).default(40),
});
/** The type of `activityQuery`. */
export type ActivityQuery = yup.InferType<typeof activityQuery>;

/** That the first screen was seen up to a moment. */
export const seenBody = object({ until: line(40).required() });

/** Body of correcting a person of the address book. */
export const personBody = object({
  name: line(120).required('Give a name.'),
  email: email().default(''),
  phone: line(40).nullable().default(null),
  company: line(160).default(''),
});
/** The type of `personBody`. */
export type PersonBody = yup.InferType<typeof personBody>;

/** The other person that this one is. */
export const mergeBody = object({ personId: id().required('Choose the other person.') });

/** What can be found by its words. */
export const FOUND_KINDS = ['deal', 'person', 'paper', 'packet'] as const;

/** Query of the search. */
export const findQuery = object({ q: line(200).default('') });
