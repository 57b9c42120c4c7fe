/** One act on several selected deals. */
import { count } from '@gatepath/core/text';
import type { DealPatch, DealsActBody, DealsActed } from '@gatepath/contract';
import type { Context } from '../context';
import { listMembers, type Member } from '../firm/queries';
import { packetsOfDeals } from '../packets/queries';
import { byMember } from '../packets/service';
import { Problem } from '../problem';
import { changeDeal } from './changes';
import { dealById, membersOfDeal, type DealRow } from '../deal-records/queries';

/**
 * Applies one act to several deals, one after another. A deal for which it fails stays as it was.
 *
 * @returns for how many it was done, and for which not, with reasons
 * @throws Problem `bad-act`, `unknown-member`
 */
export async function actOnDeals(ctx: Context, body: DealsActBody, member: Member): Promise<DealsActed> {
  if (body.act === 'tag' && !body.tag) throw new Problem('bad-act', 'Write the tag first.');
  if (body.act === 'give') {
    const there = await listMembers(ctx.database.pool);
    if (!there.some((m) => m.id === body.memberId))
      throw new Problem('unknown-member', 'Choose a member to assign them to.');
  }
  const out: DealsActed = { done: 0, left: [] };
  for (const id of new Set(body.dealIds)) {
    const deal = await dealById(ctx.database.pool, id);
    if (!deal) continue;
    const why = await act(ctx, deal, body, member);
    if (why) out.left.push({ dealId: id, address: deal.address, why });
    else out.done++;
  }
  return out;
}

/** Applies the act to one deal. @returns why it was not done; null if it was */
async function act(ctx: Context, deal: DealRow, body: DealsActBody, member: Member): Promise<string | null> {
  if (body.act === 'nudge') return nudge(ctx, deal, member);
  const patch = await patchOf(ctx, deal, body);
  if (!patch) return 'It is so already.';
  try {
    await changeDeal(ctx, deal.id, patch, member);
    return null;
  } catch (error) {
    if (error instanceof Problem) return error.message;
    throw error;
  }
}

async function patchOf(ctx: Context, deal: DealRow, { act, tag, memberId }: DealsActBody): Promise<DealPatch | null> {
  switch (act) {
    case 'tag':
      return !tag || deal.tags.includes(tag) ? null : { tags: [...deal.tags, tag] };
    case 'give': {
      const has = await membersOfDeal(ctx.database.pool, deal.id);
      return !memberId || (has.length === 1 && has[0] === memberId) ? null : { memberIds: [memberId] };
    }
    case 'archive':
      return deal.archived_at ? null : { archived: true };
    case 'take_out':
      return deal.archived_at ? { archived: false } : null;
    case 'nudge':
      return null;
  }
}

/** Nudges everyone the packets of a deal wait for. */
async function nudge(ctx: Context, deal: DealRow, member: Member): Promise<string | null> {
  const waiting = (await packetsOfDeals(ctx.database.pool, [deal.id])).filter((p) => p.status === 'at_gate');
  let nudged = 0;
  for (const p of waiting) {
    try {
      await ctx.packets.run(p.id, { type: 'nudge' }, byMember(member));
      nudged++;
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
    }
  }
  return nudged
    ? null
    : waiting.length
      ? `No one can be nudged in its ${count(waiting.length, 'packet')}.`
      : 'No packet waits.';
}
