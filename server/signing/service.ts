/** The ceremony: what a party sees and does through its own pass. */
import type { Readable } from 'node:stream';
import { DateTime } from 'luxon';
import { hasDocument, isAutomatic, isForClient } from '@gatepath/core/marks';
import {
  inReadingOrder,
  isTurnOf,
  SCRIPT_FACES,
  documentsOf,
  shownFills,
  shownRedlines,
  type Hand,
  type Origin,
  type PacketCommand,
  type PacketState,
  type PlanDocument,
  type ScriptFace,
} from '@gatepath/core/routing';
import { firstName, initialsOf } from '@gatepath/core/text';
import type { SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { fileInUse } from '../documents/queries';
import { paperProblem, preparedPaper } from '../documents/bring-in';
import { pageImage } from '../documents/service';
import { findFirm } from '../firm/queries';
import { hashSecret } from '../ids';
import { loadState } from '../packets/log';
import { actExists, lockPacket } from '../packets/queries';
import { command } from '../packets/service';
import { conflict, notFound, Problem, unusable } from '../problem';
import { AGREEMENT } from './agreement';
import { passByHash, type PassRow } from './queries';

/** The pass behind a token. A wrong or ended token tells nothing about what it might have opened. */
async function passOf(ctx: Context, token: string): Promise<PassRow> {
  const pass = await passByHash(ctx.database.pool, hashSecret(token, ctx.config.sessionSecret));
  if (!pass || pass.ended_at)
    throw new Problem(
      404,
      'dead-link',
      'This signing link does not work',
      'This signing link does not work, or no longer does. Please open the newest message you got, or ask the sender for a new link.',
    );
  return pass;
}

async function stateFor(ctx: Context, pass: PassRow): Promise<PacketState> {
  const { state } = await loadState(ctx.database.pool, pass.packet_id);
  const party = state?.parties[pass.party_id];
  if (!state || !party) throw notFound('This packet');
  // Before the party was asked, or the packet is executed, there is nothing to see for it.
  if (!party.askedAt && state.status !== 'executed') throw notYet();
  if (state.status === 'withdrawn')
    throw new Problem(
      410,
      'withdrawn',
      'Withdrawn',
      'The sender has withdrawn these documents. You do not have to do anything.',
    );
  return state;
}

function notYet(): Problem {
  return new Problem(
    403,
    'not-your-turn',
    'Not your turn yet',
    'It is not your turn yet. We will write to you when it is.',
  );
}

export async function openPass(ctx: Context, token: string, origin: Origin): Promise<SigningView> {
  const pass = await passOf(ctx, token);
  let state = await stateFor(ctx, pass);
  if (state.status === 'at_gate' && !state.parties[pass.party_id]!.openedAt && isTurnOf(state, pass.party_id)) {
    state = await act(ctx, token, { type: 'open', partyId: pass.party_id }, origin);
  }
  return view(ctx, state, pass.party_id);
}

export async function packetOfToken(ctx: Context, token: string): Promise<string> {
  return (await passOf(ctx, token)).packet_id;
}

type PartyCommand = Extract<PacketCommand, { partyId: string }>;

/** Runs a command of the pass's own party. Repeats of an act (same `actId`) change nothing. */
async function act(ctx: Context, token: string, cmd: PartyCommand, origin: Origin): Promise<PacketState> {
  const pass = await passOf(ctx, token);
  return inTransaction(ctx.database.pool, async (tx) => {
    const row = await lockPacket(tx.db, pass.packet_id);
    if (!row) throw notFound('This packet');
    const before = await loadState(tx.db, row.id);
    const actId = 'actId' in cmd ? `${pass.party_id}:${cmd.actId}` : undefined;
    if (actId && (await actExists(tx.db, row.id, actId))) return before.state!;
    const done = await command(
      ctx,
      tx,
      row,
      before,
      { ...cmd, partyId: pass.party_id },
      {
        actor: { kind: 'party', id: pass.party_id },
        origin,
        actId,
      },
    );
    return done.state;
  });
}

async function actAndView(ctx: Context, token: string, cmd: PartyCommand, origin: Origin): Promise<SigningView> {
  const state = await act(ctx, token, cmd, origin);
  return view(ctx, state, (await passOf(ctx, token)).party_id);
}

export function agree(ctx: Context, token: string, agreement: string, origin: Origin): Promise<SigningView> {
  if (agreement !== AGREEMENT.version)
    throw conflict(
      'agreement-changed',
      'The agreement was updated meanwhile. Load the page again and read it once more.',
    );
  return actAndView(ctx, token, { type: 'agree', partyId: '', agreement }, origin);
}

export async function setHand(ctx: Context, token: string, hand: Hand, origin: Origin): Promise<SigningView> {
  if (hand.form === 'typed') {
    const missing = await ctx.pdf.run('missing', { text: hand.signature + hand.initials, face: hand.face });
    if (missing.length)
      throw unusable('letters', `We have no letters for “${missing.join(' ')}”. Please draw your signature instead.`);
  }
  return actAndView(ctx, token, { type: 'set_hand', partyId: '', hand }, origin);
}

export function fill(
  ctx: Context,
  token: string,
  markId: string,
  body: { actId: string; text?: string },
  origin: Origin,
): Promise<SigningView> {
  return actAndView(ctx, token, { type: 'fill', partyId: '', markId, ...body }, origin);
}

/** Takes the file that a mark asks for: made a PDF like any paper, kept with the packet. */
export async function addFile(
  ctx: Context,
  token: string,
  markId: string,
  upload: { name: string; actId: string; stream: Readable & { truncated?: boolean } },
  origin: Origin,
): Promise<SigningView> {
  const pass = await passOf(ctx, token);
  const state = await stateFor(ctx, pass);
  const mark = state.plan.marks.find((m) => m.id === markId && m.partyId === pass.party_id && m.kind === 'file');
  if (!mark) throw notFound('This place');
  const stored = await ctx.files.putStream(upload.stream);
  if (stored === 'truncated')
    throw unusable('too-large', `“${upload.name}” is larger than 50 MB. Please add a smaller file.`);
  const made = stored.bytes ? await preparedPaper(ctx, stored.sha256, upload.name) : ('empty' as const);
  if (typeof made === 'string') {
    if (!(await fileInUse(ctx.database.pool, stored.sha256))) await ctx.files.remove(stored.sha256);
    throw unusable('no-paper', paperProblem(made, upload.name));
  }
  const file = { sha256: made.prepared.sha256, name: upload.name, bytes: stored.bytes, pages: made.prepared.pages };
  return actAndView(ctx, token, { type: 'fill', partyId: '', markId, file, actId: upload.actId }, origin);
}

export async function finish(ctx: Context, token: string, actId: string, origin: Origin): Promise<SigningView> {
  const pass = await passOf(ctx, token);
  const { state } = await loadState(ctx.database.pool, pass.packet_id);
  const zone = state?.plan.timeZone ?? 'utc';
  const dateText = DateTime.fromJSDate(ctx.clock.now()).setZone(zone).setLocale('en-US').toFormat('MMM d, yyyy');
  return actAndView(ctx, token, { type: 'finish', partyId: '', actId, dateText }, origin);
}

export function decline(ctx: Context, token: string, reason: string, origin: Origin): Promise<SigningView> {
  return actAndView(ctx, token, { type: 'decline', partyId: '', reason }, origin);
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
  token: string,
  documentId: string,
  number: number,
  dpi: number,
): Promise<Buffer> {
  const pass = await passOf(ctx, token);
  const state = await stateFor(ctx, pass);
  const doc = readableDocuments(state, pass.party_id).find((d) => d.id === documentId);
  if (!doc) throw notFound('This document');
  return pageImage(ctx, doc, number, dpi);
}

/** The document's file: the sealed copy once there is one, the blank document before. */
export async function file(ctx: Context, token: string, documentId: string): Promise<{ sha256: string; name: string }> {
  const pass = await passOf(ctx, token);
  const state = await stateFor(ctx, pass);
  const doc = readableDocuments(state, pass.party_id).find((d) => d.id === documentId);
  if (!doc) throw notFound('This document');
  const sealed = state.sealed?.find((s) => s.documentId === documentId);
  return sealed
    ? { sha256: sealed.sha256, name: `${doc.name} (sealed).pdf` }
    : { sha256: doc.sha256, name: `${doc.name}.pdf` };
}

async function view(ctx: Context, state: PacketState, partyId: string): Promise<SigningView> {
  const { plan } = state;
  const me = plan.parties.find((p) => p.id === partyId)!;
  const mine = state.parties[partyId]!;
  const firm = await findFirm(ctx.database.pool);
  const mayRead = readableDocuments(state, partyId);
  const readable = new Set(mayRead.map((d) => d.id));
  return {
    packetId: state.packetId,
    packetName: plan.packetName,
    dealName: plan.dealName,
    firmName: firm?.name ?? '',
    message: plan.message,
    timeZone: plan.timeZone,
    me: { id: me.id, name: me.name, side: me.side, ordinal: me.ordinal, act: me.act, ink: me.ink },
    status: state.status,
    mine: mine.status,
    myTurn: isTurnOf(state, partyId) && mine.status !== 'done',
    agreed: mine.agreedAt !== null,
    agreementText: AGREEMENT,
    hand: mine.hand?.hand ?? null,
    suggestedInitials: initialsOf(me.name),
    faces: await facesFor(ctx, me.name),
    documents: mayRead.map((d) => ({
      id: d.id,
      name: d.name,
      pages: d.pages,
      sealed: state.sealed?.some((s) => s.documentId === d.id) ?? false,
    })),
    marks: inReadingOrder(plan)
      .filter((m) => m.partyId === partyId && (isForClient(m) || isAutomatic(m.kind)))
      .map((m) => ({
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
        done: !!state.fills[m.id],
        automatic: isAutomatic(m.kind),
      })),
    fills: shownFills(state).filter((f) => readable.has(f.documentId)),
    redlines: shownRedlines(state).filter((r) => readable.has(r.documentId)),
    others: plan.parties
      .filter((p) => p.id !== partyId && p.act !== 'copy')
      .map((p) => ({ name: firstName(p.name), ink: p.ink, done: state.parties[p.id]!.status === 'done' })),
  };
}

const facesByName = new Map<string, ScriptFace[]>();

/** Script faces that can write the whole name; the first one, borrowing letters, when none can. */
async function facesFor(ctx: Context, name: string): Promise<ScriptFace[]> {
  const known = facesByName.get(name);
  if (known) return known;
  const missing = await Promise.all(
    SCRIPT_FACES.map((face) => ctx.pdf.run('missing', { text: name, face, alone: true })),
  );
  const covering = SCRIPT_FACES.filter((_, i) => missing[i]!.length === 0);
  const faces = covering.length ? covering : [SCRIPT_FACES[0]];
  if (facesByName.size > 1000) facesByName.clear();
  facesByName.set(name, faces);
  return faces;
}
