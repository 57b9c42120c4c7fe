import type pg from 'pg';

/**
 * Runs `work` in one transaction and returns what it returns; any throw rolls all of it back.
 * `afterCommit` callbacks run once the data is safe: live views are told only of what happened.
 * One that throws is told to `onError`; what was committed stays so.
 */
export async function inTransaction<T>(pool: pg.Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  const after: (() => void)[] = [];
  let result: T;
  let broken: Error | undefined;
  try {
    await client.query('begin');
    result = await work({ db: client, afterCommit: (f) => after.push(f) });
    await client.query('commit');
  } catch (error) {
    // A connection that cannot even roll back is not given back to the others.
    await client.query('rollback').catch((e: Error) => (broken = e));
    throw error;
  } finally {
    client.release(broken);
  }
  for (const f of after)
    try {
      f();
    } catch (error) {
      tellAfterCommit(error);
    }
  return result;
}

let tellAfterCommit: (error: unknown) => void = () => undefined;

/** Names who hears of callbacks that failed after a commit. */
export function onAfterCommitError(tell: (error: unknown) => void): void {
  tellAfterCommit = tell;
}

/** A transaction under way. */
export interface Tx {
  db: pg.PoolClient;
  afterCommit(f: () => void): void;
}
