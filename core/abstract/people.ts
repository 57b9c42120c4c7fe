/** People and companies that a contract names, with their sides. */
import { isBroker, type Side } from '../text/sides';
import { fold } from '../text/names';
import { roleOfWords, type Sense } from '../reading/words';
import { isEnd } from './near';
import { pieceAt, sourceOf, textOf, type Piece } from './pieces';
import type { PersonRead, Source } from './types';

/** Words that no name of a person contains: they begin clauses, captions and signatures. */
const NOT_A_NAME = new Set(
  "en in on by made at a agreement property buyer buyers seller sellers landlord tenant tenants lessor lessee owner owners broker agent date price deposit closing signature signatures initials name names printed print address phone email rent lease contract offer the this that and or of to by between hereinafter called known as whose which is are in at for from on with if when where terms party parties page section clause vendedor comprador arrendador arrendatario inquilino propietario fecha precio firma firmas iniciales nombre domicilio renta contrato direccion telefono correo entre una uno el la los las y del adelante que por para con article exhibit addendum total amount sum purchase sale sales listing residential state county city town unit street home house time title company firm number no yes si license licence security months month days day term begins ends guarantor manager fiador corredor agente owner's seller's buyer's tenant's landlord's undersigned witness notary both all each any other none n/a na tbd fee percent firm vivienda inmueble propiedad parties: accepted approved received acknowledged".split(
    ' ',
  ),
);
/** Small words within a name: "Maria de la Cruz", "Jan van Dyk". */
const PARTICLES = new Set('de la del los las van von der den di da dos das du le y e bin al st'.split(' '));
/** Endings of a company's name. */
const COMPANY =
  /^(?:llc|l\.l\.c|inc|incorporated|ltd|limited|corp|corporation|lp|llp|plc|company|co|trust|fund|holdings|partners|partnership|properties|group|bank|associates|association|realty|estates|s\.?a|s\.?l|sociedad|fideicomiso|inmobiliaria)$/;
const JOINING = new Set(['and', '&', 'y', 'e', ',', '/', ';']);
/** What follows a name and is no part of it: "husband and wife", "a married couple". */
const STATUS =
  /^(?:husband|wife|spouses?|married|unmarried|single|individual|individually|joint|tenants|couple|widow|widower|conyuges|esposos|casados|solter[oa]s?|casad[oa]|viud[oa]|mayor|mayores)$/;

/** A name in a run of pieces; `to` is exclusive. */
interface Named {
  from: number;
  to: number;
  name: string;
  company: boolean;
}

const isCapital = (raw: string) => /^\p{Lu}/u.test(raw);

/** Returns the name that begins at a piece; null if none does. Names stay on one row, except where a list goes on. */
export function nameAt(pieces: readonly Piece[], from: number): Named | null {
  let i = from;
  let words = 0;
  let company = false;
  for (; i < pieces.length && i - from < 14; i++) {
    const p = pieces[i]!;
    if (i > from && p.before !== 'space' && p.before !== 'none') break;
    if (/^\p{L}/u.test(p.raw)) {
      if (COMPANY.test(p.text) && words) {
        company = true;
        words++;
        continue;
      }
      const initial = words > 0 && /^\p{Lu}$/u.test(p.raw) && pieceAt(pieces, i + 1) === '.';
      if (isCapital(p.raw) && (initial || !NOT_A_NAME.has(p.text)) && !STATUS.test(p.text)) words++;
      else if (words && PARTICLES.has(p.text) && goesOn(pieces, i)) continue;
      else break;
    } else if (
      p.text === '.' &&
      (p.before === 'none' || (/^[a-z]$/.test(pieceAt(pieces, i - 1)) && isCapital(pieces[i + 1]?.raw ?? ''))) &&
      /^(?:[a-z]|jr|sr|st|dr|inc|ltd|co|corp|mr|mrs|ms)$/.test(pieceAt(pieces, i - 1))
    )
      continue;
    else if (p.text === ',' && /^(?:llc|inc|ltd|jr|sr|lp|corp|l|ii|iii)$/.test(pieceAt(pieces, i + 1))) continue;
    else if (p.text === '&' && words && company === false && companyAhead(pieces, i)) continue;
    else break;
  }
  // A particle or sign at the end belongs to what follows.
  while (i > from + 1 && !isCapital(pieces[i - 1]!.raw) && /^(?:[,&]|\p{L}+)$/u.test(pieces[i - 1]!.raw)) i--;
  if (words < (company ? 1 : 2) || words > 7) return null;
  return { from, to: i, name: textOf(pieces.slice(from, i)), company };
}

/** Returns whether a capitalized word follows particles: "de la Cruz". */
function goesOn(pieces: readonly Piece[], at: number): boolean {
  for (let i = at + 1; i < at + 4; i++) {
    const p = pieces[i];
    if (!p || p.before === 'row' || p.before === 'part' || p.before === 'gap') return false;
    if (isCapital(p.raw)) {
      // "Ana Ruiz y Luis Vega" are two people; "Ortega y Gasset" is decided for two as well.
      return !['y', 'e'].includes(pieceAt(pieces, at)) && !NOT_A_NAME.has(p.text);
    }
    if (!PARTICLES.has(p.text)) return false;
  }
  return false;
}

/** Returns whether "&" is within a company's name: "Towpath & Vane Realty". */
function companyAhead(pieces: readonly Piece[], at: number): boolean {
  for (let i = at + 1; i < at + 5; i++) {
    const p = pieces[i];
    if (!p || (p.before !== 'space' && p.before !== 'none')) return false;
    if (COMPANY.test(p.text)) return true;
    if (!isCapital(p.raw)) return false;
  }
  return false;
}

/** Maximum number of names in one list; a longer one is read in parts. */
const MOST_LISTED = 40;

/** Returns the names that are listed from a piece on: "Orla Byrne, Dermot Byrne and Alder Ltd". */
function listAt(pieces: readonly Piece[], from: number, across: boolean): { names: Named[]; to: number } {
  const names: Named[] = [];
  let i = from;
  while (names.length < MOST_LISTED) {
    const named = nameAt(pieces, i);
    if (!named) break;
    names.push(named);
    i = named.to;
    let next = i;
    while (next < i + 3 && JOINING.has(pieceAt(pieces, next))) next++;
    if (next === i) break;
    const p = pieces[next];
    if (!p || p.before === 'part' || (!across && (p.before === 'row' || p.before === 'gap'))) break;
    i = next;
  }
  return { names, to: names.at(-1)?.to ?? from };
}

/** The side of each role that reading knows. */
export const SIDE_OF_ROLE = {
  seller: 'seller',
  buyer: 'buyer',
  landlord: 'landlord',
  tenant: 'tenant',
  guarantor: 'guarantor',
  broker: 'listing_broker',
  buyer_broker: 'buyer_broker',
  manager: 'manager',
  unknown: 'other',
} as const satisfies Record<string, Side>;

/** A name with its side and where it stands. */
export interface Mention {
  side: Side;
  ordinal: number | null;
  name: string;
  company: boolean;
  capacity: string;
  source: Source;
  clear: boolean;
}

const QUOTE = /^["“”«»']$/;

/** Returns every mention of a person with their side. */
export function mentionsIn(pieces: readonly Piece[], sense: Sense): Mention[] {
  const out: Mention[] = [];
  for (let i = 0; i < pieces.length && out.length < MOST_MENTIONS; i++) {
    const defined = definedAt(pieces, i, sense);
    if (defined) {
      out.push(...defined.mentions);
      i = defined.to - 1;
      continue;
    }
    out.push(...captionedAt(pieces, i, sense));
    out.push(...asideAt(pieces, i, sense));
    out.push(...calledAt(pieces, i, sense));
    out.push(...printedAt(pieces, i, sense));
    out.push(...followedAt(pieces, i, sense));
  }
  return out;
}
const MOST_MENTIONS = 400;

const mention = (
  pieces: readonly Piece[],
  n: Named,
  role: { side: Side; ordinal: number | null },
  clear: boolean,
): Mention => ({
  ...role,
  name: n.name,
  company: n.company,
  capacity: capacityAt(pieces, n.to),
  source: sourceOf(pieces, n.from, n.to),
  clear,
});

/** Returns the capacity that follows a name: "as trustee of the Alder Trust", "its manager". */
function capacityAt(pieces: readonly Piece[], at: number): string {
  let i = at;
  if (pieceAt(pieces, i) === ',') i++;
  const first = pieceAt(pieces, i);
  if (first === 'as' || first === 'its' || first === 'su' || first === 'como') i++;
  if (
    !/^(?:trustee|executor|executrix|administrator|attorney|manager|member|president|director|partner|agent|guardian|conservator|personal|fiduciari[oa]|albacea|apoderad[oa]|gerente|representante)$/.test(
      pieceAt(pieces, i),
    )
  )
    return '';
  let to = i;
  while (
    to < pieces.length &&
    to - i < 12 &&
    pieces[to]!.before !== 'part' &&
    !/^[(;.:"“]$/.test(pieceAt(pieces, to)) &&
    !(pieceAt(pieces, to) === ',')
  ) {
    if (to > i && JOINING.has(pieceAt(pieces, to)) && nameAt(pieces, to + 1)) break;
    to++;
  }
  return textOf(pieces.slice(i, to));
}

/** Returns the role that a run of pieces names, if it names one. */
function roleIn(pieces: readonly Piece[], from: number, to: number, sense: Sense) {
  const read = roleOfWords(textOf(pieces.slice(from, to)), sense);
  return read && { side: SIDE_OF_ROLE[read.role], ordinal: read.ordinal };
}

/** Words that lead to a defined role: `(hereinafter, the "Seller")`, `(en adelante, "el Vendedor")`. */
const LEADING = new Set(
  'the hereinafter hereafter called referred to as collectively together individually and en adelante el la los las denominado denominada denominados llamado llamada llamados lo sucesivo quien se le quienes , ; designated known a'.split(
    ' ',
  ),
);

/** Returns the people before a role in quotation marks: `Ana Ruiz and Leo Vega ("Buyers")`. */
function definedAt(pieces: readonly Piece[], at: number, sense: Sense): { mentions: Mention[]; to: number } | null {
  const named = nameAt(pieces, at);
  if (!named || named.from !== at) return null;
  const { names, to } = listAt(pieces, at, true);
  // What stands between the name and the role: a bracket, "husband and wife", "hereinafter called the".
  let i = to;
  let status = 0;
  while (status < 14 && !/^["“«(]$/.test(pieceAt(pieces, i)) && !LEADING.has(pieceAt(pieces, i)) && i < pieces.length) {
    const text = pieceAt(pieces, i);
    const aside =
      STATUS.test(text) ||
      JOINING.has(text) ||
      /^(?:as|with|in|common|right|of|survivorship|community|property|an?|por|su|propio|derecho|edad|de|whose|an)$/.test(
        text,
      );
    const capacity = capacityAt(pieces, to) !== '' && status < 12;
    if (!aside && !capacity) break;
    i++;
    status++;
  }
  i = overAside(pieces, i);
  let led = 0;
  let bracket = false;
  while (led < 12 && (LEADING.has(pieceAt(pieces, i)) || (pieceAt(pieces, i) === '(' && !bracket))) {
    bracket ||= pieceAt(pieces, i) === '(';
    i++;
    led++;
  }
  const quoted = QUOTE.test(pieceAt(pieces, i));
  const hereinafter =
    led > 0 &&
    pieces.slice(i - led, i).some((p) => /^(?:hereinafter|hereafter|called|adelante|denominad|llamad)/.test(p.text));
  if (!quoted && !bracket && !hereinafter) return null;
  let end = quoted ? i + 1 : i;
  const start = end;
  while (end < start + 5 && /^[\p{L}'’\d-]+$/u.test(pieces[end]?.raw ?? '')) end++;
  const role = roleIn(pieces, start, end, sense);
  if (!role) return null;
  if (!quoted && end - start > 3) return null;
  return {
    to: end,
    mentions: names.map((n) => mention(pieces, n, { ...role, ordinal: names.length > 1 ? null : role.ordinal }, true)),
  };
}

/** Skips where a person lives, between the name and the role: ", of Millbasin (the “Landlord”)". */
function overAside(pieces: readonly Piece[], at: number): number {
  const from = pieceAt(pieces, at) === ',' ? at + 1 : at;
  if (!/^(?:of|residing|whose|with|having|con|domiciliad[oa]|a|an|de)$/.test(pieceAt(pieces, from))) return at;
  for (let i = from; i < from + 25 && i < pieces.length; i++) {
    if (/^(?:\(|hereinafter|hereafter|denominad[oa]s?)$/.test(pieceAt(pieces, i))) return i;
    if (isEnd(pieces, i) || pieces[i]!.before === 'part' || /^(?:and|y|between|entre)$/.test(pieceAt(pieces, i)))
      return at;
  }
  return at;
}

/** Captions that ask for a name, beside the role itself. */
const CAPTION_WORDS = new Set(
  'made by name names of the printed print full legal \'s s ( ) “ ” " 1 2 3 4 5 6 # no . : nombre nombres del de la los el and / y - record – —'.split(
    ' ',
  ),
);

/** A caption that names a role; `to` is exclusive. */
interface Caption {
  role: Pick<Mention, 'side' | 'ordinal'>;
  to: number;
  colon: boolean;
}

/** Words that belong to a role but name none by themselves. */
const OF_ROLE = /^(?:listing|selling|buyer's|seller's|property|broker's)$/;

/** Returns the caption for a name that begins at a piece: "Seller:", "Buyer 1", "Name of tenant:"; null if none does. */
function captionAt(pieces: readonly Piece[], at: number, sense: Sense): Caption | null {
  const lead = pieces[at]!;
  const starts =
    lead.before !== 'none' &&
    (lead.before !== 'space' || /^[:.,;]$/.test(pieceAt(pieces, at - 1)) || isCapital(lead.raw));
  if (!starts || !/^\p{L}/u.test(lead.raw)) return null;
  let to = at;
  let colon = false;
  for (; to < pieces.length && to - at < 10 && !colon; to++) {
    const p = pieces[to]!;
    if (to > at && p.before !== 'space' && p.before !== 'none') break;
    colon = p.text === ':';
    if (!colon && !roleOfWords(p.text, sense) && !OF_ROLE.test(p.text) && !CAPTION_WORDS.has(p.text)) break;
  }
  if (to === at || /sign|firma|initial|inicial/i.test(textOf(pieces.slice(at, to)))) return null;
  const role = roleIn(pieces, at, to, sense);
  const begins = roleIn(pieces, at, at + 1, sense) !== null || CAPTION_WORDS.has(lead.text) || OF_ROLE.test(lead.text);
  return role && begins ? { role, to, colon } : null;
}

/** Returns the people after a caption: "Seller: Orla Byrne", "Buyer 1  Ana Ruiz", "Name of tenant: …". */
function captionedAt(pieces: readonly Piece[], at: number, sense: Sense): Mention[] {
  const caption = captionAt(pieces, at, sense);
  if (!caption) return [];
  const { role, to, colon } = caption;
  const lead = pieces[at]!;
  const leads = lead.before !== 'space' && lead.before !== 'none';
  const after = pieces[to]?.before;
  const of = (names: Named[], clear: boolean) =>
    names.map((n) => mention(pieces, n, { ...role, ordinal: names.length > 1 ? null : role.ordinal }, clear));
  const beside = after !== undefined && (colon || after === 'gap') && after !== 'row' && after !== 'part';
  if (beside) {
    const { names } = listAt(pieces, to, true);
    if (names.length) return of(names, colon || leads);
  }
  if (after === 'space' && !colon && leads) {
    // Without a colon or a gap only a row that ends with the name is a caption and its value.
    const { names, to: last } = listAt(pieces, to, false);
    const next = pieces[last]?.before;
    if (names.length && (next === undefined || next === 'row' || next === 'part')) return of(names, true);
  }
  if (after === 'row' && colon) {
    const { names } = listAt(pieces, to, false);
    if (names.length) return of(names, true);
  }
  // A caption at the start of a row or cell, with the name in the row below it.
  if (!leads || (colon && after === 'space')) return [];
  const below = belowOf(pieces, at, to);
  return below === null ? [] : of(listAt(pieces, below, false).names, true);
}

/** Returns the first piece of the cell right below a caption; null if there is none. */
function belowOf(pieces: readonly Piece[], from: number, to: number): number | null {
  const caption = pieces[from]!;
  const end = pieces[to - 1]!;
  for (let i = to; i < pieces.length && i < to + 120; i++) {
    const p = pieces[i]!;
    if (p.page !== caption.page) return null;
    const apart = p.rect.y - caption.rect.y;
    if (apart > 3.2 * Math.max(caption.rect.h, p.rect.h)) return null;
    if (apart < 0.7 * caption.rect.h || p.before === 'space' || p.before === 'none') continue;
    if (
      p.rect.x < end.rect.x + end.rect.w + 40 &&
      p.rect.x + p.rect.w > caption.rect.x - 4 &&
      p.rect.x > caption.rect.x - 30
    )
      return i;
  }
  return null;
}

/** Returns the people before a role that follows a comma: "Orla Byrne and Dermot Byrne, sellers". */
function followedAt(pieces: readonly Piece[], at: number, sense: Sense): Mention[] {
  const lead = pieces[at]!;
  if (!isCapital(lead.raw) || (lead.before === 'none' && pieceAt(pieces, at - 1) !== '(')) return [];
  const before = pieces[at - 1];
  if (before && isCapital(before.raw) && lead.before === 'space' && !NOT_A_NAME.has(before.text)) return [];
  // "St. Clair" is one name.
  if (before?.text === '.' && ABBREVIATED.test(pieceAt(pieces, at - 2))) return [];
  const { names, to } = listAt(pieces, at, true);
  if (!names.length) return [];
  let i = to;
  if (pieceAt(pieces, i) !== ',' && pieceAt(pieces, i) !== '(') return [];
  i++;
  while (/^(?:as|the|como|el|la|los|,)$/.test(pieceAt(pieces, i))) i++;
  const role = roleIn(pieces, i, i + 2, sense);
  if (
    !role ||
    (roleIn(pieces, i, i + 1, sense) === null && !/^(?:listing|buyer's|seller's|property)$/.test(pieceAt(pieces, i)))
  )
    return [];
  // "At 9 Mill Cut, Port Alder, the seller answers" says what the seller does, not who it is.
  const next = pieces[i + 1];
  if (next && next.before === 'space' && !/^(?:and|y|as|in|of|de|for|who|[1-9])$/.test(next.text)) return [];
  return names.map((n) => mention(pieces, n, { ...role, ordinal: null }, true));
}
const ABBREVIATED = /^(?:st|dr|mr|mrs|ms|sr|sra|[a-z])$/;

/** Returns the people right after their role within a sentence: "The seller Orla Byrne and the buyer Maren Aalto". */
function calledAt(pieces: readonly Piece[], at: number, sense: Sense): Mention[] {
  const before = pieceAt(pieces, at - 1);
  if (!/^(?:the|el|la|los|las|co)$/.test(before) || !/^\p{L}/u.test(pieces[at]!.raw)) return [];
  const role = roleIn(pieces, at, at + 1, sense);
  if (!role) return [];
  const { names } = listAt(pieces, at + 1, true);
  return names.map((n) => mention(pieces, n, { ...role, ordinal: null }, false));
}

/** Returns the people in an aside after their role: "The buyer, Ana Ruiz and Leo Vega, offers to pay". */
function asideAt(pieces: readonly Piece[], at: number, sense: Sense): Mention[] {
  if (pieceAt(pieces, at + 1) !== ',' || !/^\p{L}/u.test(pieces[at]!.raw)) return [];
  const role = roleIn(pieces, at, at + 1, sense);
  if (!role) return [];
  const { names, to } = listAt(pieces, at + 2, true);
  const next = pieceAt(pieces, to) === 'and' ? to + 1 : to;
  // A list of other things follows a comma, too; an aside ends with one.
  if (!names.length || pieceAt(pieces, next) !== ',') return [];
  return names.map((n) => mention(pieces, n, { ...role, ordinal: null }, true));
}

const NAME_CAPTIONS = [
  'printed name',
  'print name',
  'printed',
  'print',
  'name printed',
  'full name',
  'type or print name',
  'name ( print )',
  'name',
  'nombre en letra de molde',
  'nombre y apellidos',
  'nombre completo',
  'nombre',
  'aclaracion',
].map((c) => c.split(' '));

/** Returns the name after, above or below a caption for names, with the side of the signature it stands at. */
function printedAt(pieces: readonly Piece[], at: number, sense: Sense): Mention[] {
  const lead = pieces[at]!;
  if (lead.before === 'none' && pieceAt(pieces, at - 1) !== '(') return [];
  const caption = NAME_CAPTIONS.find((words) => words.every((w, n) => pieceAt(pieces, at + n) === w));
  if (!caption) return [];
  let end = at + caption.length;
  const colon = pieceAt(pieces, end) === ':';
  if (colon) end++;
  const next = pieces[end];
  // Within a sentence "name" is a word like others.
  if (!colon && next && next.before === 'space' && !/^[)]$/.test(next.text)) return [];
  const beside =
    next && next.before !== 'row' && next.before !== 'part' && (colon || next.before === 'gap')
      ? nameAt(pieces, end)
      : null;
  const value = beside ?? nameAbove(pieces, at, end) ?? nameBelow(pieces, at, end);
  if (!value) return [];
  const role = roleNear(pieces, value.from, sense) ?? roleNear(pieces, at, sense);
  return role ? [mention(pieces, value, role, true)] : [];
}

/** Returns the name on the line above its caption. */
function nameAbove(pieces: readonly Piece[], at: number, to: number): Named | null {
  const caption = pieces[at]!;
  const right = pieces[to - 1]!.rect;
  for (let i = at - 1; i >= Math.max(0, at - 60); i--) {
    const p = pieces[i]!;
    const apart = caption.rect.y - p.rect.y;
    if (p.page !== caption.page || apart > 3 * p.rect.h) return null;
    if (apart < 0.6 * p.rect.h || p.before === 'space' || p.before === 'none') continue;
    if (p.rect.x > right.x + right.w + 40 || p.rect.x < caption.rect.x - 24) continue;
    const named = nameAt(pieces, i);
    if (named) return named;
  }
  return null;
}

/** Returns the name in the cell below its caption. */
function nameBelow(pieces: readonly Piece[], at: number, to: number): Named | null {
  const below = belowOf(pieces, at, to);
  return below === null ? null : nameAt(pieces, below);
}

/** How far above and below a signature its role may stand, in points. */
const NEAR = 64;

/**
 * Returns the role of the signature block that a piece stands in: named on its row to the left of it, otherwise in the
 * nearest row; null if no row near it names one.
 */
export function roleNear(
  pieces: readonly Piece[],
  at: number,
  sense: Sense,
): { side: Side; ordinal: number | null } | null {
  const p = pieces[at]!;
  const rows: { dy: number; cells: Piece[][] }[] = [];
  for (let i = Math.max(0, at - 160); i < Math.min(pieces.length, at + 160); i++) {
    const q = pieces[i]!;
    const dy = q.rect.y - p.rect.y;
    if (q.page !== p.page || Math.abs(dy) > NEAR) continue;
    const starts = q.before !== 'space' && q.before !== 'none';
    const row = rows.at(-1);
    if (row && Math.abs(row.dy - dy) < 0.6 * q.rect.h) {
      if (starts) row.cells.push([q]);
      else row.cells.at(-1)!.push(q);
    } else rows.push({ dy, cells: [[q]] });
  }
  // A row above its line is as likely as a caption below it; the nearest says it.
  rows.sort((a, b) => Math.abs(a.dy) - Math.abs(b.dy));
  for (const { cells } of rows) {
    for (const cell of [...cells].reverse()) {
      if (cell[0]!.rect.x > p.rect.x + p.rect.w + 4 || cell.length > MOST_CAPTION) continue;
      const role = roleOfWords(textOf(cell), sense);
      if (role) return { side: SIDE_OF_ROLE[role.role], ordinal: role.ordinal };
    }
  }
  return null;
}
/** A longer phrase is a sentence, which may name anybody. */
const MOST_CAPTION = 8;

/** Returns people by side from their mentions: one with the same name is one person. */
export function peopleOf(mentions: readonly Mention[], sides: readonly Side[]): PersonRead[] {
  const out = new Map<string, PersonRead & { ordinal: number | null; at: number }>();
  const sideOf = new Map<string, Set<Side>>();
  mentions.forEach((m, at) => {
    if (!sides.includes(m.side)) return;
    const key = fold(m.name).replace(/[^\p{L}\d]+/gu, ' ');
    sideOf.set(key, (sideOf.get(key) ?? new Set()).add(m.side));
    const known = out.get(`${m.side} ${key}`);
    if (known) {
      known.sources.push(m.source);
      known.certain ||= m.clear;
      known.ordinal ??= m.ordinal;
      known.capacity ||= m.capacity;
      return;
    }
    out.set(`${m.side} ${key}`, {
      side: m.side,
      name: m.name,
      company: m.company ? m.name : '',
      capacity: m.capacity,
      sources: [m.source],
      certain: m.clear,
      ordinal: m.ordinal,
      at,
    });
  });
  return [...out.entries()]
    .map(([key, p]) => {
      // The same name on both sides: one of them was read wrong. A broker may act for both.
      const other = [...(sideOf.get(key.slice(p.side.length + 1)) ?? [])].filter((s) => s !== p.side && !isBroker(s));
      return { ...p, certain: p.certain && (!other.length || isBroker(p.side)) };
    })
    .sort(
      (a, b) => sides.indexOf(a.side) - sides.indexOf(b.side) || (a.ordinal ?? 99) - (b.ordinal ?? 99) || a.at - b.at,
    )
    .map(({ ordinal: _, at: __, ...p }) => p);
}

/** Returns whether a sentence ends right before a piece. */
export const isAfterEnd = (pieces: readonly Piece[], at: number) => at === 0 || isEnd(pieces, at - 1);
