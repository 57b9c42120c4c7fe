import type { Hand } from '@gatepath/core/packet';
import type { Db } from '../db/pool';

/** A signing link. */
export interface LinkRow {
  id: string;
  packet_id: string;
  party_id: string;
  ended_at: Date | null;
  host_id: string | null;
}

/** Inserts a link; of its secret only a hash. */
export async function insertLink(
  db: Db,
  p: {
    id: string;
    packet_id: string;
    party_id: string;
    token_hash: string;
    host_id: string | null;
    /** Whether it was opened from a person's own page. */
    own?: boolean;
    at: Date;
  },
): Promise<void> {
  await db.query(
    'insert into signing_link (id, packet_id, party_id, token_hash, host_id, own, created_at) values ($1, $2, $3, $4, $5, $6, $7)',
    [p.id, p.packet_id, p.party_id, p.token_hash, p.host_id, p.own ?? false, p.at],
  );
}

/** Ends links that were opened from an own page, except the newest. */
export async function endOlderOwn(db: Db, packetId: string, partyId: string, most: number, at: Date): Promise<void> {
  await db.query(
    `update signing_link set ended_at = $4 where own and ended_at is null and packet_id = $1 and party_id = $2
       and id not in (select id from signing_link where own and ended_at is null and packet_id = $1 and party_id = $2 order by id desc limit $3)`,
    [packetId, partyId, most, at],
  );
}

/** Returns links by the hashes of their secrets. */
export async function linksByHash(db: Db, hashes: string[]): Promise<Map<string, LinkRow>> {
  const r = await db.query<LinkRow & { token_hash: string }>(
    'select token_hash, id, packet_id, party_id, ended_at, host_id from signing_link where token_hash = any($1::text[])',
    [hashes],
  );
  return new Map(r.rows.map((row) => [row.token_hash, row]));
}

/** Ends the links of a party, or of the whole packet, and their proofs of a second step. */
export async function endLinksOf(db: Db, packetId: string, partyId: string | null, at: Date): Promise<void> {
  await db.query(
    'update signing_link set ended_at = $3 where packet_id = $1 and ($2::text is null or party_id = $2) and ended_at is null',
    [packetId, partyId, at],
  );
  await db.query('delete from link_proof where packet_id = $1 and ($2::text is null or party_id = $2)', [
    packetId,
    partyId,
  ]);
}

/** Records when a link was last used. */
export async function touchLink(db: Db, id: string, at: Date): Promise<void> {
  await db.query('update signing_link set seen_at = $2 where id = $1', [id, at]);
}

/** Returns when each party was last seen. */
export async function seenOf(db: Db, packetId: string): Promise<Map<string, string>> {
  const r = await db.query<{ party_id: string; seen: Date }>(
    'select party_id, max(seen_at) as seen from signing_link where packet_id = $1 and seen_at is not null group by party_id',
    [packetId],
  );
  return new Map(r.rows.map((x) => [x.party_id, x.seen.toISOString()]));
}

/** A party's second step. */
export interface StepRow {
  packet_id: string;
  party_id: string;
  access_hash: string | null;
  /** For whom the code was hashed; null in old rows, which were hashed for their own packet and party. */
  access_for: string | null;
  code_hash: string | null;
  code_at: Date | null;
  tries: number;
}

/** Returns a party's second step, locked until the transaction ends: tries are counted one after another. */
export async function stepOf(db: Db, packetId: string, partyId: string): Promise<StepRow | null> {
  const r = await db.query<StepRow>('select * from second_step where packet_id = $1 and party_id = $2 for update', [
    packetId,
    partyId,
  ]);
  return r.rows[0] ?? null;
}

/** Returns whether a one-time code was sent. */
export async function isCodeSent(db: Db, packetId: string, partyId: string): Promise<boolean> {
  const r = await db.query(
    'select 1 from second_step where packet_id = $1 and party_id = $2 and code_hash is not null',
    [packetId, partyId],
  );
  return r.rows.length > 0;
}

/** Saves the hash of the access code that the sender chose. */
export async function saveAccessCode(
  db: Db,
  packetId: string,
  partyId: string,
  hash: string,
  accessedFor: string,
): Promise<void> {
  await db.query(
    `insert into second_step (packet_id, party_id, access_hash, access_for) values ($1, $2, $3, $4)
     on conflict (packet_id, party_id) do update set access_hash = excluded.access_hash, access_for = excluded.access_for`,
    [packetId, partyId, hash, accessedFor],
  );
}

/** Copies access codes to a new version of a packet, whose people were told them already. */
export async function carryAccessCodes(db: Db, fromPacket: string, toPacket: string): Promise<void> {
  await db.query(
    `insert into second_step (packet_id, party_id, access_hash, access_for)
     select $2, party_id, access_hash, coalesce(access_for, packet_id || ':' || party_id) from second_step
     where packet_id = $1 and access_hash is not null on conflict do nothing`,
    [fromPacket, toPacket],
  );
}

/** Returns the parties of a packet that have an access code. */
export async function haveAccessCodes(db: Db, packetId: string): Promise<Set<string>> {
  const r = await db.query<{ party_id: string }>(
    'select party_id from second_step where packet_id = $1 and access_hash is not null',
    [packetId],
  );
  return new Set(r.rows.map((x) => x.party_id));
}

/** Saves the hash of a one-time code. */
export async function saveCode(
  db: Db,
  packetId: string,
  partyId: string,
  hash: string | null,
  at: Date,
): Promise<void> {
  await db.query(
    `insert into second_step (packet_id, party_id, code_hash, code_at) values ($1, $2, $3, $4)
     on conflict (packet_id, party_id) do update set code_hash = excluded.code_hash, code_at = excluded.code_at`,
    [packetId, partyId, hash, at],
  );
}

/** Saves the number of a party's wrong codes. */
export async function saveTries(db: Db, packetId: string, partyId: string, tries: number): Promise<void> {
  await db.query(
    `insert into second_step (packet_id, party_id, tries) values ($1, $2, $3)
     on conflict (packet_id, party_id) do update set tries = excluded.tries`,
    [packetId, partyId, tries],
  );
}

/** Deletes the count of a party's wrong codes, and the code: it was used. */
export async function clearTries(db: Db, packetId: string, partyId: string): Promise<void> {
  await db.query('update second_step set tries = 0, code_hash = null where packet_id = $1 and party_id = $2', [
    packetId,
    partyId,
  ]);
}

/** Saves that the second step was passed in one browser. */
export async function insertProof(
  db: Db,
  p: { token_hash: string; packet_id: string; party_id: string; at: Date },
): Promise<void> {
  await db.query('insert into link_proof (token_hash, packet_id, party_id, created_at) values ($1, $2, $3, $4)', [
    p.token_hash,
    p.packet_id,
    p.party_id,
    p.at,
  ]);
}

/** Returns whether the second step was passed in the browser that has this secret. */
export async function proofExists(db: Db, hash: string, packetId: string, partyId: string): Promise<boolean> {
  const r = await db.query('select 1 from link_proof where token_hash = $1 and packet_id = $2 and party_id = $3', [
    hash,
    packetId,
    partyId,
  ]);
  return r.rows.length > 0;
}

/** Keeps that a party added a picture of a hand. */
export async function insertPicture(db: Db, packetId: string, partyId: string, sha256: string): Promise<void> {
  await db.query('insert into hand_picture (packet_id, party_id, sha256) values ($1, $2, $3) on conflict do nothing', [
    packetId,
    partyId,
    sha256,
  ]);
}

/** Returns the hashes of the pictures a party added. */
export async function picturesAdded(db: Db, packetId: string, partyId: string): Promise<string[]> {
  const r = await db.query<{ sha256: string }>(
    'select sha256 from hand_picture where packet_id = $1 and party_id = $2',
    [packetId, partyId],
  );
  return r.rows.map((x) => x.sha256);
}

/** Keeps a hand for whoever owns an address. */
export async function saveHand(db: Db, ownerHash: string, hand: Hand, at: Date): Promise<void> {
  await db.query(
    `insert into saved_hand (owner_hash, hand, kept_at) values ($1, $2, $3)
     on conflict (owner_hash) do update set hand = excluded.hand, kept_at = excluded.kept_at`,
    [ownerHash, JSON.stringify(hand), at],
  );
}

/** Returns the hand saved for the owner of an address; null if there is none. */
export async function savedHand(db: Db, ownerHash: string): Promise<Hand | null> {
  return (
    (await db.query<{ hand: Hand }>('select hand from saved_hand where owner_hash = $1', [ownerHash])).rows[0]?.hand ??
    null
  );
}

/** Deletes the hand saved for an address. */
export async function deleteHand(db: Db, ownerHash: string): Promise<void> {
  await db.query('delete from saved_hand where owner_hash = $1', [ownerHash]);
}
