import type { Draft } from '@gatepath/core/marks';
import type { FillValue, PacketEvent } from '@gatepath/core/routing';
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** A packet's row: small, so that whoever locks or lists packets reads little. Its draft lies apart. */
export interface PacketRow {
  id: string;
  deal_id: string;
  name: string;
  status: AnyPacketStatus;
  created_by: string;
  created_at: Date;
  seq: number;
  /** The hash of the last event; null before the first. */
  last_hash: string | null;
  gate: number;
  gate_count: number;
  marks_total: number;
  marks_done: number;
  hold_up: string;
  sent_at: Date | null;
  ended_at: Date | null;
  replaces_id: string | null;
  continues_id: string | null;
}

const COLUMNS =
  'id, deal_id, name, status, created_by, created_at, seq, last_hash, gate, gate_count, marks_total, marks_done, hold_up, sent_at, ended_at, replaces_id, continues_id';

/** Parties and gates of a packet as they stand now. */
export interface PathRow {
  parties: Pick<Draft['parties'][number], 'id' | 'name' | 'ink' | 'act'>[];
  gates: Draft['gates'];
}

export const pathRow = (plan: { parties: PathRow['parties']; gates: PathRow['gates'] }): PathRow => ({
  parties: plan.parties.map(({ id, name, ink, act }) => ({ id, name, ink, act })),
  gates: plan.gates,
});

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

/** What a list of packets shows. */
export type PacketListRow = PacketRow & {
  parties: PathRow['parties'];
  gates: Draft['gates'];
  done: string[];
};

export async function insertPacket(
  db: Db,
  p: { id: string; deal_id: string; name: string; draft: Draft; created_by: string; at: Date },
): Promise<void> {
  await db.query(
    `insert into packet (id, deal_id, name, status, created_by, created_at, path, replaces_id, continues_id)
     values ($1, $2, $3, 'drafting', $4, $5, $6, $7, $8)`,
    [
      p.id,
      p.deal_id,
      p.name,
      p.created_by,
      p.at,
      JSON.stringify(pathRow(p.draft)),
      p.draft.replaces?.packetId ?? null,
      p.draft.continues?.packetId ?? null,
    ],
  );
  await db.query('insert into packet_draft (packet_id, draft) values ($1, $2)', [p.id, JSON.stringify(p.draft)]);
  await savePacketDocuments(
    db,
    p.id,
    p.draft.documents.map((d) => d.id),
  );
}

export async function packetById(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>(`select ${COLUMNS} from packet where id = $1`, [id])).rows[0] ?? null;
}

/** Rows of packets by id. */
export async function packetsByIds(db: Db, ids: string[]): Promise<Map<string, PacketRow>> {
  const r = await db.query<PacketRow>(`select ${COLUMNS} from packet where id = any($1::text[])`, [ids]);
  return new Map(r.rows.map((row) => [row.id, row]));
}

/** The packet, locked until the transaction ends: commands on one packet go one after another. */
export async function lockPacket(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>(`select ${COLUMNS} from packet where id = $1 for update`, [id])).rows[0] ?? null;
}

/** Several packets, locked in one order, so that two who lock some of the same never wait for each other. */
export async function lockPackets(db: Db, ids: string[]): Promise<PacketRow[]> {
  const sql = `select ${COLUMNS} from packet where id = any($1::text[]) order by id for update`;
  return (await db.query<PacketRow>(sql, [ids])).rows;
}

export interface DraftRow {
  draft: Draft;
  version: number;
}

/** A packet's draft; of one that was sent, the draft it was sent from. */
export async function draftOf(db: Db, packetId: string): Promise<DraftRow> {
  const r = await db.query<DraftRow>('select draft, version from packet_draft where packet_id = $1', [packetId]);
  if (!r.rows[0]) throw new Error('a packet has a draft');
  return r.rows[0];
}

export async function packetsOfDeals(db: Db, dealIds: string[]): Promise<PacketListRow[]> {
  if (!dealIds.length) return [];
  const r = await db.query<PacketListRow>(
    `select ${COLUMNS}, path->'parties' as parties, path->'gates' as gates,
            coalesce((select jsonb_agg(pp.party_id) from packet_party pp where pp.packet_id = p.id and pp.status = 'done'), '[]') as done
     from packet p where p.deal_id = any($1::text[]) order by p.id desc`,
    [dealIds],
  );
  return r.rows;
}

/** Packets that hold a document, in their drafts or under way. */
export async function packetsWithDocument(db: Db, documentId: string): Promise<{ id: string; name: string }[]> {
  const r = await db.query<{ id: string; name: string }>(
    'select p.id, p.name from packet_document d join packet p on p.id = d.packet_id where d.document_id = $1 order by p.id',
    [documentId],
  );
  return r.rows;
}

export async function savePacketDocuments(db: Db, packetId: string, ids: string[]): Promise<void> {
  await db.query('delete from packet_document where packet_id = $1 and document_id <> all($2::text[])', [
    packetId,
    ids,
  ]);
  await db.query(
    'insert into packet_document (packet_id, document_id) select $1, unnest($2::text[]) on conflict do nothing',
    [packetId, ids],
  );
}

export async function saveDraft(db: Db, id: string, draft: Draft, version: number): Promise<void> {
  await db.query('update packet_draft set draft = $2, version = $3 where packet_id = $1', [
    id,
    JSON.stringify(draft),
    version,
  ]);
  await db.query('update packet set name = $2, path = $3 where id = $1', [
    id,
    draft.name,
    JSON.stringify(pathRow(draft)),
  ]);
  await savePacketDocuments(
    db,
    id,
    draft.documents.map((d) => d.id),
  );
}

export async function deletePacket(db: Db, id: string): Promise<void> {
  await db.query('delete from packet where id = $1', [id]);
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

/** Which of these acts are in the log already, each as "packet act". */
export async function actsThere(db: Db, acts: { packetId: string; actId: string }[]): Promise<Set<string>> {
  if (!acts.length) return new Set();
  const r = await db.query<{ packet_id: string; act_id: string }>(
    `select e.packet_id, e.act_id from packet_event e
     join unnest($1::text[], $2::text[]) as a(packet_id, act_id) on a.packet_id = e.packet_id and a.act_id = e.act_id`,
    [acts.map((a) => a.packetId), acts.map((a) => a.actId)],
  );
  return new Set(r.rows.map((x) => `${x.packet_id} ${x.act_id}`));
}

export interface SnapshotRow {
  packet_id: string;
  seq: number;
  hash: string;
  form: number;
  state: Uint8Array;
}

export async function snapshotOf(db: Db, packetId: string, form: number): Promise<SnapshotRow | null> {
  const r = await db.query<SnapshotRow>('select * from packet_snapshot where packet_id = $1 and form = $2', [
    packetId,
    form,
  ]);
  return r.rows[0] ?? null;
}

export async function saveSnapshot(db: Db, s: SnapshotRow): Promise<void> {
  await db.query(
    `insert into packet_snapshot (packet_id, seq, hash, form, state) values ($1, $2, $3, $4, $5)
     on conflict (packet_id) do update set seq = excluded.seq, hash = excluded.hash, form = excluded.form, state = excluded.state`,
    [s.packet_id, s.seq, s.hash, s.form, Buffer.from(s.state)],
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

/** What the events made of packets; `path` is null where it stays as it is. */
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
    // A JSON null would become a jsonb null, which is a value: what is not there stays as it is.
    [JSON.stringify(rows.map(({ path, ...r }) => (path ? { ...r, path } : r)))],
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

export async function dropFills(db: Db, fills: { packetId: string; markId: string }[]): Promise<void> {
  if (!fills.length) return;
  await db.query(
    `delete from packet_fill f using unnest($1::text[], $2::text[]) as x(packet_id, mark_id)
     where f.packet_id = x.packet_id and f.mark_id = x.mark_id`,
    [fills.map((f) => f.packetId), fills.map((f) => f.markId)],
  );
}

/** The files a packet needs from now on. */
export async function savePacketFiles(db: Db, packetId: string, files: string[]): Promise<void> {
  await db.query('delete from packet_file where packet_id = $1 and sha256 <> all($2::text[])', [packetId, files]);
  await db.query('insert into packet_file (packet_id, sha256) select $1, unnest($2::text[]) on conflict do nothing', [
    packetId,
    files,
  ]);
}

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

/** All read-model rows of a packet in a stable order: what a rebuild is compared with. */
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

export async function clearReadModel(db: Db, packetId: string): Promise<void> {
  for (const table of ['packet_party', 'packet_fill', 'packet_sealed', 'packet_file'])
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

/**
 * Packets for which the calendar has something to do by now: the first so many, the longest due
 * first. Those that are in work already, or were given up, are not among them.
 */
export async function packetsToTick(db: Db, now: Date, most: number): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from packet p where next_tick_at is not null and next_tick_at <= $1 and status = 'at_gate'
       and not exists (select 1 from work_failure f where f.queue = 'tick' and f.thing = p.id)
       and not exists (select 1 from pgboss.job j where j.name = 'tick' and j.singleton_key = p.id and j.state <= 'active')
     order by next_tick_at limit $2`,
    [now, most],
  );
  return r.rows.map((x) => x.id);
}

/** Packets that came of this one. */
export async function kinOf(
  db: Db,
  id: string,
): Promise<{ id: string; name: string; how: 'replaces' | 'continues' }[]> {
  const r = await db.query<{ id: string; name: string; how: 'replaces' | 'continues' }>(
    `select id, name, 'replaces' as how from packet where replaces_id = $1
     union all select id, name, 'continues' from packet where continues_id = $1 order by id`,
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
