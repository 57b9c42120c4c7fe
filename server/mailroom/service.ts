import type { ListQuery, MessageSummary, MessageView, Page } from '@gatepath/contract';
import type { Context } from '../context';
import { anywhere } from '../db/like';
import { inTransaction, type Tx } from '../db/tx';
import { topics } from '../live/live';
import type { Texter } from '../mail/texter';
import { type Mailer, type OutgoingMail, toEml } from '../mail/mailer';
import { notFound, Problem } from '../problem';
import { PRIVATE_KINDS } from './private-messages';
import * as q from './queries';
import { lastOf } from '@gatepath/core/sure';
import { messageOf, numberOf } from '../errors';

/** A member who reads messages. */
interface Reader {
  role: 'owner' | 'member';
  email: string;
}

/**
 * Returns whether a member may read a message. Those that open an account are for their reader, and for owners, who
 * pass them on.
 */
const mayRead = (m: Pick<q.MessageRow, 'kind' | 'to_email'>, member: Reader) =>
  !PRIVATE_KINDS.includes(m.kind) || member.role === 'owner' || m.to_email.toLowerCase() === member.email.toLowerCase();

/** Returns a message as lists show it. Its link is included only for those who may use it. */
export function messageSummary(m: q.MessageListRow, member: Reader): MessageSummary {
  return {
    id: m.id,
    kind: m.kind,
    toName: m.to_name,
    toEmail: m.to_email,
    subject: m.subject,
    createdAt: m.created_at.toISOString(),
    status: m.status,
    problem: m.problem,
    packetId: m.packet_id,
    link: mayRead(m, member) ? m.link : null,
    channel: m.channel,
    toPhone: m.to_phone,
  };
}

/** Returns a page of messages of one packet or of all, newest first. */
export async function listMessages(
  ctx: Context,
  query: ListQuery & { packetId?: string },
  member: Reader,
): Promise<Page<MessageSummary>> {
  const rows = await q.listMessages(ctx.database.pool, {
    after: query.after ?? null,
    packetId: query.packetId ?? null,
    search: query.search ? anywhere(query.search) : null,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  return {
    items: shown.map((m) => messageSummary(m, member)),
    next: rows.length > query.limit ? lastOf(shown).id : null,
  };
}

/**
 * Returns a message with its text.
 *
 * @throws Problem `not-found`
 */
export async function messageView(ctx: Context, id: string, member: Reader): Promise<MessageView> {
  const m = await messageOr404(ctx, id, member);
  return { ...messageSummary(m, member), bodyText: m.body_text };
}

async function messageOr404(ctx: Context, id: string, member: Reader): Promise<q.MessageRow> {
  const m = await q.messageById(ctx.database.pool, id);
  if (!m || !mayRead(m, member)) throw notFound('This message');
  return m;
}

function outgoing(m: q.MessageRow): OutgoingMail {
  return {
    id: m.id,
    toName: m.to_name,
    toEmail: m.to_email,
    subject: m.subject,
    text: m.body_text,
    html: m.body_html,
    at: m.created_at,
  };
}

/**
 * Returns a message as a file that mail programs open (RFC 5322).
 *
 * @throws Problem `not-found`
 */
export async function messageEml(ctx: Context, id: string, member: Reader): Promise<Buffer> {
  return toEml(outgoing(await messageOr404(ctx, id, member)), ctx.config.mailFrom);
}

/** How long a mail server may take with a message, in seconds; after that the message counts as not accepted. */
const SENDING_SECONDS = 110;

/** Sends one message by email or as a text message. Calling it again for the same message does nothing. */
export async function deliver(ctx: Context, ways: { mailer: Mailer; texter: Texter }, id: string): Promise<void> {
  const db = ctx.database.pool;
  const m = await q.messageById(db, id);
  if (!m || ['sent', 'kept', 'returned'].includes(m.status)) return;
  // Two servers may be asked for the same message; one of them sends it.
  if (!(await q.claimMessage(db, id, SENDING_SECONDS))) return;
  const way = m.channel === 'text' ? ways.texter : ways.mailer;
  if (way.kind === 'mailroom') await q.setMessageInMailroom(db, id);
  else {
    try {
      if (m.channel === 'text') await ways.texter.send({ to: m.to_phone!, text: m.body_text });
      else await ways.mailer.send(outgoing(m));
    } catch (error) {
      // Refused for good (RFC 5321, 4.2.1): trying again would change nothing.
      const responseCode = numberOf(error, 'responseCode');
      const message = messageOf(error);
      if (responseCode && responseCode >= 500)
        return comeBack(ctx, m, `The mail server said: ${message.slice(0, 200)}`);
      await q.setMessageFailed(db, id, `The mail server refused it: ${message.slice(0, 300)}`);
      ctx.live.notify(topics.mailroom());
      throw error;
    }
    await q.setMessageSent(db, id, ctx.clock.now());
  }
  await arrived(ctx, m);
  ctx.live.notify(topics.mailroom());
}

/** Kinds of messages that deliver something. */
const DELIVERING = ['deliver', 'new_link', 'nudge'];

/** Records that a delivery arrived where a mail server accepted its message; the signing record says so. */
async function arrived(ctx: Context, m: q.MessageRow): Promise<void> {
  if (!m.packet_id || !m.party_id || !DELIVERING.includes(m.kind)) return;
  const channel = m.channel === 'text' ? ('phone' as const) : ('email' as const);
  const by = { actor: { kind: 'system' as const }, origin: null };
  await ctx.packets.run(m.packet_id, { type: 'arrive', partyId: m.party_id, channel }, by);
}

/**
 * Records a message as returned, as a mail server does for an address that does not exist.
 *
 * @throws Problem `sent`, `not-found`
 */
export async function returnMessage(
  ctx: Context,
  id: string,
  member: Reader,
  why = 'The mailbox does not exist.',
): Promise<MessageView> {
  const m = await messageOr404(ctx, id, member);
  if (m.status === 'sent') throw new Problem('sent', 'A mail server has this message; only it can send it back.');
  await comeBack(ctx, m, why);
  return messageView(ctx, id, member);
}

/** Marks the party of a returned message and notifies the sender. */
async function comeBack(ctx: Context, m: q.MessageRow, why: string): Promise<void> {
  const note = (tx: Tx) => {
    tx.afterCommit(() => ctx.live.notify(topics.mailroom()));
    return q.setMessageReturned(tx.db, m.id, why);
  };
  const { packet_id: packetId, party_id: partyId } = m;
  if (!packetId || !partyId) return inTransaction(ctx.database.pool, note);
  await ctx.packets.alone(packetId, async ({ tx, state, run }) => {
    await note(tx);
    if (!state) return;
    const channel = m.channel === 'text' ? ('phone' as const) : ('email' as const);
    await run({ type: 'bounce', partyId, channel, why }, { actor: { kind: 'system' }, origin: null });
  });
}
