/** Changes of the people of a deal by members. */
import type { DealView, PartyBody } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import type { Member } from '../firm/queries';
import { topics } from '../live/live';
import { personFor } from '../people/book';
import { notFound } from '../problem';
import { note } from '../deal-records/note';
import { addParty } from '../deal-records/parties';
import * as p from '../deal-records/party-queries';
import { lockDeal } from '../deal-records/queries';
import { dealView } from './service';
import { correctInDrafts } from './party-drafts';
import { computeDealStatus } from './status';

/**
 * Adds a person to a deal as the next one of their side.
 *
 * @returns the deal with them
 * @throws Problem `not-found` for the deal
 */
export async function addPartyToDeal(ctx: Context, dealId: string, body: PartyBody, member: Member): Promise<DealView> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    // Two who add somebody at once must not both get the same place in the side.
    if (!(await lockDeal(db, dealId))) throw notFound('This deal');
    const partyId = await addParty(db, dealId, body, ctx.clock.now());
    await note(ctx, db, dealId, [`${member.name} added ${body.name}.`], { partyId });
    afterCommit(() => ctx.live.notify(topics.deal(dealId)));
  });
  await computeDealStatus(ctx, dealId);
  return dealView(ctx, dealId, member);
}

/**
 * Corrects a person of a deal and of its drafts. Sent packets keep the person they were sent to.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function correctParty(ctx: Context, partyId: string, body: PartyBody, member: Member): Promise<DealView> {
  const dealId = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await p.lockParty(db, partyId);
    if (!was) throw notFound('This person');
    await lockDeal(db, was.deal_id);
    const now: p.PartyRow = {
      ...was,
      side: body.side,
      ordinal: body.side === was.side ? was.ordinal : await p.nextOrdinal(db, was.deal_id, body.side),
      name: body.name,
      email: body.email ?? '',
      phone: body.phone ?? null,
      company: body.company ?? '',
      capacity: body.capacity ?? '',
      person_id: await personFor(db, { ...body, personId: body.personId ?? was.person_id }, ctx.clock.now()),
    };
    await p.updateParty(db, now);
    for (const packetId of await correctInDrafts(db, now)) afterCommit(() => ctx.live.notify(topics.packet(packetId)));
    await note(ctx, db, was.deal_id, [`${member.name} corrected ${body.name}.`], { partyId });
    afterCommit(() => ctx.live.notify(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  await computeDealStatus(ctx, dealId);
  return dealView(ctx, dealId, member);
}

/**
 * Removes a person from a deal. Sent packets keep them.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function removeParty(ctx: Context, partyId: string, member: Member): Promise<DealView> {
  const dealId = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await p.partyById(db, partyId);
    if (!was) throw notFound('This person');
    // Packets hold snapshots of their parties, so a sent packet loses nothing by this.
    await p.deleteParty(db, partyId);
    await note(ctx, db, was.deal_id, [`${member.name} removed ${was.name} from the deal.`], { partyId });
    afterCommit(() => ctx.live.notify(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  await computeDealStatus(ctx, dealId);
  return dealView(ctx, dealId, member);
}
