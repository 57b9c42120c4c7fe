/** What happened in the firm's year before today: thirty deals with their people, facts, days and papers. */
import type { DocumentPatch } from '@gatepath/contract';
import type { DealKind, DealStatus, FactValue, ForWhom, KeyDate } from '@gatepath/core/deal';
import type { Side } from '@gatepath/core/text';

type Type = NonNullable<DocumentPatch['type']>;
/** What became of a packet: signed by all, by the first so many, opened only, or ended otherwise. */
export type Fate = 'executed' | 'first' | 'opened' | 'asked' | 'draft' | 'declined' | 'withdrawn' | 'lapsed';

export interface Paper {
  type: Type;
  title: string;
  /** By their places in the deal's list; nobody for one that is only kept. */
  signers: number[];
  fate: Fate | 'kept';
  /** Days after the deal was opened. */
  after?: number;
}

export interface Story {
  /** Days before today on which it was opened. */
  ago: number;
  kind: DealKind;
  forWhom: ForWhom;
  address: string;
  people: [Side, string][];
  facts: Record<string, FactValue>;
  /** Days from today. */
  dates: Partial<Record<KeyDate, number>>;
  status: DealStatus;
  papers: Paper[];
  tags?: string[];
}

const BUYERS_HOUSE = {
  year_built: 1998,
  association: false,
  water: 'town',
  waste: 'sewer',
  tank: false,
  flood_zone: false,
  leased_ground: false,
  owner: 'people',
};
const p = (type: Type, title: string, signers: number[], fate: Paper['fate'], after = 1): Paper => ({
  type,
  title,
  signers,
  fate,
  after,
});
const agreement = (signers: number[], fate: Fate = 'executed') =>
  p('purchase_agreement', 'Purchase agreement', signers, fate);
const disclosure = (signers: number[], fate: Fate = 'executed') =>
  p('seller_disclosure', 'Seller’s disclosure', signers, fate);
const lease = (signers: number[], fate: Fate = 'executed') => p('lease', 'Lease', signers, fate);

/** Returns what a tenancy that runs has beside its lease. */
const movedIn = (tenant = 1): Paper[] => [
  p('condition', 'Condition report', [tenant], 'executed', 3),
  p('receipt', 'Deposit receipt', [], 'kept', 2),
];
export const STORIES: Story[] = [
  {
    ago: 330,
    kind: 'sale',
    forWhom: 'seller',
    address: '3 Reed End',
    people: [
      ['seller', 'Nadia Brandt'],
      ['buyer', 'Ivo Castellan'],
    ],
    facts: { ...BUYERS_HOUSE, price: 289_000 },
    dates: { accepted: -322, closing: -290 },
    status: 'closed',
    papers: [agreement([0, 1]), disclosure([0])],
  },
  {
    ago: 312,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '9 Basin Street',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Noor Haddad'],
    ],
    facts: { rent: 1_420, deposit: 2_840, year_built: 1931, pets: false },
    dates: { lease_signed: -308, move_in: -300, end: 65 },
    status: 'running',
    papers: [p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed'), ...movedIn(), lease([0, 1])],
  },
  {
    ago: 290,
    kind: 'listing',
    forWhom: 'seller',
    address: '21 Towline Road',
    people: [
      ['seller', 'Aurel Pop'],
      ['seller', 'Ioana Pop'],
    ],
    facts: { ...BUYERS_HOUSE, price: 335_000 },
    dates: { listed: -285 },
    status: 'fell_through',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1], 'withdrawn')],
  },
  {
    ago: 268,
    kind: 'sale',
    forWhom: 'buyer',
    address: '2 Cooper’s Wharf',
    people: [
      ['buyer', 'Lena Fischer'],
      ['seller', 'Marguerite Lowe'],
    ],
    facts: { ...BUYERS_HOUSE, price: 512_000, flood_zone: true },
    dates: { accepted: -260, closing: -228 },
    status: 'closed',
    papers: [agreement([0, 1]), p('flood', 'Flood zone notice', [0], 'executed')],
  },
  {
    ago: 244,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 2A, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Samir Rahal'],
      ['guarantor', 'Amal Rahal'],
    ],
    facts: { rent: 1_690, deposit: 3_380, year_built: 2004, guaranteed: true, units: 12 },
    dates: { lease_signed: -240, move_in: -232, end: 133 },
    status: 'running',
    papers: [
      p('house_rules', 'House rules', [1], 'executed'),
      ...movedIn(),
      lease([0, 1]),
      p('guaranty', 'Guaranty', [2], 'executed'),
    ],
  },
  {
    ago: 221,
    kind: 'sale',
    forWhom: 'seller',
    address: '40 Weir Terrace',
    people: [
      ['seller', 'Oskar Lindqvist'],
      ['buyer', 'Delia Marsh'],
    ],
    facts: { ...BUYERS_HOUSE, price: 401_500, year_built: 1955 },
    dates: { accepted: -214, closing: -180 },
    status: 'closed',
    papers: [agreement([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 198,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '11 Mill Cut',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Ruth Okafor'],
    ],
    facts: { rent: 1_150, deposit: 1_150, furnished: true },
    dates: { lease_signed: -195, move_in: -187, end: -4 },
    status: 'ended',
    papers: [lease([0, 1]), p('inventory', 'Inventory', [1], 'executed')],
  },
  {
    ago: 176,
    kind: 'listing',
    forWhom: 'seller',
    address: '6 Lantern Row',
    people: [
      ['seller', 'Greta Halloran'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 378_000, water: 'well' },
    dates: { listed: -170, accepted: -120, closing: -84 },
    status: 'closed',
    papers: [
      p('listing_agreement', 'Listing agreement', [0, 1], 'executed'),
      p('water', 'Well statement', [0], 'executed'),
    ],
  },
  {
    ago: 150,
    kind: 'sale',
    forWhom: 'seller',
    address: '17 Tow Lane',
    people: [
      ['seller', 'Pavel Dvorak'],
      ['buyer', 'Simone Achebe'],
    ],
    facts: { ...BUYERS_HOUSE, price: 266_000 },
    dates: { accepted: -143 },
    status: 'fell_through',
    papers: [agreement([0, 1], 'declined')],
  },
  {
    ago: 131,
    kind: 'tenancy',
    forWhom: 'tenant',
    address: '5 Basin Street',
    people: [
      ['tenant', 'Kofi Mensah'],
      ['landlord', 'Ursula Beck'],
    ],
    facts: { rent: 990, deposit: 990, year_built: 1968 },
    dates: { lease_signed: -128, move_in: -120, end: 245 },
    status: 'running',
    papers: [...movedIn(0), lease([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 112,
    kind: 'sale',
    forWhom: 'buyer',
    address: '8 Quay Cottages',
    people: [
      ['buyer', 'Tamsin Reyes'],
      ['seller', 'Edmund Vale'],
    ],
    facts: { ...BUYERS_HOUSE, price: 229_900, waste: 'septic' },
    dates: { accepted: -104, closing: -70 },
    status: 'closed',
    papers: [agreement([0, 1]), p('septic', 'Septic statement', [1], 'executed')],
  },
  {
    ago: 96,
    kind: 'listing',
    forWhom: 'seller',
    address: '30 Orchard Lane',
    people: [
      ['seller', 'Lotte Verhoeven'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 449_000 },
    dates: { listed: -90 },
    status: 'active',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1], 'executed'), disclosure([0])],
    tags: ['slow'],
  },
  {
    ago: 80,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 5, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Hana Sato'],
    ],
    facts: { rent: 1_730, deposit: 3_460, year_built: 2004, pets: true },
    dates: { lease_signed: -76, move_in: -70, end: 295 },
    status: 'running',
    papers: [...movedIn(), lease([0, 1]), p('pets', 'Pet addendum', [0, 1], 'lapsed')],
  },
  {
    ago: 61,
    kind: 'sale',
    forWhom: 'both',
    address: '12 Lock Hill',
    people: [
      ['seller', 'Joan Pritchard'],
      ['buyer', 'Abel Nkosi'],
    ],
    facts: { ...BUYERS_HOUSE, price: 305_000 },
    dates: { accepted: -52, closing: -14 },
    status: 'closed',
    papers: [p('both_sides', 'Consent to act for both sides', [0, 1], 'executed'), agreement([0, 1])],
  },
  {
    ago: 47,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '2 Mill Cut',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Ellen Ferrars'],
    ],
    facts: { rent: 1_210, deposit: 1_210, year_built: 1974, pets: false, furnished: false },
    dates: { lease_signed: -42, move_in: -35, notice_given: -6, end: 22 },
    status: 'notice_given',
    papers: [...movedIn(), lease([0, 1]), p('lead_paint', 'Lead paint disclosure', [0, 1], 'executed')],
  },
  {
    ago: 38,
    kind: 'sale',
    forWhom: 'seller',
    address: '88 Orchard Lane',
    people: [
      ['seller', 'Marta Silva'],
      ['buyer', 'Ben Whitlock'],
    ],
    facts: { ...BUYERS_HOUSE, price: 397_000, year_built: 1969, earnest: 8_000 },
    dates: { accepted: -30, inspection: -20, loan: -9, closing: 3 },
    status: 'under_contract',
    papers: [
      agreement([0, 1]),
      disclosure([0]),
      p('lead_paint', 'Lead paint disclosure', [0, 1], 'first', 33),
      p('receipt', 'Earnest money receipt', [], 'kept'),
    ],
    tags: ['closing soon'],
  },
  {
    ago: 33,
    kind: 'listing',
    forWhom: 'seller',
    address: '4 Swing Bridge',
    people: [
      ['seller', 'Mina Petrov'],
      ['seller', 'Stefan Petrov'],
      ['listing_broker', 'Tobias Mercer'],
    ],
    facts: { ...BUYERS_HOUSE, price: 520_000, association: true },
    dates: { listed: -25 },
    status: 'active',
    papers: [p('listing_agreement', 'Listing agreement', [0, 1, 2], 'executed'), disclosure([0, 1], 'draft')],
  },
  {
    ago: 27,
    kind: 'sale',
    forWhom: 'buyer',
    address: '5 Tow Lane',
    people: [
      ['buyer', 'Priya Nair'],
      ['seller', 'Walter Kemp'],
    ],
    facts: { ...BUYERS_HOUSE, price: 341_000 },
    dates: { accepted: -21, inspection: -8, loan: 5, closing: 19 },
    status: 'under_contract',
    papers: [agreement([0, 1])],
  },
  {
    ago: 22,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '14 Basin Street',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Yusuf Demir'],
      ['guarantor', 'Selin Demir'],
    ],
    facts: { rent: 1_480, deposit: 2_960, year_built: 1926, guaranteed: true },
    dates: { lease_signed: 2, move_in: 9, end: 374 },
    status: 'agreed',
    papers: [
      p('guaranty', 'Guaranty', [2], 'asked', 18),
      p('lead_paint', 'Lead paint disclosure', [0, 1], 'opened', 17),
    ],
  },
  {
    ago: 18,
    kind: 'sale',
    forWhom: 'seller',
    address: '9 Mill Cut',
    people: [
      ['seller', 'Dora Lindholm'],
      ['buyer', 'Chidi Eze'],
    ],
    facts: { ...BUYERS_HOUSE, price: 275_500 },
    dates: { accepted: -12, inspection: 0, closing: 26 },
    status: 'under_contract',
    papers: [agreement([0, 1]), disclosure([0], 'opened')],
  },
  {
    ago: 14,
    kind: 'sale',
    forWhom: 'seller',
    address: '26 Lock Hill',
    people: [
      ['seller', 'Orla Byrne'],
      ['buyer', 'Max Adler'],
    ],
    facts: { ...BUYERS_HOUSE, price: 362_000, owner: 'trust' },
    dates: { accepted: -8, inspection: 4, closing: 33 },
    status: 'under_contract',
    papers: [agreement([0, 1], 'asked')],
  },
  {
    ago: 11,
    kind: 'listing',
    forWhom: 'seller',
    address: '1 Lantern Row',
    people: [['seller', 'Felix Amsel']],
    facts: { price: 298_000 },
    dates: { listed: 1 },
    status: 'preparing',
    papers: [p('listing_agreement', 'Listing agreement', [0], 'opened', 7)],
  },
  {
    ago: 9,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: 'Unit 1C, Cooper’s Wharf',
    people: [
      ['landlord', 'Henrike Osei'],
      ['tenant', 'Grace Oduya'],
    ],
    facts: {
      rent: 1_600,
      deposit: 3_200,
      year_built: 2004,
      pets: false,
      furnished: true,
      units: 12,
      guaranteed: false,
    },
    dates: { lease_signed: -1, move_in: 6, end: 371 },
    status: 'agreed',
    papers: [lease([0, 1])],
  },
  {
    ago: 7,
    kind: 'sale',
    forWhom: 'buyer',
    address: '33 Towline Road',
    people: [
      ['buyer', 'Caspian Holt'],
      ['seller', 'Ida Novak'],
    ],
    facts: { price: 318_000, association: true },
    dates: { accepted: -5, closing: 40 },
    status: 'under_contract',
    papers: [agreement([0, 1], 'first')],
  },
  {
    ago: 5,
    kind: 'tenancy',
    forWhom: 'landlord',
    address: '7 Basin Street',
    people: [
      ['landlord', 'Bertil Strand'],
      ['tenant', 'Mia Larsen'],
    ],
    facts: { rent: 1_050 },
    dates: { move_in: 17 },
    status: 'offered',
    papers: [lease([0, 1], 'draft')],
  },
  {
    ago: 3,
    kind: 'listing',
    forWhom: 'seller',
    address: '19 Quay Cottages',
    people: [
      ['seller', 'Viktor Hale'],
      ['seller', 'Anya Hale'],
    ],
    facts: { year_built: 1948 },
    dates: {},
    status: 'preparing',
    papers: [],
  },
  {
    ago: 1,
    kind: 'sale',
    forWhom: 'seller',
    address: '50 Reed End',
    people: [
      ['seller', 'Rosa Whitfield'],
      ['buyer', 'Jun Tanaka'],
    ],
    facts: { ...BUYERS_HOUSE, price: 287_000 },
    dates: { accepted: -1, closing: 44 },
    status: 'under_contract',
    papers: [],
  },
];
