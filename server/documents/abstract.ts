/** What a document says about its deal: read once its words are known. */
import type { Abstract } from '@gatepath/core/abstract';
import type { Context } from '../context';
import { dealById } from '../deal-records/queries';
import { WorkFailure } from '../work/failure';
import { saveAbstract } from './abstract-queries';
import { notifyAbout } from './place';
import { documentById, type DocumentRow } from './queries';
import { factsFiles } from './service';

/** A document that says nothing that could be read. */
const NOTHING_READ: Abstract = { kind: 'sale', kindCertain: false, people: [], fields: [], unread: [] };

/** Reads what a document says about its deal, and saves it. Repeated calls read it again. */
export async function abstractDocument(ctx: Context, id: string): Promise<void> {
  const row = await documentById(ctx.database.pool, id);
  // What people have signed with us already needs no reading.
  if (!row?.facts_sha256 || row.shelf_id || row.sealed) return;
  await saveAbstract(ctx.database.pool, id, await read(ctx, row));
  if (row.deal_id) await ctx.jobs.queueNow('deal', row.deal_id);
  notifyAbout(ctx, row);
}

async function read(ctx: Context, row: DocumentRow): Promise<Abstract> {
  const [document] = factsFiles(ctx, [row]);
  if (!document) return NOTHING_READ;
  const kind = row.deal_id ? (await dealById(ctx.database.pool, row.deal_id))?.kind : undefined;
  try {
    const task = { document, scanned: row.scan_pages, kind };
    return (await ctx.work.run('abstract', task, row.deal_id ?? row.incoming_id ?? row.id)) ?? NOTHING_READ;
  } catch (error) {
    // Stopping the server is not the document's fault: the job is tried again.
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    return NOTHING_READ;
  }
}
