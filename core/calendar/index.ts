/**
 * Days and deadlines. A day is ISO 8601 (2026-11-23) in the deal's time zone and lasts until its end; an instant is
 * ISO 8601 in UTC. Holidays are the firm's own list.
 */
import { DateTime } from 'luxon';
import { addDays } from './days';
import { dueDay, isBusinessDay } from './due';

export { addDays, daysBetween, weekdayOf } from './days';
export { countWords, dueDay, isBusinessDay, isDay, MOST_DAYS, shortDay, type Count, type DueDay } from './due';

/** When a packet lapses, and when people are nudged and warned. */
export interface Schedule {
  /** Last day for signing; null for none. */
  lastDay: string | null;
  /** Days before the last day on which people who are waited for are warned; 0 for no warning. */
  warnDays: number;
  nudge: NudgePlan | null;
  /** When the packet is sent; absent to send it at once. */
  sending?: SendingTime | null;
}

/** When a party that does not act is nudged. */
export interface NudgePlan {
  /** Days from being asked to the first nudge. */
  first: number;
  /** Days from one nudge to the next. */
  every: number;
  /** Maximum number of nudges per person. */
  most: number;
  /** Never on a weekend or holiday: such a nudge waits for the next business day. */
  businessDays: boolean;
  /** The sender's own words in a nudge, with tags; absent for none. */
  words?: string;
}

/** A schedule without a last day, warnings or nudges. */
export const NO_SCHEDULE: Schedule = { lastDay: null, warnDays: 0, nudge: null };
/** The schedule a new packet starts with. */
export const USUAL_SCHEDULE: Schedule = {
  lastDay: null,
  warnDays: 1,
  nudge: { first: 2, every: 2, most: 3, businessDays: true },
};

/** The hour of the day, local time, at which nudges and warnings go out. */
export const NUDGE_HOUR = 9;

/** Returns the day of an instant in a time zone. */
export function dayOf(instant: string, zone: string): string {
  return DateTime.fromISO(instant, { zone }).toISODate()!;
}

/**
 * When something is sent that is begun now: a number of business days from today, at a full hour in the deal's time
 * zone.
 */
export interface SendingTime {
  /** 0 for the same day, or the next business day if the hour has passed. */
  days: number;
  hour: number;
}

/** Returns the day and hour of a sending time for something begun at an instant. */
export function sendingDay(
  { days, hour }: SendingTime,
  now: string,
  zone: string,
  holidays: readonly string[],
): { day: string; hour: number } {
  const today = dayOf(now, zone);
  const after = (n: number) => dueDay({ n, unit: 'business_days', way: 'after', roll: true }, today, holidays).day;
  const day = days ? after(days) : businessDayFrom(today, holidays);
  return { day: hourOf(day, hour, zone) > now ? day : after(days + 1), hour };
}

/** Returns the first instant after a day: what is due on it is late from then on. */
export function endOfDay(day: string, zone: string): string {
  return DateTime.fromISO(day, { zone }).plus({ days: 1 }).startOf('day').toUTC().toISO()!;
}

/** Returns the time from an instant to the end of its day in a time zone, in milliseconds. */
export function leftOfDay(instant: string, zone: string): number {
  const at = DateTime.fromISO(instant, { zone });
  return at.plus({ days: 1 }).startOf('day').toMillis() - at.toMillis();
}

/** Returns the day if it is a business day, otherwise the next one. */
export function businessDayFrom(day: string, holidays: readonly string[]): string {
  let at = day;
  // A list of holidays without any gap would have no answer: after a year it is taken as it is.
  for (let i = 0; i < 366 && !isBusinessDay(at, holidays); i++) at = addDays(at, 1);
  return isBusinessDay(at, holidays) ? at : day;
}

/** Returns the instant in the morning of a day at which messages are sent. */
export function morningOf(day: string, zone: string): string {
  return DateTime.fromISO(day, { zone }).set({ hour: NUDGE_HOUR }).toUTC().toISO()!;
}

/** Returns whether an hour of a day exists in a time zone: daylight saving time skips one. */
export function isHour(day: string, hour: number, zone: string): boolean {
  return DateTime.fromISO(day, { zone }).set({ hour }).hour === hour;
}

/**
 * Returns an hour of a day in a time zone as an instant; for an hour that daylight saving time skips, the next one.
 */
export function hourOf(day: string, hour: number, zone: string): string {
  return DateTime.fromISO(day, { zone }).set({ hour }).toUTC().toISO()!;
}

/**
 * Returns the days on which a person is nudged who was asked at an instant and does nothing. None is after the last
 * day, no two are the same, and the day of the warning has no nudge.
 */
export function nudgeDays(schedule: Schedule, askedAt: string, zone: string, holidays: readonly string[]): string[] {
  const plan = schedule.nudge;
  if (!plan) return [];
  const out: string[] = [];
  const asked = dayOf(askedAt, zone);
  let wished = addDays(asked, Math.max(1, plan.first));
  while (out.length < plan.most) {
    const day = plan.businessDays ? businessDayFrom(wished, holidays) : wished;
    if (schedule.lastDay && day > schedule.lastDay) break;
    out.push(day);
    // Counted from the day it was really sent, so that a delayed one is not followed too soon by the next.
    wished = addDays(day, Math.max(1, plan.every));
  }
  const warning = warnDay(schedule);
  return out.filter((d) => d !== warning);
}

/** Returns the day of the warning before a packet lapses; null if there is none. */
export function warnDay(schedule: Schedule): string | null {
  return schedule.lastDay && schedule.warnDays > 0 ? addDays(schedule.lastDay, -schedule.warnDays) : null;
}

/** A future date of a packet, for the preview before sending. */
export interface PlannedDate {
  what: 'nudge' | 'warning' | 'last_day';
  day: string;
  /** Which nudge it is, from 1. */
  n?: number;
}

/** Returns every date that follows from a schedule if nobody does anything, in order. */
export function plannedDates(
  schedule: Schedule,
  askedAt: string,
  zone: string,
  holidays: readonly string[],
): PlannedDate[] {
  const warning = warnDay(schedule);
  const dates: PlannedDate[] = [
    ...nudgeDays(schedule, askedAt, zone, holidays).map((day, i) => ({ what: 'nudge' as const, day, n: i + 1 })),
    ...(warning && warning > dayOf(askedAt, zone) ? [{ what: 'warning' as const, day: warning }] : []),
    ...(schedule.lastDay ? [{ what: 'last_day' as const, day: schedule.lastDay }] : []),
  ];
  return dates.sort((a, b) => a.day.localeCompare(b.day));
}
