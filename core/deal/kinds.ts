/** Kinds of deals: for whom the firm acts in them, their statuses and their key dates. */
import type { Side } from '../text/sides';

/** Kinds of deals. */
export const DEAL_KINDS = ['listing', 'sale', 'tenancy'] as const;
/** One of `DEAL_KINDS`. */
export type DealKind = (typeof DEAL_KINDS)[number];
/** Labels of the kinds of deals. */
export const KIND_WORDS: Record<DealKind, string> = { listing: 'Listing', sale: 'Sale', tenancy: 'Tenancy' };

/** The sides a firm can act for. */
export const FOR_WHOM = ['seller', 'buyer', 'landlord', 'tenant', 'both'] as const;
/** The side the firm acts for; `both` for both main sides. */
export type ForWhom = (typeof FOR_WHOM)[number];

/** For whom the firm can act in each kind of deal; the first is the usual one. */
export const FOR_WHOM_OF: Record<DealKind, readonly ForWhom[]> = {
  listing: ['seller', 'both'],
  sale: ['seller', 'buyer', 'both'],
  tenancy: ['landlord', 'tenant', 'both'],
};

/** Returns for whom the firm acts: "for the seller", "for both sides". */
export const forWhomWords = (whom: ForWhom) => (whom === 'both' ? 'for both sides' : `for the ${whom}`);

/** Statuses of deals of all kinds; `STATUSES_OF` says which belong to which. */
export const DEAL_STATUSES = [
  'preparing',
  'active',
  'under_contract',
  'closed',
  'fell_through',
  'offered',
  'agreed',
  'running',
  'notice_given',
  'ended',
] as const;
/** One of `DEAL_STATUSES`. */
export type DealStatus = (typeof DEAL_STATUSES)[number];

/** Labels of the statuses of deals. */
export const STATUS_WORDS: Record<DealStatus, string> = {
  preparing: 'preparing',
  active: 'active',
  under_contract: 'under contract',
  closed: 'closed',
  fell_through: 'fell through',
  offered: 'offered',
  agreed: 'agreed',
  running: 'current',
  notice_given: 'notice given',
  ended: 'ended',
};

/** Statuses of each kind of deal in the usual order; the first is the initial one. */
export const STATUSES_OF: Record<DealKind, readonly DealStatus[]> = {
  listing: ['preparing', 'active', 'under_contract', 'closed', 'fell_through'],
  sale: ['preparing', 'active', 'under_contract', 'closed', 'fell_through'],
  tenancy: ['offered', 'agreed', 'running', 'notice_given', 'ended', 'fell_through'],
};

/** Returns whether a deal needs nothing anymore. An active tenancy still needs papers. */
export const isOver = (status: DealStatus) => status === 'closed' || status === 'fell_through' || status === 'ended';

/** Names of all key dates. */
export const KEY_DATES = [
  'listed',
  'accepted',
  'disclosed',
  'inspection',
  'loan',
  'closing',
  'lease_signed',
  'move_in',
  'notice_given',
  'end',
] as const;
/** A key date: a day of the deal from which others are counted. */
export type KeyDate = (typeof KEY_DATES)[number];

/** As a label: "Accepted". */
export const DATE_WORDS: Record<KeyDate, string> = {
  listed: 'Listed',
  accepted: 'Accepted',
  disclosed: 'Disclosed',
  inspection: 'Inspection',
  loan: 'Loan',
  closing: 'Closing',
  lease_signed: 'Lease signed',
  move_in: 'Move-in',
  notice_given: 'Notice given',
  end: 'End',
};
/** Within a sentence: "3 days after the offer is accepted". */
export const DATE_PHRASES: Record<KeyDate, string> = {
  listed: 'it is listed',
  accepted: 'the offer is accepted',
  disclosed: 'the disclosures are handed over',
  inspection: 'the inspection',
  loan: 'the loan is agreed',
  closing: 'closing',
  lease_signed: 'the lease is signed',
  move_in: 'move-in',
  notice_given: 'notice is given',
  end: 'the tenancy ends',
};

/** The key dates of each kind of deal, in the order in which they usually come. */
export const DATES_OF: Record<DealKind, readonly KeyDate[]> = {
  listing: ['listed', 'accepted', 'disclosed', 'inspection', 'loan', 'closing'],
  sale: ['accepted', 'disclosed', 'inspection', 'loan', 'closing'],
  tenancy: ['lease_signed', 'move_in', 'notice_given', 'end'],
};

/** The target date of each kind of deal: nothing may be open when it comes. */
export const GOAL: Record<DealKind, KeyDate> = { listing: 'closing', sale: 'closing', tenancy: 'move_in' };

/** Known key dates by name. */
export type KeyDates = Partial<Record<KeyDate, string>>;

const OURS: Record<ForWhom, readonly Side[]> = {
  seller: ['seller', 'listing_broker'],
  buyer: ['buyer', 'buyer_broker'],
  landlord: ['landlord', 'manager', 'listing_broker'],
  tenant: ['tenant', 'guarantor', 'buyer_broker'],
  both: ['seller', 'buyer', 'landlord', 'tenant', 'guarantor', 'manager', 'listing_broker', 'buyer_broker'],
};

/** Returns whether a party's side is one the firm acts for. */
export const isOurs = (whom: ForWhom, side: Side) => OURS[whom].includes(side);

const SALE_SIDES: readonly Side[] = ['seller', 'buyer', 'listing_broker', 'buyer_broker', 'other'];
const TENANCY_SIDES: readonly Side[] = ['landlord', 'tenant', 'guarantor', 'manager', 'listing_broker', 'other'];

/** Returns the sides of a deal, ours first: forms ask for them in this order. */
export function sidesOf(kind: DealKind, whom: ForWhom): Side[] {
  const all = kind === 'tenancy' ? TENANCY_SIDES : SALE_SIDES;
  return [...all.filter((s) => isOurs(whom, s)), ...all.filter((s) => !isOurs(whom, s))];
}
