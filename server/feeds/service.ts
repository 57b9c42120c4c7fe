/**
 * Calendars (RFC 5545) of a deal and of a member, as a file and behind a secret address. An event is the same one for
 * ever: its UID is made of what it stands for, so that a day that moves moves the event and makes no second one.
 */
import { timingSafeEqual } from 'node:crypto';
import ical, { ICalCalendarMethod, ICalEventTransparency } from 'ical-generator';
import { addDays } from '@gatepath/core/calendar';
import { DATE_WORDS, isOver, KEY_DATES } from '@gatepath/core/deal';
import type { FeedView } from '@gatepath/contract';
import type { Context } from '../context';
import * as deals from '../deal-records/queries';
import type { Member } from '../firm/queries';
import { hashSecret, newId } from '../ids';
import { notFound } from '../problem';
import * as q from './queries';

/** One day of a calendar. */
interface Entry {
  /** What it stands for, the same as long as it stands for that. */
  uid: string;
  /** ISO day. */
  day: string;
  title: string;
  detail: string;
  url: string;
  /** Grows with every change of its deal. */
  sequence: number;
}

/** Deals whose days stand in a member's calendar; of more than that the newest. */
const MOST_DEALS = 400;

const secretOf = (ctx: Context, id: string) => `${id}.${hashSecret(`feed:${id}`, ctx.config.sessionSecret)}`;
const addressOf = (ctx: Context, id: string) => `${ctx.config.publicUrl}/api/calendar/${secretOf(ctx, id)}`;

/** Returns the address of a calendar, if it has one. */
export async function feedView(ctx: Context, owner: q.Owner): Promise<FeedView> {
  const id = await q.feedOf(ctx.database.pool, owner);
  return { url: id ? addressOf(ctx, id) : null };
}

/** Gives a calendar a new address; an earlier one stops working. @throws Problem `not-found` */
export async function renewFeed(ctx: Context, owner: q.Owner): Promise<FeedView> {
  if ('dealId' in owner && !(await deals.dealById(ctx.database.pool, owner.dealId))) throw notFound('This deal');
  const id = newId();
  await q.replaceFeed(ctx.database.pool, id, owner, ctx.clock.now());
  return { url: addressOf(ctx, id) };
}

/** Ends the address of a calendar. */
export async function endFeed(ctx: Context, owner: q.Owner): Promise<FeedView> {
  await q.deleteFeed(ctx.database.pool, owner);
  return { url: null };
}

/**
 * Returns the calendar behind a secret address.
 *
 * @throws Problem `not-found` for an address that is none, or not any more
 */
export async function calendarBehind(ctx: Context, secret: string): Promise<string> {
  const [id = ''] = secret.split('.');
  const given = Buffer.from(secret);
  const right = Buffer.from(secretOf(ctx, id));
  const owner =
    given.length === right.length && timingSafeEqual(given, right) ? await q.ownerOf(ctx.database.pool, id) : null;
  if (!owner) throw notFound('This calendar');
  return 'dealId' in owner ? (await calendarOfDeal(ctx, owner.dealId)).text : calendarOfMember(ctx, owner.memberId);
}

/** Returns a deal's days as an iCalendar file. @throws Problem `not-found` */
export async function calendarOfDeal(ctx: Context, dealId: string): Promise<{ name: string; text: string }> {
  const [deal] = await q.calendarDeals(ctx.database.pool, [dealId]);
  if (!deal) throw notFound('This deal');
  return { name: `${deal.address}.ics`, text: write(ctx, deal.address, await entriesOf(ctx, [deal])) };
}

/** Returns a member's days as an iCalendar file: those of all open deals they work on. */
export async function calendarOfMember(ctx: Context, memberId: string): Promise<string> {
  const db = ctx.database.pool;
  const firm = await ctx.firm();
  const rows = await q.calendarDeals(db, await q.openDealsOf(db, memberId, MOST_DEALS));
  return write(ctx, firm?.name ?? 'Gate Path', await entriesOf(ctx, rows));
}

async function entriesOf(ctx: Context, rows: q.CalendarDeal[]): Promise<Entry[]> {
  const ids = rows.map((d) => d.id);
  const terms = await q.terms(ctx.database.pool, ids);
  return rows.flatMap((deal) =>
    entriesOfDeal(
      ctx,
      deal,
      terms.filter((t) => t.deal_id === deal.id),
    ),
  );
}

function entriesOfDeal(
  ctx: Context,
  deal: q.CalendarDeal,
  terms: { id: string; name: string; ends_on: string }[],
): Entry[] {
  const base = ctx.config.publicUrl;
  const url = `${base}/deals/${deal.id}`;
  const entry = (uid: string, day: string, title: string, detail = '', to = url): Entry => ({
    uid: `${uid}.${deal.id}@gatepath`,
    day,
    title: `${title}, ${deal.address}`,
    detail,
    url: to,
    sequence: Number(deal.looked),
  });
  const out = KEY_DATES.flatMap((date) => {
    const day = deal.dates[date];
    return day ? [entry(`date-${date}`, day, DATE_WORDS[date])] : [];
  });
  const { computed } = deal;
  if (isOver(deal.status) || deal.archived_at || !computed) return out;
  for (const r of computed.needs.requirements)
    if (r.due && r.state === 'open') out.push(entry(`need-${r.ruleId}`, r.due.day, `${r.title} due`, r.due.why));
  for (const p of computed.packets)
    if (p.lastDay)
      out.push(entry(`last-${p.id}`, p.lastDay, `Last day for signing: ${p.name}`, '', `${base}/packets/${p.id}`));
  for (const d of terms) out.push(entry(`term-${d.id}`, d.ends_on, `${d.name} ends`));
  return out;
}

function write(ctx: Context, name: string, entries: Entry[]): string {
  const calendar = ical({
    name,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Gate Path', product: 'Deals', language: 'EN' },
    ttl: 3_600,
  });
  const at = (day: string) => new Date(`${day}T00:00:00Z`);
  for (const e of entries)
    calendar.createEvent({
      id: e.uid,
      sequence: e.sequence,
      stamp: ctx.clock.now(),
      allDay: true,
      // Days are the deal's own; readers anywhere see the same day.
      timezone: 'UTC',
      start: at(e.day),
      end: at(addDays(e.day, 1)),
      summary: e.title,
      ...(e.detail ? { description: e.detail } : {}),
      url: e.url,
      transparency: ICalEventTransparency.TRANSPARENT,
    });
  return calendar.toString();
}

/** Returns the calendar that a member asks for, which is always their own. */
export const own = (member: Member): q.Owner => ({ memberId: member.id });
