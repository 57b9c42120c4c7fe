/** How long the firm's people take, learned from its past and kept for a while. */
import { FEW_WAITS, forecastOf, paceOf, type Pace } from '@gatepath/core/forecast';
import type { PacketState } from '@gatepath/core/routing';
import type { ForecastView } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { latestWaits } from './queries';

/** Waits that are learned from: the latest say most. */
const MOST_WAITS = 1_000;
/** How long what was learned is good for, by the clock that everything goes by. */
const KEPT_MS = 10 * 60_000;

const learnedOf = perContext((): { at: number; pace: Promise<Pace> | null } => ({ at: 0, pace: null }));

/** What the firm's past says. */
export function paceNow(ctx: Context): Promise<Pace> {
  const now = ctx.clock.now().getTime();
  const learned = learnedOf(ctx);
  if (learned.pace && Math.abs(now - learned.at) < KEPT_MS) return learned.pace;
  const pace = (async () => {
    const zone = (await ctx.firm())?.time_zone ?? 'UTC';
    return paceOf(await latestWaits(ctx.database.pool, MOST_WAITS), zone);
  })();
  Object.assign(learned, { at: now, pace });
  pace.catch(() => {
    if (learned.pace === pace) learned.pace = null;
  });
  return pace;
}

/** When a packet will likely be executed; null for one that is not on its way. */
export async function forecastView(ctx: Context, state: PacketState): Promise<ForecastView | null> {
  if (state.status !== 'at_gate') return null;
  const forecast = forecastOf(state, await paceNow(ctx), ctx.clock.now().toISOString());
  return forecast && { ...forecast, few: forecast.from < FEW_WAITS };
}
