import type { Draft } from '@gatepath/core/packet';
import type { Locks } from '@gatepath/core/shelf';
import type { AnyPacketStatus } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** A packet's row. It is small, because it is locked and listed often; the draft is in a table of its own. */
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
  /** The notice to many households that it belongs to. */
  notice_id: string | null;
  /** When a draft is to be sent and who scheduled it; whether warnings were accepted, and why it was not sent. */
  send_at: Date | null;
  send_by: string | null;
  /** The colleague in whose name it is sent then. */
  send_for: string | null;
  send_despite: boolean;
  send_problem: string | null;
}

const COLUMNS =
  'id, deal_id, name, status, created_by, created_at, seq, last_hash, gate, gate_count, marks_total, marks_done, hold_up, sent_at, ended_at, replaces_id, continues_id, notice_id, send_at, send_by, send_for, send_despite, send_problem';

/** The parties and gates of a packet as they are now. */
export interface PathRow {
  parties: Pick<Draft['parties'][number], 'id' | 'name' | 'ink' | 'act'>[];
  gates: Draft['gates'];
}

/** Returns the gates of a plan as lists show them. */
export const pathRow = (plan: { parties: PathRow['parties']; gates: PathRow['gates'] }): PathRow => ({
  parties: plan.parties.map(({ id, name, ink, act }) => ({ id, name, ink, act })),
  gates: plan.gates,
});

/** What a list of packets shows. */
export type PacketListRow = PacketRow & {
  parties: PathRow['parties'];
  gates: Draft['gates'];
  done: string[];
};

/** Inserts a packet that is in draft. */
export async function insertPacket(
  db: Db,
  p: {
    id: string;
    deal_id: string;
    name: string;
    draft: Draft;
    created_by: string;
    at: Date;
    kit?: KitOfDraft;
    noticeId?: string;
  },
): Promise<void> {
  await db.query(
    `insert into packet (id, deal_id, name, status, created_by, created_at, path, replaces_id, continues_id, notice_id)
     values ($1, $2, $3, 'drafting', $4, $5, $6, $7, $8, $9)`,
    [
      p.id,
      p.deal_id,
      p.name,
      p.created_by,
      p.at,
      JSON.stringify(pathRow(p.draft)),
      p.draft.replaces?.packetId ?? null,
      p.draft.continues?.packetId ?? null,
      p.noticeId ?? null,
    ],
  );
  await db.query(
    'insert into packet_draft (packet_id, draft, kit_id, kit_edition, locks) values ($1, $2, $3, $4, $5)',
    [p.id, JSON.stringify(p.draft), p.kit?.id ?? null, p.kit?.edition ?? null, JSON.stringify(p.kit?.locks ?? {})],
  );
  await savePacketDocuments(
    db,
    p.id,
    p.draft.documents.map((d) => d.id),
  );
}

/** Returns a packet; null if there is none. */
export async function packetById(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>(`select ${COLUMNS} from packet where id = $1`, [id])).rows[0] ?? null;
}

/** Returns packets by id. */
export async function packetsByIds(db: Db, ids: string[]): Promise<Map<string, PacketRow>> {
  const r = await db.query<PacketRow>(`select ${COLUMNS} from packet where id = any($1::text[])`, [ids]);
  return new Map(r.rows.map((row) => [row.id, row]));
}

/** Returns a packet, locked until the transaction ends: commands on one packet run one after another. */
export async function lockPacket(db: Db, id: string): Promise<PacketRow | null> {
  return (await db.query<PacketRow>(`select ${COLUMNS} from packet where id = $1 for update`, [id])).rows[0] ?? null;
}

/** Locks several packets in one order, so that two callers never wait for each other. */
export async function lockPackets(db: Db, ids: string[]): Promise<PacketRow[]> {
  const sql = `select ${COLUMNS} from packet where id = any($1::text[]) order by id for update`;
  return (await db.query<PacketRow>(sql, [ids])).rows;
}

/** A draft with its version. */
export interface DraftRow {
  draft: Draft;
  version: number;
  /** What the kit it was made from locks. */
  locks: Locks;
}

/** The kit a draft was made from. */
export interface KitOfDraft {
  id: string;
  edition: number;
  locks: Locks;
}

/** Returns the drafts of a deal that contain a person, locked until the transaction ends. */
export async function draftsWithParty(db: Db, dealId: string, partyId: string): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select p.id from packet p join packet_draft d on d.packet_id = p.id
     where p.deal_id = $1 and p.status = 'drafting' and d.draft->'parties' @> jsonb_build_array(jsonb_build_object('id', $2::text))
     order by p.id for update of p`,
    [dealId, partyId],
  );
  return r.rows.map((x) => x.id);
}

/** Returns a packet's draft; for a sent packet, the draft it was sent from. */
export async function draftOf(db: Db, packetId: string): Promise<DraftRow> {
  const r = await db.query<DraftRow>('select draft, version, locks from packet_draft where packet_id = $1', [packetId]);
  if (!r.rows[0]) throw new Error('a packet has a draft');
  return r.rows[0];
}

/** Returns the kit a packet was made from and what it locks; null if there was none. */
export async function kitOfPacket(db: Db, packetId: string): Promise<KitOfDraft | null> {
  const sql = `select kit_id as id, kit_edition as edition, locks from packet_draft where packet_id = $1 and kit_id is not null`;
  return (await db.query<KitOfDraft>(sql, [packetId])).rows[0] ?? null;
}

/** Returns the packets of several deals, newest first. */
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

/** Returns the ids of the documents in each draft of a deal, by packet. */
export async function documentsOfDrafts(db: Db, dealId: string): Promise<Map<string, string[]>> {
  const r = await db.query<{ packet_id: string; ids: string[] }>(
    `select d.packet_id, array_agg(d.document_id order by d.document_id) as ids
     from packet p join packet_document d on d.packet_id = p.id
     where p.deal_id = $1 and p.status = 'drafting' group by d.packet_id`,
    [dealId],
  );
  return new Map(r.rows.map((x) => [x.packet_id, x.ids]));
}

/** Saves which documents a packet was sent with. */
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

/** Saves a draft in its next version. */
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

/** Deletes a packet. */
export async function deletePacket(db: Db, id: string): Promise<void> {
  await db.query('delete from packet where id = $1', [id]);
}

/** A change of a draft: what was touched, on which screen. */
export interface DraftChangeRow {
  packet_id: string;
  version: number;
  client: string;
  member_name: string;
  touched: string[];
}

/** Records which parts of a draft were changed, in which version and on which screen. */
export async function insertChange(db: Db, c: DraftChangeRow): Promise<void> {
  await db.query(
    'insert into draft_change (packet_id, version, client, member_name, touched) values ($1, $2, $3, $4, $5)',
    [c.packet_id, c.version, c.client, c.member_name, JSON.stringify(c.touched)],
  );
}

/** Returns changes of a draft after a version that were made on other screens. */
export async function changesSince(db: Db, packetId: string, base: number, client: string): Promise<DraftChangeRow[]> {
  return (
    await db.query<DraftChangeRow>(
      'select * from draft_change where packet_id = $1 and version > $2 and client <> $3 order by version',
      [packetId, base, client],
    )
  ).rows;
}

/** Deletes the record of changes before a version. */
export async function deleteChanges(db: Db, packetId: string, before: number): Promise<void> {
  await db.query('delete from draft_change where packet_id = $1 and version < $2', [packetId, before]);
}

/**
 * Returns packets for which the calendar has something to do by now, the longest due first. Packets whose job is
 * enqueued or has failed for good are left out.
 */
export async function packetsToTick(db: Db, now: Date, most: number): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from packet p where next_tick_at is not null and next_tick_at <= $1 and status = 'at_gate'
       and not exists (select 1 from work_failure f where f.queue = 'tick' and f.thing = p.id)
       and not exists (select 1 from job j where j.name = 'tick' and j.thing = p.id)
     order by next_tick_at limit $2`,
    [now, most],
  );
  return r.rows.map((x) => x.id);
}

/** Sets the sender of a packet's messages. */
export async function setSender(db: Db, id: string, memberId: string): Promise<void> {
  await db.query('update packet set created_by = $2 where id = $1', [id, memberId]);
}

/** Returns drafts whose sending time has come. */
export async function packetsToSend(db: Db, now: Date, most: number): Promise<string[]> {
  const r = await db.query<{ id: string }>(
    `select id from packet p where send_at <= $1 and status = 'drafting'
       and not exists (select 1 from work_failure f where f.queue = 'tick' and f.thing = p.id)
       and not exists (select 1 from job j where j.name = 'tick' and j.thing = p.id)
     order by send_at limit $2`,
    [now, most],
  );
  return r.rows.map((x) => x.id);
}

/** Sets when a draft is to be sent. */
export async function setSendAt(
  db: Db,
  id: string,
  o: { at: Date; by: string; forId: string | null; despite: boolean },
): Promise<void> {
  await db.query(
    'update packet set send_at = $2, send_by = $3, send_for = $4, send_despite = $5, send_problem = null where id = $1',
    [id, o.at, o.by, o.forId, o.despite],
  );
}

/** Clears the sending time of a draft; with the reason if it could not be sent. */
export async function clearSendAt(db: Db, id: string, problem: string | null): Promise<void> {
  await db.query('update packet set send_at = null, send_problem = $2 where id = $1', [id, problem]);
}

/** Returns packets that continue or replace this one, or that it continues or replaces. */
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
