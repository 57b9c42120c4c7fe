import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import type pg from 'pg';
import { inTransaction } from './tx';

const DIR = path.join(path.dirname(fileURLToPath(import.meta.url)), 'migrations');

/** Brings the database up to the newest numbered file; each runs once, in its own transaction. */
export async function migrate(pool: pg.Pool): Promise<string[]> {
  await pool.query(
    'create table if not exists migration (name text primary key, at timestamptz not null default now())',
  );
  const done = new Set((await pool.query<{ name: string }>('select name from migration')).rows.map((r) => r.name));
  const files = (await readdir(DIR)).filter((f) => f.endsWith('.sql')).sort();
  const ran: string[] = [];
  for (const name of files) {
    if (done.has(name)) continue;
    const sql = await readFile(path.join(DIR, name), 'utf8');
    await inTransaction(pool, async ({ db }) => {
      await db.query(sql);
      await db.query('insert into migration (name) values ($1)', [name]);
    });
    ran.push(name);
  }
  return ran;
}
