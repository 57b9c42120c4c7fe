/** SQL about jobs, and about those that were given up. */
import type { Db } from '../db/pool';

/** A job that a server has taken. */
export interface JobRow {
  id: string;
  thing: string;
  /** Tries that failed. */
  tries: number;
  most_tries: number;
}

/**
 * Enqueues a job, unless a new one already waits for the same thing: one is enough. The waiting one is held back until the
 * transaction ends, because a runner that took it earlier would not see what the transaction changed. The lock is shared:
 * transactions that enqueue the same things in another order do not wait for each other.
 *
 * @param inSeconds  how long it waits at least
 */
export async function insertJob(
  db: Db,
  job: { id: string; name: string; thing: string; mostTries: number; inSeconds: number },
): Promise<void> {
  for (;;) {
    const inserted = await db.query(
      `insert into job (id, name, thing, state, most_tries, start_after)
       values ($1, $2, $3, 'new', $4, now() + $5 * interval '1 second')
       on conflict (name, thing) where state = 'new' do nothing`,
      [job.id, job.name, job.thing, job.mostTries, job.inSeconds],
    );
    if (inserted.rowCount) return;
    const waiting = await db.query(`select 1 from job where name = $1 and thing = $2 and state = 'new' for key share`, [
      job.name,
      job.thing,
    ]);
    // Otherwise a runner has taken it between the two statements.
    if (waiting.rows.length) return;
  }
}

/** Takes jobs of a kind that are due, the oldest first, for one runner; others pass them over. */
export async function takeJobs(db: Db, name: string, runner: string, most: number): Promise<JobRow[]> {
  const r = await db.query<JobRow>(
    `update job set state = 'running', runner = $2, leased_at = now()
     where id in (
       select id from job where name = $1 and state <> 'running' and start_after <= now()
       order by id limit $3 for update skip locked)
     returning id, thing, tries, most_tries`,
    [name, runner, most],
  );
  return r.rows;
}

/** Deletes a job that ended, unless its runner has lost it meanwhile. */
export async function deleteJob(db: Db, id: string, runner: string): Promise<void> {
  await db.query('delete from job where id = $1 and runner = $2', [id, runner]);
}

/** Returns taken jobs to the queue without counting a try. */
export async function giveBack(db: Db, ids: string[], runner: string, inSeconds = 0): Promise<void> {
  if (!ids.length) return;
  await db.query(
    `update job set state = 'retry', start_after = now() + $3 * interval '1 second', runner = null, leased_at = null
     where id = any($1::text[]) and runner = $2`,
    [ids, runner, inSeconds],
  );
}

/**
 * Returns a taken job to the queue because another one of the same thing is running. If a new one waits as well, the taken
 * one is deleted: one is enough, however many transactions ask for it meanwhile.
 */
export async function waitForOther(db: Db, id: string, runner: string, inSeconds: number): Promise<void> {
  await db.query(
    `with mine as (select id, name, thing from job where id = $1 and runner = $2),
     gone as (
       delete from job where id in (select id from mine) and tries = 0 and exists (
         select 1 from job o join mine on o.name = mine.name and o.thing = mine.thing where o.state = 'new')
       returning id)
     update job set state = case when tries = 0 then 'new' else 'retry' end,
       start_after = now() + $3 * interval '1 second', runner = null, leased_at = null
     where id in (select id from mine) and id not in (select id from gone)`,
    [id, runner, inSeconds],
  );
}

/** Counts a try of a job and returns it to the queue. */
export async function retryJob(db: Db, id: string, runner: string, inSeconds: number): Promise<void> {
  await db.query(
    `update job set state = 'retry', tries = tries + 1, start_after = now() + $3 * interval '1 second', runner = null,
       leased_at = null
     where id = $1 and runner = $2`,
    [id, runner, inSeconds],
  );
}

/**
 * Returns whether new jobs of a kind are due now or in a moment. A job returned because the same subject is running
 * counts.
 */
export async function isWaiting(db: Db, name: string): Promise<boolean> {
  const r = await db.query(
    `select 1 from job where name = $1 and state <> 'running' and start_after <= now() + interval '1 second' and tries = 0
     limit 1`,
    [name],
  );
  return r.rows.length > 0;
}

/** Renews the leases of running jobs. */
export async function renew(db: Db, ids: string[], runner: string): Promise<void> {
  if (!ids.length) return;
  await db.query('update job set leased_at = now() where id = any($1::text[]) and runner = $2', [ids, runner]);
}

/** A job that was taken and not finished. */
export interface Expired {
  id: string;
  name: string;
  thing: string;
  /** Whether that was its last try. */
  failed: boolean;
  tries: number;
}

/**
 * Counts a try of jobs whose lease has expired, and requeues them. Those without tries left are leased to the caller, who
 * records the failure and deletes them; if it is stopped in between, their lease expires again.
 *
 * @param lease  seconds since they were taken or renewed; 0 for all taken jobs
 */
export async function expire(db: Db, lease: number, runner: string): Promise<Expired[]> {
  const r = await db.query<Expired>(
    `with over as (
       select id from job where state = 'running' and leased_at <= now() - $1 * interval '1 second' for update skip locked),
     last as (
       update job set runner = $2, leased_at = now() where id in (select id from over) and tries + 1 >= most_tries
       returning id, name, thing, tries + 1 as tries),
     again as (
       update job set state = 'retry', tries = tries + 1, start_after = now(), runner = null, leased_at = null
       where id in (select id from over) and tries + 1 < most_tries
       returning id, name, thing, tries)
     select id, name, thing, true as failed, tries from last
     union all select id, name, thing, false, tries from again`,
    [lease, runner],
  );
  return r.rows;
}

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

/** Deletes the recorded failure of a job. @returns false if there was none */
export async function deleteFailure(db: Db, queue: string, thing: string): Promise<boolean> {
  return (
    ((await db.query('delete from work_failure where queue = $1 and thing = $2', [queue, thing])).rowCount ?? 0) > 0
  );
}

/** Returns the newest failures. */
export async function failures(db: Db, most: number): Promise<FailureRow[]> {
  return (await db.query<FailureRow>('select * from work_failure order by failed_at desc limit $1', [most])).rows;
}
