/** Answers about how it goes: sums over packets, and when one will likely be executed. */
import type * as yup from 'yup';
import { SIDES } from '@gatepath/core/text';
import { calendarDay, flag, list, named, number, oneOf, shape, text, whole } from './answer-fields';

/** Sums over the firm's packets. */
export const insightView = named('Insight', {
  /** By week, each named by its Monday, oldest first. */
  weeks: list(shape({ week: calendarDay(), sent: whole(), executed: whole(), lapsed: whole() })),
  /** Days from being asked to being done over half a year: the median, and what nine in ten stay within. */
  waits: list(shape({ side: oneOf(SIDES), n: whole(), median: number(), slow: number() })),
  /** Whom packets wait for now, and for how many days the longest. */
  holdUps: list(shape({ side: oneOf(SIDES), n: whole(), longest: whole() })),
  /** Days from draft to executed by month ("2026-11"), oldest first; null where none was. */
  through: list(shape({ month: text(), n: whole(), median: number().nullable() })),
});
/** The type of `insightView`. */
export type InsightView = yup.InferType<typeof insightView>;

/** When a packet will probably be executed. */
export const forecast = named('Forecast', {
  /** The day by which it is executed half of the time, and nine times in ten. */
  likely: calendarDay(),
  slow: calendarDay(),
  /** How many of the firm's waits it rests on, and whether those are so few that usual figures speak too. */
  from: whole(),
  few: flag(),
});
/** The type of `forecast`. */
export type ForecastView = yup.InferType<typeof forecast>;
