/** Reads what a contract says about its deal. */
import type { DealKind, FactValue } from '../deal';
import { sidesOf } from '../deal';
import { suggestType } from '../reading/suggest';
import { plain, senseOf } from '../reading/words';
import { addressesIn } from './address';
import { flagsIn } from './flags';
import { mentionsIn } from './people';
import { peopleOf } from './persons';
import { MOST_WORDS, piecesOfAll } from './pieces';
import { lastSignatureOf } from './signed';
import {
  MOST_SOURCES,
  type Abstract,
  type AbstractPage,
  type FieldKey,
  type FieldRead,
  type PersonRead,
  type Reading,
  type StatedDay,
} from './types';
import { amountsIn, captionsIn, daysIn, percentsIn, type Candidate } from './values';

/**
 * Returns what a contract says about its deal: its kind, people, amounts, days and facts, each with the words it was
 * read from.
 *
 * @param fileName  helps to tell what kind of contract it is
 * @param ofDeal    the kind of its deal, if it has one
 */
export function abstractOf(pages: readonly AbstractPage[], fileName = '', ofDeal?: DealKind): Abstract {
  const read = bounded(pages);
  const pieces = piecesOfAll(read);
  const text = read.map((p) => p.words.map((w) => w.text).join(' ')).join('\n');
  const { kind, certain: kindCertain } = ofDeal ? { kind: ofDeal, certain: true } : kindOf(text, fileName);
  const sense = { ...senseOf(text), owner: kind === 'tenancy' ? ('landlord' as const) : ('seller' as const) };
  const spanish = isSpanish(text);
  const people = peopleOf(mentionsIn(pieces, sense), sidesOf(kind, 'both'));
  const places = addressesIn(pieces);
  const days = daysIn(pieces, kind, spanish);
  const signed = lastSignatureOf(pieces, days.signed, people, sense, kind);
  const candidates = [
    ...amountsIn(pieces, kind),
    ...percentsIn(pieces, kind),
    ...flagsIn(pieces, kind),
    ...days.dates,
    ...(signed ? [signed] : []),
  ];
  const fields = [...fieldOf('address', places.address), ...fieldOf('city', places.city), ...fieldsOf(candidates)];
  const known = new Set(fields.map((f) => f.field));
  const unread = [...captionsIn(pieces, kind)].flatMap(([field, source]) =>
    known.has(field) ? [] : [{ field, source }],
  );
  return { kind, kindCertain, people: withDoubt(people, read), fields: fields.map((f) => doubted(f, read)), unread };
}

/** Cuts a document that has more words than are read. */
function bounded(pages: readonly AbstractPage[]): AbstractPage[] {
  let left = MOST_WORDS;
  return pages.map((p) => {
    const words = p.words.slice(0, Math.max(0, left)).filter((w) => w.text.length <= MOST_LETTERS);
    left -= words.length;
    return { ...p, words };
  });
}
/** A longer run of letters is no word. */
const MOST_LETTERS = 80;

const TENANCY =
  /\b(?:tenants?|lessees?|landlords?|lessors?|residents?|renters?|rent|lets?|lease|arrendador|arrendatari[oa]|inquilin[oa]|arrendamiento|alquiler|renta)\b/g;
const SALE =
  /\b(?:buyers?|purchasers?|purchase|comprador(?:a|es)?|compraventa|closing|cierre|offers? to (?:buy|purchase))\b/g;
const LISTING = /\b(?:listing|right to sell|corretaje|list price|asking price|precio de lista)\b/g;

/** Returns the kind of deal a document is about. */
function kindOf(text: string, fileName: string): { kind: DealKind; certain: boolean } {
  const all = plain(text).slice(0, 40_000);
  const type = suggestType(text, fileName);
  const [lets, sells, lists] = [TENANCY, SALE, LISTING].map((re) => all.match(re)?.length ?? 0) as [
    number,
    number,
    number,
  ];
  const title = all.slice(0, 160);
  if (
    type === 'listing_agreement' ||
    (/\b(?:listing|right to sell|corretaje|brokerage agreement|exclusive)\b/.test(title) && lists >= 2)
  )
    return { kind: 'listing', certain: true };
  if (type === 'lease') return { kind: 'tenancy', certain: lets > sells };
  if (type === 'purchase_agreement' || type === 'counteroffer') return { kind: 'sale', certain: sells > lets };
  if (lists > sells && lists > lets)
    return { kind: 'listing', certain: lists >= 3 && lists > 2 * Math.max(sells, lets) };
  return lets > sells
    ? { kind: 'tenancy', certain: lets >= 4 && lets > 2 * sells }
    : { kind: 'sale', certain: sells >= 4 && sells > 2 * lets };
}

/** Returns whether a document is in Spanish. */
function isSpanish(text: string): boolean {
  const all = plain(text).slice(0, 20_000);
  const [es, en] = [/\b(?:el|la|los|las|de|del|que|por|en|y)\b/g, /\b(?:the|of|and|to|in|is|for|by)\b/g].map(
    (re) => all.match(re)?.length ?? 0,
  );
  return (es ?? 0) > (en ?? 0);
}

/** Maximum number of readings of a field. */
const MOST_READINGS = 12;

const alike = (v: FactValue | StatedDay) => JSON.stringify(v);

/** Returns the fields of candidates: the same value from several places is one reading. */
function fieldsOf(candidates: readonly (Omit<Candidate, 'value'> & { value: FactValue | StatedDay })[]): FieldRead[] {
  const byField = new Map<FieldKey, Reading<FactValue | StatedDay>[]>();
  const changed = new Set(candidates.filter((c) => c.changed && c.clear).map((c) => c.field));
  for (const c of candidates) {
    // "The lease that ends on May 1 goes on until June 1": what it was before is no reading.
    if (changed.has(c.field) && !c.changed) continue;
    const list = byField.get(c.field) ?? [];
    byField.set(c.field, list);
    const same = list.find((r) => alike(r.value) === alike(c.value));
    if (same) {
      if (same.sources.length < MOST_SOURCES) same.sources.push(c.source);
      same.clear ||= c.clear;
    } else if (list.length < MOST_READINGS) list.push({ value: c.value, sources: [c.source], clear: c.clear });
  }
  return [...byField].flatMap(([field, readings]) => fieldOf(field, readings));
}

/** Returns a field with its readings, the clear ones first; nothing if there are none. */
function fieldOf(field: FieldKey, readings: readonly Reading<FactValue | StatedDay>[]): FieldRead[] {
  if (!readings.length) return [];
  const sorted = [...readings].sort((a, b) => Number(b.clear) - Number(a.clear) || b.sources.length - a.sources.length);
  const clear = sorted.filter((r) => r.clear);
  // What is only faintly read beside a clear value is not shown: it would be doubt about nothing.
  const shown = clear.length ? clear : sorted.slice(0, 1);
  return [{ field, readings: shown, certain: clear.length === 1 }];
}

/** Returns whether words were recognized on a scan. */
const isScanned = (pages: readonly AbstractPage[], page: number) => pages[page - 1]?.scanned ?? false;

/** Returns a field as it is offered: an address of a scan is certain only if two places say the same. */
function doubted(f: FieldRead, pages: readonly AbstractPage[]): FieldRead {
  const [first] = f.readings;
  const onScan = !!first && first.sources.every((s) => isScanned(pages, s.page));
  return onScan && first.sources.length < 2 && (f.field === 'address' || f.field === 'city')
    ? { ...f, certain: false }
    : f;
}

function withDoubt(people: PersonRead[], pages: readonly AbstractPage[]): PersonRead[] {
  return people.map((p) => {
    const onScan = p.sources.every((s) => isScanned(pages, s.page));
    return onScan && p.sources.length < 2 ? { ...p, certain: false } : p;
  });
}
