/**
 * Arithmetic of days. A day is ISO 8601 (2026-11-23); hours, time zones and daylight saving time do not matter. Plain
 * arithmetic, because every rule counts up to a year of days one by one.
 */
const DAY_MS = 86_400_000;

/** Returns the number of days since January 1, 1970; NaN for what is not a day. */
export const numberOf = (day: string): number => Date.parse(`${day}T00:00:00Z`) / DAY_MS;

/** Returns the day of a number. @throws RangeError beyond the years 0 to 9999, which ISO days cannot express */
export function dayAt(n: number): string {
  const text = new Date(n * DAY_MS).toISOString();
  if (text.length !== 'YYYY-MM-DDTHH:MM:SS.mmmZ'.length) throw new RangeError('a day beyond the year 9999');
  return text.slice(0, 10);
}

/** Returns the day of the week of a numbered day, 0 for Monday; 1970 began on a Thursday. */
export const weekdayAt = (n: number): number => (((n + 3) % 7) + 7) % 7;

/** Returns the day of the week, 0 for Monday. */
export const weekdayOf = (day: string): number => weekdayAt(numberOf(day));

/**
 * Returns the day a number of days later, or earlier if negative.
 *
 * @throws RangeError if `day` is not a day, or the result is beyond the years 0 to 9999
 */
export const addDays = (day: string, days: number): string => dayAt(numberOf(day) + days);

/** Returns the number of days from one day to another; negative if the other is earlier. */
export const daysBetween = (from: string, to: string): number => numberOf(to) - numberOf(from);
