/** Reading a document with the corrections that people made when it was sent before. */
import type { PrintedPlace } from '@gatepath/core/reading';
import type { Context } from '../context';
import type { Place } from '../documents/place';
import { factsFiles } from '../documents/service';
import type { FactsFile } from '../pdf/facts-file';
import { likelyKnown, orNull } from './remember';
import { bestSent } from './sources';

/** Maximum number of known documents that are compared: reading waits for each. */
const MOST_LEARNED = 3;

/**
 * Returns the printed places of a document that was just read, with the corrections of the sent packet that would be
 * repeated; null if the document was never sent, or is of the shelf: forms are read as they are printed.
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
    const sent = known.offered ? await bestSent(ctx, known.id, null) : null;
    const [document] = sent ? factsFiles(ctx, [sent.document]) : [];
    if (!sent || !document) continue;
    const places = await orNull(ctx.work.run('learn', { sent: { draft: sent.draft, document }, after: facts }, owner));
    if (places) return places;
  }
  return null;
}
