/** What a party sees: the packet through its own link, and what an act changed in it. */
import { LRUCache } from 'lru-cache';
import {
  type PacketParty,
  type PlanDocument,
  SCRIPT_FACES,
  type ScriptFace,
  hasDocument,
  isAutomatic,
  isForClient,
  holdsGate,
  byLink,
  receives,
} from '@gatepath/core/packet';
import {
  type PacketState,
  documentsOf,
  isNeeded,
  isTurnOf,
  marksLeft,
  marksOfParty,
  shownFills,
  shownRedlines,
  hasFilled,
} from '@gatepath/core/routing';
import { firstName, initialsOf } from '@gatepath/core/text';
import type { Words } from '@gatepath/core/words';
import type { SigningPatch, SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import type { Done } from '../packets/packets';
import { LANGUAGES, wordsOf } from '../words';
import { agreementOf } from './agreement';
import type { Entry } from './visit';
import { revisedFor } from './revised';
import { rememberedHand } from './hands';
import { isCodeSent } from '../links/queries';
import { progressOf } from '@gatepath/core/routing';

/** Returns what an act changed since a view, if it changed marks only; null otherwise. */
export function patchOf({ state, events }: Done, partyId: string, since: number): SigningPatch | null {
  if (!events.length || state.seq !== since + events.length) return null;
  const ids = new Set<string>();
  for (const { body } of events) {
    if (body.type !== 'mark_filled' && body.type !== 'mark_cleared') return null;
    ids.add(body.markId);
  }
  const me = state.plan.parties.find((p) => p.id === partyId)!;
  return {
    since,
    seq: state.seq,
    mine: progressOf(state, partyId).status,
    ...computedOf(state, me),
    marks: [...ids].map((id) => ({ id, done: state.fills.has(id) })),
    fills: shownFills(state, ids),
    changesOpen: changesFor(state, partyId).map((c) => c.open),
  };
}

/** Returns whether a party has put anything on a page, and whether it may still hand over. */
function computedOf(state: PacketState, me: PacketParty): { somethingSigned: boolean; mayHandOver: boolean } {
  const somethingSigned = hasFilled(state, me.id);
  const may = isTurnOf(state, me.id) && byLink(me) && holdsGate(me) && !receives(me) && !me.memberId;
  return { somethingSigned, mayHandOver: !!state.plan.handOver && may && !somethingSigned };
}

/** Returns the redlines a party is to initial, with those that are still open. */
function changesFor(state: PacketState, partyId: string): SigningView['changes'] {
  const mine = state.corrections.filter((c) => c.askedAgain.includes(partyId));
  if (!mine.length) return [];
  const readable = new Set(readableDocuments(state, partyId).map((d) => d.id));
  const left = new Set(marksLeft(state, partyId).map((m) => m.id));
  const initials = new Map(
    marksOfParty(state.plan, partyId).flatMap((m) => (m.redlineId ? [[m.redlineId, m.id] as const] : [])),
  );
  return mine
    .filter((c) => readable.has(c.redline.documentId))
    .map((c) => ({ redline: c.redline, open: left.has(initials.get(c.redline.id) ?? '') }));
}

/** Returns the documents a party may read: those it gets, files it added, and their records. */
export function readableDocuments(state: PacketState, partyId: string): PlanDocument[] {
  const { plan } = state;
  const me = plan.parties.find((p) => p.id === partyId)!;
  const added = new Set(plan.marks.filter((m) => m.partyId === partyId).map((m) => `file.${m.id}`));
  const sent = new Set(plan.documents.map((d) => d.id));
  const isMine = (id: string) => (sent.has(id) ? hasDocument(me, id) : added.has(id));
  // A signing record is delivered with its document.
  const recordOf = new Map(state.sealed?.map((s) => [s.documentId, s.recordOf]));
  return documentsOf(state).filter((d) => isMine(recordOf.get(d.id) ?? d.id));
}

/** Returns what is shown before the second step: for whom it is, and nothing about what it is. */
export async function waitingView(ctx: Context, { state, party, words }: Entry): Promise<SigningView> {
  const kind = party.secondStep!;
  return {
    ...(await headOf(ctx, state, party, words)),
    packetName: '',
    dealName: '',
    message: '',
    note: '',
    lastDay: null,
    agreed: false,
    hostName: null,
    hand: null,
    savedHand: null,
    suggestedInitials: '',
    faces: [],
    documents: [],
    marks: [],
    fills: [],
    redlines: [],
    again: false,
    changes: [],
    revised: [],
    questions: [],
    mayHandOver: false,
    somethingSigned: false,
    others: [],
    step: {
      kind,
      locked: progressOf(state, party.id).locked,
      sent: kind !== 'code' && (await isCodeSent(ctx.database.pool, state.packetId, party.id)),
    },
  };
}

/** Returns what anyone with the link may know: the person, the firm and the packet's status. */
async function headOf(ctx: Context, state: PacketState, me: PacketParty, words: Words) {
  const firm = await ctx.firm();
  return {
    packetId: state.packetId,
    seq: state.seq,
    firmName: firm?.name ?? '',
    timeZone: state.plan.timeZone,
    language: words.language,
    languages: LANGUAGES,
    me: {
      id: me.id,
      name: me.name,
      side: me.side,
      ordinal: me.ordinal,
      act: me.act,
      ink: me.ink,
      company: me.company ?? '',
      capacity: me.capacity ?? '',
    },
    status: state.status,
    mine: progressOf(state, me.id).status,
    myTurn: isTurnOf(state, me.id) && holdsGate(me) && !receives(me),
    agreementText: agreementOf(words),
  };
}

/** Returns the packet as one party sees it. */
export async function view(ctx: Context, state: PacketState, partyId: string): Promise<SigningView> {
  const { plan } = state;
  const me = plan.parties.find((p) => p.id === partyId)!;
  const mine = progressOf(state, partyId);
  const mayRead = readableDocuments(state, partyId);
  const readable = new Set(mayRead.map((d) => d.id));
  const marks = marksOfParty(plan, partyId).filter(
    (m) => isNeeded(mine.status) && (isForClient(m) || isAutomatic(m.kind)),
  );
  return {
    ...(await headOf(ctx, state, me, wordsOf(me.language))),
    packetName: plan.packetName,
    dealName: plan.dealName,
    message: plan.message,
    note: me.note ?? '',
    lastDay: plan.schedule?.lastDay ?? null,
    agreed: mine.agreedAt !== null,
    step: null,
    hostName: byLink(me) ? null : mine.hostName,
    hand: mine.hand?.hand ?? null,
    savedHand: mine.hand ? null : await rememberedHand(ctx, me),
    suggestedInitials: initialsOf(me.name),
    faces: await facesFor(ctx, me.name),
    documents: mayRead.map((d) => ({
      id: d.id,
      name: d.name,
      pages: d.pages,
      sealed: state.sealed?.some((s) => s.documentId === d.id) ?? false,
    })),
    marks: marks.map((m) => ({
      id: m.id,
      documentId: m.documentId,
      page: m.page,
      kind: m.kind,
      rect: m.rect,
      required: m.required,
      label: m.label ?? null,
      help: m.help ?? null,
      several: m.lines === 'several',
      value: m.value ?? null,
      check: m.check ?? null,
      options: m.options ?? [],
      group: m.group ?? null,
      redlineId: m.redlineId ?? null,
      done: state.fills.has(m.id),
      automatic: isAutomatic(m.kind),
    })),
    fills: shownFills(state).filter((f) => readable.has(f.documentId)),
    redlines: shownRedlines(state).filter((r) => readable.has(r.documentId)),
    again: mine.again,
    changes: changesFor(state, partyId),
    // A person who has begun to sign, or is not to, needs no notice.
    revised: isTurnOf(state, me.id) && !hasFilled(state, me.id) ? await revisedFor(ctx, state, me) : [],
    questions: questionsOf(state, partyId),
    ...computedOf(state, me),
    others: plan.parties
      .filter((p) => p.id !== partyId && holdsGate(p) && !receives(p) && isNeeded(progressOf(state, p.id).status))
      .map((p) => ({ name: firstName(p.name), ink: p.ink, done: progressOf(state, p.id).status === 'done' })),
  };
}

const questionsOf = (state: PacketState, partyId: string): SigningView['questions'] =>
  state.questions
    .filter((x) => x.partyId === partyId)
    .map((x) => ({ id: x.id, text: x.text, at: x.at, answer: x.answer && { text: x.answer.text, at: x.answer.at } }));

const facesOf = perContext(() => new LRUCache<string, Promise<ScriptFace[]>>({ max: 5_000 }));

/**
 * Returns script typefaces that contain every letter of a name; if none does, the first, borrowing letters. Computed
 * once per name.
 */
function facesFor(ctx: Context, name: string): Promise<ScriptFace[]> {
  const facesByName = facesOf(ctx);
  const known = facesByName.get(name);
  if (known) return known;
  const asked = ctx.work
    .run('faces', { name }, name)
    .then((covering) => (covering.length ? covering : [SCRIPT_FACES[0]]));
  facesByName.set(name, asked);
  asked.catch(() => facesByName.delete(name));
  return asked;
}
