/** What is stored of what documents say about their deals. */
import type { Abstract } from '@gatepath/core/abstract';
import type { Db } from '../db/pool';

/** Returns what a document says about its deal; null if that has not been read. */
export async function abstractOfDocument(db: Db, documentId: string): Promise<Abstract | null> {
  const sql = 'select abstract from document_abstract where document_id = $1';
  return (await db.query<{ abstract: Abstract }>(sql, [documentId])).rows[0]?.abstract ?? null;
}

/** Saves what a document says about its deal, unless the document was deleted meanwhile. */
export async function saveAbstract(db: Db, documentId: string, abstract: Abstract): Promise<void> {
  await db.query(
    `insert into document_abstract (document_id, abstract)
     select id, $2 from document where id = $1
     on conflict (document_id) do update set abstract = excluded.abstract`,
    [documentId, JSON.stringify(abstract)],
  );
}

/** Returns what the documents of a deal say, by document id. */
export async function abstractsOfDeal(db: Db, dealId: string): Promise<Map<string, Abstract>> {
  const r = await db.query<{ document_id: string; abstract: Abstract }>(
    `select a.document_id, a.abstract from document_abstract a join document d on d.id = a.document_id
     where d.deal_id = $1 and d.replaced_by is null`,
    [dealId],
  );
  return new Map(r.rows.map((row) => [row.document_id, row.abstract]));
}

/** A statement that a member does not want reported again. */
export interface DismissedStatement {
  document_id: string;
  field: string;
  value: string;
}

/** Returns the statements of a deal's documents that members have dismissed. */
export async function dismissedStatements(db: Db, dealId: string): Promise<DismissedStatement[]> {
  const r = await db.query<DismissedStatement>(
    `select s.document_id, s.field, s.value from dismissed_statement s join document d on d.id = s.document_id
     where d.deal_id = $1`,
    [dealId],
  );
  return r.rows;
}

/** Dismisses a statement of a document. */
export async function dismissStatement(db: Db, s: DismissedStatement): Promise<void> {
  await db.query(
    `insert into dismissed_statement (document_id, field, value) values ($1, $2, $3) on conflict do nothing`,
    [s.document_id, s.field, s.value],
  );
}
