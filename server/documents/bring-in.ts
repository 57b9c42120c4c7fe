/** Bringing papers into a deal: stored, made PDF if they are none, prepared; and making new ones of their pages. */
import type { Readable } from 'node:stream';
import type { ComposeBody, DocumentView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { dealOr404 } from '../deals/service';
import { newId } from '../ids';
import { topics } from '../live/live';
import type { PaperKind, SortProblem } from '../pdf/convert';
import type { PrepareProblem } from '../pdf/prepare';
import { notFound, unusable } from '../problem';
import * as q from './queries';
import { documentView, readDocument } from './service';

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
  const kind = await ctx.work.run('sort', { file, name: fileName });
  if (!isPaper(kind)) return kind;
  const made = kind === 'pdf' ? null : await converted(ctx, file, kind, fileName);
  if (made === 'cannot_convert') return made;
  const prepared = await ctx.work.run('prepare', { file: made ? ctx.files.pathOf(made) : file });
  const shown = prepared.ok ? (await ctx.files.put(prepared.bytes)).sha256 : null;
  // What stood between the original and what is shown was only on the way.
  if (made && made !== shown && !(await q.fileInUse(ctx.database.pool, made))) await ctx.files.remove(made);
  return prepared.ok ? { kind, prepared: { sha256: shown!, pages: prepared.pages } } : prepared.problem;
}

/** Stores the PDF a paper is made, and names it. */
async function converted(
  ctx: Context,
  file: string,
  kind: Exclude<PaperKind, 'pdf'>,
  fileName: string,
): Promise<string | 'cannot_convert'> {
  try {
    return (await ctx.files.put(await ctx.work.run('convert', { file, kind, title: nameOf(fileName) }))).sha256;
  } catch {
    return 'cannot_convert';
  }
}

/** Stores a prepared document and begins to read it. */
async function keepDocument(
  ctx: Context,
  d: Pick<
    q.DocumentRow,
    'deal_id' | 'name' | 'file_name' | 'original_sha256' | 'sha256' | 'pages' | 'type' | 'came_as' | 'made_from'
  > & {
    bytes: number;
    sealed?: boolean;
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
    sealed: d.sealed ?? false,
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
    if (row.sealed)
      throw unusable(
        'sealed',
        `“${row.name}” is sealed: changing its pages would break the seals. Add another document beside it.`,
      );
    if (!row.pages[p.page - 1]) throw unusable('no-such-page', `“${row.name}” has no page ${p.page}.`);
    return { file: ctx.files.pathOf(row.sha256), page: p.page, turn: p.turn as 0 | 90 | 180 | 270 };
  });
  const { bytes, pages } = await ctx.work.run('compose', { parts });
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

/**
 * Keeps a sealed copy as a document of its deal, byte for byte: what is signed on it later is
 * appended, so that the seals it carries stay valid.
 */
export async function keepSealedDocument(
  ctx: Context,
  dealId: string,
  name: string,
  sha256: string,
): Promise<DocumentView> {
  const pages = await ctx.work.run('sizes', { file: ctx.files.pathOf(sha256) }, dealId);
  return keepDocument(ctx, {
    deal_id: dealId,
    name: name.slice(0, 120),
    file_name: `${name}.pdf`.slice(0, 200),
    original_sha256: sha256,
    bytes: await ctx.files.sizeOf(sha256),
    type: 'other',
    came_as: 'pdf',
    made_from: null,
    sha256,
    pages,
    sealed: true,
  });
}
