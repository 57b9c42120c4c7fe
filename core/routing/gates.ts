/** Gates: whether a path is valid, and what opens with each gate. */
import { byLink, holdsGate } from '../packet/acts';
import type { Gate, Plan } from '../packet/types';
import { partyOf } from './progress';
import type { PacketEventBody, PacketState } from './types';
import { itemAt } from '../sure';

/** Returns what is wrong with a path, in words; null if nothing. */
export function pathProblem(plan: Pick<Plan, 'parties' | 'gates'>): string | null {
  const known = new Set(plan.parties.map((p) => p.id));
  const seen = new Set<string>();
  for (const gate of plan.gates) {
    if (!gate.partyIds.length) return 'A gate on the path has no one at it.';
    for (const id of gate.partyIds) {
      if (!known.has(id)) return 'A gate names someone who is not in the packet.';
      if (seen.has(id)) return 'Someone is at two gates.';
      seen.add(id);
    }
  }
  const lost = plan.parties.find((p) => holdsGate(p) && !seen.has(p.id));
  return lost ? `${lost.name} is at no gate.` : null;
}

/**
 * Opens gate `index`, asks its parties, and continues through gates that nobody holds (copies only). After the last
 * gate the packet is executed.
 */
export function openFrom(plan: Plan, index: number): PacketEventBody[] {
  const out: PacketEventBody[] = [];
  for (let gate = index; gate < plan.gates.length; gate++) {
    const here = itemAt(plan.gates, gate).partyIds.map((id) => partyOf(plan, id)!);
    out.push({ type: 'gate_opened', gate });
    for (const p of here) out.push({ type: 'asked', partyId: p.id });
    if (here.some(holdsGate)) return out;
    out.push({ type: 'gate_passed', gate });
  }
  out.push({ type: 'executed' });
  return out;
}

/** Returns the first gate that somebody holds: where a packet is once it is sent. */
export function firstHeld(plan: Plan): number {
  const at = plan.gates.findIndex((g) => g.partyIds.some((id) => holdsGate(partyOf(plan, id)!)));
  return at < 0 ? plan.gates.length : at;
}

/** Returns the events that let people at later gates read along, for those who can be written to. */
export function readersOf(plan: Plan, gate: number): PacketEventBody[] {
  const later = new Set(plan.gates.slice(gate + 1).flatMap((g) => g.partyIds));
  return plan.parties
    .filter((p) => later.has(p.id) && holdsGate(p) && byLink(p) && !p.memberId)
    .map((p): PacketEventBody => ({ type: 'shown', partyId: p.id }));
}

/** Returns whether two values of plain data are equal. */
export const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Returns what is wrong with a new order of gates: those up to the open one must be unchanged, the rest may be any
 * order of the same people.
 */
export function aheadOnly(state: PacketState, gates: Gate[]): string | null {
  for (let i = 0; i <= state.gate; i++)
    if (!same(gates[i], state.plan.gates[i])) return 'Only gates that are still ahead can be changed.';
  return null;
}
