import type { Db } from '../db/pool';

/** The binder of a deal: how far it is, and its file. */
export interface BinderRow {
  deal_id: string;
  status: 'making' | 'ready' | 'failed';
  done: number;
  pieces: number;
  sha256: string | null;
  bytes: string | null;
  asked_at: Date;
  made_at: Date | null;
}

/** Returns the binder of a deal; null if none was made. */
export async function binderOf(db: Db, dealId: string): Promise<BinderRow | null> {
  return (await db.query<BinderRow>('select * from binder where deal_id = $1', [dealId])).rows[0] ?? null;
}

/** Asks for a binder anew; the one before stays until the new one is made. */
export async function askForBinder(db: Db, dealId: string, at: Date): Promise<void> {
  await db.query(
    `insert into binder (deal_id, status, asked_at) values ($1, 'making', $2)
     on conflict (deal_id) do update set status = 'making', done = 0, pieces = 0, asked_at = $2`,
    [dealId, at],
  );
}

/** Saves the progress of a binder. */
export async function noteProgress(db: Db, dealId: string, done: number, pieces: number): Promise<void> {
  await db.query('update binder set done = $2, pieces = $3 where deal_id = $1', [dealId, done, pieces]);
}

/** Keeps the finished file. @returns the file it takes the place of */
export async function saveBinder(
  db: Db,
  dealId: string,
  file: { sha256: string; bytes: number },
  at: Date,
): Promise<string | null> {
  const was = await binderOf(db, dealId);
  await db.query(
    `update binder set status = 'ready', sha256 = $2, bytes = $3, made_at = $4, done = pieces where deal_id = $1`,
    [dealId, file.sha256, file.bytes, at],
  );
  return was?.sha256 && was.sha256 !== file.sha256 ? was.sha256 : null;
}

/** Records that making a binder failed. */
export async function binderFailed(db: Db, dealId: string): Promise<void> {
  await db.query(`update binder set status = 'failed' where deal_id = $1`, [dealId]);
}
