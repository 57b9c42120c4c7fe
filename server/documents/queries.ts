import type { DocumentType } from '@gatepath/core/reading';
import type { LeftOut, PaperKind } from '@gatepath/contract';
import type { Db } from '../db/pool';

/** A document. */
export interface DocumentRow {
  id: string;
  /** The deal it is in; null on the shelf. */
  deal_id: string | null;
  /** The form it is the paper of; null in a deal. */
  shelf_id: string | null;
  /** The incoming contract it is; null in a deal and on the shelf. */
  incoming_id: string | null;
  /** The form it was made from, and which edition of it. */
  form_id: string | null;
  form_edition: number | null;
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
  type: DocumentType;
  came_as: PaperKind;
  made_from: string[] | null;
  replaced_by: string | null;
  /** A sealed copy that came back for a late signing round. */
  sealed: boolean;
  /** What the original held besides its pages, and what of it was left out. */
  left_out: LeftOut[];
  /** ISO day; the last day it is valid. */
  ends_on: string | null;
  /** ISO day on which it was signed somewhere else. */
  elsewhere_on: string | null;
  /** Nobody signs it. */
  unsigned: boolean;
  /** The words of its first pages; null before they were looked up. */
  words: string | null;
  /** Scanned pages, from 1, whose words are to be recognized. */
  scan_pages: number[];
  /** Whether recognized words were laid over those pages, or skipped. */
  words_laid: boolean;
  /** The number of a sealed copy's own pages, without the signing record; null for any other document. */
  own_pages: number | null;
  /** The known document it is: see the folder `memory`. Null until it was compared. */
  known_id: string | null;
}

/** A document as it is inserted, before it is read. */
export type NewDocument = Omit<
  DocumentRow,
  'bytes' | 'ends_on' | 'elsewhere_on' | 'unsigned' | 'scan_pages' | 'words_laid' | 'own_pages' | 'known_id'
> & {
  bytes: number;
  /** Of a copy: what the original is. */
  known_id?: string | null;
};

const COLUMNS = '*, ends_on::text, elsewhere_on::text';

/** Inserts a document. */
export async function insertDocument(db: Db, d: NewDocument): Promise<void> {
  await db.query(
    `insert into document (id, deal_id, name, file_name, original_sha256, sha256, bytes, pages, pages_read, status, problem, facts_sha256, created_at, type, came_as, made_from, replaced_by, sealed, left_out, shelf_id, form_id, form_edition, words, known_id, incoming_id)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21, $22, $23, $24, $25)`,
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
      d.type,
      d.came_as,
      d.made_from && JSON.stringify(d.made_from),
      d.replaced_by,
      d.sealed,
      JSON.stringify(d.left_out),
      d.shelf_id,
      d.form_id,
      d.form_edition,
      d.words,
      d.known_id ?? null,
      d.incoming_id,
    ],
  );
}

/** Returns a document; null if there is none. */
export async function documentById(db: Db, id: string): Promise<DocumentRow | null> {
  return (await db.query<DocumentRow>(`select ${COLUMNS} from document where id = $1`, [id])).rows[0] ?? null;
}

/** Returns the documents of a deal, oldest first. */
export async function documentsOfDeal(db: Db, dealId: string): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>(`select ${COLUMNS} from document where deal_id = $1 order by id`, [dealId])).rows;
}

/** Returns the papers of a form, oldest first: earlier ones, and those that may replace the current one. */
export async function documentsOnShelf(db: Db, shelfId: string): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>(`select ${COLUMNS} from document where shelf_id = $1 order by id`, [shelfId]))
    .rows;
}

/** Maximum number of versions to go back. */
const MOST_BACK = 20;

/** Returns earlier versions of documents with the packets they were in, the nearest first. */
export async function earlierVersions(
  db: Db,
  ids: string[],
): Promise<{ id: string; now: string; packet_id: string }[]> {
  if (!ids.length) return [];
  const r = await db.query<{ id: string; now: string; packet_id: string }>(
    `with recursive old (id, now, n) as (
       select id, replaced_by, 1 from document where replaced_by = any($1::text[])
       union all
       select d.id, old.now, old.n + 1 from document d join old on d.replaced_by = old.id where old.n < ${MOST_BACK}
     )
     select old.id, old.now, p.packet_id from old join packet_document p on p.document_id = old.id
     order by old.n, p.packet_id desc limit 400`,
    [ids],
  );
  return r.rows;
}

/** Returns documents by their ids, oldest first. */
export async function documentsByIds(db: Db, ids: string[]): Promise<DocumentRow[]> {
  return (await db.query<DocumentRow>(`select ${COLUMNS} from document where id = any($1::text[]) order by id`, [ids]))
    .rows;
}

/** Saves how many pages of a sealed copy are its own. */
export async function setOwnPages(db: Db, id: string, pages: number): Promise<void> {
  await db.query('update document set own_pages = $2 where id = $1', [id, pages]);
}

/** Returns the packet and document a sealed copy was made of; null for any other file. */
export async function sealedFrom(db: Db, sha256: string): Promise<{ packet_id: string; document_id: string } | null> {
  const sql = 'select packet_id, document_id from packet_sealed where sha256 = $1 order by packet_id limit 1';
  return (await db.query<{ packet_id: string; document_id: string }>(sql, [sha256])).rows[0] ?? null;
}

/** Locks the replacements of one deal, so that transactions that change them run one after another. */
export async function lockReplacements(db: Db, place: string): Promise<void> {
  await db.query(`select pg_advisory_xact_lock(hashtextextended('replacements ' || $1, 0))`, [place]);
}

/** Returns whether a document was replaced by another, directly or through others. */
export async function isReplacedBy(db: Db, id: string, by: string): Promise<boolean> {
  const r = await db.query(
    `with recursive next as (
       select replaced_by from document where id = $1
       union select d.replaced_by from document d join next on d.id = next.replaced_by
     ) select 1 from next where replaced_by = $2 limit 1`,
    [id, by],
  );
  return r.rows.length > 0;
}

/** Returns a document, locked until the transaction ends. */
export async function lockDocument(db: Db, id: string): Promise<DocumentRow | null> {
  return (
    (await db.query<DocumentRow>(`select ${COLUMNS} from document where id = $1 for update`, [id])).rows[0] ?? null
  );
}

/** Saves how many pages have been read. @returns whether the document still exists */
export async function setPagesRead(db: Db, id: string, n: number): Promise<boolean> {
  return ((await db.query('update document set pages_read = $2 where id = $1', [id, n])).rowCount ?? 0) > 0;
}

/** Saves which pages are scans whose words are needed, and what was left out. */
export async function setScanPages(db: Db, id: string, pages: number[], leftOut: LeftOut[]): Promise<void> {
  await db.query('update document set scan_pages = $2, left_out = $3 where id = $1', [
    id,
    JSON.stringify(pages),
    JSON.stringify(leftOut),
  ]);
}

/** Replaces the file by the one with words laid over its pages. */
export async function setWordsLaid(
  db: Db,
  id: string,
  sha256: string,
  pages: DocumentRow['pages'],
  leftOut: LeftOut[],
): Promise<void> {
  await db.query('update document set sha256 = $2, pages = $3, left_out = $4, words_laid = true where id = $1', [
    id,
    sha256,
    JSON.stringify(pages),
    JSON.stringify(leftOut),
  ]);
}

/** Marks a document as read. A type chosen by a member stays; otherwise the suggested one is saved. */
export async function setDocumentReady(
  db: Db,
  id: string,
  factsSha256: string,
  suggested: DocumentType,
  words: string,
): Promise<void> {
  await db.query(
    `update document set status = 'ready', facts_sha256 = $2, pages_read = jsonb_array_length(pages),
       type = case when type = 'other' or (type = 'picture' and words_laid and $3 <> 'other') then $3 else type end, words = $4 where id = $1`,
    [id, factsSha256, suggested, words],
  );
}

/** Saves why the pages could not be read. */
export async function setDocumentFailed(db: Db, id: string, problem: string): Promise<void> {
  await db.query(`update document set status = 'failed', problem = $2 where id = $1`, [id, problem]);
}

/** Changes name, type or successor of a document. */
export async function updateDocument(
  db: Db,
  d: Pick<DocumentRow, 'id' | 'name' | 'type' | 'replaced_by' | 'ends_on' | 'elsewhere_on' | 'unsigned'>,
): Promise<void> {
  await db.query(
    `update document set name = $2, type = $3, replaced_by = $4, ends_on = $5, elsewhere_on = $6, unsigned = $7
     where id = $1`,
    [d.id, d.name, d.type, d.replaced_by, d.ends_on, d.elsewhere_on, d.unsigned],
  );
}

/** Marks documents as replaced by another one. */
export async function setReplaced(db: Db, dealId: string, ids: string[], by: string): Promise<void> {
  await db.query('update document set replaced_by = $3 where deal_id = $1 and id = any($2::text[]) and id <> $3', [
    dealId,
    ids,
    by,
  ]);
}

/** Ends that. @returns how many of the documents had been replaced */
export async function clearReplaced(db: Db, ids: string[]): Promise<number> {
  if (!ids.length) return 0;
  const r = await db.query(
    'update document set replaced_by = null where id = any($1::text[]) and replaced_by is not null returning id',
    [ids],
  );
  return r.rows.length;
}

/** Moves the document of an incoming contract into the deal that was opened with it. */
export async function moveToDeal(db: Db, id: string, dealId: string, type: DocumentType): Promise<void> {
  await db.query('update document set deal_id = $2, incoming_id = null, type = $3 where id = $1', [id, dealId, type]);
}

/** Returns whether an incoming contract was added by a member. */
export async function isIncomingOf(db: Db, incomingId: string, memberId: string): Promise<boolean> {
  const sql = 'select 1 from incoming where id = $1 and member_id = $2';
  return (await db.query(sql, [incomingId, memberId])).rows.length > 0;
}

/** Returns the document of an incoming contract; null if there is none. */
export async function documentOfIncoming(db: Db, incomingId: string): Promise<DocumentRow | null> {
  const sql = `select ${COLUMNS} from document where incoming_id = $1 order by id limit 1`;
  return (await db.query<DocumentRow>(sql, [incomingId])).rows[0] ?? null;
}

/** Deletes a document. */
export async function deleteDocument(db: Db, id: string): Promise<void> {
  await db.query('delete from document where id = $1', [id]);
}

/** Saves the words of a document's first pages. */
export async function setWords(db: Db, id: string, words: string): Promise<void> {
  await db.query('update document set words = $2 where id = $1', [id, words]);
}

/** Returns documents of a deal that were read before their words were saved. */
export async function documentsWithoutWords(db: Db, dealId: string): Promise<{ id: string; facts_sha256: string }[]> {
  const r = await db.query<{ id: string; facts_sha256: string }>(
    `select id, facts_sha256 from document
     where deal_id = $1 and words is null and facts_sha256 is not null and replaced_by is null order by id`,
    [dealId],
  );
  return r.rows;
}

/** Returns, by document id, the last day of those forms whose edition has expired. */
export async function endedForms(
  db: Db,
  papers: Pick<DocumentRow, 'id' | 'form_id'>[],
  today: string,
): Promise<Map<string, { formEnded: string }>> {
  const ids = [...new Set(papers.flatMap((d) => d.form_id ?? []))];
  if (!ids.length) return new Map();
  const r = await db.query<{ id: string; day: string }>(
    'select id, ends_on::text as day from shelf_item where id = any($1::text[]) and ends_on < $2::date',
    [ids, today],
  );
  const days = new Map(r.rows.map((x) => [x.id, x.day]));
  return new Map(
    papers.flatMap((d): [string, { formEnded: string }][] => {
      const day = d.form_id && days.get(d.form_id);
      return day ? [[d.id, { formEnded: day }]] : [];
    }),
  );
}

/** Returns the packets that contain a document, as drafts or after sending. */
export async function packetsWithDocument(db: Db, documentId: string): Promise<{ id: string; name: string }[]> {
  const r = await db.query<{ id: string; name: string }>(
    'select p.id, p.name from packet_document d join packet p on p.id = d.packet_id where d.document_id = $1 order by p.id',
    [documentId],
  );
  return r.rows;
}
