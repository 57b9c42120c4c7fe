/** SQL of the people of deals. */
import { itemAt } from '@gatepath/core/sure';
import type { Side } from '@gatepath/core/text';
import type { Db } from '../db/pool';

/** A person of a deal. */
export interface PartyRow {
  id: string;
  deal_id: string;
  side: Side;
  ordinal: number;
  name: string;
  email: string;
  phone: string | null;
  company: string;
  capacity: string;
  /** Their entry of the address book. */
  person_id: string | null;
}

/** Returns the people of several deals. */
export async function partiesOfDeals(db: Db, dealIds: string[]): Promise<PartyRow[]> {
  if (!dealIds.length) return [];
  return (await db.query<PartyRow>('select * from party where deal_id = any($1::text[]) order by id', [dealIds])).rows;
}

/** Returns the people of a deal in the order in which they were added. */
export async function partiesOfDeal(db: Db, dealId: string): Promise<PartyRow[]> {
  return (await db.query<PartyRow>('select * from party where deal_id = $1 order by id', [dealId])).rows;
}

/** Returns a person of a deal; null if there is none. */
export async function partyById(db: Db, id: string): Promise<PartyRow | null> {
  return (await db.query<PartyRow>('select * from party where id = $1', [id])).rows[0] ?? null;
}

/** Returns a person of a deal, locked until the transaction ends. */
export async function lockParty(db: Db, id: string): Promise<PartyRow | null> {
  return (await db.query<PartyRow>('select * from party where id = $1 for update', [id])).rows[0] ?? null;
}

/** Returns the number of the next person of a side, from 1. */
export async function nextOrdinal(db: Db, dealId: string, side: Side): Promise<number> {
  const r = await db.query<{ n: number }>(
    'select coalesce(max(ordinal), 0)::int + 1 as n from party where deal_id = $1 and side = $2',
    [dealId, side],
  );
  return itemAt(r.rows, 0).n;
}

/** Inserts a person of a deal. */
export async function insertParty(db: Db, p: PartyRow & { at: Date }): Promise<void> {
  await db.query(
    `insert into party (id, deal_id, side, ordinal, name, email, phone, company, created_at, person_id, capacity)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11)`,
    [p.id, p.deal_id, p.side, p.ordinal, p.name, p.email, p.phone, p.company, p.at, p.person_id, p.capacity],
  );
}

/** Corrects a person of a deal. */
export async function updateParty(db: Db, p: PartyRow): Promise<void> {
  await db.query(
    `update party set side = $2, ordinal = $3, name = $4, email = $5, phone = $6, company = $7, person_id = $8, capacity = $9
     where id = $1`,
    [p.id, p.side, p.ordinal, p.name, p.email, p.phone, p.company, p.person_id, p.capacity],
  );
}

/** Deletes a person of a deal. */
export async function deleteParty(db: Db, id: string): Promise<void> {
  await db.query('delete from party where id = $1', [id]);
}
