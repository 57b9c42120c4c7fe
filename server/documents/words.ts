/** The words of a paper's first pages, for finding it; kept once they were looked up. */
import type { Context } from '../context';
import { isClean } from '@gatepath/core/text';
import { packedFactsIn } from '../pdf/facts-file';
import * as q from './queries';

/** As many letters of a paper as are looked through. */
const MOST = 20_000;

/** The words of a document; nothing of one that is not read yet. */
export async function wordsOf(ctx: Context, d: q.DocumentRow): Promise<string> {
  if (d.words !== null) return d.words;
  if (d.status !== 'ready' || !d.facts_sha256) return '';
  const facts = await packedFactsIn(ctx.files.fileOf(d.facts_sha256));
  let words = '';
  for (const p of facts.pages) {
    words += `${p.words} `;
    if (words.length >= MOST) break;
  }
  // What a text column cannot hold is no word.
  words = words.slice(0, MOST);
  if (!isClean(words)) words = [...words].filter(isClean).join('');
  await q.setWords(ctx.database.pool, d.id, words);
  return words;
}
