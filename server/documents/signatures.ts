/** The digital signatures a paper came with. They are of the file as it came, which is kept as it came. */
import { LRUCache } from 'lru-cache';
import type { PaperSignatures } from '@gatepath/contract';
import type { Context } from '../context';
import type { Member } from '../firm/queries';
import { Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { documentFor } from './service';

/** By the fingerprint of the file: it never changes. */
const known = new LRUCache<string, PaperSignatures>({ max: 1_000 });

/** Whose signatures a paper came with, and whether they hold; none for what came as no PDF. */
export async function signaturesOf(ctx: Context, id: string, member: Member): Promise<PaperSignatures> {
  const row = await documentFor(ctx.database.pool, id, member);
  if (row.came_as !== 'pdf' || row.made_from) return { signatures: [], more: 0 };
  const { original_sha256: file } = row;
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
