/** SQL for incoming contracts. */
import type { Db } from '../db/pool';

/** A contract that a member has uploaded to open a deal from it. */
export interface IncomingRow {
  id: string;
  member_id: string;
  created_at: Date;
  /** The deal it became; null until it is opened. */
  deal_id: string | null;
}

/** Inserts an incoming contract. */
export async function insertIncoming(db: Db, id: string, memberId: string, at: Date): Promise<void> {
  await db.query('insert into incoming (id, member_id, created_at) values ($1, $2, $3)', [id, memberId, at]);
}

/** Returns an incoming contract of a member; null if there is none. @param lock until the transaction ends */
export async function incomingOf(db: Db, id: string, memberId: string, lock = false): Promise<IncomingRow | null> {
  const sql = `select * from incoming where id = $1 and member_id = $2${lock ? ' for update' : ''}`;
  return (await db.query<IncomingRow>(sql, [id, memberId])).rows[0] ?? null;
}

/** Returns a member's contracts that have not become deals, newest first, with the names of their documents. */
export async function openIncoming(
  db: Db,
  memberId: string,
  limit: number,
): Promise<{ id: string; name: string; created_at: Date }[]> {
  const r = await db.query<{ id: string; name: string; created_at: Date }>(
    `select i.id, d.name, i.created_at from incoming i join document d on d.incoming_id = i.id
     where i.member_id = $1 and i.deal_id is null order by i.id desc limit $2`,
    [memberId, limit],
  );
  return r.rows;
}

/** Saves the deal that an incoming contract became. */
export async function setOpened(db: Db, id: string, dealId: string): Promise<void> {
  await db.query('update incoming set deal_id = $2 where id = $1', [id, dealId]);
}

/** Deletes an incoming contract with its document. */
export async function deleteIncoming(db: Db, id: string): Promise<void> {
  await db.query('delete from incoming where id = $1', [id]);
}

/** Returns contracts that have waited since before an instant, oldest first. */
export async function incomingBefore(db: Db, at: Date, limit: number): Promise<IncomingRow[]> {
  const r = await db.query<IncomingRow>(
    'select * from incoming where deal_id is null and created_at < $1 order by created_at limit $2',
    [at, limit],
  );
  return r.rows;
}

/** Someone of the address book. */
export interface KnownPerson {
  id: string;
  name: string;
  email: string;
  phone: string | null;
  company: string;
}

/** Returns people of the address book with any of some names, in any case. */
export async function peopleByNames(db: Db, names: string[], limit: number): Promise<KnownPerson[]> {
  if (!names.length) return [];
  const r = await db.query<KnownPerson>(
    `select id, name, email, phone, company from person
     where lower(name) = any($1::text[]) and merged_into is null order by name, id limit $2`,
    [names.map((n) => n.toLowerCase()), limit],
  );
  return r.rows;
}

/** Returns deals at an address that are not in the archive, newest first. */
export async function dealsAt(db: Db, address: string, limit: number): Promise<{ id: string; address: string }[]> {
  const r = await db.query<{ id: string; address: string }>(
    `select id, address from deal where lower(address) = lower($1) and archived_at is null order by id desc limit $2`,
    [address, limit],
  );
  return r.rows;
}
