import type { Notice } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** The firm. */
export interface Firm {
  id: string;
  name: string;
  time_zone: string;
  /** Days without reminders. */
  holidays: string[];
  /** Whether what was on a paper the last time is placed at once, where nothing is in doubt. */
  place_remembered: boolean;
}

/** Only owners may invite and disable members; otherwise both roles have the same rights. */
export type Role = 'owner' | 'member';

/** A member. */
export interface Member {
  id: string;
  firm_id: string;
  name: string;
  email: string;
  role: Role;
  notices: Notice[];
  digest: boolean;
}

/** A member, disabled ones included. */
export interface AnyMember extends Member {
  disabled_at: Date | null;
  /** The member who took over. */
  handed_to: string | null;
}

const COLUMNS = 'id, firm_id, name, email, role, notices, digest';

/** Returns the firm; null before it is set up. */
export async function findFirm(db: Db): Promise<Firm | null> {
  const r = await db.query<Firm>(
    'select id, name, time_zone, holidays, place_remembered from firm order by id limit 1',
  );
  return r.rows[0] ?? null;
}

/** Saves the firm. */
export async function insertFirm(db: Db, f: Pick<Firm, 'id' | 'name' | 'time_zone'> & { at: Date }): Promise<void> {
  await db.query('insert into firm (id, name, time_zone, created_at) values ($1, $2, $3, $4)', [
    f.id,
    f.name,
    f.time_zone,
    f.at,
  ]);
}

/** Saves a member, with a hash of the password. */
export async function insertMember(
  db: Db,
  m: Omit<Member, 'notices' | 'digest'> & { password_hash: string; at: Date },
): Promise<void> {
  await db.query(
    'insert into member (id, firm_id, name, email, role, password_hash, created_at) values ($1, $2, $3, $4, $5, $6, $7)',
    [m.id, m.firm_id, m.name, m.email, m.role, m.password_hash, m.at],
  );
}

/** Returns the members who are not disabled, in the order they joined. */
export async function listMembers(db: Db): Promise<Member[]> {
  return (await db.query<Member>(`select ${COLUMNS} from member where disabled_at is null order by id`)).rows;
}

/** Returns all members, disabled ones included, oldest first. */
export async function allMembers(db: Db): Promise<AnyMember[]> {
  return (await db.query<AnyMember>(`select ${COLUMNS}, disabled_at, handed_to from member order by id`)).rows;
}

/** Returns a member, disabled ones included; null if there is none. */
export async function memberById(db: Db, id: string): Promise<AnyMember | null> {
  const sql = `select ${COLUMNS}, disabled_at, handed_to from member where id = $1`;
  return (await db.query<AnyMember>(sql, [id])).rows[0] ?? null;
}

/** Returns a member by email address, ignoring case, disabled ones included; null if there is none. */
export async function memberByEmail(db: Db, email: string): Promise<(AnyMember & { password_hash: string }) | null> {
  const r = await db.query<AnyMember & { password_hash: string }>(
    `select ${COLUMNS}, disabled_at, handed_to, password_hash from member where lower(email) = lower($1)`,
    [email],
  );
  return r.rows[0] ?? null;
}

/** Saves a session, with a hash of its secret. */
export async function insertSession(
  db: Db,
  s: { id: string; token_hash: string; member_id: string; browser: string; at: Date; expires: Date },
): Promise<void> {
  await db.query(
    'insert into session (id, token_hash, member_id, browser, created_at, expires_at) values ($1, $2, $3, $4, $5, $6)',
    [s.id, s.token_hash, s.member_id, s.browser, s.at, s.expires],
  );
}

/** A member's session. */
export interface SessionRow {
  id: string;
  token_hash: string;
  browser: string;
  created_at: Date;
  expires_at: Date;
}

/** Returns a member's valid sessions, newest first. */
export async function sessionsOf(db: Db, memberId: string, now: Date, most: number): Promise<SessionRow[]> {
  const r = await db.query<SessionRow>(
    `select id, token_hash, browser, created_at, expires_at from session where member_id = $1 and expires_at > $2
     order by created_at desc limit $3`,
    [memberId, now, most],
  );
  return r.rows;
}

/** Ends one of a member's sessions. @returns whether there was one */
export async function deleteSessionOf(db: Db, memberId: string, id: string): Promise<boolean> {
  const r = await db.query('delete from session where member_id = $1 and id = $2', [memberId, id]);
  return (r.rowCount ?? 0) > 0;
}

/** Ends all sessions of a member except one. */
export async function deleteSessionsOf(db: Db, memberId: string, but: string | null = null): Promise<void> {
  await db.query('delete from session where member_id = $1 and ($2::text is null or token_hash <> $2)', [
    memberId,
    but,
  ]);
}

/** Saves a member's password hash. */
export async function savePassword(db: Db, memberId: string, hash: string): Promise<void> {
  await db.query('update member set password_hash = $2 where id = $1', [memberId, hash]);
}

/** Returns the member of a session, if it is valid. */
export async function memberOfSession(db: Db, tokenHash: string, now: Date): Promise<Member | null> {
  const r = await db.query<Member>(
    `select m.id, m.firm_id, m.name, m.email, m.role, m.notices, m.digest from session s join member m on m.id = s.member_id
     where s.token_hash = $1 and s.expires_at > $2 and m.disabled_at is null`,
    [tokenHash, now],
  );
  return r.rows[0] ?? null;
}

/** Ends a session. */
export async function deleteSession(db: Db, tokenHash: string): Promise<void> {
  await db.query('delete from session where token_hash = $1', [tokenHash]);
}

/** Deletes expired sessions. */
export async function deleteExpiredSessions(db: Db, now: Date): Promise<void> {
  await db.query('delete from session where expires_at <= $1', [now]);
}

/** Saves what a member wants to be notified of. */
export async function saveNotices(db: Db, memberId: string, notices: Notice[], digest: boolean): Promise<void> {
  await db.query('update member set notices = $2, digest = $3 where id = $1', [
    memberId,
    JSON.stringify(notices),
    digest,
  ]);
}

/** Saves the days without reminders. */
export async function saveHolidays(db: Db, firmId: string, holidays: string[]): Promise<void> {
  await db.query('update firm set holidays = $2 where id = $1', [firmId, JSON.stringify(holidays)]);
}

/** Returns members who want a daily summary and have not had that of this day. */
export async function digestReaders(db: Db, day: string): Promise<Member[]> {
  const r = await db.query<Member>(
    `select ${COLUMNS} from member
     where digest and disabled_at is null and (digest_day is null or digest_day < $1) order by id`,
    [day],
  );
  return r.rows;
}

/** Records that a member had the summary of a day. @returns false if another server recorded it meanwhile */
export async function noteDigest(db: Db, memberId: string, day: string): Promise<boolean> {
  const r = await db.query(
    'update member set digest_day = $2 where id = $1 and (digest_day is null or digest_day < $2)',
    [memberId, day],
  );
  return (r.rowCount ?? 0) > 0;
}

/** Saves whether what was on a paper the last time is placed at once. */
export async function savePlaceRemembered(db: Db, firmId: string, on: boolean): Promise<void> {
  await db.query('update firm set place_remembered = $2 where id = $1', [firmId, on]);
}
