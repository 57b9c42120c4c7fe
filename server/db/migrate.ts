import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type pg from 'pg';
import { sha256 } from '../ids';
import type { Database } from './pool';
import { withClient } from './tx';

const DIR = path.join(path.dirname(fileURLToPath(import.meta.url)), 'migrations');
/** Number of the advisory lock for migrations. */
const LOCK = 4310_0001;

/** Returns the names of all migrations, in order. */
export async function migrationNames(): Promise<string[]> {
  return (await readdir(DIR)).filter((f) => f.endsWith('.sql')).sort();
}

/**
 * Brings the database up to the newest numbered file; each runs once, in its own transaction. Of
 * several servers that start at once one does it, and the others wait.
 *
 * @param upTo  the last one to run, for tests that start from an older database
 * @throws when a migration that ran is not what it was: then nobody can say what is in the database
 */
export async function migrate(pool: pg.Pool, upTo?: string): Promise<string[]> {
  const ran: string[] = [];
  await locked(pool, async (client) => {
    await client.query(
      'create table if not exists migration (name text primary key, at timestamptz not null default now())',
    );
    await client.query('alter table migration add column if not exists sha256 text');
    const { rows } = await client.query<{ name: string; sha256: string | null }>('select name, sha256 from migration');
    const done = new Map(rows.map((r) => [r.name, r.sha256]));
    for (const name of await migrationNames()) {
      if (upTo && name > upTo) break;
      const sql = await readFile(path.join(DIR, name), 'utf8');
      const hash = sha256(sql);
      if (done.has(name)) {
        const before = done.get(name);
        if (before && before !== hash)
          throw new Error(`The migration ${name} is not the one that ran on this database.`);
        if (!before) await client.query('update migration set sha256 = $2 where name = $1', [name, hash]);
        continue;
      }
      await client.query('begin');
      try {
        await client.query(sql);
        await client.query('insert into migration (name, sha256) values ($1, $2)', [name, hash]);
        await client.query('commit');
      } catch (error) {
        await client.query('rollback');
        throw error;
      }
      ran.push(name);
    }
  });
  return ran;
}

/** Runs work while no other server holds the migration lock. */
function locked<T>(pool: pg.Pool, work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
  return withClient(pool, async (client) => {
    await client.query('select pg_advisory_lock($1)', [LOCK]);
    try {
      return await work(client);
    } finally {
      await client.query('select pg_advisory_unlock($1)', [LOCK]).catch(() => undefined);
    }
  });
}

/**
 * Does something while no other server of the same database does: what makes tables, or is done once.
 * The embedded database is one server's alone.
 */
export async function exclusively<T>(database: Database, work: () => Promise<T>): Promise<T> {
  if (database.kind === 'embedded') return work();
  return locked(database.pool, work);
}

/** Does something once in the life of a database that SQL alone cannot do: `name` remembers it. */
export async function once(pool: pg.Pool, name: string, work: () => Promise<void>): Promise<void> {
  const done = await pool.query('select 1 from migration where name = $1', [name]);
  if (done.rows.length) return;
  await work();
  await pool.query('insert into migration (name) values ($1) on conflict do nothing', [name]);
}
