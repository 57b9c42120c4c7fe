/** What a packet's document had on it the last time it was sent. */
import type { RememberedView } from '@gatepath/contract';
import type { Context } from '../context';
import { documentOr404, factsFiles } from '../documents/service';
import type { Member } from '../firm/queries';
import { draftOf } from '../packets/queries';
import { packetOr404 } from '../packets/service';
import { notFound, Problem } from '../problem';
import * as q from './queries';
import { isComparable, likelyKnown, orNull, rememberDocument } from './remember';
import { formSource, sentSource } from './sources';

/**
 * Returns what a document of a packet had on it the last time, placed for the people of the packet: null if it is a new
 * document, or was never sent.
 *
 * @throws Problem `not-found`, `reading`
 */
export async function rememberedOf(
  ctx: Context,
  packetId: string,
  documentId: string,
  member: Member,
): Promise<RememberedView> {
  const db = ctx.database.pool;
  const { row, known } = await lookedUp(ctx, packetId, documentId);
  const { draft } = await draftOf(db, packetId);
  const atOnce = (await ctx.firm())?.place_remembered ?? false;
  if (known[0]?.offered === false) return { atOnce, remembered: null };
  for (const { id, offered } of known) {
    if (!offered) continue;
    const source = (await formSource(ctx, id, member)) ?? (await sentSource(ctx, id, packetId));
    const [before, after] = source ? factsFiles(ctx, [source.document, row]) : [];
    if (!source || !before || !after) continue;
    const found = await orNull(
      ctx.work.run('recall', { form: source.form, before, after, draft }, row.deal_id ?? row.id),
    );
    if (!found) continue;
    const { relation, ...recalled } = found;
    return {
      atOnce,
      remembered: { ...relation, ...recalled, from: source.from, times: await q.timesSent(db, source.knownId) },
    };
  }
  return { atOnce, remembered: null };
}

/**
 * Stops offering what was on a document: for the document itself, and for other editions of it.
 *
 * @throws Problem `not-found`, `reading`
 */
export async function stopOffering(ctx: Context, packetId: string, documentId: string): Promise<void> {
  const { known } = await lookedUp(ctx, packetId, documentId);
  // Those that are merely alike, or were the source of an offer, are other documents.
  const [own] = known;
  if (own) await q.stopOffering(ctx.database.pool, own.id, ctx.clock.now());
}

/** Returns a document of a packet's deal and the known documents it may be, the most likely first. */
async function lookedUp(ctx: Context, packetId: string, documentId: string) {
  const db = ctx.database.pool;
  const packet = await packetOr404(db, packetId);
  const asked = await documentOr404(db, documentId);
  if (asked.deal_id !== packet.deal_id) throw notFound('This document');
  if (asked.status === 'reading')
    throw new Problem('reading', `“${asked.name}” is still being read. It is ready in a moment.`);
  if (!isComparable(asked)) return { row: asked, known: [] };
  // The job that compares it may not have had its turn.
  if (!asked.known_id) await rememberDocument(ctx, documentId);
  const row = await documentOr404(db, documentId);
  const own = row.known_id ? await q.knownById(db, row.known_id) : null;
  if (!own) return { row, known: [] };
  const others = (await likelyKnown(db, own.print)).filter((k) => k.id !== own.id);
  return { row, known: [own, ...others] };
}
