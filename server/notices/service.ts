/** Notices to many households: starting, filling with homes, fixing, sending and stopping them. */
import { isDeepStrictEqual } from 'node:util';
import { dayOf } from '@gatepath/core/calendar';
import { guessFields } from '@gatepath/core/intake';
import { isOver, STATUS_WORDS } from '@gatepath/core/deal';
import { homeFields, homesOf, MOST_HOMES, type HomeRow } from '@gatepath/core/notices';
import { clip, oneLine } from '@gatepath/core/text';
import type {
  HomesBody,
  HomeTable,
  HomeTableQuery,
  NoticeBody,
  NoticePatch,
  NoticeRowPatch,
  NoticeRow,
  NoticeView,
} from '@gatepath/contract';
import type { Context } from '../context';
import { breathe } from '../db/breathe';
import type { Db } from '../db/pool';
import { inTransaction, type Tx } from '../db/tx';
import { idsOfList } from '../deals/list';
import type { Member } from '../firm/queries';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import { tableOf } from '../imports/service';
import { topics } from '../live/live';
import { byMember } from '../packets/service';
import { notFound, Problem } from '../problem';
import { itemOr404 } from '../shelf/access';
import * as q from './queries';
import { rulesOfFirm } from './rules';
import { tagsOfKit, withValues } from './tags';
import { noticeView, rowView } from './views';

/** Returns a notice by its id. @throws Problem `not-found` */
export async function noticeOr404(db: Db, id: string): Promise<q.NoticeRow> {
  const row = await q.noticeById(db, id);
  if (!row) throw notFound('This notice');
  return row;
}

async function locked(db: Db, id: string): Promise<q.NoticeRow> {
  const row = await q.lockNotice(db, id);
  if (!row) throw notFound('This notice');
  return row;
}

/** Enqueues the run of a notice and notifies its screens. */
async function goOn(ctx: Context, tx: Tx, id: string): Promise<void> {
  await ctx.jobs.queue(tx, 'notice', id);
  tx.afterCommit(() => ctx.live.notify(topics.notice(id)));
}

/**
 * Starts a notice. Its rule is the firm's first one whose date the kit's papers use.
 *
 * @throws Problem `not-on-shelf`, `over-limits`, `not-found` for a kit the member may not use
 */
export async function newNotice(ctx: Context, body: NoticeBody, member: Member): Promise<NoticeView> {
  const kit = await itemOr404(ctx.database.pool, body.kitId, member);
  if (kit.what !== 'kit') throw notFound('This kit');
  if (!kit.edition || kit.retired_at)
    throw new Problem(
      'not-on-shelf',
      `The kit “${kit.name}” is not on the shelf. Put it there first, or choose another.`,
    );
  const tags = await tagsOfKit(ctx, kit.id);
  const rule = (await rulesOfFirm(ctx)).find((r) => r.day !== null && tags.some((t) => t.key === r.day)) ?? null;
  const homes = await homesOfBody(ctx, body);
  const id = newId();
  await inTransaction(ctx.database.pool, async (tx) => {
    const name = body.name?.trim() || kit.name;
    await q.insertNotice(tx.db, { id, kit_id: kit.id, name, rule, created_by: member.id, at: ctx.clock.now() });
    await addRows(tx.db, id, homes);
    await goOn(ctx, tx, id);
  });
  return noticeView(ctx, id);
}

type NewHome = Parameters<typeof q.insertHomes>[3][number];

/** Returns the homes of a request, by their deals. */
async function homesOfBody(ctx: Context, body: HomesBody): Promise<NewHome[]> {
  const ids = new Set(body.dealIds);
  if (body.filter) for (const id of await idsOfList(ctx, { ...body.filter, kind: 'tenancy' }, MOST_HOMES)) ids.add(id);
  const rows = await q.addressesOf(ctx.database.pool, [...ids]);
  return rows.map((d) => ({ id: newId(), line: null, home: d.address, dealId: d.id, values: {}, why: [] }));
}

/** Adds rows to a notice. @throws Problem `over-limits` */
async function addRows(db: Db, noticeId: string, rows: NewHome[]): Promise<void> {
  const there = await q.countHomes(db, noticeId);
  if (there + rows.length > MOST_HOMES)
    throw new Problem('over-limits', `A notice goes to at most ${MOST_HOMES} homes. Split it into two notices.`);
  if (rows.length) await q.insertHomes(db, noticeId, there, rows);
}

/**
 * Adds homes; those already in the notice stay as they are. @throws Problem `not-found`, `over-limits`
 */
export async function addHomes(ctx: Context, id: string, body: HomesBody): Promise<NoticeView> {
  const homes = await homesOfBody(ctx, body);
  await inTransaction(ctx.database.pool, async (tx) => {
    await locked(tx.db, id);
    const there = new Set((await q.placedHomes(tx.db, id)).map((h) => h.dealId));
    await addRows(
      tx.db,
      id,
      homes.filter((h) => h.dealId && !there.has(h.dealId)),
    );
    await q.renewHomes(tx.db, id, '');
    await goOn(ctx, tx, id);
  });
  return noticeView(ctx, id);
}

/**
 * Previews a table with one row per household, or adds its rows. A row with problems is added too, to be fixed.
 *
 * @throws Problem `not-found`, `bad-table`, `rows-wrong` if no column names the home, `over-limits`
 */
export async function takeTable(ctx: Context, id: string, query: HomeTableQuery, upload: Upload): Promise<HomeTable> {
  const notice = await noticeOr404(ctx.database.pool, id);
  const table = await tableOf(ctx, upload);
  const tags = await tagsOfKit(ctx, notice.kit_id);
  const fields = homeFields(tags);
  const known = new Set(fields.map((f) => f.key));
  const map = (query.map?.split(',') ?? guessFields(table.headings, fields)).map((k) => (known.has(k) ? k : ''));
  const rows = homesOf(table, map, tags);
  const missing = fields.filter((f) => f.needed && !map.includes(f.key)).map((f) => f.label);
  if (query.take) {
    if (missing.length) throw new Problem('rows-wrong', 'Say first which column names the home.');
    const found = await findHomes(ctx.database.pool, rows);
    await inTransaction(ctx.database.pool, async (tx) => {
      await locked(tx.db, id);
      await addRows(tx.db, id, found);
      await q.renewHomes(tx.db, id);
      await goOn(ctx, tx, id);
    });
  }
  return {
    headings: table.headings,
    map,
    fields: fields.map(({ key, label, needed }) => ({ key, label, needed: !!needed })),
    missing,
    sample: table.rows.slice(0, 3).map((r) => r.map((c) => clip(oneLine(c), 80))),
    rows: rows.length,
    taken: query.take ? rows.length : null,
  };
}

const keyOf = (text: string) => oneLine(text).toLowerCase();

/** Returns rows with the tenancies they name; a row whose tenancy is not found says so. */
async function findHomes(db: Db, rows: readonly HomeRow[]): Promise<NewHome[]> {
  const known = new Map<string, Awaited<ReturnType<typeof q.homesAt>>>();
  const keys = [...new Set(rows.flatMap((r) => (r.home ? [keyOf(r.home), r.home] : [])))];
  for (const d of await q.homesAt(db, keys))
    for (const key of new Set([keyOf(d.address), keyOf(`${d.address}, ${d.city}`), d.id]))
      if (!known.get(key)?.push(d)) known.set(key, [d]);
  return rows.map((r): NewHome => {
    const at = known.get(keyOf(r.home)) ?? known.get(r.home) ?? [];
    const open = at.filter((d) => !isOver(d.status));
    const one = open[0] ?? at[0];
    const why = [...r.why];
    if (r.home && !one)
      why.push(`No tenancy is at “${clip(r.home, 80)}”. Choose the home, or import the tenancy first.`);
    else if (open.length > 1)
      why.push(`${open.length} tenancies are at “${clip(r.home, 80)}”. Choose which one is meant.`);
    else if (one && !open.length) why.push(`The tenancy at “${one.address}” is over: ${STATUS_WORDS[one.status]}.`);
    return {
      id: newId(),
      line: r.line,
      home: one?.address ?? r.home,
      dealId: open.length === 1 ? (one?.id ?? null) : null,
      values: r.values,
      why,
    };
  });
}

/**
 * Changes a notice.
 *
 * @throws Problem `not-found`, `bad-fact`, `already-sent` for what cannot be changed once something was sent
 */
export async function setNotice(ctx: Context, id: string, body: NoticePatch): Promise<NoticeView> {
  const before = await noticeOr404(ctx.database.pool, id);
  const tags = await tagsOfKit(ctx, before.kit_id);
  const rules = await rulesOfFirm(ctx);
  await inTransaction(ctx.database.pool, async (tx) => {
    const n = await locked(tx.db, id);
    const rule = body.ruleId === undefined ? n.rule : (rules.find((r) => r.id === body.ruleId) ?? null);
    const said = body.values ? withValues(n.said, body.values, tags) : n.said;
    const other = !isDeepStrictEqual([rule, said], [n.rule, n.said]);
    const counts = (await q.countsOf(tx.db, [id])).get(id);
    // Once the first home has the notice, its text must not change for the others.
    if (counts && counts.gone + counts.going > 0 && other)
      throw new Problem(
        'already-sent',
        'Some homes have this notice already. Change single rows, or start another notice.',
      );
    await q.saveNotice(tx.db, {
      id,
      name: body.name ?? n.name,
      said,
      rule,
      all_or_none: body.allOrNone ?? n.all_or_none,
    });
    if (other) await q.renewHomes(tx.db, id);
    await goOn(ctx, tx, id);
  });
  return noticeView(ctx, id);
}

/** Changes one household's row. @throws Problem `bad-fact`, `already-sent`, `not-found` */
export async function setRow(ctx: Context, id: string, rowId: string, body: NoticeRowPatch): Promise<NoticeRow> {
  const notice = await noticeOr404(ctx.database.pool, id);
  const tags = await tagsOfKit(ctx, notice.kit_id);
  await inTransaction(ctx.database.pool, async (tx) => {
    await locked(tx.db, id);
    const row = await q.lockHome(tx.db, rowId);
    if (!row || row.notice_id !== id) throw notFound('This row');
    if (row.state === 'gone' || row.state === 'going')
      throw new Problem('already-sent', `${row.home} has this notice already, or is getting it now.`);
    const home = body.dealId ? await q.addressOf(tx.db, body.dealId) : row.home;
    if (home === null) throw notFound('This deal');
    const said = body.values ? withValues(row.said, body.values, tags) : row.said;
    await q.saveHome(tx.db, {
      id: rowId,
      home,
      deal_id: body.dealId ?? row.deal_id,
      said,
      // A member who edits a row by hand has read what was wrong with its line.
      unread: body.values || body.dealId ? [] : row.unread,
      state: (body.leftOut ?? row.state === 'left_out') ? 'left_out' : 'new',
    });
    // Another row for the same home may be valid now.
    for (const dealId of new Set([row.deal_id, body.dealId ?? null])) await q.renewHomes(tx.db, id, dealId ?? '');
    await goOn(ctx, tx, id);
  });
  return rowView(ctx, id, rowId);
}

/**
 * Deletes a notice. @throws Problem `not-found`, `was-sent` once part of it was sent
 */
export async function deleteNotice(ctx: Context, id: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    await locked(tx.db, id);
    const counts = (await q.countsOf(tx.db, [id])).get(id);
    if (counts && counts.gone + counts.going > 0)
      throw new Problem('was-sent', 'Some homes have this notice already: it stays, as proof of it.');
    await q.deleteNotice(tx.db, id);
  });
}

/**
 * Releases every household that is ready.
 *
 * @throws Problem `not-found`, `rows-wrong` while a row is wrong and none may be sent without the others;
 * `nothing-to-send`
 */
export async function go(ctx: Context, id: string): Promise<NoticeView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const n = await locked(tx.db, id);
    const counts = (await q.countsOf(tx.db, [id])).get(id);
    if (counts?.fresh)
      throw new Problem('nothing-to-send', `${counts.fresh} homes are still being prepared. Try again in a moment.`);
    if (n.all_or_none && counts?.wrong)
      throw new Problem('rows-wrong', `${counts.wrong} homes need fixing, and none may be sent without the others.`);
    if (!(await q.releaseReady(tx.db, id)))
      throw new Problem('nothing-to-send', 'No home is ready. Fix a row, or add homes.');
    await goOn(ctx, tx, id);
  });
  return noticeView(ctx, id);
}

/**
 * Stops a run: what has started is sent, everything else waits.
 *
 * @throws Problem `not-found`
 */
export async function stop(ctx: Context, id: string): Promise<NoticeView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    await locked(tx.db, id);
    await q.hold(tx.db, id, ctx.clock.now());
    tx.afterCommit(() => ctx.live.notify(topics.notice(id)));
  });
  return noticeView(ctx, id);
}

/**
 * Records that the letters of a notice were mailed, or handed over, on a day. @returns how many
 * @throws Problem `nothing-to-send`, `not-found`
 */
export async function lettersWent(
  ctx: Context,
  id: string,
  body: { rowIds: string[]; day: string; way: 'post' | 'hand' },
  member: Member,
): Promise<{ done: number }> {
  const db = ctx.database.pool;
  await noticeOr404(db, id);
  const letters = await q.lettersOf(db, id, body.rowIds, MOST_HOMES * 4);
  if (!letters.length) throw new Problem('nothing-to-send', 'There is no letter to mail.');
  let done = 0;
  let refused: unknown = null;
  for (let i = 0; i < letters.length; i += LETTERS_AT_ONCE) {
    // Letters of a portion share a transaction; one that cannot have been sent on that day does not affect the others.
    const went = await Promise.allSettled(
      letters.slice(i, i + LETTERS_AT_ONCE).map((l) => letterWent(ctx, l, body, member)),
    );
    for (const w of went)
      if (w.status === 'rejected') refused ??= w.reason;
      else if (w.value) done++;
    await breathe();
  }
  ctx.live.notify(topics.notice(id));
  if (!done && refused) throw refused;
  return { done };
}

/** Number of letters recorded together. */
const LETTERS_AT_ONCE = 60;

async function letterWent(
  ctx: Context,
  { packet_id: packetId, party_id: partyId }: { packet_id: string; party_id: string },
  { day, way }: { day: string; way: 'post' | 'hand' },
  member: Member,
): Promise<boolean> {
  const { state } = await ctx.packets.look(packetId);
  if (!state) return false;
  const today = dayOf(ctx.clock.now().toISOString(), state.plan.timeZone);
  const done = await ctx.packets.run(packetId, { type: 'letter', partyId, day, way, today }, byMember(member));
  return done.changed;
}
