/** What a party of a draft is called in few words, and the letters of its token: people by their names, slots by their place. */
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

/** The letters in a slot's token: "S1", "T+" for every tenant, "LB". */
export function slotLetters(slot: Pick<PacketParty, 'side' | 'ordinal' | 'slot'>): string {
  const letters = LETTERS[slot.side];
  if (slot.slot === 'every') return `${letters}+`;
  return letters.length > 1 && slot.ordinal === 1 ? letters : `${letters}${slot.ordinal}`;
}

type Called = Pick<PacketParty, 'name' | 'side' | 'ordinal' | 'slot'>;

const isPlace = (p: Called) => p.slot === 'one' || p.slot === 'every';

/** "Wren"; a slot by the whole of its name, "Seller 2". */
export const calledOf = (p: Called): string => (isPlace(p) ? p.name : firstName(p.name));

/** "WA"; a slot's "S2". */
export const lettersOf = (p: Called): string => (isPlace(p) ? slotLetters(p) : initialsOf(p.name));
