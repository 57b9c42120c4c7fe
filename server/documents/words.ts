/** The words of papers' first pages, by which they are found. */
import { isClean } from '@gatepath/core/text';
import type { Context } from '../context';
import { WorkFailure } from '../work/failure';
import * as q from './queries';

/** As many letters of a paper as are looked through. */
const MOST = 20_000;

/** What is kept of a paper's words: the first pages, without what a text column cannot hold. */
export function wordsToFind(text: string): string {
  const words = text.slice(0, MOST);
  return isClean(words) ? words : [...words].filter(isClean).join('');
}

/** Looks up the words of papers that were read before they were kept; a worker opens what was read. */
export async function indexWords(ctx: Context, dealId: string): Promise<void> {
  const db = ctx.database.pool;
  for (const d of await q.documentsWithoutWords(db, dealId)) {
    const words = await ctx.work
      .run('words', { file: ctx.files.fileOf(d.facts_sha256), most: MOST }, dealId)
      .catch((error: unknown) => {
        // One that cannot be opened is found by its name.
        if (error instanceof WorkFailure && error.reason !== 'stopped') return '';
        throw error;
      });
    await q.setWords(db, d.id, wordsToFind(words));
  }
}
