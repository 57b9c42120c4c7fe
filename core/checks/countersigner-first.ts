import { holdsGate, puts } from '../packet/acts';
import type { DraftEdit } from '../packet/draft';
import { type Side, SIDE_WORDS } from '../text/sides';
import type { CheckRule, Finding } from './types';
import { nameIn } from './words';
import { itemAt } from '../sure';

/** Whom each side countersigns: they sign before it. */
const AFTER: Partial<Record<Side, Side[]>> = {
  listing_broker: ['seller', 'landlord'],
  buyer_broker: ['buyer'],
  manager: ['tenant', 'guarantor'],
  guarantor: ['tenant'],
};

/** Finds people who countersign at a gate that is not after those they countersign. */
export const countersignerFirst: CheckRule = (input) => {
  const { draft } = input;
  const gateOf = (id: string) => draft.gates.findIndex((g) => g.partyIds.includes(id));
  const found: Finding[] = [];
  for (const p of draft.parties) {
    const sides = AFTER[p.side];
    const at = gateOf(p.id);
    if (!sides || !holdsGate(p) || at < 0) continue;
    const later = draft.parties.filter((q) => sides.includes(q.side) && puts(q) && gateOf(q.id) > at);
    const last = later.sort((a, b) => gateOf(b.id) - gateOf(a.id))[0];
    if (!last) continue;
    const from = itemAt(draft.gates, at);
    const to = gateOf(last.id);
    const left = from.partyIds.filter((id) => id !== p.id);
    const edits: DraftEdit[] = [
      left.length
        ? { op: 'put', list: 'gates', item: { ...from, partyIds: left } }
        : { op: 'drop', list: 'gates', id: from.id },
      { op: 'put', list: 'gates', item: { id: `after-${p.id}`, partyIds: [p.id] }, index: left.length ? to + 1 : to },
    ];
    found.push({
      rule: 'countersigner-first',
      severity: 'warns',
      sentence: `${nameIn(input, p.id)} (${SIDE_WORDS[p.side]}) comes before ${nameIn(input, last.id)}, who should sign first.`,
      place: { partyId: p.id, gateId: from.id },
      mend: { label: `Put ${nameIn(input, p.id)} behind`, edits },
    });
  }
  return found;
};
