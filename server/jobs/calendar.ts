/** The calendar at work: nudges, warnings, lapses and the daily digest, whenever their time has come. */
import { dayOf, morningOf } from '@gatepath/core/calendar';
import { count } from '@gatepath/core/text';
import { ENGLISH, say } from '@gatepath/core/words';
import type { Context } from '../context';
import { inTransaction } from '../db/tx';
import { digestReaders, findFirm, noteDigest } from '../firm/queries';
import { layOut } from '../mail/messages';
import { postLetter } from '../mailroom/post';
import { loadState } from '../packets/log';
import { lockPacket, packetsToTick, packetsUnderWay } from '../packets/queries';
import { command } from '../packets/service';
import { Problem } from '../problem';

/** How often the real server looks at the calendar. */
const EVERY_MS = 30_000;

/** Does whatever is due by now; called twice it does nothing the second time. */
export async function runCalendar(ctx: Context): Promise<void> {
  for (const id of await packetsToTick(ctx.database.pool, ctx.clock.now())) await tickPacket(ctx, id);
  await sendDigests(ctx);
}

async function tickPacket(ctx: Context, packetId: string): Promise<void> {
  await inTransaction(ctx.database.pool, async (tx) => {
    const row = await lockPacket(tx.db, packetId);
    const before = row && (await loadState(tx.db, packetId));
    if (!row || !before?.state) return;
    const zone = before.state.plan.timeZone;
    const now = ctx.clock.now().toISOString();
    const today = dayOf(now, zone);
    const working = now >= morningOf(today, zone);
    await command(ctx, tx, row, before, { type: 'tick', today, working }, { actor: { kind: 'system' }, origin: null });
  });
}

/** Once a morning: what is under way and who holds it up, to each member who wants it. */
async function sendDigests(ctx: Context): Promise<void> {
  const db = ctx.database.pool;
  const firm = await findFirm(db);
  if (!firm) return;
  const now = ctx.clock.now().toISOString();
  const today = dayOf(now, firm.time_zone);
  if (now < morningOf(today, firm.time_zone)) return;
  for (const member of await digestReaders(db, today)) {
    await inTransaction(db, async (tx) => {
      if (!(await noteDigest(tx.db, member.id, today))) return;
      const packets = await packetsUnderWay(tx.db, member.id);
      if (!packets.length) return;
      const message = layOut({
        language: 'en',
        subject: `Today: ${count(packets.length, 'packet')} under way`,
        paragraphs: [
          say(ENGLISH, 'mail.hello', { toName: member.name }),
          ...packets.map((p) => `${p.name}, ${p.address}: at gate ${p.gate + 1} of ${p.gate_count}. ${p.hold_up}`),
        ],
        link: { label: 'See your deals', href: `${ctx.config.publicUrl}/deals` },
        fails: say(ENGLISH, 'mail.button_fails'),
        firm: firm.name,
      });
      await postLetter(ctx, tx, { kind: 'digest', to: member, message });
    });
  }
}

/** Looks at the calendar from time to time until it is stopped. */
export function keepCalendar(ctx: Context, onError: (error: unknown) => void): () => Promise<void> {
  let running: Promise<void> = Promise.resolve();
  const timer = setInterval(() => {
    running = running.then(() => runCalendar(ctx)).catch(onError);
  }, EVERY_MS);
  return async () => {
    clearInterval(timer);
    await running;
  };
}

/** Sets the demo's clock forward and lets happen what then is due, day by day. */
export async function forwardClock(ctx: Context, hours: number): Promise<void> {
  if (!ctx.config.clockForward)
    throw new Problem(403, 'not-demo', 'Not possible', 'Only the demo’s clock can be set forward.');
  for (let left = hours; left > 0; left -= 24) {
    ctx.clock.forward(Math.min(24, left) * 3_600_000);
    await runCalendar(ctx);
  }
}
