/**
 * npm run -s check-events: audits every packet's hash chain, compares its read models with a rebuild, and verifies
 * that every referenced file exists and matches its name. Changes nothing.
 */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { firstBreak, firstStepBack } from '@gatepath/core/proof';
import { count } from '@gatepath/core/text';
import { ConfigError, readConfig } from '../config';
import { openDatabase, type Database } from '../db/pool';
import { requireWhole } from '../files/stored';
import { FileStore } from '../files/store';
import { sha256 } from '../ids';
import { loadEvents, rebuild } from './log';
import { eventsAfter } from './log-queries';
import { readModelOf } from './read-model-queries';
import { itemAt } from '@gatepath/core/sure';

const config = readConfig(process.env, { demo: false });
let database: Database;
try {
  database = await openDatabase(config);
} catch (error) {
  console.error(error instanceof ConfigError ? error.message : error);
  process.exit(2);
}
const { pool } = database;
const wrong: string[] = [];
/** Oddities that cannot be fixed. They are reported as remarks, so that they do not hide new problems. */
const remarks: string[] = [];

const packets = await pool.query<{ id: string }>(`select id from packet where status <> 'drafting' order by id`);
for (const { id } of packets.rows) await checkPacket(id);
const files = await pool.query<{ sha256: string; what: string }>(
  `select original_sha256 as sha256, 'the original of document ' || id as what from document
   union all select sha256, 'document ' || id from document
   union all select facts_sha256, 'what was read on document ' || id from document where facts_sha256 is not null
   union all select sha256, 'a file of packet ' || packet_id from packet_file
   union all select sha256, 'a picture of a hand in packet ' || packet_id from hand_picture`,
);
const store = new FileStore(path.join(config.dataDir, 'files'));
for (const { sha256: hash, what } of files.rows) {
  const file = store.fileOf(hash);
  if (!existsSync(file)) wrong.push(`${what}: the file ${hash} is missing`);
  else await requireWhole(file).catch(() => wrong.push(`${what}: the file ${hash} is not what its name says`));
}
await database.close();
for (const w of wrong) console.log(w);
for (const r of remarks) console.log(`Remark: ${r}`);
const looked = `${count(packets.rows.length, 'packet')} and ${count(files.rows.length, 'file')}`;
console.log(wrong.length ? `${count(wrong.length, 'problem')} in ${looked}` : `${looked}, all as they should be`);
process.exit(wrong.length ? 1 : 0);

async function checkPacket(id: string): Promise<void> {
  const client = await pool.connect();
  try {
    await client.query('begin');
    const stored = JSON.stringify(await readModelOf(client, id));
    await rebuild(client, id);
    if (JSON.stringify(await readModelOf(client, id)) !== stored)
      wrong.push(`${id}: the read models differ from the events`);
    const events = await loadEvents(client, id);
    const chain = (await eventsAfter(client, id, 0)).map((r, i) => ({
      event: itemAt(events, i),
      prevHash: r.prev_hash,
      hash: r.hash,
    }));
    const broken = firstBreak(chain, sha256);
    if (broken !== null) wrong.push(`${id}: the chain breaks at event ${broken}`);
    const back = firstStepBack(chain);
    if (back !== null) remarks.push(`${id}: the clock was set back before event ${back}`);
  } finally {
    await client.query('rollback');
    client.release();
  }
}
