import type { Db } from '../db/pool';

export interface DocumentRow {
  id: string;
  deal_id: string;
  name: string;
  file_name: string;
  original_sha256: string;
  sha256: string;
  bytes: string;
  pages: { width: number; height: number }[];
  pages_read: number;
  status: 'reading' | 'ready' | 'failed';
  problem: string | null;
  facts_sha256: string | null;
  created_at: Date;
}

export async function insertDocument(db: Db, d: Omit<DocumentRow, 'bytes'> & { bytes: number }): Promise<void> {
  await db.query(
    `insert into document (id, deal_id, name, file_name, original_sha256, sha256, bytes, pages, pages_read, status, problem, facts_sha256, created_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13)`,
    [
      d.id,
      d.deal_id,
      d.name,
      d.file_name,
      d.original_sha256,
      d.sha256,
      d.bytes,
      JSON.stringify(d.pages),
      d.pages_read,
      d.status,
      d.problem,
      d.facts_sha256,
      d.created_at,
    ],
  );
}

export async function documentById(db: Db, id: string): Promise<DocumentRow | null> {
  return (await db.query<DocumentRow>('select * from document where id = $1', [id])).rows[0] ?? null;
}

export async function documentsOfDeal(db: Db, dealId: string): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>('select * from document where deal_id = $1 order by id', [dealId])).rows;
}

export async function documentsByIds(db: Db, ids: string[]): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>('select * from document where id = any($1::text[]) order by id', [ids])).rows;
}

/** Whether any document has the file as its original or prepared form. */
export async function fileInUse(db: Db, sha256: string): Promise<boolean> {
  const r = await db.query('select 1 from document where original_sha256 = $1 or sha256 = $1 limit 1', [sha256]);
  return r.rows.length > 0;
}

export async function unreadDocuments(db: Db): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>(`select * from document where status = 'reading' order by id`)).rows;
}

export async function setPagesRead(db: Db, id: string, n: number): Promise<void> {
  await db.query('update document set pages_read = $2 where id = $1', [id, n]);
}

export async function setDocumentReady(db: Db, id: string, factsSha256: string): Promise<void> {
  await db.query(
    `update document set status = 'ready', facts_sha256 = $2, pages_read = jsonb_array_length(pages) where id = $1`,
    [id, factsSha256],
  );
}

export async function setDocumentFailed(db: Db, id: string, problem: string): Promise<void> {
  await db.query(`update document set status = 'failed', problem = $2 where id = $1`, [id, problem]);
}

export async function renameDocument(db: Db, id: string, name: string): Promise<void> {
  await db.query('update document set name = $2 where id = $1', [id, name]);
}

export async function deleteDocument(db: Db, id: string): Promise<void> {
  await db.query('delete from document where id = $1', [id]);
}
