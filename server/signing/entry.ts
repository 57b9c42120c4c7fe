/** Entering: from a signing link to a packet and a party, and the second step if one is required. */
import { CODE_MINUTES } from '@gatepath/contract';
import type { PacketParty } from '@gatepath/core/packet';
import { type PacketState, isTurnOf, partyOf, readsAlong } from '@gatepath/core/routing';
import { calendarDay, say, type Words } from '@gatepath/core/words';
import type { Context } from '../context';
import { hashSecret, newSecret, sha256 } from '../ids';
import { accessFor, accessHash, hashFor } from '../links/access-codes';
import {
  type CodeVerdict,
  digitsOf,
  judgeCode,
  MAX_TRIES,
  newCode,
  sentJustNow,
  wrongTry,
} from '../links/one-time-code';
import { compose } from '../mail/messages';
import { postMessage } from '../mailroom/post';
import { loadState } from '../packets/log';
import { notFound, type Problem } from '../problem';
import { wordsOf } from '../words';
import * as q from '../links/queries';
import { clientProblem, type Entry, type Visit } from './visit';
import { progressOf } from '@gatepath/core/routing';

/**
 * How long the entry found before the body was read stays valid, in milliseconds. A request that takes longer is
 * checked again.
 */
const AT_THE_DOOR_MS = 500;

/** Returns the name of the cookie of a browser that gave the right code for a party. */
export function proofCookie(packetId: string, partyId: string): string {
  return `gatepath_proof_${sha256(`${packetId}:${partyId}`).slice(0, 16)}`;
}

/** Returns the signing link of a visit; looked up once per request. */
function linkOf(ctx: Context, visit: Visit): Promise<q.LinkRow | null> {
  visit.link ??= ctx.linkByHash(hashSecret(visit.token, ctx.config.sessionSecret));
  return visit.link;
}

/**
 * Refuses a visit that may not enter, not yet or no longer, before its body is read.
 *
 * @param beforeStep whether the second step may still be open
 * @throws Problem `step-wanted`, and those of `enter`
 */
export async function requireLink(ctx: Context, visit: Visit, beforeStep = false): Promise<void> {
  const entry = await findEntry(ctx, visit);
  visit.door = { entry, at: performance.now() };
  if (!beforeStep) requireStep(entry);
}

function requireStep({ proved, words }: Entry): void {
  if (!proved) throw clientProblem(words, 'step-wanted', 'problem.step_wanted');
}

const deadLink = (visit: Visit) => clientProblem(visit.words, 'dead-link', 'problem.dead_link');

/** Returns the words for a visit: in the party's language, or the browser's if there is no party. */
export async function wordsOfLink(ctx: Context, visit: Visit): Promise<Words> {
  const link = await linkOf(ctx, visit);
  const state = link && (await loadState(ctx.database.pool, link.packet_id)).state;
  const party = state && partyOf(state.plan, link.party_id);
  return party ? wordsOf(party.language) : visit.words;
}

/**
 * Returns the link, packet and party of a visit. A wrong or ended link reveals nothing about what it opened.
 *
 * @throws Problem `taken-out`, `not-your-turn`, `dead-link`, `withdrawn`, `lapsed`
 */
export async function enter(ctx: Context, visit: Visit): Promise<Entry> {
  const { door } = visit;
  // The entry found before the body was read is valid for one use, and for as long as a request usually takes.
  visit.door = undefined;
  if (door && performance.now() - door.at < AT_THE_DOOR_MS) return door.entry;
  return door ? enterAnew(ctx, visit) : findEntry(ctx, visit);
}

/**
 * Enters again after a long body was received, because the link may have been ended meanwhile.
 *
 * @throws Problem those of `enter`
 */
export function enterAnew(ctx: Context, visit: Visit): Promise<Entry> {
  visit.link = undefined;
  return findEntry(ctx, visit);
}

async function findEntry(ctx: Context, visit: Visit): Promise<Entry> {
  const link = await linkOf(ctx, visit);
  const dead = () => deadLink(visit);
  if (!link) throw dead();
  const { state } = await ctx.packets.look(link.packet_id);
  const party = state && partyOf(state.plan, link.party_id);
  if (!state || !party) throw dead();
  const words = wordsOf(party.language);
  // A person who was removed is told so, and nothing else about the packet.
  if (progressOf(state, party.id).status === 'dropped') throw clientProblem(words, 'taken-out', 'problem.taken_out');
  if (link.ended_at) throw endedProblem(state, words) ?? dead();
  const gone = state.status === 'withdrawn' ? endedProblem(state, words) : null;
  if (gone) throw gone;
  const s = progressOf(state, party.id);
  // Before the party was asked, or the packet is executed, there is nothing to see for it.
  if (!s.askedAt && state.status !== 'executed' && !readsAlong(state, party.id))
    throw clientProblem(words, 'not-your-turn', 'problem.not_yet');
  return { link, state, party, words, proved: await isProved(ctx, visit, link, party) };
}

/** Returns why a link that once worked no longer does, if that may be said. */
function endedProblem(state: PacketState, words: Words): Problem | null {
  if (state.status === 'withdrawn') return clientProblem(words, 'withdrawn', 'problem.withdrawn');
  if (state.status !== 'lapsed') return null;
  const day = calendarDay(words, state.plan.schedule!.lastDay!);
  return clientProblem(words, 'lapsed', 'problem.lapsed', { day });
}

async function isProved(ctx: Context, visit: Visit, link: q.LinkRow, party: PacketParty): Promise<boolean> {
  // The firm itself admitted this person, in person.
  if (!party.secondStep || link.host_id) return true;
  const proof = visit.cookies[proofCookie(link.packet_id, party.id)];
  return !!proof && q.proofExists(ctx.database.pool, hashFor(ctx, 'proof', proof), link.packet_id, party.id);
}

/**
 * Enters for everything that shows or changes documents: the second step must have been passed.
 *
 * @throws Problem `step-wanted`, and those of `enter`
 */
export async function enterProved(ctx: Context, visit: Visit): Promise<Entry> {
  const entry = await enter(ctx, visit);
  requireStep(entry);
  return entry;
}

/**
 * Sends a one-time code of six digits to the party's email or phone.
 *
 * @throws Problem `code-soon` within a minute of the last one, `locked`, `not-found` when no code is asked of the party, and
 * those of `enter`
 */
export async function sendCode(ctx: Context, visit: Visit): Promise<void> {
  const { state, party, words } = await enter(ctx, visit);
  if (party.secondStep !== 'email' && party.secondStep !== 'phone') throw notFound('This code');
  const byPhone = party.secondStep === 'phone';
  const firm = (await ctx.firm())!;
  await ctx.packets.alone(state.packetId, async ({ tx, row }) => {
    const now = ctx.clock.now();
    const step = await q.stepOf(tx.db, row.id, party.id);
    if (progressOf(state, party.id).locked) throw clientProblem(words, 'locked', 'refusal.locked');
    if (sentJustNow(step, now)) throw clientProblem(words, 'code-soon', 'problem.code_soon');
    const code = newCode();
    await q.saveCode(tx.db, row.id, party.id, hashFor(ctx, codeFor(row.id, party.id), code), now);
    const parts = {
      firmName: firm.name,
      senderName: '',
      packetName: state.plan.packetName,
      dealName: state.plan.dealName,
      toName: party.name,
      code,
      minutes: CODE_MINUTES,
    };
    await postMessage(ctx, tx, {
      row,
      kind: 'code',
      partyId: party.id,
      to: { name: party.name, email: party.email, phone: party.phone },
      message: compose('code', words, parts),
      link: null,
      ...(byPhone ? { byPhone: { text: say(words, 'text.code', parts) } } : {}),
    });
  });
}

/** Returns what the hash of a party's one-time code is for. */
const codeFor = (packetId: string, partyId: string) => `code:${packetId}:${partyId}`;

/** Returns the verdict on a code told in person, or on a one-time code. */
function judge(
  ctx: Context,
  o: {
    kind: NonNullable<PacketParty['secondStep']>;
    step: q.StepRow | null;
    given: string;
    packetId: string;
    partyId: string;
  },
): CodeVerdict {
  const { step, packetId, partyId } = o;
  if (o.kind !== 'code')
    return judgeCode(step, hashFor(ctx, codeFor(packetId, partyId), digitsOf(o.given)), ctx.clock.now());
  const hash = accessHash(ctx, step?.access_for ?? accessFor(packetId, partyId), o.given);
  return step?.access_hash === hash ? { is: 'right', repeated: false } : wrongTry(step);
}

/**
 * Accepts a code. The right one gives this browser a proof, whose secret is returned for a cookie. A wrong one is
 * counted; after a few the party is locked out until the sender unlocks it.
 *
 * @throws Problem `wrong-code`, `locked`, `not-found` when no second step is asked of the party, and those of `enter`
 */
export async function giveCode(ctx: Context, visit: Visit, given: string): Promise<{ name: string; secret: string }> {
  const { state, party, words } = await enter(ctx, visit);
  const kind = party.secondStep;
  if (!kind) throw notFound('This step');
  const problem = (key: 'problem.code_wrong' | 'problem.code_old', left: number) =>
    clientProblem(words, 'wrong-code', key, { left });
  const answer = await ctx.packets.alone(
    state.packetId,
    async ({ tx, row, state: before, run }): Promise<Problem | string> => {
      if (!before) throw notFound('This packet');
      if (progressOf(before, party.id).locked) return clientProblem(words, 'locked', 'refusal.locked');
      const step = await q.stepOf(tx.db, row.id, party.id);
      const verdict = judge(ctx, { kind, step, given, packetId: row.id, partyId: party.id });
      if (verdict.is === 'old') return problem('problem.code_old', 0);
      if (verdict.is === 'right') {
        await q.clearTries(tx.db, row.id, party.id);
        if (isTurnOf(before, party.id))
          await run(
            { type: 'prove', partyId: party.id, step: kind },
            { actor: { kind: 'party', id: party.id }, origin: visit.origin },
          );
        const secret = newSecret();
        await q.insertProof(tx.db, {
          token_hash: hashFor(ctx, 'proof', secret),
          packet_id: row.id,
          party_id: party.id,
          at: ctx.clock.now(),
        });
        return secret;
      }
      await q.saveTries(tx.db, row.id, party.id, verdict.tries);
      if (!verdict.locked) return problem('problem.code_wrong', MAX_TRIES - verdict.tries);
      await run({ type: 'lock', partyId: party.id }, { actor: { kind: 'system' }, origin: null });
      return clientProblem(words, 'locked', 'refusal.locked');
    },
  );
  // Thrown only here: the count of wrong tries must outlive the transaction.
  if (typeof answer !== 'string') throw answer;
  return { name: proofCookie(state.packetId, party.id), secret: answer };
}

/**
 * Returns the packet and the link of a visit: a live view follows the packet as long as the link works.
 *
 * @throws Problem those of `enter`
 */
export async function packetOfVisit(ctx: Context, visit: Visit): Promise<{ packetId: string; linkId: string }> {
  const { state, link } = await enter(ctx, visit);
  return { packetId: state.packetId, linkId: link.id };
}
