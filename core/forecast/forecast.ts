/** The day by which a packet on its way will likely be executed, from what is still ahead on its path. */
import { addDays, dayOf } from '../calendar';
import { holdsGate } from '../packet/acts';
import type { PacketParty } from '../packet/types';
import { partyOf, progressOf, isNeeded, type PacketState } from '../routing';
import { chanceWithin, doingBetween, partOfDayPassed, weekdayOf, type Pace } from './waits';

export interface Forecast {
  /** The day by which it is executed half of the time. */
  likely: string;
  /** The day by which it is executed nine times in ten. */
  slow: string;
  /** How many waits of the firm's past it rests on. */
  from: number;
}

/** A firm with fewer waits behind it is told that usual figures are used too. */
export const FEW_WAITS = 20;
/** Days looked ahead; what takes longer is told as the last of them. */
const HORIZON = 200;
/** From here on a chance is as good as sure. */
const SURE = 0.9995;
/** When somebody at a gate ahead is asked, as part of the day on which the gate before passes. */
const MIDDAY = 0.5;

/** Somebody who holds a gate, and since when they have been asked; null for not yet. */
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

/** The open gate, with those of earlier ones who were asked again, and the gates after it. */
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

/** By each day from today, how likely the open gate is passed. */
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

/** By each day, how likely a gate is passed that opens when the one before it passes. */
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

/** A chance at the end of each day, of the doing that lies before it. */
function byDays(weekday: number, restOfFirst: number, pace: Pace, chance: (doing: number) => number): number[] {
  let doing = 0;
  let last = 0;
  return Array.from({ length: HORIZON }, (_, i) => {
    doing += (pace.week[(weekday + i) % 7] ?? 1) * (i ? 1 : restOfFirst);
    // What is as good as sure is not worked out day after day.
    if (last < SURE) last = chance(doing);
    return last;
  });
}

/** All of several, or any one of them, by each day. */
function together(people: number[][], any: boolean): number[] {
  return Array.from({ length: HORIZON }, (_, d) =>
    any ? 1 - people.reduce((a, p) => a * (1 - (p[d] ?? 1)), 1) : people.reduce((a, p) => a * (p[d] ?? 1), 1),
  );
}

/** From "by each day" to "on each day". */
const mass = (by: number[]) => by.map((x, i) => Math.max(0, x - (i ? (by[i - 1] ?? 0) : 0)));

/** The day by whose end the chance is nearest to what is wanted. */
function dayNearest(on: number[], wanted: number): number {
  let sum = 0;
  for (let d = 0; d < on.length; d++) {
    const next = sum + (on[d] ?? 0);
    if (next >= wanted) return d > 0 && wanted - sum < next - wanted ? d - 1 : d;
    sum = next;
  }
  return on.length - 1;
}
