/** Parties of a draft as they are called and reached now, after what was corrected under way. */
import type { PacketParty, PacketState } from '@gatepath/core/routing';

export function currentParties(draft: PacketParty[], state: PacketState): PacketParty[] {
  const now = new Map(state.plan.parties.map((p) => [p.id, p]));
  return draft.map((p) => {
    const c = now.get(p.id);
    if (!c) return p;
    const { name, email, phone, language } = c;
    return { ...p, name, email, phone, ...(language ? { language } : {}) };
  });
}
