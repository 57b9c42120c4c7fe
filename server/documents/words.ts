/** The words of documents' first pages, for searching. */
import { isClean } from '@gatepath/core/text';
import type { Context } from '../context';
import { WorkFailure } from '../work/failure';
import * as q from './queries';

/** Maximum number of letters of a document that are searched. */
const MOST = 20_000;

/** Returns the words to save: of the first pages, without characters a text column cannot hold. */
export function wordsToFind(text: string): string {
  const words = text.slice(0, MOST);
  return isClean(words) ? words : [...words].filter(isClean).join('');
}

/** Saves the words of documents that were read before words were saved. */
export async function indexWords(ctx: Context, dealId: string): Promise<void> {
  const db = ctx.database.pool;
  for (const d of await q.documentsWithoutWords(db, dealId)) {
    const words = await ctx.work
      .run('words', { file: ctx.files.fileOf(d.facts_sha256), most: MOST }, dealId)
      .catch((error: unknown) => {
        // A document that cannot be opened is found by its name.
        if (error instanceof WorkFailure && error.reason !== 'stopped') return '';
        throw error;
      });
    await q.setWords(db, d.id, wordsToFind(words));
  }
}
