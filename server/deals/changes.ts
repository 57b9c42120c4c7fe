/** Corrections of a deal by members, reported in sentences, with their effect on what the deal needs. */
import { dayOf, shortDay } from '@gatepath/core/calendar';
import {
  changedNeeds,
  DATE_WORDS,
  factsBehind,
  factsByKey,
  factsOf,
  factWords,
  FOR_WHOM_OF,
  forWhomWords,
  KEY_DATES,
  KIND_WORDS,
  ruleAsWaived,
  STATUS_WORDS,
  STATUSES_OF,
  wrongWith,
  type KeyDates,
  type Needs,
} from '@gatepath/core/deal';
import { itemAt } from '@gatepath/core/sure';
import type { DealChanged, DealPatch } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction, type Tx } from '../db/tx';
import { listMembers, type Member } from '../firm/queries';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import { forWhomIn } from './for-whom';
import { note } from '../deal-records/note';
import * as q from '../deal-records/queries';
import { rulesOfFirm } from './rule-queries';
import { dealView } from './service';
import { computeDealStatus, NOTHING_COMPUTED } from './status';
import { queueDealStatus } from '../jobs/deal-status';

/**
 * Changes a deal's facts, dates and other properties. Drafts use the new values; sent packets keep the ones they were
 * sent with.
 *
 * @returns the deal, with the requirements that the change moved, added and removed
 * @throws Problem `not-found`, `bad-fact`, `bad-status`, `unknown-member`
 */
export async function changeDeal(ctx: Context, dealId: string, body: DealPatch, member: Member): Promise<DealChanged> {
  const before = (await q.computedOf(ctx.database.pool, dealId))?.needs ?? NOTHING_COMPUTED.needs;
  await inTransaction(ctx.database.pool, (tx) => changeDealIn(ctx, tx, dealId, body, member.name));
  return changedView(ctx, dealId, before, member);
}

/**
 * Changes a deal as part of a transaction.
 *
 * @param by    who changes it, as the activity names them
 * @param also  further sentences for the activity
 * @throws Problem `not-found`, `bad-fact`, `bad-status`, `unknown-member`
 */
export async function changeDealIn(
  ctx: Context,
  tx: Tx,
  dealId: string,
  body: DealPatch,
  by: string,
  also: string[] = [],
): Promise<void> {
  const { db, afterCommit } = tx;
  const was = await q.lockDeal(db, dealId);
  if (!was) throw notFound('This deal');
  const own = await q.ownFacts(db);
  const now = changed(was, body, own, ctx.clock.now());
  await q.updateDeal(db, now);
  if (body.memberIds) await giveTo(db, dealId, body.memberIds);
  await note(ctx, db, dealId, [...changeWords(was, now, own, by), ...also]);
  if (body.memberIds) await note(ctx, db, dealId, [`${by} changed who the deal is assigned to.`]);
  await queueDealStatus(ctx, tx, dealId);
  afterCommit(() => ctx.live.notify(topics.deals()));
}

/** Returns the deal after a change, with the change's effect on its requirements. */
async function changedView(ctx: Context, dealId: string, before: Needs, member: Member): Promise<DealChanged> {
  // The change is saved, and a job computes the same: the answer shows it at once if possible.
  await computeDealStatus(ctx, dealId).catch(() => false);
  const deal = await dealView(ctx, dealId, member);
  return { deal, ...changedNeeds(before, deal) };
}

async function giveTo(db: Db, dealId: string, ids: string[]): Promise<void> {
  const unique = [...new Set(ids)];
  const there = new Set((await listMembers(db)).map((m) => m.id));
  if (unique.some((id) => !there.has(id)))
    throw new Problem('unknown-member', 'One of these people is not a member of the firm. Load the page again.');
  await q.setMembers(db, dealId, unique);
}

/** Returns the deal's row after a patch. */
function changed(was: q.DealRow, body: DealPatch, own: q.OwnFact[], now: Date): q.DealRow {
  const kind = body.kind ?? was.kind;
  const moved = kind !== was.kind;
  const kept = FOR_WHOM_OF[kind].includes(was.for_whom) ? was.for_whom : itemAt(FOR_WHOM_OF[kind], 0);
  const forWhom = forWhomIn(kind, body.forWhom ?? kept);
  const stays = STATUSES_OF[kind].includes(was.status);
  const status = body.status ?? (stays ? was.status : itemAt(STATUSES_OF[kind], 0));
  if (!STATUSES_OF[kind].includes(status))
    throw new Problem('bad-status', `A ${kind} cannot be “${STATUS_WORDS[status]}”.`);
  const today = dayOf(now.toISOString(), was.time_zone);
  return {
    ...was,
    kind,
    for_whom: forWhom,
    status,
    status_on: status !== was.status || moved ? today : was.status_on,
    address: body.address ?? was.address,
    city: body.city ?? was.city,
    facts: body.facts ? withFacts(was.facts, body.facts, own) : was.facts,
    dates: body.dates ? withDates(was.dates, body.dates) : was.dates,
    tags: body.tags ? [...new Set(body.tags)] : was.tags,
    retain_until: body.retainUntil === undefined ? was.retain_until : body.retainUntil,
    archived_at: body.archived === undefined ? was.archived_at : body.archived ? (was.archived_at ?? now) : null,
  };
}

function withFacts(
  was: q.DealRow['facts'],
  change: NonNullable<DealPatch['facts']>,
  own: q.OwnFact[],
): q.DealRow['facts'] {
  const defs = factsByKey(own);
  const out = new Map(Object.entries(was));
  for (const [key, value] of Object.entries(change)) {
    if (value === null) {
      out.delete(key);
      continue;
    }
    const def = defs.get(key);
    const wrong =
      def && !key.startsWith('date.') && key !== 'kind' && key !== 'for_whom'
        ? wrongWith(def, value)
        : `“${key}” is not a fact of this firm.`;
    if (wrong) throw new Problem('bad-fact', wrong);
    out.set(key, value);
  }
  return Object.fromEntries(out);
}

function withDates(was: KeyDates, change: NonNullable<DealPatch['dates']>): KeyDates {
  const out = { ...was };
  for (const date of KEY_DATES) {
    const day = change[date];
    if (day === null) delete out[date];
    else if (day !== undefined) out[date] = day;
  }
  return out;
}

/** Returns what changed, in sentences. */
function changeWords(was: q.DealRow, now: q.DealRow, own: q.OwnFact[], by: string): string[] {
  const defs = factsByKey(own);
  const out: string[] = [];
  const said = (label: string, from: string, to: string) => {
    if (from !== to)
      out.push(`${by}: ${label} ${from ? `was ${from}, ` : ''}${to ? `is ${to}` : 'is not known any more'}.`);
  };
  said('the address', was.address, now.address);
  said('the town', was.city, now.city);
  said('the kind', KIND_WORDS[was.kind].toLowerCase(), KIND_WORDS[now.kind].toLowerCase());
  if (was.for_whom !== now.for_whom) out.push(`${by}: the firm acts ${forWhomWords(now.for_whom)}.`);
  if (was.status !== now.status)
    out.push(`${by}: the deal is ${STATUS_WORDS[now.status]}; it was ${STATUS_WORDS[was.status]}.`);
  for (const key of new Set([...Object.keys(was.facts), ...Object.keys(now.facts)])) {
    const def = defs.get(key);
    const words = (v: q.DealRow['facts'][string] | undefined) => (v === undefined || !def ? '' : factWords(def, v));
    if (def) said(def.label.toLowerCase(), words(was.facts[key]), words(now.facts[key]));
  }
  for (const date of KEY_DATES) {
    const words = (d: string | undefined) => (d ? shortDay(d, '') : '');
    said(`${DATE_WORDS[date].toLowerCase()}, the day,`, words(was.dates[date]), words(now.dates[date]));
  }
  if (was.retain_until !== now.retain_until)
    out.push(
      now.retain_until
        ? `${by}: the deal is kept at least until ${shortDay(now.retain_until, '')}.`
        : `${by}: the deal need not be kept until a day any more.`,
    );
  if (!was.archived_at && now.archived_at) out.push(`${by} put the deal into the archive.`);
  if (was.archived_at && !now.archived_at) out.push(`${by} took the deal out of the archive.`);
  if (was.tags.join() !== now.tags.join()) out.push(`${by}: tags are ${now.tags.join(', ') || 'none'}.`);
  return out;
}

/**
 * Waives a paper that a rule requires. The waiver is valid as long as the rule and the facts behind it are unchanged.
 *
 * @throws Problem `not-found` for the deal or the rule
 */
export async function waive(
  ctx: Context,
  dealId: string,
  ruleId: string,
  reason: string,
  member: Member,
): Promise<DealChanged> {
  const before = (await q.computedOf(ctx.database.pool, dealId))?.needs ?? NOTHING_COMPUTED.needs;
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db } = tx;
    const deal = await q.lockDeal(db, dealId);
    if (!deal) throw notFound('This deal');
    const rule = (await rulesOfFirm(db)).find((r) => r.id === ruleId);
    if (!rule) throw notFound('This rule');
    const facts = factsBehind(rule, factsOf({ ...deal, forWhom: deal.for_whom }));
    const at = ctx.clock.now().toISOString();
    await q.saveWaiver(db, dealId, { ruleId, reason, by: member.name, at, facts, rule: ruleAsWaived(rule) });
    await note(ctx, db, dealId, [`${member.name} waived “${rule.title}”: ${reason}`]);
    await queueDealStatus(ctx, tx, dealId);
  });
  return changedView(ctx, dealId, before, member);
}

/**
 * Ends a waiver, so that the paper is required again.
 *
 * @throws Problem `not-found` if it was not waived
 */
export async function unwaive(ctx: Context, dealId: string, ruleId: string, member: Member): Promise<DealChanged> {
  const before = (await q.computedOf(ctx.database.pool, dealId))?.needs ?? NOTHING_COMPUTED.needs;
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db } = tx;
    if (!(await q.deleteWaiver(db, dealId, ruleId))) throw notFound('This waiver');
    const title = (await rulesOfFirm(db)).find((r) => r.id === ruleId)?.title ?? 'A paper';
    await note(ctx, db, dealId, [`${member.name} requires “${title}” again.`]);
    await queueDealStatus(ctx, tx, dealId);
  });
  return changedView(ctx, dealId, before, member);
}
