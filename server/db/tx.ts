import { AsyncLocalStorage } from 'node:async_hooks';
import type pg from 'pg';
import { isDatabaseAway } from '../transient';

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
 * Runs `work` with a connection of its own. A connection that is lost meanwhile fails what is asked of it and nothing
 * else: without somebody who listens for it, its error would end the process.
 *
 * @param work  is given the connection, and how to say that it must not be used by anybody else
 */
export async function withClient<T>(
  pool: pg.Pool,
  work: (client: pg.PoolClient, spoil: (error: Error) => void) => Promise<T>,
): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  const lost = (error: Error) => void (broken = error);
  client.on('error', lost);
  try {
    return await work(client, lost);
  } catch (error) {
    // Whether it can still be used is not known; the pool makes another.
    if (isDatabaseAway(error)) broken ??= error instanceof Error ? error : new Error(String(error));
    throw error;
  } finally {
    client.off('error', lost);
    client.release(broken);
  }
}

/**
 * Runs `work` in one transaction and returns what it returns; any throw rolls all of it back.
 * `afterCommit` callbacks run once the data is safe: live views are told only of what happened.
 * One that throws is told to `onError`; what was committed stays so.
 */
export async function inTransaction<T>(pool: pg.Pool, work: (tx: Tx) => Promise<T>): Promise<T> {
  const after: (() => void)[] = [];
  const result = await withClient(pool, async (client, spoil) => {
    await client.query('begin');
    try {
      const done = await underWay.run(true, () => work({ db: client, afterCommit: (f) => after.push(f) }));
      const { command } = await client.query('commit');
      // PostgreSQL answers so, without an error, where a statement failed and its error was swallowed.
      if (command === 'ROLLBACK') throw new Error('a statement of this transaction failed, so nothing of it was kept');
      return done;
    } catch (error) {
      await client.query('rollback').catch(spoil);
      throw error;
    }
  });
  for (const f of after)
    try {
      f();
    } catch (error) {
      notifyAfterCommit(error);
    }
  return result;
}

let notifyAfterCommit: (error: unknown) => void = () => undefined;

/** Sets the handler for errors of callbacks that run after a commit. */
export function onAfterCommitError(tell: (error: unknown) => void): void {
  notifyAfterCommit = tell;
}

/** A transaction under way. */
export interface Tx {
  db: pg.PoolClient;
  afterCommit(f: () => void): void;
}
