/** Usual paths that one tap sets up. */
import { holdsGate } from './acts';
import type { Gate, PacketParty } from './types';
import type { Side } from '../text/sides';

/** Sides by gate when sellers (or landlords) go first, then their broker, then the other side. */
const SIDE_STEPS: Side[][] = [
  ['seller', 'landlord'],
  ['listing_broker', 'manager'],
  ['buyer', 'tenant'],
  ['guarantor'],
  ['buyer_broker'],
  ['other'],
];

/** Usual arrangements of gates. */
export type PathPattern = 'together' | 'one_by_one' | 'by_side';

/**
 * Returns the gates of a pattern. Parties who only get a copy are at no gate: they get it at the end. Ids come from
 * `newId`, since the core has no randomness.
 */
export function gatesOfPattern(pattern: PathPattern, parties: PacketParty[], newId: () => string): Gate[] {
  const acting = parties.filter(holdsGate);
  const gates: string[][] =
    pattern === 'together'
      ? [acting.map((p) => p.id)]
      : pattern === 'one_by_one'
        ? inSideOrder(acting).map((p) => [p.id])
        : SIDE_STEPS.map((sides) => acting.filter((p) => sides.includes(p.side)).map((p) => p.id));
  return gates.filter((g) => g.length).map((partyIds) => ({ id: newId(), partyIds }));
}

/** Returns parties in the order of sides on a usual path, then by their number. */
export function inSideOrder(parties: PacketParty[]): PacketParty[] {
  const step = (p: PacketParty) => SIDE_STEPS.findIndex((s) => s.includes(p.side));
  return [...parties].sort((a, b) => step(a) - step(b) || a.ordinal - b.ordinal);
}
