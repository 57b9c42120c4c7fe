import { mkdirSync, statfsSync } from 'node:fs';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { createPgConfig } from '@electric-sql/pglite/node-postgres';
import pg from 'pg';
import { ConfigError } from '../config';
import { lockFolder } from './lock';
import { guard } from './tx';

/** Room on the disk that the embedded database needs to open. */
const LEAST_FREE = 32 * 1024 * 1024;

function freeBytes(dir: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(dir);
    return bavail * bsize;
  } catch {
    return null;
  }
}

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
    // The pool replaces a connection that is lost while unused; without a listener it would end the process.
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
    mkdirSync(dir, { recursive: true, mode: 0o700 });
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
    const free = freeBytes(options.dataDir);
    if (free !== null && free < LEAST_FREE)
      throw new ConfigError(
        `The disk that holds ${options.dataDir} is full: ${Math.floor(free / 1024 / 1024)} MB are free, and the database needs ${LEAST_FREE / 1024 / 1024} MB to open. Nothing was lost; make room and start again.`,
      );
    throw error;
  }
}
