/** What reading a document learns from packets in which it was sent before. */
import type { PrintedPlace } from '@gatepath/core/reading';
import type { Context } from '../context';
import type { Place } from '../documents/place';
import { factsFiles } from '../documents/service';
import type { FactsFile } from '../pdf/facts-file';
import { likelyKnown, orNull } from './remember';
import { sentSource } from './sources';

/** Number of known documents that are tried: reading waits for them. */
const MOST_LEARNED = 3;

/**
 * Returns the printed places of a document that was just read, as people have decided about them on the same document or another
 * edition of it; null where nobody has. Forms of the shelf are read as they are printed.
 */
export async function learnedOf(
  ctx: Context,
  row: Place & { id: string },
  facts: FactsFile,
): Promise<PrintedPlace[] | null> {
  if (row.shelf_id) return null;
  const owner = row.deal_id ?? row.id;
  const print = await orNull(ctx.work.run('fingerprint', { document: facts }, owner));
  if (!print) return null;
  for (const known of (await likelyKnown(ctx.database.pool, print)).slice(0, MOST_LEARNED)) {
    if (!known.offered) continue;
    const source = await sentSource(ctx, known.id, null);
    const [before] = source ? factsFiles(ctx, [source.document]) : [];
    if (!source || !before) continue;
    const places = await orNull(ctx.work.run('learn', { form: source.form, before, after: facts }, owner));
    if (places) return places;
  }
  return null;
}
