import type { Db } from '../db/pool';

export interface Firm {
  id: string;
  name: string;
  time_zone: string;
}

export interface Member {
  id: string;
  firm_id: string;
  name: string;
  email: string;
}

export async function findFirm(db: Db): Promise<Firm | null> {
  const r = await db.query<Firm>('select id, name, time_zone from firm order by id limit 1');
  return r.rows[0] ?? null;
}

export async function insertFirm(db: Db, f: Firm & { at: Date }): Promise<void> {
  await db.query('insert into firm (id, name, time_zone, created_at) values ($1, $2, $3, $4)', [
    f.id,
    f.name,
    f.time_zone,
    f.at,
  ]);
}

export async function insertMember(db: Db, m: Member & { password_hash: string; at: Date }): Promise<void> {
  await db.query(
    'insert into member (id, firm_id, name, email, password_hash, created_at) values ($1, $2, $3, $4, $5, $6)',
    [m.id, m.firm_id, m.name, m.email, m.password_hash, m.at],
  );
}

export async function listMembers(db: Db): Promise<Member[]> {
  return (await db.query<Member>('select id, firm_id, name, email from member order by id')).rows;
}

export async function memberById(db: Db, id: string): Promise<Member | null> {
  return (await db.query<Member>('select id, firm_id, name, email from member where id = $1', [id])).rows[0] ?? null;
}

export async function memberByEmail(db: Db, email: string): Promise<(Member & { password_hash: string }) | null> {
  const r = await db.query<Member & { password_hash: string }>(
    'select id, firm_id, name, email, password_hash from member where lower(email) = lower($1)',
    [email],
  );
  return r.rows[0] ?? null;
}

export async function insertSession(
  db: Db,
  s: { token_hash: string; member_id: string; at: Date; expires: Date },
): Promise<void> {
  await db.query('insert into session (token_hash, member_id, created_at, expires_at) values ($1, $2, $3, $4)', [
    s.token_hash,
    s.member_id,
    s.at,
    s.expires,
  ]);
}

export async function memberOfSession(db: Db, tokenHash: string, now: Date): Promise<Member | null> {
  const r = await db.query<Member>(
    `select m.id, m.firm_id, m.name, m.email from session s join member m on m.id = s.member_id
     where s.token_hash = $1 and s.expires_at > $2`,
    [tokenHash, now],
  );
  return r.rows[0] ?? null;
}

export async function deleteSession(db: Db, tokenHash: string): Promise<void> {
  await db.query('delete from session where token_hash = $1', [tokenHash]);
}

export async function deleteExpiredSessions(db: Db, now: Date): Promise<void> {
  await db.query('delete from session where expires_at <= $1', [now]);
}
