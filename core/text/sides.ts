/** Sides of a deal. */
export const SIDES = [
  'seller',
  'buyer',
  'landlord',
  'tenant',
  'guarantor',
  'listing_broker',
  'buyer_broker',
  'manager',
  'other',
] as const;
/** One of `SIDES`. */
export type Side = (typeof SIDES)[number];

/** The sides of a deal in words. */
export const SIDE_WORDS: Record<Side, string> = {
  seller: 'Seller',
  buyer: 'Buyer',
  landlord: 'Landlord',
  tenant: 'Tenant',
  guarantor: 'Guarantor',
  listing_broker: 'Listing broker',
  buyer_broker: 'Buyer’s broker',
  manager: 'Property manager',
  other: 'Other',
};

/** Returns whether a side represents others. */
export const isBroker = (side: Side): boolean =>
  side === 'listing_broker' || side === 'buyer_broker' || side === 'manager';

/** Returns a party's side: "Seller 2". A side that usually has one person is numbered only from the second on. */
export function sideLabel(side: Side, ordinal: number): string {
  return isBroker(side) && ordinal === 1 ? SIDE_WORDS[side] : `${SIDE_WORDS[side]} ${ordinal}`;
}
