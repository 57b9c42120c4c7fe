/** Checks every packet's chain, and its read models against a rebuild from its events; changes nothing. */
import { firstBreak } from '@gatepath/core/proof';
import { count } from '@gatepath/core/text';
import { readConfig } from '../config';
import { openDatabase } from '../db/pool';
import { sha256 } from '../ids';
import { loadEvents, rebuild } from './log';
import { eventsAfter, readModelOf } from './queries';

const config = readConfig(process.env, { demo: false });
const database = await openDatabase(config);
const { rows } = await database.pool.query<{ id: string }>(
  `select id from packet where status <> 'drafting' order by id`,
);
const wrong: string[] = [];
for (const { id } of rows) {
  const client = await database.pool.connect();
  try {
    await client.query('begin');
    const stored = JSON.stringify(await readModelOf(client, id));
    await rebuild(client, id);
    if (JSON.stringify(await readModelOf(client, id)) !== stored)
      wrong.push(`${id}: the read models differ from the events`);
    const events = await loadEvents(client, id);
    const chain = (await eventsAfter(client, id, 0)).map((r, i) => ({
      event: events[i]!,
      prevHash: r.prev_hash,
      hash: r.hash,
    }));
    const broken = firstBreak(chain, sha256);
    if (broken !== null) wrong.push(`${id}: the chain breaks at event ${broken}`);
  } finally {
    await client.query('rollback');
    client.release();
  }
}
await database.close();
for (const w of wrong) console.log(w);
console.log(
  wrong.length
    ? `${count(wrong.length, 'problem')} in ${count(rows.length, 'packet')}`
    : `${count(rows.length, 'packet')}, all equal to a rebuild`,
);
process.exit(wrong.length ? 1 : 0);
