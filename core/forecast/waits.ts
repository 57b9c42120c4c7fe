/**
 * How long people take, learned from a firm's past by side and act. Small groups are shrunk toward larger ones (all
 * of the act, all of the firm), and a firm without a past toward fixed values.
 */
import { daysBetween, dayOf, leftOfDay, weekdayOf } from '../calendar';
import type { Act } from '../packet/types';
import type { Side } from '../text/sides';
import { studentCdf } from './student';

/** A person who was asked, and when they were done. Instants in UTC. */
export interface Wait {
  side: Side;
  act: Act;
  askedAt: string;
  doneAt: string;
}

/** Distribution of the logarithm of a time: normal, with uncertain mean and spread (normal-inverse-gamma). */
interface Belief {
  mean: number;
  /** Number of observations the mean is worth. */
  weight: number;
  /** `alpha`: half the observations the spread is worth; `beta`: half their sum of squares. */
  alpha: number;
  beta: number;
}

/**
 * The prior before any past: half are done within about a day and a half, nine in ten within some ten days, and firms
 * differ a lot.
 */
const USUAL: Belief = { mean: Math.log(1.4), weight: 1.6, alpha: 2.6, beta: 2.3 };
/** How strongly a group is shrunk toward the larger one, in observations. */
const LEANS = 4;
/** Prior activity by day of the week, from Monday; an average day is 1. */
const USUAL_WEEK = [1.2, 1.2, 1.2, 1.15, 1.1, 0.65, 0.5];
/** Number of person-days the prior week is worth. */
const WEEK_LEANS = 30;
const DAY_MS = 86_400_000;
/** Shortest distinguishable time, in days: a quarter of an hour. */
const LEAST = 1 / 96;

/** Returns the share of its day that has passed at an instant, in a time zone. */
export function partOfDayPassed(instant: string, zone: string): number {
  // A day of 23 or 25 hours is a day.
  return Math.min(1, Math.max(0, 1 - leftOfDay(instant, zone) / DAY_MS));
}

/** What a firm's past says about how long people take. */
export interface Pace {
  /** Activity by day of the week, from Monday; an average day is 1. */
  week: number[];
  /** Number of waits it is based on. */
  from: number;
  beliefs: ReadonlyMap<string, Belief>;
  all: Belief;
  /** Cached probabilities. */
  tables: Map<string, Float64Array>;
}

const keyOf = (side: Side, act: Act) => `${act} ${side}`;

/** Returns the distribution after observing some times. */
function learn(before: Belief, logs: readonly number[]): Belief {
  const n = logs.length;
  if (!n) return before;
  const mean = logs.reduce((a, x) => a + x, 0) / n;
  const squares = logs.reduce((a, x) => a + (x - mean) ** 2, 0);
  const weight = before.weight + n;
  return {
    mean: (before.weight * before.mean + n * mean) / weight,
    weight,
    alpha: before.alpha + n / 2,
    beta: before.beta + squares / 2 + (before.weight * n * (mean - before.mean) ** 2) / (2 * weight),
  };
}

/** Returns a distribution as prior for a smaller group: same center and spread, worth only `LEANS` observations. */
function lean(above: Belief): Belief {
  const alpha = Math.min(above.alpha, USUAL.alpha + LEANS / 2);
  return {
    mean: above.mean,
    weight: Math.min(above.weight, LEANS),
    alpha,
    beta: (above.beta / above.alpha) * alpha,
  };
}

/** Returns how much activity lies between two instants, in average days. */
export function doingBetween(week: readonly number[], from: string, to: string, zone: string): number {
  const first = dayOf(from, zone);
  const last = dayOf(to, zone);
  const on = (day: string) => week[weekdayOf(day)] ?? 1;
  if (first === last) return Math.max(LEAST, on(first) * (partOfDayPassed(to, zone) - partOfDayPassed(from, zone)));
  const days = daysBetween(first, last);
  let sum = on(first) * (1 - partOfDayPassed(from, zone)) + on(last) * partOfDayPassed(to, zone);
  // Whole weeks add up to seven, whatever their days are like.
  const whole = Math.max(0, days - 1);
  sum += Math.floor(whole / 7) * 7;
  const start = weekdayOf(first);
  for (let i = 0; i < whole % 7; i++) sum += week[(start + 1 + i) % 7] ?? 1;
  return Math.max(LEAST, sum);
}

/** Learns how long people take from those who were asked and are done. */
export function paceOf(waits: readonly Wait[], zone: string): Pace {
  const counts = USUAL_WEEK.map((w) => (w * WEEK_LEANS) / 7);
  for (const w of waits) {
    const at = weekdayOf(dayOf(w.doneAt, zone));
    counts[at] = (counts[at] ?? 0) + 1;
  }
  const total = counts.reduce((a, c) => a + c, 0);
  const week = counts.map((c) => (c * 7) / total);
  const logs = waits.map((w) => ({ ...w, log: Math.log(doingBetween(week, w.askedAt, w.doneAt, zone)) }));
  const of = (keep: (w: (typeof logs)[number]) => boolean) => logs.filter(keep).map((w) => w.log);
  const all = learn(
    USUAL,
    of(() => true),
  );
  const beliefs = new Map<string, Belief>();
  for (const act of new Set(waits.map((w) => w.act))) {
    const ofAct = learn(
      lean(all),
      of((w) => w.act === act),
    );
    beliefs.set(act, ofAct);
    for (const side of new Set(waits.filter((w) => w.act === act).map((w) => w.side)))
      beliefs.set(
        keyOf(side, act),
        learn(
          lean(ofAct),
          of((w) => w.act === act && w.side === side),
        ),
      );
  }
  return { week, from: waits.length, beliefs, all, tables: new Map() };
}

/**
 * Returns the probability that a person is done within some activity (average days) after being asked.
 *
 * @example chanceWithin(pace, { side: 'seller', act: 'sign' }, 2)
 */
export function chanceWithin(pace: Pace, who: { side: Side; act: Act }, doing: number): number {
  if (doing <= 0) return 0;
  const table = tableOf(pace, who);
  const at = (Math.log(Math.max(LEAST, doing)) - FIRST) / STEP;
  const i = Math.min(Math.floor(at), POINTS - 2);
  const [low = 1, high = 1] = [table[i], table[i + 1]];
  return low + (high - low) * Math.min(1, at - i);
}

/** Grid of the cached probabilities, as logarithms of average days: from a quarter of an hour to more than a year. */
const FIRST = Math.log(LEAST);
const STEP = 0.05;
const POINTS = 224;

/** Returns a person's cached probabilities by activity: computed once, used thousands of times. */
function tableOf(pace: Pace, { side, act }: { side: Side; act: Act }): Float64Array {
  const key = keyOf(side, act);
  const known = pace.tables.get(key);
  if (known) return known;
  const b = pace.beliefs.get(key) ?? lean(pace.beliefs.get(act) ?? pace.all);
  const spread = Math.sqrt((b.beta * (b.weight + 1)) / (b.alpha * b.weight));
  const table = Float64Array.from({ length: POINTS }, (_, i) =>
    studentCdf((FIRST + i * STEP - b.mean) / spread, 2 * b.alpha),
  );
  pace.tables.set(key, table);
  return table;
}
