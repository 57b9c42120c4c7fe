/** People and companies that a contract names, with their sides. */
import { sideOfRole } from '../reading/role-sides';
import { roleOfWords, type Sense } from '../reading/words';
import type { Side } from '../text/sides';
import { roleNear } from './block';
import { isCapital, JOINING, listAt, nameAt, NOT_A_NAME, STATUS, type Named } from './names';
import { isEnd } from './near';
import type { Mention } from './persons';
import { pieceAt, sourceOf, textOf, type Piece } from './pieces';

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
  return read && { side: sideOfRole(read.role) ?? ('other' as const), ordinal: read.ordinal };
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
