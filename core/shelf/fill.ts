/** Filling slots with the people of a deal, by side and number. */
import type { PacketParty } from '../packet/types';
import type { Slot } from './slots';

/** A slot with the people who fill it. */
export interface FilledSlot {
  slot: Slot;
  /** In the order of their side; empty if the deal has nobody for it. */
  people: PacketParty[];
  /**
   * Why nobody fills it. `nobody`: the deal has nobody of its side (or it is the first slot of its side), so a person
   * is missing. `fewer`: the form has lines for more people than there are, and their marks are left out.
   */
  empty: 'nobody' | 'fewer' | null;
}

/** Slots with the people who fill them. */
export interface Filling {
  slots: FilledSlot[];
  /** People beyond the number of slots, paired with their side's last slot. */
  beyond: { person: PacketParty; like: Slot }[];
}

/**
 * Fills slots with people.
 *
 * @param people of the deal; those of a side are taken in the order of their numbers
 * @param fixed the person for a slot that is always the same person, one for all forms that name them
 */
export function fillSlots(
  slots: readonly Slot[],
  people: readonly PacketParty[],
  fixed: (slot: Slot) => Slot = (slot) => slot,
): Filling {
  const ofSide = (side: PacketParty['side']) =>
    people.filter((p) => p.side === side).sort((a, b) => a.ordinal - b.ordinal);
  const ones = (side: PacketParty['side']) =>
    slots.filter((s) => s.slot === 'one' && s.side === side).sort((a, b) => a.ordinal - b.ordinal);
  const filled = slots.map((slot): FilledSlot => {
    // A fixed person is copied as they are.
    if (slot.slot === 'person') return { slot, people: [personOf(fixed(slot))], empty: null };
    const here = ofSide(slot.side);
    if (slot.slot === 'every') return { slot, people: here, empty: here.length ? null : 'nobody' };
    const person = here[ones(slot.side).indexOf(slot)];
    return { slot, people: person ? [person] : [], empty: person ? null : here.length ? 'fewer' : 'nobody' };
  });
  const beyond: Filling['beyond'] = [];
  for (const side of new Set(slots.map((s) => s.side))) {
    const lines = ones(side);
    const last = lines[lines.length - 1];
    if (last) for (const person of ofSide(side).slice(lines.length)) beyond.push({ person, like: last });
  }
  return { slots: filled, beyond };
}

function personOf({ slot: _slot, ...person }: Slot): PacketParty {
  return person;
}
