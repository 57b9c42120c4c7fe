/** Sending at a day and hour of the deal's time zone: scheduling, canceling, and doing it when due. */
import { hourOf, isHour } from '@gatepath/core/calendar';
import { calendarDay, ENGLISH, say } from '@gatepath/core/words';
import type { SendLaterBody } from '@gatepath/contract';
import type { Context } from '../context';
import { inTransaction, type Tx } from '../db/tx';
import { dealOr404 } from '../deal-records/deals';
import { memberById, type Member } from '../firm/queries';
import { topics } from '../live/live';
import { layOut } from '../mail/messages';
import { postLetter } from '../mailroom/post';
import { notFound, Problem } from '../problem';
import { isTransient } from '../transient';
import * as q from './queries';
import { requireKitTime } from './kit-time';
import { checkDraft, inNameOf, packetOr404, sendPacket } from './service';

/** How far ahead a sending can be scheduled. */
const MOST_AHEAD_MS = 366 * 86_400_000;

/**
 * Schedules a draft. It is checked now, so that nothing waits that could not be sent, and again when it is due.
 *
 * @throws Problem `not-found`, `locked-setting`, `not-allowed-for`, `gate-check`, `warnings`, `changed-meanwhile`,
 * `already-sent`, `bad-day`
 */
export async function sendLater(ctx: Context, packetId: string, body: SendLaterBody, member: Member): Promise<void> {
  const row = await packetOr404(ctx.database.pool, packetId);
  const { time_zone: zone } = await dealOr404(ctx.database.pool, row.deal_id);
  if (!isHour(body.day, body.hour, zone))
    throw new Problem(
      'bad-day',
      `Clocks change that night in the deal’s time zone (${zone}): there is no ${String(body.hour).padStart(2, '0')}:00. Choose another hour.`,
    );
  const at = new Date(hourOf(body.day, body.hour, zone));
  const why = notThen(at, ctx.clock.now());
  if (why) throw new Problem('bad-day', why);
  if (body.forId && body.forId !== member.id) await inNameOf(ctx.database.pool, body.forId, member);
  const { draft } = await checkDraft(ctx, packetId, body);
  await requireKitTime(ctx, { packetId, draft, zone, at: body });
  await change(ctx, packetId, (tx, now) => {
    if (now.status !== 'drafting') throw new Problem('already-sent', 'This packet has already been sent.');
    return q.setSendAt(tx.db, packetId, {
      at,
      by: member.id,
      forId: body.forId && body.forId !== member.id ? body.forId : null,
      despite: body.despiteWarnings,
    });
  });
}

/** Returns why nothing can be scheduled for an instant; null if it can. */
export function notThen(at: Date, now: Date): string | null {
  const ahead = at.getTime() - now.getTime();
  if (ahead <= 0) return 'This time has passed in the deal’s time zone. Choose a later one.';
  return ahead > MOST_AHEAD_MS ? 'That is more than a year ahead. Choose an earlier day.' : null;
}

/**
 * Cancels a scheduled sending; the draft stays as it is.
 *
 * @throws Problem `not-found`
 */
export async function sendNotLater(ctx: Context, packetId: string): Promise<void> {
  await change(ctx, packetId, (tx) => q.clearSendAt(tx.db, packetId, null));
}

async function change(
  ctx: Context,
  packetId: string,
  work: (tx: Tx, row: q.PacketRow) => Promise<void>,
): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await q.lockPacket(tx.db, packetId);
    if (!row) throw notFound('This packet');
    await work(tx, row);
    tx.afterCommit(() => {
      ctx.live.notify(topics.packet(packetId));
      ctx.live.notify(topics.deal(row.deal_id));
    });
  });
}

/**
 * Sends a scheduled draft that is due. If it cannot be sent it stays a draft, and the member who scheduled it is
 * notified why.
 *
 * @throws Problem `not-found`
 */
export async function sendWhenDue(ctx: Context, packetId: string): Promise<void> {
  const db = ctx.database.pool;
  const row = await q.packetById(db, packetId);
  if (row?.status !== 'drafting' || !row.send_at || row.send_at > ctx.clock.now() || !row.send_by) return;
  const member = await memberById(db, row.send_by);
  if (!member) return;
  const { version } = await q.draftOf(db, packetId);
  try {
    const body = { version, despiteWarnings: row.send_despite, ...(row.send_for ? { forId: row.send_for } : {}) };
    await sendPacket(ctx, packetId, body, member, { isDue: true });
  } catch (error) {
    // Busy, still being read, or changed in the same moment: it is tried again, and stays scheduled until then.
    if (!(error instanceof Problem) || isTransient(error)) throw error;
    if (error.code === 'already-sent') return;
    await reportNotSent(ctx, row, member, error.message);
  }
}

async function reportNotSent(ctx: Context, row: q.PacketRow, member: Member, why: string): Promise<void> {
  const { address, time_zone: zone } = await dealOr404(ctx.database.pool, row.deal_id);
  const firm = await ctx.firm();
  const day = calendarDay(ENGLISH, (row.send_at ?? new Date()).toISOString().slice(0, 10), true);
  const message = layOut({
    language: 'en',
    subject: `Not sent: ${row.name}`,
    paragraphs: [
      say(ENGLISH, 'mail.hello', { toName: member.name }),
      `“${row.name}” for ${address} was scheduled for ${day} (${zone}) but was not sent: ${why}`,
      'It is a draft again. Fix it at the desk, then send it or choose another time.',
    ],
    link: { label: 'Go to the desk', href: `${ctx.config.publicUrl}/packets/${row.id}` },
    fails: say(ENGLISH, 'mail.button_fails'),
    firm: firm?.name ?? '',
  });
  await change(ctx, row.id, async (tx) => {
    await q.clearSendAt(tx.db, row.id, why);
    await postLetter(ctx, tx, { kind: 'not_sent', to: member, message });
  });
}
