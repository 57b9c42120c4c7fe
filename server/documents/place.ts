/** What follows from a change of a document, in a deal or on the shelf. */
import type { Context } from '../context';
import type { Tx } from '../db/tx';
import { queueDealStatus } from '../jobs/deal-status';
import { topics } from '../live/live';
import type { DocumentRow } from './queries';

/** Where a document is: in a deal, on the shelf, or among the incoming contracts. */
export type Place = Pick<DocumentRow, 'deal_id' | 'shelf_id' | 'incoming_id'>;

const topicOf = (d: Place) =>
  d.deal_id ? topics.deal(d.deal_id) : d.incoming_id ? topics.incoming(d.incoming_id) : topics.shelf(d.shelf_id ?? '');

/** Notifies the screens that show a document. */
export const notifyAbout = (ctx: Context, d: Place) => ctx.live.notify(topicOf(d));

/** Enqueues what follows from a change of a document after the commit. */
export async function documentChanged(ctx: Context, tx: Tx, d: Place): Promise<void> {
  if (d.deal_id) await queueDealStatus(ctx, tx, d.deal_id);
  tx.afterCommit(() => notifyAbout(ctx, d));
}

/** Enqueues what follows once its pages are read: its type or its places may be known by then. */
export async function documentRead(ctx: Context, d: Place & { id: string }): Promise<void> {
  notifyAbout(ctx, d);
  await ctx.jobs.queueNow('remember', d.id);
  if (!d.shelf_id) await ctx.jobs.queueNow('abstract', d.id);
  if (d.deal_id) await ctx.jobs.queueNow('deal', d.deal_id);
  else if (d.shelf_id) await ctx.jobs.queueNow('form', d.shelf_id);
}
