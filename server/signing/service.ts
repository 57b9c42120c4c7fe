/** The ceremony: what a party sees and does through its own pass. */
import { LRUCache } from 'lru-cache';
import { dayOf } from '@gatepath/core/calendar';
import { checkValue, hasDocument, isAutomatic, isForClient, showDay } from '@gatepath/core/marks';
import {
  documentsOf,
  isTurnOf,
  marksLeft,
  marksOfParty,
  SCRIPT_FACES,
  shownFills,
  shownRedlines,
  type PartyCommand,
  type PacketParty,
  type PacketState,
  type PlanDocument,
  type ScriptFace,
} from '@gatepath/core/routing';
import { firstName, initialsOf } from '@gatepath/core/text';
import { say, type Words } from '@gatepath/core/words';
import type { ActAnswer, FillBody, HandBody, SigningPatch, SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { bringIn } from '../documents/bring-in';
import { pageImage } from '../documents/service';
import type { Upload } from '../http/upload';
import { loadState } from '../packets/log';
import type { Done } from '../packets/store';
import { notFound, Problem } from '../problem';
import { partSoFar } from '../proof/revisions';
import { namesOf, picturesOf } from '../proof/seal-service';
import { LANGUAGES, wordsOf } from '../words';
import { agreementOf } from './agreement';
import { enter, enterProved, type Entry } from './entry';
import { ownPictures, rememberedHand, rememberHand, requirePictures } from './hands';
import { isCodeSent, touchPass } from './queries';
import { told, type Visit } from './visit';

export async function openPass(ctx: Context, visit: Visit): Promise<SigningView> {
  const entry = await enter(ctx, visit);
  await seen(ctx, entry.pass.id);
  if (!entry.proved) return waitingView(ctx, entry);
  const { state, party } = entry;
  const s = state.parties[party.id]!;
  const opens = state.status === 'at_gate' && !s.openedAt && (isTurnOf(state, party.id) || party.act === 'copy');
  return view(ctx, opens ? (await actAs(ctx, visit, entry, { type: 'open' })).state : state, party.id);
}

/** How long a visit counts as one; noting every look would make each a write. */
const SEEN_EVERY_MS = 60_000;
const lastSeen = new LRUCache<string, number>({ max: 20_000 });

/** Notes that a pass was used just now. */
async function seen(ctx: Context, passId: string): Promise<void> {
  const now = ctx.clock.now();
  if (now.getTime() - (lastSeen.get(passId) ?? -Infinity) < SEEN_EVERY_MS) return;
  lastSeen.set(passId, now.getTime());
  await touchPass(ctx.database.pool, passId, now);
}

/** A command of a party without the party: whose it is comes from the pass, and from nowhere else. */
export type OwnCommand = PartyCommand extends infer C ? (C extends PartyCommand ? Omit<C, 'partyId'> : never) : never;

/** Runs a command of the pass's own party. Repeats of an act (same `actId`) change nothing. */
export async function actAs(
  ctx: Context,
  visit: Visit,
  { pass, party, words }: Entry,
  cmd: OwnCommand,
  sameAs?: string,
): Promise<Done> {
  const own = 'actId' in cmd ? cmd.actId : sameAs;
  try {
    return await ctx.packets.run(pass.packet_id, { ...cmd, partyId: party.id } as PartyCommand, {
      actor: { kind: 'party', id: party.id },
      origin: visit.origin,
      ...(own ? { actId: `${pass.party_id}:${own}` } : {}),
    });
  } catch (error) {
    throw await inWords(ctx, error, words, cmd, pass.packet_id);
  }
}

/** A refusal of the core, in the client's language. */
async function inWords(
  ctx: Context,
  error: unknown,
  words: Words,
  cmd: OwnCommand,
  packetId: string,
): Promise<unknown> {
  if (!(error instanceof Problem) || !error.refusal) return error;
  const { code, params } = error.refusal;
  let sentence = say(words, `refusal.${code}`, params);
  if (code === 'bad_value' && cmd.type === 'fill') {
    const { state } = await loadState(ctx.database.pool, packetId);
    const mark = state?.plan.marks.find((m) => m.id === cmd.markId);
    const checked = mark && checkValue(mark, cmd.text ?? '', words);
    if (checked && !checked.ok) sentence = checked.sentence;
  }
  return new Problem(error.status, error.code, error.title, sentence, error.fields, error.refusal);
}

/** Runs a command and answers with the view after it; `entry` where the caller has one already. */
export async function actAndView(
  ctx: Context,
  visit: Visit,
  cmd: OwnCommand,
  more: { sameAs?: string; entry?: Entry } = {},
): Promise<SigningView> {
  const entry = more.entry ?? (await enterProved(ctx, visit));
  return view(ctx, (await actAs(ctx, visit, entry, cmd, more.sameAs)).state, entry.party.id);
}

export async function agree(
  ctx: Context,
  visit: Visit,
  { agreement, actId }: { agreement: string; actId?: string },
): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { words } = entry;
  if (agreement !== agreementOf(words).version)
    throw told(words, 409, 'agreement-changed', 'Not possible now', 'problem.agreement_changed');
  return actAndView(ctx, visit, { type: 'agree', agreement }, { sameAs: actId, entry });
}

export async function setHand(ctx: Context, visit: Visit, body: HandBody): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { words, party, pass } = entry;
  const { keep, actId, ...hand } = body;
  if (hand.form === 'typed') {
    const missing = await ctx.work.run('missing', { text: hand.signature + hand.initials, face: hand.face });
    if (missing.length)
      throw told(words, 422, 'letters', 'Cannot be used', 'problem.letters', { letters: missing.join(' ') });
  }
  await requirePictures(ctx, pass.packet_id, party, hand);
  const done = await actAndView(ctx, visit, { type: 'set_hand', hand }, { sameAs: actId, entry });
  if (keep !== undefined) await rememberHand(ctx, party, hand, keep);
  return done;
}

/** Fills a mark. Who says what they see is answered with what changed in it; everybody else with the whole view. */
export async function fill(ctx: Context, visit: Visit, markId: string, body: FillBody): Promise<ActAnswer> {
  const { actId, text, since } = body;
  const entry = await enterProved(ctx, visit);
  const cmd = { type: 'fill' as const, markId, actId, ...(text === undefined ? {} : { text }) };
  const done = await actAs(ctx, visit, entry, cmd);
  const patch = since === undefined ? null : patchOf(done, entry.party.id, since);
  return patch ? { patch } : view(ctx, done.state, entry.party.id);
}

/** What an act changed since a view, where it changed nothing but marks; null where more has happened. */
function patchOf({ state, events }: Done, partyId: string, since: number): SigningPatch | null {
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
    mine: state.parties[partyId]!.status,
    ...standingOf(state, me),
    marks: [...ids].map((id) => ({ id, done: !!state.fills[id] })),
    fills: shownFills(state, ids),
    changesOpen: changesFor(state, partyId).map((c) => c.open),
  };
}

/** Whether somebody has put anything in, and may still hand over. */
function standingOf(state: PacketState, me: PacketParty): { somethingSigned: boolean; mayHandOver: boolean } {
  const somethingSigned = Object.values(state.fills).some((f) => f.partyId === me.id);
  const may = isTurnOf(state, me.id) && me.act !== 'desk' && me.act !== 'copy' && !me.memberId;
  return { somethingSigned, mayHandOver: !!state.plan.handOver && may && !somethingSigned };
}

/** Changes of pages a party is to initial, and which of them are still open. */
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

/** Takes the file that a mark asks for: made a PDF like any paper, kept with the packet. */
export async function addFile(
  ctx: Context,
  visit: Visit,
  markId: string,
  upload: Upload & { actId: string },
): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { state, party, words } = entry;
  const mark = state.plan.marks.find((m) => m.id === markId && m.partyId === party.id && m.kind === 'file');
  if (!mark) throw notFound('This place');
  const made = await bringIn(ctx, upload, state.packetId);
  if ('problem' in made) {
    const key = made.problem === 'too_large' ? 'problem.file_too_large' : 'problem.no_paper';
    throw told(words, 422, 'no-paper', 'Cannot be used', key, { name: upload.name });
  }
  const file = { sha256: made.sha256, name: upload.name, bytes: made.original.bytes, pages: made.pages };
  return actAndView(ctx, visit, { type: 'fill', markId, file, actId: upload.actId }, { entry });
}

export async function finish(ctx: Context, visit: Visit, actId: string): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { state } = entry;
  // Dates of signing are part of the document: one form for everybody, in the deal's zone.
  const dateText = showDay(dayOf(ctx.clock.now().toISOString(), state.plan.timeZone));
  return actAndView(ctx, visit, { type: 'finish', actId, dateText }, { entry });
}

export function decline(ctx: Context, visit: Visit, reason: string): Promise<SigningView> {
  return actAndView(ctx, visit, { type: 'decline', reason });
}

/** The documents a party may read: those it gets, and the files it added itself. */
function readableDocuments(state: PacketState, partyId: string): PlanDocument[] {
  const { plan } = state;
  const me = plan.parties.find((p) => p.id === partyId)!;
  const added = new Set(plan.marks.filter((m) => m.partyId === partyId).map((m) => `file.${m.id}`));
  const sent = new Set(plan.documents.map((d) => d.id));
  return documentsOf(state).filter((d) => (sent.has(d.id) ? hasDocument(me, d.id) : added.has(d.id)));
}

/** A page of the packet, for the eyes of a party that may see it. */
export async function page(
  ctx: Context,
  visit: Visit,
  documentId: string,
  number: number,
  dpi: number,
): Promise<Buffer> {
  const { state, party } = await enterProved(ctx, visit);
  const doc = readableDocuments(state, party.id).find((d) => d.id === documentId);
  if (!doc) throw notFound('This document');
  return pageImage(ctx, doc, number, dpi);
}

/**
 * The document's file: the sealed copy once there is one; before, the latest sealed revision
 * with what this party has put in since drawn onto a copy of it.
 */
export async function file(
  ctx: Context,
  visit: Visit,
  documentId: string,
): Promise<{ sha256: string; name: string } | { bytes: Uint8Array; name: string }> {
  const { state, party } = await enterProved(ctx, visit);
  const doc = readableDocuments(state, party.id).find((d) => d.id === documentId);
  if (!doc) throw notFound('This document');
  const sealed = state.sealed?.find((s) => s.documentId === documentId);
  if (sealed) return { sha256: sealed.sha256, name: `${doc.name} (sealed).pdf` };
  const { base, fills, redlines } = partSoFar(state, party.id, doc);
  if (!fills.length && !redlines.length) return { sha256: base, name: `${doc.name}.pdf` };
  const task = {
    file: ctx.files.pathOf(base),
    fills,
    redlines,
    names: namesOf(state, documentId),
    pictures: picturesOf(ctx, fills),
  };
  const bytes = await ctx.work.run('copy', task, state.packetId);
  return { bytes, name: `${doc.name} (so far).pdf` };
}

/** A picture of a hand that this party may see: its own, or one that stands on a page it may read. */
export async function picture(ctx: Context, visit: Visit, sha256: string): Promise<string> {
  const { state, party } = await enterProved(ctx, visit);
  const readable = new Set(readableDocuments(state, party.id).map((d) => d.id));
  const seen = [
    ...(await ownPictures(ctx, state.packetId, party)),
    ...shownFills(state).flatMap((f) =>
      readable.has(f.documentId) && f.shows.form === 'picture' ? [f.shows.picture.sha256] : [],
    ),
  ];
  if (!seen.includes(sha256)) throw notFound('This picture');
  return sha256;
}

/** What is shown before the second step is passed: for whom it is, and nothing of what it is. */
async function waitingView(ctx: Context, { state, party, words }: Entry): Promise<SigningView> {
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
    keptHand: null,
    suggestedInitials: '',
    faces: [],
    documents: [],
    marks: [],
    fills: [],
    redlines: [],
    again: false,
    changes: [],
    questions: [],
    mayHandOver: false,
    somethingSigned: false,
    others: [],
    step: {
      kind,
      locked: state.parties[party.id]!.locked,
      sent: kind !== 'code' && (await isCodeSent(ctx.database.pool, state.packetId, party.id)),
    },
  };
}

/** What anybody with the link may know: whose it is, from which firm, and how it stands. */
async function headOf(ctx: Context, state: PacketState, me: PacketParty, words: Words) {
  const firm = await ctx.firm();
  return {
    packetId: state.packetId,
    seq: state.seq,
    firmName: firm?.name ?? '',
    timeZone: state.plan.timeZone,
    language: words.language,
    languages: LANGUAGES,
    me: { id: me.id, name: me.name, side: me.side, ordinal: me.ordinal, act: me.act, ink: me.ink },
    status: state.status,
    mine: state.parties[me.id]!.status,
    myTurn: isTurnOf(state, me.id) && me.act !== 'copy',
    agreementText: agreementOf(words),
  };
}

export async function view(ctx: Context, state: PacketState, partyId: string): Promise<SigningView> {
  const { plan } = state;
  const me = plan.parties.find((p) => p.id === partyId)!;
  const mine = state.parties[partyId]!;
  const mayRead = readableDocuments(state, partyId);
  const readable = new Set(mayRead.map((d) => d.id));
  const marks = marksOfParty(plan, partyId).filter(
    (m) => mine.status !== 'excused' && (isForClient(m) || isAutomatic(m.kind)),
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
    hostName: me.act === 'desk' ? mine.hostName : null,
    hand: mine.hand?.hand ?? null,
    keptHand: mine.hand ? null : await rememberedHand(ctx, me),
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
      done: !!state.fills[m.id],
      automatic: isAutomatic(m.kind),
    })),
    fills: shownFills(state).filter((f) => readable.has(f.documentId)),
    redlines: shownRedlines(state).filter((r) => readable.has(r.documentId)),
    again: mine.again,
    changes: changesFor(state, partyId),
    questions: state.questions
      .filter((x) => x.partyId === partyId)
      .map((x) => ({ id: x.id, text: x.text, at: x.at, answer: x.answer && { text: x.answer.text, at: x.answer.at } })),
    ...standingOf(state, me),
    others: plan.parties
      .filter((p) => p.id !== partyId && p.act !== 'copy' && state.parties[p.id]!.status !== 'excused')
      .map((p) => ({ name: firstName(p.name), ink: p.ink, done: state.parties[p.id]!.status === 'done' })),
  };
}

const facesByName = new LRUCache<string, Promise<ScriptFace[]>>({ max: 5_000 });

/** Script faces that can write the whole name; the first one, borrowing letters, when none can. Asked once a name, however many come at once. */
function facesFor(ctx: Context, name: string): Promise<ScriptFace[]> {
  const known = facesByName.get(name);
  if (known) return known;
  const asked = ctx.work
    .run('faces', { name }, name)
    .then((covering) => (covering.length ? covering : [SCRIPT_FACES[0]]));
  facesByName.set(name, asked);
  asked.catch(() => facesByName.delete(name));
  return asked;
}
