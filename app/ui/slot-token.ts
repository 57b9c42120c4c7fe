import { slotLetters, type PacketParty } from '@gatepath/core/packet';

/** Returns the letters of a slot, as props of its token; none for a person. */
export const slotToken = (p: Pick<PacketParty, 'side' | 'ordinal' | 'slot'>): string | undefined =>
  p.slot === 'one' || p.slot === 'every' ? slotLetters(p) : undefined;
