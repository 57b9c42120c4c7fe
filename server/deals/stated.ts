/** Accepting or dismissing what a document states otherwise than its deal. */
import type { StatedChange } from '@gatepath/core/abstract';
import { dateOfKey } from '@gatepath/core/deal';
import { clip } from '@gatepath/core/text';
import type { DealView, StatedBody } from '@gatepath/contract';
import type { Context } from '../context';
import { note } from '../deal-records/note';
import { addParty } from '../deal-records/parties';
import * as q from '../deal-records/queries';
import { inTransaction, type Tx } from '../db/tx';
import { dismissStatement } from '../documents/abstract-queries';
import type { Member } from '../firm/queries';
import { queueDealStatus } from '../jobs/deal-status';
import { notFound } from '../problem';
import { changeDealIn } from './changes';
import { dealView } from './service';
import { labelOf, sideOf } from './stated-of';
import { computeDealStatus } from './status';

/**
 * Accepts or dismisses what a document states otherwise than its deal.
 *
 * @throws Problem `not-found` if the document does not state it, or no longer otherwise; `bad-fact`
 */
export async function actOnStated(ctx: Context, dealId: string, body: StatedBody, member: Member): Promise<DealView> {
  await inTransaction(ctx.database.pool, async (tx) => {
    if (!(await q.lockDeal(tx.db, dealId))) throw notFound('This deal');
    const stated = (await q.computedOf(tx.db, dealId))?.stated ?? [];
    const change = stated.find(
      (c) => c.documentId === body.documentId && c.field === body.field && String(c.value) === body.value,
    );
    if (!change) throw notFound('This statement');
    if (body.act === 'accept') await accept(ctx, tx, dealId, change, member);
    else {
      const { documentId: document_id, field, value } = change;
      await dismissStatement(tx.db, { document_id, field, value: String(value) });
      await queueDealStatus(ctx, tx, dealId);
    }
  });
  await computeDealStatus(ctx, dealId);
  return dealView(ctx, dealId, member);
}

/** Longest run of a document's words in the activity, in UTF-16 units. */
const MOST_QUOTED = 120;

async function accept(ctx: Context, tx: Tx, dealId: string, c: StatedChange, member: Member): Promise<void> {
  const from = `“${clip(c.source.words, MOST_QUOTED)}” (“${c.name}”, page ${c.source.page})`;
  const side = sideOf(c.field);
  if (side) {
    const at = ctx.clock.now();
    const party = { side, name: String(c.value), email: '', phone: null, company: '', capacity: '', personId: null };
    await addParty(tx.db, dealId, party, at);
    await note(ctx, tx.db, dealId, [`${member.name} added ${String(c.value)} as ${labelOf(c.field)}, as in ${from}.`]);
    await queueDealStatus(ctx, tx, dealId);
    return;
  }
  const date = dateOfKey(c.field);
  const patch = date ? { dates: { [date]: String(c.value) } } : { facts: { [c.field.slice('fact.'.length)]: c.value } };
  const why = c.why ? `${c.why}, ` : '';
  await changeDealIn(ctx, tx, dealId, patch, member.name, [`${labelOf(c.field)}: ${why}as in ${from}.`]);
}
