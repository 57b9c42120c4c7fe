/** Digital signatures that a file arrived with. They belong to the original, which is stored unchanged. */
import { LRUCache } from 'lru-cache';
import type { PaperSignatures } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import type { Member } from '../firm/queries';
import { Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { documentFor } from './service';

/** Cached by the file's fingerprint, so entries never change. */
const knownOf = perContext(() => new LRUCache<string, PaperSignatures>({ max: 1_000 }));

/**
 * Returns who signed the original digitally and whether the signatures are valid; none for files that were not PDFs.
 *
 * @throws Problem `not-worked-out`
 */
export async function signaturesOf(ctx: Context, id: string, member: Member): Promise<PaperSignatures> {
  const row = await documentFor(ctx.database.pool, id, member);
  if (row.came_as !== 'pdf' || row.made_from) return { signatures: [], more: 0 };
  const { original_sha256: file } = row;
  const known = knownOf(ctx);
  const before = known.get(file);
  if (before) return before;
  try {
    const found = await ctx.work.run('signatures', { file: ctx.files.fileOf(file) }, row.deal_id ?? row.id);
    known.set(file, found);
    return found;
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    throw new Problem('not-worked-out', `The signatures of “${row.name}” ${error.inWords('checked')}.`);
  }
}
