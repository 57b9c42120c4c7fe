/** What a document says about its deal: read once its words are known. */
import type { Abstract } from '@gatepath/core/abstract';
import type { Context } from '../context';
import { notifyAbout } from '../documents/place';
import { documentById, type DocumentRow } from '../documents/queries';
import { factsFiles } from '../documents/service';
import { WorkFailure } from '../work/failure';
import * as q from './queries';

/** A document that says nothing that could be read. */
const NOTHING_READ: Abstract = { kind: 'sale', kindCertain: false, people: [], fields: [] };

/** Reads what a document says about its deal, and saves it. Repeated calls read it again. */
export async function abstractDocument(ctx: Context, id: string): Promise<void> {
  const row = await documentById(ctx.database.pool, id);
  // What people have signed with us already needs no reading.
  if (!row?.facts_sha256 || row.shelf_id || row.sealed) return;
  await q.saveAbstract(ctx.database.pool, id, await read(ctx, row));
  notifyAbout(ctx, row);
}

async function read(ctx: Context, row: DocumentRow): Promise<Abstract> {
  const [document] = factsFiles(ctx, [row]);
  if (!document) return NOTHING_READ;
  try {
    const task = { document, scanned: row.scan_pages };
    return (await ctx.work.run('abstract', task, row.deal_id ?? row.incoming_id ?? row.id)) ?? NOTHING_READ;
  } catch (error) {
    // Stopping the server is not the document's fault: the job is tried again.
    if (!(error instanceof WorkFailure) || error.reason === 'stopped') throw error;
    return NOTHING_READ;
  }
}
