import type {
  DealKind,
  DealStatus,
  FactDef,
  FactValue,
  Figures,
  ForWhom,
  KeyDates,
  Needs,
  PacketNow,
  DealDocument,
  Waiver,
} from '@gatepath/core/deal';
import type { StatedChange } from '@gatepath/core/abstract';
import type { Db } from '../db/pool';
import { itemAt } from '@gatepath/core/sure';

/** A fact the firm added. */
export type OwnFact = FactDef;

/** The computed status of a deal. */
export interface ComputedDeal {
  needs: Needs;
  papers: DealDocument[];
  packets: PacketNow[];
  signatures: Tally;
  initials: Tally;
  /** What documents state otherwise than the deal; absent in one computed by an earlier version. */
  stated?: StatedChange[];
}
/** How many places of a kind are done, and of how many. */
export interface Tally {
  done: number;
  of: number;
}

/** A deal. */
export interface DealRow {
  id: string;
  kind: DealKind;
  address: string;
  city: string;
  time_zone: string;
  created_at: Date;
  for_whom: ForWhom;
  status: DealStatus;
  /** ISO day. */
  status_on: string | null;
  facts: Record<string, FactValue>;
  dates: KeyDates;
  tags: string[];
  archived_at: Date | null;
  /** ISO day until which the deal must be retained at least. */
  retain_until: string | null;
}

/** A deal as lists show it. */
export type DealListRow = DealRow & { figures: Figures | null };

/** The columns of `DealRow`. */
export const COLUMNS =
  'id, kind, address, city, time_zone, created_at, for_whom, status, status_on::text, facts, dates, tags, archived_at, retain_until::text';

/** Inserts a deal. */
export async function insertDeal(
  db: Db,
  d: Pick<
    DealRow,
    'id' | 'kind' | 'address' | 'city' | 'time_zone' | 'created_at' | 'for_whom' | 'status' | 'status_on'
  >,
): Promise<void> {
  await db.query(
    `insert into deal (id, kind, address, city, time_zone, created_at, for_whom, status, status_on)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [d.id, d.kind, d.address, d.city, d.time_zone, d.created_at, d.for_whom, d.status, d.status_on],
  );
}

/** Returns a deal; null if there is none. */
export async function dealById(db: Db, id: string): Promise<DealRow | null> {
  return (await db.query<DealRow>(`select ${COLUMNS} from deal where id = $1`, [id])).rows[0] ?? null;
}

/** Returns a deal, locked until the transaction ends: changes of it and its people run one after another. */
export async function lockDeal(db: Db, id: string): Promise<DealRow | null> {
  return (await db.query<DealRow>(`select ${COLUMNS} from deal where id = $1 for update`, [id])).rows[0] ?? null;
}

/** Corrects a deal. */
export async function updateDeal(db: Db, d: DealRow): Promise<void> {
  await db.query(
    `update deal set kind = $2, for_whom = $3, address = $4, city = $5, status = $6, status_on = $7, facts = $8, dates = $9,
       tags = $10, archived_at = $11, retain_until = $12 where id = $1`,
    [
      d.id,
      d.kind,
      d.for_whom,
      d.address,
      d.city,
      d.status,
      d.status_on,
      JSON.stringify(d.facts),
      JSON.stringify(d.dates),
      JSON.stringify(d.tags),
      d.archived_at,
      d.retain_until,
    ],
  );
}

/** Deletes a deal with everything in it. */
export async function deleteDeal(db: Db, id: string): Promise<void> {
  await db.query('delete from document where deal_id = $1', [id]);
  await db.query('delete from deal where id = $1', [id]);
}

/** Returns whether anything in a deal was ever sent, or a message belongs to it. */
export async function wasSent(db: Db, dealId: string): Promise<boolean> {
  const r = await db.query<{ sent: boolean }>(
    `select exists (select 1 from packet where deal_id = $1 and status <> 'drafting')
         or exists (select 1 from message where deal_id = $1) as sent`,
    [dealId],
  );
  return itemAt(r.rows, 0).sent;
}

/** Returns the ids of the members assigned to a deal; none means everyone. */
export async function membersOfDeal(db: Db, dealId: string): Promise<string[]> {
  const sql = 'select member_id from deal_member where deal_id = $1 order by member_id';
  return (await db.query<{ member_id: string }>(sql, [dealId])).rows.map((r) => r.member_id);
}

/** Replaces the members assigned to a deal. */
export async function setMembers(db: Db, dealId: string, ids: string[]): Promise<void> {
  await db.query('delete from deal_member where deal_id = $1', [dealId]);
  await db.query('insert into deal_member (deal_id, member_id) select $1, unnest($2::text[])', [dealId, ids]);
}

/** Returns email addresses of members in lower case: of these, or of all if none are named. */
export async function addressesOf(db: Db, ids: string[]): Promise<Map<string, string>> {
  const r = await db.query<{ id: string; email: string }>(
    'select id, lower(email) as email from member where cardinality($1::text[]) = 0 or id = any($1::text[])',
    [ids],
  );
  return new Map(r.rows.map((m) => [m.id, m.email]));
}

/** An entry of a deal's own activity. */
export interface EventRow {
  id: string;
  deal_id: string;
  at: Date;
  sentence: string;
  party_id: string | null;
  document_id: string | null;
}

/** Inserts entries of a deal's own activity. */
export async function insertEvents(db: Db, rows: EventRow[]): Promise<void> {
  for (const e of rows)
    await db.query(
      'insert into deal_event (id, deal_id, at, sentence, party_id, document_id) values ($1, $2, $3, $4, $5, $6)',
      [e.id, e.deal_id, e.at, e.sentence, e.party_id, e.document_id],
    );
}

/** Returns what happened in a deal besides its packets, newest first. */
export async function eventsOf(
  db: Db,
  o: {
    dealId: string;
    before: { at: string; id: string } | null;
    partyId: string | null;
    documentId: string | null;
    limit: number;
  },
): Promise<EventRow[]> {
  const r = await db.query<EventRow>(
    `select * from deal_event where deal_id = $1 and ($2::timestamptz is null or (at, id) < ($2, $6))
       and ($3::text is null or party_id = $3) and ($4::text is null or document_id = $4)
     order by at desc, id desc limit $5`,
    [o.dealId, o.before?.at ?? null, o.partyId, o.documentId, o.limit, o.before?.id ?? ''],
  );
  return r.rows;
}

/** Returns the waivers of a deal. */
export async function waiversOf(db: Db, dealId: string): Promise<Waiver[]> {
  const r = await db.query<{
    rule_id: string;
    reason: string;
    by_name: string;
    at: Date;
    facts: Waiver['facts'];
    rule: string;
  }>('select rule_id, reason, by_name, at, facts, rule from waiver where deal_id = $1', [dealId]);
  return r.rows.map((w) => ({
    ruleId: w.rule_id,
    reason: w.reason,
    by: w.by_name,
    at: w.at.toISOString(),
    facts: w.facts,
    rule: w.rule,
  }));
}

/** Saves a waiver. */
export async function saveWaiver(db: Db, dealId: string, w: Waiver): Promise<void> {
  await db.query(
    `insert into waiver (deal_id, rule_id, reason, by_name, at, facts, rule) values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (deal_id, rule_id) do update set reason = $3, by_name = $4, at = $5, facts = $6, rule = $7`,
    [dealId, w.ruleId, w.reason, w.by, w.at, JSON.stringify(w.facts), w.rule],
  );
}

/** Deletes a waiver. @returns whether it existed */
export async function deleteWaiver(db: Db, dealId: string, ruleId: string): Promise<boolean> {
  const r = await db.query('delete from waiver where deal_id = $1 and rule_id = $2', [dealId, ruleId]);
  return (r.rowCount ?? 0) > 0;
}

/** Returns the facts the firm added to the built-in ones. */
export async function ownFacts(db: Db): Promise<OwnFact[]> {
  const r = await db.query<{ own_facts: OwnFact[] }>('select own_facts from firm order by id limit 1');
  return r.rows[0]?.own_facts ?? [];
}

/** Starts computing a deal's status. Of two numbers the greater one started later. */
export async function nextComputation(db: Db): Promise<string> {
  return itemAt((await db.query<{ n: string }>(`select nextval('deal_look')::text as n`)).rows, 0).n;
}

/** An entry of the first screens: what is due, waiting or done, for a member. */
export interface ItemRow {
  deal_id: string;
  member_id: string;
  list: 'deal' | 'do' | 'due' | 'date' | 'term' | 'still';
  ref: string;
  /** ISO day. */
  day: string;
  item: object;
}

/**
 * Claims saving a computed status until the end of the transaction.
 *
 * @returns false if the deal is gone, or a computation that started later was saved already
 */
export async function claimComputation(db: Db, dealId: string, look: string): Promise<boolean> {
  const r = await db.query('update deal set looked = $2::bigint where id = $1 and looked < $2::bigint', [dealId, look]);
  return (r.rowCount ?? 0) > 0;
}

/** Saves a computed status. Call `claimComputation` first. */
export async function saveComputed(
  db: Db,
  s: { dealId: string; computed: ComputedDeal; figures: Figures; items: ItemRow[] },
): Promise<void> {
  await db.query('update deal set computed = $2, figures = $3 where id = $1', [
    s.dealId,
    JSON.stringify(s.computed),
    JSON.stringify(s.figures),
  ]);
  await db.query(
    `with kept as (
       select * from jsonb_to_recordset($2::jsonb) as x(member_id text, list text, ref text, day date, item jsonb)
     ), gone as (
       delete from deal_item i where i.deal_id = $1
         and not exists (select 1 from kept k where k.member_id = i.member_id and k.list = i.list and k.ref = i.ref)
     )
     insert into deal_item (deal_id, member_id, list, ref, day, item)
     select $1, k.member_id, k.list, k.ref, k.day, k.item from kept k
     on conflict (deal_id, member_id, list, ref) do update set day = excluded.day, item = excluded.item`,
    [s.dealId, JSON.stringify(s.items)],
  );
}

/** Returns a deal's last computed status; null before the first. */
export async function computedOf(db: Db, dealId: string): Promise<ComputedDeal | null> {
  const r = await db.query<{ computed: ComputedDeal | null }>('select computed from deal where id = $1', [dealId]);
  return r.rows[0]?.computed ?? null;
}

/** Returns ids of deals after one of them, oldest first: of all deals, or of open ones. */
export async function dealIdsAfter(db: Db, after: string, all: boolean, limit: number): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from deal where id > $1
       and ($2 or archived_at is null and status not in ('closed', 'fell_through', 'ended')) order by id limit $3`,
    [after, all, limit],
  );
  return r.rows.map((d) => d.id);
}

/** Returns the open deals, with what rules need of them. */
export async function openDeals(db: Db, limit: number): Promise<DealRow[]> {
  const r = await db.query<DealRow>(
    `select ${COLUMNS} from deal where archived_at is null and status not in ('closed', 'fell_through', 'ended')
     order by id desc limit $1`,
    [limit],
  );
  return r.rows;
}
