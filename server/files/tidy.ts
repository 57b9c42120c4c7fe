/** Clearing away files nothing refers to any more, with the pictures that were drawn of them. */
import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from '../context';
import { isInUse } from './in-use';

/** A file that came or was asked for lately may be on its way into a document. */
const YOUNG_MS = 3_600_000;
const DAY_S = 86_400;
/** The job that looks through the whole store. */
export const ALL_FILES = 'all';

/** One file by its fingerprint, or with `ALL_FILES` the whole store; that one comes again every day. */
export async function tidy(ctx: Context, what: string): Promise<void> {
  if (what !== ALL_FILES) return dropUnused(ctx, what);
  await ctx.jobs.queueNow('tidy', ALL_FILES, DAY_S);
  for await (const sha256 of ctx.files.all())
    if ((await ctx.files.age(sha256)) > YOUNG_MS) await dropUnused(ctx, sha256);
  await ctx.files.dropIncoming(YOUNG_MS);
}

/** Removes a file unless something refers to it. */
export async function dropUnused(ctx: Context, sha256: string): Promise<void> {
  if (await isInUse(ctx.database.pool, sha256)) return;
  await ctx.files.remove(sha256);
  await dropPictures(ctx, sha256);
}

/** Where the pictures of a file's pages lie. */
export function pictureDir(ctx: Context, sha256: string): string {
  return path.join(ctx.config.dataDir, 'cache', 'pages', sha256.slice(0, 2));
}

async function dropPictures(ctx: Context, sha256: string): Promise<void> {
  const dir = pictureDir(ctx, sha256);
  for (const name of await readdir(dir).catch(() => []))
    if (name.startsWith(`${sha256}-`)) await rm(path.join(dir, name), { force: true });
}
