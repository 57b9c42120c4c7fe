/** SQL about invitations, password resets and handovers. */
import type { Db } from '../db/pool';
import type { Role } from './queries';

/** An invitation. */
export interface InvitationRow {
  id: string;
  token_hash: string;
  name: string;
  email: string;
  role: Role;
  invited_by: string;
  created_at: Date;
  expires_at: Date;
}

/** Saves an invitation. An earlier one to the same address ends. */
export async function saveInvitation(db: Db, i: InvitationRow): Promise<void> {
  await db.query('delete from invitation where lower(email) = lower($1)', [i.email]);
  await db.query(
    `insert into invitation (id, token_hash, name, email, role, invited_by, created_at, expires_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [i.id, i.token_hash, i.name, i.email, i.role, i.invited_by, i.created_at, i.expires_at],
  );
}

/** Returns invitations that were not accepted, newest first, expired ones included. */
export async function invitations(db: Db): Promise<InvitationRow[]> {
  return (await db.query<InvitationRow>('select * from invitation order by created_at desc')).rows;
}

/** Returns the invitation of a link; null if it was accepted, withdrawn or has expired. */
export async function invitationByHash(db: Db, hash: string, now: Date): Promise<InvitationRow | null> {
  const sql = 'select * from invitation where token_hash = $1 and expires_at > $2';
  return (await db.query<InvitationRow>(sql, [hash, now])).rows[0] ?? null;
}

/** Accepts an invitation. Of several who try at once, one succeeds. */
export async function takeInvitation(db: Db, hash: string, now: Date): Promise<InvitationRow | null> {
  const sql = 'delete from invitation where token_hash = $1 and expires_at > $2 returning *';
  return (await db.query<InvitationRow>(sql, [hash, now])).rows[0] ?? null;
}

/** Withdraws an invitation. @returns whether there was one */
export async function deleteInvitation(db: Db, id: string): Promise<boolean> {
  return ((await db.query('delete from invitation where id = $1', [id])).rowCount ?? 0) > 0;
}

/** Saves a password reset. */
export async function saveReset(
  db: Db,
  r: { token_hash: string; member_id: string; at: Date; expires: Date },
): Promise<void> {
  await db.query('delete from password_reset where expires_at <= $1', [r.at]);
  await db.query('insert into password_reset (token_hash, member_id, created_at, expires_at) values ($1, $2, $3, $4)', [
    r.token_hash,
    r.member_id,
    r.at,
    r.expires,
  ]);
}

/** Returns the member whose password a link may reset; null if the link was used or has expired. */
export async function resetByHash(db: Db, hash: string, now: Date): Promise<string | null> {
  const r = await db.query<{ member_id: string }>(
    `select r.member_id from password_reset r join member m on m.id = r.member_id
     where r.token_hash = $1 and r.expires_at > $2 and m.disabled_at is null`,
    [hash, now],
  );
  return r.rows[0]?.member_id ?? null;
}

/** Deletes all password resets of a member. @returns their number */
export async function deleteResetsOf(db: Db, memberId: string): Promise<number> {
  return (await db.query('delete from password_reset where member_id = $1', [memberId])).rowCount ?? 0;
}

/** Locks the members until the transaction ends: changes are made one after another. */
export async function lockMembers(db: Db): Promise<void> {
  await db.query('select 1 from firm order by id limit 1 for update');
}

/** Records that a member was disabled, and who takes over. */
export async function saveDisabled(db: Db, memberId: string, toId: string, at: Date): Promise<void> {
  await db.query('update member set disabled_at = $2, handed_to = $3 where id = $1', [memberId, at, toId]);
}

/** Enables a member who was disabled. What was handed over stays where it is. */
export async function saveEnabled(db: Db, memberId: string): Promise<void> {
  await db.query('update member set disabled_at = null, handed_to = null where id = $1', [memberId]);
}

/** Hands everything of one member to another in one transaction: deals, drafts, packets, notices, forms and kits. */
export async function handOver(db: Db, fromId: string, toId: string): Promise<void> {
  await db.query(
    `insert into deal_member (deal_id, member_id) select deal_id, $2 from deal_member where member_id = $1
     on conflict do nothing`,
    [fromId, toId],
  );
  await db.query('delete from deal_member where member_id = $1', [fromId]);
  await db.query('delete from deal_item where member_id = $1', [fromId]);
  for (const column of ['created_by', 'send_by', 'send_for'] as const)
    await db.query(`update packet set ${column} = $2 where ${column} = $1`, [fromId, toId]);
  await db.query('update notice set created_by = $2 where created_by = $1', [fromId, toId]);
  await db.query('update shelf_item set owner_id = $2 where owner_id = $1', [fromId, toId]);
  await db.query('update shelf_item set users = users - $1, makers = makers - $1 where users ? $1 or makers ? $1', [
    fromId,
  ]);
  // Nobody sends in the name of a disabled member, nor they in anybody's.
  await db.query('delete from send_for where member_id = $1 or sender_id = $1', [fromId]);
}

/** Ends all access of a member: sessions, calendar addresses, ceremonies opened at their desk, password resets. */
export async function endWaysIn(db: Db, memberId: string, now: Date): Promise<void> {
  await db.query('delete from session where member_id = $1', [memberId]);
  await db.query('delete from feed where member_id = $1', [memberId]);
  await db.query('update signing_link set ended_at = $2 where host_id = $1 and ended_at is null', [memberId, now]);
  await db.query('delete from password_reset where member_id = $1', [memberId]);
}
