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

/** Returns the words of a search: letters and digits, in lower case, without accents. */
export const termsOf = (text: string): string[] =>
  (fold(text).match(/[\p{L}\p{N}]+/gu) ?? []).slice(0, MOST_TERMS).map((t) => t.slice(0, LONGEST_TERM));

/** Returns the deals, people, packets and papers that match a text. */
export async function find(ctx: Context, text: string): Promise<FoundView> {
  const terms = termsOf(text);
  if (!terms.length) return viewOf([], false);
  const like = terms.join(' ');
  return inTransaction(ctx.database.pool, async ({ db }) => {
    await q.alongIndexes(db);
    const found = await q.byWords(db, terms, OF_A_KIND);
    // Everything matches one or two letters.
    if (found.length || like.length < 3) return viewOf(found, false);
    const alike = await q.byLikeness(db, like, OF_A_KIND * FOUND_KINDS.length);
    return viewOf(alike, alike.length > 0);
  });
}

function viewOf(all: Found[], alike: boolean): FoundView {
  const of = (kind: Found['kind']) =>
    all
      .filter((f) => f.kind === kind)
      .slice(0, OF_A_KIND)
      .map(({ id, dealId, title, detail }) => ({ kind, id, dealId, title, detail }));
  return { deals: of('deal'), people: of('person'), packets: of('packet'), papers: of('paper'), alike };
}
