import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { createPgConfig } from '@electric-sql/pglite/node-postgres';
import pg from 'pg';
import { lockFolder } from './lock';
import { guard } from './tx';

/** What can run a statement: the pool, or the one client of a transaction. */
export type Db = Pick<pg.Pool, 'query'> | Pick<pg.PoolClient, 'query'>;

/** An open database: a pool, and how to close all of it. */
export interface Database {
  pool: pg.Pool;
  /** `embedded`: one connection for everybody; a transaction must use its own client throughout. */
  kind: 'embedded' | 'server';
  /** A connection of its own, for listening to what other servers tell; only on a database server. */
  listener(): pg.Client | null;
  close(): Promise<void>;
}

/**
 * Opens the database of `DATABASE_URL`, or the embedded one under `dataDir`.
 *
 * @throws `ConfigError` when another server has the embedded one
 */
export async function openDatabase(options: { databaseUrl: string | null; dataDir: string }): Promise<Database> {
  const { databaseUrl } = options;
  if (databaseUrl) {
    const pool = guard(new pg.Pool({ connectionString: databaseUrl, max: 10 }));
    // A connection that is lost while nobody uses it is replaced by the pool; without a hearer it would end the process.
    pool.on('error', () => undefined);
    return {
      pool,
      kind: 'server',
      listener: () => new pg.Client({ connectionString: databaseUrl }),
      close: () => pool.end(),
    };
  }
  const dir = path.join(options.dataDir, 'database');
  const unlock = lockFolder(options.dataDir);
  try {
    mkdirSync(dir, { recursive: true });
    const lite = await PGlite.create(dir, { extensions: { pg_trgm } });
    const pool = guard(new pg.Pool({ ...createPgConfig(lite), max: 1, idleTimeoutMillis: 0 } as pg.PoolConfig));
    return {
      pool,
      kind: 'embedded',
      listener: () => null,
      async close() {
        await pool.end();
        await lite.close();
        unlock();
      },
    };
  } catch (error) {
    unlock();
    throw error;
  }
}
