/** Which documents are the same paper: compared once their pages are read. */
import { keysOf, likeness, type Fingerprint } from '@gatepath/core/memory';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { documentById, type DocumentRow } from '../documents/queries';
import { factsFiles } from '../documents/service';
import { newId } from '../ids';
import { WorkFailure } from '../work/failure';
import * as q from './queries';

/** Number of known documents that are compared word by word with a new one. */
export const MOST_COMPARED = 6;
/** Least estimated likeness of two documents that may be the same paper with other values. */
const SAME = 0.6;

/** Least estimated likeness of two editions of a document. */
const EDITION = 0.3;

/** Returns the known documents that a document with a fingerprint may be the same as or an edition of, the most alike first. */
export async function likelyKnown(db: Db, print: Fingerprint): Promise<q.KnownRow[]> {
  return (await q.knownByKeys(db, keysOf(print), MOST_COMPARED))
    .filter((k) => likeness(k.print, print) >= EDITION)
    .sort((a, b) => likeness(b.print, print) - likeness(a.print, print));
}

/** The subject of the job that compares all documents of earlier versions. */
export const ALL_DOCUMENTS = 'all';
/** Number of documents that are compared before the job is enqueued again. */
const A_SLICE = 50;

/** Stores which known document a document is, or that it is a new one. Repeated calls do nothing. */
export async function rememberDocument(ctx: Context, id: string): Promise<void> {
  const row = await documentById(ctx.database.pool, id);
  if (!row || row.known_id || !isComparable(row)) return;
  const print = await fingerprint(ctx, row);
  if (!print) return;
  const known = await sameAs(ctx, row, print);
  if (known) return q.setKnown(ctx.database.pool, id, known);
  await inTransaction(ctx.database.pool, async (tx) => {
    const made = newId();
    await q.insertKnown(tx.db, made, print, keysOf(print), ctx.clock.now());
    await q.setKnown(tx.db, id, made);
  });
}

/** Returns whether a document can be recognized: a sealed copy carries what people have signed. */
export const isComparable = (row: DocumentRow): boolean => row.facts_sha256 !== null && !row.sealed;

/** Returns the fingerprint of a document; null if it has too few words, or cannot be compared. */
export async function fingerprint(ctx: Context, row: DocumentRow): Promise<Fingerprint | null> {
  const [document] = factsFiles(ctx, [row]);
  return document ? orNull(ctx.work.run('fingerprint', { document }, row.deal_id ?? row.id)) : null;
}

/** Returns what a piece of work answers; null if it cannot be done: a document that cannot be compared is a new one. */
export async function orNull<T>(work: Promise<T>): Promise<T | null> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    return null;
  }
}

async function sameAs(ctx: Context, row: DocumentRow, print: Fingerprint): Promise<string | null> {
  const db = ctx.database.pool;
  for (const known of await q.knownByKeys(db, keysOf(print), MOST_COMPARED)) {
    if (likeness(known.print, print) < SAME) continue;
    const earlier = await documentById(db, (await q.newestOfKnown(db, known.id)) ?? '');
    if (!earlier) {
      // Its documents were deleted with their deals.
      await q.deleteKnown(db, known.id);
      continue;
    }
    const [before, after] = factsFiles(ctx, [earlier, row]);
    if (!before || !after) continue;
    const relation = await orNull(ctx.work.run('relation', { before, after }, row.deal_id ?? row.id));
    if (relation?.kind === 'identical' || relation?.kind === 'filled') return known.id;
  }
  return null;
}

/** Compares documents that an earlier version has read, in slices. @param after `all`, or the id to go on after */
export async function rememberEarlier(ctx: Context, after: string): Promise<void> {
  const ids = await q.documentsToCompare(ctx.database.pool, after === ALL_DOCUMENTS ? '' : after, A_SLICE);
  for (const id of ids) await rememberDocument(ctx, id);
  const last = ids[A_SLICE - 1];
  if (last) await ctx.jobs.queueNow('memory', last);
}
