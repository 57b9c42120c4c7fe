/** Adding files to a deal: stored, converted to PDF, prepared; and making documents from pages of others. */
import { PAPER_KINDS, type ComposeBody, type DocumentView, type LeftOut, type PaperKind } from '@gatepath/contract';
import type { Corners } from '@gatepath/core/scan';
import { clip } from '@gatepath/core/text';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { dealOr404 } from '../deal-records/deals';
import { deleteFresh } from '../files/tidy';
import type { StoredFile } from '../files/store';
import type { Upload } from '../http/upload';
import { newId } from '../ids';
import type { SortProblem } from '../uploads/convert';
import { notFound, Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import { codeOfProblem, wordsOfProblem, type PaperProblem } from './problems';
import { documentChanged, type Place } from './place';
import * as q from './queries';
import { documentView } from './service';
import { isOneOf, itemAt } from '@gatepath/core/sure';

const isPaper = (sort: PaperKind | SortProblem): sort is PaperKind => isOneOf(PAPER_KINDS, sort);

/** Adds a file to a deal: stores it, converts it to PDF, prepares it. Its pages are read afterwards. */
export async function addDocument(
  ctx: Context,
  dealId: string,
  file: Upload,
  /** The corners of the sheet in a photo. */
  corners: Corners | null = null,
): Promise<DocumentView> {
  await dealOr404(ctx.database.pool, dealId);
  const paper = await broughtIn(ctx, file, dealId, corners);
  return documentView(await saveDocument(ctx, { ...paper, deal_id: dealId }));
}

/** Returns the document a file becomes, wherever it is stored; its files are stored. */
export async function broughtIn(
  ctx: Context,
  { name, stream }: Upload,
  owner: string,
  corners: Corners | null = null,
): Promise<Paper> {
  const made = await bringIn(ctx, { name, stream }, owner, corners);
  if ('problem' in made) throw new Problem(codeOfProblem(made), wordsOfProblem(made, name));
  return {
    name: nameOf(name),
    file_name: name,
    original_sha256: made.original.sha256,
    bytes: made.original.bytes,
    type: made.kind === 'picture' ? 'picture' : 'other',
    came_as: made.kind,
    made_from: null,
    sha256: made.sha256,
    pages: made.pages,
    left_out: made.leftOut,
  };
}

/** A prepared document that is not in the database yet. */
type Paper = Pick<
  q.DocumentRow,
  'name' | 'file_name' | 'original_sha256' | 'sha256' | 'pages' | 'type' | 'came_as' | 'made_from'
> & { bytes: number; sealed?: boolean; left_out?: LeftOut[] };

/** A file as it was added, with what is shown of it. */
export interface Brought {
  original: StoredFile;
  kind: PaperKind;
  /** The prepared file. */
  sha256: string;
  pages: q.DocumentRow['pages'];
  leftOut: LeftOut[];
}

/** Stores a file and its prepared PDF. If the file cannot be used, nothing stays behind. */
export async function bringIn(
  ctx: Context,
  { name, stream }: Upload,
  owner: string,
  corners: Corners | null = null,
): Promise<Brought | PaperProblem> {
  const original = await ctx.files.putStream(stream);
  if (original === 'truncated') return { problem: 'too_large' };
  // Files that did not exist before, and are deleted unless they are needed.
  const fresh = original.fresh ? new Set([original.sha256]) : new Set<string>();
  const keep = async (bytes: Uint8Array) => {
    const file = await ctx.files.put(bytes);
    if (file.fresh) fresh.add(file.sha256);
    return file.sha256;
  };
  try {
    if (!original.bytes) return { problem: 'empty' };
    const kind = await ctx.work.run('sort', { file: ctx.files.fileOf(original.sha256), name }, owner);
    if (!isPaper(kind)) return { problem: kind };
    let file = original.sha256;
    if (kind !== 'pdf') {
      const task = { file: ctx.files.fileOf(file), kind, title: nameOf(name), corners };
      const converted = await ctx.work.run('convert', task, owner);
      if ('problem' in converted) return converted;
      file = await keep(converted.bytes);
    }
    const prepared = await ctx.work.run('prepare', { file: ctx.files.fileOf(file) }, owner);
    if (!prepared.ok) return prepared.refusal;
    const sha256 = await keep(prepared.bytes);
    fresh.delete(original.sha256);
    fresh.delete(sha256);
    return { original, kind, sha256, pages: prepared.pages, leftOut: prepared.leftOut };
  } catch (error) {
    if (error instanceof WorkFailure && error.reason !== 'stopped') return { problem: 'gave_up', failure: error };
    throw error;
  } finally {
    for (const sha256 of fresh) await deleteFresh(ctx, sha256);
  }
}

/** Inserts a prepared document and starts reading it. */
async function saveDocument(ctx: Context, d: Paper & { deal_id: string; replaces?: string[] }): Promise<q.DocumentRow> {
  return inTransaction(ctx.database.pool, async (tx) => {
    const row = await insertPaper(ctx, tx, d, { deal_id: d.deal_id });
    if (d.replaces?.length) await q.setReplaced(tx.db, d.deal_id, d.replaces, row.id);
    return row;
  });
}

/** Inserts a prepared document into a deal, the shelf or the incoming contracts, and enqueues reading it. */
export async function insertPaper(ctx: Context, tx: Tx, d: Paper, place: Partial<Place>): Promise<q.DocumentRow> {
  const row: q.DocumentRow = {
    id: newId(),
    deal_id: null,
    shelf_id: null,
    incoming_id: null,
    ...place,
    form_id: null,
    form_edition: null,
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
    sealed: d.sealed ?? false,
    left_out: d.left_out ?? [],
    ends_on: null,
    elsewhere_on: null,
    unsigned: false,
    words: null,
    scan_pages: [],
    words_laid: false,
    own_pages: null,
    known_id: null,
  };
  await q.insertDocument(tx.db, { ...row, bytes: d.bytes });
  await ctx.jobs.queue(tx, 'read', row.id);
  await documentChanged(ctx, tx, row);
  return row;
}

/**
 * Makes one document from pages of others in the deal. Those stay, for their originals and for undo.
 *
 * @throws Problem `not-found`, `sealed`, `no-such-page`
 */
export async function composeDocument(ctx: Context, dealId: string, body: ComposeBody): Promise<DocumentView> {
  await dealOr404(ctx.database.pool, dealId);
  const ids = [...new Set(body.parts.map((p) => p.documentId))];
  const rows = new Map((await q.documentsByIds(ctx.database.pool, ids)).map((r) => [r.id, r]));
  const parts = body.parts.map((p) => {
    const row = rows.get(p.documentId);
    if (!row || row.deal_id !== dealId) throw notFound('A document of these pages');
    if (row.sealed)
      throw new Problem(
        'sealed',
        `“${row.name}” is sealed: changing its pages would break the seals. Add another document beside it.`,
      );
    if (!row.pages[p.page - 1]) throw new Problem('no-such-page', `“${row.name}” has no page ${p.page}.`);
    return { file: ctx.files.fileOf(row.sha256), page: p.page, turn: p.turn as 0 | 90 | 180 | 270 };
  });
  const replaced = await q.documentsByIds(ctx.database.pool, body.replaces ?? []);
  if (replaced.length !== new Set(body.replaces ?? []).size || replaced.some((d) => d.deal_id !== dealId))
    throw notFound('A document that this one is to replace');
  const further = { paper: itemAt([...rows.values()], 0).name, people: body.further ?? [] };
  const { bytes, pages } = await ctx.work.run('compose', { parts, further });
  const stored = await ctx.files.put(bytes);
  const first = rows.get(itemAt(ids, 0))!;
  const kept = await saveDocument(ctx, {
    deal_id: dealId,
    name: body.name,
    file_name: `${body.name}.pdf`,
    // One source: its original is this document's too. Several: the new file is the original.
    original_sha256: ids.length === 1 ? first.original_sha256 : stored.sha256,
    sha256: stored.sha256,
    bytes: bytes.length,
    pages,
    type: first.type,
    came_as: ids.length === 1 ? first.came_as : 'pdf',
    made_from: ids,
    replaces: body.replaces ?? [],
  });
  return documentView(kept);
}

/** Returns a name for a file: "Seller_disclosure-v2.pdf" becomes "Seller disclosure v2". */
function nameOf(fileName: string): string {
  const bare = fileName
    .replace(/\.(?:pdf|docx|xls[xm]|txt|text|md|png|jpe?g|webp)$/i, '')
    .replace(/[_\s]+/g, ' ')
    .replace(/-(?=\w)/g, ' ')
    .trim();
  return clip(bare, 120) || 'Document';
}

/**
 * Saves a sealed copy as a document of its deal, byte for byte: later marks are appended, so that its seals stay
 * valid.
 */
export async function saveSealedDocument(
  ctx: Context,
  dealId: string,
  name: string,
  sha256: string,
): Promise<DocumentView> {
  const pages = await ctx.work.run('sizes', { file: ctx.files.fileOf(sha256) }, dealId);
  const kept = await saveDocument(ctx, {
    deal_id: dealId,
    name: clip(name, 120),
    file_name: clip(`${name}.pdf`, 200),
    original_sha256: sha256,
    bytes: await ctx.files.sizeOf(sha256),
    type: 'other',
    came_as: 'pdf',
    made_from: null,
    sha256,
    pages,
    sealed: true,
  });
  return documentView(kept);
}
