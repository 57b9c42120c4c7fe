/** What is stored of documents seen before. */
import type { Db } from '../db/pool';

/** A known document: all documents that are the same paper, whatever was filled in. */
export interface KnownRow {
  id: string;
  print: number[];
  /** Whether what was on it may be offered. */
  offered: boolean;
}

/** Returns known documents that share keys with a fingerprint, those that share most first. */
export async function knownByKeys(db: Db, keys: number[], limit: number): Promise<KnownRow[]> {
  const r = await db.query<KnownRow>(
    `with near as (
       select known_id, count(*) as n from known_key where key = any($1::integer[])
       group by known_id order by n desc, known_id limit $2
     )
     select d.id, d.print, d.not_offered_since is null as offered
     from near join known_document d on d.id = near.known_id order by near.n desc, d.id`,
    [keys, limit],
  );
  return r.rows;
}

/** Returns a known document by its id; null if there is none. */
export async function knownById(db: Db, id: string): Promise<KnownRow | null> {
  const sql = 'select id, print, not_offered_since is null as offered from known_document where id = $1';
  return (await db.query<KnownRow>(sql, [id])).rows[0] ?? null;
}

/** Inserts a known document with its keys. */
export async function insertKnown(
  db: Db,
  id: string,
  print: readonly number[],
  keys: number[],
  at: Date,
): Promise<void> {
  await db.query('insert into known_document (id, print, created_at) values ($1, $2::integer[], $3)', [id, print, at]);
  await db.query('insert into known_key (key, known_id) select unnest($1::integer[]), $2', [keys, id]);
}

/** Saves which known document a document is. */
export async function setKnown(db: Db, documentId: string, knownId: string): Promise<void> {
  await db.query('update document set known_id = $2 where id = $1', [documentId, knownId]);
}

/** Saves that what was on a known document is not offered any more. */
export async function stopOffering(db: Db, id: string, at: Date): Promise<void> {
  await db.query('update known_document set not_offered_since = coalesce(not_offered_since, $2) where id = $1', [
    id,
    at,
  ]);
}

/** Deletes a known document that no document is any more. */
export async function deleteKnown(db: Db, id: string): Promise<void> {
  await db.query(
    'delete from known_document k where id = $1 and not exists (select 1 from document d where d.known_id = k.id)',
    [id],
  );
}

/** Returns the id of the newest document that is a known one and was read; null if there is none. */
export async function newestOfKnown(db: Db, knownId: string): Promise<string | null> {
  const sql = `select id from document where known_id = $1 and facts_sha256 is not null order by created_at desc, id desc limit 1`;
  return (await db.query<{ id: string }>(sql, [knownId])).rows[0]?.id ?? null;
}

/** A document of a packet that was sent. */
export interface SentRow {
  document_id: string;
  packet_id: string;
  executed: boolean;
  /** Whether it was declined, withdrawn or lapsed. */
  went_wrong: boolean;
  sent_at: Date;
  deal_id: string;
  address: string;
}

/** Number of the newest documents that are one known document, among which packets are searched. */
const MOST_DOCUMENTS = 500;

/**
 * Returns sent packets with a known document: executed ones, and the last ones. Packets that ended without being executed
 * come last.
 *
 * @param limit the number of executed ones, and of the last ones
 */
export async function sentWith(
  db: Db,
  knownId: string,
  exceptPacketId: string | null,
  limit: number,
): Promise<SentRow[]> {
  const r = await db.query<SentRow>(
    `with newest as (
       select id from document where known_id = $1 and facts_sha256 is not null and not sealed
       order by id desc limit ${MOST_DOCUMENTS}
     ), sent as (
       select d.id as document_id, p.id as packet_id, p.status = 'executed' as executed,
         p.status in ('declined', 'withdrawn', 'lapsed') as went_wrong, p.sent_at, l.id as deal_id, l.address
       from newest d join packet_document c on c.document_id = d.id join packet p on p.id = c.packet_id
         join deal l on l.id = p.deal_id
       where p.sent_at is not null and p.id is distinct from $2::text
     ), best as (
       (select * from sent order by went_wrong, executed desc, sent_at desc, packet_id limit $3)
       union (select * from sent order by went_wrong, sent_at desc, packet_id limit $3)
     )
     select * from best order by went_wrong, executed desc, sent_at desc, packet_id, document_id`,
    [knownId, exceptPacketId, limit],
  );
  return r.rows;
}

/** Returns the number of packets with a known document that were sent. */
export async function timesSent(db: Db, knownId: string): Promise<number> {
  const r = await db.query<{ n: number }>(
    `select count(distinct p.id)::int as n
     from document d join packet_document c on c.document_id = d.id join packet p on p.id = c.packet_id
     where d.known_id = $1 and p.sent_at is not null`,
    [knownId],
  );
  return r.rows[0]?.n ?? 0;
}

/** Returns the forms whose document is a known one, with that document. */
export async function formsOfKnown(db: Db, knownId: string): Promise<{ id: string; document_id: string }[]> {
  const r = await db.query<{ id: string; document_id: string }>(
    `select i.id, d.id as document_id from document d join shelf_item i on i.id = d.shelf_id
     where d.known_id = $1 and i.what = 'form' and i.retired_at is null order by i.id desc limit 20`,
    [knownId],
  );
  return r.rows;
}

/** Returns documents that were read before known documents were stored, in the order of their ids. */
export async function documentsToCompare(db: Db, after: string, limit: number): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from document
     where id > $1 and known_id is null and facts_sha256 is not null and not sealed order by id limit $2`,
    [after, limit],
  );
  return r.rows.map((row) => row.id);
}
