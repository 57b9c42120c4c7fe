import type pg from 'pg';

/**
 * Runs `work` in one transaction and returns what it returns; any throw rolls all of it back.
 * `afterCommit` callbacks run once the data is safe: live views are told only of what happened.
 */
export async function inTransaction<T>(pool: pg.Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  const after: (() => void)[] = [];
  try {
    await client.query('begin');
    const result = await work({ db: client, afterCommit: (f) => after.push(f) });
    await client.query('commit');
    for (const f of after) f();
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => undefined);
    throw error;
  } finally {
    client.release();
  }
}

/** A transaction under way. */
export interface Tx {
  db: pg.PoolClient;
  afterCommit(f: () => void): void;
}
