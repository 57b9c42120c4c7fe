import { readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { LRUCache } from 'lru-cache';
import { suggestType } from '@gatepath/core/reading';
import { PAGE_DPIS, type DocumentPatch, type DocumentView, type PackedFacts } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { deleteFresh, queueFileDeletionIn, pictureDir } from '../files/tidy';
import { packetsWithDocument } from './queries';
import { packedFactsIn, type FactsFile } from '../pdf/facts-file';
import type { PrintedPlace } from '@gatepath/core/reading';
import type { ReadTask } from '../reading/read';
import { notFound, Problem } from '../problem';
import { mayChangeItem } from '../sharing/queries';
import { mayUseItem } from '../sharing/queries';
import type { Member } from '../firm/queries';
import { WorkFailure } from '../work/failure';
import { documentChanged, documentRead, notifyAbout } from './place';
import { beginScan, skipWords } from './scans';
import { sealedCopyOf } from './sealed-copy';
import { whyUnread } from './problems';
import { wordsToFind } from './words';
import * as q from './queries';
import { itemAt, lastOf } from '@gatepath/core/sure';
import { writeWhole } from '../write-whole';

/** Returns what screens show of a document. */
export function documentView(d: q.DocumentRow): DocumentView {
  return {
    id: d.id,
    dealId: d.deal_id,
    name: d.name,
    fileName: d.file_name,
    bytes: Number(d.bytes),
    pages: d.pages,
    pagesRead: d.pages_read,
    status: d.status,
    problem: d.problem,
    sha256: d.sha256,
    createdAt: d.created_at.toISOString(),
    type: d.type,
    cameAs: d.came_as,
    madeFrom: d.made_from ?? [],
    replacedBy: d.replaced_by,
    leftOut: d.left_out,
    scanned: d.scan_pages.length,
    endsOn: d.ends_on,
    elsewhereOn: d.elsewhere_on,
    unsigned: d.unsigned,
  };
}

const PAGES_A_STEP = 10;

/** The document was deleted while being read. */
class Deleted extends Error {}

/** Returns the printed places of a document with people's corrections of earlier packets; null if there are none. */
export type LearnedOf = (ctx: Context, row: q.DocumentRow, facts: FactsFile) => Promise<PrintedPlace[] | null>;

/**
 * Reads the pages of a document and reports progress. A file that cannot be read is set aside with the reason.
 *
 * @param learnedOf returns the places with people's corrections
 */
export async function readDocument(ctx: Context, id: string, learnedOf: LearnedOf): Promise<void> {
  const db = ctx.database.pool;
  const row = await q.documentById(db, id);
  if (row?.status !== 'reading') return;
  try {
    const copy = row.sealed ? await sealedCopyOf(ctx, row) : null;
    const read = await readFacts(ctx, row, copy);
    const { words, scans } = read;
    // A document that was replaced meanwhile is not worth the time; a sealed one must stay as it is.
    if (scans.length && !row.words_laid && !row.replaced_by && !row.sealed) return await beginScan(ctx, row, scans);
    const stored = await storeFacts(ctx, row, read, copy ? null : learnedOf);
    if (copy) await q.setOwnPages(db, id, copy.ownPages);
    await q.setDocumentReady(db, id, stored.sha256, suggestType(words, row.file_name), wordsToFind(words));
    // Whoever deleted it meanwhile knew of no facts.
    if (!(await q.documentById(db, id))) await deleteFresh(ctx, stored.sha256);
  } catch (error) {
    if (error instanceof Deleted) return;
    // Stopping the server ends the workers too, and a full disk is not the paper's fault: it is tried again.
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    await q.setDocumentFailed(db, id, whyUnread(row.name, error));
  }
  await documentRead(ctx, row);
}

/** Stores what was read, with people's corrections of earlier packets. */
async function storeFacts(
  ctx: Context,
  row: q.DocumentRow,
  read: PaperRead,
  learnedOf: LearnedOf | null,
): Promise<{ sha256: string }> {
  const stored = await ctx.files.put(await pack(factsText(read)));
  if (!learnedOf || !read.places) return stored;
  const learned = await learnedOf(ctx, row, { id: row.id, name: row.name, file: ctx.files.fileOf(stored.sha256) });
  if (!learned) return stored;
  const places = JSON.stringify(learned).slice(1, -1);
  if (places === read.places) return stored;
  const better = await ctx.files.put(await pack(factsText({ ...read, places })));
  await deleteFresh(ctx, stored.sha256);
  return better;
}

function readFacts(
  ctx: Context,
  row: q.DocumentRow,
  copy: Awaited<ReturnType<typeof sealedCopyOf>> | null,
): Promise<PaperRead> {
  const file = ctx.files.fileOf(row.sha256);
  const original = row.came_as === 'pdf' && !row.made_from ? ctx.files.fileOf(row.original_sha256) : null;
  const owner = row.deal_id ?? row.shelf_id ?? row.incoming_id ?? row.id;
  return readPaper(ctx, { file, original, sizes: row.pages, owner, ...copy }, async (page) => {
    // Deleting it meanwhile ends the work on it.
    if (!(await q.setPagesRead(ctx.database.pool, row.id, page))) throw new Deleted();
    notifyAbout(ctx, row);
  });
}

interface PaperRead {
  /** Pages and printed places as items of JSON lists, without the brackets. */
  pages: string;
  places: string;
  /** Number of pages before those that the product has added; only a sealed copy has such. */
  ownPages?: number | undefined;
  words: string;
  /** Scanned pages without words. */
  scans: number[];
}

type Readable = Pick<ReadTask, 'file' | 'original' | 'sizes' | 'putOn'> & { owner: string; ownPages?: number };

/**
 * Reads the pages of a file that is not a document. @returns the fingerprint of its facts, and its words for
 * searching
 */
export async function factsOfPaper(ctx: Context, paper: Readable): Promise<{ sha256: string; words: string }> {
  const read = await readPaper(ctx, paper, () => Promise.resolve());
  return { sha256: (await ctx.files.put(await pack(factsText(read)))).sha256, words: wordsToFind(read.words) };
}

async function readPaper(
  ctx: Context,
  { file, original, sizes, owner, putOn = [], ownPages }: Readable,
  told: (page: number) => Promise<void>,
): Promise<PaperRead> {
  const pages: string[] = [];
  const scans: number[] = [];
  const places: string[] = [];
  let words = '';
  for (let from = 1; from <= sizes.length; from += PAGES_A_STEP) {
    const to = Math.min(sizes.length, from + PAGES_A_STEP - 1);
    const step = await ctx.work.run('read', { file, original, sizes, from, to, before: words, putOn }, owner);
    pages.push(step.pages);
    scans.push(...step.scans);
    if (step.places) places.push(step.places);
    // The first pages show what type of document it is.
    if (words.length < 20_000) words += `${step.text} `;
    await told(to);
  }
  return { pages: pages.join(','), places: places.join(','), ownPages, words, scans };
}

/** Returns the facts of a document's pages as they are stored. */
function factsText({ pages, places, ownPages }: PaperRead): string {
  const own = ownPages === undefined ? '' : `,"ownPages":${ownPages}`;
  return `{"cell":3,"pages":[${pages}],"places":[${places}]${own}}`;
}

const pack = promisify(gzip);

/**
 * Returns a document by its id.
 *
 * @throws Problem `not-found`
 */
export async function documentOr404(db: Db, id: string): Promise<q.DocumentRow> {
  const row = await q.documentById(db, id);
  if (!row) throw notFound('This document');
  return row;
}

/**
 * Returns a document that a member may see: a form's paper is visible to those who may use the form, an incoming contract to
 * whoever added it.
 *
 * @throws Problem `not-found`
 */
export async function documentFor(db: Db, id: string, member: Member): Promise<q.DocumentRow> {
  const row = await documentOr404(db, id);
  if (row.shelf_id && !(await mayUseItem(db, row.shelf_id, member.id))) throw notFound('This document');
  if (row.incoming_id && !(await q.isIncomingOf(db, row.incoming_id, member.id))) throw notFound('This document');
  return row;
}

/** Returns the problem of a document without facts: it is still being read, or could not be read. */
const unread = (row: q.DocumentRow): Problem =>
  row.status === 'failed'
    ? new Problem('reading', `“${row.name}” could not be read. Replace the file, or remove it from the packet.`, {
        final: true,
      })
    : new Problem('reading', `“${row.name}” is still being read. It is ready in a moment.`);

/**
 * Returns the stored facts of a document's pages: JSON, compressed with gzip.
 *
 * @throws Problem `reading`
 */
export function storedFacts(ctx: Context, row: q.DocumentRow): Promise<Buffer> {
  if (!row.facts_sha256) throw unread(row);
  return ctx.files.read(row.facts_sha256);
}

/**
 * Returns what was read on the pages of a document, as it is stored and sent.
 *
 * @throws Problem if the pages have not been read
 * @throws Problem `reading`
 */
export async function packedFacts(ctx: Context, row: q.DocumentRow): Promise<PackedFacts> {
  return packedFactsIn(await factsFile(ctx, row));
}

/**
 * Returns the files with the facts of documents, for worker processes.
 *
 * @throws Problem `reading`
 */
export function factsFiles(ctx: Context, rows: q.DocumentRow[]): FactsFile[] {
  return rows.map((row) => ({ id: row.id, name: row.name, file: factsFile(ctx, row) }));
}

function factsFile(ctx: Context, row: q.DocumentRow): string {
  if (!row.facts_sha256) throw unread(row);
  return ctx.files.fileOf(row.facts_sha256);
}

/**
 * Returns a page as PNG, drawn once and cached in the cache folder.
 *
 * @throws Problem `not-found`, `undrawable`
 */
export async function pageImage(
  ctx: Context,
  doc: { sha256: string; pages: { width: number; height: number }[] },
  page: number,
  wantedDpi: number,
): Promise<Buffer> {
  const size = doc.pages[page - 1];
  if (!size) throw notFound('This page');
  const dpi = PAGE_DPIS.find((d) => d >= wantedDpi) ?? lastOf(PAGE_DPIS);
  const file = path.join(pictureDir(ctx, doc.sha256), `${doc.sha256}-${page}-${dpi}.png`);
  const kept = await stat(file).catch(() => null);
  if (kept) return readFile(file);
  const png = await drawn(ctx, { file: ctx.files.fileOf(doc.sha256), page, size, dpi }, doc.sha256);
  await writeWhole(file, png);
  return png;
}

/** Pages that could not be drawn, and why; they are not drawn again. */
const undrawableOf = perContext(() => new LRUCache<string, WorkFailure>({ max: 1_000 }));

async function drawn(
  ctx: Context,
  task: { file: string; page: number; size: { width: number; height: number }; dpi: number },
  owner: string,
): Promise<Buffer> {
  const key = `${owner}-${task.page}`;
  const undrawable = undrawableOf(ctx);
  const before = undrawable.get(key);
  try {
    if (before) throw before;
    return Buffer.from(await ctx.work.run('png', task, owner));
  } catch (error) {
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    undrawable.set(key, error);
    throw new Problem('undrawable', `Page ${task.page} ${error.inWords('drawn')}.`);
  }
}

/**
 * Changes a document's name or type, or which document replaces it.
 *
 * @throws Problem `not-found`, `replaced-already`
 */
export async function changeDocument(
  ctx: Context,
  id: string,
  body: DocumentPatch,
  member: Member,
): Promise<DocumentView> {
  const row = await inTransaction(ctx.database.pool, async (tx) => {
    const { db } = tx;
    // One after another, so that of two that replace each other the second sees the first.
    if (body.replacedBy) await q.lockReplacements(db, (await documentOr404(db, id)).deal_id ?? '');
    const was = await q.lockDocument(db, id);
    if (!was || (was.shelf_id && !(await mayChangeItem(db, was.shelf_id, member.id)))) throw notFound('This document');
    if (was.incoming_id && !(await q.isIncomingOf(db, was.incoming_id, member.id))) throw notFound('This document');
    if (body.replacedBy) {
      const by = await documentOr404(db, body.replacedBy);
      if (by.deal_id !== was.deal_id || by.shelf_id !== was.shelf_id || by.id === id)
        throw notFound('The document that takes its place');
      if (await q.isReplacedBy(db, by.id, id))
        throw new Problem(
          'replaced-already',
          `“${by.name}” has itself been replaced by “${was.name}”. Keep both papers first, then choose which one replaces the other.`,
        );
    }
    const now: q.DocumentRow = {
      ...was,
      name: body.name ?? was.name,
      type: body.type ?? was.type,
      replaced_by: body.replacedBy === undefined ? was.replaced_by : body.replacedBy,
      ends_on: body.endsOn === undefined ? was.ends_on : body.endsOn,
      elsewhere_on: body.elsewhereOn === undefined ? was.elsewhere_on : body.elsewhereOn,
      unsigned: body.unsigned ?? was.unsigned,
    };
    await q.updateDocument(db, now);
    await documentChanged(ctx, tx, was);
    return now;
  });
  if (body.withoutWords) {
    await skipWords(ctx, row);
    return documentView(await documentOr404(ctx.database.pool, id));
  }
  return documentView(row);
}

/**
 * Deletes a document unless a packet contains it. Its files are deleted when nothing else needs them.
 *
 * @throws Problem `not-found`, `in-packet`
 */
export async function deleteDocument(ctx: Context, id: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await q.lockDocument(tx.db, id);
    // A form's paper goes with its form.
    if (!row?.deal_id) throw notFound('This document');
    const packets = await packetsWithDocument(tx.db, id);
    if (packets.length)
      throw new Problem(
        'in-packet',
        `“${row.name}” is in the packet “${itemAt(packets, 0).name}”. Remove it there first.`,
      );
    await q.deleteDocument(tx.db, id);
    await documentChanged(ctx, tx, row);
    for (const file of new Set([row.original_sha256, row.sha256, row.facts_sha256]))
      if (file) await queueFileDeletionIn(ctx, tx, file);
  });
}
