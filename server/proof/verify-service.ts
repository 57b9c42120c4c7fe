/** Checking a sealed copy for anybody: in memory only, kept nowhere. */
import type { CopyVerification } from '@gatepath/contract';
import type { Context } from '../context';
import type { Upload } from '../http/upload';
import { Problem } from '../problem';
import { chunksOf } from '../files/chunks';

/**
 * Verifies a sealed copy that anybody uploaded. The file stays in memory. @throws Problem `paper-too-large`, `busy`
 */
export async function verifyCopy(ctx: Context, { name: fileName, stream }: Upload): Promise<CopyVerification> {
  const chunks: Buffer[] = [];
  for await (const chunk of chunksOf(stream)) chunks.push(chunk);
  if (stream.truncated)
    throw new Problem('paper-too-large', 'This file is larger than 50 MB. It cannot be checked here.');
  const { check, pages } = await ctx.work.run('verifySeals', { bytes: new Uint8Array(Buffer.concat(chunks)) }, 'check');
  const own = await ctx.seal();
  const last = check.revisions[check.revisions.length - 1];
  return {
    fileName,
    whole: check.whole,
    why: check.why,
    revisions: check.revisions.map(({ issuer, event: _event, covers: _covers, ...r }, i) => ({
      ...r,
      selfMade: r.signer === issuer,
      pages: pages[i] ?? null,
    })),
    ours: check.whole && last?.fingerprint === own.fingerprint,
  };
}
