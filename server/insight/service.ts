/** Reports: sums for charts and tables. */
import { addDays, dayOf, weekdayOf } from '@gatepath/core/calendar';
import type { InsightView } from '@gatepath/contract';
import type { Context } from '../context';
import * as q from './queries';

const WEEKS = 13;
/**
 * Days to look back: about half a year is long enough to compare sides and short enough to be about today's people.
 */
const DAYS = 182;
const MONTHS = 12;

const tenths = (days: number) => Math.round(days * 10) / 10;

/** Returns what the charts show. Weeks and months in which nothing happened are included. */
export async function insightView(ctx: Context): Promise<InsightView> {
  const db = ctx.database.pool;
  const zone = (await ctx.firm())?.time_zone ?? 'UTC';
  const now = ctx.clock.now();
  const today = dayOf(now.toISOString(), zone);
  const monday = addDays(today, -weekdayOf(today));
  const mondays = Array.from({ length: WEEKS }, (_, i) => addDays(monday, (i - WEEKS + 1) * 7));
  const months = monthsTo(today);
  const weeks = await q.weeksSince(db, mondays[0] ?? monday, zone);
  const through = await q.throughByMonth(db, `${months[0] ?? today.slice(0, 7)}-01`, zone);
  const since = new Date(now.getTime() - DAYS * 86_400_000).toISOString();
  return {
    weeks: mondays.map((week) => weeks.find((w) => w.week === week) ?? { week, sent: 0, executed: 0, lapsed: 0 }),
    waits: (await q.waitsBySide(db, since)).map((w) => ({ ...w, median: tenths(w.median), slow: tenths(w.slow) })),
    holdUps: (await q.holdUpsBySide(db)).map((h) => ({
      side: h.side,
      n: h.n,
      longest: Math.max(0, Math.floor((now.getTime() - Date.parse(h.since)) / 86_400_000)),
    })),
    through: months.map((month) => {
      const known = through.find((m) => m.month === month);
      return { month, n: known?.n ?? 0, median: known ? tenths(known.median) : null };
    }),
  };
}

/** Returns the last months up to the current one, for example "2026-11". */
function monthsTo(today: string): string[] {
  const [year = 0, month = 1] = today.split('-').map(Number);
  return Array.from({ length: MONTHS }, (_, i) => {
    const at = year * 12 + (month - 1) - (MONTHS - 1 - i);
    return `${Math.floor(at / 12)}-${String((at % 12) + 1).padStart(2, '0')}`;
  });
}
