/** The sending time of a packet whose kit locks it. */
import { sendingDay } from '@gatepath/core/calendar';
import type { Draft } from '@gatepath/core/packet';
import { calendarDay, ENGLISH } from '@gatepath/core/words';
import type { Context } from '../context';
import { Problem } from '../problem';
import * as q from './queries';

/**
 * Refuses a sending time other than the one a kit locked.
 *
 * @param at day and hour it is scheduled for; null if it would be sent now
 * @throws Problem `locked-setting`
 */
export async function requireKitTime(
  ctx: Context,
  o: { packetId: string; draft: Draft; zone: string; at: { day: string; hour: number } | null },
): Promise<void> {
  const { sending } = o.draft.schedule;
  if (!sending) return;
  const by = (await q.kitOfPacket(ctx.database.pool, o.packetId))?.locks.schedule?.name;
  if (!by) return;
  const due = sendingDay(sending, ctx.clock.now().toISOString(), o.zone, (await ctx.firm())?.holidays ?? []);
  if (o.at && o.at.day === due.day && o.at.hour === due.hour) return;
  throw new Problem(
    'locked-setting',
    `${by} locked when it goes in the kit this packet is made of: on ${calendarDay(ENGLISH, due.day)} at ${due.hour}:00. Set that time.`,
  );
}
