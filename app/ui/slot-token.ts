import { slotLetters, type PacketParty } from '@gatepath/core/packet';

/** The letters of a party that is a slot; nothing of a person's. */
export const slotToken = (p: Pick<PacketParty, 'side' | 'ordinal' | 'slot'>): string | undefined =>
  p.slot === 'one' || p.slot === 'every' ? slotLetters(p) : undefined;
