/**
 * Days counted from other days: "3 business days after acceptance", "10 days before entry", with the reason for the
 * result. A day is ISO 8601 in the deal's time zone; hours and daylight saving time do not matter.
 */
import { listWords } from '../text/names';
import { dayAt, numberOf, weekdayAt, weekdayOf } from './days';

/** How a day is counted from another. */
export interface Count {
  /** Number of days; 0 for the day itself. */
  n: number;
  /** Calendar days, or business days. */
  unit: 'days' | 'business_days';
  way: 'after' | 'before';
  /**
   * Whether a day on a weekend or holiday is moved to a business day: to the next one when counted forward, to the
   * one before when counted backward, so that it is never too late.
   */
  roll: boolean;
}

/** A day with the reason for it. */
export interface DueDay {
  day: string;
  /** "Fri, Dec 4: 3 business days after Mon, Nov 30, no holiday between". */
  why: string;
}

/** Maximum number of days that can be counted. */
export const MOST_DAYS = 3_660;

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const isWeekend = (n: number) => weekdayAt(n) >= 5;

/**
 * First year a day of a deal may be in. The year 9999 stands for "no end" in other programs and leaves no room to
 * count from it.
 */
export const FIRST_YEAR = 1900;
/** Last year a day of a deal may be in; `dueDay` refuses later ones. */
export const LAST_YEAR = 2200;

/** Returns whether a text is a day that can be counted from: ISO 8601, in the years 1900 to 2200. */
export function isDay(text: string): boolean {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const year = Number(text.slice(0, 4));
  if (year < FIRST_YEAR || year > LAST_YEAR) return false;
  const n = numberOf(text);
  // February has no 30th: what is made of the number must be what was written.
  return Number.isFinite(n) && dayAt(n) === text;
}

/** Returns whether a day is a business day: no Saturday, no Sunday, no holiday of the firm. */
export function isBusinessDay(day: string, holidays: readonly string[]): boolean {
  return !isWeekend(numberOf(day)) && !holidays.includes(day);
}

/**
 * Returns a day in few words: "Fri, Dec 4", with its year if it differs from that of `beside`. `day` is a
 * day of the calendar.
 */
export function shortDay(day: string, beside = day): string {
  const at = new Date(`${day}T00:00:00Z`);
  const year = day.slice(0, 4) === beside.slice(0, 4) ? '' : `, ${day.slice(0, 4)}`;
  return `${WEEKDAYS[weekdayOf(day)] ?? ''}, ${MONTHS[at.getUTCMonth()] ?? ''} ${at.getUTCDate()}${year}`;
}

/** Returns a count in words: "3 business days after", "10 days before"; "on" for the day itself. */
export function countWords({ n, unit, way }: Pick<Count, 'n' | 'unit' | 'way'>): string {
  if (n === 0) return way === 'after' ? 'on' : 'by';
  return `${n} ${unit === 'days' ? '' : 'business '}${n === 1 ? 'day' : 'days'} ${way}`;
}

/**
 * Returns the day counted from another.
 *
 * @param from      ISO day
 * @param holidays  ISO days on which the firm does not work
 * @throws RangeError if `from` is not a day, or `n` is not an integer from 0 to `MOST_DAYS`
 * @example dueDay({ n: 3, unit: 'business_days', way: 'after', roll: true }, '2026-11-30', []).day // '2026-12-03'
 */
export function dueDay(count: Count, from: string, holidays: readonly string[]): DueDay {
  if (!isDay(from)) throw new RangeError(`“${from}” is not a day`);
  if (!Number.isInteger(count.n) || count.n < 0 || count.n > MOST_DAYS) throw new RangeError(`${count.n} days`);
  const off = new Set(holidays);
  const step = count.way === 'after' ? 1 : -1;
  const works = (n: number) => !isWeekend(n) && !off.has(dayAt(n));
  const said = `${countWords(count)} ${shortDay(from)}`;
  if (count.unit === 'business_days' && count.n > 0) {
    const passed: number[] = [];
    let at = numberOf(from);
    for (let left = count.n; left > 0;) {
      at += step;
      if (works(at)) left--;
      // A weekend goes without saying; a holiday on one takes no day away.
      else if (!isWeekend(at)) passed.push(at);
    }
    return { day: dayAt(at), why: `${shortDay(dayAt(at), from)}: ${said}, ${holidayWords(passed, from)}` };
  }
  const counted = numberOf(from) + step * count.n;
  let at = counted;
  // Holidays without any gap would have no answer: after a year the day is taken as it is.
  if (count.roll) for (let i = 0; i < 366 && !works(at); i++) at += step;
  if (!works(at) && count.roll) at = counted;
  const day = dayAt(at);
  if (at === counted) return { day, why: `${shortDay(day, from)}: ${said}` };
  const fell = isWeekend(counted) ? 'a weekend' : 'a holiday';
  const moved = step > 0 ? 'the next business day' : 'the last business day before it';
  const first =
    count.n === 0 ? `${shortDay(from)} is ${fell}` : `${said} is ${shortDay(dayAt(counted), from)}, ${fell}`;
  return { day, why: `${shortDay(day, from)}: ${first}; this is ${moved}` };
}

function holidayWords(passed: number[], from: string): string {
  if (!passed.length) return 'no holiday between';
  const days = [...passed].sort((a, b) => a - b).map((n) => shortDay(dayAt(n), from));
  if (passed.length > 3) return `${passed.length} holidays between`;
  return passed.length === 1 ? `${days[0] ?? ''} is a holiday` : `${listWords(days)} are holidays`;
}
