/** What documents of a deal state otherwise than the deal, and that in words. */
import { changesStated, statementKey, type Abstract, type FieldRead, type StatedChange } from '@gatepath/core/abstract';
import { dayOf, shortDay } from '@gatepath/core/calendar';
import {
  DATE_WORDS,
  dateOfKey,
  FACTS,
  factWords,
  type DealDocument,
  type FactValue,
  type Stating,
} from '@gatepath/core/deal';
import type { DocumentType } from '@gatepath/core/reading';
import { clip, lowerFirst, SIDE_WORDS, SIDES, type Side } from '@gatepath/core/text';
import type { PartyRow } from '../deal-records/party-queries';
import type { DealRow } from '../deal-records/queries';
import type { Db } from '../db/pool';
import { abstractsOfDeal, dismissedStatements } from '../documents/abstract-queries';
import type { DocumentRow } from '../documents/queries';

/** Types of documents that agree on the terms of a deal. */
const AGREEING: readonly DocumentType[] = [
  'purchase_agreement',
  'counteroffer',
  'listing_agreement',
  'lease',
  'addendum',
  'other',
];

/** Returns what the agreed documents of a deal state otherwise than the deal. */
export async function statedIn(
  db: Db,
  deal: DealRow,
  o: { documents: DocumentRow[]; found: DealDocument[]; parties: PartyRow[]; holidays: readonly string[] },
): Promise<StatedChange[]> {
  const abstracts = await abstractsOfDeal(db, deal.id);
  const done = new Set(
    o.found.filter((f) => f.status === 'executed' || f.status === 'elsewhere').map((f) => f.documentId),
  );
  const documents = [...o.documents].reverse().flatMap(({ id, name, type, created_at }) => {
    const abstract = abstracts.get(id);
    if (!abstract || !AGREEING.includes(type)) return [];
    const signed = abstract.fields.some(isSignature);
    // What nobody has signed changes nothing yet.
    return done.has(id) || signed
      ? [{ id, name, abstract: termsOf(abstract, type), since: dayOf(created_at.toISOString(), deal.time_zone) }]
      : [];
  });
  const gone = new Set(
    (await dismissedStatements(db, deal.id)).map((d) => statementKey(d.document_id, d.field, d.value)),
  );
  return changesStated(documents, { ...deal, parties: o.parties }, o.holidays, (key) => gone.has(key));
}

/** Returns whether a field is the day of the last signature. */
const isSignature = (f: FieldRead) => f.field === 'date.accepted' || f.field === 'date.lease_signed';

/** Returns what a document says about the deal: the signatures of an addendum are those of the addendum only. */
const termsOf = (a: Abstract, type: DocumentType): Abstract =>
  type === 'addendum' || type === 'other' ? { ...a, fields: a.fields.filter((f) => !isSignature(f)) } : a;

/** Returns the side of a field that names a person; null for any other field. */
export const sideOf = (field: string): Side | null => SIDES.find((side) => field === `side.${side}`) ?? null;

/** Returns a value in words: "Fri, Jan 15", "$412,000". */
function valueWords(field: string, value: FactValue): string {
  if (dateOfKey(field)) return shortDay(String(value), '');
  const def = FACTS.find((f) => `fact.${f.key}` === field);
  return def ? factWords(def, value) : String(value);
}

/** Returns what a field is called in a sentence: "closing", "price", "buyer". */
export function labelOf(field: string): string {
  const date = dateOfKey(field);
  const side = sideOf(field);
  if (date) return lowerFirst(DATE_WORDS[date]);
  if (side) return lowerFirst(SIDE_WORDS[side]);
  return lowerFirst(FACTS.find((f) => `fact.${f.key}` === field)?.label ?? field);
}

/** Returns a change in words: "closing Fri, Jan 15; the deal says Tue, Jan 12". */
export function statedWords(c: Pick<StatedChange, 'field' | 'value' | 'now'>): string {
  const says = `${labelOf(c.field)} ${valueWords(c.field, c.value)}`;
  return c.now === null ? `${says}; the deal has none` : `${says}; the deal says ${valueWords(c.field, c.now)}`;
}

/** Returns one line for each document that states something otherwise than its deal. */
export function statingOf(changes: readonly StatedChange[]): Stating[] {
  const byDocument = new Map<string, Stating>();
  for (const c of changes) {
    const known = byDocument.get(c.documentId);
    if (known) known.words += `; ${statedWords(c)}`;
    else
      byDocument.set(c.documentId, {
        documentId: c.documentId,
        name: c.name,
        since: c.since,
        words: `It says ${statedWords(c)}`,
      });
  }
  return [...byDocument.values()].map((s) => ({ ...s, words: clip(s.words, 240) }));
}
