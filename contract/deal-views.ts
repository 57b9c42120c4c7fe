/** Answers about deals: what they need, how ready they are, what is next; rules; the first screen. */
import * as yup from 'yup';
import {
  DEAL_KINDS,
  FACT_TYPES,
  KEY_DATES,
  type Asked,
  type Condition,
  type Corner,
  type FactDef,
  type FactValue,
  type KeyDates,
  type Moved,
  type Next,
  type NextAct,
  type Readiness,
  type Requirement,
  type Rule,
} from '@gatepath/core/deal';
import { ACTS } from '@gatepath/core/packet';
import { DOCUMENT_TYPES } from '@gatepath/core/reading';
import { SIDES } from '@gatepath/core/text';
import { byName, calendarDay, flag, list, moment, named, number, of, oneOf, shape, text, whole } from './answer-fields';
import { choiceBy } from './choice';
import { source } from './core-answers';

/** A member's saved lists of deals, and shared ones. */
export const savedViews = named('SavedViews', {
  items: list(
    shape({
      id: text(),
      name: text(),
      shared: flag(),
      /** Whether the one who asks keeps it, and may let it go. */
      own: flag(),
      by: text(),
      query: byName<string | number | boolean>(
        yup
          .mixed<string | number | boolean>((v): v is string | number | boolean =>
            ['string', 'number', 'boolean'].includes(typeof v),
          )
          .defined()
          .meta({ jsonSchema: { oneOf: [{ type: 'string' }, { type: 'number' }, { type: 'boolean' }] } }),
      ),
    }),
  ),
});
/** The type of `savedViews`. */
export type SavedViews = yup.InferType<typeof savedViews>;

/** Tags to choose from, those of most deals first. */
export const dealTags = named('DealTags', { tags: list(text()) });
/** The type of `dealTags`. */
export type DealTags = yup.InferType<typeof dealTags>;

/** What became of an act on several deals. */
export const dealsActed = named('DealsActed', {
  done: whole(),
  /** Those with which nothing was done, and why. */
  left: list(shape({ dealId: text(), address: text(), why: text() })),
});
/** The type of `dealsActed`. */
export type DealsActed = yup.InferType<typeof dealsActed>;

const value = (): yup.Schema<FactValue> =>
  yup
    .mixed<FactValue>((v): v is FactValue => ['boolean', 'number', 'string'].includes(typeof v))
    .defined()
    .meta({ jsonSchema: { oneOf: [{ type: 'boolean' }, { type: 'number' }, { type: 'string' }] } });
/** Returns the schema of facts by their keys; unknown facts are absent. */
export const factValues = () => byName<FactValue>(value());
/** Returns the schema of the days of a deal by their names. */
export const keyDates = () =>
  yup
    .mixed<KeyDates>((v): v is KeyDates => Object.values(v ?? {}).every((x) => calendarDay().isValidSync(x)))
    .defined()
    .meta({ values: calendarDay() });

const CORNERS = ['needed', 'draft', 'out', 'executed', 'waived'] as const satisfies readonly Corner[];

/** A requirement of a deal. */
export const requirement = of<Requirement>()(
  named('Requirement', {
    ruleId: text(),
    paper: oneOf(DOCUMENT_TYPES),
    title: text(),
    reason: text(),
    state: oneOf(['open', 'met', 'waived']),
    corner: oneOf(CORNERS),
    words: text(),
    due: shape({ day: calendarDay(), why: text() }).nullable(),
    dueHangsOn: oneOf(KEY_DATES).nullable(),
    documentId: text().nullable(),
    packetId: text().nullable(),
    signers: list(oneOf(SIDES)),
    waiver: shape({ reason: text(), by: text(), at: moment() }).nullable(),
  }),
);
/** An unknown fact on which rules depend. */
export const asked = of<Asked>()(shape({ fact: text(), papers: list(text()) }));
/** A deal's readiness. */
export const readiness = of<Readiness>()(
  named('Readiness', { met: whole(), of: whole(), late: list(text()), before: list(text()), sentence: text() }),
);
/** A due day that a change moved. */
export const moved = of<Moved>()(
  shape({ title: text(), from: calendarDay().nullable(), to: calendarDay().nullable() }),
);

const party = { packetId: text(), partyId: text() };
/** How a next act is carried out, by `do`. */
export const nextAct = choiceBy('do', {
  answer: { ...party, questionId: text(), text: text() },
  sign: party,
  host: party,
  nudge: party,
  address: party,
  send: { packetId: text() },
  prepare: { ruleId: text(), documentId: text(), name: text() },
  bring: { ruleId: text() },
  fact: { fact: text() },
  date: { date: oneOf(KEY_DATES) },
  stated: { documentId: text() },
});
nextAct satisfies yup.ISchema<NextAct>;
const nextFields = {
  id: text(),
  act: nextAct,
  title: text(),
  detail: text(),
  due: calendarDay().nullable(),
  since: calendarDay().nullable(),
  weight: number(),
};
/** A next act. */
export const next = of<Next>()(named('Next', nextFields));

/** Definition of a fact. */
export const factDef = of<FactDef>()(
  named('FactDef', {
    key: text(),
    label: text(),
    type: oneOf(FACT_TYPES),
    unit: yup.string().optional(),
    options: yup.array(shape({ value: text(), label: text() })).optional(),
    kinds: list(oneOf(DEAL_KINDS)),
  }),
);

const condition = yup
  .mixed<Condition>((v): v is Condition => typeof v === 'object')
  .nullable()
  .defined()
  .meta({ jsonSchema: { type: ['object', 'null'] } });

const ruleFields = {
  id: text(),
  kinds: list(oneOf(DEAL_KINDS)),
  when: condition,
  paper: oneOf(DOCUMENT_TYPES),
  title: text(),
  signers: list(oneOf(SIDES)),
  due: shape({
    n: whole(),
    unit: oneOf(['days', 'business_days']),
    way: oneOf(['after', 'before']),
    roll: flag(),
    from: oneOf(KEY_DATES),
  }).nullable(),
  reason: text(),
  on: flag(),
  sample: flag(),
};
/** A rule of the firm. */
export const rule = of<Rule>()(named('Rule', ruleFields));

/** The firm's rules, and the facts they may ask about beside the house's. */
export const rulesView = named('Rules', { rules: list(rule), ownFacts: list(factDef) });
/** The type of `rulesView`. */
export type RulesView = yup.InferType<typeof rulesView>;

/** What a rule would do if it were kept as it is. */
export const ruleTrial = named('RuleTrial', {
  faults: list(
    shape({ part: oneOf(['kinds', 'when', 'paper', 'title', 'signers', 'due', 'reason']), at: text(), words: text() }),
  ),
  /** Open deals of its kinds. */
  of: whole(),
  /** In how many of them it would ask for the paper, and in how many a fact it hangs on is not known. */
  asks: whole(),
  unknown: whole(),
  /** The first of those, with what it would say there. */
  deals: list(shape({ id: text(), address: text(), due: calendarDay().nullable(), hangsOn: list(text()) })),
});
/** The type of `ruleTrial`. */
export type RuleTrial = yup.InferType<typeof ruleTrial>;

/** A page of a deal's activity. */
export const activityView = named('DealActivity', {
  items: list(
    shape({
      id: text(),
      at: moment(),
      sentence: text(),
      packetId: text().nullable(),
      packetName: text().nullable(),
      partyId: text().nullable(),
      documentId: text().nullable(),
    }),
  ),
  /** Hand back as `before` for the next part; null at the end. */
  next: text().nullable(),
});
/** The type of `activityView`. */
export type ActivityView = yup.InferType<typeof activityView>;

/** A deal as things on the first screen name it. */
const where = { dealId: text(), address: text() };
/** The first screen of a day. */
export const todayView = named('Today', {
  /** Where the firm is. */
  today: calendarDay(),
  sentence: text(),
  /** Open deals and packets under way, in the member's deals. */
  deals: whole(),
  packets: whole(),
  /** Acts, most pressing first; `more` stand behind them. */
  waiting: shape({
    items: list(shape({ ...where, ...nextFields })),
    /** How many press: are due within the week, or somebody waits for them. */
    pressing: whole(),
    more: whole(),
  }),
  /** What is due: the late ones, and the coming seven days. */
  week: shape({
    items: list(
      shape({
        ...where,
        id: text(),
        day: calendarDay(),
        title: text(),
        what: oneOf(['paper', 'date', 'last_day', 'term']),
        packetId: text().nullable(),
      }),
    ),
    more: whole(),
  }),
  /** Packets that stand still, longest first. */
  still: shape({
    items: list(
      shape({
        ...where,
        packetId: text(),
        name: text(),
        since: calendarDay(),
        days: whole(),
        partyId: text(),
        who: text(),
        words: text(),
        phone: text().nullable(),
        /** What can be done about it. */
        act: oneOf(['nudge', 'address', 'host', 'sign']),
        gate: whole(),
        gates: list(list(text())),
        parties: list(shape({ id: text(), name: text(), ink: whole(), act: oneOf(ACTS), done: flag() })),
      }),
    ),
    more: whole(),
  }),
  /** What was executed since the member last looked. */
  through: shape({
    since: moment().nullable(),
    items: list(shape({ ...where, packetId: text(), name: text(), at: moment(), detail: text() })),
    more: whole(),
  }),
});
/** The type of `todayView`. */
export type TodayView = yup.InferType<typeof todayView>;

/** The secret address of a calendar; null when it has none. */
export const feedView = named('Feed', { url: text().nullable() });
/** The type of `feedView`. */
export type FeedView = yup.InferType<typeof feedView>;

/** Something a document states otherwise than its deal: another price, day or person. */
export const stated = named('Stated', {
  documentId: text(),
  /** The document's name. */
  name: text(),
  /** As in an abstract: `fact.price`, `date.closing`, `side.buyer`. */
  field: text(),
  value: text(),
  /** "closing Fri, Jan 15; the deal says Tue, Jan 12". */
  words: text(),
  /** For a counted day: how it was counted. */
  why: text().nullable(),
  source,
});
