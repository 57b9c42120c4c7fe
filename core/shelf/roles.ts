/** Slots for a new form: those its printed places name. */
import { sideOfRole } from '../reading/role-sides';
import type { PrintedPlace } from '../reading/types';
import type { Side } from '../text/sides';
import { newSlot, type Slot } from './slots';

/** The order of sides. */
const ORDER: Side[] = [
  'seller',
  'landlord',
  'listing_broker',
  'manager',
  'buyer',
  'tenant',
  'guarantor',
  'buyer_broker',
];
/** Maximum number of lines of a side that are believed. */
const MOST = 12;

/** Returns the slots that printed places need: as many of each side as it has lines to sign or initial. */
export function slotsOnPages(places: readonly PrintedPlace[], newId: () => string): Slot[] {
  const lines = new Map<Side, number>();
  for (const p of places) {
    const side = sideOfRole(p.role);
    if (!side || (p.kind !== 'signature' && p.kind !== 'initials')) continue;
    lines.set(side, Math.max(lines.get(side) ?? 0, Math.min(MOST, p.ordinal ?? 1)));
  }
  const out: Slot[] = [];
  for (const side of ORDER)
    for (let n = 1; n <= (lines.get(side) ?? 0); n++) out.push(newSlot('one', side, n, newId(), out.length));
  return out;
}
