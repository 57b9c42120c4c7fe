import { rmSync } from 'node:fs';
import { migrate } from '../db/migrate';
import { openDatabase } from '../db/pool';
import { Jobs } from '../jobs/jobs';
import { Live } from '../live/live';
import { TEMPLATE_DIR } from './template';

rmSync(TEMPLATE_DIR, { recursive: true, force: true });
const database = await openDatabase({ databaseUrl: null, dataDir: TEMPLATE_DIR });
await migrate(database.pool);
const jobs = new Jobs(database, new Live(), console.error);
await jobs.start();
await jobs.stop();
await database.close();
process.exit(0);
