/** The first screen of a day: what waits for a member, what is due, what stands still, what came through. */
import { addDays, dayOf, daysBetween, shortDay } from '@gatepath/core/calendar';
import { DATE_WORDS, daysWords, type KeyDate, type Next, type PacketNow } from '@gatepath/core/deal';
import { count, firstName, listWords, numberWord } from '@gatepath/core/text';
import type { TodayView } from '@gatepath/contract';
import type { Context } from '../context';
import type { Member } from '../firm/queries';
import { Problem } from '../problem';
import * as q from './queries';

/** As many as a wide screen holds without scrolling; what stands behind them is counted. */
const MOST = { waiting: 12, week: 40, still: 12, through: 8 };
/** Counting ends here: "more than 500" helps nobody. */
const MOST_COUNTED = 500;
/** Whoever puts nothing away for months is told of as many, and no more are looked for. */
const MOST_THROUGH = 60;
/** Days that are shown ahead, today among them. */
const A_WEEK = 7;
/** Days before the last day of a paper on which a word is said of it. */
const TERM_WORD = 14;
/** Whoever never put anything away is told of what was executed in so many days. */
const FIRST_LOOK = 3;
const EVER = '0001-01-01';
const NEVER = '9999-12-31';

interface Part<T> {
  items: T[];
  more: number;
}
type Waiting = TodayView['still']['items'][number];

/** Returns what needs attention today, for one member. */
export async function todayView(ctx: Context, member: Member): Promise<TodayView> {
  const db = ctx.database.pool;
  const zone = (await ctx.firm())?.time_zone ?? 'UTC';
  const now = ctx.clock.now();
  const today = dayOf(now.toISOString(), zone);
  const soon = addDays(today, A_WEEK - 1);
  const of = (list: Parameters<typeof q.itemsOf>[1]['list'], from: string, to: string) => ({
    memberId: member.id,
    list,
    from,
    to,
  });
  const part = async (o: ReturnType<typeof of>, limit: number): Promise<Part<q.SeenItem>> => {
    const items = await q.itemsOf(db, { ...o, limit: limit + 1 });
    const all = items.length > limit ? await q.countItems(db, { ...o, most: MOST_COUNTED }) : items.length;
    return { items: items.slice(0, limit), more: Math.max(0, all - limit) };
  };
  const pressing = await part(of('do', EVER, soon), MOST.waiting);
  const later = await part(of('do', addDays(soon, 1), NEVER), Math.max(0, MOST.waiting - pressing.items.length));
  const due = await part(of('due', EVER, soon), MOST.week);
  const days = await part(of('date', today, soon), MOST.week);
  const terms = await part(of('term', today, addDays(today, TERM_WORD)), MOST.week);
  const still = await part(of('still', EVER, NEVER), MOST.still);
  const late = await q.countItems(db, { ...of('due', EVER, addDays(today, -1)), most: MOST_COUNTED });
  const waits = pressing.items.length + pressing.more;
  return {
    today,
    sentence: sentenceOf(waits, late, later.items.length + later.more),
    deals: await q.countItems(db, { ...of('deal', EVER, NEVER), most: 100_000 }),
    packets: await q.countItems(db, { ...of('still', EVER, NEVER), most: 100_000 }),
    waiting: {
      items: [...pressing.items, ...later.items].map((i) => ({ ...where(i), ...actOf(i.item as Next, today) })),
      pressing: waits,
      more: pressing.more + later.more,
    },
    week: {
      items: [...due.items.map(dueItem), ...days.items.map(dateItem), ...terms.items.map(termItem)].sort(
        (a, b) => a.day.localeCompare(b.day) || a.title.localeCompare(b.title),
      ),
      more: due.more + days.more + terms.more,
    },
    still: { items: still.items.map((i) => stillItem(i, today, member)), more: still.more },
    through: await throughOf(ctx, member, now),
  };
}

/** Returns the summary of the day: "Three things wait for you. One is late." */
function sentenceOf(waits: number, late: number, later: number): string {
  const first = waits
    ? `${numberWord(waits)} ${waits === 1 ? 'thing waits' : 'things wait'} for you.`
    : later
      ? 'Nothing presses.'
      : 'Nothing waits for you.';
  if (!late) return `${first} Nothing is late.`;
  return `${first} ${numberWord(late)} ${late === 1 ? 'paper is' : 'papers are'} late.`;
}

const where = (i: q.SeenItem) => ({ dealId: i.deal_id, address: i.address });

/** Returns an act with its age in words, for the acts that show it. */
const actOf = (a: Next, today: string): Next =>
  a.act.do === 'send' && a.since ? { ...a, detail: `in draft, ${daysWords(daysBetween(a.since, today))}` } : a;

type Week = TodayView['week']['items'][number];
const dueItem = (i: q.SeenItem): Week => {
  const { what, title, packetId } = i.item as { what: 'paper' | 'last_day'; title: string; packetId: string | null };
  const words = what === 'last_day' ? `Last day: ${title}` : title;
  return { ...where(i), id: `${i.deal_id} ${i.ref}`, day: i.day, what, title: words, packetId };
};
const dateItem = (i: q.SeenItem): Week => ({
  ...where(i),
  id: `${i.deal_id} date ${i.ref}`,
  day: i.day,
  what: 'date',
  title: DATE_WORDS[i.ref as KeyDate],
  packetId: null,
});
const termItem = (i: q.SeenItem): Week => ({
  ...where(i),
  id: `${i.deal_id} term ${i.ref}`,
  day: i.day,
  what: 'term',
  title: `${(i.item as { title: string }).title} ends`,
  packetId: null,
});

function stillItem(i: q.SeenItem, today: string, member: Member): Waiting {
  const { name, wait, path } = i.item as { name: string; wait: PacketNow['waits'][number]; path: PacketNow['path'] };
  const mine = wait.email !== '' && wait.email === member.email.toLowerCase();
  return {
    ...where(i),
    packetId: i.ref,
    name,
    since: i.day,
    days: Math.max(0, daysBetween(i.day, today)),
    partyId: wait.partyId,
    who: wait.name,
    words: wait.bounced ? `${firstName(wait.name)}’s message came back` : `${firstName(wait.name)} ${wait.words}`,
    phone: wait.phone,
    act: wait.bounced ? 'address' : mine ? 'sign' : wait.desk ? 'host' : 'nudge',
    gate: path.gate,
    gates: path.gates,
    parties: path.parties as Waiting['parties'],
  };
}

async function throughOf(ctx: Context, member: Member, now: Date): Promise<TodayView['through']> {
  const db = ctx.database.pool;
  const looked = await q.lastVisitOf(db, member.id);
  const since = looked ?? new Date(now.getTime() - FIRST_LOOK * 86_400_000);
  const rows = await q.executedSince(db, member.id, since, MOST_THROUGH);
  return {
    since: since.toISOString(),
    items: rows.slice(0, MOST.through).map((p) => ({
      dealId: p.deal_id,
      address: p.address,
      packetId: p.id,
      name: p.name,
      at: p.ended_at.toISOString(),
      detail: `${listWords(p.parties.slice(0, 3).map((x) => firstName(x.name)))}${p.parties.length > 3 ? ' and others' : ''}, ${count(p.marks_done, 'place')}, no gap`,
    })),
    more: Math.max(0, rows.length - MOST.through),
  };
}

/**
 * Puts away what was executed until a moment; an earlier moment brings it back.
 *
 * @throws Problem `invalid` when it is no moment
 */
export async function seen(ctx: Context, member: Member, until: string): Promise<TodayView> {
  const at = new Date(until);
  if (Number.isNaN(at.getTime())) throw new Problem('invalid', 'This is no moment. Load the page again.');
  await q.saveLastVisit(ctx.database.pool, member.id, at < ctx.clock.now() ? at : ctx.clock.now());
  return todayView(ctx, member);
}

/**
 * Returns the same items as sentences, in the same order, for the morning's message; empty if there is nothing to say.
 */
export function todayWords(t: TodayView): string[] {
  const day = (d: string) => shortDay(d, t.today);
  const part = (title: string, lines: string[], more: number) =>
    lines.length ? [`${title}:`, ...lines, ...(more ? [`and ${more} more.`] : [])] : [];
  return [
    t.sentence,
    ...part(
      'For you to do',
      t.waiting.items.map((i) => `${i.title}, ${i.address}: ${i.detail}${i.due ? `, due ${day(i.due)}` : ''}`),
      t.waiting.more,
    ),
    ...part(
      'The week',
      t.week.items.map(
        (i) => `${i.day < t.today && i.what !== 'date' ? 'Late since ' : ''}${day(i.day)}: ${i.title}, ${i.address}`,
      ),
      t.week.more,
    ),
    ...part(
      'Standing still',
      t.still.items.map((i) => `${i.name}, ${i.address}: ${i.words}, ${daysWords(i.days)}`),
      t.still.more,
    ),
    ...part(
      'Through',
      t.through.items.map((i) => `${i.name}, ${i.address}: ${i.detail}`),
      t.through.more,
    ),
  ];
}
