import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { createPgConfig } from '@electric-sql/pglite/node-postgres';
import pg from 'pg';

/** What can run a statement: the pool, or the one client of a transaction. */
export type Db = Pick<pg.Pool, 'query'> | Pick<pg.PoolClient, 'query'>;

/** An open database: a pool, and how to close all of it. */
export interface Database {
  pool: pg.Pool;
  /** `embedded`: one connection for everybody; a transaction must use its own client throughout. */
  kind: 'embedded' | 'server';
  close(): Promise<void>;
}

/** Opens the database of `DATABASE_URL`, or the embedded one under `dataDir`. */
export async function openDatabase(options: { databaseUrl: string | null; dataDir: string }): Promise<Database> {
  if (options.databaseUrl) {
    const pool = new pg.Pool({ connectionString: options.databaseUrl, max: 10 });
    return { pool, kind: 'server', close: () => pool.end() };
  }
  const dir = path.join(options.dataDir, 'database');
  mkdirSync(dir, { recursive: true });
  const lite = await PGlite.create(dir);
  const pool = new pg.Pool({ ...createPgConfig(lite), max: 1, idleTimeoutMillis: 0 } as pg.PoolConfig);
  return {
    pool,
    kind: 'embedded',
    async close() {
      await pool.end();
      await lite.close();
    },
  };
}
