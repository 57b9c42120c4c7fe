/** Recomputing the status of many deals: the open ones after a rule changed, all of them after an upgrade. */
import type { Context } from '../context';
import { breathe } from '../db/breathe';
import { inTransaction } from '../db/tx';
import { indexWords } from '../documents/words';
import { indexPeople } from '../people/found';
import { peopleAfter } from '../people/queries';
import { dealIdsAfter } from '../deal-records/queries';
import { computeDealStatus } from './status';
import { EVERYTHING } from '../jobs/deal-status';

const A_STEP = 500;
/** How long one job runs before the next one continues, in milliseconds. */
const SLICE_MS = 60_000;
/** Separates the subject of a job from the id of the deal after which it continues. */
const AFTER = ' after ';

/**
 * Recomputes the open deals, or, for the subject `EVERYTHING`, all deals and the search index of people, for one
 * minute. The rest is enqueued as a job that names the deal after which it continues.
 */
export async function recomputeDeals(ctx: Context, what: string): Promise<void> {
  const [name = '', from = ''] = what.split(AFTER);
  const all = name === EVERYTHING;
  const db = ctx.database.pool;
  const end = performance.now() + SLICE_MS;
  for (let after = from, ids = await dealIdsAfter(db, after, all, A_STEP); ids.length;) {
    for (const id of ids) {
      if (ctx.jobs.stopping) return;
      if (all) await indexWords(ctx, id);
      await computeDealStatus(ctx, id);
      after = id;
      if (performance.now() > end)
        return await inTransaction(db, (tx) => ctx.jobs.queue(tx, 'rules', `${name}${AFTER}${after}`));
      await breathe();
    }
    ids = await dealIdsAfter(db, after, all, A_STEP);
  }
  if (!all) return;
  for (let people = await peopleAfter(db, '', A_STEP); people.length;) {
    await indexPeople(db, people);
    await breathe();
    people = await peopleAfter(db, people[people.length - 1]?.id ?? '', A_STEP);
  }
}
