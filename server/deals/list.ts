/** The list of deals, as it is asked for. */
import { addDays, dayOf } from '@gatepath/core/calendar';
import { DEAL_STATUSES, isOver } from '@gatepath/core/deal';
import { lastOf } from '@gatepath/core/sure';
import type { DealsQuery, DealSummary, DealTags, Page } from '@gatepath/contract';
import type { Context } from '../context';
import { anywhere } from '../db/like';
import { packetsOfDeals } from '../packets/queries';
import { packetSummary } from '../packets/summary';
import * as q from './list-queries';
import { dealHead } from './service';

/** "Due this week" is due within so many days, today among them. */
const A_WEEK = 7;

/**
 * A page of deals, newest first, with the latest packets of each.
 *
 * @param query.after the id of the last deal of the page before
 * @returns the page, with what the next one is asked for by; null at the end
 */
export async function listDeals(ctx: Context, query: DealsQuery): Promise<Page<DealSummary>> {
  const db = ctx.database.pool;
  // One more than asked for tells whether there is a next page.
  const rows = await q.listDeals(db, {
    after: query.after ?? null,
    search: query.search ? anywhere(query.search) : null,
    limit: query.limit + 1,
    ...(await filtersOf(ctx, query)),
  });
  const shown = rows.slice(0, query.limit);
  const packets = await packetsOfDeals(
    db,
    shown.map((d) => d.id),
  );
  const now = ctx.clock.now().toISOString();
  return {
    items: shown.map((d) => ({
      ...dealHead(d, d.figures, dayOf(now, d.time_zone)),
      packets: packets.filter((p) => p.deal_id === d.id).map(packetSummary),
    })),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/** Every deal that a list would show, by its id; at most so many, and one more that tells there are more. */
export async function idsOfList(ctx: Context, query: Partial<DealsQuery>, most: number): Promise<string[]> {
  const rows = await q.listDeals(ctx.database.pool, {
    after: null,
    search: query.search ? anywhere(query.search) : null,
    limit: most + 1,
    ...(await filtersOf(ctx, query)),
  });
  return rows.map((d) => d.id);
}

/** What is asked of the list, as the database is asked. */
async function filtersOf(ctx: Context, query: Partial<DealsQuery>): Promise<Partial<q.DealFilters>> {
  const { kind, forWhom, status, tag, memberId, due, waits, gate, holdUp, archived, order } = query;
  const zone = (await ctx.firm())?.time_zone ?? 'UTC';
  const today = dayOf(ctx.clock.now().toISOString(), zone);
  const statuses = status === 'open' ? DEAL_STATUSES.filter((s) => !isOver(s)) : status ? [status] : null;
  return {
    ...(kind ? { kind } : {}),
    ...(forWhom ? { forWhom } : {}),
    ...(statuses ? { statuses } : {}),
    ...(tag ? { tag } : {}),
    ...(memberId ? { memberId } : {}),
    ...(due ? { dueBefore: due === 'late' ? today : addDays(today, A_WEEK) } : {}),
    ...(waits ? { waits } : {}),
    // People count gates from one.
    ...(gate ? { gate: gate - 1 } : {}),
    ...(holdUp ? { holdUp } : {}),
    ...(archived === undefined ? {} : { archived }),
    ...(order ? { order } : {}),
  };
}

/** The tags there are to choose from. */
export async function dealTags(ctx: Context): Promise<DealTags> {
  return { tags: await q.tagsInUse(ctx.database.pool) };
}
