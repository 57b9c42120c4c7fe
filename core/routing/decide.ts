/**
 * The packet's state machine: a command either becomes events or is refused with a reason.
 * It never looks at a clock: the caller stamps the events it returns.
 */
import { decideChange, isChange, type ChangeCommand } from './changes';
import { decidePartyAct, type PartyCommand } from './party-acts';
import { holdsGate, partyOf } from './progress';
import { accept, refuse, refuseWith, type Decision } from './refusal';
import { decideSystem, isSystem, type SystemCommand } from './system-acts';
import type { PacketEventBody, PacketState, Plan } from './types';

export type PacketCommand = { type: 'send'; plan: Plan } | PartyCommand | ChangeCommand | SystemCommand;

/** Decides a command against the state so far (`null`: the packet has not been sent). */
export function decide(state: PacketState | null, command: PacketCommand): Decision {
  if (command.type === 'send') return state ? refuse('already_sent') : decideSend(command.plan);
  if (!state) return refuse('not_sent');
  if (isSystem(command)) return decideSystem(state, command);
  if (isChange(command)) return decideChange(state, command);
  if (state.status !== 'at_gate') return refuse(`ended_${state.status}`);
  return decidePartyAct(state, command);
}

/** What is wrong with a path, in words; null when nothing is. */
export function pathProblem(plan: Pick<Plan, 'parties' | 'gates'>): string | null {
  const known = new Set(plan.parties.map((p) => p.id));
  const seen = new Set<string>();
  for (const gate of plan.gates) {
    if (!gate.partyIds.length) return 'A gate on the path has nobody at it.';
    for (const id of gate.partyIds) {
      if (!known.has(id)) return 'A gate names somebody who is not in the packet.';
      if (seen.has(id)) return 'Somebody stands at two gates.';
      seen.add(id);
    }
  }
  const lost = plan.parties.find((p) => holdsGate(p) && !seen.has(p.id));
  return lost ? `${lost.name} stands at no gate.` : null;
}

function decideSend(plan: Plan): Decision {
  const wrong = pathProblem(plan);
  if (wrong) return refuseWith('bad_plan', wrong);
  if (!plan.parties.some(holdsGate))
    return refuseWith('bad_plan', 'Nobody has to sign or approve anything in this packet.');
  const standing = new Set(plan.gates.flatMap((g) => g.partyIds));
  const copies = plan.parties.filter((p) => p.act === 'copy' && p.copyAt === 'sending' && !standing.has(p.id));
  return accept(
    { type: 'sent', plan },
    ...copies.map((p): PacketEventBody => ({ type: 'asked', partyId: p.id })),
    ...openFrom(plan, 0),
  );
}

/**
 * Opens gate `index`, asks its parties, and goes on through every gate that nobody holds
 * (copies only); after the last gate the packet is executed.
 */
export function openFrom(plan: Plan, index: number): PacketEventBody[] {
  const out: PacketEventBody[] = [];
  for (let gate = index; gate < plan.gates.length; gate++) {
    const here = plan.gates[gate]!.partyIds.map((id) => partyOf(plan, id)!);
    out.push({ type: 'gate_opened', gate });
    for (const p of here) out.push({ type: 'asked', partyId: p.id });
    if (here.some(holdsGate)) return out;
    out.push({ type: 'gate_passed', gate });
  }
  out.push({ type: 'executed' });
  return out;
}
