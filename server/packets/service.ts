/** Sending, withdrawing and watching packets. */
import { buildLedger } from '@gatepath/core/marks';
import { viewDraft } from '@gatepath/core/checks';
import { mergeTags } from '@gatepath/core/merge';
import {
  activity,
  decide,
  holdUp,
  marksLeft,
  placesOf,
  shownFills,
  shownRedlines,
  documentsOf,
  type PacketCommand,
  type PacketState,
  type Plan,
} from '@gatepath/core/routing';
import type { PacketView, SendBody, SentView } from '@gatepath/contract';
import type { Context } from '../context';
import type { Db } from '../db/pool';
import { inTransaction, type Tx } from '../db/tx';
import { partiesOfDeal } from '../deals/queries';
import { dealOr404, factsOfDeal, partyView } from '../deals/service';
import { documentsByIds, documentsOfDeal } from '../documents/queries';
import { documentView, factsOf } from '../documents/service';
import type { Member } from '../firm/queries';
import { topics } from '../live/live';
import { conflict, notFound, Problem, unusable } from '../problem';
import { lockedOr404 } from './draft-service';
import { followUp } from './follow-up';
import { append, loadEvents, loadState, type Logged } from './log';
import * as q from './queries';

/** Runs one command on a packet: decided by the core, stored, followed up, told to the screens. */
export async function command(
  ctx: Context,
  tx: Tx,
  row: q.PacketRow,
  before: Logged,
  cmd: PacketCommand,
  by: Omit<Parameters<typeof append>[4], 'at'>,
): Promise<{ state: PacketState; changed: boolean }> {
  const decision = decide(before.state, cmd);
  if (!decision.ok)
    throw decision.refusal.code === 'bad_value' || decision.refusal.code === 'bad_plan'
      ? unusable(decision.refusal.code.replace(/_/g, '-'), decision.refusal.sentence)
      : conflict(decision.refusal.code.replace(/_/g, '-'), decision.refusal.sentence);
  if (!decision.events.length) return { state: before.state!, changed: false };
  const done = await append(tx.db, row.id, before, decision.events, { ...by, at: ctx.clock.now() });
  await followUp(ctx, tx, row, done.state, done.events);
  tx.afterCommit(() => {
    ctx.live.tell(topics.packet(row.id));
    ctx.live.tell(topics.deal(row.deal_id));
  });
  return { state: done.state, changed: true };
}

/** Checks a draft and sends it through its first gate. */
export async function sendPacket(ctx: Context, packetId: string, body: SendBody, member: Member): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await lockedOr404(tx.db, packetId);
    if (row.status !== 'drafting') throw conflict('already-sent', 'This packet has already been sent.');
    if (row.draft_version !== body.version)
      throw conflict('changed-meanwhile', 'The draft was changed since you looked at it. Look again, then send.');
    const docs = await documentsByIds(
      tx.db,
      row.draft.documents.map((d) => d.id),
    );
    const deal = await dealOr404(tx.db, row.deal_id);
    const view = viewDraft(row.draft, await factsOf(ctx, docs), factsOfDeal(deal));
    const stops = view.findings.filter((f) => f.severity === 'stops');
    if (stops.length) throw new Problem(422, 'gate-check', 'The gate check stops this packet', stops[0]!.sentence);
    if (view.findings.length && !body.despiteWarnings)
      throw conflict(
        'warnings',
        `The gate check has a warning: ${view.findings[0]!.sentence} Send anyway if that is meant.`,
      );
    const byId = new Map(docs.map((d) => [d.id, d]));
    const words = (text: string) => mergeTags(text, view.tags).text;
    const plan: Plan = {
      packetName: row.draft.name,
      dealName: deal.city ? `${deal.address}, ${deal.city}` : deal.address,
      timeZone: deal.time_zone,
      subject: words(row.draft.subject),
      message: words(row.draft.message),
      parties: row.draft.parties,
      gates: row.draft.gates,
      documents: row.draft.documents.map((d) => {
        const doc = byId.get(d.id)!;
        return { id: doc.id, name: doc.name, sha256: doc.sha256, pages: doc.pages };
      }),
      // Text with tags is sent with what the tags stand for now.
      marks: view.marks.map((m) => (m.value ? { ...m, value: words(m.value) } : m)),
      redlines: row.draft.redlines,
    };
    await command(
      ctx,
      tx,
      row,
      { state: null, hash: (await loadState(tx.db, packetId)).hash },
      { type: 'send', plan },
      {
        actor: { kind: 'member', id: member.id, name: member.name },
        origin: null,
      },
    );
  });
}

export async function withdrawPacket(ctx: Context, packetId: string, reason: string, member: Member): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await lockedOr404(tx.db, packetId);
    await command(
      ctx,
      tx,
      row,
      await loadState(tx.db, packetId),
      { type: 'withdraw', reason },
      {
        actor: { kind: 'member', id: member.id, name: member.name },
        origin: null,
      },
    );
  });
}

export async function packetOr404(db: Db, id: string): Promise<q.PacketRow> {
  const row = await q.packetById(db, id);
  if (!row) throw notFound('This packet');
  return row;
}

export async function packetView(ctx: Context, id: string): Promise<PacketView> {
  const db = ctx.database.pool;
  const row = await packetOr404(db, id);
  const deal = await dealOr404(db, row.deal_id);
  const documents = await documentsOfDeal(db, row.deal_id);
  const parties = await partiesOfDeal(db, row.deal_id);
  return {
    id: row.id,
    dealId: row.deal_id,
    dealName: deal.address,
    timeZone: deal.time_zone,
    name: row.name,
    status: row.status,
    draft: row.draft,
    version: row.draft_version,
    documents: documents.map(documentView),
    facts: factsOfDeal(deal),
    dealParties: parties.map(partyView),
    sent: row.status === 'drafting' ? null : await sentView(db, id),
  };
}

async function sentView(db: Db, packetId: string): Promise<SentView> {
  const { state } = await loadState(db, packetId);
  if (!state) throw new Error('a sent packet has events');
  const events = await loadEvents(db, packetId);
  const devices = await q.devicesOf(db, packetId);
  const { plan } = state;
  const ledger = buildLedger({
    documents: plan.documents.map((d) => ({ id: d.id, pageCount: d.pages.length })),
    partyIds: plan.parties.filter((p) => p.act === 'sign').map((p) => p.id),
    marks: plan.marks,
    rules: [],
    filled: new Set(Object.keys(state.fills)),
  });
  return {
    plan,
    gate: state.gate,
    sentAt: state.sentAt,
    endedAt: state.endedAt,
    parties: plan.parties.map((p) => {
      const s = state.parties[p.id]!;
      return {
        partyId: p.id,
        status: s.status,
        askedAt: s.askedAt,
        openedAt: s.openedAt,
        doneAt: s.doneAt,
        lastActAt: s.lastActAt,
        device: devices.get(p.id) ?? null,
        left: marksLeft(state, p.id).length,
        total: placesOf(plan, p.id),
        reason: s.reason,
      };
    }),
    ledger: { rows: ledger.rows, partyIds: ledger.partyIds, total: ledger.total, done: ledger.done },
    fills: shownFills(state),
    redlines: shownRedlines(state),
    holdUp: holdUp(state),
    activity: activity(events),
    sealed:
      state.sealed?.map((s) => ({
        documentId: s.documentId,
        name: documentsOf(state).find((d) => d.id === s.documentId)?.name ?? 'Document',
        sha256: s.sha256,
      })) ?? null,
  };
}

/** The sealed copy of one document of a packet, ready to be sent. */
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
