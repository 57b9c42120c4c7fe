import { mkdir, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { DocumentFacts } from '@gatepath/core/marks';
import { suggestType } from '@gatepath/core/reading';
import { PAGE_DPIS, unpackFacts, type DocumentPatch, type DocumentView, type PackedFacts } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { newSecret } from '../ids';
import { topics } from '../live/live';
import { packetsWithDocument } from '../packets/queries';
import { conflict, notFound } from '../problem';
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
