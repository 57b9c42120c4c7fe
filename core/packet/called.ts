/** Short names of a draft's parties and the letters of their tokens: people by name, slots by role. */
import { firstName, initialsOf } from '../text/names';
import type { Side } from '../text/sides';
import type { PacketParty } from './types';

const LETTERS: Record<Side, string> = {
  seller: 'S',
  buyer: 'B',
  landlord: 'L',
  tenant: 'T',
  guarantor: 'G',
  listing_broker: 'LB',
  buyer_broker: 'BB',
  manager: 'PM',
  other: 'O',
};

/** Returns the letters of a slot's token: "S1", "T+" for every tenant, "LB". */
export function slotLetters(slot: Pick<PacketParty, 'side' | 'ordinal' | 'slot'>): string {
  const letters = LETTERS[slot.side];
  if (slot.slot === 'every') return `${letters}+`;
  return letters.length > 1 && slot.ordinal === 1 ? letters : `${letters}${slot.ordinal}`;
}

type Called = Pick<PacketParty, 'name' | 'side' | 'ordinal' | 'slot'>;

const isPlace = (p: Called) => p.slot === 'one' || p.slot === 'every';

/** Returns "Wren"; for a slot its whole name, "Seller 2". */
export const calledOf = (p: Called): string => (isPlace(p) ? p.name : firstName(p.name));

/** Returns "WA"; for a slot "S2". */
export const lettersOf = (p: Called): string => (isPlace(p) ? slotLetters(p) : initialsOf(p.name));
