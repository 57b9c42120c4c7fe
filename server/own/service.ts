/**
 * A person's own page: everything the firm sent to this name at this address, in one place. It opens with a one-time code
 * to the address; two people with one mailbox have a page each, and neither sees the other's.
 */
import type { FastifyRequest } from 'fastify';
import { CODE_MINUTES, type OwnPage } from '@gatepath/contract';
import { dayOf } from '@gatepath/core/calendar';
import { byLink, holdsGate, receives, type PacketParty } from '@gatepath/core/packet';
import { whoOf } from '@gatepath/core/text';
import { documentsOf, isTurnOf, marksLeft, partyOf, progressOf, type PacketState } from '@gatepath/core/routing';
import { firstName } from '@gatepath/core/text';
import { say, type Words } from '@gatepath/core/words';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { hashSecret, newId, newSecret, sha256 } from '../ids';
import { layOut, type Composed } from '../mail/messages';
import { postToPerson } from '../mailroom/post';
import { notFound } from '../problem';
import { enterProved } from '../signing/entry';
import { makeLinkSecret } from '../links/links';
import { CODE_AGAIN_MS, digitsOf, judgeCode, MAX_TRIES, newCode, sentJustNow } from '../links/one-time-code';
import { endOlderOwn } from '../links/queries';
import { clientProblem, type Visit } from '../signing/visit';
import { readableDocuments } from '../signing/views';
import { LANGUAGES, wordsFor, wordsOf } from '../words';
import * as q from './queries';

/** How long nobody gets in after too many wrong codes, in milliseconds. */
const LOCKED_MS = 30 * 60_000;
/** Maximum number of links into one packet, opened from an own page, that keep working: a person has a few windows. */
const MOST_OWN = 5;
/** How long a browser that entered the code stays admitted, in seconds. */
export const PROOF_SECONDS = 12 * 3_600;
/** Maximum number of a person's page addresses that work: whoever asks again has lost the last one. */
const PAGES_KEPT = 5;
/** Number of packets listed at a time. */
const A_PAGE = 40;

const hash = (ctx: Context, what: string, secret: string) =>
  hashSecret(`own ${what}:${secret}`, ctx.config.sessionSecret);

/** Returns where a code is sent, in a form that only the owner of the address recognizes: "w…@example.com", "…42". */
function hinted({ email, phone }: Pick<q.OwnPageRow, 'email' | 'phone'>): string {
  if (!email) return `…${(phone ?? '').slice(-2)}`;
  const at = email.lastIndexOf('@');
  return `${email.slice(0, 1)}…${email.slice(at)}`;
}

/**
 * Sends somebody the address of their own page. It goes to where their links go, and nowhere else.
 *
 * @throws Problem `not-found`, `code-soon` when one was sent just now
 */
export async function askForPage(ctx: Context, visit: Visit): Promise<{ to: string }> {
  const { party, words, link } = await enterProved(ctx, visit);
  const { called, mailbox } = whoOf(party);
  // A person who signs at the desk, or is a member, has no address for links.
  if (!mailbox || link.host_id || !byLink(party)) throw notFound('An own page');
  const firm = await ctx.firm();
  const now = ctx.clock.now();
  const secret = newSecret();
  await inTransaction(ctx.database.pool, async (tx) => {
    const last = await q.lastMade(tx.db, mailbox, called);
    if (last && now.getTime() - last.getTime() < CODE_AGAIN_MS)
      throw clientProblem(words, 'code-soon', 'problem.code_soon');
    await q.insertPage(tx.db, {
      id: newId(),
      called,
      mailbox,
      name: party.name,
      email: party.email,
      phone: party.phone,
      language: words.language,
      tokenHash: hash(ctx, 'page', secret),
      at: now,
      keep: PAGES_KEPT,
    });
    const parts = { firmName: firm?.name ?? '', toName: party.name };
    const link = `${ctx.config.publicUrl}/mine/${secret}`;
    await postToPerson(ctx, tx, {
      kind: 'own_page',
      to: party,
      message: messageOf(words, 'own_page', parts, link),
      text: say(words, 'text.own_page', { ...parts, link }),
      link,
    });
  });
  return { to: hinted(party) };
}

/** Kinds of messages about own pages. */
export const OWN_MESSAGES = ['own_page', 'own_code'] as const;

function messageOf(
  words: Words,
  kind: (typeof OWN_MESSAGES)[number],
  parts: Record<string, string | number>,
  link: string | null,
): Composed {
  const tell = (key: Parameters<typeof say>[1]) => say(words, key, parts);
  return layOut({
    language: words.language,
    subject: tell(`mail.${kind}.subject`),
    paragraphs: [tell('mail.hello'), tell(`mail.${kind}.lead`), tell(`mail.${kind}.careful`)],
    link: link ? { label: tell('mail.own_page.button'), href: link } : null,
    fails: tell('mail.button_fails'),
    firm: String(parts['firmName']),
  });
}

/** A request to an own page: its address, and what the browser sent. */
export interface OwnVisit {
  token: string;
  cookies: Record<string, string | undefined>;
  /** The browser's language, used while the person is not known. */
  words: Words;
}

/** Returns the visit of a request to an own page. */
export const ownVisitOf = (request: FastifyRequest, token: string): OwnVisit => ({
  token,
  cookies: request.cookies,
  words: wordsFor(request.headers['accept-language']),
});

/** Returns the name of the cookie of a browser that entered the code of a page. */
const cookieOf = (pageId: string) => `gatepath_own_${sha256(pageId).slice(0, 16)}`;

async function pageOf(ctx: Context, visit: OwnVisit): Promise<{ page: q.OwnPageRow; words: Words; proved: boolean }> {
  const db = ctx.database.pool;
  const page = await q.pageByHash(db, hash(ctx, 'page', visit.token));
  if (!page) throw clientProblem(visit.words, 'dead-link', 'problem.dead_own_page');
  const proof = visit.cookies[cookieOf(page.id)];
  const proved = !!proof && (await q.proofHolds(db, hash(ctx, 'proof', proof), page.id, ctx.clock.now()));
  return { page, words: wordsOf(page.language), proved };
}

async function provedPage(ctx: Context, visit: OwnVisit): Promise<{ page: q.OwnPageRow; words: Words }> {
  const { page, words, proved } = await pageOf(ctx, visit);
  if (!proved) throw clientProblem(words, 'step-wanted', 'problem.step_wanted');
  return { page, words };
}

/** Sends the code that opens a page. @throws Problem `dead-link`, `code-soon`, `locked` */
export async function sendOwnCode(ctx: Context, visit: OwnVisit): Promise<OwnPage> {
  const { page, words } = await pageOf(ctx, visit);
  const firm = await ctx.firm();
  await inTransaction(ctx.database.pool, async (tx) => {
    const now = ctx.clock.now();
    const row = await q.lockPage(tx.db, page.id);
    if (!row) throw clientProblem(words, 'dead-link', 'problem.dead_own_page');
    if (row.locked_until && row.locked_until > now) throw clientProblem(words, 'locked', 'problem.own_locked');
    if (sentJustNow(row, now)) throw clientProblem(words, 'code-soon', 'problem.code_soon');
    const code = newCode();
    await q.saveCode(tx.db, page.id, hash(ctx, 'code', `${page.id}:${code}`), now);
    const parts = { firmName: firm?.name ?? '', toName: page.name, code, minutes: CODE_MINUTES };
    await postToPerson(ctx, tx, {
      kind: 'own_code',
      to: page,
      message: messageOf(words, 'own_code', parts, null),
      text: say(words, 'text.own_code', parts),
      link: null,
    });
  });
  return viewOf(ctx, { page: { ...page, code_hash: 'sent' }, words, proved: false });
}

/**
 * Accepts a code. The right one admits this browser for some hours; after a few wrong ones the person's pages are
 * locked for a while.
 *
 * @throws Problem `dead-link`, `wrong-code`, `locked`
 */
export async function giveOwnCode(
  ctx: Context,
  visit: OwnVisit,
  given: string,
): Promise<{ name: string; secret: string; view: OwnPage }> {
  const { page, words } = await pageOf(ctx, visit);
  const secret = newSecret();
  const wrong = await inTransaction(ctx.database.pool, async (tx) => {
    const now = ctx.clock.now();
    const row = await q.lockPage(tx.db, page.id);
    if (!row) return clientProblem(words, 'dead-link', 'problem.dead_own_page');
    if (row.locked_until && row.locked_until > now) return clientProblem(words, 'locked', 'problem.own_locked');
    const code = hash(ctx, 'code', `${page.id}:${digitsOf(given)}`);
    const verdict = judgeCode(row, code, now);
    if (verdict.is === 'old') return clientProblem(words, 'wrong-code', 'problem.code_old', { left: 0 });
    if (verdict.is === 'right') {
      if (!verdict.repeated) {
        await q.saveCode(tx.db, page.id, null, now);
        await q.noteUsed(tx.db, page.id, code, now);
      }
      await q.saveTries(tx.db, row, 0, null);
      const expires = new Date(now.getTime() + PROOF_SECONDS * 1_000);
      await q.insertProof(tx.db, { tokenHash: hash(ctx, 'proof', secret), pageId: page.id, at: now, expires });
      return null;
    }
    const { tries, locked } = verdict;
    await q.saveTries(tx.db, row, locked ? 0 : tries, locked ? new Date(now.getTime() + LOCKED_MS) : null);
    if (!locked) return clientProblem(words, 'wrong-code', 'problem.code_wrong', { left: MAX_TRIES - tries });
    await q.saveCode(tx.db, page.id, null, now);
    return clientProblem(words, 'locked', 'problem.own_locked');
  });
  // Thrown only here: the count of wrong tries must outlive the transaction.
  if (wrong) throw wrong;
  return { name: cookieOf(page.id), secret, view: await viewOf(ctx, { page, words, proved: true }) };
}

/**
 * Returns the page. Before the code is entered it contains only the firm's name and where the code is sent.
 *
 * @throws Problem `dead-link`
 */
export async function ownPage(ctx: Context, visit: OwnVisit, after?: string): Promise<OwnPage> {
  return viewOf(ctx, await pageOf(ctx, visit), after);
}

/**
 * Changes the language of an own page. @throws Problem `not-found`, `dead-link`
 */
export async function setOwnLanguage(ctx: Context, visit: OwnVisit, language: string): Promise<OwnPage> {
  const { page } = await pageOf(ctx, visit);
  if (!LANGUAGES.some((l) => l.tag === language)) throw notFound('This language');
  await q.saveLanguage(ctx.database.pool, page.id, language);
  return ownPage(ctx, visit);
}

async function viewOf(
  ctx: Context,
  { page, words, proved }: { page: q.OwnPageRow; words: Words; proved: boolean },
  after?: string,
): Promise<OwnPage> {
  const firm = await ctx.firm();
  const head = {
    firmName: firm?.name ?? '',
    firstName: firstName(page.name),
    language: words.language,
    languages: LANGUAGES,
    code: { to: hinted(page), sent: page.code_hash !== null },
  };
  if (!proved) return { ...head, proved, name: '', packets: [], next: null };
  const { mailbox, called } = page;
  const rows = await q.packetsOf(ctx.database.pool, { mailbox, called, after: after ?? null, limit: A_PAGE + 1 });
  const packets: OwnPage['packets'] = [];
  for (const row of rows.slice(0, A_PAGE)) {
    const { state } = await ctx.packets.look(row.packet_id);
    const party = state && partyOf(state.plan, row.party_id);
    // The log is the truth: somebody else may have taken their place since.
    if (state && party && isWho(party, page)) packets.push(packetOf(state, party));
  }
  return {
    ...head,
    proved,
    name: page.name,
    packets,
    next: rows.length > A_PAGE ? (rows[A_PAGE - 1]?.packet_id ?? null) : null,
  };
}

const isWho = (p: PacketParty, page: Pick<q.OwnPageRow, 'mailbox' | 'called'>) => {
  const { called, mailbox } = whoOf(p);
  return mailbox === page.mailbox && called === page.called;
};

/** Returns one packet as its person sees it. */
function packetOf(state: PacketState, me: PacketParty): OwnPage['packets'][number] {
  const { plan } = state;
  const s = progressOf(state, me.id);
  const turn = isTurnOf(state, me.id) && holdsGate(me) && byLink(me) && !s.locked;
  // Before a second step nobody learns from here what a packet contains.
  const shut = !!me.secondStep;
  const status = receives(me)
    ? 'delivered'
    : turn
      ? 'to_do'
      : state.status === 'executed'
        ? 'executed'
        : s.status === 'done'
          ? 'waiting'
          : ('to_read' as const);
  return {
    id: state.packetId,
    partyId: me.id,
    name: shut ? '' : plan.packetName,
    dealName: plan.dealName,
    status,
    act: me.act,
    left: turn ? marksLeft(state, me.id).length : 0,
    opened: s.openedAt !== null,
    lastDay: turn ? (plan.schedule?.lastDay ?? null) : null,
    on: dayOf(state.endedAt ?? s.askedAt ?? state.sentAt, plan.timeZone),
    documents: shut
      ? []
      : readableDocuments(state, me.id).map((d) => ({
          id: d.id,
          name: d.name,
          pages: d.pages.length,
          sealed: state.sealed?.some((x) => x.documentId === d.id) ?? false,
        })),
  };
}

/** Returns the packet and the person's party in it. @throws Problem `not-found` if it is not theirs */
async function ownPacket(
  ctx: Context,
  visit: OwnVisit,
  packetId: string,
): Promise<{ state: PacketState; party: PacketParty; words: Words }> {
  const { page, words } = await provedPage(ctx, visit);
  const ids = await q.partiesIn(ctx.database.pool, packetId, page.mailbox, page.called);
  const { state } = ids.length ? await ctx.packets.look(packetId) : { state: null };
  const open = state?.status === 'at_gate' || state?.status === 'executed';
  if (!state || !open) throw notFound('This packet');
  const own = ids.flatMap((id) => partyOf(state.plan, id) ?? []).filter((p) => isWho(p, page));
  // A person who is in it twice enters where it is their turn.
  const party = own.find((p) => isTurnOf(state, p.id)) ?? own[0];
  if (!party) throw notFound('This packet');
  if (!progressOf(state, party.id).askedAt && state.status !== 'executed') throw notFound('This packet');
  return { state, party, words };
}

/**
 * Makes a new link into one of the person's packets. @returns its secret
 * @throws Problem `not-found`, `step-wanted`, `dead-link`
 */
export async function openOwn(ctx: Context, visit: OwnVisit, packetId: string): Promise<{ token: string }> {
  const { state, party } = await ownPacket(ctx, visit, packetId);
  const token = await inTransaction(ctx.database.pool, async (tx) => {
    const made = await makeLinkSecret(ctx, tx, state.packetId, party.id, null, true);
    await endOlderOwn(tx.db, state.packetId, party.id, MOST_OWN, ctx.clock.now());
    return made;
  });
  return { token };
}

/**
 * Returns a document of theirs: the sealed copy if there is one, otherwise the document as it was sent. @throws
 * Problem `not-found`
 * @throws Problem `step-wanted`, `dead-link`
 */
export async function ownFile(
  ctx: Context,
  visit: OwnVisit,
  packetId: string,
  documentId: string,
  as: 'original' | 'sealed',
): Promise<{ sha256: string; name: string }> {
  const { state, party } = await ownPacket(ctx, visit, packetId);
  if (party.secondStep) throw notFound('This document');
  const doc = readableDocuments(state, party.id).find((d) => d.id === documentId);
  if (!doc) throw notFound('This document');
  if (as === 'sealed') {
    const sealed = state.sealed?.find((x) => x.documentId === documentId);
    if (!sealed) throw notFound('The sealed copy');
    return { sha256: sealed.sha256, name: `${doc.name} (sealed).pdf` };
  }
  const sent = documentsOf(state).find((d) => d.id === documentId);
  if (!sent) throw notFound('This document');
  return { sha256: sent.sha256, name: `${doc.name}.pdf` };
}
