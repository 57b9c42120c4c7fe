/** SQL for reports: packets sent and executed, how long people took, and whom packets wait for. */
import type { Act } from '@gatepath/core/packet';
import type { Wait } from '@gatepath/core/forecast';
import type { Side } from '@gatepath/core/text';
import type { Db } from '../db/pool';

/** Packets of one week. */
export interface WeekRow {
  /** The Monday of the week. */
  week: string;
  sent: number;
  executed: number;
  lapsed: number;
}

/** Returns packets sent, executed and lapsed by week in a time zone, from a day on. Weeks without any are left out. */
export async function weeksSince(db: Db, day: string, zone: string): Promise<WeekRow[]> {
  const r = await db.query<WeekRow>(
    `select to_char(week, 'YYYY-MM-DD') as week, sum(sent)::int as sent, sum(executed)::int as executed, sum(lapsed)::int as lapsed
     from (
       select date_trunc('week', sent_at at time zone $2) as week, 1 as sent, 0 as executed, 0 as lapsed
         from packet where sent_at >= ($1::date)::timestamp at time zone $2
       union all
       select date_trunc('week', ended_at at time zone $2), 0, (status = 'executed')::int, (status = 'lapsed')::int
         from packet where ended_at >= ($1::date)::timestamp at time zone $2
     ) x group by week order by week`,
    [day, zone],
  );
  return r.rows;
}

/** How long people of a side took. */
export interface SideWait {
  side: Side;
  n: number;
  /** Days from being asked to being done: the median, and the 90th percentile. */
  median: number;
  slow: number;
}

/** Returns how long people took who were done since an instant, by side. */
export async function waitsBySide(db: Db, since: string): Promise<SideWait[]> {
  const r = await db.query<SideWait>(
    `select side, count(*)::int as n,
       percentile_cont(0.5) within group (order by days)::float8 as median,
       percentile_cont(0.9) within group (order by days)::float8 as slow
     from (
       select side, extract(epoch from done_at::timestamptz - asked_at::timestamptz) / 86400 as days
       from packet_party where done_at >= $1 and asked_at is not null and side is not null and act not in ('copy', 'receive')
     ) x group by side order by n desc, side`,
    [since],
  );
  return r.rows;
}

/** The number of people of a side that packets wait for. */
export interface SideHoldUp {
  side: Side;
  n: number;
  /** When the person waited for longest was asked. */
  since: string;
}

/** Returns whom packets wait for now, by side. */
export async function holdUpsBySide(db: Db): Promise<SideHoldUp[]> {
  const r = await db.query<SideHoldUp>(
    `select pp.side, count(*)::int as n, min(pp.asked_at) as since
     from packet p join packet_party pp on pp.packet_id = p.id and pp.gate <= p.gate
     where p.status = 'at_gate' and pp.status in ('asked', 'opened', 'in_progress') and pp.side is not null and pp.act not in ('copy', 'receive')
     group by pp.side order by n desc, pp.side`,
  );
  return r.rows;
}

/** How long packets executed in a month took. */
export interface MonthRow {
  /** For example "2026-11". */
  month: string;
  n: number;
  /** The median number of days from the draft to the end. */
  median: number;
}

/**
 * Returns how long packets took from the draft to being executed, by the month in which they were executed, from a
 * day on.
 */
export async function throughByMonth(db: Db, day: string, zone: string): Promise<MonthRow[]> {
  const r = await db.query<MonthRow>(
    `select to_char(ended_at at time zone $2, 'YYYY-MM') as month, count(*)::int as n,
       percentile_cont(0.5) within group (order by extract(epoch from ended_at - created_at) / 86400)::float8 as median
     from packet where status = 'executed' and ended_at >= ($1::date)::timestamp at time zone $2
     group by 1 order by 1`,
    [day, zone],
  );
  return r.rows;
}

/** Returns the latest waits of people who were asked and are done, of those who hold a gate. */
export async function latestWaits(db: Db, limit: number): Promise<Wait[]> {
  const r = await db.query<{ side: Side; act: Act; asked_at: string; done_at: string }>(
    `select side, act, asked_at, done_at from packet_party
     where done_at is not null and asked_at is not null and side is not null and act not in ('copy', 'receive')
     order by done_at desc limit $1`,
    [limit],
  );
  return r.rows.map((w) => ({ side: w.side, act: w.act, askedAt: w.asked_at, doneAt: w.done_at }));
}
