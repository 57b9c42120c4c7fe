/** Blanks of a document whose values a deal already knows: names, address, amounts and days. */
import { DATE_WORDS, dateOfKey, FACTS, moneyWords, type DealKind, type FactValue, type KeyDates } from '../deal';
import type { Rect } from '../paper/types';
import { ofRole, sideOfRole } from '../reading/role-sides';
import type { PrintedPlace } from '../reading/types';
import { listWords } from '../text/names';
import type { Side } from '../text/sides';
import { asksForAddress, asksForTown } from './address';
import { piecesOf, type Piece } from './pieces';
import type { FieldKey } from './types';
import { fieldOfBlank } from './values';

/** What a deal knows. */
export interface KnownDeal {
  kind: DealKind;
  address: string;
  city: string;
  facts: Readonly<Record<string, FactValue>>;
  dates: KeyDates;
  parties: readonly { side: Side; ordinal: number; name: string }[];
}

/** A blank with what belongs in it. */
export interface KnownBlank {
  /** The position of its place in the list that was given. */
  place: number;
  field: FieldKey | `side.${Side}`;
  /** What it is called: "Closing", "Price". */
  label: string;
  /** The text for it; null if the deal does not know it. */
  value: string | null;
}

/** A page as the blanks on it are read. */
interface BlankPage {
  words: readonly string[];
  print: readonly Rect[];
}

/** Stands in a page's words where a blank is. */
const BLANK = '\u25ad';
/** A narrower blank holds a part of a day, a number or a letter. */
const NARROWEST = 40;
/** Width of a letter in points, to choose between a long and a short way of writing a day. */
const LETTER = 5.2;

/**
 * Returns the blanks of a document that ask for something a deal can know.
 *
 * @param places  all printed places of the document
 * @param isOpen  whether nobody has decided on the place at a position of that list
 */
export function knownBlanks(
  pages: readonly BlankPage[],
  places: readonly PrintedPlace[],
  isOpen: (place: number) => boolean,
  deal: KnownDeal,
): KnownBlank[] {
  const out: KnownBlank[] = [];
  const lasts = lastOrdinals(places);
  pages.forEach((page, i) => {
    const here = places.flatMap((p, n) => (p.page === i + 1 && isBlank(p) && isOpen(n) ? [{ ...p, n }] : []));
    if (!here.length) return;
    const pieces = piecesOf({ words: wordsOf(page, here) }, i + 1);
    for (const place of here) {
      const found =
        place.kind === 'name'
          ? nameFor(place, deal, lasts)
          : valueFor(pieces, pieceOf(pieces, place.rect), place, deal);
      if (found) out.push({ place: place.n, ...found });
    }
  });
  return out;
}

/** Returns whether a place is written in by whoever prepares the document: no signature, no day of signing. */
const isBlank = (p: PrintedPlace): boolean =>
  p.rect.w >= NARROWEST && (p.kind === 'text' || p.kind === 'name' || (p.kind === 'date' && !p.signed));

function wordsOf(page: BlankPage, places: readonly PrintedPlace[]): { text: string; rect: Rect }[] {
  const words = page.print.map((rect, i) => ({ text: page.words[i] ?? '', rect }));
  return [...words, ...places.map(({ rect }) => ({ text: BLANK, rect }))];
}

const pieceOf = (pieces: readonly Piece[], { x, y }: Rect): number =>
  pieces.findIndex((p) => p.raw === BLANK && p.rect.x === x && p.rect.y === y);

type Found = Omit<KnownBlank, 'place'>;

/** Returns the largest number of a person that names of each role have. */
function lastOrdinals(places: readonly PrintedPlace[]): Map<string, number> {
  const out = new Map<string, number>();
  for (const p of places) if (p.kind === 'name') out.set(p.role, Math.max(out.get(p.role) ?? 0, p.ordinal ?? 1));
  return out;
}

function nameFor(place: PrintedPlace, deal: KnownDeal, lasts: ReadonlyMap<string, number>): Found | null {
  if (place.role === 'unknown') return null;
  const people = ofRole(place.role, deal.parties);
  const side = people[0]?.side ?? sideOfRole(place.role) ?? 'other';
  const n = place.ordinal ?? 1;
  // A form with one blank for a side has room for all of its people.
  const all = (lasts.get(place.role) ?? 1) === 1;
  const names = all ? people.map((p) => p.name) : people.slice(n - 1, n).map((p) => p.name);
  // A second line that nobody needs is no gap.
  if (!names.length && n > 1) return null;
  return { field: `side.${side}`, label: side, value: names.length ? listWords(names) : null };
}

function valueFor(pieces: readonly Piece[], at: number, place: PrintedPlace, deal: KnownDeal): Found | null {
  if (at < 0) return null;
  if (place.kind === 'text') {
    if (asksForAddress(pieces, at)) return { field: 'address', label: 'Address', value: addressFor(place, deal) };
    if (asksForTown(pieces, at)) return { field: 'city', label: 'Town', value: deal.city || null };
  }
  const isValue = (i: number) => pieces[i]?.raw === BLANK;
  const field = fieldOfBlank(pieces, at, isValue, deal.kind, place.kind === 'date' ? 'day' : 'amount');
  if (!field) return null;
  const date = dateOfKey(field);
  if (date) {
    const day = deal.dates[date];
    return { field, label: DATE_WORDS[date], value: day ? dayFor(day, place.rect.w) : null };
  }
  const def = FACTS.find((f) => `fact.${f.key}` === field);
  const value = def && deal.facts[def.key];
  if (!def) return null;
  const money = typeof value === 'number' ? moneyWords(value) : null;
  const marked = pieces[at - 1]?.text === '$';
  return { field, label: def.label, value: money && marked ? money.slice(1) : money };
}

/** Returns the address, with the town if there is room for it. */
function addressFor(place: PrintedPlace, { address, city }: KnownDeal): string | null {
  const whole = [address, city].filter(Boolean).join(', ');
  return (whole.length * LETTER <= place.rect.w ? whole : address) || null;
}

/** Returns a day written out if there is room for it: "January 15, 2027", "1/15/2027". */
function dayFor(day: string, width: number): string {
  const at = new Date(`${day}T00:00:00Z`);
  const long = at.toLocaleDateString('en-US', { month: 'long', day: 'numeric', year: 'numeric', timeZone: 'UTC' });
  if (long.length * LETTER <= width) return long;
  return at.toLocaleDateString('en-US', { month: 'numeric', day: 'numeric', year: 'numeric', timeZone: 'UTC' });
}
