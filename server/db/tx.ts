import { AsyncLocalStorage } from 'node:async_hooks';
import type pg from 'pg';

const underWay = new AsyncLocalStorage<true>();

/**
 * Refuses to wait, inside a transaction, for something that needs a connection of its own: the embedded database has
 * one connection only, and the two would wait for each other for ever.
 *
 * @throws Error inside the work of `inTransaction`
 */
export function outsideTransactions(what: string): void {
  if (underWay.getStore()) throw new Error(`${what} was asked for inside a transaction, which must use its own client`);
}

/** Makes a pool refuse connections to whoever holds one already. */
export function guard(pool: pg.Pool): pg.Pool {
  const connect = pool.connect.bind(pool) as (...args: unknown[]) => unknown;
  // The pool's own `query` comes through here too, with a callback.
  pool.connect = ((tell?: (error: Error) => void) => {
    try {
      outsideTransactions('A second connection');
    } catch (error) {
      if (!tell) return Promise.reject(error);
      return void process.nextTick(tell, error);
    }
    return tell ? connect(tell) : connect();
  }) as typeof pool.connect;
  return pool;
}

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
    result = await underWay.run(true, () => work({ db: client, afterCommit: (f) => after.push(f) }));
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
