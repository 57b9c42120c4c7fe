/** Slots for a form that was just brought in: those its printed places name. */
import type { PlaceRole, PrintedPlace } from '../reading/types';
import type { Side } from '../text/sides';
import { newSlot, type Slot } from './slots';

const SIDE_OF: Record<Exclude<PlaceRole, 'unknown'>, Side> = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
  broker: 'listing_broker',
  buyer_broker: 'buyer_broker',
  manager: 'manager',
};
/** The order in which they stand. */
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
/** As many lines of a side as a form may have; beyond that what was read is no line. */
const MOST = 12;

/** The slots that printed places call for: of each side as many as it has lines to sign or initial. */
export function slotsOnPages(places: readonly PrintedPlace[], newId: () => string): Slot[] {
  const lines = new Map<Side, number>();
  for (const p of places) {
    if (p.role === 'unknown' || (p.kind !== 'signature' && p.kind !== 'initials')) continue;
    const side = SIDE_OF[p.role];
    lines.set(side, Math.max(lines.get(side) ?? 0, Math.min(MOST, p.ordinal ?? 1)));
  }
  const out: Slot[] = [];
  for (const side of ORDER)
    for (let n = 1; n <= (lines.get(side) ?? 0); n++) out.push(newSlot('one', side, n, newId(), out.length));
  return out;
}
