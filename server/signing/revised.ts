/** Documents of which a party signed an earlier version: what changed is shown before they sign again. */
import { dayOf } from '@gatepath/core/calendar';
import { hasDocument, type PacketParty } from '@gatepath/core/packet';
import { marksOfParty, type PacketState } from '@gatepath/core/routing';
import type { ChangesOfPaper, SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { compare } from '../documents/changes';
import { earlierVersions } from '../documents/queries';
import { documentOr404 } from '../documents/service';
import { notFound, Problem } from '../problem';
import { enterProved } from './entry';
import type { Visit } from './visit';

interface Revised {
  documentId: string;
  beforeId: string;
  /** The day they signed it. */
  on: string;
}

/** Returns the nearest earlier version of each document that this party signed or filled. */
async function revisedIn(ctx: Context, state: PacketState, party: PacketParty): Promise<Revised[]> {
  const ids = state.plan.documents.filter((d) => hasDocument(party, d.id)).map((d) => d.id);
  const out = new Map<string, Revised>();
  for (const { id, now, packet_id } of await earlierVersions(ctx.database.pool, ids)) {
    // A circle of replacements makes a document its own earlier version, which it is not. The nearest version counts.
    if (id === now || out.has(now)) continue;
    const on = await signedOn(ctx, packet_id, id, party);
    if (on) out.set(now, { documentId: now, beforeId: id, on });
  }
  return [...out.values()];
}

/** Returns when somebody put something on a document of a packet; null if they did not. */
async function signedOn(ctx: Context, packetId: string, documentId: string, who: PacketParty): Promise<string | null> {
  const { state } = await ctx.packets.look(packetId);
  if (!state) return null;
  const days = state.plan.parties
    .filter((p) => isSame(p, who))
    .flatMap((p) => marksOfParty(state.plan, p.id))
    .filter((m) => m.documentId === documentId)
    .flatMap((m) => state.fills.get(m.id)?.at ?? []);
  const last = days.sort().pop();
  return last ? dayOf(last, state.plan.timeZone) : null;
}

/**
 * Returns whether two parties of different packets are the same person. After a handover the name differs, and what
 * was before is not theirs.
 */
function isSame(a: PacketParty, b: PacketParty): boolean {
  const bare = (text: string) => text.trim().toLowerCase();
  return bare(a.name) === bare(b.name) && (a.id === b.id || (!!a.email && bare(a.email) === bare(b.email)));
}

/** Returns what the ceremony shows about changed documents. */
export async function revisedFor(
  ctx: Context,
  state: PacketState,
  party: PacketParty,
): Promise<SigningView['revised']> {
  return (await revisedIn(ctx, state, party)).map(({ documentId, on }) => ({ documentId, on }));
}

/**
 * Returns what changed in a document since this party signed an earlier version of it.
 *
 * @throws Problem `not-found`, `not-worked-out`
 */
export async function changesSince(ctx: Context, visit: Visit, documentId: string): Promise<ChangesOfPaper> {
  const { state, party } = await enterProved(ctx, visit);
  const found = (await revisedIn(ctx, state, party)).find((r) => r.documentId === documentId);
  if (!found) throw notFound('This document');
  const db = ctx.database.pool;
  const [before, after] = [await documentOr404(db, found.beforeId), await documentOr404(db, documentId)];
  if (!before.facts_sha256 || !after.facts_sha256)
    throw new Problem('not-worked-out', 'What changed cannot be worked out just now.');
  const { changes, more, slight, wordsOnly } = await compare(ctx, { before, after });
  return { changes, more, slight, wordsOnly };
}
