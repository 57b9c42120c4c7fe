import { fold } from '@gatepath/core/text';
import type { Found } from '@gatepath/contract';
import type { Db } from '../db/pool';
import type { PersonRow } from '../people/queries';

/** Something that can be found. */
export interface Entry {
  kind: Found['kind'];
  id: string;
  deal_id: string | null;
  title: string;
  detail: string;
  /** Words within it that are found too, but count for less. */
  inside: string;
}

/** Keeps entries, new or changed. */
export async function saveEntries(db: Db, entries: Entry[]): Promise<void> {
  if (!entries.length) return;
  const rows = entries.map((e) => ({
    kind: e.kind,
    id: e.id,
    deal_id: e.deal_id,
    title: e.title,
    detail: e.detail,
    folded: fold(`${e.title} ${e.detail}`),
    inside: fold(e.inside),
  }));
  await db.query(
    `insert into find_entry (kind, id, deal_id, title, detail, folded, words)
     select kind, id, deal_id, title, detail, folded,
       setweight(to_tsvector('simple', folded), 'A') || setweight(to_tsvector('simple', inside), 'D')
     from jsonb_to_recordset($1::jsonb) as x(kind text, id text, deal_id text, title text, detail text, folded text, inside text)
     on conflict (kind, id) do update set deal_id = excluded.deal_id, title = excluded.title, detail = excluded.detail,
       folded = excluded.folded, words = excluded.words
       where find_entry.words is distinct from excluded.words or find_entry.title <> excluded.title
         or find_entry.detail <> excluded.detail`,
    [JSON.stringify(rows)],
  );
}

/** Keeps the entries of a deal, and forgets those of it that are no more. */
export async function saveDealEntries(db: Db, dealId: string, entries: Entry[]): Promise<void> {
  await db.query('delete from find_entry where deal_id = $1 and id <> all($2::text[])', [
    dealId,
    entries.map((e) => e.id),
  ]);
  await saveEntries(db, entries);
}

/** Keeps how people of the address book are found. */
export async function indexPeople(db: Db, people: Omit<PersonRow, 'merged_into'>[]): Promise<void> {
  await saveEntries(
    db,
    people.map((p) => ({
      kind: 'person',
      id: p.id,
      deal_id: null,
      title: p.name,
      detail: [p.company, p.email].filter(Boolean).join(', '),
      inside: p.phone ?? '',
    })),
  );
}

/** People who are found no more. */
export async function dropPeople(db: Db, ids: string[]): Promise<void> {
  await db.query(`delete from find_entry where kind = 'person' and id = any($1::text[])`, [ids]);
}

export interface FoundRow extends Found {
  rank: number;
}
const COLUMNS = 'kind, id, deal_id as "dealId", title, detail';

/** Entries of one kind that are weighed; of more than that any. */
const WEIGHED = 120;

/** What holds all of these words, each as the beginning of one, best first. */
export async function byWords(db: Db, kind: Found['kind'], terms: string[], limit: number): Promise<FoundRow[]> {
  const r = await db.query<FoundRow>(
    `select ${COLUMNS}, rank from (
       select *, ts_rank(words, query) as rank from find_entry, to_tsquery('simple', $2) query
       where kind = $1 and words @@ query limit $3) x
     order by rank desc, id desc limit $4`,
    [kind, terms.map((t) => `${t}:*`).join(' & '), WEIGHED, limit],
  );
  return r.rows;
}

/** What is written alike, in any kind, nearest first. */
export async function byLikeness(db: Db, text: string, limit: number): Promise<FoundRow[]> {
  const r = await db.query<FoundRow>(
    `select ${COLUMNS}, word_similarity($1, folded) as rank from find_entry where $1 <% folded
     order by rank desc, id desc limit $2`,
    [text, limit],
  );
  return r.rows;
}
