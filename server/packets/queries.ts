import type { Draft } from '@gatepath/core/marks';
import type { FillValue, PacketEvent } from '@gatepath/core/routing';
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';

export interface PacketRow {
  id: string;
  deal_id: string;
  name: string;
  status: AnyPacketStatus;
  draft: Draft;
  draft_version: number;
  created_by: string;
  created_at: Date;
  seq: number;
  gate: number;
  gate_count: number;
  marks_total: number;
  marks_done: number;
  hold_up: string;
  sent_at: Date | null;
  ended_at: Date | null;
  path: PathRow | null;
  next_tick_at: Date | null;
  seals_due: number;
}

/** Parties and gates of a sent packet as they stand now. */
export interface PathRow {
  parties: Pick<Draft['parties'][number], 'id' | 'name' | 'ink' | 'act'>[];
  gates: Draft['gates'];
}

export interface PacketPartyRow {
  packet_id: string;
  party_id: string;
  position: number;
  gate: number;
  status: string;
  asked_at: string | null;
  opened_at: string | null;
  agreed_at: string | null;
  done_at: string | null;
  last_act_at: string | null;
  marks_total: number;
  marks_done: number;
}

/** What a list of packets shows: the row without its marks, which can be many. */
export type PacketListRow = Omit<PacketRow, 'draft' | 'path' | 'next_tick_at' | 'seals_due'> & {
  parties: PathRow['parties'];
  gates: Draft['gates'];
  done: string[];
};

export async function insertPacket(
  db: Db,
  p: { id: string; deal_id: string; name: string; draft: Draft; created_by: string; at: Date },
): Promise<void> {
  await db.query(
    `insert into packet (id, deal_id, name, status, draft, created_by, created_at) values ($1, $2, $3, 'drafting', $4, $5, $6)`,
    [p.id, p.deal_id, p.name, JSON.stringify(p.draft), p.created_by, p.at],
  );
}

export async function packetById(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>('select * from packet where id = $1', [id])).rows[0] ?? null;
}

/** The packet, locked until the transaction ends: commands on one packet go one after another. */
export async function lockPacket(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>('select * from packet where id = $1 for update', [id])).rows[0] ?? null;
}

export async function packetsOfDeals(db: Db, dealIds: string[]): Promise<PacketListRow[]> {
  if (!dealIds.length) return [];
  const r = await db.query<PacketListRow>(
    `select p.id, p.deal_id, p.name, p.status, p.draft_version, p.created_by, p.created_at, p.seq, p.gate, p.gate_count,
            p.marks_total, p.marks_done, p.hold_up, p.sent_at, p.ended_at,
            coalesce(p.path->'parties', p.draft->'parties') as parties, coalesce(p.path->'gates', p.draft->'gates') as gates,
            coalesce((select jsonb_agg(pp.party_id) from packet_party pp where pp.packet_id = p.id and pp.status = 'done'), '[]') as done
     from packet p where p.deal_id = any($1::text[]) order by p.id desc`,
    [dealIds],
  );
  return r.rows;
}

export async function packetsWithDocument(
  db: Db,
  dealId: string,
  documentId: string,
): Promise<{ id: string; name: string }[]> {
  const r = await db.query<{ id: string; name: string }>(
    `select id, name from packet where deal_id = $1 and draft->'documents' @> jsonb_build_array(jsonb_build_object('id', $2::text))`,
    [dealId, documentId],
  );
  return r.rows;
}

export async function saveDraft(db: Db, id: string, draft: Draft, version: number): Promise<void> {
  await db.query('update packet set draft = $2, draft_version = $3, name = $4 where id = $1', [
    id,
    JSON.stringify(draft),
    version,
    draft.name,
  ]);
}

export async function deletePacket(db: Db, id: string): Promise<void> {
  await db.query('delete from packet where id = $1', [id]);
}

export async function unsealedPackets(db: Db): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from packet p where seals_due > 0
       or (status = 'executed' and not exists (select 1 from packet_sealed s where s.packet_id = p.id))`,
  );
  return r.rows.map((x) => x.id);
}

export interface EventRow {
  packet_id: string;
  seq: number;
  at: string;
  actor: PacketEvent['actor'];
  origin: PacketEvent['origin'];
  body: PacketEvent['body'];
  prev_hash: string;
  hash: string;
}

export async function insertEvents(db: Db, rows: (EventRow & { act_id: string | null })[]): Promise<void> {
  await db.query(
    `insert into packet_event (packet_id, seq, at, type, actor, origin, body, act_id, prev_hash, hash)
     select packet_id, seq, at, body->>'type', actor, origin, body, act_id, prev_hash, hash
     from jsonb_to_recordset($1::jsonb) as e(packet_id text, seq integer, at text, actor jsonb, origin jsonb, body jsonb,
       act_id text, prev_hash text, hash text)`,
    [JSON.stringify(rows)],
  );
}

export async function eventsAfter(db: Db, packetId: string, seq: number): Promise<EventRow[]> {
  const r = await db.query<EventRow>(
    `select packet_id, seq, at, actor, origin, body, prev_hash, hash from packet_event
     where packet_id = $1 and seq > $2 order by seq`,
    [packetId, seq],
  );
  return r.rows;
}

export async function hashAt(db: Db, packetId: string, seq: number): Promise<string | null> {
  const r = await db.query<{ hash: string }>('select hash from packet_event where packet_id = $1 and seq = $2', [
    packetId,
    seq,
  ]);
  return r.rows[0]?.hash ?? null;
}

export async function actExists(db: Db, packetId: string, actId: string): Promise<boolean> {
  return (
    (await db.query('select 1 from packet_event where packet_id = $1 and act_id = $2', [packetId, actId])).rows.length >
    0
  );
}

/** The last device each party acted from. */
export async function devicesOf(db: Db, packetId: string): Promise<Map<string, string>> {
  const r = await db.query<{ party_id: string; device: string | null }>(
    `select distinct on (body->>'partyId') body->>'partyId' as party_id, origin->>'device' as device
     from packet_event where packet_id = $1 and actor->>'kind' = 'party' and type in ('opened', 'agreed', 'party_done', 'hand_set')
     order by body->>'partyId', seq desc`,
    [packetId],
  );
  return new Map(r.rows.flatMap((x) => (x.device ? [[x.party_id, x.device]] : [])));
}

export async function savePacketProgress(
  db: Db,
  p: Pick<PacketRow, 'id' | 'status' | 'seq' | 'gate' | 'gate_count' | 'marks_total' | 'marks_done' | 'hold_up'> & {
    sent_at: string;
    ended_at: string | null;
    next_tick_at: string | null;
    seals_due: number;
    /** null leaves it as it is. */
    path: PathRow | null;
  },
): Promise<void> {
  await db.query(
    `update packet set status = $2, seq = $3, gate = $4, gate_count = $5, marks_total = $6, marks_done = $7, hold_up = $8,
       sent_at = $9, ended_at = $10, next_tick_at = $11, seals_due = $12, path = coalesce($13::jsonb, path) where id = $1`,
    [
      p.id,
      p.status,
      p.seq,
      p.gate,
      p.gate_count,
      p.marks_total,
      p.marks_done,
      p.hold_up,
      p.sent_at,
      p.ended_at,
      p.next_tick_at,
      p.seals_due,
      p.path && JSON.stringify(p.path),
    ],
  );
}

export async function savePacketParties(db: Db, rows: PacketPartyRow[]): Promise<void> {
  if (!rows.length) return;
  await db.query(
    `insert into packet_party (packet_id, party_id, position, gate, status, asked_at, opened_at, agreed_at, done_at, last_act_at, marks_total, marks_done)
     select * from jsonb_to_recordset($1::jsonb) as p(packet_id text, party_id text, position integer, gate integer, status text,
       asked_at text, opened_at text, agreed_at text, done_at text, last_act_at text, marks_total integer, marks_done integer)
     on conflict (packet_id, party_id) do update set gate = excluded.gate, status = excluded.status, asked_at = excluded.asked_at,
       opened_at = excluded.opened_at, agreed_at = excluded.agreed_at, done_at = excluded.done_at, last_act_at = excluded.last_act_at,
       marks_total = excluded.marks_total, marks_done = excluded.marks_done`,
    [JSON.stringify(rows)],
  );
}

export interface FillRow {
  packet_id: string;
  mark_id: string;
  party_id: string;
  value: FillValue;
  at: string;
  seq: number;
}

export async function saveFills(db: Db, rows: FillRow[]): Promise<void> {
  if (!rows.length) return;
  await db.query(
    `insert into packet_fill (packet_id, mark_id, party_id, value, at, seq)
     select * from jsonb_to_recordset($1::jsonb) as f(packet_id text, mark_id text, party_id text, value jsonb, at text, seq integer)
     on conflict (packet_id, mark_id) do update set value = excluded.value, at = excluded.at, seq = excluded.seq`,
    [JSON.stringify(rows)],
  );
}

export async function dropFills(db: Db, packetId: string, markIds: string[]): Promise<void> {
  if (!markIds.length) return;
  await db.query('delete from packet_fill where packet_id = $1 and mark_id = any($2::text[])', [packetId, markIds]);
}

export async function saveSealed(
  db: Db,
  packetId: string,
  documents: { documentId: string; sha256: string }[],
): Promise<void> {
  for (const d of documents)
    await db.query(
      `insert into packet_sealed (packet_id, document_id, sha256) values ($1, $2, $3)
       on conflict (packet_id, document_id) do update set sha256 = excluded.sha256`,
      [packetId, d.documentId, d.sha256],
    );
}

/** All read-model rows of a packet in a stable order: what a rebuild is compared with. */
export async function readModelOf(db: Db, packetId: string): Promise<unknown> {
  const one = async (sql: string) => (await db.query(sql, [packetId])).rows;
  return {
    packet: await one(
      'select id, status, seq, gate, gate_count, marks_total, marks_done, hold_up, sent_at, ended_at, next_tick_at, seals_due, path from packet where id = $1',
    ),
    parties: await one('select * from packet_party where packet_id = $1 order by party_id'),
    fills: await one('select * from packet_fill where packet_id = $1 order by mark_id'),
    sealed: await one('select * from packet_sealed where packet_id = $1 order by document_id'),
  };
}

export async function clearReadModel(db: Db, packetId: string): Promise<void> {
  for (const table of ['packet_party', 'packet_fill', 'packet_sealed'])
    await db.query(`delete from ${table} where packet_id = $1`, [packetId]);
}

export interface DraftChangeRow {
  packet_id: string;
  version: number;
  client: string;
  member_name: string;
  touched: string[];
}

export async function insertChange(db: Db, c: DraftChangeRow): Promise<void> {
  await db.query(
    'insert into draft_change (packet_id, version, client, member_name, touched) values ($1, $2, $3, $4, $5)',
    [c.packet_id, c.version, c.client, c.member_name, JSON.stringify(c.touched)],
  );
}

/** Changes of a draft after a version that were made at other screens. */
export async function changesSince(db: Db, packetId: string, base: number, client: string): Promise<DraftChangeRow[]> {
  return (
    await db.query<DraftChangeRow>(
      'select * from draft_change where packet_id = $1 and version > $2 and client <> $3 order by version',
      [packetId, base, client],
    )
  ).rows;
}

export async function forgetChanges(db: Db, packetId: string, before: number): Promise<void> {
  await db.query('delete from draft_change where packet_id = $1 and version < $2', [packetId, before]);
}

/** Packets for which the calendar has something to do by now. */
export async function packetsToTick(db: Db, now: Date): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from packet where next_tick_at is not null and next_tick_at <= $1 and status = 'at_gate' order by next_tick_at`,
    [now],
  );
  return r.rows.map((x) => x.id);
}

/** Packets that came of this one, and the one it came of. */
export async function kinOf(
  db: Db,
  id: string,
): Promise<{ id: string; name: string; how: 'replaces' | 'continues' }[]> {
  const r = await db.query<{ id: string; name: string; how: 'replaces' | 'continues' }>(
    `select id, name, case when draft->'replaces'->>'packetId' = $1 then 'replaces' else 'continues' end as how
     from packet where draft->'replaces'->>'packetId' = $1 or draft->'continues'->>'packetId' = $1 order by id`,
    [id],
  );
  return r.rows;
}

/** A member's packets that are on their way, longest first. */
export async function packetsUnderWay(
  db: Db,
  memberId: string,
): Promise<{ name: string; address: string; gate: number; gate_count: number; hold_up: string }[]> {
  const r = await db.query<{ name: string; address: string; gate: number; gate_count: number; hold_up: string }>(
    `select p.name, d.address, p.gate, p.gate_count, p.hold_up from packet p join deal d on d.id = p.deal_id
     where p.created_by = $1 and p.status = 'at_gate' order by p.sent_at limit 200`,
    [memberId],
  );
  return r.rows;
}
