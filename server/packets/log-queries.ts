/** SQL of the log: events, the acts in it, snapshots. */
import type { PacketEvent } from '@gatepath/core/routing';
import type { Db } from '../db/pool';

/** An event with its hashes. */
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

/** Appends events with their hashes. */
export async function insertEvents(db: Db, rows: (EventRow & { act_id: string | null })[]): Promise<void> {
  await db.query(
    `insert into packet_event (packet_id, seq, at, type, actor, origin, body, act_id, prev_hash, hash)
     select packet_id, seq, at, body->>'type', actor, origin, body, act_id, prev_hash, hash
     from jsonb_to_recordset($1::jsonb) as e(packet_id text, seq integer, at text, actor jsonb, origin jsonb, body jsonb,
       act_id text, prev_hash text, hash text)`,
    [JSON.stringify(rows)],
  );
}

/** Returns the events of a packet after a number, in order. */
export async function eventsAfter(db: Db, packetId: string, seq: number): Promise<EventRow[]> {
  const r = await db.query<EventRow>(
    `select packet_id, seq, at, actor, origin, body, prev_hash, hash from packet_event
     where packet_id = $1 and seq > $2 order by seq`,
    [packetId, seq],
  );
  return r.rows;
}

/** Returns the hash of one event; null if there is no event of that number. */
export async function hashAt(db: Db, packetId: string, seq: number): Promise<string | null> {
  const r = await db.query<{ hash: string }>('select hash from packet_event where packet_id = $1 and seq = $2', [
    packetId,
    seq,
  ]);
  return r.rows[0]?.hash ?? null;
}

/** Returns which of these acts are in the log already, each as "packet act". */
export async function actsThere(db: Db, acts: { packetId: string; actId: string }[]): Promise<Map<string, string>> {
  if (!acts.length) return new Map();
  const r = await db.query<{ packet_id: string; act_id: string; actor: string }>(
    `select e.packet_id, e.act_id, coalesce(e.actor->>'id', '') as actor from packet_event e
     join unnest($1::text[], $2::text[]) as a(packet_id, act_id) on a.packet_id = e.packet_id and a.act_id = e.act_id`,
    [acts.map((a) => a.packetId), acts.map((a) => a.actId)],
  );
  return new Map(r.rows.map((x) => [`${x.packet_id} ${x.act_id}`, x.actor]));
}

/** A snapshot of a packet's state. */
export interface SnapshotRow {
  packet_id: string;
  seq: number;
  hash: string;
  form: number;
  state: Uint8Array;
}

/** Returns the newest snapshot of a packet in this form; null if there is none. */
export async function snapshotOf(db: Db, packetId: string, form: number): Promise<SnapshotRow | null> {
  const r = await db.query<SnapshotRow>('select * from packet_snapshot where packet_id = $1 and form = $2', [
    packetId,
    form,
  ]);
  return r.rows[0] ?? null;
}

/** Saves a snapshot of a packet. */
export async function saveSnapshot(db: Db, s: SnapshotRow): Promise<void> {
  await db.query(
    `insert into packet_snapshot (packet_id, seq, hash, form, state) values ($1, $2, $3, $4, $5)
     on conflict (packet_id) do update set seq = excluded.seq, hash = excluded.hash, form = excluded.form, state = excluded.state`,
    [s.packet_id, s.seq, s.hash, s.form, Buffer.from(s.state)],
  );
}

/** Returns the last device each party acted from. */
export async function devicesOf(db: Db, packetId: string): Promise<Map<string, string>> {
  const r = await db.query<{ party_id: string; device: string | null }>(
    `select distinct on (body->>'partyId') body->>'partyId' as party_id, origin->>'device' as device
     from packet_event where packet_id = $1 and actor->>'kind' = 'party' and type in ('opened', 'agreed', 'party_done', 'hand_set')
     order by body->>'partyId', seq desc`,
    [packetId],
  );
  return new Map(r.rows.flatMap((x) => (x.device ? [[x.party_id, x.device]] : [])));
}
