/** Estimating by which day a packet will be executed, from what is ahead on its path. */
import { addDays, dayOf, weekdayOf } from '../calendar';
import { holdsGate } from '../packet/acts';
import type { PacketParty } from '../packet/types';
import { partyOf, progressOf, isNeeded, type PacketState } from '../routing';
import { chanceWithin, doingBetween, partOfDayPassed, type Pace } from './waits';

/** When a packet will probably be executed. */
export interface Forecast {
  /** The day by which it is executed with 50% probability. */
  likely: string;
  /** The day by which it is executed with 90% probability. */
  slow: string;
  /** Number of past waits it is based on. */
  from: number;
}

/** With fewer waits, the estimate is said to use typical times too. */
export const FEW_WAITS = 20;
/** Maximum number of days ahead; longer times are reported as the last one. */
const HORIZON = 200;
/** Probability treated as certain. */
const SURE = 0.9995;
/** When a person at a later gate is asked, as a share of the day on which the gate before is done. */
const MIDDAY = 0.5;

/** A person who holds a gate, and since when they were asked; null for not yet. */
interface Holder {
  party: PacketParty;
  askedAt: string | null;
}

/**
 * Works out when a packet will be executed, day by day: for each day a gate may open, how likely those at it are done by
 * each later one. Whoever has been asked for a while and is not done is not done sooner for it.
 *
 * @param now the instant it is asked for, in UTC
 * @returns null for a packet that is not on its way
 */
export function forecastOf(state: PacketState, pace: Pace, now: string): Forecast | null {
  if (state.status !== 'at_gate') return null;
  const zone = state.plan.timeZone;
  const today = dayOf(now, zone);
  const gates = gatesAhead(state);
  const [open, ...later] = gates;
  if (!open) return null;
  let passed = mass(openGateDone(open, pace, now, zone));
  const days = weekdaysFrom(today);
  for (const gate of later) passed = laterGateDone(gate, passed, days, pace);
  return {
    likely: addDays(today, dayNearest(passed, 0.5)),
    slow: addDays(today, dayNearest(passed, 0.9)),
    from: pace.from,
  };
}

interface GateAhead {
  holders: Holder[];
  any: boolean;
}

/** Returns the open gate, with people of earlier gates who were asked again, and the gates after it. */
function gatesAhead(state: PacketState): GateAhead[] {
  const { gates } = state.plan;
  const holdersOf = (ids: string[], only: (id: string) => boolean): Holder[] =>
    ids.flatMap((id) => {
      const party = partyOf(state.plan, id);
      const s = progressOf(state, id);
      if (!party || !holdsGate(party) || s.status === 'done' || !isNeeded(s.status) || !only(id)) return [];
      return [{ party, askedAt: s.askedAt }];
    });
  const again = holdersOf(
    gates.slice(0, state.gate).flatMap((g) => g.partyIds),
    (id) => progressOf(state, id).again,
  );
  const ahead = gates
    .slice(state.gate)
    .map((g): GateAhead => ({ holders: holdersOf(g.partyIds, () => true), any: g.need === 'any' }));
  const [open, ...later] = ahead;
  if (!open) return [];
  // Everybody asked again holds the open gate too, also where any one at it is enough.
  const first: GateAhead = again.length ? { holders: [...again, ...open.holders], any: false } : open;
  return [first, ...later.filter((g) => g.holders.length)];
}

/** Returns for each day from today the probability that the open gate is done. */
function openGateDone(gate: GateAhead, pace: Pace, now: string, zone: string): number[] {
  const rest = 1 - partOfDayPassed(now, zone);
  const first = weekdayOf(dayOf(now, zone));
  const perHolder = gate.holders.map(({ party, askedAt }) => {
    const asked = askedAt ?? now;
    const soFar = Date.parse(asked) < Date.parse(now) ? doingBetween(pace.week, asked, now, zone) : 0;
    const missed = 1 - chanceWithin(pace, party, soFar);
    return byDays(first, rest, pace, (doing) =>
      missed > 1e-9 ? (chanceWithin(pace, party, soFar + doing) - (1 - missed)) / missed : doing > 0 ? 1 : 0,
    );
  });
  return together(perHolder, gate.any);
}

/** Returns for each day the probability that a later gate is done, given those of the gate before. */
function laterGateDone(gate: GateAhead, before: number[], days: number[], pace: Pace): number[] {
  const byWeekday = Array.from({ length: 7 }, (_, weekday) =>
    mass(
      together(
        gate.holders.map(({ party }) => byDays(weekday, 1 - MIDDAY, pace, (doing) => chanceWithin(pace, party, doing))),
        gate.any,
      ),
    ),
  );
  const out = new Array<number>(HORIZON).fill(0);
  before.forEach((chance, opens) => {
    if (chance < 1e-9) return;
    const takes = byWeekday[days[opens] ?? 0] ?? [];
    for (let d = 0; opens + d < HORIZON; d++) out[opens + d] = (out[opens + d] ?? 0) + chance * (takes[d] ?? 0);
  });
  return out;
}

const weekdaysFrom = (day: string) => {
  const first = weekdayOf(day);
  return Array.from({ length: HORIZON }, (_, i) => (first + i) % 7);
};

/** Returns a probability at the end of each day, as a function of the activity until then. */
function byDays(weekday: number, restOfFirst: number, pace: Pace, chance: (doing: number) => number): number[] {
  let doing = 0;
  let last = 0;
  return Array.from({ length: HORIZON }, (_, i) => {
    doing += (pace.week[(weekday + i) % 7] ?? 1) * (i ? 1 : restOfFirst);
    // What is nearly certain is not computed day by day.
    if (last < SURE) last = chance(doing);
    return last;
  });
}

/** Combines people: all of them, or any one of them, by each day. */
function together(people: number[][], any: boolean): number[] {
  return Array.from({ length: HORIZON }, (_, d) =>
    any ? 1 - people.reduce((a, p) => a * (1 - (p[d] ?? 1)), 1) : people.reduce((a, p) => a * (p[d] ?? 1), 1),
  );
}

/** Turns cumulative probabilities into those of single days. */
const mass = (by: number[]) => by.map((x, i) => Math.max(0, x - (i ? (by[i - 1] ?? 0) : 0)));

/** Returns the day whose cumulative probability is nearest to the wanted one. */
function dayNearest(on: number[], wanted: number): number {
  let sum = 0;
  for (let d = 0; d < on.length; d++) {
    const next = sum + (on[d] ?? 0);
    if (next >= wanted) return d > 0 && wanted - sum < next - wanted ? d - 1 : d;
    sum = next;
  }
  return on.length - 1;
}
