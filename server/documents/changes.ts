/** What changed from one version of a document to the next, for members and for clients who signed the earlier one. */
import { LRUCache } from 'lru-cache';
import type { Comparison } from '@gatepath/core/changed';
import type { ComparisonView } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import type { Member } from '../firm/queries';
import type { VersionFile } from '../reading/changes';
import { notFound, Problem } from '../problem';
import { WorkFailure } from '../work/failure';
import type { DocumentRow } from './queries';
import { documentFor, factsFiles } from './service';
import { itemAt } from '@gatepath/core/sure';

interface Versions {
  before: DocumentRow;
  after: DocumentRow;
}

/**
 * Returns both versions, if this member may see both and they belong together: in one deal, or one is a form of the
 * shelf.
 */
async function versionsOf(ctx: Context, id: string, beforeId: string, member: Member): Promise<Versions> {
  const [after, before] = await Promise.all([id, beforeId].map((x) => documentFor(ctx.database.pool, x, member)));
  if (!after || !before || after.id === before.id) throw notFound('The earlier version');
  const apart = after.deal_id && before.deal_id && after.deal_id !== before.deal_id;
  if (apart) throw notFound('The earlier version');
  return { before, after };
}

/** Cached comparisons, by what was read on both documents. */
const comparedOf = perContext(() => new LRUCache<string, Promise<Comparison>>({ max: 60 }));

/**
 * Compares two documents.
 *
 * @throws Problem `reading` while one of them is still being read, `not-worked-out`
 */
export async function compare(ctx: Context, { before, after }: Versions): Promise<Comparison> {
  const task = { before: versionFile(ctx, before), after: versionFile(ctx, after) };
  const key = `${before.facts_sha256} ${after.facts_sha256} ${before.scan_pages.join()} ${after.scan_pages.join()}`;
  const compared = comparedOf(ctx);
  const known = compared.get(key);
  const asked = known ?? ctx.work.run('changes', task, after.deal_id ?? after.id);
  if (!known) {
    compared.set(key, asked);
    asked.catch(() => compared.delete(key));
  }
  try {
    return await asked;
  } catch (error) {
    throw notWorkedOut(error, after);
  }
}

function notWorkedOut(error: unknown, after: DocumentRow): unknown {
  if (!(error instanceof WorkFailure) || error.reason === 'stopped') return error;
  return new Problem('not-worked-out', `“${after.name}” ${error.inWords('compared')}. Compare both versions yourself.`);
}

/** Returns the file of an earlier version of a document. @throws Problem `reading` */
function versionFile(ctx: Context, row: DocumentRow): VersionFile {
  // A paper whose words were left out has none that could be wrong.
  return { facts: itemAt(factsFiles(ctx, [row]), 0), scans: row.scan_pages };
}

const versionView = (row: DocumentRow): ComparisonView['before'] => ({
  id: row.id,
  dealId: row.deal_id,
  shelfId: row.shelf_id,
  name: row.name,
  pages: row.pages,
  createdAt: row.created_at.toISOString(),
});

/**
 * Returns what changed from an earlier version, with both versions.
 *
 * @throws Problem `not-found`, `not-worked-out`
 */
export async function changesOf(ctx: Context, id: string, beforeId: string, member: Member): Promise<ComparisonView> {
  const versions = await versionsOf(ctx, id, beforeId, member);
  const found = await compare(ctx, versions);
  return { ...found, before: versionView(versions.before), after: versionView(versions.after) };
}

/**
 * Returns both versions side by side with what changed, as a PDF.
 *
 * @throws Problem `not-found`, `not-worked-out`
 */
export async function changesFile(
  ctx: Context,
  id: string,
  beforeId: string,
  member: Member,
): Promise<{ bytes: Uint8Array; name: string }> {
  const versions = await versionsOf(ctx, id, beforeId, member);
  const comparison = await compare(ctx, versions);
  const side = (row: DocumentRow) => ({ file: ctx.files.fileOf(row.sha256), name: row.name, sizes: row.pages });
  try {
    const bytes = await ctx.work.run(
      'changesPdf',
      { before: side(versions.before), after: side(versions.after), comparison },
      versions.after.deal_id ?? versions.after.id,
    );
    return { bytes, name: `What changed in ${versions.after.name}.pdf` };
  } catch (error) {
    throw notWorkedOut(error, versions.after);
  }
}
