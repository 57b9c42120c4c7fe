/** Gates on the path: whether it can be walked, and what opens with each. */
import { holdsGate } from '../packet/acts';
import type { Plan } from '../packet/types';
import { partyOf } from './progress';
import type { PacketEventBody } from './types';
import { itemAt } from '../sure';

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

/**
 * Opens gate `index`, asks its parties, and goes on through every gate that nobody holds
 * (copies only); after the last gate the packet is executed.
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
