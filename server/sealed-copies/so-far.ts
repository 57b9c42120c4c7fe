/** A document as somebody has it before them: the latest seal of it, with what is not sealed yet drawn onto a copy. */
import type { PlanDocument } from '@gatepath/core/packet';
import type { PacketState } from '@gatepath/core/routing';
import type { Context } from '../context';
import { partSoFar } from '../proof/revisions';
import { namesOf, picturesOf } from './service';

/**
 * Returns a document with the acts so far drawn in.
 *
 * @param partyId  whose own acts are drawn in; with what the preparer put there, whoever it is
 */
export async function soFar(
  ctx: Context,
  state: PacketState,
  partyId: string,
  document: PlanDocument,
): Promise<{ sha256: string } | { bytes: Uint8Array }> {
  const { base, fills, redlines } = partSoFar(state, partyId, document);
  if (!fills.length && !redlines.length) return { sha256: base };
  const task = {
    file: ctx.files.fileOf(base),
    fills,
    redlines,
    names: namesOf(state, document.id),
    pictures: picturesOf(ctx, fills),
  };
  return { bytes: await ctx.work.run('copy', task, state.packetId) };
}
