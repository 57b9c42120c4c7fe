/** A deal by its id, and what text in its packets may name. */
import { showDay } from '@gatepath/core/packet';
import type { DealFacts } from '@gatepath/core/merge';
import { GOAL, moneyWords } from '@gatepath/core/deal';
import type { Db } from '../db/pool';
import { notFound } from '../problem';
import * as q from './queries';

/**
 * Returns a deal by its id.
 *
 * @throws Problem `not-found`
 */
export async function dealOr404(db: Db, id: string): Promise<q.DealRow> {
  const deal = await q.dealById(db, id);
  if (!deal) throw notFound('This deal');
  return deal;
}

/** Returns the facts that text in the deal's packets can insert. */
export function factsOfDeal(deal: q.DealRow): DealFacts {
  const { price_words: words, price, rent } = deal.facts;
  const sum = price ?? rent;
  const end = deal.dates[GOAL[deal.kind]];
  return {
    address: deal.address,
    city: deal.city,
    price: typeof words === 'string' ? words : typeof sum === 'number' ? moneyWords(sum) : '',
    closing: end ? showDay(end) : '',
  };
}
