/** What SQL alone cannot do when a database of an earlier version is opened; each piece once in its life. */
import { ruleAsWaived } from '@gatepath/core/deal';
import type { Draft } from '@gatepath/core/packet';
import type { Context } from './context';
import { addSampleRules } from './deals/rules';
import { EVERYTHING } from './jobs/deal-status';
import { rulesOfFirm } from './deals/rule-queries';
import { findFirm } from './firm/queries';
import { loadState } from './packets/log';
import { filesOf } from './packets/projections';
import { savePacketFiles } from './packets/read-model-queries';
import { accessFor, accessHash } from './links/access-codes';
import { saveAccessCode } from './links/queries';
import { ALL_DOCUMENTS } from './memory/remember';
import { once } from './db/migrate';
import { inTransaction } from './db/tx';

/** Runs what SQL alone cannot do after a migration, each piece once per database. */
export async function upgrade(ctx: Context): Promise<void> {
  const { pool } = ctx.database;
  await once(pool, '0005_firm_ground: access codes', () => hideAccessCodes(ctx));
  await once(pool, '0005_firm_ground: files of packets', () => noteFiles(ctx));
  await once(pool, '0005_firm_ground: work', () => queueWork(ctx));
  await once(pool, '0007_deals: rules', () => addRules(ctx));
  await once(pool, '0008_people: what is found', () => ctx.jobs.queueNow('rules', EVERYTHING));
  await once(pool, '0010_insight: what is found of open deals', () => ctx.jobs.queueNow('rules', EVERYTHING));
  await once(pool, '0021_claims: rules of waivers', () => noteWaivedRules(ctx));
  await once(pool, '0021_claims: what is on sealed copies', () => readSealedAgain(ctx));
  await once(pool, '0025_memory: documents', () => ctx.jobs.queueNow('memory', ALL_DOCUMENTS));
}

/** Replaces the access codes that an earlier version stored in drafts as plain text by their keyed hashes. */
async function hideAccessCodes(ctx: Context): Promise<void> {
  const { pool } = ctx.database;
  const { rows } = await pool.query<{ packet_id: string; draft: Draft }>(
    `select packet_id, draft from packet_draft where jsonb_path_exists(draft, '$.parties[*].accessCode')`,
  );
  for (const { packet_id: id, draft } of rows)
    await inTransaction(pool, async ({ db }) => {
      const parties: Draft['parties'] = [];
      for (const { accessCode, ...p } of draft.parties) {
        if (!accessCode) {
          parties.push(p);
          continue;
        }
        const of = accessFor(id, p.id);
        await saveAccessCode(db, id, p.id, accessHash(ctx, of, accessCode), of);
        parties.push({ ...p, codeKept: true });
      }
      await db.query('update packet_draft set draft = $2 where packet_id = $1', [
        id,
        JSON.stringify({ ...draft, parties }),
      ]);
    });
}

/** Records which files are needed by the packets that an earlier version sent. */
async function noteFiles(ctx: Context): Promise<void> {
  const { pool } = ctx.database;
  const { rows } = await pool.query<{ id: string }>('select id from packet where last_hash is not null order by id');
  for (const { id } of rows) {
    const { state } = await loadState(pool, id);
    if (state) await inTransaction(pool, ({ db }) => savePacketFiles(db, id, filesOf(state)));
  }
}

/**
 * Adds the sample rules, turned off, to a firm that worked without rules, so that nothing is required of its deals
 * unasked.
 */
async function addRules(ctx: Context): Promise<void> {
  const firm = await findFirm(ctx.database.pool);
  if (!firm) return;
  await inTransaction(ctx.database.pool, ({ db }) => addSampleRules(db, ctx.clock.now(), false));
  await ctx.jobs.queueNow('rules', 'rules');
}

/**
 * Saves with each waiver of an earlier version the rule as it is now, because a waiver is tied to the rule it was given
 * for.
 */
async function noteWaivedRules(ctx: Context): Promise<void> {
  const { pool } = ctx.database;
  for (const rule of await rulesOfFirm(pool))
    await pool.query(`update waiver set rule = $2 where rule_id = $1 and rule = ''`, [rule.id, ruleAsWaived(rule)]);
}

/**
 * Reads sealed copies again that an earlier version read without the marks people had put on them, if a late round is
 * prepared for them.
 */
async function readSealedAgain(ctx: Context): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const { rows } = await tx.db.query<{ id: string }>(
      `update document set status = 'reading', pages_read = 0 where sealed and status = 'ready' returning id`,
    );
    for (const { id } of rows) await ctx.jobs.queue(tx, 'read', id);
  });
}

/** Queues the work that an earlier version had left to do when it stopped. */
async function queueWork(ctx: Context): Promise<void> {
  const ids = async (sql: string) => (await ctx.database.pool.query<{ id: string }>(sql)).rows.map((r) => r.id);
  for (const id of await ids(`select id from message where status = 'queued' order by id`))
    await ctx.jobs.queueNow('mail', id);
  for (const id of await ids('select id from packet where seals_due > 0 order by id'))
    await ctx.jobs.queueNow('seal', id);
  for (const id of await ids(`select id from document where status = 'reading' order by id`))
    await ctx.jobs.queueNow('read', id);
}
