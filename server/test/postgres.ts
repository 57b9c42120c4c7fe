/** Databases on the PostgreSQL server that the tests start; see pg-setup.cjs. */
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { sure } from '@gatepath/core/sure';
import { TEMPLATE_DATABASE } from './template';

/** Returns whether this run is on a PostgreSQL server; else on the embedded database. */
export const onPostgres = (): boolean => (globalThis as { __POSTGRES__?: boolean }).__POSTGRES__ === true;

async function admin<T>(
  work: (client: pg.Client) => Promise<T>,
  server = sure(process.env['GATEPATH_TEST_PG'], 'a PostgreSQL server'),
): Promise<T> {
  const client = new pg.Client({ connectionString: `${server}/postgres` });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Returns a new database, migrated unless `empty`. @returns its URL */
export async function newDatabase(empty = false): Promise<string> {
  const name = `t${randomBytes(8).toString('hex')}`;
  // Copying a template fails while somebody else copies it.
  await admin(async (client) => {
    for (let n = 0; ; n++)
      try {
        await client.query(`create database ${name}${empty ? '' : ` template ${TEMPLATE_DATABASE}`}`);
        return;
      } catch (error) {
        if (n > 200 || (error as { code?: string }).code !== '55006') throw error;
        await new Promise((r) => setTimeout(r, 50));
      }
  });
  return `${process.env['GATEPATH_TEST_PG']}/${name}`;
}

/** Makes an empty database on another server. @returns its URL */
export async function emptyDatabaseOn(server: string): Promise<string> {
  await admin((client) => client.query('create database gatepath'), server);
  return `${server}/gatepath`;
}

export async function deleteDatabase(url: string): Promise<void> {
  await admin((client) => client.query(`drop database if exists ${new URL(url).pathname.slice(1)} with (force)`));
}

/** Ends the leases of all jobs of a database, as if their time had passed: their server was killed. */
export async function endLeases(url: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await client.query(`update job set leased_at = now() - interval '1 day' where state = 'running'`);
  await client.end();
}
