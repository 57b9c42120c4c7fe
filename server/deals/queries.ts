import type { Side } from '@gatepath/core/text';
import type { DealKind } from '@gatepath/contract';
import type { Db } from '../db/pool';
import { itemAt } from '@gatepath/core/sure';

export interface DealRow {
  id: string;
  kind: DealKind;
  address: string;
  city: string;
  time_zone: string;
  created_at: Date;
  price: string;
  /** ISO day. */
  closing_on: string | null;
}

export interface PartyRow {
  id: string;
  deal_id: string;
  side: Side;
  ordinal: number;
  name: string;
  email: string;
  phone: string | null;
  company: string;
}

/** Keeps a deal. */
export async function insertDeal(db: Db, d: Omit<DealRow, 'price' | 'closing_on'>): Promise<void> {
  await db.query('insert into deal (id, kind, address, city, time_zone, created_at) values ($1, $2, $3, $4, $5, $6)', [
    d.id,
    d.kind,
    d.address,
    d.city,
    d.time_zone,
    d.created_at,
  ]);
}

/** A deal; null when there is none. */
export async function dealById(db: Db, id: string): Promise<DealRow | null> {
  return (await db.query<DealRow>('select *, closing_on::text from deal where id = $1', [id])).rows[0] ?? null;
}

/** The deal, locked until the transaction ends: who changes it or its people goes one after another. */
export async function lockDeal(db: Db, id: string): Promise<DealRow | null> {
  const r = await db.query<DealRow>('select *, closing_on::text from deal where id = $1 for update', [id]);
  return r.rows[0] ?? null;
}

/** Corrects a deal. */
export async function updateDeal(db: Db, d: DealRow): Promise<void> {
  await db.query('update deal set address = $2, city = $3, price = $4, closing_on = $5 where id = $1', [
    d.id,
    d.address,
    d.city,
    d.price,
    d.closing_on,
  ]);
}

/** Deals newest first, by key: those with an id below `after`. */
export async function listDeals(
  db: Db,
  o: { after: string | null; search: string | null; limit: number },
): Promise<DealRow[]> {
  const r = await db.query<DealRow>(
    `select * from deal
     where ($1::text is null or id < $1)
       and ($2::text is null or address ilike $2 or city ilike $2)
     order by id desc limit $3`,
    [o.after, o.search, o.limit],
  );
  return r.rows;
}

/** The people of a deal, in the order in which they were added. */
export async function partiesOfDeal(db: Db, dealId: string): Promise<PartyRow[]> {
  return (await db.query<PartyRow>('select * from party where deal_id = $1 order by id', [dealId])).rows;
}

/** A person of a deal; null when there is none. */
export async function partyById(db: Db, id: string): Promise<PartyRow | null> {
  return (await db.query<PartyRow>('select * from party where id = $1', [id])).rows[0] ?? null;
}

/** A person of a deal, locked until the transaction ends. */
export async function lockParty(db: Db, id: string): Promise<PartyRow | null> {
  return (await db.query<PartyRow>('select * from party where id = $1 for update', [id])).rows[0] ?? null;
}

/** Which one of a side the next person is, from 1. */
export async function nextOrdinal(db: Db, dealId: string, side: Side): Promise<number> {
  const r = await db.query<{ n: number }>(
    'select coalesce(max(ordinal), 0)::int + 1 as n from party where deal_id = $1 and side = $2',
    [dealId, side],
  );
  return itemAt(r.rows, 0).n;
}

/** Keeps a person of a deal. */
export async function insertParty(db: Db, p: PartyRow & { at: Date }): Promise<void> {
  await db.query(
    `insert into party (id, deal_id, side, ordinal, name, email, phone, company, created_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)`,
    [p.id, p.deal_id, p.side, p.ordinal, p.name, p.email, p.phone, p.company, p.at],
  );
}

/** Corrects a person of a deal. */
export async function updateParty(db: Db, p: PartyRow): Promise<void> {
  await db.query(
    'update party set side = $2, ordinal = $3, name = $4, email = $5, phone = $6, company = $7 where id = $1',
    [p.id, p.side, p.ordinal, p.name, p.email, p.phone, p.company],
  );
}

/** Takes a person out of a deal. */
export async function deleteParty(db: Db, id: string): Promise<void> {
  await db.query('delete from party where id = $1', [id]);
}
