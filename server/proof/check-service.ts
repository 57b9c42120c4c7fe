/** Checking a sealed copy for anybody: in memory only, kept nowhere. */
import type { CheckView } from '@gatepath/contract';
import type { Context } from '../context';
import { verifySealed } from './verify';

export async function checkCopy(ctx: Context, fileName: string, bytes: Buffer): Promise<CheckView> {
  const check = verifySealed(bytes);
  const own = await ctx.seal();
  const last = check.revisions[check.revisions.length - 1];
  const pages = await Promise.all(
    check.revisions.map((r) =>
      r.whole
        ? ctx.pdf
            .run('sizes', { bytes: new Uint8Array(bytes.subarray(0, r.end)) })
            .then((p) => p.length)
            .catch(() => null)
        : null,
    ),
  );
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
