/** The calendar at work: nudges, warnings, lapses and the daily digest, whenever their time has come. */
import { dayOf, morningOf } from '@gatepath/core/calendar';
import { ENGLISH, say } from '@gatepath/core/words';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { digestReaders, memberById, noteDigest } from '../firm/queries';
import { layOut } from '../mail/messages';
import { postLetter } from '../mailroom/post';
import { sendWhenDue } from '../packets/later';
import { packetsToSend, packetsToTick } from '../packets/queries';
import { todayView, todayWords } from '../today/service';
import { Problem } from '../problem';

/** How often the calendar is looked at, in seconds. */
const EVERY = 30;
/** Packets taken up in one look; the rest come with the next. */
const A_LOOK = 500;
/** How far the demo's clock goes at once, in hours: no day is passed without an hour in which letters go out. */
const A_STRIDE = 12;

/** Runs the calendar job. It queues its next run before it does anything that could fail. */
export async function runCalendarJob(ctx: Context): Promise<void> {
  await ctx.jobs.queueNow('calendar', 'calendar', EVERY);
  await queueDueWork(ctx);
}

/** Queues whatever is due by now, a job a packet and a job a member; called twice it queues nothing the second time. */
export async function queueDueWork(ctx: Context): Promise<void> {
  const db = ctx.database.pool;
  for (const id of await packetsToTick(db, ctx.clock.now(), A_LOOK)) await ctx.jobs.queueNow('tick', id);
  for (const id of await packetsToSend(db, ctx.clock.now(), A_LOOK)) await ctx.jobs.queueNow('tick', id);
  const firm = await ctx.firm();
  if (!firm) return;
  const now = ctx.clock.now().toISOString();
  const today = dayOf(now, firm.time_zone);
  if (now < morningOf(today, firm.time_zone)) return;
  for (const member of await digestReaders(db, today)) await ctx.jobs.queueNow('digest', `${member.id}:${today}`);
}

/** Does what the calendar has for one packet. */
export async function tickPacket(ctx: Context, packetId: string): Promise<void> {
  await sendWhenDue(ctx, packetId);
  await ctx.packets.alone(packetId, async ({ state, run }) => {
    if (!state) return;
    const zone = state.plan.timeZone;
    const now = ctx.clock.now().toISOString();
    const today = dayOf(now, zone);
    const working = now >= morningOf(today, zone);
    await run({ type: 'tick', today, working }, { actor: { kind: 'system' }, origin: null });
  });
}

/**
 * Sends each member who wants it a message with the items of Today, in their order, once every morning; none if there
 * is nothing to say.
 */
export async function sendDigest(ctx: Context, id: string): Promise<void> {
  const [memberId = '', day = ''] = id.split(':');
  const db = ctx.database.pool;
  const firm = await ctx.firm();
  const member = await memberById(db, memberId);
  if (!firm || !member?.digest) return;
  const today = await todayView(ctx, member);
  await inTransaction(db, async (tx) => {
    if (!(await noteDigest(tx.db, member.id, day))) return;
    const lines = todayWords(today);
    // The first line is a summary; alone it is not worth a message.
    if (lines.length < 2) return;
    const message = layOut({
      language: 'en',
      subject: `Today: ${lines[0] ?? ''}`,
      paragraphs: [say(ENGLISH, 'mail.hello', { toName: member.name }), ...lines],
      link: { label: 'See your day', href: `${ctx.config.publicUrl}/today` },
      fails: say(ENGLISH, 'mail.button_fails'),
      firm: firm.name,
    });
    await postLetter(ctx, tx, { kind: 'digest', to: member, message });
  });
}

/**
 * Sets the demo's clock forward and lets happen what then is due, half a day at a time.
 *
 * @throws Problem `not-demo`
 */
export async function forwardClock(ctx: Context, hours: number): Promise<void> {
  if (!ctx.config.clockForward) throw new Problem('not-demo', 'Only the demo’s clock can be set forward.');
  for (let left = hours; left > 0; left -= A_STRIDE) {
    ctx.clock.forward(Math.min(A_STRIDE, left) * 3_600_000);
    await waitForDueWork(ctx);
  }
}

/** Looks at the calendar and waits until what was due is done. */
export async function waitForDueWork(ctx: Context): Promise<void> {
  await queueDueWork(ctx);
  await ctx.jobs.idle('tick');
  await ctx.jobs.idle('deal');
  await ctx.jobs.idle('digest');
}
