import { fold } from '@gatepath/core/text';
import { FOUND_KINDS, type Found } from '@gatepath/contract';
import type { Db } from '../db/pool';
import { sha256 } from '../ids';

/** Something that can be found. */
export interface Entry {
  kind: Found['kind'];
  id: string;
  deal_id: string | null;
  title: string;
  detail: string;
  /** Words within it that are found too, but count for less. */
  inside: string;
  /** Whether it is of a deal that is not over; people always are. */
  open: boolean;
}

/** Saves entries, new or changed; words that are the same as before are not sent again. */
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
    is_open: e.open,
    hash: sha256(JSON.stringify([e.deal_id, e.title, e.detail, e.inside, e.open])),
  }));
  const known = await db.query<{ kind: string; id: string; hash: string }>(
    'select kind, id, hash from find_entry where id = any($1::text[])',
    [entries.map((e) => e.id)],
  );
  const same = new Set(known.rows.map((r) => `${r.kind} ${r.id} ${r.hash}`));
  const changed = rows.filter((r) => !same.has(`${r.kind} ${r.id} ${r.hash}`));
  if (!changed.length) return;
  await db.query(
    `insert into find_entry (kind, id, deal_id, title, detail, folded, is_open, hash, words)
     select kind, id, deal_id, title, detail, folded, is_open, hash,
       setweight(to_tsvector('simple', folded), 'A') || setweight(to_tsvector('simple', inside), 'D')
     from jsonb_to_recordset($1::jsonb) as x(kind text, id text, deal_id text, title text, detail text, folded text, inside text, is_open boolean, hash text)
     on conflict (kind, id) do update set deal_id = excluded.deal_id, title = excluded.title, detail = excluded.detail,
       folded = excluded.folded, is_open = excluded.is_open, hash = excluded.hash, words = excluded.words`,
    [JSON.stringify(changed)],
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

/** A search result with its rank. */
export interface FoundRow extends Found {
  rank: number;
}
const COLUMNS = 'kind, id, deal_id as "dealId", title, detail';

/** Entries that are weighed, of each kind and of what is alike; of more than that any. */
const WEIGHED = { words: 60, likeness: 300 };
/** How much alike: lower finds more, and worse. */
const LIKENESS = '0.45';

/**
 * Makes the statements of this transaction go along the indexes. The planner knows how often a word is written, but not
 * that it is hardly ever a person's, and would rather look at everything until it has found enough.
 */
export async function alongIndexes(db: Db): Promise<void> {
  await db.query(
    `select set_config('enable_seqscan', 'off', true), set_config('pg_trgm.word_similarity_threshold', $1, true)`,
    [LIKENESS],
  );
}

/**
 * Returns what contains all of these words, each as the beginning of a word: the best matches of each kind, those of
 * open deals first.
 */
export async function byWords(db: Db, terms: string[], limit: number): Promise<FoundRow[]> {
  const words = terms.map((t) => `${t}:*`).join(' & ');
  const found = await best(db, FOUND_KINDS, true, words, limit);
  const short = FOUND_KINDS.filter((k) => k !== 'person' && found.filter((f) => f.kind === k).length < limit);
  return short.length ? [...found, ...(await best(db, short, false, words, limit))] : found;
}

async function best(
  db: Db,
  kinds: readonly Found['kind'][],
  open: boolean,
  words: string,
  limit: number,
): Promise<FoundRow[]> {
  // Kind and status are part of the statement, not parameters: only then are their own indexes used.
  const of = (kind: Found['kind']) =>
    `(select ${COLUMNS}, ts_rank(words, to_tsquery('simple', $1)) as rank from (
        select * from find_entry where kind = '${kind}' ${kind === 'person' ? '' : `and ${open ? '' : 'not '}is_open`}
          and words @@ to_tsquery('simple', $1) limit $2) x
      order by rank desc, id desc limit $3)`;
  return (await db.query<FoundRow>(kinds.map(of).join(' union all '), [words, WEIGHED.words, limit])).rows;
}

/** Returns what is spelled similarly, of any kind, most similar first. */
export async function byLikeness(db: Db, text: string, limit: number): Promise<FoundRow[]> {
  const r = await db.query<FoundRow>(
    `select ${COLUMNS}, word_similarity($1, folded) as rank from (
       select * from find_entry where $1 <% folded limit $2) x
     order by rank desc, id desc limit $3`,
    [text, WEIGHED.likeness, limit],
  );
  return r.rows;
}
