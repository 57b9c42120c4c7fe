/** The words by which forms name places and people, in English and Spanish. */
import { cutEnd } from '../text/ends';
import type { PlaceKind, PlaceRole } from './types';
import { itemAt } from '../sure';

/** Printable ASCII letters and signs, without the one that stands for an apostrophe. */
const PLAIN = /^[\n\r\t -_a-~]*$/;

/** The same, in words with single spaces between them. */
const TIDY = /^[!-_a-~]+(?: [!-_a-~]+)*$/;

/** Returns text in lower case with straight apostrophes, without accents, and with single spaces. */
export function plain(text: string): string {
  // Most captions are plain already but for case, and there are thousands of them.
  if (TIDY.test(text)) return text.toLowerCase();
  if (PLAIN.test(text)) return text.replace(/\s+/g, ' ').trim().toLowerCase();
  return text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/[\u2018\u2019\u02bc`\u00b4]/g, "'")
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase();
}

/** Number of characters of a caption that are examined: only the ends of a long run could name a place. */
const MOST = 600;
const caption = (text: string) =>
  plain(text.length > MOST ? `${text.slice(0, MOST / 2)} ${text.slice(-MOST / 2)}` : text);

const SIGNATURE =
  /\bsignatures?\b|\bsign(?:ed)?(?: (?:here|by))?\s*[:)]?$|^(?:signed|x)\b\s*[:.]?$|\bfirmas?\b|\bfirmado(?: por)?\s*:?$|\b(?:received|accepted|approved|executed|agreed|acknowledged|witnessed|recibido|aceptado|aprobado) (?:by|por)\s*:?$|^(?:by|per|por)\s*:$/;
const INITIALS =
  /\binitials\b|\binitial(?: here| below)?\s*[:)\]]*$|^\(?initial\)?$|\binits?\.?\s*:?$|\biniciales\b|\brubricas?\b|\binicial\s*[:)]*$/;
const DATE =
  /\bdate[ds]?\b|\b(?:day signed|signed on|day of signing|dia de firma|firmado el)\b|\bfechas?\b|\bfechado\b|\bmm ?\/ ?dd\b|\bdd ?\/ ?mm\b/;
const NAME =
  /\bprint(?:ed)?\s*[:)]?$|\b(?:full|legal|printed?|typed|type|first|last|middle|print or type) names?\b|\bnames?\b|\bnombres?\b|\bletra de (?:molde|imprenta)\b|\bapellidos?\b/;
const OTHER =
  /\b(?:address|street|city|state|zip|phone|telephone|tel|cell|mobile|fax|e-?mail|licen[sc]e|title|its|capacity|price|amount|sum|rent|deposit|fee|percent|number|no\.|account|unit|lot|block|parcel|county|company|firm|brokerage|office|time|relationship|occupation|employer|make|model|year|plate|domicilio|direccion|telefono|correo|ciudad|estado|licencia|titulo|cargo|precio|monto|importe|renta|deposito|numero|condado|empresa|hora|codigo postal)\b/;

/** Words after which "name" is the name of a thing, not of a signer. */
const THING_NAME =
  /\bnames? of (?:the |your |an? )?(?!the\b|your\b|an?\b|seller|buyer|purchaser|tenant|landlord|lessor|lessee|owner|guarantor|broker|agent|manager|signer|person|applicant|occupant|resident|witness|notary|spouse|party|parties|vendedor|comprador)\w+|\b(?:trust|company|firm|business|brokerage|office|bank|street|file|document|pet|empresa|banco|calle)(?:'s)? name\b/;

/** Returns the kind a caption names by its words alone, or null. The last words count most. */
export function kindOfWords(words: string): Exclude<PlaceKind, 'checkbox'> | null {
  const t = cutEnd(caption(words), /[*_.]/).trim();
  if (!t) return null;
  const found = [
    { kind: 'initials' as const, at: lastIndex(t, INITIALS) },
    { kind: 'signature' as const, at: lastIndex(t, SIGNATURE) },
    { kind: 'name' as const, at: THING_NAME.test(t) ? -1 : lastIndex(t, NAME) },
    { kind: 'date' as const, at: lastIndex(t, DATE) },
    { kind: 'text' as const, at: lastIndex(t, OTHER) },
  ].filter((f) => f.at >= 0);
  if (!found.length) return null;
  const has = (k: PlaceKind) => found.some((f) => f.kind === k);
  // "Signature date" and "date signed" are dates; "signature of broker and license no." is a signature.
  if (
    has('date') &&
    /\b(?:signature|signed|initialed|firma)\b.{0,6}\bdate\b|\b(?:day signed|signed on|day of signing|dia de firma|firmado el)\b|\bdate (?:signed|of signature)\b|\bfecha de (?:la )?firma\b/.test(
      t,
    )
  )
    return 'date';
  if (
    has('name') &&
    /\bname\b.*\b(?:signature|signed|firma)\b|\bprint(?:ed)? name\b|\bname (?:printed|in print)\b/.test(t)
  ) {
    if (!/\bsignature\b/.test(t.split(/\bname\b/)[0] ?? '')) return 'name';
  }
  if (/\bdate (?:and|\/|&) ?time\b|\bfecha y hora\b/.test(t)) return 'date';
  if (has('initials')) return 'initials';
  if (has('signature') && !has('date')) return 'signature';
  found.sort((a, b) => b.at - a.at);
  return itemAt(found, 0).kind;
}

function lastIndex(t: string, re: RegExp): number {
  let at = -1;
  if (!re.test(t)) return at;
  for (const m of t.matchAll(new RegExp(re.source, 'g'))) at = m.index + m[0].length;
  return at;
}

const ROLES: [PlaceRole, RegExp][] = [
  [
    'buyer_broker',
    /\b(?:buyer|purchaser|tenant|lessee)s?'?s?'? (?:broker|agent|brokerage|licensee|salesperson|representative|(?:realty )?firm)(?:'?s)?\b|\b(?:selling|cooperating|co-?op) (?:broker|agent|firm|licensee|office)\b|\b(?:broker|agent|licensee)s? (?:for|of|representing) (?:the )?(?:buyer|purchaser|tenant)s?\b|\b(?:agente|corredor(?:a)?) (?:del?|de la) (?:los )?comprador/,
  ],
  [
    'manager',
    /\bproperty manage(?:r|ment)\b|\bmanaging agent\b|\b(?:building |site |resident )?manager\b|\badministrador(?:a)?\b|\bgestor(?:a)?\b/,
  ],
  [
    'broker',
    /\b(?:seller|landlord|owner|lessor|vendor)s?'?s?'? (?:broker|agent|brokerage|licensee|representative|(?:realty )?firm)s?\b|\b(?:broker|agent|licensee)s? (?:for|of|representing) (?:the )?(?:seller|landlord|owner|lessor)s?\b|\blisting (?:broker|agent|firm|licensee|brokerage|office)\b|\bbrokers?\b|\bbrokerage\b|\bagents?\b|\blicensees?\b|\bsales(?:person|associate)\b|\bcorredor(?:a|es)?\b|\bagentes?\b|\bcorreduria\b/,
  ],
  [
    'guarantor',
    /\b(?:co-?)?guarantors?\b|\bco-?signers?\b|\bsuret(?:y|ies)\b|\bfiador(?:a|es)?\b|\bgarantes?\b|\bavalista\b/,
  ],
  ['landlord', /\b(?:co-?)?(?:landlord|lessor)s?\b|\barrendador(?:a|es)?\b|\bcasero\b/],
  [
    'tenant',
    /\b(?:co-?)?(?:tenant|lessee|renter|resident|occupant|applicant)s?\b|\b(?:co-?)?arrendatari[oa]s?\b|\b(?:co-?)?inquilin[oa]s?\b/,
  ],
  ['seller', /\b(?:co-?)?(?:seller|vendor|transferor|grantor)s?\b|\b(?:co-?)?vendedor(?:a|es|as)?\b/],
  ['buyer', /\b(?:co-?)?(?:buyer|purchaser|transferee|grantee|offeror)s?\b|\b(?:co-?)?comprador(?:a|es|as)?\b/],
];
/** An "owner" is a landlord in a tenancy and a seller elsewhere. */
const OWNER = /\b(?:co-?)?owners?\b|\b(?:co-?)?propietari[oa]s?\b|\bduen[oa]s?\b/;

/** A role in words, with its number if there is one. */
export interface RoleRead {
  role: PlaceRole;
  ordinal: number | null;
}

/** What "owner" and "broker" mean in a document. */
export interface Sense {
  /** The role of an "owner". */
  owner: PlaceRole;
  /** The role of a "broker" or "agent" if the caption does not say whose broker it is. */
  broker: PlaceRole;
}

const SENSE: Sense = { owner: 'seller', broker: 'broker' };

/** Words for a broker that do not say whose broker it is. */
const BARE_BROKER =
  /^(?:brokers?|brokerage|agents?|licensees?|sales(?:person|associate)|corredor(?:a|es)?|agentes?|correduria)$/;

/** Returns the role a caption names, and its ordinal; null if it names none. */
export function roleOfWords(words: string, sense: Sense = SENSE): RoleRead | null {
  const t = caption(words);
  let best: { role: PlaceRole; from: number; word: string } | null = null;
  const ownerToo: [PlaceRole, RegExp] = [sense.owner, OWNER];
  for (const [role, re] of [...ROLES, ownerToo]) {
    const m = re.exec(t);
    if (!m) continue;
    // "Landlord or agent" is the landlord's place; "buyer's agent" is one role that contains another's word.
    const within = best && m.index >= best.from && m.index < best.from + best.word.length;
    if (!best || (m.index < best.from && !(m.index + m[0].length > best.from && best.word.length > m[0].length))) {
      if (!within) best = { role, from: m.index, word: m[0] };
    }
  }
  if (best?.role === 'broker' && BARE_BROKER.test(best.word)) best.role = sense.broker;
  return best && { role: best.role, ordinal: ordinalOf(t, best.from, best.from + best.word.length, best.word) };
}

/** Letters that forms commonly use for a role. With a number after them ("B1") they need no legend. */
const LETTERS: Readonly<Record<string, PlaceRole>> = { b: 'buyer', s: 'seller', t: 'tenant', l: 'landlord' };

/** Returns the roles that a text abbreviates by a letter, as "B = Buyer" does. */
export function lettersOf(text: string, sense: Sense): Map<string, PlaceRole> {
  const out = new Map<string, PlaceRole>();
  for (const m of plain(text).matchAll(/\b([a-z]) ?= ?([a-z'-]{3,20}(?: [a-z]{3,12})?)/g)) {
    const role = roleOfWords(itemAt(m, 2), sense);
    if (role) out.set(itemAt(m, 1), role.role);
  }
  return out;
}

/** A term in quotation marks, and the words right before it: `the seller ("Buyer")`. */
const TERM = /[\u201c"]([a-z' -]{3,24})[\u201d"]/g;
const BEFORE_TERM = /([a-z' -]{3,40}),? \(?(?:the |hereinafter |called |as )?$/;
/** Number of characters before a term that are examined. */
const TERM_REACH = 64;

/** Returns the roles that a text renames, with the role they really are: buyer to seller for `the seller ("Buyer")`. */
export function misnamedIn(text: string, sense: Sense): Map<PlaceRole, PlaceRole> {
  const out = new Map<PlaceRole, PlaceRole>();
  const t = plain(text);
  for (const m of t.matchAll(TERM)) {
    const before = BEFORE_TERM.exec(t.slice(Math.max(0, m.index - TERM_REACH), m.index))?.[1];
    if (!before) continue;
    // Only the last two words say who it is; a role named earlier is somebody else.
    const who = roleOfWords(before.trim().split(' ').slice(-2).join(' '), sense);
    const term = roleOfWords(itemAt(m, 1), sense);
    if (who && term && who.role !== term.role) out.set(term.role, who.role);
  }
  return out;
}

/** Returns the role and number that a caption abbreviates: "B1", "S 2", or "T" where a legend says what that is. */
export function roleOfLetter(words: string, letters: ReadonlyMap<string, PlaceRole>): RoleRead | null {
  const m = /^[([]? ?([a-z]) ?[-#.]? ?([1-9])? ?[:)\].]?$/.exec(plain(words.slice(0, 12)));
  if (!m || words.length > 12) return null;
  const [letter, n] = [itemAt(m, 1), m[2]];
  const role = letters.get(letter) ?? (n ? LETTERS[letter] : undefined);
  return role ? { role, ordinal: n ? Number(n) : null } : null;
}

const FIRST = /\b(?:first|primary|1st|primer(?:o|a)?)\s*$/;
const SECOND = /\b(?:second|2nd|segund[oa])\s*$/;
const THIRD = /\b(?:third|3rd|tercer(?:o|a)?)\s*$/;

function ordinalOf(t: string, from: number, to: number, word: string): number | null {
  const before = t.slice(0, from);
  const after = t.slice(to);
  if (
    /^co-?(?:sell|vend|buy|purch|comp|ten|less|land|own|res|rent|app|occ|arr|inq|prop|guar|trans|grant)/.test(word) ||
    /\bco-?\s*$/.test(before)
  )
    return 2;
  if (FIRST.test(before)) return 1;
  if (SECOND.test(before) || /\b(?:additional|other|otro)\s*$/.test(before)) return 2;
  if (THIRD.test(before)) return 3;
  // "Seller 2", "Seller #2", "Seller's (2) signature", "Seller No. 2", "Seller-2".
  const n =
    /^(?:'s|s'|')?(?:\s{0,3}(?:[-#(]|no\.?|number|num\.?))?\s{0,3}([1-9]\d?)\b(?![.,]?\d|\s*(?:%|percent|of\b|de\b|days?|months?|years?))/.exec(
      after,
    );
  if (n) return Number(n[1]);
  const late =
    /\b(?:signature|initials|name|date|firma|iniciales|nombre|fecha)s?(?:\s{0,3}(?:#|no\.?))?\s{0,3}\(?([1-9])\b/.exec(
      after,
    );
  if (late) return Number(late[1]);
  const roman = /^\s+(i{1,3}|iv|v)\b/.exec(after);
  if (roman) return ['i', 'ii', 'iii', 'iv', 'v'].indexOf(itemAt(roman, 1)) + 1;
  return null;
}

/** Returns whether a phrase is only a role, perhaps with an ordinal and colon: a heading over a block. */
export function isRoleHeading(text: string): boolean {
  const t = caption(text)
    .replace(/\(s\)/g, 's')
    .replace(/[:.,()#"\u201c\u201d\-\u2013\u2014]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  if (t.length > 48) return false;
  const rest = t
    .replace(
      /\b(?:the|and|of|by|for|information|section|to be signed by|signatures?|signed|accepted|agreed|firmas?|del?|la|los?|las|el|y|parte|signs|here|only|use|acknowledg(?:e?ment|ed))\b/g,
      ' ',
    )
    .replace(
      /\b(?:listing|buyer|buyers|buyer's|seller|sellers|seller's|purchasers?|landlords?|lessors?|tenants?|lessees?|guarantors?|brokers?|agents?|property|managers?|owners?|brokerage|firm|co|residents?|applicants?|renters?|occupants?|vendors?|transferors?|transferees?|grantors?|grantees?|offerors?|co-?signers?|licensees?|vendedor(?:a|es)?|comprador(?:a|es)?|arrendador(?:a|es)?|arrendatari[oa]s?|inquilin[oa]s?|propietari[oa]s?|fiador(?:a|es)?|corredor(?:a)?|agente|administrador(?:a)?|garante)\b'?s?/g,
      ' ',
    )
    .replace(/\b(?:first|second|third|primer[oa]?|segund[oa]|[1-9]|i{1,3})\b/g, ' ')
    .replace(/'s?\b|s'/g, ' ')
    .trim();
  return rest === '' && roleOfWords(t) !== null;
}

/** Minimum number of times that a document names one side before the absence of the other side counts. */
const OFTEN = 3;
/** How many times as often one of two meanings must be spoken of to be clear. */
const CLEARLY = 2;

/** Words that tell a tenancy from a sale. The other party's name tells most: an owner faces a tenant, or a buyer. */
const TENANCY = {
  party: /\b(?:tenant|lessee|renter|resident|occupant|inquilin[oa]|arrendatari[oa])s?\b/g,
  other: /\b(?:lease|rent|landlord|lessor|let|arrendamiento|alquiler)s?\b/g,
};
const SALE = {
  party: /\b(?:buyer|purchaser|transferee|grantee|comprador)(?:a|s|es)?\b/g,
  other: /\b(?:seller|purchase|sale|listing|vendedor|compraventa|venta)(?:s|es)?\b/g,
};
const PARTY_WEIGHT = 3;

const timesIn = (t: string, re: RegExp) => t.match(re)?.length ?? 0;
const weightOf = (t: string, words: typeof SALE) => PARTY_WEIGHT * timesIn(t, words.party) + timesIn(t, words.other);

/**
 * Returns what "owner" and "broker" mean in a document. An owner is the landlord if the text speaks of a tenancy more than of a
 * sale, otherwise the seller. A broker is the buyer's broker if the text names a buyer or tenant and no other side.
 */
export function senseOf(text: string): Sense {
  const t = plain(text);
  const theirs = timesIn(t, /\b(?:buyer|purchaser|tenant|lessee|comprador|arrendatari|inquilin)/g);
  const ours = timesIn(t, OTHER_SIDE);
  return {
    owner: weightOf(t, TENANCY) > weightOf(t, SALE) ? 'landlord' : 'seller',
    broker: theirs >= OFTEN && !ours ? 'buyer_broker' : 'broker',
  };
}
const OTHER_SIDE =
  /\b(?:seller|vendor|landlord|lessor|owner|listing (?:broker|agent|firm|office|agreement|contract)|vendedor|arrendador|propietari)/g;

/** Words that say whose broker is meant. */
const WHOSE_BROKER =
  /\b(?:listing|selling|cooperating|co-?op|(?:seller|buyer|purchaser|landlord|owner|tenant|vendor)s?'s?) (?:broker|agent|firm|licensee|brokerage|office)|\b(?:corredor|agente)(?:a|es|s)? del? /;
const BROKER = /\b(?:broker|agent|licensee|corredor|agente)(?:a|s|es)?\b/;
const LANDLORD = /\b(?:landlord|lessor|arrendador)/;
const SELLER = /\b(?:seller|vendor|transferor|grantor|vendedor)/;

/**
 * Returns the roles that a document may mean otherwise, with the role they may be: those that it calls by a word with two
 * meanings, an "owner" or a bare "broker", without saying anywhere which one it is.
 */
export function unclearIn(text: string, sense: Sense): Map<PlaceRole, PlaceRole> {
  const t = plain(text);
  const out = new Map<PlaceRole, PlaceRole>();
  const [lets, sells] = [weightOf(t, TENANCY), weightOf(t, SALE)];
  const isLet = sense.owner === 'landlord';
  if (OWNER.test(t) && !(isLet ? LANDLORD : SELLER).test(t) && Math.max(lets, sells) < CLEARLY * Math.min(lets, sells))
    out.set(sense.owner, isLet ? 'seller' : 'landlord');
  // The words of the broker's own side are spoken of by far more often than those of the other.
  if (sense.broker === 'broker' && BROKER.test(t) && !WHOSE_BROKER.test(t)) {
    const [theirs, ours] = [timesIn(t, SALE.party) + timesIn(t, TENANCY.party), timesIn(t, OTHER_SIDE)];
    if (ours < CLEARLY * theirs && theirs >= OFTEN) out.set('broker', 'buyer_broker');
  }
  return out;
}

/** Words for initials; "the initial term" is none. */
const SPEAKS_OF_INITIALS =
  /\binitials\b|\binitial(?:ed|led)?\b(?: (?:each|every|here|what|below|above|beside|where|one|all|the|in|by|and)\b|\s*[:.,)\]])|\biniciales\b|\bto initial\b/;

/** Returns whether a text speaks of initials, as documents do that ask for them. */
export const asksForInitials = (text: string): boolean => SPEAKS_OF_INITIALS.test(plain(text));

/** Words by which a document says that it is signed in this place; what merely mentions a signature is none. */
const SPEAKS_OF_SIGNING =
  /\bin witness w?hereof\b|\bsignature pages?\b|\bby signing (?:below|here|this)\b|\bsign(?:ed|s)? (?:below|here|on the (?:line|dates?) below)\b|\bhave (?:signed|executed) (?:this|on)\b|\bsigned by ?:|\b(?:en fe|en prueba) de (?:lo cual|conformidad)\b|\bfirm(?:an?|ado) (?:abajo|al calce|aqui)\b/;

/** Returns whether a text says that it is to be signed. */
export const asksForSignatures = (text: string): boolean => SPEAKS_OF_SIGNING.test(plain(text));

/** Words by which a page says that it is not to be signed. */
const NOT_TO_SIGN =
  /^\W*(?:this is a )?(?:sample|specimen|muestra)(?: (?:only|form|copy|page|document|contract|agreement))?\W*$|^\W*(?:sample|specimen|muestra) ?[-:\u2013\u2014]|\bdo not sign\b|\bnot (?:to be signed|for signature)\b|\bfor (?:illustration|information) only\b|\b(?:ejemplar sin valor|no firmar|no firme)\b/;

/** Returns whether a heading or a stamp says that a page is a sample. */
export const isSampleMark = (text: string): boolean => text.length < 60 && NOT_TO_SIGN.test(plain(text));

/** Returns whether a phrase heads a page for further signatures, as it is printed when people have no line on a form. */
export const isFurtherPage = (text: string): boolean =>
  /^Further signatures to “|^Page \d{1,5}, continuing “/.test(text);
