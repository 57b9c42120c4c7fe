/** Statements about jobs beside those of pg-boss, and about work that was given up. */
import type { Db } from '../db/pool';

export interface FailureRow {
  queue: string;
  thing: string;
  words: string;
  detail: string;
  tries: number;
  failed_at: Date;
}

/** Notes work that was given up. */
export async function saveFailure(db: Db, f: Omit<FailureRow, 'failed_at'>): Promise<void> {
  await db.query(
    `insert into work_failure (queue, thing, words, detail, tries, failed_at) values ($1, $2, $3, $4, $5, now())
     on conflict (queue, thing) do update set words = excluded.words, detail = excluded.detail, tries = excluded.tries,
       failed_at = excluded.failed_at`,
    [f.queue, f.thing, f.words, f.detail, f.tries],
  );
}

/** Forgets work that was given up, since it is tried again. */
export async function forgetFailure(db: Db, queue: string, thing: string): Promise<boolean> {
  return (
    ((await db.query('delete from work_failure where queue = $1 and thing = $2', [queue, thing])).rowCount ?? 0) > 0
  );
}

/** The newest so many things that were given up. */
export async function failures(db: Db, most: number): Promise<FailureRow[]> {
  return (await db.query<FailureRow>('select * from work_failure order by failed_at desc limit $1', [most])).rows;
}

/** Jobs that were taken and not done go back to be taken, without counting as a try. */
export async function giveBack(db: Db, ids: string[], inSeconds = 0): Promise<void> {
  if (!ids.length) return;
  await db.query(
    `update pgboss.job set state = 'retry', start_after = now() + $2 * interval '1 second', started_on = null
     where id = any($1::uuid[]) and state = 'active'`,
    [ids, inSeconds],
  );
}

/** Gives back all work that was taken: for a server that is alone on its database and starts again. */
export async function giveBackAll(db: Db): Promise<void> {
  await db.query(
    `update pgboss.job set state = 'retry', start_after = now(), started_on = null where state = 'active'`,
  );
}

/** Whether there is fresh work of a kind to be done now, or in a moment: given back because the same is being done. */
export async function isWaiting(db: Db, name: string): Promise<boolean> {
  const r = await db.query(
    `select 1 from pgboss.job where name = $1 and state < 'active' and start_after <= now() + interval '1 second' and retry_count = 0 limit 1`,
    [name],
  );
  return r.rows.length > 0;
}

/** Jobs whose lease has run out are anybody's again; what was done long ago goes. @returns the queues that have work */
export async function expire(db: Db): Promise<string[]> {
  const r = await db.query<{ name: string }>(
    `update pgboss.job set state = 'retry', start_after = now(), retry_count = least(retry_count + 1, retry_limit), started_on = null
     where state = 'active' and started_on + expire_in < now() returning name`,
  );
  await db.query(
    `delete from pgboss.job where state in ('completed', 'failed', 'cancelled') and completed_on < now() - interval '1 day'`,
  );
  return [...new Set(r.rows.map((x) => x.name))];
}
