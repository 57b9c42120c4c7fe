/**
 * Makes the migrated, empty database that tests copy: embedded, or with `postgres` on the tests' server. Prints where the
 * program of the worker processes lies.
 */
import { renameSync, rmSync } from 'node:fs';
import pg from 'pg';
import { migrate } from '../db/migrate';
import { openDatabase } from '../db/pool';
import { Jobs } from '../jobs/jobs';
import { Live } from '../live/live';
import { workerProgram } from '../work/program';
import { TEMPLATE_DATABASE, TEMPLATE_DIR } from './template';

/** It is made beside its place, so that nobody copies half of it, or the lock of whoever makes it. */
const MAKING = `${TEMPLATE_DIR}.${process.pid}`;

/** Makes room for the database anew, and says where it is. */
async function place(): Promise<{ databaseUrl: string | null; dataDir: string }> {
  if (process.argv[2] !== 'postgres') {
    return { databaseUrl: null, dataDir: MAKING };
  }
  const url = process.env['GATEPATH_TEST_PG']!;
  const admin = new pg.Client({ connectionString: `${url}/postgres` });
  await admin.connect();
  await admin.query(`create database ${TEMPLATE_DATABASE}`);
  await admin.end();
  return { databaseUrl: `${url}/${TEMPLATE_DATABASE}`, dataDir: '' };
}

const database = await openDatabase(await place());
await migrate(database.pool);
const jobs = new Jobs(database, new Live(), console.error);
await jobs.start();
await jobs.stop();
await database.close();
if (process.argv[2] !== 'postgres') {
  rmSync(TEMPLATE_DIR, { recursive: true, force: true });
  renameSync(MAKING, TEMPLATE_DIR);
}
process.stdout.write(await workerProgram(), () => process.exit(0));
