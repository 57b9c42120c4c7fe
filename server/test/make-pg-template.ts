import pg from 'pg';
import { migrate } from '../db/migrate';
import { openDatabase } from '../db/pool';
import { Jobs } from '../jobs/jobs';
import { Live } from '../live/live';
import { TEMPLATE_DATABASE } from './template';

const url = process.env.GATEPATH_TEST_PG!;
const admin = new pg.Client({ connectionString: `${url}/postgres` });
await admin.connect();
await admin.query(`create database ${TEMPLATE_DATABASE}`);
await admin.end();
const database = await openDatabase({ databaseUrl: `${url}/${TEMPLATE_DATABASE}`, dataDir: '' });
await migrate(database.pool);
const jobs = new Jobs(database, new Live(), console.error);
await jobs.start();
await jobs.stop();
await database.close();
process.exit(0);
