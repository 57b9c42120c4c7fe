/** Which side of the deal a party stands on. */
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

/** Plain words for the sides of a deal. */
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

/** Whether a side is that of somebody who represents others. */
export const isBroker = (side: Side): boolean =>
  side === 'listing_broker' || side === 'buyer_broker' || side === 'manager';

/** "Seller 2"; a side of which there is usually one goes without a number unless it is past the first. */
export function sideLabel(side: Side, ordinal: number): string {
  return isBroker(side) && ordinal === 1 ? SIDE_WORDS[side] : `${SIDE_WORDS[side]} ${ordinal}`;
}
