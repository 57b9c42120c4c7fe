/** Binders: one file for a deal, made in the background; memory stays the same whatever its size. */
import { Readable } from 'node:stream';
import type { BinderView } from '@gatepath/contract';
import { archiveOf } from '../archives/write';
import type { Context } from '../context';
import { queueFileDeletion } from '../files/tidy';
import { inTransaction } from '../db/tx';
import { dealOr404 } from '../deal-records/deals';
import { chunksOf } from '../files/chunks';
import { topics } from '../live/live';
import { chainOf } from '../packets/service';
import { notFound } from '../problem';
import { contentsOf, type Piece } from './contents';
import { indexHtml, indexText } from './index-pages';
import * as q from './queries';

/** Returns the state of a binder, whether or not it was ever requested. */
export async function binderView(ctx: Context, dealId: string): Promise<BinderView> {
  await dealOr404(ctx.database.pool, dealId);
  const b = await q.binderOf(ctx.database.pool, dealId);
  return {
    status: b?.status ?? 'none',
    done: b?.done ?? 0,
    pieces: b?.pieces ?? 0,
    bytes: b?.sha256 ? Number(b.bytes) : null,
    madeAt: b?.made_at?.toISOString() ?? null,
  };
}

/** Requests that a binder is made, or made again. */
export async function askForBinder(ctx: Context, dealId: string): Promise<BinderView> {
  await dealOr404(ctx.database.pool, dealId);
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.askForBinder(tx.db, dealId, ctx.clock.now());
    await ctx.jobs.queue(tx, 'binder', dealId);
  });
  return binderView(ctx, dealId);
}

/** Returns the finished file. @throws Problem `not-found` before there is one */
export async function binderFile(ctx: Context, dealId: string): Promise<{ name: string; sha256: string }> {
  const deal = await dealOr404(ctx.database.pool, dealId);
  const b = await q.binderOf(ctx.database.pool, dealId);
  if (!b?.sha256) throw notFound('This binder');
  return { name: `${deal.address}.zip`, sha256: b.sha256 };
}

/** How often the screen is told how far it is. */
const TELL_MS = 500;

/** Makes the binder of a deal, and keeps it in place of the one before. */
export async function makeBinder(ctx: Context, dealId: string): Promise<void> {
  const db = ctx.database.pool;
  if (!(await q.binderOf(db, dealId))) return;
  try {
    const { pieces, index } = await contentsOf(ctx, dealId);
    const all: (Piece | { path: string; text: string | Uint8Array })[] = [
      { path: 'index.html', text: indexHtml(index) },
      { path: 'index.json', text: `${JSON.stringify(index, null, 2)}\n` },
      { path: 'index.pdf', text: await indexPdf(ctx, index.deal.address, indexText(index)) },
      ...pieces,
    ];
    await q.noteProgress(db, dealId, 0, all.length);
    let told = 0;
    const progress = async (done: number) => {
      if (Date.now() - told < TELL_MS) return;
      told = Date.now();
      await q.noteProgress(db, dealId, done, all.length);
      ctx.live.notify(topics.deal(dealId));
    };
    const kept = await ctx.files.putStream(Readable.from(zipped(ctx, all, new Date(index.madeAt), progress)));
    if (kept === 'truncated') throw new Error('a binder is not cut short');
    const before = await q.saveBinder(db, dealId, kept, ctx.clock.now());
    if (before) await queueFileDeletion(ctx, before);
  } catch (error) {
    await q.binderFailed(db, dealId);
    throw error;
  } finally {
    ctx.live.notify(topics.deal(dealId));
  }
}

type Entry = Piece | { path: string; text: string | Uint8Array };

/** Yields the bytes of a ZIP file. The next entry is started only when the one before it was consumed. */
async function* zipped(
  ctx: Context,
  entries: Entry[],
  modified: Date,
  progress: (done: number) => Promise<void>,
): AsyncGenerator<Buffer> {
  let done = 0;
  const files = entries.map((e) => ({
    path: e.path,
    open: async () => (await streamOf(ctx, e)).on('end', () => done++),
  }));
  for await (const chunk of chunksOf(archiveOf(files, modified))) {
    yield chunk;
    await progress(done);
  }
}

async function streamOf(ctx: Context, e: Entry): Promise<Readable> {
  if ('text' in e) return Readable.from([Buffer.from(e.text)]);
  if ('sha256' in e.from) return ctx.files.stream(e.from.sha256);
  return Readable.from([Buffer.from((await chainOf(ctx, e.from.chainOf)).text)]);
}

/** Returns the index as a PDF, typeset like any imported text. */
async function indexPdf(ctx: Context, title: string, text: string): Promise<Uint8Array> {
  const { sha256 } = await ctx.files.put(Buffer.from(text));
  try {
    const made = await ctx.work.run('convert', { file: ctx.files.fileOf(sha256), kind: 'text', title });
    if ('problem' in made) throw new Error(`the index of a binder cannot be set: ${made.problem}`);
    return made.bytes;
  } finally {
    await queueFileDeletion(ctx, sha256);
  }
}
