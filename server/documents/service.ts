import { mkdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { DocumentFacts } from '@gatepath/core/marks';
import { suggestType } from '@gatepath/core/reading';
import {
  unpackFacts,
  type ComposeBody,
  type DocumentPatch,
  type DocumentView,
  type PackedFacts,
} from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { dealOr404 } from '../deals/service';
import { newId, newSecret } from '../ids';
import { topics } from '../live/live';
import { packetsWithDocument } from '../packets/queries';
import type { PaperKind, SortProblem } from '../pdf/convert';
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
    type: d.type,
    cameAs: d.came_as,
    madeFrom: d.made_from ?? [],
    replacedBy: d.replaced_by,
  };
}

const PROBLEMS: Record<PrepareProblem | SortProblem | 'empty' | 'cannot_convert', (file: string) => string> = {
  empty: (f) => `“${f}” is empty. Choose the file again.`,
  not_pdf: (f) => `“${f}” is not a PDF. Save or print it as a PDF, then add that.`,
  locked: (f) =>
    `“${f}” is locked with a password or restrictions. Save an unlocked copy (print it to PDF), then add that.`,
  broken: (f) => `“${f}” is damaged and cannot be read. Ask for it again, or open it elsewhere and save it anew.`,
  no_pages: (f) => `“${f}” has no pages.`,
  too_many_pages: (f) => `“${f}” has more than 1,000 pages. Split it, then add the parts.`,
  old_word: (f) => `“${f}” is an old Word file. Save it as DOCX or PDF, then add that.`,
  heic: (f) =>
    `“${f}” is a HEIC picture. Save it as JPEG (or send it from the phone as “most compatible”), then add that.`,
  unknown: (f) => `“${f}” is not a paper we can read. Add a PDF, a DOCX, a plain text, or a PNG, JPEG or WebP picture.`,
  cannot_convert: (f) => `“${f}” cannot be made a PDF. Open it elsewhere, print it to PDF, and add that.`,
};

/** What is wrong with a file that cannot be used, for whoever brought it. */
export function paperProblem(problem: keyof typeof PROBLEMS, fileName: string): string {
  return PROBLEMS[problem](fileName);
}

const isPaper = (sort: PaperKind | SortProblem): sort is PaperKind => ['pdf', 'docx', 'text', 'picture'].includes(sort);

/** Brings one paper into a deal: stores it, makes it a PDF if it is none, prepares it; its pages are read afterwards. */
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
  const made = original.bytes ? await preparedPaper(ctx, original.sha256, fileName) : 'empty';
  if (typeof made === 'string') {
    if (!(await q.fileInUse(ctx.database.pool, original.sha256))) await ctx.files.remove(original.sha256);
    throw unusable(made.replace(/_/g, '-'), PROBLEMS[made](fileName));
  }
  return keepDocument(ctx, {
    deal_id: dealId,
    name: nameOf(fileName),
    file_name: fileName,
    original_sha256: original.sha256,
    bytes: original.bytes,
    type: made.kind === 'picture' ? 'picture' : 'other',
    came_as: made.kind,
    made_from: null,
    ...made.prepared,
  });
}

/** The prepared PDF of a file that was brought in, or what is wrong with it. */
export async function preparedPaper(
  ctx: Context,
  sha256: string,
  fileName: string,
): Promise<{ kind: PaperKind; prepared: { sha256: string; pages: q.DocumentRow['pages'] } } | keyof typeof PROBLEMS> {
  const file = ctx.files.pathOf(sha256);
  const kind = await ctx.pdf.run('sort', { file, name: fileName });
  if (!isPaper(kind)) return kind;
  let pdf = file;
  if (kind !== 'pdf') {
    try {
      pdf = ctx.files.pathOf(
        (await ctx.files.put(await ctx.pdf.run('convert', { file, kind, title: nameOf(fileName) }))).sha256,
      );
    } catch {
      return 'cannot_convert';
    }
  }
  const prepared = await ctx.pdf.run('prepare', { file: pdf });
  if (!prepared.ok) return prepared.problem;
  const shown = await ctx.files.put(prepared.bytes);
  return { kind, prepared: { sha256: shown.sha256, pages: prepared.pages } };
}

/** Stores a prepared document and begins to read it. */
async function keepDocument(
  ctx: Context,
  d: Pick<
    q.DocumentRow,
    'deal_id' | 'name' | 'file_name' | 'original_sha256' | 'sha256' | 'pages' | 'type' | 'came_as' | 'made_from'
  > & {
    bytes: number;
    replaces?: string[];
  },
): Promise<DocumentView> {
  const row: q.DocumentRow = {
    id: newId(),
    deal_id: d.deal_id,
    name: d.name,
    file_name: d.file_name,
    original_sha256: d.original_sha256,
    sha256: d.sha256,
    bytes: String(d.bytes),
    pages: d.pages,
    pages_read: 0,
    status: 'reading',
    problem: null,
    facts_sha256: null,
    created_at: ctx.clock.now(),
    type: d.type,
    came_as: d.came_as,
    made_from: d.made_from,
    replaced_by: null,
  };
  await inTransaction(ctx.database.pool, async ({ db }) => {
    await q.insertDocument(db, { ...row, bytes: d.bytes });
    if (d.replaces?.length) await q.setReplaced(db, d.deal_id, d.replaces, row.id);
  });
  ctx.live.tell(topics.deal(d.deal_id));
  void readDocument(ctx, row);
  return documentView(row);
}

/** Makes one document of pages of others in the deal; the others stay for their originals and for undo. */
export async function composeDocument(ctx: Context, dealId: string, body: ComposeBody): Promise<DocumentView> {
  await dealOr404(ctx.database.pool, dealId);
  const ids = [...new Set(body.parts.map((p) => p.documentId))];
  const rows = new Map((await q.documentsByIds(ctx.database.pool, ids)).map((r) => [r.id, r]));
  const parts = body.parts.map((p) => {
    const row = rows.get(p.documentId);
    if (!row || row.deal_id !== dealId) throw notFound('A document of these pages');
    if (!row.pages[p.page - 1]) throw unusable('no-such-page', `“${row.name}” has no page ${p.page}.`);
    return { file: ctx.files.pathOf(row.sha256), page: p.page, turn: p.turn as 0 | 90 | 180 | 270 };
  });
  const { bytes, pages } = await ctx.pdf.run('compose', { parts });
  const stored = await ctx.files.put(bytes);
  const first = rows.get(ids[0]!)!;
  return keepDocument(ctx, {
    deal_id: dealId,
    name: body.name,
    file_name: `${body.name}.pdf`,
    // One source: its original stays this document's. Several: what was made of them is the original.
    original_sha256: ids.length === 1 ? first.original_sha256 : stored.sha256,
    sha256: stored.sha256,
    bytes: bytes.length,
    pages,
    type: first.type,
    came_as: ids.length === 1 ? first.came_as : 'pdf',
    made_from: ids,
    replaces: body.replaces ?? [],
  });
}

/** "Seller_disclosure-v2.pdf" becomes "Seller disclosure v2". */
function nameOf(fileName: string): string {
  const bare = fileName
    .replace(/\.(?:pdf|docx|txt|text|md|png|jpe?g|webp)$/i, '')
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

const PAGES_A_STEP = 10;

/** Reads the pages of a document in the background, telling the screens how far it is. */
export function readDocument(ctx: Context, row: q.DocumentRow): Promise<void> {
  const work = (async () => {
    try {
      const file = ctx.files.pathOf(row.sha256);
      const original = row.came_as === 'pdf' && !row.made_from ? ctx.files.pathOf(row.original_sha256) : null;
      const facts: PackedFacts = { cell: 3, pages: [], places: [] };
      let words = '';
      for (let from = 1; from <= row.pages.length; from += PAGES_A_STEP) {
        const to = Math.min(row.pages.length, from + PAGES_A_STEP - 1);
        const step = await ctx.pdf.run('facts', { file, original, sizes: row.pages, from, to, before: words });
        facts.pages.push(...step.pages);
        facts.places.push(...step.places);
        // The first pages tell what kind of paper it is.
        if (words.length < 20_000) words += `${step.text} `;
        await q.setPagesRead(ctx.database.pool, row.id, to);
        ctx.live.tell(topics.deal(row.deal_id));
      }
      const stored = await ctx.files.put(gzipSync(JSON.stringify(facts)));
      await q.setDocumentReady(ctx.database.pool, row.id, stored.sha256, suggestType(words, row.file_name));
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

export const PAGE_DPIS = [24, 72, 108, 144, 216, 288] as const;

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

/** Corrects a document's name or type, or says which other one took its place. */
export async function changeDocument(ctx: Context, id: string, body: DocumentPatch): Promise<DocumentView> {
  const row = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await documentOr404(db, id);
    if (body.replacedBy) {
      const by = await documentOr404(db, body.replacedBy);
      if (by.deal_id !== was.deal_id || by.id === id) throw notFound('The document that takes its place');
    }
    const now: q.DocumentRow = {
      ...was,
      name: body.name ?? was.name,
      type: body.type ?? was.type,
      replaced_by: body.replacedBy === undefined ? was.replaced_by : body.replacedBy,
    };
    await q.updateDocument(db, now);
    afterCommit(() => ctx.live.tell(topics.deal(was.deal_id)));
    return now;
  });
  return documentView(row);
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
