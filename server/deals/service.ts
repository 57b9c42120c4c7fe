import { showDay } from '@gatepath/core/packet';
import type { DealFacts } from '@gatepath/core/merge';
import type {
  DealPatch,
  DealBody,
  DealSummary,
  DealView,
  ListQuery,
  Page,
  PartyBody,
  PartyView,
} from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction } from '../db/tx';
import { documentsOfDeal } from '../documents/queries';
import { documentView } from '../documents/service';
import { newId } from '../ids';
import { topics } from '../live/live';
import { packetsOfDeals } from '../packets/queries';
import { packetSummary } from '../packets/summary';
import { notFound } from '../problem';
import * as q from './queries';
import { lastOf } from '@gatepath/core/sure';

/** What a screen needs of a person of a deal. */
export function partyView(p: q.PartyRow): PartyView {
  const { id, side, ordinal, name, email, phone, company } = p;
  return { id, side, ordinal, name, email, phone, company };
}

/**
 * A page of deals, newest first, with the latest packets of each.
 *
 * @param query.after the id of the last deal of the page before
 * @returns the page, with what the next one is asked for by; null at the end
 */
export async function listDeals(ctx: Context, query: ListQuery): Promise<Page<DealSummary>> {
  const db = ctx.database.pool;
  // One more than asked for tells whether there is a next page.
  const rows = await q.listDeals(db, {
    after: query.after ?? null,
    search: query.search ? `%${query.search.replace(/[\\%_]/g, '\\$&')}%` : null,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  const packets = await packetsOfDeals(
    db,
    shown.map((d) => d.id),
  );
  return {
    items: shown.map((d) => ({
      id: d.id,
      kind: d.kind,
      address: d.address,
      city: d.city,
      createdAt: d.created_at.toISOString(),
      packets: packets.filter((p) => p.deal_id === d.id).map(packetSummary),
    })),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/**
 * Opens a deal with the people it is given, and tells the lists of deals.
 *
 * @returns the deal
 */
export async function openDeal(ctx: Context, body: DealBody): Promise<DealView> {
  const at = ctx.clock.now();
  const id = newId();
  const firm = await ctx.firm();
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    await q.insertDeal(db, {
      id,
      kind: body.kind,
      address: body.address,
      city: body.city ?? '',
      time_zone: firm!.time_zone,
      created_at: at,
    });
    for (const p of body.parties ?? []) await addParty(db, id, p, at);
    afterCommit(() => ctx.live.tell(topics.deals()));
  });
  return dealView(ctx, id);
}

async function addParty(db: Db, dealId: string, p: PartyBody, at: Date): Promise<void> {
  await q.insertParty(db, {
    id: newId(),
    deal_id: dealId,
    side: p.side,
    ordinal: await q.nextOrdinal(db, dealId, p.side),
    name: p.name,
    email: p.email ?? '',
    phone: p.phone ?? null,
    company: p.company ?? '',
    at,
  });
}

/**
 * A deal by its id.
 *
 * @throws Problem `not-found`
 */
export async function dealOr404(db: Db, id: string): Promise<q.DealRow> {
  const deal = await q.dealById(db, id);
  if (!deal) throw notFound('This deal');
  return deal;
}

/**
 * A deal with its people, documents and packets.
 *
 * @throws Problem `not-found`
 */
export async function dealView(ctx: Context, id: string): Promise<DealView> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, id);
  const parties = await q.partiesOfDeal(db, id);
  const documents = await documentsOfDeal(db, id);
  const packets = await packetsOfDeals(db, [id]);
  return {
    id: deal.id,
    kind: deal.kind,
    address: deal.address,
    city: deal.city,
    timeZone: deal.time_zone,
    price: deal.price,
    closingOn: deal.closing_on,
    createdAt: deal.created_at.toISOString(),
    parties: parties.map(partyView),
    documents: documents.map(documentView),
    packets: packets.map(packetSummary),
  };
}

/** Corrects what is known of a deal; drafts read it anew, sent packets keep what they were sent with. */
export async function changeDeal(ctx: Context, dealId: string, body: DealPatch): Promise<DealView> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await q.lockDeal(db, dealId);
    if (!was) throw notFound('This deal');
    await q.updateDeal(db, {
      ...was,
      address: body.address ?? was.address,
      city: body.city ?? was.city,
      price: body.price ?? was.price,
      closing_on: body.closingOn === undefined ? was.closing_on : body.closingOn,
    });
    afterCommit(() => ctx.live.tell(topics.deal(dealId)));
  });
  return dealView(ctx, dealId);
}

/** What text in this deal's packets may name. */
export function factsOfDeal(deal: q.DealRow): DealFacts {
  return {
    address: deal.address,
    city: deal.city,
    price: deal.price,
    closing: deal.closing_on ? showDay(deal.closing_on) : '',
  };
}

/**
 * Adds a person to a deal, the next one of their side.
 *
 * @returns the deal with them
 * @throws Problem `not-found` for the deal
 */
export async function addPartyToDeal(ctx: Context, dealId: string, body: PartyBody): Promise<DealView> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    // Two who add somebody at once must not both get the same place in the side.
    if (!(await q.lockDeal(db, dealId))) throw notFound('This deal');
    await addParty(db, dealId, body, ctx.clock.now());
    afterCommit(() => ctx.live.tell(topics.deal(dealId)));
  });
  return dealView(ctx, dealId);
}

/**
 * Corrects a person of a deal. Packets that are under way keep who they were sent to.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function correctParty(ctx: Context, partyId: string, body: PartyBody): Promise<DealView> {
  const dealId = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await q.lockParty(db, partyId);
    if (!was) throw notFound('This person');
    await q.lockDeal(db, was.deal_id);
    await q.updateParty(db, {
      ...was,
      side: body.side,
      ordinal: body.side === was.side ? was.ordinal : await q.nextOrdinal(db, was.deal_id, body.side),
      name: body.name,
      email: body.email ?? '',
      phone: body.phone ?? null,
      company: body.company ?? '',
    });
    afterCommit(() => ctx.live.tell(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  return dealView(ctx, dealId);
}

/**
 * Takes a person out of a deal. Packets that were sent keep them.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function dropParty(ctx: Context, partyId: string): Promise<DealView> {
  const dealId = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await q.partyById(db, partyId);
    if (!was) throw notFound('This person');
    // Packets hold snapshots of their parties, so a sent packet loses nothing by this.
    await q.deleteParty(db, partyId);
    afterCommit(() => ctx.live.tell(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  return dealView(ctx, dealId);
}
