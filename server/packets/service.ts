/** Sending, withdrawing and viewing packets. */
import { dayOf, warnDay } from '@gatepath/core/calendar';
import { type Draft, buildLedger, puts, byLink, receives } from '@gatepath/core/packet';
import {
  type PacketState,
  activity,
  documentsOf,
  holdUp,
  isTurnOf,
  marksLeft,
  marksThatCount,
  readsAlong,
  nudgesOf,
  countPlaces,
  countsFrom,
  wantsLetter,
  shownFills,
  shownRedlines,
  waitingFor,
} from '@gatepath/core/routing';
import type { Finding } from '@gatepath/core/checks';
import type { PacketView, SendBody, SentView } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { partiesOfDeal } from '../deal-records/party-queries';
import { partyView } from '../deal-records/parties';
import { factsOfDeal } from '../deal-records/deals';
import { dealOr404 } from '../deal-records/deals';
import { documentsByIds, documentsOfDeal } from '../documents/queries';
import { documentView, factsFiles } from '../documents/service';
import { endedForms } from '../documents/queries';
import { forecastView } from '../insight/pace';
import { letsSend } from '../firm/colleagues';
import { memberById, type Member } from '../firm/queries';
import { notFound, Problem } from '../problem';
import { chainFileName, writeChain } from '../proof/chain-file';
import { haveAccessCodes, seenOf } from '../links/queries';
import { requireKitTime } from './kit-time';
import { planOf, type CheckedDraft } from './plan';
import { loadEvents, loadState } from './log';
import type { By } from './logged';
import * as q from './queries';
import { devicesOf, eventsAfter } from './log-queries';
import { itemAt } from '@gatepath/core/sure';
import { progressOf } from '@gatepath/core/routing';

/**
 * Checks a draft and sends it through its first gate.
 *
 * @param o `isDue`: its time, including what a kit requires of it, was settled before
 * @throws Problem `warnings`, `not-allowed-for`, `already-sent`, `changed-meanwhile`, `gate-check`, `not-found`
 */
export async function sendPacket(
  ctx: Context,
  packetId: string,
  body: SendBody,
  member: Member,
  o: { isDue?: boolean } = {},
): Promise<void> {
  // The check reads every page, so it runs before the transaction, in a worker. The version shows whether it is still valid.
  const { docs, deal, marks, tags, draft: checked } = await checkDraft(ctx, packetId, body);
  if (!o.isDue) await requireKitTime(ctx, { packetId, draft: checked, zone: deal.time_zone, at: null });
  const firm = (await ctx.firm())!;
  const colleague =
    body.forId && body.forId !== member.id ? await inNameOf(ctx.database.pool, body.forId, member) : null;
  await ctx.packets.alone(packetId, async ({ tx, row, run }) => {
    const { draft, version } = await q.draftOf(tx.db, packetId);
    requireVersion(row, version, body.version);
    const told = await haveAccessCodes(tx.db, packetId);
    const without = draft.parties.find((p) => p.secondStep === 'code' && !told.has(p.id));
    if (without) throw stop(`${without.name} needs an access code. Set one on the desk, and tell it to them.`);
    const plan = planOf(draft, { docs, deal, marks, tags, holidays: firm.holidays });
    // Messages go out in the colleague's name, and answers come back to them.
    if (colleague) await q.setSender(tx.db, packetId, colleague.id);
    if (colleague) row.created_by = colleague.id;
    await run({ type: 'send', plan }, byMember(member, colleague));
  });
}

/** Returns the colleague in whose name something is sent. @throws Problem `not-allowed-for` */
export async function inNameOf(db: Db, id: string, sender: Member): Promise<Member> {
  const colleague = await memberById(db, id);
  if (!colleague || !(await letsSend(db, id, sender.id)))
    throw new Problem(
      'not-allowed-for',
      'This colleague has not allowed you to send in their name. They can, on their Firm screen.',
    );
  return colleague;
}

/** Returns the author of an act by a member. */
export const byMember = (member: Member, colleague: Member | null = null): By => ({
  actor: {
    kind: 'member',
    id: member.id,
    name: member.name,
    ...(colleague ? { for: { id: colleague.id, name: colleague.name } } : {}),
  },
  origin: null,
});

function requireVersion(row: q.PacketRow, now: number, looked: number): void {
  if (row.status !== 'drafting') throw new Problem('already-sent', 'This packet has already been sent.');
  if (now !== looked)
    throw new Problem('changed-meanwhile', 'The draft has changed since you opened it. Check it again, then send.');
}

const stop = (sentence: string) => new Problem('gate-check', sentence);

/** Runs the gate check of a draft and returns whatever it finds. It runs in a worker, because it reads every page. */
export async function runGateCheck(
  ctx: Context,
  row: q.PacketRow,
  draft: Draft,
): Promise<CheckedDraft & { findings: Finding[] }> {
  const db = ctx.database.pool;
  const docs = await documentsByIds(
    db,
    draft.documents.map((d) => d.id),
  );
  const deal = await dealOr404(db, row.deal_id);
  const ended = await endedForms(db, docs, dayOf(ctx.clock.now().toISOString(), deal.time_zone));
  const documents = factsFiles(ctx, docs).map((d) => ({ ...d, ...ended.get(d.id) }));
  const task = { draft, documents, facts: factsOfDeal(deal) };
  return { docs, deal, ...(await ctx.work.run('gateCheck', task, row.id)) };
}

/**
 * Runs the gate check of a draft. @throws Problem for a finding that stops it, or for warnings that are not accepted
 * yet
 * @throws Problem `warnings`, `not-found`, `already-sent`, `changed-meanwhile`, `gate-check`
 */
export async function checkDraft(
  ctx: Context,
  packetId: string,
  body: SendBody,
): Promise<CheckedDraft & { draft: Draft }> {
  const db = ctx.database.pool;
  const row = await packetOr404(db, packetId);
  const { draft, version } = await q.draftOf(db, packetId);
  requireVersion(row, version, body.version);
  const { findings, ...checked } = await runGateCheck(ctx, row, draft);
  const stops = findings.filter((f) => f.severity === 'stops');
  if (stops.length) throw stop(itemAt(stops, 0).sentence);
  if (findings.length && !body.despiteWarnings)
    throw new Problem(
      'warnings',
      `The gate check has a warning: ${itemAt(findings, 0).sentence} Send anyway if that is intended.`,
    );
  const { lastDay } = draft.schedule;
  if (lastDay && lastDay < dayOf(ctx.clock.now().toISOString(), checked.deal.time_zone))
    throw stop(`The last day for signing, ${lastDay}, has passed. Choose a later one.`);
  return { ...checked, draft };
}

/**
 * Withdraws a packet. All its links end, and its parties are notified why.
 *
 * @throws Problem if the core refuses: it has ended already, or no reason is given
 */
export async function withdrawPacket(ctx: Context, packetId: string, reason: string, member: Member): Promise<void> {
  await ctx.packets.run(packetId, { type: 'withdraw', reason }, byMember(member));
}

/**
 * Returns a packet by its id.
 *
 * @throws Problem `not-found`
 */
export async function packetOr404(db: Db, id: string): Promise<q.PacketRow> {
  const row = await q.packetById(db, id);
  if (!row) throw notFound('This packet');
  return row;
}

/**
 * Returns a packet: its draft and, once sent, its progress.
 *
 * @throws Problem `not-found`
 */
export async function packetView(ctx: Context, id: string): Promise<PacketView> {
  const db = ctx.database.pool;
  const row = await packetOr404(db, id);
  const deal = await dealOr404(db, row.deal_id);
  const documents = await documentsOfDeal(db, row.deal_id);
  const parties = await partiesOfDeal(db, row.deal_id);
  const { draft, version } = await q.draftOf(db, id);
  const today = dayOf(ctx.clock.now().toISOString(), deal.time_zone);
  const ended = row.status === 'drafting' ? await endedForms(db, documents, today) : new Map();
  return {
    id: row.id,
    dealId: row.deal_id,
    dealName: deal.address,
    timeZone: deal.time_zone,
    name: row.name,
    status: row.status,
    draft,
    version,
    documents: documents.map((d) => ({ ...documentView(d), ...ended.get(d.id) })),
    facts: factsOfDeal(deal),
    dealParties: parties.map(partyView),
    holidays: (await ctx.firm())?.holidays ?? [],
    kin: await kinView(db, row, draft),
    later: await laterOf(db, row),
    sent: row.status === 'drafting' ? null : await sentView(ctx, id),
  };
}

/** Returns when a draft will be sent, or why it was not. */
async function laterOf(db: Db, row: q.PacketRow): Promise<PacketView['later']> {
  if (row.status !== 'drafting' || (!row.send_at && !row.send_problem)) return null;
  const by = row.send_by ? await memberById(db, row.send_by) : null;
  const lead = row.send_for ? await memberById(db, row.send_for) : null;
  return {
    at: row.send_at?.toISOString() ?? null,
    by: by?.name ?? '',
    inNameOf: lead?.name ?? null,
    problem: row.send_problem,
  };
}

async function kinView(db: Db, row: q.PacketRow, draft: Draft): Promise<PacketView['kin']> {
  const { replaces, continues } = draft;
  const before = replaces && (await q.packetById(db, replaces.packetId));
  return [
    ...(before ? [{ id: before.id, name: before.name, how: 'old_version' as const }] : []),
    ...(continues ? [{ id: continues.packetId, name: continues.packetName, how: 'first_round' as const }] : []),
    ...(await q.kinOf(db, row.id)).map((k) => ({
      id: k.id,
      name: k.name,
      how: k.how === 'replaces' ? ('new_version' as const) : ('late_round' as const),
    })),
  ];
}

// eslint-disable-next-line max-lines-per-function -- one view, put together field by field
async function sentView(ctx: Context, packetId: string): Promise<SentView> {
  const db = ctx.database.pool;
  const { state } = await loadState(db, packetId);
  if (!state) throw new Error('a sent packet has events');
  const events = await loadEvents(db, packetId);
  const devices = await devicesOf(db, packetId);
  const seen = await seenOf(db, packetId);
  const { plan } = state;
  const ledger = buildLedger({
    documents: plan.documents.map((d) => ({ id: d.id, pageCount: d.pages.length, ownPages: d.ownPages })),
    partyIds: plan.parties.filter(puts).map((p) => p.id),
    marks: marksThatCount(state),
    rules: [],
    leftOut: plan.leftOut ?? [],
    filled: new Set(state.fills.keys()),
  });
  return {
    seq: state.seq,
    plan,
    gate: state.gate,
    sentAt: state.sentAt,
    endedAt: state.endedAt,
    parties: plan.parties.map((p) => {
      const s = progressOf(state, p.id);
      return {
        partyId: p.id,
        status: s.status,
        askedAt: s.askedAt,
        openedAt: s.openedAt,
        doneAt: s.doneAt,
        lastActAt: s.lastActAt,
        device: devices.get(p.id) ?? null,
        left: marksLeft(state, p.id).length,
        total: countPlaces(plan, p.id),
        reason: s.reason,
        seenAt: seen.get(p.id) ?? null,
        agreedAt: s.agreedAt,
        again: s.again,
        locked: s.locked,
        proved: s.proved?.step ?? null,
        hostName: s.hostName,
        bounced: s.bounced,
        nudges: s.nudges.n,
        lastNudgeAt: s.nudges.lastAt,
        before: s.before.map(({ name, at, reason }) => ({ name, at, reason })),
        turn: isTurnOf(state, p.id),
        shownAt: readsAlong(state, p.id) ? (s.shownAt ?? null) : null,
        arrivedAt: s.arrivedAt ?? null,
        letter: s.letter ?? null,
        countsFrom: receives(p) ? countsFrom(state, p.id) : null,
        wantsLetter: wantsLetter(state, p.id),
      };
    }),
    questions: state.questions,
    corrections: state.corrections,
    ahead: comingUp(state, ctx.clock.now()),
    revisions: state.revisions.map((r) => ({
      forSeq: r.forSeq,
      partyId: r.partyId,
      at: r.at,
      documents: r.documents.length,
    })),
    ledger: { rows: ledger.rows, partyIds: ledger.partyIds, total: ledger.total, done: ledger.done },
    fills: shownFills(state),
    redlines: shownRedlines(state),
    holdUp: holdUp(state),
    forecast: await forecastView(ctx, state),
    activity: activity(events),
    sealed:
      state.sealed?.map((s) => ({
        documentId: s.documentId,
        name: documentsOf(state).find((d) => d.id === s.documentId)?.name ?? 'Document',
        sha256: s.sha256,
      })) ?? null,
  };
}

/** Returns the dates that will come if nobody does anything. */
function comingUp(state: PacketState, now: Date): SentView['ahead'] {
  const { schedule, timeZone } = state.plan;
  if (state.status !== 'at_gate' || !schedule) return [];
  const today = dayOf(now.toISOString(), timeZone);
  const warning = warnDay(schedule);
  const out: SentView['ahead'] = waitingFor(state).flatMap((p) => {
    const s = progressOf(state, p.id);
    if (!s.askedAt || !byLink(p)) return [];
    const last = s.nudges.lastAt ? dayOf(s.nudges.lastAt, timeZone) : '';
    const left = Math.max(0, (schedule.nudge?.most ?? 0) - s.nudges.n);
    return nudgesOf(state, s.askedAt)
      .filter((d) => d > last && d >= today)
      .slice(0, left)
      .map((day) => ({ what: 'nudge' as const, day, partyId: p.id }));
  });
  if (warning && warning >= today && state.warnedFor !== schedule.lastDay)
    out.push({ what: 'warning', day: warning, partyId: null });
  if (schedule.lastDay) out.push({ what: 'last_day', day: schedule.lastDay, partyId: null });
  return out.sort((a, b) => a.day.localeCompare(b.day));
}

/**
 * Returns the packet's chain of events as a file that `verify` accepts.
 *
 * @throws Problem `not-found`
 */
export async function chainOf(ctx: Context, packetId: string): Promise<{ name: string; text: string }> {
  const row = await packetOr404(ctx.database.pool, packetId);
  const rows = await eventsAfter(ctx.database.pool, packetId, 0);
  if (!rows.length) throw notFound('The chain of a packet that was not sent');
  const events = await loadEvents(ctx.database.pool, packetId);
  const chain = rows.map((r, i) => ({ event: itemAt(events, i), prevHash: r.prev_hash, hash: r.hash }));
  return { name: chainFileName(row.name), text: writeChain(packetId, chain, await ctx.seal()) };
}

/**
 * Returns a picture of a hand that is on a page of the packet.
 *
 * @throws Problem `not-found`
 */
export async function packetPicture(ctx: Context, packetId: string, sha256: string): Promise<string> {
  const { state } = await loadState(ctx.database.pool, packetId);
  const there = state && shownFills(state).some((f) => f.shows.form === 'picture' && f.shows.picture.sha256 === sha256);
  if (!there) throw notFound('This picture');
  return sha256;
}

/**
 * Returns the sealed copy of one document of a packet.
 *
 * @throws Problem `not-found`
 */
export async function sealedFile(
  db: Db,
  packetId: string,
  documentId: string,
): Promise<{ sha256: string; name: string }> {
  const { state } = await loadState(db, packetId);
  const sealed = state?.sealed?.find((s) => s.documentId === documentId);
  const doc = state && documentsOf(state).find((d) => d.id === documentId);
  if (!sealed || !doc) throw notFound('The sealed copy');
  return { sha256: sealed.sha256, name: `${doc.name} (sealed).pdf` };
}
