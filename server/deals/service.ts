import type { StatedChange } from '@gatepath/core/abstract';
import { dayOf, shortDay } from '@gatepath/core/calendar';
import {
  figuresOf,
  FOR_WHOM_OF,
  GOAL,
  isOver,
  nextActs,
  readinessOf,
  STATUSES_OF,
  type Figures,
  type DealDocument,
} from '@gatepath/core/deal';
import { itemAt, sure } from '@gatepath/core/sure';
import { count } from '@gatepath/core/text';
import type { DealBody, DealSummary, DealView } from '@gatepath/contract';
import type { Context } from '../context';
import { queueFileDeletionIn } from '../files/tidy';
import { inTransaction, type Tx } from '../db/tx';
import { documentsOfDeal } from '../documents/queries';
import { documentView } from '../documents/service';
import type { Firm, Member } from '../firm/queries';
import { newId } from '../ids';
import { forecastView } from '../insight/pace';
import { topics } from '../live/live';
import { packetsOfDeals } from '../packets/queries';
import { packetSummary } from '../packets/summary';
import { notFound, Problem } from '../problem';
import { forWhomIn } from './for-whom';
import { note } from '../deal-records/note';
import { addParty, partyView } from '../deal-records/parties';
import { partiesOfDeal } from '../deal-records/party-queries';
import * as q from '../deal-records/queries';
import type { ComputedDeal } from '../deal-records/queries';
import { statedWords, statingOf } from './stated-of';
import { computeDealStatus, NOTHING_COMPUTED } from './status';
import { dealOr404 } from '../deal-records/deals';

/** Returns what every view of a deal starts with. */
export function dealHead(d: q.DealRow, figures: Figures | null, today: string): Omit<DealSummary, 'packets'> {
  return {
    id: d.id,
    kind: d.kind,
    address: d.address,
    city: d.city,
    forWhom: d.for_whom,
    status: d.status,
    tags: d.tags,
    archivedAt: d.archived_at?.toISOString() ?? null,
    readiness: readinessOf(figures ?? { met: 0, of: 0, open: [] }, d, today),
    createdAt: d.created_at.toISOString(),
    goalOn: d.dates[GOAL[d.kind]] ?? null,
  };
}

/**
 * Opens a deal with its first people and notifies the lists of deals.
 *
 * @returns the deal
 */
export async function openDeal(ctx: Context, body: DealBody, member: Member): Promise<DealView> {
  const firm = sure(await ctx.firm(), 'the firm');
  const id = await inTransaction(ctx.database.pool, (tx) =>
    openDealIn(ctx, tx, firm, body, [`${member.name} opened the deal.`]),
  );
  await computeDealStatus(ctx, id);
  return dealView(ctx, id, member);
}

/**
 * Opens a deal as part of a transaction.
 *
 * @param firm   whose time zone the deal gets
 * @param words  what the activity says of it, in sentences
 * @returns the deal's id
 */
export async function openDealIn(ctx: Context, tx: Tx, firm: Firm, body: DealBody, words: string[]): Promise<string> {
  const { db, afterCommit } = tx;
  const at = ctx.clock.now();
  const id = newId();
  await q.insertDeal(db, {
    id,
    kind: body.kind,
    address: body.address,
    city: body.city ?? '',
    time_zone: firm.time_zone,
    created_at: at,
    for_whom: forWhomIn(body.kind, body.forWhom ?? itemAt(FOR_WHOM_OF[body.kind], 0)),
    status: itemAt(STATUSES_OF[body.kind], 0),
    status_on: dayOf(at.toISOString(), firm.time_zone),
  });
  for (const p of body.parties ?? []) await addParty(db, id, p, at);
  await note(ctx, db, id, words);
  afterCommit(() => ctx.live.notify(topics.deals()));
  return id;
}

/**
 * Returns a deal with its people, documents and packets, its requirements and what to do next.
 *
 * @param member who asks: their own acts are worded as theirs
 * @throws Problem `not-found`
 */
export async function dealView(ctx: Context, id: string, member: Member): Promise<DealView> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, id);
  let computed = await q.computedOf(db, id);
  // A deal of an earlier version, or one that nobody has looked at yet.
  if (!computed && (await computeDealStatus(ctx, id))) computed = await q.computedOf(db, id);
  const { needs, papers, packets: now, signatures, initials, stated = [] } = computed ?? NOTHING_COMPUTED;
  const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
  const own = await q.ownFacts(db);
  const over = isOver(deal.status) || deal.archived_at !== null;
  return {
    ...dealHead(deal, figuresOf(needs), today),
    timeZone: deal.time_zone,
    today,
    statusOn: deal.status_on,
    facts: deal.facts,
    dates: deal.dates,
    memberIds: await q.membersOfDeal(db, id),
    ownFacts: own,
    parties: (await partiesOfDeal(db, id)).map(partyView),
    documents: (await documentsOfDeal(db, id)).map(documentView),
    packets: (await packetsOfDeals(db, [id])).map(packetSummary),
    papers: papers.map((p) => ({
      documentId: p.documentId,
      status: p.status,
      words: paperWords(p),
      packetId: p.packetId,
    })),
    requirements: needs.requirements,
    asked: needs.asked,
    signatures,
    initials,
    next: over
      ? []
      : nextActs({
          kind: deal.kind,
          needs,
          packets: now,
          own,
          stated: statingOf(stated),
          me: member.email.toLowerCase(),
          today,
        }).slice(0, MOST_NEXT),
    stated: over ? [] : stated.map(statedView),
    slow: over ? [] : await mayBeLate(ctx, deal, today, now),
    disposable: !(await q.wasSent(db, id)) && !isRetained(deal.retain_until, today),
    retainUntil: deal.retain_until,
  };
}

/** Returns whether the day until which a deal must be retained is still ahead. */
const isRetained = (until: string | null, today: string): boolean => until !== null && until >= today;

/** Returns what screens show of a statement that differs from its deal. */
function statedView(c: StatedChange): DealView['stated'][number] {
  const { documentId, name, field, why, source } = c;
  return { documentId, name, field, value: String(c.value), why, source, words: statedWords(c) };
}

/** Maximum number of packets for which a forecast is computed. */
const MOST_FORESEEN = 12;

/** Returns packets that may not be executed by the deal's target date: their 90% day is later. */
async function mayBeLate(
  ctx: Context,
  deal: q.DealRow,
  today: string,
  packets: ComputedDeal['packets'],
): Promise<DealView['slow']> {
  const goal = deal.dates[GOAL[deal.kind]];
  if (!goal || goal < today) return [];
  const out: DealView['slow'] = [];
  for (const { id, name } of packets.filter((p) => p.status === 'at_gate').slice(0, MOST_FORESEEN)) {
    const { state } = await ctx.packets.look(id);
    const forecast = state && (await forecastView(ctx, state));
    if (forecast && forecast.slow > goal) out.push({ packetId: id, name, day: forecast.slow });
  }
  return out;
}

/** Maximum number of next acts on a deal's page; the first two or three are shown at once. */
const MOST_NEXT = 8;

/** Returns a document's status in words. */
function paperWords(p: DealDocument): string {
  const on = p.on ? ` ${shortDay(p.on)}` : '';
  if (p.status === 'executed') return `executed${on}${p.gaps ? `, ${count(p.gaps, 'gap')}` : ', no gap'}`;
  if (p.status === 'elsewhere') return `signed elsewhere${on}`;
  if (p.status === 'out') return p.waits ? `out: ${p.waits}` : 'out';
  return p.status === 'draft' ? 'in draft' : 'in no packet yet';
}

/**
 * Deletes a deal in which nothing was ever sent.
 *
 * @throws Problem `not-found`, `was-sent`
 */
export async function deleteDeal(ctx: Context, dealId: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    const deal = await q.lockDeal(db, dealId);
    if (!deal) throw notFound('This deal');
    if (isRetained(deal.retain_until, dayOf(ctx.clock.now().toISOString(), deal.time_zone)))
      throw new Problem(
        'was-sent',
        `This deal must be retained until ${deal.retain_until ?? ''}. Move it to the archive.`,
      );
    if (await q.wasSent(db, dealId))
      throw new Problem(
        'was-sent',
        'Papers of this deal were sent, so it cannot be deleted. Close it, or move it to the archive.',
      );
    const documents = await documentsOfDeal(db, dealId);
    await q.deleteDeal(db, dealId);
    for (const file of new Set(documents.flatMap((d) => [d.original_sha256, d.sha256, d.facts_sha256])))
      if (file) await queueFileDeletionIn(ctx, tx, file);
    afterCommit(() => {
      ctx.live.notify(topics.deals());
      ctx.live.notify(topics.today());
    });
  });
}
