/** SQL about jobs besides pg-boss's own, and about failures. */
import type { Db } from '../db/pool';

/** Work that was given up. */
export interface FailureRow {
  queue: string;
  thing: string;
  words: string;
  detail: string;
  tries: number;
  failed_at: Date;
}

/** Records a failure. */
export async function saveFailure(db: Db, f: Omit<FailureRow, 'failed_at'>): Promise<void> {
  await db.query(
    `insert into work_failure (queue, thing, words, detail, tries, failed_at) values ($1, $2, $3, $4, $5, now())
     on conflict (queue, thing) do update set words = excluded.words, detail = excluded.detail, tries = excluded.tries,
       failed_at = excluded.failed_at`,
    [f.queue, f.thing, f.words, f.detail, f.tries],
  );
}

/** Deletes a failure, because the job is tried again. */
export async function deleteFailure(db: Db, queue: string, thing: string): Promise<boolean> {
  return (
    ((await db.query('delete from work_failure where queue = $1 and thing = $2', [queue, thing])).rowCount ?? 0) > 0
  );
}

/** Returns the newest failures. */
export async function failures(db: Db, most: number): Promise<FailureRow[]> {
  return (await db.query<FailureRow>('select * from work_failure order by failed_at desc limit $1', [most])).rows;
}

/** Returns taken jobs to the queue without counting a try. */
export async function giveBack(db: Db, ids: string[], inSeconds = 0): Promise<void> {
  if (!ids.length) return;
  await db.query(
    `update pgboss.job set state = 'retry', start_after = now() + $2 * interval '1 second', started_on = null
     where id = any($1::uuid[]) and state = 'active'`,
    [ids, inSeconds],
  );
}

/**
 * Returns whether new jobs of a kind are due now or in a moment. A job returned because the same subject is running
 * counts.
 */
export async function isWaiting(db: Db, name: string): Promise<boolean> {
  const r = await db.query(
    `select 1 from pgboss.job where name = $1 and state < 'active' and start_after <= now() + interval '1 second' and retry_count = 0 limit 1`,
    [name],
  );
  return r.rows.length > 0;
}

/** A job that was taken and not finished. */
export interface Expired {
  name: string;
  /** What it was about. */
  thing: string;
  /** Whether that was its last try. */
  failed: boolean;
  tries: number;
}

/** Counts a try of jobs that were taken and not finished, and requeues them; after their last try they have failed. */
async function expireWhere(db: Db, condition: string, values: unknown[] = []): Promise<Expired[]> {
  const r = await db.query<Expired>(
    `update pgboss.job set
       state = case when retry_count >= retry_limit then 'failed'::pgboss.job_state else 'retry' end,
       completed_on = case when retry_count >= retry_limit then now() end,
       retry_count = least(retry_count + 1, retry_limit), start_after = now(), started_on = null
     where state = 'active' and ${condition}
     returning name, data->>'id' as thing, state = 'failed' as failed, retry_count + 1 as tries`,
    values,
  );
  return r.rows;
}

/** The same for all taken jobs: for the only server of a database, when it starts again. */
export const expireAll = (db: Db): Promise<Expired[]> => expireWhere(db, 'true');

/** Renews the leases of running jobs. */
export async function renew(db: Db, ids: string[]): Promise<void> {
  if (!ids.length) return;
  await db.query(`update pgboss.job set started_on = now() where id = any($1::uuid[]) and state = 'active'`, [ids]);
}

/**
 * Requeues jobs whose lease has expired, and deletes jobs that ended more than a day ago.
 *
 * @param lease  seconds since it was taken or renewed
 */
export async function expire(db: Db, lease: number): Promise<Expired[]> {
  const expired = await expireWhere(db, `started_on < now() - $1 * interval '1 second'`, [lease]);
  await db.query(
    `delete from pgboss.job where state in ('completed', 'failed', 'cancelled') and completed_on < now() - interval '1 day'`,
  );
  return expired;
}
