/** Changes by the sender after sending, and drafts made from sent packets. */
import { dayOf } from '@gatepath/core/calendar';
import {
  type Gate,
  type Mark,
  PACKET_LIMITS,
  type PacketParty,
  type Redline,
  holdsGate,
  puts,
  byLink,
} from '@gatepath/core/packet';
import { type ChangeCommand, type PacketState, ahead, initialsOfChange, partyOf } from '@gatepath/core/routing';
import { mergeTags, tagValues } from '@gatepath/core/merge';
import { lockBrokenBy, lockedWords } from '@gatepath/core/shelf';
import type { ChangeBody } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { factsOfDeal } from '../deal-records/deals';
import { dealOr404 } from '../deal-records/deals';
import { queueDealStatus } from '../jobs/deal-status';
import { documentsByIds } from '../documents/queries';
import { factsFiles } from '../documents/service';
import { saveSealedDocument } from '../documents/bring-in';
import type { Member } from '../firm/queries';
import { newId } from '../ids';
import { topics } from '../live/live';
import { notFound, Problem } from '../problem';
import { makeLinkSecret } from '../links/links';
import { carryAccessCodes } from '../links/queries';
import { currentDraft } from './current';
import { loadState } from './log';
import * as q from './queries';
import { byMember, packetOr404 } from './service';
import { itemAt } from '@gatepath/core/sure';

type Body<T extends ChangeBody['type']> = Extract<ChangeBody, { type: T }>;

/** How often a change is computed again because somebody signed meanwhile. */
const TRIES = 5;

/**
 * Applies one change to a packet that was sent.
 *
 * @throws Problem `not-sent`, `over-limits`, `no-document`, `unknown-document`, `no-room`, `not-found`, `warnings`,
 * `locked-setting` for what its kit locks
 */
export async function changePacket(ctx: Context, packetId: string, body: ChangeBody, member: Member): Promise<void> {
  const kit = await q.kitOfPacket(ctx.database.pool, packetId);
  const broken = kit && lockBrokenBy(body.type, kit.locks);
  if (broken) throw new Problem('locked-setting', lockedWords(broken));
  for (let n = 1; ; n++) {
    // Marks are placed before the transaction, in a worker, on the packet as it is.
    const row = await packetOr404(ctx.database.pool, packetId);
    const { state } = await loadState(ctx.database.pool, packetId);
    if (!state) throw new Problem('not-sent', 'This packet has not been sent yet. Change it on the desk.');
    const cmd = await commandOf(ctx, row, state, body);
    const done = await ctx.packets.alone(packetId, async (now) => {
      if (now.state!.seq !== state.seq && n < TRIES) return false;
      await now.run(cmd, byMember(member));
      return true;
    });
    if (done) return;
  }
}

async function commandOf(ctx: Context, row: q.PacketRow, state: PacketState, body: ChangeBody): Promise<ChangeCommand> {
  switch (body.type) {
    case 'correct_party': {
      const { partyId, name, email, phone, language } = body;
      return { type: 'correct_party', partyId, contact: { name, email, phone, ...(language ? { language } : {}) } };
    }
    case 'extend':
      return {
        type: 'extend',
        lastDay: body.lastDay,
        today: dayOf(ctx.clock.now().toISOString(), state.plan.timeZone),
      };
    case 'nudge':
      return {
        type: 'nudge',
        ...(body.partyIds?.length ? { partyIds: body.partyIds } : {}),
        ...(body.words ? { words: await merged(ctx, row, state, body.words) } : {}),
      };
    case 'add_party':
      return addParty(ctx, state, body);
    case 'add_document':
      return addDocument(ctx, row, state, body);
    case 'correct':
      return correct(ctx, state, body);
    case 'drop_party':
      return { type: 'drop_party', partyId: body.partyId, reason: body.reason };
    case 'change_act':
      return changeAct(ctx, state, body);
    case 'change_marks':
      return changeMarks(ctx, state, body);
    case 'set_reading':
      return { type: 'set_reading', allowed: body.allowed };
    case 'set_path':
      return { type: 'set_path', gates: body.gates };
    case 'answer':
      return { type: 'answer', questionId: body.questionId, text: await merged(ctx, row, state, body.text) };
    case 'unlock':
      return { type: 'unlock', partyId: body.partyId };
    case 'letter': {
      const { partyId, day, way } = body;
      return { type: 'letter', partyId, day, way, today: dayOf(ctx.clock.now().toISOString(), state.plan.timeZone) };
    }
    case 'renew_link':
      return { type: 'renew_link', partyId: body.partyId };
  }
}

/** Returns text of the sender with its tags replaced by their current values. */
async function merged(ctx: Context, row: q.PacketRow, state: PacketState, text: string): Promise<string> {
  if (!text.includes('{')) return text;
  const deal = await dealOr404(ctx.database.pool, row.deal_id);
  return mergeTags(text, tagValues(factsOfDeal(deal), state.plan.parties)).text;
}

/** Returns the stored facts of a packet's documents. */
async function factsOfPacket(ctx: Context, ids: string[]) {
  return factsFiles(ctx, await documentsByIds(ctx.database.pool, ids));
}

async function addParty(ctx: Context, state: PacketState, body: Body<'add_party'>): Promise<ChangeCommand> {
  const { plan } = state;
  if (plan.parties.length >= PACKET_LIMITS.parties)
    throw new Problem('over-limits', `A packet takes at most ${PACKET_LIMITS.parties} people.`);
  const sideParties = plan.parties.filter((p) => p.side === body.side);
  const wanted = plan.documents.filter((d) => body.documentIds.includes(d.id)).map((d) => d.id);
  const signs = puts(body);
  const party: PacketParty = {
    id: newId(),
    name: body.name.trim(),
    email: body.email.trim(),
    phone: body.phone,
    side: body.side,
    ordinal: Math.max(0, ...sideParties.map((p) => p.ordinal)) + 1,
    act: body.act,
    ink: Math.max(0, ...plan.parties.map((p) => p.ink)) + 1,
    ...(body.language ? { language: body.language } : {}),
    ...(signs && wanted.length < plan.documents.length ? { only: wanted } : {}),
  };
  if (signs && !wanted.length) throw new Problem('no-document', 'Choose at least one document for them to sign.');
  const gate: Gate = { id: newId(), partyIds: [party.id] };
  const at = Math.min(Math.max(body.after, state.gate) + 1, plan.gates.length);
  const gates = !holdsGate(body) ? plan.gates : [...plan.gates.slice(0, at), gate, ...plan.gates.slice(at)];
  const marks = signs ? await placesFor(ctx, state, party, wanted, body.initials) : [];
  return { type: 'add_party', party, gates, marks };
}

/**
 * Returns the places of somebody who joins the packet after sending.
 *
 * @throws Problem `no-room`
 */
async function placesFor(
  ctx: Context,
  { plan, packetId }: PacketState,
  party: PacketParty,
  documentIds: string[],
  initials: boolean,
): Promise<Mark[]> {
  const { marks, without } = await ctx.work.run(
    'marksFor',
    {
      parties: [party],
      documents: await factsOfPacket(ctx, documentIds),
      marks: plan.marks,
      redlines: plan.redlines ?? [],
      initials,
    },
    packetId,
  );
  if (without.length)
    throw new Problem(
      'no-room',
      `There is no room for a signature on “${itemAt(without, 0).document}”. Leave it out, or recall the packet and add a page.`,
    );
  return marks;
}

/** Changes the act of somebody ahead. Who signs from now on gets places; who had no gate gets one. */
async function changeAct(ctx: Context, state: PacketState, body: Body<'change_act'>): Promise<ChangeCommand> {
  const { plan } = state;
  const { partyId, act } = body;
  const was = partyOf(plan, partyId);
  if (!was) throw notFound('This person');
  const stands = plan.gates.some((g) => g.partyIds.includes(partyId));
  const at = Math.min(Math.max(body.after, state.gate) + 1, plan.gates.length);
  const own: Gate = { id: newId(), partyIds: [partyId] };
  const gates = stands || !holdsGate({ act }) ? plan.gates : [...plan.gates.slice(0, at), own, ...plan.gates.slice(at)];
  if (!puts({ act }) || puts(was)) return { type: 'change_act', partyId, act, gates, marks: [] };
  const wanted = plan.documents.filter((d) => body.documentIds.includes(d.id)).map((d) => d.id);
  if (!wanted.length) throw new Problem('no-document', 'Choose at least one document for them to sign.');
  const only = wanted.length < plan.documents.length ? { only: wanted } : {};
  const marks = await placesFor(ctx, state, { ...was, act, ...only }, wanted, body.initials);
  return { type: 'change_act', partyId, act, gates, marks, ...only };
}

/** Replaces marks. A mark that moved gets a new id, because a sealed file may have reserved room for the old one. */
async function changeMarks(ctx: Context, state: PacketState, body: Body<'change_marks'>): Promise<ChangeCommand> {
  const known = new Map(state.plan.marks.map((m) => [m.id, m]));
  const drop = [...body.drop];
  const put = body.put.map(({ check: _check, ...m }): Mark => {
    const was = known.get(m.id);
    // The gate check examined the rules of values: they stay as sent, and a new mark has none.
    if (!was) return { ...m, id: newId() };
    const { redlineId, ruleId, placeId } = was;
    const kept = {
      ...(redlineId ? { redlineId } : {}),
      ...(was.check && was.kind === m.kind ? { check: was.check } : {}),
    };
    const stays =
      was.documentId === m.documentId &&
      was.page === m.page &&
      was.kind === m.kind &&
      (['x', 'y', 'w', 'h'] as const).every((k) => was.rect[k] === m.rect[k]);
    if (stays) return { ...m, ...kept, ...(ruleId ? { ruleId } : {}), ...(placeId ? { placeId } : {}) };
    drop.push(was.id);
    const { placeId: _, ...free } = m;
    return { ...free, ...kept, id: newId() };
  });
  if (put.length && !body.despiteWarnings) {
    const ids = [...new Set(put.map((m) => m.documentId))];
    const over = await ctx.work.run(
      'marksOverPrint',
      { documents: await factsOfPacket(ctx, ids), marks: put },
      state.packetId,
    );
    const first = put.find((m) => over.includes(m.id));
    if (first)
      throw new Problem(
        'warnings',
        `On page ${first.page} it covers print. Put it where the page is free, or keep it there anyway.`,
      );
  }
  return { type: 'change_marks', partyId: body.partyId, put, drop };
}

async function addDocument(
  ctx: Context,
  row: q.PacketRow,
  state: PacketState,
  body: Body<'add_document'>,
): Promise<ChangeCommand> {
  const [doc] = await documentsByIds(ctx.database.pool, [body.documentId]);
  if (!doc || doc.deal_id !== row.deal_id || doc.status !== 'ready')
    throw new Problem(
      'unknown-document',
      'This document is not in the deal, or is still being read. Add it to the deal first.',
    );
  const later = ahead(state).filter((p) => body.partyIds.includes(p.id));
  const { marks, without } = await ctx.work.run(
    'marksFor',
    { parties: later, documents: factsFiles(ctx, [doc]), marks: [], redlines: [], initials: false },
    state.packetId,
  );
  if (without.length)
    throw new Problem('no-room', `There is no room on “${doc.name}” for ${itemAt(without, 0).name}’s signature.`);
  return {
    type: 'add_document',
    document: { id: doc.id, name: doc.name, sha256: doc.sha256, pages: doc.pages },
    marks,
  };
}

async function correct(ctx: Context, state: PacketState, body: Body<'correct'>): Promise<ChangeCommand> {
  const { plan } = state;
  const [document] = await factsOfPacket(ctx, [body.documentId]);
  if (!document || !plan.documents.some((d) => d.id === body.documentId)) throw notFound('This page');
  const redline: Redline = {
    id: newId(),
    documentId: body.documentId,
    page: body.page,
    kind: body.kind,
    rects: body.rects,
    text: body.text,
    moved: [],
  };
  const obstacles = [
    ...plan.marks.filter((m) => m.documentId === body.documentId && m.page === body.page).map((m) => m.rect),
    ...(plan.redlines ?? [])
      .filter((r) => r.documentId === body.documentId && r.page === body.page)
      .flatMap((r) => r.rects),
  ];
  const parties = initialsOfChange(state, body.documentId);
  const marks = await ctx.work.run('marksBeside', { redline, document, parties, obstacles }, state.packetId);
  if (!marks) throw notFound('This page');
  return { type: 'correct', redline, marks };
}

/**
 * Recalls a packet: withdraws it and makes a draft of its new version.
 *
 * @throws Problem `not-sent`
 */
export async function takeBack(ctx: Context, packetId: string, reason: string, member: Member): Promise<string> {
  const id = newId();
  await ctx.packets.alone(packetId, async ({ tx, row, state, run }) => {
    if (!state) throw new Problem('not-sent', 'This packet is still a draft. Change it on the desk.');
    const { draft } = await q.draftOf(tx.db, packetId);
    const kit = await q.kitOfPacket(tx.db, packetId);
    await run({ type: 'withdraw', reason, newVersion: id }, byMember(member));
    const version = (state.plan.replaces?.version ?? 1) + 1;
    await q.insertPacket(tx.db, {
      id,
      deal_id: row.deal_id,
      name: row.name,
      draft: { ...currentDraft(draft, state), replaces: { packetId, version } },
      created_by: member.id,
      at: ctx.clock.now(),
      ...(kit ? { kit } : {}),
    });
    await carryAccessCodes(tx.db, packetId, id);
    tx.afterCommit(() => ctx.live.notify(topics.deal(row.deal_id)));
  });
  return id;
}

/**
 * Starts a late signing round: a draft whose documents are the sealed copies of an executed packet.
 *
 * @throws Problem `not-found`, `not-sealed`, `no-document`
 */
export async function startLateRound(
  ctx: Context,
  packetId: string,
  documentIds: string[],
  member: Member,
): Promise<string> {
  const row = await q.packetById(ctx.database.pool, packetId);
  if (!row) throw notFound('This packet');
  const { state } = await loadState(ctx.database.pool, packetId);
  if (!state?.sealed)
    throw new Problem('not-sealed', 'A late signing round starts from sealed copies. Wait until everyone has signed.');
  const wanted = state.plan.documents.filter((d) => documentIds.includes(d.id));
  if (!wanted.length) throw new Problem('no-document', 'Choose at least one document for the late round.');
  const documents: { id: string }[] = [];
  for (const d of wanted) {
    const { sha256 } = state.sealed.find((s) => s.documentId === d.id)!;
    documents.push(await saveSealedDocument(ctx, row.deal_id, `${d.name}, signed`, sha256));
  }
  const id = newId();
  const name = `${row.name}, late round`;
  const { draft } = await q.draftOf(ctx.database.pool, packetId);
  await inTransaction(ctx.database.pool, async (tx) => {
    await queueDealStatus(ctx, tx, row.deal_id);
    await q.insertPacket(tx.db, {
      id,
      deal_id: row.deal_id,
      name,
      draft: {
        ...draft,
        name,
        subject: `Please sign: ${draft.name}`,
        parties: [],
        gates: [],
        marks: [],
        rules: [],
        redlines: [],
        passed: [],
        replaces: undefined,
        documents: documents.map((d) => ({ id: d.id })),
        continues: { packetId, packetName: row.name },
      },
      created_by: member.id,
      at: ctx.clock.now(),
    });
    tx.afterCommit(() => ctx.live.notify(topics.deal(row.deal_id)));
  });
  return id;
}

/**
 * Opens the signing link of a party that signs at the desk. The record names the host.
 *
 * @throws Problem `not-found`, `not-at-desk`
 */
export async function hostParty(ctx: Context, packetId: string, partyId: string, member: Member): Promise<string> {
  return ctx.packets.alone(packetId, async ({ tx, state, run }) => {
    const party = state && partyOf(state.plan, partyId);
    if (!party) throw notFound('This person');
    if (byLink(party)) throw new Problem('not-at-desk', `${party.name} signs through a link of their own.`);
    await run({ type: 'host', partyId, hostName: member.name }, byMember(member));
    return makeLinkSecret(ctx, tx, packetId, partyId, member.id);
  });
}

/**
 * Opens the signing link of a member who is a party.
 *
 * @throws Problem `not-you`
 */
export async function ownLink(ctx: Context, packetId: string, partyId: string, member: Member): Promise<string> {
  return ctx.packets.alone(packetId, async ({ tx, state }) => {
    const party = state && partyOf(state.plan, partyId);
    if (!party || party.memberId !== member.id)
      throw new Problem('not-you', 'Only this person can open their own signing link.');
    return makeLinkSecret(ctx, tx, packetId, partyId, member.id);
  });
}
