import type { Db } from '../db/pool';

export interface PassRow {
  id: string;
  packet_id: string;
  party_id: string;
  ended_at: Date | null;
}

export async function insertPass(
  db: Db,
  p: { id: string; packet_id: string; party_id: string; token_hash: string; at: Date },
): Promise<void> {
  await db.query('insert into pass (id, packet_id, party_id, token_hash, created_at) values ($1, $2, $3, $4, $5)', [
    p.id,
    p.packet_id,
    p.party_id,
    p.token_hash,
    p.at,
  ]);
}

export async function passByHash(db: Db, tokenHash: string): Promise<PassRow | null> {
  const r = await db.query<PassRow>('select id, packet_id, party_id, ended_at from pass where token_hash = $1', [
    tokenHash,
  ]);
  return r.rows[0] ?? null;
}
