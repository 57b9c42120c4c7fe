import type { ItemRow } from '../deal-records/queries';
import type { Db } from '../db/pool';
import { itemAt } from '@gatepath/core/sure';

type List = ItemRow['list'];

/** Something of a deal that stands on a member's first screen. */
export interface SeenItem {
  deal_id: string;
  address: string;
  time_zone: string;
  ref: string;
  /** ISO day. */
  day: string;
  item: unknown;
}

/** Returns the items of one of a member's lists, ordered by day. @param o.from,o.to ISO days, both included */
export async function itemsOf(
  db: Db,
  o: { memberId: string; list: List; from: string; to: string; limit: number },
): Promise<SeenItem[]> {
  // Each half uses the index; combined in one condition they would lose its order.
  const half = (member: string) =>
    `(select deal_id, ref, day, item from deal_item
      where member_id = ${member} and list = $2 and day between $3 and $4 order by day, deal_id, ref limit $5)`;
  const r = await db.query<SeenItem>(
    `select i.deal_id, d.address, d.time_zone, i.ref, i.day::text, i.item
     from (${half("''")} union all ${half('$1')}) i join deal d on d.id = i.deal_id
     order by i.day, i.deal_id, i.ref limit $5`,
    [o.memberId, o.list, o.from, o.to, o.limit],
  );
  return r.rows;
}

/** Returns the number of items in a list, up to a maximum. */
export async function countItems(
  db: Db,
  o: { memberId: string; list: List; from: string; to: string; most: number },
): Promise<number> {
  const r = await db.query<{ n: number }>(
    `select count(*)::int as n from (
       select 1 from deal_item where member_id in ('', $1) and list = $2 and day between $3 and $4 limit $5) x`,
    [o.memberId, o.list, o.from, o.to, o.most],
  );
  return itemAt(r.rows, 0).n;
}

/** An executed packet on the first screen. */
export interface ThroughRow {
  id: string;
  deal_id: string;
  address: string;
  name: string;
  ended_at: Date;
  marks_done: number;
  parties: { name: string }[];
}

/** Returns packets executed after an instant, in the deals a member works on, newest first. */
export async function executedSince(db: Db, memberId: string, since: Date, limit: number): Promise<ThroughRow[]> {
  const r = await db.query<ThroughRow>(
    `select p.id, p.deal_id, d.address, p.name, p.ended_at, p.marks_done, coalesce(p.path->'parties', '[]') as parties
     from packet p join deal d on d.id = p.deal_id
     where p.status = 'executed' and p.notice_id is null and p.ended_at > $2
       and (exists (select 1 from deal_member m where m.deal_id = d.id and m.member_id = $1)
         or not exists (select 1 from deal_member m where m.deal_id = d.id))
     order by p.ended_at desc limit $3`,
    [memberId, since, limit],
  );
  return r.rows;
}

/** Returns when a member last dismissed the executed packets; null before the first time. */
export async function lastVisitOf(db: Db, memberId: string): Promise<Date | null> {
  const r = await db.query<{ looked_at: Date | null }>('select looked_at from member where id = $1', [memberId]);
  return r.rows[0]?.looked_at ?? null;
}

/** Saves that a member has seen what was executed up to an instant. */
export async function saveLastVisit(db: Db, memberId: string, until: Date): Promise<void> {
  await db.query('update member set looked_at = $2 where id = $1', [memberId, until]);
}
