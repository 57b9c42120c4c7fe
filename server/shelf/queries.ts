/** SQL of the shelf: items in preparation, their editions, and what was made from them. */
import type { Draft } from '@gatepath/core/packet';
import type { Locks, Members } from '@gatepath/core/shelf';
import type { DocumentType } from '@gatepath/core/reading';
import type { Written } from '@gatepath/core/writing';
import type { Db } from '../db/pool';
import type { DocumentRow } from '../documents/queries';

/** An item of the shelf. */
export interface ShelfRow {
  id: string;
  what: 'form' | 'kit';
  name: string;
  draft: Draft;
  version: number;
  edition: number;
  changed: boolean;
  /** ISO day. */
  ends_on: string | null;
  locks: Locks;
  last_in: number | null;
  owner_id: string;
  users: Members;
  makers: Members;
  retired_at: Date | null;
  /** The text of a form written here; null for a form made from a file. */
  written: Written | null;
  written_version: number;
  created_by: string;
  created_at: Date;
}
const BESIDE =
  'id, what, name, version, edition, changed, ends_on::text, locks, last_in, owner_id, users, makers, retired_at, created_by, created_at';
const COLUMNS = `draft, written, written_version, ${BESIDE}`;

/** What lists need of an item: the draft without its marks, of which there may be thousands. */
export type HeadRow = Omit<ShelfRow, 'draft' | 'written' | 'written_version'> &
  Pick<Draft, 'parties' | 'gates' | 'documents'>;
const HEAD = `draft->'parties' as parties, draft->'gates' as gates, draft->'documents' as documents, ${BESIDE}`;

/** Saves a new form or kit. */
export async function insertItem(
  db: Db,
  i: { id: string; what: ShelfRow['what']; draft: Draft; by: string; at: Date },
): Promise<void> {
  await db.query(
    'insert into shelf_item (id, what, name, draft, created_by, owner_id, created_at) values ($1, $2, $3, $4, $5, $5, $6)',
    [i.id, i.what, i.draft.name, JSON.stringify(i.draft), i.by, i.at],
  );
}

/** Returns an item; null if there is none. */
export async function itemById(db: Db, id: string): Promise<ShelfRow | null> {
  return (await db.query<ShelfRow>(`select ${COLUMNS} from shelf_item where id = $1`, [id])).rows[0] ?? null;
}

/** Returns an item, locked until the transaction ends; null if there is none. */
export async function lockItem(db: Db, id: string): Promise<ShelfRow | null> {
  return (await db.query<ShelfRow>(`select ${COLUMNS} from shelf_item where id = $1 for update`, [id])).rows[0] ?? null;
}

/** Returns items by their ids, without their marks. */
export async function headsByIds(db: Db, ids: string[]): Promise<HeadRow[]> {
  return (await db.query<HeadRow>(`select ${HEAD} from shelf_item where id = any($1::text[])`, [ids])).rows;
}

/** Returns the condition for what a member may use, as `mayUse` of the core has it. */
const seenBy = (member: string) =>
  `(owner_id = ${member} or users is null or users ? ${member} or makers is null or makers ? ${member})`;

/** Returns forms or kits by name, after the one with this id. */
export async function listItems(
  db: Db,
  o: {
    what: ShelfRow['what'];
    memberId: string;
    search: string | null;
    retired: boolean;
    after: string | null;
    limit: number;
  },
): Promise<HeadRow[]> {
  const r = await db.query<HeadRow>(
    `select ${HEAD} from shelf_item
     where what = $1 and ${seenBy('$6')} and (retired_at is not null) = $2 and ($3::text is null or name ilike $3)
       and ($4::text is null or (lower(name), id) > (select lower(x.name), x.id from shelf_item x where x.id = $4))
     order by lower(name), id limit $5`,
    [o.what, o.retired, o.search, o.after, o.limit, o.memberId],
  );
  return r.rows;
}

/** Saves a draft as its next version. */
export async function saveItemDraft(db: Db, id: string, draft: Draft, version: number): Promise<void> {
  await db.query('update shelf_item set draft = $2, name = $3, version = $4, changed = true where id = $1', [
    id,
    JSON.stringify(draft),
    draft.name,
    version,
  ]);
}

/** Saves a text as its next version, with the draft of its paper. */
export async function saveWritten(
  db: Db,
  i: { id: string; written: Written; writtenVersion: number; draft: Draft; version: number },
): Promise<void> {
  await db.query('update shelf_item set written = $2, written_version = $3 where id = $1', [
    i.id,
    JSON.stringify(i.written),
    i.writtenVersion,
  ]);
  await saveItemDraft(db, i.id, i.draft, i.version);
}

/** Saves an item's settings outside the draft. */
export async function saveItem(
  db: Db,
  i: Pick<ShelfRow, 'id' | 'ends_on' | 'locks' | 'last_in' | 'retired_at' | 'owner_id' | 'users' | 'makers'>,
): Promise<void> {
  await db.query(
    'update shelf_item set ends_on = $2, locks = $3, last_in = $4, retired_at = $5, owner_id = $6, users = $7, makers = $8 where id = $1',
    [
      i.id,
      i.ends_on,
      JSON.stringify(i.locks),
      i.last_in,
      i.retired_at,
      i.owner_id,
      i.users && JSON.stringify(i.users),
      i.makers && JSON.stringify(i.makers),
    ],
  );
}

/** Deletes an item with its papers and editions. */
export async function deleteItem(db: Db, id: string): Promise<void> {
  await db.query('delete from shelf_item where id = $1', [id]);
}

/** An edition as packets use it. */
export interface EditionRow {
  item_id: string;
  edition: number;
  draft: Draft;
  written: Written | null;
}

/** An edition as screens list it. */
export interface EditionNote {
  edition: number;
  /** What it changed compared with the one before, in words. */
  changes: string[];
  by: string;
  made_at: Date;
}

/** Saves an edition, and that the item is the same as it. */
export async function insertEdition(
  db: Db,
  e: {
    itemId: string;
    edition: number;
    draft: Draft;
    written: Written | null;
    changes: string[];
    by: string;
    at: Date;
  },
): Promise<void> {
  await db.query(
    'insert into shelf_edition (item_id, edition, draft, changes, made_by, made_at, written) values ($1, $2, $3, $4, $5, $6, $7)',
    [
      e.itemId,
      e.edition,
      JSON.stringify(e.draft),
      JSON.stringify(e.changes),
      e.by,
      e.at,
      e.written && JSON.stringify(e.written),
    ],
  );
  await db.query('update shelf_item set edition = $2, changed = false where id = $1', [e.itemId, e.edition]);
}

/** Returns the last edition of each item. */
export async function lastEditions(db: Db, ids: string[]): Promise<Map<string, EditionRow>> {
  const r = await db.query<EditionRow>(
    `select e.item_id, e.edition, e.draft, e.written from shelf_item i join shelf_edition e on e.item_id = i.id and e.edition = i.edition
     where i.id = any($1::text[])`,
    [ids],
  );
  return new Map(r.rows.map((e) => [e.item_id, e]));
}

/** Returns the document type of the last edition of each form. */
export async function typesOfForms(db: Db, ids: string[]): Promise<Map<string, DocumentType>> {
  const r = await db.query<{ id: string; type: DocumentType }>(
    `select i.id, d.type from shelf_item i join shelf_edition e on e.item_id = i.id and e.edition = i.edition
     join document d on d.id = e.draft->'documents'->0->>'id' where i.id = any($1::text[])`,
    [ids],
  );
  return new Map(r.rows.map((x) => [x.id, x.type]));
}

/** Returns the latest editions of an item, newest first. */
export async function editionsOf(db: Db, id: string, limit: number): Promise<EditionNote[]> {
  const r = await db.query<EditionNote>(
    `select e.edition, e.changes, m.name as by, e.made_at from shelf_edition e join member m on m.id = e.made_by
     where e.item_id = $1 order by e.edition desc limit $2`,
    [id, limit],
  );
  return r.rows;
}

type Files = Pick<DocumentRow, 'original_sha256' | 'sha256' | 'facts_sha256'>;

/** Deletes the papers of a form that are neither in an edition nor in the draft and were added before an instant. */
export async function deleteUnusedDocuments(db: Db, id: string, before: Date): Promise<Files[]> {
  const r = await db.query<Files>(
    `delete from document d where d.shelf_id = $1 and d.created_at < $2
       and not exists (select 1 from shelf_item i where i.id = $1 and i.draft->'documents' @> jsonb_build_array(jsonb_build_object('id', d.id)))
       and not exists (select 1 from shelf_edition e where e.item_id = $1 and e.draft->'documents' @> jsonb_build_array(jsonb_build_object('id', d.id)))
     returning original_sha256, sha256, facts_sha256`,
    [id, before],
  );
  return r.rows;
}

/** Returns the kits whose drafts contain a form. */
export async function kitsWithForm(db: Db, formId: string): Promise<{ id: string; name: string }[]> {
  const r = await db.query<{ id: string; name: string }>(
    `select id, name from shelf_item where what = 'kit' and draft->'documents' @> $1::jsonb order by lower(name), id limit 100`,
    [JSON.stringify([{ id: formId }])],
  );
  return r.rows;
}

/** Returns the kits that can be used, by name. */
export async function usableKits(db: Db, memberId: string, limit: number): Promise<HeadRow[]> {
  const r = await db.query<HeadRow>(
    `select ${HEAD} from shelf_item where what = 'kit' and retired_at is null and edition > 0 and ${seenBy('$2')}
     order by lower(name), id limit $1`,
    [limit, memberId],
  );
  return r.rows;
}

/** Returns the packets of a deal that were made from a kit and not withdrawn, newest first. */
export async function packetsOfKit(db: Db, dealId: string, kitId: string): Promise<{ name: string; status: string }[]> {
  const r = await db.query<{ name: string; status: string }>(
    `select p.name, p.status from packet p join packet_draft d on d.packet_id = p.id
     where p.deal_id = $1 and d.kit_id = $2 and p.status in ('drafting', 'at_gate', 'executed') order by p.id desc`,
    [dealId, kitId],
  );
  return r.rows;
}
