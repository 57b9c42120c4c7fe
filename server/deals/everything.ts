/** Deals looked at in great number: the open ones after a rule changed, all of them after an upgrade. */
import type { Context } from '../context';
import { breathe } from '../db/breathe';
import { lookUpWords } from '../documents/words';
import { indexPeople } from '../find/queries';
import { peopleAfter } from '../people/queries';
import { dealIdsAfter } from './queries';
import { lookAtDeal } from './standing';

/** Names the look at everything there is; any other name is one at the open deals. */
export const EVERYTHING = 'everything';
const A_STEP = 500;

/** Has the open deals looked at, or, by the name of it, works out anew whatever follows from deals and people. */
export async function lookAtMany(ctx: Context, what: string): Promise<void> {
  const all = what === EVERYTHING;
  const db = ctx.database.pool;
  for (let after = '', ids = await dealIdsAfter(db, after, all, A_STEP); ids.length;) {
    for (const id of ids) {
      if (ctx.jobs.stopping) return;
      if (all) await lookUpWords(ctx, id);
      await lookAtDeal(ctx, id);
      await breathe();
    }
    after = ids[ids.length - 1] ?? '';
    ids = await dealIdsAfter(db, after, all, A_STEP);
  }
  if (!all) return;
  for (let people = await peopleAfter(db, '', A_STEP); people.length;) {
    await indexPeople(db, people);
    await breathe();
    people = await peopleAfter(db, people[people.length - 1]?.id ?? '', A_STEP);
  }
}
