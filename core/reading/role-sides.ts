/** The sides of a deal that a printed role can mean, and the people who are that. */
import type { Side } from '../text/sides';
import { PLACE_ROLES, type PlaceRole } from './types';

const SIDES: Record<Exclude<PlaceRole, 'unknown'>, Side[]> = {
  seller: ['seller'],
  buyer: ['buyer'],
  landlord: ['landlord'],
  tenant: ['tenant'],
  guarantor: ['guarantor'],
  broker: ['listing_broker', 'manager'],
  buyer_broker: ['buyer_broker'],
  manager: ['manager', 'listing_broker'],
};

/** Returns the side of a role, unless something else says otherwise. */
export const sideOfRole = (role: PlaceRole): Side | null => (role === 'unknown' ? null : (SIDES[role][0] ?? null));

/** Returns the role that people of a side have on a page; null if none is printed for it. */
export function roleOfSide(side: Side): PlaceRole | null {
  for (const role of PLACE_ROLES) if (sideOfRole(role) === side) return role;
  return null;
}

/** Returns people of a role in order, of the first of its sides that has any. */
export function ofRole<T extends { side: Side; ordinal: number }>(role: PlaceRole, people: readonly T[]): T[] {
  if (role === 'unknown') return [];
  for (const side of SIDES[role]) {
    const here = people.filter((p) => p.side === side).sort((a, b) => a.ordinal - b.ordinal);
    if (here.length) return here;
  }
  return [];
}
