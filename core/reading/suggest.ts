/** The type of a document, suggested by its words. */
import { plain } from './words';

/** Types of documents. */
export const DOCUMENT_TYPES = [
  'listing_agreement',
  'purchase_agreement',
  'counteroffer',
  'lease',
  'disclosure',
  'seller_disclosure',
  'lead_paint',
  'water',
  'septic',
  'tank',
  'flood',
  'leased_ground',
  'association',
  'agency_disclosure',
  'both_sides',
  'addendum',
  'pets',
  'guaranty',
  'house_rules',
  'inventory',
  'notice',
  'inspection',
  'condition',
  'receipt',
  'closing_statement',
  'trust',
  'picture',
  'other',
] as const;
/** One of `DOCUMENT_TYPES`. */
export type DocumentType = (typeof DOCUMENT_TYPES)[number];

/** Labels of the document types. */
export const TYPE_WORDS: Record<DocumentType, string> = {
  listing_agreement: 'Listing agreement',
  purchase_agreement: 'Purchase agreement',
  counteroffer: 'Counteroffer',
  lease: 'Lease',
  disclosure: 'Disclosure',
  seller_disclosure: 'Seller’s disclosure',
  lead_paint: 'Lead paint disclosure',
  water: 'Well statement',
  septic: 'Septic statement',
  tank: 'Buried tank statement',
  flood: 'Flood zone notice',
  leased_ground: 'Leased ground paper',
  association: 'Association papers',
  agency_disclosure: 'Agency disclosure',
  both_sides: 'Consent to act for both sides',
  addendum: 'Addendum',
  pets: 'Pet addendum',
  guaranty: 'Guaranty',
  house_rules: 'House rules',
  inventory: 'Inventory',
  notice: 'Notice',
  inspection: 'Inspection',
  condition: 'Condition report',
  receipt: 'Receipt for money held',
  closing_statement: 'Closing statement',
  trust: 'Trust paper',
  picture: 'Photographed paper',
  other: 'Other paper',
};

/** Returns whether the title says so: the word is among the first seven. */
const beginsWithNotice = (text: string) => text.split(/\W+/, 9).filter(Boolean).slice(0, 7).includes('notice');

const SIGNS: [DocumentType, RegExp, RegExp][] = [
  [
    'agency_disclosure',
    /\bagency (?:disclosure|relationship)|who acts for whom|for whom the broker acts|representacion del agente/,
    /\bagency|acts for/g,
  ],
  [
    'listing_agreement',
    /\blisting (?:agreement|contract)|exclusive right to (?:sell|lease)|contrato de corretaje/,
    /\blisting\b/g,
  ],
  ['addendum', /\baddendum|amendment|\brider\b|anexo|enmienda/, /\baddendum|amend/g],
  ['notice', /\bnotice (?:to|of)\b|\baviso\b/, /\bnotice\b/g],
  [
    'inspection',
    /\binspection (?:report|notice|contingency)|move-?in (?:checklist|condition)|condition report/,
    /\binspection|condition\b/g,
  ],
  [
    'lease',
    /\b(?:lease|rental|tenancy|berth) agreement|residential lease|contrato de (?:arrendamiento|alquiler)|\btenancy\b/,
    /\btenant|lease|rent\b/g,
  ],
  [
    'purchase_agreement',
    /\b(?:purchase|sale) (?:and sale )?(?:agreement|contract)|offer to purchase|compraventa/,
    /\bpurchase|buyer\b/g,
  ],
  ['disclosure', /\bdisclosure|declaracion/, /\bdisclos/g],
  ['trust', /\btrust(?:ee)? (?:certification|agreement)|certification of trust|power of attorney/, /\btrustee?\b/g],
];

/** Finer types, by the title alone: the words within such documents are those of many others. */
const TITLES: [DocumentType, RegExp][] = [
  ['lead_paint', /\blead[- ](?:based )?paint|pintura (?:a base de|con) plomo/],
  ['both_sides', /\bconsent (?:to|of) (?:act|both|dual)|act for both/],
  ['septic', /\bseptic\b/],
  ['tank', /\b(?:buried|oil|fuel) tank\b/],
  ['water', /\bwell (?:statement|test|water|disclosure)|\bprivate well\b/],
  ['flood', /\bflood (?:zone|risk|hazard|disclosure|notice)/],
  ['leased_ground', /\b(?:leased ground|ground lease|leasehold)\b/],
  ['association', /\b(?:association|condominium) (?:papers|documents|disclosure|rules|addendum|statement)/],
  ['pets', /\bpets? (?:addendum|agreement|rider)\b|\banexo de mascotas/],
  ['guaranty', /\bguarant(?:y|ee|or agreement)\b/],
  ['house_rules', /\b(?:house|building|community) rules\b/],
  ['inventory', /\binventory\b/],
  ['condition', /\b(?:move-?in (?:checklist|condition)|condition report)\b/],
  ['receipt', /\breceipt\b/],
  ['closing_statement', /\b(?:closing|settlement) statement\b/],
  [
    'seller_disclosure',
    /\bsellers?'?s? (?:property )?(?:condition )?disclosure|property (?:condition )?disclosure statement/,
  ],
];
/** A counter-offer has the text of the agreement it answers: only its title shows it. */
const COUNTER = /\bcounter[ -]?offer\b|\bcontraoferta\b/;

/** Types that a title may refine; the others stay, whatever else their title says. */
const COARSE: readonly DocumentType[] = ['disclosure', 'addendum', 'notice', 'inspection', 'trust', 'lease', 'other'];

const says = (type: DocumentType, title: RegExp, text: string) =>
  title.test(text) || (type === 'notice' && beginsWithNotice(text));

/**
 * Returns the most likely type of a document.
 *
 * @param text   its words; the first pages are enough
 * @param name   its file name, which often says it
 */
export function suggestType(text: string, name = ''): DocumentType {
  const all = plain(text).slice(0, 20_000);
  const head = `${plain(name).replace(/[_-]+/g, ' ')} ${all.slice(0, 240)}`;
  if (COUNTER.test(`${plain(name).replace(/[_-]+/g, ' ')} ${all.slice(0, 60)}`)) return 'counteroffer';
  let best: DocumentType = 'other';
  let most = 0;
  for (const [type, title, words] of SIGNS) {
    const score =
      (says(type, title, head) ? 10 : 0) +
      (says(type, title, all) ? 2 : 0) +
      Math.min(6, (all.match(words) ?? []).length / 3);
    if (score > most + 0.01) {
      best = type;
      most = score;
    }
  }
  const coarse = most >= 2.5 ? best : 'other';
  if (!COARSE.includes(coarse)) return coarse;
  // A lease's title may end in a word of another paper; only what stands near the beginning counts.
  const title = `${plain(name).replace(/[_-]+/g, ' ')} ${all.slice(0, coarse === 'lease' ? 60 : 120)}`;
  if (coarse === 'lease' && /\b(?:lease|rental|tenancy|berth) agreement|residential lease/.test(title)) return coarse;
  return TITLES.find(([, words]) => words.test(title))?.[0] ?? coarse;
}
