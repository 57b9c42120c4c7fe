/** Finding by words: by the beginnings of all of them; where nothing is written quite so, by what is written alike. */
import { fold } from '@gatepath/core/text';
import { FOUND_KINDS, type Found, type FoundView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import * as q from './queries';

/** Found things of each kind. */
const OF_A_KIND = 6;
const MOST_TERMS = 8;
const LONGEST_TERM = 40;
/** How much alike: lower finds more, and worse. */
const LIKENESS = '0.45';

/** The words of what was asked for: letters and digits, in lower case, without accents. */
export const termsOf = (text: string): string[] =>
  (fold(text).match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_TERMS).map((t) => t.slice(0, LONGEST_TERM));

/** Deals, people, packets and papers by what somebody wrote. */
export async function find(ctx: Context, text: string): Promise<FoundView> {
  const terms = termsOf(text);
  const all: Found[] = [];
  if (!terms.length) return viewOf(all, false);
  const db = ctx.database.pool;
  for (const kind of FOUND_KINDS) all.push(...(await q.byWords(db, kind, terms, OF_A_KIND)));
  if (all.length) return viewOf(all, false);
  const like = terms.join(' ');
  // Of one or two letters everything is alike.
  if (like.length < 3) return viewOf(all, false);
  const rows = await inTransaction(db, async (tx) => {
    await tx.db.query(`select set_config('pg_trgm.word_similarity_threshold', $1, true)`, [LIKENESS]);
    return q.byLikeness(tx.db, like, OF_A_KIND * FOUND_KINDS.length);
  });
  return viewOf(rows, rows.length > 0);
}

function viewOf(all: Found[], alike: boolean): FoundView {
  const of = (kind: Found['kind']) =>
    all
      .filter((f) => f.kind === kind)
      .slice(0, OF_A_KIND)
      .map(({ id, dealId, title, detail }) => ({ kind, id, dealId, title, detail }));
  return { deals: of('deal'), people: of('person'), packets: of('packet'), papers: of('paper'), alike };
}
