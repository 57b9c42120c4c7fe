/** SQL of the read models, which follow from the log and can be rebuilt. */
import type { FillValue } from '@gatepath/core/packet';
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';
import type { PathRow } from './queries';

/** A party of a packet as lists need it. */
export interface PacketPartyRow {
  packet_id: string;
  party_id: string;
  position: number;
  gate: number;
  status: string;
  side: string;
  act: string;
  asked_at: string | null;
  opened_at: string | null;
  agreed_at: string | null;
  done_at: string | null;
  last_act_at: string | null;
  marks_total: number;
  marks_done: number;
  arrived_at: string | null;
  /** The day something counts as delivered; null for acts that are not delivered. */
  counts_from: string | null;
  bounced: boolean;
  wants_letter: boolean;
  /** Name in lower case; `mailbox` is the address in lower case. */
  called: string;
  mailbox: string | null;
}

/** What events changed about packets; `path` is null if it stays as it is. */
export interface ProgressRow {
  id: string;
  status: AnyPacketStatus;
  seq: number;
  last_hash: string;
  gate: number;
  gate_count: number;
  marks_total: number;
  marks_done: number;
  hold_up: string;
  sent_at: string;
  ended_at: string | null;
  next_tick_at: string | null;
  seals_due: number;
  path: PathRow | null;
}

/** Saves the progress of packets. */
export async function saveProgress(db: Db, rows: ProgressRow[]): Promise<void> {
  if (!rows.length) return;
  await db.query(
    `update packet p set status = x.status, seq = x.seq, last_hash = x.last_hash, gate = x.gate, gate_count = x.gate_count,
       marks_total = x.marks_total, marks_done = x.marks_done, hold_up = x.hold_up, sent_at = x.sent_at, ended_at = x.ended_at,
       next_tick_at = x.next_tick_at, seals_due = x.seals_due, path = coalesce(x.path, p.path)
     from jsonb_to_recordset($1::jsonb) as x(id text, status text, seq integer, last_hash text, gate integer, gate_count integer,
       marks_total integer, marks_done integer, hold_up text, sent_at timestamptz, ended_at timestamptz, next_tick_at timestamptz,
       seals_due integer, path jsonb)
     where p.id = x.id`,
    // A JSON null would become a jsonb null, which is a value: missing values stay as they are.
    [JSON.stringify(rows.map(({ path, ...r }) => (path ? { ...r, path } : r)))],
  );
}

/** Saves the status of the parties of packets. */
export async function savePacketParties(db: Db, rows: PacketPartyRow[]): Promise<void> {
  if (!rows.length) return;
  await db.query(
    `insert into packet_party (packet_id, party_id, position, gate, status, side, act, asked_at, opened_at, agreed_at, done_at, last_act_at, marks_total, marks_done,
       arrived_at, counts_from, bounced, wants_letter, called, mailbox)
     select * from jsonb_to_recordset($1::jsonb) as p(packet_id text, party_id text, position integer, gate integer, status text,
       side text, act text, asked_at text, opened_at text, agreed_at text, done_at text, last_act_at text, marks_total integer, marks_done integer,
       arrived_at text, counts_from date, bounced boolean, wants_letter boolean, called text, mailbox text)
     on conflict (packet_id, party_id) do update set gate = excluded.gate, status = excluded.status, side = excluded.side, act = excluded.act, asked_at = excluded.asked_at,
       opened_at = excluded.opened_at, agreed_at = excluded.agreed_at, done_at = excluded.done_at, last_act_at = excluded.last_act_at,
       marks_total = excluded.marks_total, marks_done = excluded.marks_done, arrived_at = excluded.arrived_at,
       counts_from = excluded.counts_from, bounced = excluded.bounced, wants_letter = excluded.wants_letter,
       called = excluded.called, mailbox = excluded.mailbox`,
    [JSON.stringify(rows)],
  );
}

/** A filled mark. */
export interface FillRow {
  packet_id: string;
  mark_id: string;
  party_id: string;
  value: FillValue;
  at: string;
  seq: number;
}

/** Saves filled marks. */
export async function saveFills(db: Db, rows: FillRow[]): Promise<void> {
  if (!rows.length) return;
  await db.query(
    `insert into packet_fill (packet_id, mark_id, party_id, value, at, seq)
     select * from jsonb_to_recordset($1::jsonb) as f(packet_id text, mark_id text, party_id text, value jsonb, at text, seq integer)
     on conflict (packet_id, mark_id) do update set value = excluded.value, at = excluded.at, seq = excluded.seq`,
    [JSON.stringify(rows)],
  );
}

/** Removes fills that were taken back. */
export async function removeFills(db: Db, fills: { packetId: string; markId: string }[]): Promise<void> {
  if (!fills.length) return;
  await db.query(
    `delete from packet_fill f using unnest($1::text[], $2::text[]) as x(packet_id, mark_id)
     where f.packet_id = x.packet_id and f.mark_id = x.mark_id`,
    [fills.map((f) => f.packetId), fills.map((f) => f.markId)],
  );
}

/** Replaces the list of files a packet needs. */
export async function savePacketFiles(db: Db, packetId: string, files: string[]): Promise<void> {
  await db.query('delete from packet_file where packet_id = $1 and sha256 <> all($2::text[])', [packetId, files]);
  await db.query('insert into packet_file (packet_id, sha256) select $1, unnest($2::text[]) on conflict do nothing', [
    packetId,
    files,
  ]);
}

/** Saves the sealed copies of a packet. */
export async function saveSealed(
  db: Db,
  packetId: string,
  documents: { documentId: string; sha256: string }[],
): Promise<void> {
  await db.query(
    `insert into packet_sealed (packet_id, document_id, sha256) select $1, * from unnest($2::text[], $3::text[])
     on conflict (packet_id, document_id) do update set sha256 = excluded.sha256`,
    [packetId, documents.map((d) => d.documentId), documents.map((d) => d.sha256)],
  );
}

/** Returns all read-model rows of a packet in a stable order, to compare with a rebuild. */
export async function readModelOf(db: Db, packetId: string): Promise<unknown> {
  const one = async (sql: string) => (await db.query(sql, [packetId])).rows;
  return {
    packet: await one(
      'select id, status, seq, gate, gate_count, marks_total, marks_done, hold_up, sent_at, ended_at, next_tick_at, seals_due, path, last_hash from packet where id = $1',
    ),
    parties: await one('select * from packet_party where packet_id = $1 order by party_id'),
    fills: await one('select * from packet_fill where packet_id = $1 order by mark_id'),
    sealed: await one('select * from packet_sealed where packet_id = $1 order by document_id'),
    documents: await one('select * from packet_document where packet_id = $1 order by document_id'),
    files: await one('select * from packet_file where packet_id = $1 order by sha256'),
  };
}

/** Deletes all rows that a rebuild of a packet makes again. */
export async function clearReadModel(db: Db, packetId: string): Promise<void> {
  for (const table of ['packet_party', 'packet_fill', 'packet_sealed', 'packet_file'] as const)
    await db.query(`delete from ${table} where packet_id = $1`, [packetId]);
}
