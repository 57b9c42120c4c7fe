/** Slots: roles of a form or kit that people of a deal fill, stored as the parties of its draft. */
import type { PacketParty, SlotKind } from '../packet/types';

export { slotLetters } from '../packet/called';
import { SIDE_WORDS, sideLabel, type Side } from '../text/sides';

/** A party of a draft on the shelf. */
export type Slot = PacketParty & { slot: SlotKind };

/** Returns the slots of a draft. A party without a kind is a slot for one person. */
export const slotsOf = (parties: readonly PacketParty[]): Slot[] =>
  parties.map((p) => ({ ...p, slot: p.slot ?? 'one' }));

/** Returns a slot's name: "Seller 2", "Every tenant"; a fixed person by their name. */
export function slotName(kind: SlotKind, side: Side, ordinal: number): string {
  return kind === 'every' ? `Every ${SIDE_WORDS[side].toLowerCase()}` : sideLabel(side, ordinal);
}

/**
 * Returns a slot for a side.
 *
 * @param id from outside: the core has no randomness
 */
export function newSlot(kind: 'one' | 'every', side: Side, ordinal: number, id: string, ink: number): Slot {
  return {
    id,
    name: slotName(kind, side, ordinal),
    email: '',
    phone: null,
    side,
    ordinal: kind === 'every' ? 1 : ordinal,
    act: side === 'other' ? 'copy' : 'sign',
    ink,
    slot: kind,
  };
}

/** Returns whether two slots are the same role: same kind, side and number; for fixed people, the same address. */
export const sameSlot = (a: Slot, b: Slot): boolean =>
  a.slot === b.slot &&
  (a.slot === 'person'
    ? a.email.toLowerCase() === b.email.toLowerCase() && a.name === b.name
    : a.side === b.side && (a.slot === 'every' || a.ordinal === b.ordinal));

/** Returns the slots of several drafts: each role once, in the order of first use, as the first draft has it. */
export function slotsTogether(drafts: readonly { parties: readonly PacketParty[] }[]): Slot[] {
  const out: Slot[] = [];
  for (const slot of drafts.flatMap((d) => slotsOf(d.parties)))
    if (!out.some((s) => sameSlot(s, slot))) out.push({ ...slot, ink: out.length });
  return out;
}
