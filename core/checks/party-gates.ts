import { holdsGate } from '../packet/acts';
import type { CheckRule, Finding } from './types';
import { nameIn } from './words';
import { itemAt } from '../sure';

/** Requires that whoever signs or approves is at exactly one gate. */
export const partyGates: CheckRule = (input) => {
  const found: Finding[] = [];
  for (const p of input.draft.parties) {
    const at = input.draft.gates.filter((g) => g.partyIds.includes(p.id));
    if (holdsGate(p) && at.length === 0)
      found.push({
        rule: 'party-gates',
        severity: 'stops',
        sentence: `${nameIn(input, p.id)} is at no gate and would never be asked.`,
        place: { partyId: p.id },
      });
    if (at.length > 1)
      found.push({
        rule: 'party-gates',
        severity: 'stops',
        sentence: `${nameIn(input, p.id)} is at ${at.length} gates.`,
        place: { partyId: p.id, gateId: itemAt(at, 1).id },
        mend: {
          label: 'Keep the first only',
          edits: at.slice(1).map((g) => ({
            op: 'put',
            list: 'gates',
            item: { ...g, partyIds: g.partyIds.filter((q) => q !== p.id) },
          })),
        },
      });
  }
  return found;
};
