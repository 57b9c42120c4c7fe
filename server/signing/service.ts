/** What a party does through its own signing link. */
import { LRUCache } from 'lru-cache';
import { dayOf } from '@gatepath/core/calendar';
import { validateValue, showDay, holdsGate, receives } from '@gatepath/core/packet';
import { type PartyCommand, isTurnOf, shownFills } from '@gatepath/core/routing';
import { say, type Words } from '@gatepath/core/words';
import type { ActAnswer, FillBody, HandBody, SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { bringIn } from '../documents/bring-in';
import { pageImage } from '../documents/service';
import type { Upload } from '../http/upload';
import { loadState } from '../packets/log';
import type { Done } from '../packets/packets';
import { notFound, Problem } from '../problem';
import { soFar } from '../sealed-copies/so-far';
import { agreementOf } from './agreement';
import { enter, enterAnew, enterProved } from './entry';
import { ownPictures, rememberHand, requirePictures } from './hands';
import { touchLink } from '../links/queries';
import { clientProblem, type Visit, type Entry } from './visit';
import { patchOf, readableDocuments, view, waitingView } from './views';
import { progressOf } from '@gatepath/core/routing';

/**
 * Opens a packet through a link. The first time is recorded as an event.
 *
 * @returns what this party sees; before a required second step, only for whom it is
 * @throws Problem `dead-link`, `withdrawn`, `lapsed`, `not-your-turn`
 */
export async function openLink(ctx: Context, visit: Visit): Promise<SigningView> {
  const entry = await enter(ctx, visit);
  await seen(ctx, entry.link.id);
  if (!entry.proved) return waitingView(ctx, entry);
  const { state, party } = entry;
  const s = progressOf(state, party.id);
  const opens =
    !s.openedAt &&
    !!s.askedAt &&
    (receives(party)
      ? state.status === 'at_gate' || state.status === 'executed'
      : state.status === 'at_gate' && (isTurnOf(state, party.id) || !holdsGate(party)));
  return view(ctx, opens ? (await actAs(ctx, visit, entry, { type: 'open' })).state : state, party.id);
}

/** How often a link's last use is recorded, in milliseconds: recording every view would make each one a write. */
const SEEN_EVERY_MS = 60_000;
const lastSeenOf = perContext(() => new LRUCache<string, number>({ max: 20_000 }));

/** Records that a link was used just now. */
async function seen(ctx: Context, linkId: string): Promise<void> {
  const now = ctx.clock.now();
  const lastSeen = lastSeenOf(ctx);
  if (now.getTime() - (lastSeen.get(linkId) ?? -Infinity) < SEEN_EVERY_MS) return;
  lastSeen.set(linkId, now.getTime());
  await touchLink(ctx.database.pool, linkId, now);
}

/** A party's command without the party, which comes from the link and from nowhere else. */
export type OwnCommand = PartyCommand extends infer C ? (C extends PartyCommand ? Omit<C, 'partyId'> : never) : never;

/** Runs a command of the link's own party. A repeated act (same `actId`) changes nothing. */
export async function actAs(
  ctx: Context,
  visit: Visit,
  { link, party, words }: Entry,
  cmd: OwnCommand,
  sameAs?: string,
): Promise<Done> {
  const own = 'actId' in cmd ? cmd.actId : sameAs;
  try {
    return await ctx.packets.run(link.packet_id, { ...cmd, partyId: party.id } as PartyCommand, {
      actor: { kind: 'party', id: party.id },
      origin: visit.origin,
      ...(own ? { actId: `${link.party_id}:${own}` } : {}),
    });
  } catch (error) {
    throw await inWords(ctx, error, words, cmd, link.packet_id);
  }
}

/** Returns a refusal of the core in the client's language. */
async function inWords(
  ctx: Context,
  error: unknown,
  words: Words,
  cmd: OwnCommand,
  packetId: string,
): Promise<unknown> {
  if (!(error instanceof Problem) || !error.more.refusal) return error;
  const { code, params } = error.more.refusal;
  let sentence = say(words, `refusal.${code}`, params);
  if (code === 'bad_value' && cmd.type === 'fill') {
    const { state } = await loadState(ctx.database.pool, packetId);
    const mark = state?.plan.marks.find((m) => m.id === cmd.markId);
    const checked = mark && validateValue(mark, cmd.text ?? '', words);
    if (checked && !checked.ok) sentence = checked.sentence;
  }
  return error.saying(sentence);
}

/** Runs a command and returns the view after it. `entry` if the caller has it already. */
export async function actAndView(
  ctx: Context,
  visit: Visit,
  cmd: OwnCommand,
  more: { sameAs?: string; entry?: Entry } = {},
): Promise<SigningView> {
  const entry = more.entry ?? (await enterProved(ctx, visit));
  return view(ctx, (await actAs(ctx, visit, entry, cmd, more.sameAs)).state, entry.party.id);
}

/**
 * Records agreement to sign electronically.
 *
 * @throws Problem `agreement-changed` if another text is in force by now, or a refusal of the core
 */
export async function agree(
  ctx: Context,
  visit: Visit,
  { agreement, actId }: { agreement: string; actId?: string },
): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { words } = entry;
  if (agreement !== agreementOf(words).version)
    throw clientProblem(words, 'agreement-changed', 'problem.agreement_changed');
  return actAndView(ctx, visit, { type: 'agree', agreement }, { sameAs: actId, entry });
}

/**
 * Sets a hand: typed, drawn, or from a photo.
 *
 * @throws Problem if its typeface lacks letters or its picture is missing, or a refusal of the core
 * @throws Problem `letters`
 */
export async function setHand(ctx: Context, visit: Visit, body: HandBody): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { words, party, link } = entry;
  const { keep, actId, ...hand } = body;
  if (hand.form === 'typed') {
    const missing = await ctx.work.run('missing', { text: hand.signature + hand.initials, face: hand.face });
    if (missing.length) throw clientProblem(words, 'letters', 'problem.letters', { letters: missing.join(' ') });
  }
  await requirePictures(ctx, link.packet_id, party, hand);
  const done = await actAndView(ctx, visit, { type: 'set_hand', hand }, { sameAs: actId, entry });
  if (keep !== undefined) await rememberHand(ctx, party, hand, keep);
  return done;
}

/** Fills a mark. A client that says what it sees gets the changes only, otherwise the whole view. */
export async function fill(ctx: Context, visit: Visit, markId: string, body: FillBody): Promise<ActAnswer> {
  const { actId, text, since } = body;
  const entry = await enterProved(ctx, visit);
  const cmd = { type: 'fill' as const, markId, actId, ...(text === undefined ? {} : { text }) };
  const done = await actAs(ctx, visit, entry, cmd);
  const patch = since === undefined ? null : patchOf(done, entry.party.id, since);
  return patch ? { patch } : view(ctx, done.state, entry.party.id);
}

/**
 * Adds the file a mark asks for: converted to PDF like any document, stored with the packet.
 *
 * @throws Problem `not-found`, `no-paper`
 */
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
    throw clientProblem(words, 'no-paper', key, { name: upload.name });
  }
  const file = { sha256: made.sha256, name: upload.name, bytes: made.original.bytes, pages: made.pages };
  // A file takes long to arrive.
  const now = await enterAnew(ctx, visit);
  return actAndView(ctx, visit, { type: 'fill', markId, file, actId: upload.actId }, { entry: now });
}

/**
 * Finishes for this party: its acts become a revision of the documents.
 *
 * @param actId made by the client; repeated, it changes nothing
 * @throws Problem for a refusal of the core: something is left to do
 */
export async function finish(ctx: Context, visit: Visit, actId: string): Promise<SigningView> {
  const entry = await enterProved(ctx, visit);
  const { state } = entry;
  // Dates of signing are part of the document: one form for everybody, in the deal's zone.
  const dateText = showDay(dayOf(ctx.clock.now().toISOString(), state.plan.timeZone));
  return actAndView(ctx, visit, { type: 'finish', actId, dateText }, { entry });
}

/**
 * Declines for this party, which ends the packet for everyone.
 *
 * @throws Problem for a refusal of the core: no reason is given
 */
export function decline(ctx: Context, visit: Visit, reason: string): Promise<SigningView> {
  return actAndView(ctx, visit, { type: 'decline', reason });
}

/**
 * Returns the image of a page that this party may see.
 *
 * @throws Problem `not-found`
 */
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
 * Returns a document's file: the sealed copy once there is one; before that, the latest sealed revision with this
 * party's unsealed marks drawn onto a copy.
 *
 * @throws Problem `not-found`
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
  const now = await soFar(ctx, state, party.id, doc);
  return { ...now, name: 'bytes' in now ? `${doc.name} (so far).pdf` : `${doc.name}.pdf` };
}

/**
 * Returns a picture of a hand that this party may see: its own, or one on a page it may read.
 *
 * @throws Problem `not-found`
 */
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
