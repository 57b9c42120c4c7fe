/** Rehearsing a draft as one of its parties: nothing is sent or saved. */
import type { PacketEvent, PacketEventBody } from '@gatepath/core/routing';
import { gateOf, partyOf, replay } from '@gatepath/core/routing';
import { sure } from '@gatepath/core/sure';
import type { SigningView } from '@gatepath/contract';
import type { Context } from '../context';
import { draftOf } from '../packets/queries';
import { planOf } from '../packets/plan';
import { runGateCheck, packetOr404 } from '../packets/service';
import { notFound, Problem } from '../problem';
import { LANGUAGES } from '../words';
import { view } from './views';

/**
 * Returns what a party of a draft would see when their gate opens, in their language or another.
 *
 * @throws Problem `not-found`, `already-sent`, `reading`
 */
export async function rehearsalView(
  ctx: Context,
  packetId: string,
  partyId: string,
  language?: string,
): Promise<SigningView> {
  if (language && !LANGUAGES.some((l) => l.tag === language)) throw notFound('This language');
  const row = await packetOr404(ctx.database.pool, packetId);
  if (row.status !== 'drafting')
    throw new Problem('already-sent', 'This packet has been sent. Look at its page instead.');
  const { draft } = await draftOf(ctx.database.pool, packetId);
  const checked = await runGateCheck(ctx, row, draft);
  const firm = sure(await ctx.firm(), 'the firm');
  const plan = planOf(draft, { ...checked, holidays: firm.holidays });
  if (!partyOf(plan, partyId)) throw notFound('This person');
  const at = ctx.clock.now().toISOString();
  const bodies: PacketEventBody[] = [
    { type: 'sent', plan },
    { type: 'gate_opened', gate: Math.max(0, gateOf(plan, partyId)) },
    { type: 'asked', partyId },
    ...(language ? [{ type: 'language_chosen' as const, partyId, language }] : []),
  ];
  const events = bodies.map((body, i): PacketEvent => ({
    packetId,
    seq: i + 1,
    at,
    actor: { kind: 'system' },
    origin: null,
    body,
  }));
  return view(ctx, sure(replay(events), 'a state'), partyId);
}
