/** Counting tries in the database, so that several servers count them together. */
import type { Db } from '../db/pool';
import { itemAt } from '@gatepath/core/sure';

/**
 * Counts one more try.
 *
 * @param windowMs  how long tries are counted together, from the first of them
 * @returns how many there were in this window, with this one, and when it ends
 */
export async function countTry(db: Db, key: string, windowMs: number, now: Date): Promise<{ n: number; until: Date }> {
  const until = new Date(now.getTime() + windowMs);
  const r = await db.query<{ n: number; until: Date }>(
    `insert into throttle (key, n, until) values ($1, 1, $2)
     on conflict (key) do update set
       n = case when throttle.until <= $3 then 1 else least(throttle.n + 1, 1000000) end,
       until = case when throttle.until <= $3 then excluded.until else throttle.until end
     returning n, until`,
    [key, until, now],
  );
  return itemAt(r.rows, 0);
}

/** Deletes the tries of a key after a success. */
export async function deleteTries(db: Db, keys: string[]): Promise<void> {
  await db.query('delete from throttle where key = any($1::text[])', [keys]);
}

/** Deletes windows that have ended. */
export async function deleteOldTries(db: Db, now: Date): Promise<void> {
  await db.query('delete from throttle where until <= $1', [now]);
}

/** Returns a store for @fastify/rate-limit that uses the same table. */
export function throttleStore(db: Db) {
  return class ThrottleStore {
    private readonly route: string;

    constructor(options: { routeInfo?: { url?: string } } = {}) {
      this.route = options.routeInfo?.url ?? '';
    }

    incr(
      key: string,
      done: (error: Error | null, result?: { current: number; ttl: number }) => void,
      timeWindow: number,
    ): void {
      const now = new Date();
      countTry(db, `rate:${this.route}:${key}`, timeWindow, now).then(
        ({ n, until }) => done(null, { current: n, ttl: Math.max(1, until.getTime() - now.getTime()) }),
        (error: Error) => done(error),
      );
    }

    child(routeOptions: object): ThrottleStore {
      return new ThrottleStore(routeOptions);
    }
  };
}
