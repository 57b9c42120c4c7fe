/** The list of deals with its filters. */
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

/** "Due this week" means due within this many days, including today. */
const A_WEEK = 7;

/**
 * Returns one page of deals, newest first, with the latest packets of each.
 *
 * @param query.after id of the last deal of the previous page
 * @returns the page and the cursor of the next one; null at the end
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

/** Returns the ids of all deals that a list would show: at most the limit, plus one that shows there are more. */
export async function idsOfList(ctx: Context, query: Partial<DealsQuery>, most: number): Promise<string[]> {
  const rows = await q.listDeals(ctx.database.pool, {
    after: null,
    search: query.search ? anywhere(query.search) : null,
    limit: most + 1,
    ...(await filtersOf(ctx, query)),
  });
  return rows.map((d) => d.id);
}

/** Translates the filters of the list into those of the database. */
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

/** Returns the tags to choose from. */
export async function dealTags(ctx: Context): Promise<DealTags> {
  return { tags: await q.tagsInUse(ctx.database.pool) };
}
