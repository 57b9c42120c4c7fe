/**
 * Recognizing scanned pages: one page per task, stored beside the file as they come, and laid over the images once
 * all are there. Then the document is read like any other.
 */
import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { LRUCache } from 'lru-cache';
import { itemAt } from '@gatepath/core/sure';
import type { LeftOut } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { inTransaction } from '../db/tx';
import { queueFileDeletionIn, pictureDir } from '../files/tidy';
import type { ReadPage } from '../scan/layer';
import type { Recognised } from '../scan/page';
import type { ScanLanguage } from '../scan/recognise';
import { WorkFailure } from '../work/failure';
import { notifyAbout } from './place';
import * as q from './queries';
import { writeWhole } from '../write-whole';

/** How long one job runs before it makes room for others and continues as a new job, in milliseconds. */
const SLICE_MS = 5 * 60_000;

/** What is known of a page. A page that exceeded its time has no words. */
interface RecognizedPage extends Recognised {
  failed?: true;
}

const fileOf = (ctx: Context, sha256: string, page: number) =>
  path.join(pictureDir(ctx, sha256), `${sha256}-${page}.words.json`);

/** The page somebody last viewed, by document: it is recognized first. */
const viewedPageOf = perContext(() => new LRUCache<string, number>({ max: 1_000 }));

/** Records that somebody views a page that may be waiting to be recognized. */
export function bringForward(ctx: Context, documentId: string, page: number): void {
  viewedPageOf(ctx).set(documentId, page);
}

/** Returns which page is recognized next: the one somebody views, those after it, the others. */
export function nextPage(open: number[], looked: number | undefined): number | undefined {
  return open.find((p) => looked !== undefined && p >= looked) ?? open[0];
}

/** Enqueues recognizing some pages. */
export async function beginScan(ctx: Context, row: q.DocumentRow, pages: number[]): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    await q.setScanPages(tx.db, row.id, pages, row.left_out);
    await ctx.jobs.queue(tx, 'scan', row.id);
  });
}

/** Recognizes pages of a document for a while; the rest is enqueued again. */
export async function scanDocument(ctx: Context, id: string): Promise<void> {
  const end = Date.now() + SLICE_MS;
  let open: number[] | null = null;
  for (;;) {
    const row = await q.documentById(ctx.database.pool, id);
    if (row?.status !== 'reading' || row.words_laid || !row.scan_pages.length) return;
    // Stored pages are looked up once; meanwhile somebody may have left pages out.
    const wanted = new Set(row.scan_pages);
    open = (open ?? (await openPages(ctx, row))).filter((p) => wanted.has(p));
    const page = nextPage(open, viewedPageOf(ctx).get(id));
    if (page === undefined) return layWords(ctx, row);
    if (Date.now() > end) return ctx.jobs.queueNow('scan', id);
    await recognise(ctx, row, page);
    open = open.filter((p) => p !== page);
    await q.setPagesRead(ctx.database.pool, id, row.pages.length - open.length);
    notifyAbout(ctx, row);
  }
}

async function openPages(ctx: Context, row: q.DocumentRow): Promise<number[]> {
  const open: number[] = [];
  for (const page of row.scan_pages) if (!(await isThere(fileOf(ctx, row.sha256, page)))) open.push(page);
  return open;
}

const isThere = (file: string) =>
  stat(file).then(
    () => true,
    () => false,
  );

async function recognise(ctx: Context, row: q.DocumentRow, page: number): Promise<void> {
  const language = await languageBefore(ctx, row, page);
  const task = { file: ctx.files.fileOf(row.sha256), page, size: itemAt(row.pages, page - 1), language };
  let found: RecognizedPage;
  try {
    found = await ctx.work.run('recognise', task, row.deal_id ?? row.shelf_id ?? row.id);
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    // Noise, or a drawing: the page is shown as it is, and marks are placed on it by hand.
    found = { lie: { aside: false, straighten: 0 }, words: [], over: false, language, failed: true };
  }
  await writeWhole(fileOf(ctx, row.sha256, page), JSON.stringify(found));
}

async function kept(ctx: Context, row: q.DocumentRow, page: number): Promise<RecognizedPage | null> {
  const text = await readFile(fileOf(ctx, row.sha256, page), 'utf8').catch(() => null);
  if (text === null) return null;
  const found: RecognizedPage = JSON.parse(text);
  return found;
}

/** Returns the language of the page before: most documents are in one language. */
async function languageBefore(ctx: Context, row: q.DocumentRow, page: number): Promise<ScanLanguage> {
  const before = row.scan_pages.filter((p) => p < page).at(-1);
  return (before === undefined ? null : await kept(ctx, row, before))?.language ?? 'eng';
}

/** Straightens the pages, lays their words over them, and enqueues reading the document. */
async function layWords(ctx: Context, row: q.DocumentRow): Promise<void> {
  const pages: ReadPage[] = [];
  let unread = 0;
  for (const page of row.scan_pages) {
    const found = await kept(ctx, row, page);
    if (!found || found.failed) unread++;
    if (found) pages.push({ page, lie: found.lie, over: found.over, words: found.words });
  }
  const laid = await laidOver(ctx, row, pages);
  if (!laid) return readWithoutWords(ctx, row);
  const stored = await ctx.files.put(laid.bytes);
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = await q.lockDocument(tx.db, row.id);
    if (now?.sha256 !== row.sha256 || now.words_laid) return;
    await q.setWordsLaid(tx.db, row.id, stored.sha256, laid.pages, withUnread(now.left_out, unread));
    await ctx.jobs.queue(tx, 'read', row.id);
    if (row.sha256 !== row.original_sha256) await queueFileDeletionIn(ctx, tx, row.sha256);
  });
}

/** Returns the document with its words laid over it; null if that fails. */
async function laidOver(ctx: Context, row: q.DocumentRow, pages: ReadPage[]) {
  try {
    return await ctx.work.run('layWords', { file: ctx.files.fileOf(row.sha256), pages }, row.deal_id ?? row.id);
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    return null;
  }
}

/** Reads a document without words on its scanned pages; marks are placed on them by hand. */
async function readWithoutWords(ctx: Context, row: q.DocumentRow): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = await q.lockDocument(tx.db, row.id);
    if (now?.status !== 'reading' || now.words_laid || !now.scan_pages.length) return;
    await q.setWordsLaid(tx.db, row.id, now.sha256, now.pages, withUnread(now.left_out, now.scan_pages.length));
    await ctx.jobs.queue(tx, 'read', row.id);
  });
}

/** Returns what was left out, including pages whose words are not known. */
function withUnread(leftOut: LeftOut[], n: number): LeftOut[] {
  const before = leftOut.find((l) => l.what === 'words')?.n ?? 0;
  const others = leftOut.filter((l) => l.what !== 'words');
  return n + before ? [...others, { what: 'words', n: n + before }] : others;
}

/** Skips the words of pages that are not recognized yet; marks are placed on them by hand. */
export async function skipWords(ctx: Context, row: q.DocumentRow): Promise<void> {
  const open = new Set(await openPages(ctx, row));
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = await q.lockDocument(tx.db, row.id);
    if (now?.status !== 'reading' || now.words_laid || !now.scan_pages.length) return;
    const done = now.scan_pages.filter((p) => !open.has(p));
    const leftOut = withUnread(now.left_out, now.scan_pages.length - done.length);
    if (done.length) await q.setScanPages(tx.db, row.id, done, leftOut);
    else await q.setWordsLaid(tx.db, row.id, now.sha256, now.pages, leftOut);
    await ctx.jobs.queue(tx, done.length ? 'scan' : 'read', row.id);
  });
}
