import type { ListQuery, MessageSummary, MessageView, Page } from '@gatepath/contract';
import type { Context } from '../context';
import { topics } from '../live/live';
import type { Mailer, OutgoingMail } from '../mail/mailer';
import { toEml } from '../mail/mailer';
import { notFound } from '../problem';
import * as q from './queries';

function summary(m: q.MessageRow): MessageSummary {
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
    link: m.link,
  };
}

export async function listMessages(
  ctx: Context,
  query: ListQuery & { packetId?: string },
): Promise<Page<MessageSummary>> {
  const rows = await q.listMessages(ctx.database.pool, {
    after: query.after ?? null,
    packetId: query.packetId ?? null,
    search: query.search ? `%${query.search.replace(/[\\%_]/g, '\\$&')}%` : null,
    limit: query.limit + 1,
  });
  const shown = rows.slice(0, query.limit);
  return { items: shown.map(summary), next: rows.length > query.limit ? shown[shown.length - 1]!.id : null };
}

export async function messageView(ctx: Context, id: string): Promise<MessageView> {
  const m = await messageOr404(ctx, id);
  return { ...summary(m), bodyText: m.body_text };
}

async function messageOr404(ctx: Context, id: string): Promise<q.MessageRow> {
  const m = await q.messageById(ctx.database.pool, id);
  if (!m) throw notFound('This message');
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

export async function messageEml(ctx: Context, id: string): Promise<Buffer> {
  return toEml(outgoing(await messageOr404(ctx, id)), ctx.config.mailFrom);
}

/** Hands one message to the mailer; called again for the same message it does nothing. */
export async function deliver(ctx: Context, mailer: Mailer, id: string): Promise<void> {
  const db = ctx.database.pool;
  const m = await q.messageById(db, id);
  if (!m || m.status === 'sent' || m.status === 'kept') return;
  if (mailer.kind === 'mailroom') await q.setMessageKept(db, id);
  else {
    try {
      await mailer.send(outgoing(m));
    } catch (error) {
      await q.setMessageFailed(
        db,
        id,
        `The mail server did not take it: ${String((error as Error).message).slice(0, 300)}`,
      );
      ctx.live.tell(topics.mailroom());
      throw error;
    }
    await q.setMessageSent(db, id, ctx.clock.now());
  }
  ctx.live.tell(topics.mailroom());
}
