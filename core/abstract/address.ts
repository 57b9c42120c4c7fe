/** The address and town of the property a contract is about. */
import { pieceAt, sourceOf, textOf, type Piece } from './pieces';
import { isEnd } from './near';
import { MOST_SOURCES, type Reading } from './types';

/** Phrases after which the property's address stands. `caption`: only at the start of a row or cell, or with a colon. */
const PHRASES: { words: string[]; caption: boolean }[] = [
  ...[
    ...'property house home dwelling premises apartment flat condominium unit building buildings land residence townhouse room shop store cottage estate improvements address berth office'
      .split(' ')
      .flatMap((noun) => [`${noun} at`, `${noun} located at`, `${noun} situated at`, `${noun} known as`]),
    ...'commonly known as,known as,located at,situated at,lease of,lease for,rental of,) for,for,parcel known as,to sell,to buy,to rent,to lease,home let is,house let is,sita en,sito en,ubicada en,ubicado en,situada en,situado en,localizada en,localizado en,inmueble en,vivienda en,casa en,departamento en,local en'.split(
      ',',
    ),
  ].map((p) => ({ words: p.split(' '), caption: false })),
  ...'property address,street address,property,premises,address of the property,address of the home,address of the house,address of the shop,address of the premises,address of premises,address,street,home,house,house and room,house and town,apartment,direccion de la propiedad,direccion del inmueble,direccion,domicilio,domicilio del inmueble,propiedad,inmueble,vivienda,ubicacion,calle'
    .split(',')
    .map((p) => ({ words: p.split(' '), caption: true })),
].sort((a, b) => b.words.length - a.words.length);

/** Captions of somebody else's address. */
const OTHERS =
  /^(?:mailing|forwarding|email|e-mail|seller's|buyer's|tenant's|landlord's|broker's|agent's|notice|notices|firm|office|company|their|his|her|billing|web|ip|residence|business|current|present)$/;

/** Words that end an address within a sentence. */
const ENDS = new Set(
  'for which that from with county whose at que por desde con more and y on to together including hereinafter as upon subject is was are legally described'.split(
    ' ',
  ),
);
/** Words before a unit, which belongs to the address. */
const UNIT =
  /^(?:unit|apt|apartment|suite|ste|no|lot|#|piso|apto|local|departamento|depto|dpto|interior|int|floor|room|berth)$/;
const STATE_OR_ZIP = /^(?:[A-Z]{2}|\d{5}(?:-\d{4})?)$/;

/** An address with its town; the town is empty if none follows. */
interface Place {
  address: string;
  city: string;
  from: number;
  to: number;
  cityFrom: number;
}

/** Returns what was read for the address and the town, the likeliest first. */
export function addressesIn(pieces: readonly Piece[]): { address: Reading<string>[]; city: Reading<string>[] } {
  const out = { address: [] as Reading<string>[], city: [] as Reading<string>[] };
  for (let i = 0; i < pieces.length && out.address.length < MOST_ADDRESSES; i++) {
    const phrase = PHRASES.find((p) =>
      p.words.every((w, n) => pieceAt(pieces, i + n) === w && (!n || pieces[i + n]!.before !== 'part')),
    );
    if (!phrase) {
      cityAt(pieces, i, out.city);
      continue;
    }
    if (OTHERS.test(pieceAt(pieces, i - 1))) continue;
    const end = i + phrase.words.length;
    const place = phrase.caption ? captioned(pieces, i, end) : placeAt(pieces, end, false);
    if (!place) {
      cityAt(pieces, i, out.city);
      continue;
    }
    // "For 9 Mill Cut, Tern Lock" may be an address; "for 4 Months" is none.
    const loose = phrase.words.length === 1 && phrase.words[0] === 'for';
    if (loose && (!place.city || !/^\d/.test(place.address))) continue;
    const clear =
      !loose &&
      (/\d/.test(place.address) || !phrase.caption || phrase.words.length > 1 || pieceAt(pieces, end) === ':');
    add(out.address, place.address, pieces, place.from, place.to, clear);
    if (place.city) add(out.city, place.city, pieces, place.cityFrom, place.to, clear);
    i = end - 1;
  }
  return out;
}
const MOST_ADDRESSES = 40;

function add(
  list: Reading<string>[],
  value: string,
  pieces: readonly Piece[],
  from: number,
  to: number,
  clear: boolean,
) {
  const source = sourceOf(pieces, from, to);
  // The running head of every page says it once.
  if (list.some((r) => r.sources.some((o) => o.words === source.words && Math.abs(o.rect.y - source.rect.y) < 3)))
    return;
  const same = list.find((r) => alike(r.value) === alike(value));
  if (same) {
    if (same.sources.length < MOST_SOURCES) same.sources.push(source);
    same.clear ||= clear;
  } else list.push({ value, sources: [source], clear });
}
const alike = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\d]+/gu, ' ')
    .trim();

/** Returns the address after a caption: on its row, or in the cell below. */
function captioned(pieces: readonly Piece[], from: number, end: number): Place | null {
  const lead = pieces[from]!;
  const colon = pieceAt(pieces, end) === ':';
  const starts = lead.before !== 'space' && lead.before !== 'none';
  if (!colon && !starts) return null;
  const at = colon ? end + 1 : end;
  const next = pieces[at];
  if (!next) return null;
  if (next.before !== 'row' && next.before !== 'part') {
    const beside = placeAt(pieces, at, true);
    // Right after its caption, without a gap, an address has a number and ends its row.
    const ends = !beside || !['space', 'none'].includes(pieces[beside.to]?.before ?? 'row');
    if (beside && (colon || next.before === 'gap' || (/\d/.test(beside.address) && ends))) return beside;
    if (colon || next.before === 'space' || next.before === 'none') return null;
  }
  // The cell below: the next piece that begins a cell under the caption.
  for (let i = at; i < Math.min(pieces.length, at + 80); i++) {
    const p = pieces[i]!;
    const apartY = p.rect.y - lead.rect.y;
    if (p.page !== lead.page || apartY > 3.2 * Math.max(p.rect.h, lead.rect.h)) return null;
    if (p.before === 'space' || p.before === 'none' || apartY < 0.7 * lead.rect.h) continue;
    if (Math.abs(p.rect.x - lead.rect.x) < 30) return placeAt(pieces, i, true);
  }
  return null;
}

/** Returns the address that begins at a piece: words and figures up to a comma, and the town after it. */
function placeAt(pieces: readonly Piece[], from: number, onRow: boolean): Place | null {
  let i = from;
  while (/^[:"“]$/.test(pieceAt(pieces, i)) || ['the', 'is'].includes(pieceAt(pieces, i))) i++;
  const start = i;
  const stop = (at: number) => {
    const p = pieces[at];
    if (!p || at - start > 22) return true;
    if (at > start && (p.before === 'part' || (p.before === 'gap' && !/^(?:in|en|,)$/.test(p.text)))) return true;
    // An address goes on in the next row only within a sentence, where its words are capitalized.
    if (at > start && p.before === 'row' && (onRow ? pieceAt(pieces, at - 1) !== ',' : !/^[\p{Lu}\d]/u.test(p.raw)))
      return true;
    return /^[;("“”:)[\]]$/.test(p.text) || isEnd(pieces, at) || ENDS.has(p.text) || p.text === '$';
  };
  const parts: [number, number][] = [];
  let open = i;
  for (; !stop(i); i++) {
    if (
      pieceAt(pieces, i) === ',' ||
      (pieceAt(pieces, i) === 'in' && i > open) ||
      (pieceAt(pieces, i) === 'en' && i > open)
    ) {
      parts.push([open, i]);
      open = i + 1;
    }
  }
  if (i > open) parts.push([open, i]);
  const [first, ...rest] = parts.filter(([a, b]) => b > a);
  if (!first) return null;
  const address = textOf(pieces.slice(...first));
  if (!isAddress(pieces, first)) return null;
  let to = first[1];
  let whole = address;
  while (rest[0] && isUnit(pieces, rest[0])) {
    whole += `, ${textOf(pieces.slice(...rest[0]))}`;
    to = rest[0][1];
    rest.shift();
  }
  const town = rest.find((r) => isTown(pieces, r));
  const city = town ? textOf(pieces.slice(...withoutState(pieces, town))) : '';
  return { address: whole, city, from: first[0], to: town?.[1] ?? to, cityFrom: town?.[0] ?? to };
}

const isUnit = (pieces: readonly Piece[], [from, to]: [number, number]) =>
  UNIT.test(pieceAt(pieces, from)) ||
  (to - from <= 3 && /^\d/.test(pieceAt(pieces, from)) && !STATE_OR_ZIP.test(pieces[from]!.raw));

/** Returns whether pieces are an address: a house number with a capitalized name, or at least two capitalized words. */
function isAddress(pieces: readonly Piece[], [from, to]: [number, number]): boolean {
  const own = pieces.slice(from, to);
  const capitals = own.filter((p) => /^\p{Lu}/u.test(p.raw)).length;
  const number = own.some((p) => /^\d/.test(p.text));
  const lower = own.filter(
    (p) => /^\p{Ll}/u.test(p.raw) && !/^(?:de|del|la|las|los|el|of|the|and|n|y|st|nd|rd|th)$/.test(p.text),
  ).length;
  if (/^(?:an?|one|un|una|all|each|any|this)$/.test(own[0]!.text)) return false;
  return own.length <= 12 && lower <= 1 && (number ? capitals >= 1 : capitals >= 2) && !/^[$%]$/.test(own[0]!.text);
}

const isTown = (pieces: readonly Piece[], [from, to]: [number, number]): boolean => {
  const own = pieces.slice(from, to);
  return (
    own.length <= 6 &&
    /^\p{Lu}\p{Ll}/u.test(own[0]!.raw) &&
    own.every((p) => /^[\p{Lu}\d.'-]/u.test(p.raw) || /^(?:de|del|la|las|los|el|of|the|upon|on|s)$/.test(p.text))
  );
};

/** Leaves out a state and postal code at the end of a town. */
function withoutState(pieces: readonly Piece[], [from, to]: [number, number]): [number, number] {
  let end = to;
  while (end > from + 1 && STATE_OR_ZIP.test(pieces[end - 1]!.raw)) end--;
  return [from, end];
}

/** Adds the town after a caption of its own: "City: Tern Lock", "TOWN, COUNTY" above the town. */
function cityAt(pieces: readonly Piece[], at: number, out: Reading<string>[]): void {
  const lead = pieces[at]!;
  if (!/^(?:city|town|ciudad|municipio|localidad)$/.test(lead.text) || lead.before === 'none') return;
  const colon = pieceAt(pieces, at + 1) === ':';
  const starts = lead.before !== 'space';
  if (!colon && !starts) return;
  let i = colon ? at + 2 : at + 1;
  if (!colon) {
    while (i < at + 6 && pieces[i]?.before !== 'gap' && pieces[i]?.before !== 'row' && pieces[i]?.before !== 'part')
      i++;
    const below = pieces.findIndex(
      (p, n) =>
        n >= i &&
        n < i + 60 &&
        p.page === lead.page &&
        Math.abs(p.rect.x - lead.rect.x) < 30 &&
        p.rect.y - lead.rect.y > 0.7 * lead.rect.h &&
        p.rect.y - lead.rect.y < 3.2 * Math.max(p.rect.h, lead.rect.h),
    );
    if (below < 0) return;
    i = below;
  } else if (pieces[i]?.before === 'row' || pieces[i]?.before === 'part') return;
  let to = i;
  while (
    to < pieces.length &&
    to - i < 5 &&
    (to === i || pieces[to]!.before === 'space' || pieces[to]!.before === 'none') &&
    (/^\p{Lu}/u.test(pieces[to]!.raw) || (pieceAt(pieces, to) === '.' && pieceAt(pieces, to - 1) === 'st'))
  )
    to++;
  if (to > i && isTown(pieces, [i, to]))
    add(out, textOf(pieces.slice(...withoutState(pieces, [i, to]))), pieces, i, to, true);
}

/** Returns whether the words right before a piece ask for the property's address. */
export function asksForAddress(pieces: readonly Piece[], at: number): boolean {
  const end = pieceAt(pieces, at - 1) === ':' ? at - 1 : at;
  return PHRASES.some(({ words, caption }) => {
    const from = end - words.length;
    if (from < 0 || !words.every((w, n) => pieceAt(pieces, from + n) === w) || words[0] === 'for') return false;
    if (OTHERS.test(pieceAt(pieces, from - 1))) return false;
    const lead = pieces[from]!;
    const starts = lead.before !== 'space' && lead.before !== 'none';
    return caption ? end < at || starts : pieces[at]!.before !== 'part';
  });
}

/** Returns whether the words right before a piece ask for the property's town. */
export const asksForTown = (pieces: readonly Piece[], at: number): boolean =>
  /^(?:city|town|ciudad|municipio)$/.test(pieceAt(pieces, pieceAt(pieces, at - 1) === ':' ? at - 2 : at - 1));
