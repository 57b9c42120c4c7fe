/** Jobs that recompute the status of deals. */
import type { Context } from '../context';
import type { Tx } from '../db/tx';

/** Subject of a `rules` job: recompute every deal, and everything that is found by searching. */

export const EVERYTHING = 'everything';

/** Subject of a `rules` job: recompute the open deals. */
export const OPEN_DEALS = 'rules';

/** Enqueues recomputing a deal's status after the transaction commits. */
export const queueDealStatus = (ctx: Context, tx: Tx, dealId: string) => ctx.jobs.queue(tx, 'deal', dealId);
