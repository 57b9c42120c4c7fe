/** SQL of notices: runs, and one row per household. */
import type { DealStatus, FactValue } from '@gatepath/core/deal';
import type { HomeRow, NoticeRule } from '@gatepath/core/notices';
import type { NoticeRow as RowView, NoticeRowsQuery } from '@gatepath/contract';
import type { Db } from '../db/pool';
import type { Settled } from '../shelf/written';

type Said = Record<string, FactValue>;

/** A notice. */
export interface NoticeRow {
  id: string;
  kit_id: string;
  name: string;
  said: Said;
  rule: NoticeRule | null;
  all_or_none: boolean;
  created_by: string;
  created_at: Date;
  stopped_at: Date | null;
  version: number;
  by: string;
}
const NOTICE = `n.id, n.kit_id, n.name, n.said, n.rule, n.all_or_none, n.created_by, n.created_at, n.stopped_at, n.version, m.name as by
  from notice n join member m on m.id = n.created_by`;

/** One household's row. */
export interface HomeOfNotice {
  id: string;
  notice_id: string;
  n: number;
  line: number | null;
  home: string;
  deal_id: string | null;
  said: Said;
  unread: string[];
  state: RowView['state'];
  problems: string[];
  notes: string[];
  papers: Record<string, Settled>;
  packet_id: string | null;
  gone_at: Date | null;
}
/** A row without its papers, which are long. */
export type HomeHead = Omit<HomeOfNotice, 'papers'>;
const HEAD = 'id, notice_id, n, line, home, deal_id, said, unread, state, problems, notes, packet_id, gone_at';
const ROW = `${HEAD}, papers`;

/** Inserts a notice. */
export async function insertNotice(
  db: Db,
  n: Pick<NoticeRow, 'id' | 'kit_id' | 'name' | 'rule' | 'created_by'> & { at: Date },
): Promise<void> {
  await db.query(
    'insert into notice (id, kit_id, name, rule, created_by, created_at) values ($1, $2, $3, $4, $5, $6)',
    [n.id, n.kit_id, n.name, n.rule && JSON.stringify(n.rule), n.created_by, n.at],
  );
}

/** Returns a notice; null if there is none. */
export async function noticeById(db: Db, id: string): Promise<NoticeRow | null> {
  return (await db.query<NoticeRow>(`select ${NOTICE} where n.id = $1`, [id])).rows[0] ?? null;
}

/**
 * Returns a notice, locked: changing and sending it run one after another. Packets that refer to it can still be
 * saved meanwhile.
 */
export async function lockNotice(db: Db, id: string): Promise<NoticeRow | null> {
  return (await db.query<NoticeRow>(`select ${NOTICE} where n.id = $1 for no key update of n`, [id])).rows[0] ?? null;
}

/** Returns notices, newest first, by page. */
export async function listNotices(db: Db, o: { after: string | null; limit: number }): Promise<NoticeRow[]> {
  const r = await db.query<NoticeRow>(
    `select ${NOTICE} where ($1::text is null or n.id < $1) order by n.id desc limit $2`,
    [o.after, o.limit],
  );
  return r.rows;
}

/** Saves a notice in its next version. */
export async function saveNotice(
  db: Db,
  n: Pick<NoticeRow, 'id' | 'name' | 'said' | 'rule' | 'all_or_none'>,
): Promise<void> {
  await db.query('update notice set name = $2, said = $3, rule = $4, all_or_none = $5 where id = $1', [
    n.id,
    n.name,
    JSON.stringify(n.said),
    n.rule && JSON.stringify(n.rule),
    n.all_or_none,
  ]);
}

/** Deletes a notice. */
export async function deleteNotice(db: Db, id: string): Promise<void> {
  await db.query('delete from notice where id = $1', [id]);
}

/** Inserts households after those that are there already, in order. */
export async function insertHomes(
  db: Db,
  noticeId: string,
  from: number,
  rows: (Pick<HomeRow, 'home' | 'values' | 'why'> & { id: string; line: number | null; dealId: string | null })[],
): Promise<void> {
  await db.query(
    `insert into notice_row (id, notice_id, n, line, home, deal_id, said, unread, state)
     select x.id, $1, $2 + x.n, x.line, x.home, x."dealId", x.values, x.why, 'new'
     from jsonb_to_recordset($3::jsonb) as x(id text, n integer, line integer, home text, "dealId" text, values jsonb, why jsonb)`,
    [noticeId, from, JSON.stringify(rows.map((r, i) => ({ ...r, n: i + 1 })))],
  );
}

/** Returns the number of households in a notice. */
export async function countHomes(db: Db, noticeId: string): Promise<number> {
  const r = await db.query<{ n: number }>('select coalesce(max(n), 0)::int as n from notice_row where notice_id = $1', [
    noticeId,
  ]);
  return r.rows[0]?.n ?? 0;
}

/** Returns a household's row; null if there is none. */
export async function homeById(db: Db, noticeId: string, id: string): Promise<HomeOfNotice | null> {
  const r = await db.query<HomeOfNotice>(`select ${ROW} from notice_row where notice_id = $1 and id = $2`, [
    noticeId,
    id,
  ]);
  return r.rows[0] ?? null;
}

/** Returns a household's row, locked until the transaction ends. */
export async function lockHome(db: Db, id: string): Promise<HomeOfNotice | null> {
  return (await db.query<HomeOfNotice>(`select ${ROW} from notice_row where id = $1 for update`, [id])).rows[0] ?? null;
}

/** Returns rows that are to be prepared or sent, except some. Rows to send come first. */
export async function dueHomes(db: Db, noticeId: string, limit: number, except: string[]): Promise<HomeOfNotice[]> {
  const r = await db.query<HomeOfNotice>(
    `select ${ROW} from notice_row where notice_id = $1 and state in ('new', 'going') and id <> all($3::text[])
     order by state, n limit $2`,
    [noticeId, limit, except],
  );
  return r.rows;
}

/** Returns the home of each row and its values, to find rows for the same home. */
export async function placedHomes(
  db: Db,
  noticeId: string,
): Promise<{ id: string; n: number; dealId: string; values: Said }[]> {
  const r = await db.query<{ id: string; n: number; dealId: string; values: Said }>(
    `select id, coalesce(line, n) as n, deal_id as "dealId", said as values from notice_row
     where notice_id = $1 and deal_id is not null and state <> 'left_out' order by n`,
    [noticeId],
  );
  return r.rows;
}

/** Saves a prepared row. If the notice changed meanwhile, the row is prepared again. */
export async function saveWorked(
  db: Db,
  w: Pick<HomeOfNotice, 'id' | 'problems' | 'notes' | 'papers' | 'state'> & { version: number },
): Promise<void> {
  await db.query(
    `update notice_row r set state = $2, problems = $3, notes = $4, papers = $5 from notice n
     where r.id = $1 and r.state = 'new' and n.id = r.notice_id and n.version = $6`,
    [w.id, w.state, JSON.stringify(w.problems), JSON.stringify(w.notes), JSON.stringify(w.papers), w.version],
  );
}

/** Saves a row that a member changed; it will be prepared again. */
export async function saveHome(
  db: Db,
  h: Pick<HomeOfNotice, 'id' | 'home' | 'deal_id' | 'said' | 'unread' | 'state'>,
): Promise<void> {
  await db.query('update notice_row set home = $2, deal_id = $3, said = $4, unread = $5, state = $6 where id = $1', [
    h.id,
    h.home,
    h.deal_id,
    JSON.stringify(h.said),
    JSON.stringify(h.unread),
    h.state,
  ]);
}

/** Marks rows to be prepared again: all that are not sent, or those of one home. */
export async function renewHomes(db: Db, noticeId: string, dealId: string | null = null): Promise<void> {
  await db.query('update notice set version = version + 1 where id = $1', [noticeId]);
  await db.query(
    `update notice_row set state = 'new' where notice_id = $1 and state in ('ready', 'wrong')
       and ($2::text is null or deal_id = $2)`,
    [noticeId, dealId],
  );
}

/** Releases everything that is ready. @returns the number of rows */
export async function releaseReady(db: Db, noticeId: string): Promise<number> {
  await db.query('update notice set stopped_at = null where id = $1', [noticeId]);
  const r = await db.query(`update notice_row set state = 'going' where notice_id = $1 and state = 'ready'`, [
    noticeId,
  ]);
  return r.rowCount ?? 0;
}

/** Stops rows that have not started to be sent. */
export async function hold(db: Db, noticeId: string, at: Date): Promise<void> {
  const r = await db.query(
    `update notice_row set state = 'ready' where notice_id = $1 and state = 'going' and packet_id is null`,
    [noticeId],
  );
  if (r.rowCount) await db.query('update notice set stopped_at = $2 where id = $1', [noticeId, at]);
}

/** Saves a row's packet as soon as there is one. */
export async function setPacket(db: Db, id: string, packetId: string): Promise<void> {
  await db.query('update notice_row set packet_id = $2 where id = $1', [id, packetId]);
}

/** Marks a row as sent; its papers are with the packet from then on. */
export async function setGone(db: Db, id: string, at: Date): Promise<void> {
  await db.query(
    `update notice_row set state = 'gone', gone_at = $2, papers = '{}', problems = '[]' where id = $1 and state = 'going'`,
    [id, at],
  );
}

/** Marks a row that could not be sent as wrong. */
export async function setWrong(db: Db, id: string, problems: string[]): Promise<void> {
  await db.query(
    `update notice_row set state = 'wrong', problems = $2, failures = 0 where id = $1 and state in ('new', 'going')`,
    [id, JSON.stringify(problems)],
  );
}

/** Counts that preparing a row failed for a reason of our own. @returns how often it did */
export async function countFailure(db: Db, id: string): Promise<number> {
  const sql = 'update notice_row set failures = failures + 1 where id = $1 returning failures';
  return (await db.query<{ failures: number }>(sql, [id])).rows[0]?.failures ?? 0;
}

/** How many households of a notice are in which state. */
export interface Counts {
  homes: number;
  fresh: number;
  ready: number;
  going: number;
  wrong: number;
  left_out: number;
  gone: number;
  arrived: number;
  came_back: number;
  opened: number;
  done: number;
  letters: number;
}

/** The progress of the people a packet is sent to, one row per packet. */
const STEPS = `select pp.packet_id,
    bool_and(pp.arrived_at is not null or exists (select 1 from message x where x.packet_id = pp.packet_id
      and x.party_id = pp.party_id and x.status in ('kept', 'sent'))) as arrived,
    bool_or(pp.bounced) as came_back, bool_and(pp.opened_at is not null) as opened, bool_and(pp.status = 'done') as done,
    bool_or(pp.wants_letter) as letter, max(pp.counts_from)::text as counts_from
  from packet_party pp
  where pp.act <> 'copy' and pp.status not in ('dropped', 'excused')`;

/** Returns how many households of each notice have reached which step. */
export async function countsOf(db: Db, noticeIds: string[]): Promise<Map<string, Counts>> {
  const r = await db.query<Counts & { id: string }>(
    `select r.notice_id as id, count(*)::int as homes,
       count(*) filter (where r.state = 'new')::int as fresh, count(*) filter (where r.state = 'ready')::int as ready,
       count(*) filter (where r.state = 'going')::int as going, count(*) filter (where r.state = 'wrong')::int as wrong,
       count(*) filter (where r.state = 'left_out')::int as left_out, count(*) filter (where r.state = 'gone')::int as gone,
       count(*) filter (where s.arrived and not s.came_back)::int as arrived, count(*) filter (where s.came_back)::int as came_back,
       count(*) filter (where s.opened)::int as opened, count(*) filter (where s.done)::int as done,
       count(*) filter (where s.letter)::int as letters
     from notice_row r left join (${STEPS} and pp.packet_id in
       (select packet_id from notice_row where notice_id = any($1::text[])) group by pp.packet_id) s on s.packet_id = r.packet_id
     where r.notice_id = any($1::text[]) group by r.notice_id`,
    [noticeIds],
  );
  return new Map(r.rows.map(({ id, ...c }) => [id, c]));
}

/** Progress of the people of one row's packet. */
export interface Steps {
  packet_id: string;
  arrived: boolean;
  came_back: boolean;
  opened: boolean;
  done: boolean;
  letter: boolean;
  counts_from: string | null;
}

/** Returns the progress of some rows' packets. */
export async function stepsOf(db: Db, packetIds: string[]): Promise<Map<string, Steps>> {
  const r = await db.query<Steps>(`${STEPS} and pp.packet_id = any($1::text[]) group by pp.packet_id`, [packetIds]);
  return new Map(r.rows.map((s) => [s.packet_id, s]));
}

/** A person a row's packet is sent to. */
export interface PartyOfRow {
  packet_id: string;
  party_id: string;
  name: string;
  act: string;
  status: string;
  opened_at: string | null;
  bounced: boolean;
  wants_letter: boolean;
  problem: string | null;
}

/** Returns the people packets are sent to, with the reason if their message came back. */
export async function partiesOfRows(db: Db, packetIds: string[]): Promise<PartyOfRow[]> {
  const r = await db.query<PartyOfRow>(
    `select pp.packet_id, pp.party_id, x->>'name' as name, pp.act, pp.status, pp.opened_at, pp.bounced, pp.wants_letter,
       case when pp.bounced then (select m.problem from message m where m.packet_id = pp.packet_id and m.party_id = pp.party_id
         and m.status = 'returned' order by m.id desc limit 1) end as problem
     from packet_party pp join packet p on p.id = pp.packet_id
       join lateral jsonb_array_elements(p.path->'parties') x on x->>'id' = pp.party_id
     where pp.packet_id = any($1::text[]) and pp.act <> 'copy' and pp.status not in ('dropped', 'excused')
     order by pp.position`,
    [packetIds],
  );
  return r.rows;
}

const SHOWS: Record<NoticeRowsQuery['show'], string> = {
  all: 'true',
  wrong: `r.state = 'wrong'`,
  ready: `r.state in ('new', 'ready', 'going')`,
  gone: `r.state = 'gone'`,
  letters: 'exists (select 1 from packet_party pp where pp.packet_id = r.packet_id and pp.wants_letter)',
};

/** Returns households of a notice, by filter and page. */
export async function listHomes(
  db: Db,
  o: { noticeId: string; after: number; show: NoticeRowsQuery['show']; limit: number },
): Promise<HomeHead[]> {
  const r = await db.query<HomeHead>(
    `select ${HEAD} from notice_row r where notice_id = $1 and n > $2 and ${SHOWS[o.show]} order by n limit $3`,
    [o.noticeId, o.after, o.limit],
  );
  return r.rows;
}

/** Returns the tenants of deals, by name, in order. */
export async function tenantsOf(db: Db, dealIds: string[]): Promise<Map<string, string[]>> {
  const r = await db.query<{ deal_id: string; names: string[] }>(
    `select deal_id, array_agg(name order by ordinal) as names from party where deal_id = any($1::text[]) and side = 'tenant'
     group by deal_id`,
    [dealIds],
  );
  return new Map(r.rows.map((x) => [x.deal_id, x.names]));
}

/** Returns tenancies at any of these addresses (with or without the town, in lower case), or with one of these ids. */
export async function homesAt(
  db: Db,
  keys: string[],
): Promise<{ id: string; address: string; city: string; status: DealStatus }[]> {
  const r = await db.query<{ id: string; address: string; city: string; status: DealStatus }>(
    `select id, address, city, status from deal where kind = 'tenancy' and archived_at is null
       and (lower(address) = any($1::text[]) or lower(address || ', ' || city) = any($1::text[]) or id = any($1::text[]))`,
    [keys],
  );
  return r.rows;
}

/** Returns the address of a tenancy that a row is moved to; null if there is none. */
export async function addressOf(db: Db, dealId: string): Promise<string | null> {
  return (
    (await db.query<{ address: string }>("select address from deal where id = $1 and kind = 'tenancy'", [dealId]))
      .rows[0]?.address ?? null
  );
}

/** Returns tenancies of these ids, by address; other ids are ignored. */
export async function addressesOf(db: Db, dealIds: string[]): Promise<{ id: string; address: string }[]> {
  return (
    await db.query<{ id: string; address: string }>(
      `select id, address from deal where id = any($1::text[]) and kind = 'tenancy' order by lower(address), id`,
      [dealIds],
    )
  ).rows;
}

/** Returns parties that must get a letter, with their packets. */
export async function lettersOf(
  db: Db,
  noticeId: string,
  rowIds: string[],
  limit: number,
): Promise<{ packet_id: string; party_id: string }[]> {
  const r = await db.query<{ packet_id: string; party_id: string }>(
    `select pp.packet_id, pp.party_id from notice_row r join packet_party pp on pp.packet_id = r.packet_id and pp.wants_letter
     where r.notice_id = $1 and (cardinality($2::text[]) = 0 or r.id = any($2::text[])) order by r.n, pp.position limit $3`,
    [noticeId, rowIds, limit],
  );
  return r.rows;
}

/** Returns the firm's rules; null while it uses the samples. */
export async function firmRules(db: Db): Promise<NoticeRule[] | null> {
  const r = await db.query<{ notice_rules: NoticeRule[] | null }>('select notice_rules from firm order by id limit 1');
  return r.rows[0]?.notice_rules ?? null;
}

/** Saves the firm's rules for notices. */
export async function saveFirmRules(db: Db, rules: NoticeRule[]): Promise<void> {
  await db.query('update firm set notice_rules = $1', [JSON.stringify(rules)]);
}
