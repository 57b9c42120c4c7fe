/**
 * What is known of a sealed copy that is used in a late round: what people put on it, and which pages are its record.
 */
import type { PutOn } from '../reading/read';
import { shownFills } from '@gatepath/core/routing';
import type { Context } from '../context';
import * as q from './queries';

/** Maximum number of rounds considered. */
const MOST_ROUNDS = 40;

/**
 * Finds what was put on a sealed copy in all its rounds, and how many of its pages are its own. In the file, marks
 * are fields over the page, which reading the page's print does not see.
 */
export async function sealedCopyOf(ctx: Context, row: q.DocumentRow): Promise<{ putOn: PutOn[]; ownPages: number }> {
  const db = ctx.database.pool;
  const putOn: PutOn[] = [];
  let ownPages = row.pages.length;
  let of: q.DocumentRow | null = row;
  for (let round = 0; of?.sealed && round < MOST_ROUNDS; round++) {
    const from: Awaited<ReturnType<typeof q.sealedFrom>> = await q.sealedFrom(db, of.sha256);
    const { state } = from ? await ctx.packets.look(from.packet_id) : { state: null };
    if (!from || !state) break;
    for (const f of shownFills(state))
      if (f.documentId === from.document_id) putOn.push({ page: f.page, rect: f.rect });
    const sent = state.plan.documents.find((d) => d.id === from.document_id);
    if (sent) ownPages = Math.min(ownPages, sent.ownPages ?? sent.pages.length);
    of = await q.documentById(db, from.document_id);
  }
  return { putOn, ownPages };
}
