/** Contracts among the labeled forms, and what each of their blanks is filled with. */
import type { DealKind } from '@gatepath/core/deal';

/** What a blank holds. A part of a day ends in `.d`, `.m` or `.y`; `sellers` are all names of a side. */
export type Slot = string;

/** A contract to be filled in. */
export interface IntakeForm {
  name: string;
  kind: DealKind;
  spanish?: true;
  /** By the position of the place among the form's labels. */
  blanks: Readonly<Record<number, Slot>>;
  /** What is printed on the form already. */
  printed?: Readonly<Record<string, string | number>>;
  people?: Readonly<Record<string, string[]>>;
}

/** Contracts by other hands first, then our own; each was labeled before it was read. */
export const INTAKE_FORMS: readonly IntakeForm[] = [
  { name: 'purchase-agreement-fields', kind: 'sale', blanks: { 0: 'address', 1: 'price', 2: 'closing', 5: 'note', 15: 'buyer1', 18: 'buyer2', 21: 'seller1', 24: 'seller2' } },
  {
    name: 'offer-prefilled-kit',
    kind: 'sale',
    blanks: { 0: 'closing', 1: 'note', 2: 'otherAmount', 7: 'years', 8: 'rate' },
    printed: { address: '3 Sluice Lane', city: 'Tern Lock', 'fact.price': 389_000 },
    people: { buyer: ['Perpetua Lindqvist', 'Abel Okonjo'], seller: ['Odile Marchbanks'] },
  },
  { name: 'offer-corner-initials', kind: 'sale', blanks: { 0: 'made.d', 1: 'made.m', 2: 'made.y', 3: 'lot', 4: 'buyer1', 5: 'buyer2', 6: 'price', 7: 'address', 8: 'deposit', 9: 'otherAmount', 10: 'rate', 11: 'loan' } },
  { name: 'purchase-writer', kind: 'sale', blanks: { 0: 'made', 18: 'note', 19: 'deposit', 20: 'price', 21: 'buyers', 22: 'sellers' } },
  { name: 'long-sale-sheet', kind: 'sale', blanks: { 0: 'sellers', 1: 'buyers', 2: 'address', 3: 'price', 4: 'deposit', 5: 'otherAmount', 6: 'years', 7: 'rate', 12: 'closing', 13: 'hour', 14: 'inspection' } },
  { name: 'offer-browser', kind: 'sale', blanks: { 0: 'made', 1: 'street', 2: 'price', 3: 'deposit', 4: 'otherDay', 5: 'hour', 6: 'closing.d', 7: 'closing.m', 8: 'closing.yy' }, printed: { city: 'Tern Lock' } },
  { name: 'agreement-cells-browser', kind: 'sale', blanks: { 0: 'made.d', 1: 'made.m', 2: 'made.yy', 3: 'sellers', 4: 'buyers', 5: 'street', 7: 'priceWords', 8: 'price', 9: 'rate' } },
  { name: 'compraventa-browser', kind: 'sale', spanish: true, blanks: { 0: 'sellers', 1: 'buyers', 2: 'address', 3: 'price', 4: 'deposit' } },
  { name: 'oferta-writer', kind: 'sale', spanish: true, blanks: { 0: 'made', 12: 'deposit', 13: 'price', 14: 'buyers' } },
  { name: 'preamble-writer', kind: 'tenancy', blanks: { 0: 'made', 7: 'hour', 8: 'number', 9: 'number', 10: 'number', 11: 'rent', 12: 'end', 13: 'start', 14: 'address', 15: 'tenant2', 16: 'tenant1', 17: 'town.other', 18: 'landlord1' } },
  { name: 'residential-lease-dense', kind: 'tenancy', blanks: { 0: 'made.d', 1: 'made.m', 2: 'made.yy', 3: 'landlords', 4: 'tenant1', 5: 'tenant2', 6: 'tenant3', 7: 'address', 8: 'number', 10: 'start', 11: 'end', 14: 'rent', 15: 'number', 19: 'deposit', 20: 'small', 21: 'note', 97: 'landlord1', 100: 'tenant1', 103: 'tenant2', 106: 'tenant3' } },
  { name: 'lease-short-fields', kind: 'tenancy', blanks: { 0: 'address', 1: 'rent', 2: 'end', 8: 'landlord1', 11: 'tenant1', 14: 'tenant2' } },
  { name: 'contrato-arrendamiento-es', kind: 'tenancy', spanish: true, blanks: { 0: 'town.other', 1: 'made.d', 2: 'made.m', 3: 'made.yy', 4: 'landlords', 5: 'tenants', 6: 'address', 7: 'rent', 8: 'number', 12: 'deposit', 13: 'start', 14: 'end', 22: 'landlord1', 23: 'tenant1', 27: 'tenant2' } },
  { name: 'room-lease-dot-leaders', kind: 'tenancy', blanks: { 0: 'landlords', 1: 'tenants', 2: 'address', 3: 'rent', 4: 'start' } },
  { name: 'lease-margin-a4', kind: 'tenancy', blanks: { 0: 'landlords', 1: 'made.d', 2: 'made.n', 3: 'made.y', 4: 'tenant1', 5: 'tenant2', 6: 'address', 7: 'rent', 8: 'start', 9: 'end', 49: 'landlord1', 50: 'tenant1', 51: 'tenant2' } },
  { name: 'lease-writer', kind: 'tenancy', blanks: { 0: 'landlords', 4: 'guarantor1', 17: 'end', 18: 'start', 19: 'deposit', 20: 'rent', 21: 'address', 22: 'tenants' } },
  { name: 'company-lease-writer', kind: 'tenancy', blanks: { 0: 'landlordCompany', 2: 'office', 5: 'office', 11: 'end', 12: 'start', 13: 'number', 14: 'number', 15: 'deposit', 16: 'rent', 17: 'address', 18: 'tenantCompany' } },
  { name: 'long-lease-browser', kind: 'tenancy', blanks: { 0: 'made.d', 1: 'made.m', 2: 'made.yy', 3: 'landlords', 4: 'tenants', 5: 'address', 6: 'start', 7: 'end', 10: 'rent', 11: 'number', 12: 'rate', 13: 'deposit', 14: 'note', 20: 'landlord1', 23: 'tenant1' } },
  { name: 'arriendo-browser', kind: 'tenancy', spanish: true, blanks: { 0: 'town.other', 1: 'made.d', 2: 'made.m', 3: 'made.yy', 4: 'landlords', 5: 'tenants', 6: 'rent', 7: 'mail', 10: 'landlord1', 13: 'tenant1', 16: 'tenant2', 19: 'guarantor1' } },
  { name: 'listing-agreement-dense', kind: 'listing', blanks: { 0: 'address', 1: 'start', 2: 'otherDay', 3: 'price', 4: 'priceWords', 5: 'number', 6: 'rate.commission', 7: 'otherAmount', 10: 'note', 12: 'small', 76: 'seller1', 77: 'phone', 80: 'seller2', 81: 'phone', 82: 'brokerFirm' } },
  { name: 'right-to-sell-foot-cells', kind: 'listing', blanks: { 0: 'seller1', 1: 'seller2', 2: 'street', 3: 'town', 4: 'start', 5: 'otherDay', 6: 'price', 7: 'commission.bare' } },
  { name: 'listing-pages-browser', kind: 'listing', blanks: { 0: 'sellers', 1: 'brokerFirm', 2: 'start', 3: 'otherDay', 4: 'address', 5: 'price', 6: 'rate.commission', 7: 'otherAmount' } },
  { name: 'brokerage-browser', kind: 'listing', blanks: { 0: 'sellers', 1: 'price', 2: 'start', 3: 'otherDay', 4: 'rate.commission', 16: 'brokerFirm' } },
  { name: 'corretaje-writer', kind: 'listing', spanish: true, blanks: { 0: 'sellers', 11: 'otherDay', 12: 'start', 13: 'price', 14: 'address' } },
];
