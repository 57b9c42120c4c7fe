/** Days that a contract counts, worked out by the deal's own calendar. */
import { dueDay, MOST_DAYS, type Count } from '../calendar';
import type { KeyDates } from '../deal';
import type { StatedDay } from './types';

/** A stated day, worked out. */
export interface WorkedOut {
  day: string;
  /** "Tue, Dec 8: 10 days after Sat, Nov 28"; null for a day that is stated as such. */
  why: string | null;
}

/**
 * Returns the day that a contract states.
 *
 * @param dates  the deal's known key dates: a count needs the one it starts from
 * @returns null if that one is not known, or if there is no such day
 */
export function dayOfStated(stated: StatedDay, dates: KeyDates, holidays: readonly string[]): WorkedOut | null {
  if ('day' in stated) return { day: stated.day, why: null };
  const from = dates[stated.from];
  if (!from || !isCount(stated.count)) return null;
  return dueDay(stated.count, from, holidays);
}

const isCount = ({ n }: Count) => Number.isInteger(n) && n >= 0 && n <= MOST_DAYS;
