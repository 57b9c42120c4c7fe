/**
 * Days and deadlines. A day is ISO 8601 (2026-11-23) in the deal's time zone and lasts until
 * its end; an instant is ISO 8601 in UTC. Holidays are the firm's own list.
 */
import { DateTime } from 'luxon';
import { dueDay, isBusinessDay } from './due';

export { countWords, dueDay, isBusinessDay, isDay, MOST_DAYS, shortDay, type Count, type DueDay } from './due';

/** When a packet ends by itself, and whom it reminds when. */
export interface Schedule {
  /** Last day for signing; null for none. */
  lastDay: string | null;
  /** Days before the last one on which those who are waited for are warned; 0 for no warning. */
  warnDays: number;
  nudge: NudgePlan | null;
  /** When what is begun goes out; absent for the moment it is sent. */
  sending?: SendingTime | null;
}

/** When a party that does not act is nudged. */
export interface NudgePlan {
  /** Days from being asked to the first nudge. */
  first: number;
  /** Days from one nudge to the next. */
  every: number;
  /** How many at most, to each person. */
  most: number;
  /** Never on a weekend or a holiday: such a nudge waits for the next business day. */
  businessDays: boolean;
  /** What the sender says in a nudge of their own, with tags; absent for nothing. */
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

/** The day an instant falls on in a zone. */
export function dayOf(instant: string, zone: string): string {
  return DateTime.fromISO(instant, { zone }).toISODate()!;
}

/** When something begun now goes: so many business days from today, at a full hour of the deal's own time. */
export interface SendingTime {
  /** 0 for the same day, or the next business day where the hour has passed. */
  days: number;
  hour: number;
}

/** The day and hour that a sending time means for what is begun at an instant. */
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

/** The first instant after a day: what is due on it is late from then on. */
export function endOfDay(day: string, zone: string): string {
  return DateTime.fromISO(day, { zone }).plus({ days: 1 }).startOf('day').toUTC().toISO()!;
}

/** How much of its day is left at an instant, in milliseconds. */
export function leftOfDay(instant: string, zone: string): number {
  const at = DateTime.fromISO(instant, { zone });
  return at.plus({ days: 1 }).startOf('day').toMillis() - at.toMillis();
}

/** A day so many days later (or earlier, when negative). */
export function addDays(day: string, days: number): string {
  return DateTime.fromISO(day, { zone: 'utc' }).plus({ days }).toISODate()!;
}

/** Days from one day to another; negative when the other is earlier. */
export function daysBetween(from: string, to: string): number {
  const at = (d: string) => DateTime.fromISO(d, { zone: 'utc' });
  return Math.round(at(to).diff(at(from), 'days').days);
}

/** The day itself when it is a business day, else the next one. */
export function businessDayFrom(day: string, holidays: readonly string[]): string {
  let at = day;
  // A list of holidays without any gap would have no answer: after a year it is taken as it is.
  for (let i = 0; i < 366 && !isBusinessDay(at, holidays); i++) at = addDays(at, 1);
  return isBusinessDay(at, holidays) ? at : day;
}

/** The morning of a day at which messages go out. */
export function morningOf(day: string, zone: string): string {
  return DateTime.fromISO(day, { zone }).set({ hour: NUDGE_HOUR }).toUTC().toISO()!;
}

/** Whether an hour of a day is there in a zone: a change of the clocks leaves one out. */
export function isHour(day: string, hour: number, zone: string): boolean {
  return DateTime.fromISO(day, { zone }).set({ hour }).hour === hour;
}

/** An hour of a day in a zone, as an instant; one that a change of the clocks leaves out is the next there is. */
export function hourOf(day: string, hour: number, zone: string): string {
  return DateTime.fromISO(day, { zone }).set({ hour }).toUTC().toISO()!;
}

/**
 * The days on which somebody is nudged who was asked at an instant and does nothing. None is
 * after the last day, no two are the same, and the day of the warning needs no nudge too.
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
    // Counted from the day it really went out, so that a moved one does not crowd the next.
    wished = addDays(day, Math.max(1, plan.every));
  }
  const warning = warnDay(schedule);
  return out.filter((d) => d !== warning);
}

/** The day of the warning before a packet lapses; null when there is none. */
export function warnDay(schedule: Schedule): string | null {
  return schedule.lastDay && schedule.warnDays > 0 ? addDays(schedule.lastDay, -schedule.warnDays) : null;
}

/** One date of a packet's future, for the preview before sending. */
export interface PlannedDate {
  what: 'nudge' | 'warning' | 'last_day';
  day: string;
  /** Which nudge it is, from 1. */
  n?: number;
}

/** Every date that follows from a schedule if nobody does anything, in order. */
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
