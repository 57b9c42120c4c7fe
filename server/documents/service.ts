import { mkdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { DocumentFacts } from '@gatepath/core/marks';
import { unpackFacts, type DocumentView, type PackedFacts } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { dealOr404 } from '../deals/service';
import { newId, newSecret } from '../ids';
import { topics } from '../live/live';
import { packetsWithDocument } from '../packets/queries';
import type { PrepareProblem } from '../pdf/prepare';
import { conflict, notFound, unusable } from '../problem';
import * as q from './queries';

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
  };
}

const PROBLEMS: Record<PrepareProblem | 'empty', (file: string) => string> = {
  empty: (f) => `“${f}” is empty. Choose the file again.`,
  not_pdf: (f) => `“${f}” is not a PDF. Save or print it as a PDF, then add that.`,
  locked: (f) =>
    `“${f}” is locked with a password or restrictions. Save an unlocked copy (print it to PDF), then add that.`,
  broken: (f) => `“${f}” is damaged and cannot be read. Ask for it again, or open it elsewhere and save it anew.`,
  no_pages: (f) => `“${f}” has no pages.`,
  too_many_pages: (f) => `“${f}” has more than 500 pages. Split it, then add the parts.`,
};

/** Brings one PDF into a deal: stores it, checks it, prepares it; its pages are read afterwards. */
export async function addDocument(
  ctx: Context,
  dealId: string,
  fileName: string,
  stream: Readable & { truncated?: boolean },
): Promise<DocumentView> {
  await dealOr404(ctx.database.pool, dealId);
  const original = await ctx.files.putStream(stream);
  if (original === 'truncated')
    throw unusable('too-large', `“${fileName}” is larger than 50 MB. Split it or save it smaller, then add it again.`);
  const prepared = original.bytes
    ? await ctx.pdf.run('prepare', { file: ctx.files.pathOf(original.sha256) })
    : ({ ok: false, problem: 'empty' } as const);
  if (!prepared.ok) {
    if (!(await q.fileInUse(ctx.database.pool, original.sha256))) await ctx.files.remove(original.sha256);
    throw unusable(prepared.problem.replace(/_/g, '-'), PROBLEMS[prepared.problem](fileName));
  }
  const shown = await ctx.files.put(prepared.bytes);
  const row: q.DocumentRow = {
    id: newId(),
    deal_id: dealId,
    name: nameOf(fileName),
    file_name: fileName,
    original_sha256: original.sha256,
    sha256: shown.sha256,
    bytes: String(original.bytes),
    pages: prepared.pages,
    pages_read: 0,
    status: 'reading',
    problem: null,
    facts_sha256: null,
    created_at: ctx.clock.now(),
  };
  await q.insertDocument(ctx.database.pool, { ...row, bytes: original.bytes });
  ctx.live.tell(topics.deal(dealId));
  void readDocument(ctx, row);
  return documentView(row);
}

/** "Seller_disclosure-v2.pdf" becomes "Seller disclosure v2". */
function nameOf(fileName: string): string {
  const bare = fileName
    .replace(/\.pdf$/i, '')
    .replace(/[_\s]+/g, ' ')
    .replace(/-(?=\w)/g, ' ')
    .trim();
  return (bare || 'Document').slice(0, 120);
}

const reading = new Set<Promise<void>>();

/** Waits until no document is being read: for stopping, and for tests. */
export async function readingDone(): Promise<void> {
  while (reading.size) await Promise.all(reading);
}

const PAGES_A_STEP = 8;

/** Reads the pages of a document in the background, telling the screens how far it is. */
export function readDocument(ctx: Context, row: q.DocumentRow): Promise<void> {
  const work = (async () => {
    try {
      const file = ctx.files.pathOf(row.sha256);
      const pages: PackedFacts['pages'] = [];
      for (let from = 1; from <= row.pages.length; from += PAGES_A_STEP) {
        const to = Math.min(row.pages.length, from + PAGES_A_STEP - 1);
        pages.push(...(await ctx.pdf.run('facts', { file, sizes: row.pages, from, to })));
        await q.setPagesRead(ctx.database.pool, row.id, to);
        ctx.live.tell(topics.deal(row.deal_id));
      }
      const facts: PackedFacts = { cell: 3, pages };
      const stored = await ctx.files.put(gzipSync(JSON.stringify(facts)));
      await q.setDocumentReady(ctx.database.pool, row.id, stored.sha256);
    } catch {
      // Stopping the server ends the workers too; the next start reads on.
      if (ctx.jobs.stopping) return;
      await q.setDocumentFailed(
        ctx.database.pool,
        row.id,
        `The pages of “${row.name}” cannot be read. Open it elsewhere, save it anew, and add that.`,
      );
    }
    ctx.live.tell(topics.deal(row.deal_id));
  })();
  reading.add(work);
  void work.finally(() => reading.delete(work));
  return work;
}

/** Takes up reading where a stop of the server cut it off. */
export async function resumeReading(ctx: Context): Promise<void> {
  for (const row of await q.unreadDocuments(ctx.database.pool)) void readDocument(ctx, row);
}

export async function documentOr404(db: Db, id: string): Promise<q.DocumentRow> {
  const row = await q.documentById(db, id);
  if (!row) throw notFound('This document');
  return row;
}

/** The facts of a document's pages as they are kept: JSON, compressed with gzip. */
export function keptFacts(ctx: Context, row: q.DocumentRow): Promise<Buffer> {
  if (!row.facts_sha256) throw conflict('reading', `“${row.name}” is still being read. It is ready in a moment.`);
  return ctx.files.read(row.facts_sha256);
}

export async function packedFacts(ctx: Context, row: q.DocumentRow): Promise<PackedFacts> {
  return JSON.parse(gunzipSync(new Uint8Array(await keptFacts(ctx, row))).toString('utf8')) as PackedFacts;
}

/** The facts of several documents as the core takes them. */
export function factsOf(ctx: Context, rows: q.DocumentRow[]): Promise<DocumentFacts[]> {
  return Promise.all(rows.map(async (row) => unpackFacts(row.id, row.name, await packedFacts(ctx, row))));
}

export const PAGE_DPIS = [72, 108, 144, 216, 288] as const;

/** A page as PNG, drawn once and kept under the cache folder. */
export async function pageImage(
  ctx: Context,
  doc: { sha256: string; pages: { width: number; height: number }[] },
  page: number,
  wantedDpi: number,
): Promise<Buffer> {
  const size = doc.pages[page - 1];
  if (!size) throw notFound('This page');
  const dpi = PAGE_DPIS.find((d) => d >= wantedDpi) ?? PAGE_DPIS[PAGE_DPIS.length - 1]!;
  const file = path.join(
    ctx.config.dataDir,
    'cache',
    'pages',
    doc.sha256.slice(0, 2),
    `${doc.sha256}-${page}-${dpi}.png`,
  );
  const kept = await stat(file).catch(() => null);
  if (kept) return readFile(file);
  const png = Buffer.from(await ctx.pdf.run('png', { file: ctx.files.pathOf(doc.sha256), page, size, dpi }));
  await mkdir(path.dirname(file), { recursive: true });
  const temp = `${file}.${newSecret()}`;
  await writeFile(temp, png);
  await rename(temp, file);
  return png;
}

export async function renameDocument(ctx: Context, id: string, name: string): Promise<DocumentView> {
  const row = await documentOr404(ctx.database.pool, id);
  await q.renameDocument(ctx.database.pool, id, name);
  ctx.live.tell(topics.deal(row.deal_id));
  return documentView({ ...row, name });
}

/** Removes a document from its deal, unless a packet holds it. */
export async function dropDocument(ctx: Context, id: string): Promise<void> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const row = await documentOr404(db, id);
    const packets = await packetsWithDocument(db, row.deal_id, id);
    if (packets.length)
      throw conflict('in-packet', `“${row.name}” is in the packet “${packets[0]!.name}”. Take it out there first.`);
    await q.deleteDocument(db, id);
    afterCommit(() => ctx.live.tell(topics.deal(row.deal_id)));
  });
}
