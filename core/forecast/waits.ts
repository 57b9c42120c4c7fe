/**
 * How long people take, learned from a firm's past: by side and by what they do. Little data leans on what lies above
 * it (all of the act, all of the firm), and a firm without a past on figures that stand here.
 */
import { dayOf, leftOfDay } from '../calendar';
import type { Act } from '../packet/types';
import type { Side } from '../text/sides';
import { studentCdf } from './student';

/** Somebody who was asked, and when they were done. Instants in UTC. */
export interface Wait {
  side: Side;
  act: Act;
  askedAt: string;
  doneAt: string;
}

/** What is believed of the logarithm of a time: a normal whose mean and spread are uncertain (normal-inverse-gamma). */
interface Belief {
  mean: number;
  /** How many observations the mean is worth. */
  weight: number;
  /** Half the observations that the spread is worth, and half their sum of squares. */
  alpha: number;
  beta: number;
}

/**
 * What is believed before a firm has any past: half are done within about a day and a half, nine in ten within some ten
 * days, and firms differ a lot.
 */
const USUAL: Belief = { mean: Math.log(1.4), weight: 1.6, alpha: 2.6, beta: 2.3 };
/** How much a group leans on what lies above it, in observations. */
const LEANS = 4;
/** How much people do on a day of the week, from Monday, before anything is known; a mean day is 1. */
const USUAL_WEEK = [1.2, 1.2, 1.2, 1.15, 1.1, 0.65, 0.5];
/** How many people's days the usual week is worth. */
const WEEK_LEANS = 30;
const DAY_MS = 86_400_000;
/** A quarter of an hour: less is not told apart. */
const LEAST = 1 / 96;

/** The day of the week, from 0 for Monday. */
export const weekdayOf = (day: string): number => (new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7;

/** The part of its day that has passed at an instant, in a zone. */
export function partOfDayPassed(instant: string, zone: string): number {
  // A day of 23 or 25 hours is a day.
  return Math.min(1, Math.max(0, 1 - leftOfDay(instant, zone) / DAY_MS));
}

/** What a firm's past says of how long people take. */
export interface Pace {
  /** How much is done on each day of the week, from Monday; a mean day is 1. */
  week: number[];
  /** How many waits it rests on. */
  from: number;
  beliefs: ReadonlyMap<string, Belief>;
  all: Belief;
  /** Chances that were worked out of these beliefs. */
  tables: Map<string, Float64Array>;
}

const keyOf = (side: Side, act: Act) => `${act} ${side}`;

/** What is believed after some times were seen. */
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

/** A belief as the beginning for a group beneath it: the same middle and spread, worth only so many observations. */
function lean(above: Belief): Belief {
  const alpha = Math.min(above.alpha, USUAL.alpha + LEANS / 2);
  return {
    mean: above.mean,
    weight: Math.min(above.weight, LEANS),
    alpha,
    beta: (above.beta / above.alpha) * alpha,
  };
}

/** How much of a week's doing lies between two instants, in mean days. */
export function doingBetween(week: readonly number[], from: string, to: string, zone: string): number {
  const first = dayOf(from, zone);
  const last = dayOf(to, zone);
  const on = (day: string) => week[weekdayOf(day)] ?? 1;
  if (first === last) return Math.max(LEAST, on(first) * (partOfDayPassed(to, zone) - partOfDayPassed(from, zone)));
  const days = Math.round((Date.parse(last) - Date.parse(first)) / DAY_MS);
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
 * The chance that somebody is done within so much doing (mean days) after being asked.
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

/** Where chances are worked out, as logarithms of mean days: from a quarter of an hour to more than a year. */
const FIRST = Math.log(LEAST);
const STEP = 0.05;
const POINTS = 224;

/** The chances of somebody by how much doing it takes; worked out once, asked for thousands of times. */
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
