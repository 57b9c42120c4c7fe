import { dayOf, shortDay } from '@gatepath/core/calendar';
import {
  changedNeeds,
  DATE_WORDS,
  factsBehind,
  factsByKey,
  factsOf,
  factWords,
  figuresOf,
  FOR_WHOM_OF,
  forWhomWords,
  GOAL,
  isOver,
  KEY_DATES,
  KIND_WORDS,
  moneyWords,
  nextActs,
  readinessOf,
  STATUS_WORDS,
  STATUSES_OF,
  wrongWith,
  type DealKind,
  type Figures,
  type ForWhom,
  type KeyDates,
  type Needs,
  type PaperStanding,
} from '@gatepath/core/deal';
import { showDay } from '@gatepath/core/packet';
import type { DealFacts } from '@gatepath/core/merge';
import { itemAt, lastOf, sure } from '@gatepath/core/sure';
import { count } from '@gatepath/core/text';
import type {
  DealBody,
  DealChanged,
  DealPatch,
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
import { listMembers, type Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { packetsOfDeals } from '../packets/queries';
import { personFor } from '../people/book';
import { packetSummary } from '../packets/summary';
import { notFound, Problem } from '../problem';
import * as q from './queries';
import { keptRules } from './rule-queries';
import { lookAtDeal, NO_STANDING } from './standing';

/** What a screen needs of a person of a deal. */
export function partyView(p: q.PartyRow): PartyView {
  const { id, side, ordinal, name, email, phone, company, person_id: personId } = p;
  return { id, side, ordinal, name, email, phone, company, personId };
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
  const now = ctx.clock.now().toISOString();
  return {
    items: shown.map((d) => ({
      ...dealHead(d, d.figures, dayOf(now, d.time_zone)),
      packets: packets.filter((p) => p.deal_id === d.id).map(packetSummary),
    })),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/** What every view of a deal begins with. */
function dealHead(d: q.DealRow, figures: Figures | null, today: string): Omit<DealSummary, 'packets'> {
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
  };
}

/**
 * Opens a deal with the people it is given, and tells the lists of deals.
 *
 * @returns the deal
 */
export async function openDeal(ctx: Context, body: DealBody, member: Member): Promise<DealView> {
  const at = ctx.clock.now();
  const id = newId();
  const firm = sure(await ctx.firm(), 'the firm');
  const forWhom = body.forWhom ?? itemAt(FOR_WHOM_OF[body.kind], 0);
  if (!FOR_WHOM_OF[body.kind].includes(forWhom)) throw badForWhom(body.kind, forWhom);
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    await q.insertDeal(db, {
      id,
      kind: body.kind,
      address: body.address,
      city: body.city ?? '',
      time_zone: firm.time_zone,
      created_at: at,
      for_whom: forWhom,
      status: itemAt(STATUSES_OF[body.kind], 0),
      status_on: dayOf(at.toISOString(), firm.time_zone),
    });
    for (const p of body.parties ?? []) await addParty(db, id, p, at);
    await note(ctx, db, id, [`${member.name} opened the deal.`]);
    afterCommit(() => ctx.live.tell(topics.deals()));
  });
  await lookAtDeal(ctx, id);
  return dealView(ctx, id, member);
}

const badForWhom = (kind: DealKind, whom: ForWhom) =>
  new Problem('bad-status', `In a ${kind} the firm cannot act ${forWhomWords(whom)}. Choose another side.`);

/** Keeps what happened in a deal, in words. */
async function note(
  ctx: Context,
  db: Db,
  dealId: string,
  sentences: string[],
  about: { partyId?: string; documentId?: string } = {},
): Promise<void> {
  await q.insertEvents(
    db,
    sentences.map((sentence) => ({
      id: newId(),
      deal_id: dealId,
      at: ctx.clock.now(),
      sentence,
      party_id: about.partyId ?? null,
      document_id: about.documentId ?? null,
    })),
  );
}

async function addParty(db: Db, dealId: string, p: PartyBody, at: Date): Promise<string> {
  const id = newId();
  await q.insertParty(db, {
    id,
    deal_id: dealId,
    side: p.side,
    ordinal: await q.nextOrdinal(db, dealId, p.side),
    name: p.name,
    email: p.email ?? '',
    phone: p.phone ?? null,
    company: p.company ?? '',
    person_id: await personFor(db, p, at),
    at,
  });
  return id;
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
 * A deal with its people, documents and packets, what it needs and what is next.
 *
 * @param member who looks: an act of theirs is told as theirs
 * @throws Problem `not-found`
 */
export async function dealView(ctx: Context, id: string, member: Member): Promise<DealView> {
  const db = ctx.database.pool;
  const deal = await dealOr404(db, id);
  let standing = await q.standingOf(db, id);
  // A deal of an earlier version, or one that nobody has looked at yet.
  if (!standing && (await lookAtDeal(ctx, id))) standing = await q.standingOf(db, id);
  const { needs, papers, packets: now, signatures, initials } = standing ?? NO_STANDING;
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
    parties: (await q.partiesOfDeal(db, id)).map(partyView),
    documents: (await documentsOfDeal(db, id)).map(documentView),
    packets: (await packetsOfDeals(db, [id])).map(packetSummary),
    papers: papers.map((p) => ({
      documentId: p.documentId,
      standing: p.standing,
      words: paperWords(p),
      packetId: p.packetId,
    })),
    requirements: needs.requirements,
    asked: needs.asked,
    signatures,
    initials,
    next: over
      ? []
      : nextActs({ kind: deal.kind, needs, packets: now, own, me: member.email.toLowerCase(), today }).slice(
          0,
          MOST_NEXT,
        ),
    disposable: !(await q.wasSent(db, id)),
  };
}

/** As many acts as a deal's page tells of; the first two or three are shown at once. */
const MOST_NEXT = 8;

/** How a paper stands, in words. */
function paperWords(p: PaperStanding): string {
  const on = p.on ? ` ${shortDay(p.on)}` : '';
  if (p.standing === 'executed') return `executed${on}${p.gaps ? `, ${count(p.gaps, 'gap')}` : ', no gap'}`;
  if (p.standing === 'elsewhere') return `signed elsewhere${on}`;
  if (p.standing === 'out') return p.waits ? `out: ${p.waits}` : 'out';
  return p.standing === 'draft' ? 'in draft' : 'in no packet yet';
}

/**
 * Corrects what is known of a deal; drafts read it anew, sent packets keep what they were sent with.
 *
 * @returns the deal, with what the change moved, added and took away
 * @throws Problem `not-found`, `bad-fact`, `bad-status`, `unknown-member`
 */
export async function changeDeal(ctx: Context, dealId: string, body: DealPatch, member: Member): Promise<DealChanged> {
  const before = (await q.standingOf(ctx.database.pool, dealId))?.needs ?? NO_STANDING.needs;
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await q.lockDeal(db, dealId);
    if (!was) throw notFound('This deal');
    const own = await q.ownFacts(db);
    const now = changed(was, body, own, ctx.clock.now());
    await q.updateDeal(db, now);
    if (body.memberIds) await giveTo(db, dealId, body.memberIds);
    await note(ctx, db, dealId, changeWords(was, now, own, member.name));
    if (body.memberIds) await note(ctx, db, dealId, [`${member.name} changed who works on the deal.`]);
    afterCommit(() => ctx.live.tell(topics.deals()));
  });
  return changedView(ctx, dealId, before, member);
}

/** The deal after a change, and what the change did to what it needs. */
async function changedView(ctx: Context, dealId: string, before: Needs, member: Member): Promise<DealChanged> {
  await lookAtDeal(ctx, dealId);
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

/** A deal after a patch. */
function changed(was: q.DealRow, body: DealPatch, own: q.OwnFact[], now: Date): q.DealRow {
  const kind = body.kind ?? was.kind;
  const moved = kind !== was.kind;
  const forWhom =
    body.forWhom ?? (FOR_WHOM_OF[kind].includes(was.for_whom) ? was.for_whom : itemAt(FOR_WHOM_OF[kind], 0));
  if (!FOR_WHOM_OF[kind].includes(forWhom)) throw badForWhom(kind, forWhom);
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

/** What a change was, in sentences. */
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
  if (!was.archived_at && now.archived_at) out.push(`${by} put the deal into the archive.`);
  if (was.archived_at && !now.archived_at) out.push(`${by} took the deal out of the archive.`);
  if (was.tags.join() !== now.tags.join()) out.push(`${by}: tags are ${now.tags.join(', ') || 'none'}.`);
  return out;
}

/**
 * Throws a deal away in which nothing was ever sent.
 *
 * @throws Problem `not-found`, `was-sent`
 */
export async function dropDeal(ctx: Context, dealId: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const { db, afterCommit } = tx;
    if (!(await q.lockDeal(db, dealId))) throw notFound('This deal');
    if (await q.wasSent(db, dealId))
      throw new Problem(
        'was-sent',
        'Papers of this deal were sent, so it is kept. Close it, or put it into the archive.',
      );
    const documents = await documentsOfDeal(db, dealId);
    await q.deleteDeal(db, dealId);
    for (const file of new Set(documents.flatMap((d) => [d.original_sha256, d.sha256, d.facts_sha256])))
      if (file) await ctx.jobs.queue(tx, 'tidy', file);
    afterCommit(() => {
      ctx.live.tell(topics.deals());
      ctx.live.tell(topics.today());
    });
  });
}

/**
 * Does without a paper that a rule calls for, as long as the facts the rule hangs on stay what they are.
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
  const before = (await q.standingOf(ctx.database.pool, dealId))?.needs ?? NO_STANDING.needs;
  await inTransaction(ctx.database.pool, async ({ db }) => {
    const deal = await q.lockDeal(db, dealId);
    if (!deal) throw notFound('This deal');
    const rule = (await keptRules(db)).find((r) => r.id === ruleId);
    if (!rule) throw notFound('This rule');
    const facts = factsBehind(rule, factsOf({ ...deal, forWhom: deal.for_whom }));
    const at = ctx.clock.now().toISOString();
    await q.saveWaiver(db, dealId, { ruleId, reason, by: member.name, at, facts });
    await note(ctx, db, dealId, [`${member.name} waived “${rule.title}”: ${reason}`]);
  });
  return changedView(ctx, dealId, before, member);
}

/**
 * Asks for a paper again that was done without.
 *
 * @throws Problem `not-found` when it was not
 */
export async function unwaive(ctx: Context, dealId: string, ruleId: string, member: Member): Promise<DealChanged> {
  const before = (await q.standingOf(ctx.database.pool, dealId))?.needs ?? NO_STANDING.needs;
  await inTransaction(ctx.database.pool, async ({ db }) => {
    if (!(await q.dropWaiver(db, dealId, ruleId))) throw notFound('This waiver');
    const title = (await keptRules(db)).find((r) => r.id === ruleId)?.title ?? 'A paper';
    await note(ctx, db, dealId, [`${member.name} asks for “${title}” again.`]);
  });
  return changedView(ctx, dealId, before, member);
}

/** What text in this deal's packets may name. */
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

/**
 * Adds a person to a deal, the next one of their side.
 *
 * @returns the deal with them
 * @throws Problem `not-found` for the deal
 */
export async function addPartyToDeal(ctx: Context, dealId: string, body: PartyBody, member: Member): Promise<DealView> {
  await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    // Two who add somebody at once must not both get the same place in the side.
    if (!(await q.lockDeal(db, dealId))) throw notFound('This deal');
    const partyId = await addParty(db, dealId, body, ctx.clock.now());
    await note(ctx, db, dealId, [`${member.name} added ${body.name}.`], { partyId });
    afterCommit(() => ctx.live.tell(topics.deal(dealId)));
  });
  await lookAtDeal(ctx, dealId);
  return dealView(ctx, dealId, member);
}

/**
 * Corrects a person of a deal. Packets that are under way keep who they were sent to.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function correctParty(ctx: Context, partyId: string, body: PartyBody, member: Member): Promise<DealView> {
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
      person_id: await personFor(db, { ...body, personId: body.personId ?? was.person_id }, ctx.clock.now()),
    });
    await note(ctx, db, was.deal_id, [`${member.name} corrected ${body.name}.`], { partyId });
    afterCommit(() => ctx.live.tell(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  await lookAtDeal(ctx, dealId);
  return dealView(ctx, dealId, member);
}

/**
 * Takes a person out of a deal. Packets that were sent keep them.
 *
 * @returns the deal
 * @throws Problem `not-found` for the person
 */
export async function dropParty(ctx: Context, partyId: string, member: Member): Promise<DealView> {
  const dealId = await inTransaction(ctx.database.pool, async ({ db, afterCommit }) => {
    const was = await q.partyById(db, partyId);
    if (!was) throw notFound('This person');
    // Packets hold snapshots of their parties, so a sent packet loses nothing by this.
    await q.deleteParty(db, partyId);
    await note(ctx, db, was.deal_id, [`${member.name} took ${was.name} out of the deal.`], { partyId });
    afterCommit(() => ctx.live.tell(topics.deal(was.deal_id)));
    return was.deal_id;
  });
  await lookAtDeal(ctx, dealId);
  return dealView(ctx, dealId, member);
}
