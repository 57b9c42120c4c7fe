/** How long the firm's people take, computed from its past and cached for a while. */
import { FEW_WAITS, forecastOf, paceOf, type Pace } from '@gatepath/core/forecast';
import type { PacketState } from '@gatepath/core/routing';
import type { ForecastView } from '@gatepath/contract';
import type { Context } from '../context';
import { perContext } from '../per-context';
import { latestWaits } from './queries';

/** Maximum number of waits to compute from: the latest matter most. */
const MOST_WAITS = 1_000;
/** How long a computed pace is used, in milliseconds of the server's clock. */
const KEPT_MS = 10 * 60_000;

const learnedOf = perContext((): { at: number; pace: Promise<Pace> | null } => ({ at: 0, pace: null }));

/** Returns how long the firm's people take. */
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

/** Returns when a packet will likely be executed; null if it is not at a gate. */
export async function forecastView(ctx: Context, state: PacketState): Promise<ForecastView | null> {
  if (state.status !== 'at_gate') return null;
  const forecast = forecastOf(state, await paceNow(ctx), ctx.clock.now().toISOString());
  return forecast && { ...forecast, few: forecast.from < FEW_WAITS };
}
