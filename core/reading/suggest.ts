/** What type of document a paper is, suggested from its words. */
import { plain } from './words';

export const DOCUMENT_TYPES = [
  'listing_agreement',
  'purchase_agreement',
  'lease',
  'disclosure',
  'agency_disclosure',
  'addendum',
  'notice',
  'inspection',
  'trust',
  'picture',
  'other',
] as const;
export type DocumentType = (typeof DOCUMENT_TYPES)[number];

export const TYPE_WORDS: Record<DocumentType, string> = {
  listing_agreement: 'Listing agreement',
  purchase_agreement: 'Purchase agreement',
  lease: 'Lease',
  disclosure: 'Disclosure',
  agency_disclosure: 'Agency disclosure',
  addendum: 'Addendum',
  notice: 'Notice',
  inspection: 'Inspection',
  trust: 'Trust paper',
  picture: 'Photographed paper',
  other: 'Other paper',
};

/** Whether the title says so: the word is among the first seven. */
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

const says = (type: DocumentType, title: RegExp, text: string) =>
  title.test(text) || (type === 'notice' && beginsWithNotice(text));

/**
 * The likeliest type of a paper.
 *
 * @param text   its words, page by page or the first pages only
 * @param name   its file name, which often says it
 */
export function suggestType(text: string, name = ''): DocumentType {
  const all = plain(text).slice(0, 20_000);
  const head = `${plain(name).replace(/[_-]+/g, ' ')} ${all.slice(0, 240)}`;
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
  return most >= 2.5 ? best : 'other';
}
