import type { Db } from '../db/pool';
import type { DealRow, ComputedDeal } from '../deal-records/queries';

/** Whose calendar it is. */
export type Owner = { dealId: string } | { memberId: string };

const column = (owner: Owner) => ('dealId' in owner ? 'deal_id' : 'member_id');
const idOf = (owner: Owner) => ('dealId' in owner ? owner.dealId : owner.memberId);

/** Returns the id of an owner's calendar; null if it has no address. */
export async function feedOf(db: Db, owner: Owner): Promise<string | null> {
  const r = await db.query<{ id: string }>(`select id from feed where ${column(owner)} = $1`, [idOf(owner)]);
  return r.rows[0]?.id ?? null;
}

/** Gives a calendar another id. */
export async function replaceFeed(db: Db, id: string, owner: Owner, at: Date): Promise<void> {
  await db.query(
    `insert into feed (id, ${column(owner)}, created_at) values ($1, $2, $3)
     on conflict (${column(owner)}) where ${column(owner)} is not null do update set id = $1, created_at = $3`,
    [id, idOf(owner), at],
  );
}

/** Takes a calendar's address away. */
export async function deleteFeed(db: Db, owner: Owner): Promise<void> {
  await db.query(`delete from feed where ${column(owner)} = $1`, [idOf(owner)]);
}

/** Returns the owner of a calendar id; null if it was ended. */
export async function ownerOf(db: Db, id: string): Promise<Owner | null> {
  const r = await db.query<{ deal_id: string | null; member_id: string | null }>(
    'select deal_id, member_id from feed where id = $1',
    [id],
  );
  const row = r.rows[0];
  if (row?.deal_id) return { dealId: row.deal_id };
  return row?.member_id ? { memberId: row.member_id } : null;
}

/** Returns the ids of the open deals a member works on, newest first. */
export async function openDealsOf(db: Db, memberId: string, limit: number): Promise<string[]> {
  const r = await db.query<{ deal_id: string }>(
    `select deal_id from deal_item where list = 'deal' and member_id in ('', $1) order by deal_id desc limit $2`,
    [memberId, limit],
  );
  return r.rows.map((x) => x.deal_id);
}

/** A deal as a calendar tells of it. */
export type CalendarDeal = DealRow & { computed: ComputedDeal | null; looked: string };

/** Returns deals with their status and the number of their last computation, which grows with every change. */
export async function calendarDeals(db: Db, ids: string[]): Promise<CalendarDeal[]> {
  const r = await db.query<CalendarDeal>(
    `select id, kind, address, city, time_zone, created_at, for_whom, status, status_on::text, facts, dates, tags, archived_at,
            retain_until::text, computed, looked::text from deal where id = any($1::text[]) order by id`,
    [ids],
  );
  return r.rows;
}

/** Returns the papers of deals that are valid until a day. */
export async function terms(
  db: Db,
  dealIds: string[],
): Promise<{ id: string; deal_id: string; name: string; ends_on: string }[]> {
  const r = await db.query<{ id: string; deal_id: string; name: string; ends_on: string }>(
    `select id, deal_id, name, ends_on::text from document
     where deal_id = any($1::text[]) and ends_on is not null and replaced_by is null order by id`,
    [dealIds],
  );
  return r.rows;
}
