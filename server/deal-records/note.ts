import type { Context } from '../context';
import type { Db } from '../db/pool';
import { newId } from '../ids';
import * as q from './queries';

/** Saves sentences about what happened in a deal. */
export async function note(
  ctx: Context,
  db: Db,
  dealId: string,
  sentences: string[],
  about: { partyId?: string; documentId?: string } = {},
): Promise<void> {
  await q.insertEvents(
    db,
    sentences.map((sentence) => ({
      id: newId(),
      deal_id: dealId,
      at: ctx.clock.now(),
      sentence,
      party_id: about.partyId ?? null,
      document_id: about.documentId ?? null,
    })),
  );
}
