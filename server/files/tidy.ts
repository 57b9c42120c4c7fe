/** Clearing away files nothing refers to any more, with the pictures that were drawn of them. */
import { readdir, rm } from 'node:fs/promises';
import path from 'node:path';
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { isInUse } from './in-use';

/** How long nothing must have referred to a file before it is deleted: one that just came may be on its way into a document. */
const YOUNG_MS = 3_600_000;
/** Seconds after which a file that was let go is looked at. */
export const TIDY_AFTER_S = YOUNG_MS / 1000;
const DAY_S = 86_400;
/** The job that looks through the whole store. */
export const ALL_FILES = 'all';

/**
 * Deletes what nothing refers to: one file by its fingerprint, or with `ALL_FILES` finds all such files in the store and
 * lets them go; that one comes again every day.
 */
export async function tidy(ctx: Context, what: string): Promise<void> {
  if (what !== ALL_FILES) return deleteUnused(ctx, what);
  await ctx.jobs.queueNow('tidy', ALL_FILES, DAY_S);
  for await (const sha256 of ctx.files.all())
    if ((await ctx.files.age(sha256)) > YOUNG_MS && !(await isInUse(ctx.database.pool, sha256)))
      await queueFileDeletion(ctx, sha256);
  await ctx.files.deleteIncoming(YOUNG_MS);
}

/** Queues the deletion of a file in an hour, if nothing refers to it then and it was not stored again. */
export async function queueFileDeletion(ctx: Context, sha256: string): Promise<void> {
  await ctx.jobs.queueNow('tidy', sha256, TIDY_AFTER_S);
}

/** Queues the deletion of files as part of a transaction, for files whose last reference the transaction removes. */
export async function queueFileDeletionIn(ctx: Context, tx: Tx, sha256: string): Promise<void> {
  await ctx.jobs.queue(tx, 'tidy', sha256, TIDY_AFTER_S);
}

/** Deletes a file that came in vain: at once, where nobody else has brought the same, else in an hour like any other. */
export async function deleteFresh(ctx: Context, sha256: string): Promise<void> {
  if (await isInUse(ctx.database.pool, sha256)) return;
  if (await ctx.files.removeFresh(sha256)) await deletePictures(ctx, sha256);
  else if (await ctx.files.has(sha256)) await queueFileDeletion(ctx, sha256);
}

async function deleteUnused(ctx: Context, sha256: string): Promise<void> {
  if (await isInUse(ctx.database.pool, sha256)) return;
  if (await ctx.files.removeOlder(sha256, YOUNG_MS)) await deletePictures(ctx, sha256);
  // Uploaded again within the hour, for a document that may not exist yet.
  else if (await ctx.files.has(sha256)) await queueFileDeletion(ctx, sha256);
}

/** Returns the folder of the pictures of a file's pages. */
export function pictureDir(ctx: Context, sha256: string): string {
  return path.join(ctx.config.dataDir, 'cache', 'pages', sha256.slice(0, 2));
}

async function deletePictures(ctx: Context, sha256: string): Promise<void> {
  const dir = pictureDir(ctx, sha256);
  for (const name of await readdir(dir).catch(() => []))
    if (name.startsWith(`${sha256}-`)) await rm(path.join(dir, name), { force: true });
}
