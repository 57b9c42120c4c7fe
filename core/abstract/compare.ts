/** What documents of a deal state otherwise than the deal: another price, day or person. */
import { isDay } from '../calendar';
import type { DealKind, FactValue, KeyDates } from '../deal';
import { dateOfKey } from '../deal';
import { fold } from '../text/names';
import { isBroker, type Side } from '../text/sides';
import { dayOfStated } from './due';
import { isStatedDay, type Abstract, type FieldKey, type Source, type StatedDay } from './types';

/** A document with what it says. */
export interface StatingDocument {
  id: string;
  name: string;
  /** ISO day on which it was added. */
  since: string;
  abstract: Abstract;
}

/** The deal as it is. */
export interface StatedDeal {
  kind: DealKind;
  facts: Readonly<Record<string, FactValue>>;
  dates: KeyDates;
  parties: readonly { side: Side; name: string }[];
}

/** Something that a document states and the deal does not have, or has otherwise. */
export interface StatedChange {
  documentId: string;
  /** The document's name. */
  name: string;
  /** A fact, a key date, or a side of which a person is named. */
  field: FieldKey | `side.${Side}`;
  /** The value it states: a fact's, an ISO day, or a name. */
  value: FactValue;
  /** The deal's own value; null if it has none. */
  now: FactValue | null;
  /** For a counted day: how it was counted. */
  why: string | null;
  /** ISO day on which the document was added. */
  since: string;
  source: Source;
}

/** Returns what identifies a statement among all of a document. */
export const statementKey = (documentId: string, field: string, value: FactValue) =>
  `${documentId} ${field} ${String(value)}`;

/**
 * Returns what documents state otherwise than their deal. Of several documents that state the same field, the newest counts.
 * Only what is certain is returned.
 *
 * @param documents  the newest first
 * @param dismissed  whether a member does not want a statement reported
 */
export function changesStated(
  documents: readonly StatingDocument[],
  deal: StatedDeal,
  holidays: readonly string[],
  dismissed: (key: string) => boolean,
): StatedChange[] {
  const out: StatedChange[] = [];
  const seen = new Set<FieldKey>();
  for (const document of documents) {
    const { id: documentId, name, since, abstract } = document;
    for (const { field, readings, certain } of abstract.fields) {
      const reading = readings[0];
      const source = reading?.sources[0];
      // The address names the deal: a document with another one is of another deal.
      if (!reading || !source || field === 'address' || field === 'city' || field === 'kind' || seen.has(field))
        continue;
      // A newer document that contradicts itself hides what older ones say, too.
      if (readings.some((r) => r.clear)) seen.add(field);
      if (!certain) continue;
      const stated = workedOut(reading.value, deal.dates, holidays);
      if (!stated) continue;
      const date = dateOfKey(field);
      const now = (date ? deal.dates[date] : deal.facts[field.slice('fact.'.length)]) ?? null;
      // A deal is accepted once; a later document has its own signatures.
      const accepted = date === 'accepted' || date === 'lease_signed';
      if (now === stated.value || (accepted && now !== null)) continue;
      if (dismissed(statementKey(documentId, field, stated.value))) continue;
      out.push({ documentId, name, since, field, ...stated, now, source });
    }
    out.push(...newPeople(document, deal, dismissed));
  }
  return out;
}

/** Returns a stated value, a day worked out; null if it cannot be. */
export function workedOut(
  value: FactValue | StatedDay,
  dates: KeyDates,
  holidays: readonly string[],
): { value: FactValue; why: string | null } | null {
  if (!isStatedDay(value)) return { value, why: null };
  const day = dayOfStated(value, dates, holidays);
  return day && isDay(day.day) ? { value: day.day, why: day.why } : null;
}

/** Returns the people whom a document names on a side of the deal that has others, but not them. */
function newPeople(
  { id: documentId, name, since, abstract }: StatingDocument,
  deal: StatedDeal,
  dismissed: (key: string) => boolean,
): StatedChange[] {
  return abstract.people.flatMap((p): StatedChange[] => {
    const source = p.sources[0];
    const side = deal.parties.filter((x) => x.side === p.side);
    if (!p.certain || !source || isBroker(p.side) || !side.length) return [];
    if (deal.parties.some((x) => isSamePerson(x.name, p.name))) return [];
    const field = `side.${p.side}` as const;
    if (dismissed(statementKey(documentId, field, p.name))) return [];
    return [
      { documentId, name, since, field, value: p.name, now: side.map((x) => x.name).join(', '), why: null, source },
    ];
  });
}

/** Returns whether two names are one person's: middle names and initials may be left out. */
function isSamePerson(a: string, b: string): boolean {
  const words = (name: string) =>
    fold(name)
      .split(/[^\p{L}\d]+/u)
      .filter((w) => w.length > 1);
  const [x, y] = [words(a), words(b)].sort((p, q) => p.length - q.length) as [string[], string[]];
  return x.length > 0 && x.every((w) => y.includes(w));
}
