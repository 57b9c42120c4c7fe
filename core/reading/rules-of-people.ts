/** Rules for people: who is named, and who signs. */
import { roleOver, signsNear } from './around';
import type { Asked } from './asked';
import { tail } from './captions';
import { rule, SIGNED_WIDE, sameAgain } from './rule';
import type { PlaceKind } from './types';
import { isRoleHeading, kindOfWords, plain, type RoleRead } from './words';

/** People who sign beside the parties. */
export const OUTSIDER =
  /\b(?:witness(?:es)?|notary(?: public)?|testigos?|notari[oa]|(?:escrow|closing|title|loan) (?:officer|agent))\b/;

/** "between ____, of ____ (the “Landlord”), and ____ and ____ (together the “Tenant”)" */
export const inPreamble = rule('party of a preamble', (q) => {
  const { flow } = q;
  if (q.width <= SIGNED_WIDE || !flow.before || !/[a-z]{2}/i.test(flow.before)) return null;
  const before = plain(flow.before);
  if (ABOUT_THINGS.test(before)) return null;
  const role =
    calledBefore(q, before) ??
    calledAs(q, flow.after) ??
    (AMONG_PARTIES.test(before) ? bracketAhead(q, flow.after) : null);
  return role ? q.is('name', role, q.label, 0.8, 'role') : null;
});

/** "____, of ____": what follows is where somebody lives, or what something is. */
const ABOUT_THINGS =
  /\b(?:of|at|in|for|on|as|is|are|known|dollars|residing|located|sum|property|premises|address|en|domicilio|inmueble|por)$/;

/** A sentence that names who agrees, and has not ended. */
const AMONG_PARTIES = /\b(?:between|parties|entre|among)\b[^.;]*$/;

/** Returns the role named before a blank: "The owner, ____,", "The tenant ____ owes". */
function calledBefore(q: Asked, before: string): RoleRead | null {
  const who = /([a-z' -]{3,30}),$/.exec(before)?.[1]?.split(' ').slice(-2).join(' ') ?? '';
  if (/^\s*,/.test(q.flow.after) && isRoleHeading(who)) return q.role(who);
  const named = /(?:\b(?:the|el|la|and|y)|,) ([a-z'()-]+)$/.exec(before)?.[1] ?? '';
  return /^\s*(?:[a-z]|,)/.test(q.flow.after) && isRoleHeading(named) ? q.role(named) : null;
}

/** Returns the role explained right after a blank: "hereinafter called the seller", ", buyer,", "(the “Tenant”)". */
function calledAs(q: Asked, after: string): RoleRead | null {
  const said =
    /^\s*[,(]?\s*(?:[(“"']|hereinafter|herein|as\b|called|collectively|together|jointly|the\b|el\b|la\b|en adelante)?[^,.;)_]{0,48}/i.exec(
      after,
    )?.[0] ?? '';
  const words = said.replace(/^[\s,(“"']+/, '');
  if (!/^\s*[,(]|^\s*(?:hereinafter|as|called)\b/i.test(after) || words.split(/\s+/).length > 7) return null;
  const short = words.replace(
    /^(?:hereinafter|herein|called|referred to as|known as|collectively|together|jointly|as|the|el|la|los|las|en adelante|denominad[oa]|\s|[“"'])+/gi,
    '',
  );
  if (isRoleHeading(short)) return q.role(short);
  // "as buyer to ____": the sentence goes on behind the word.
  const first = short.split(/\s+/)[0] ?? '';
  return /^\s*(?:[(]|hereinafter|as|called)/i.test(after) && isRoleHeading(first) ? q.role(first) : null;
}

/** Returns the role in the next brackets of the sentence. */
function bracketAhead(q: Asked, after: string): RoleRead | null {
  const said = /\(|,\s*(?:called|hereinafter|herein|denominad[oa])\b/i.exec(after);
  if (!said || /[.;]\s/.test(after.slice(0, said.index))) return null;
  return q.role(after.slice(said.index + 1, said.index + 60).split(/[),.;]/)[0] ?? '');
}

/** "Tenants: ______ and ______" */
export const peopleGoOn = rule('people joined by and', (q) => {
  const { prior } = q;
  const people = prior?.kind === 'name' || (prior?.kind === 'signature' && prior.by === 'role');
  return prior && people && /^(?:and|y|&)$/i.test(q.c.left) ? sameAgain(q, prior, prior.by) : null;
});

/** "______________________" over "Signature        Date", "Initials ______________________" over "Buyer 1        Buyer 2" */
export const partedLine = rule('line parted by its captions', (q) => {
  const { c, b } = q;
  const asked = kindOfWords(q.shortLeft);
  if (c.below.length < 2 || (asked && asked !== 'initials') || q.runs) return null;
  const known = c.below
    .map((p) => ({ p, kind: kindOfWords(p.text) ?? asked, role: q.role(p.text) }))
    .filter((part) => (asked ? part.role && part.kind === asked : part.kind || part.role));
  const says = new Set(known.map(({ kind, role }) => `${kind} ${role?.role} ${role?.ordinal}`));
  // Whoever initials may be called the same several times; of signatures that would be one caption in two pieces.
  if (known.length < 2 || (says.size < 2 && !asked)) return null;
  return known.map(({ p, kind, role }, i) => {
    const next = known[i + 1];
    const part = {
      ...b,
      x0: i === 0 ? b.x0 : Math.max(b.x0, p.x0 - 4),
      x1: Math.min(b.x1, next ? next.p.x0 - 8 : b.x1),
    };
    return q.is(kind ?? 'signature', role, p.text, 0.85, kind ? 'words' : 'role', part);
  });
});

/** "Signature of buyer: ________", "Date" under its line */
export const namedByCaption = rule('named by its caption', (q) => {
  const { best, b, c } = q;
  if (!best) return null;
  // "the date of the closing, ________": a word in a sentence is no caption, unless it is the last one.
  if (best.kind === 'date' && c.sentence && !/\b(?:date|dated|fecha)\W*$/.test(tail(c.left, 4))) return null;
  let kind: PlaceKind = best.kind;
  // A role's whole signature needs room; what is short and says only "sign" is initials' size but still a signature.
  if (kind === 'signature' && q.width < 24) kind = 'initials';
  if (kind === 'initials' && q.width > 230) kind = 'text';
  // In a table, a role in the row and a kind in the head, or the other way round.
  const who = q.who ?? (b.made === 'cell' ? (q.role(c.rowHead) ?? q.role(c.colHead)) : null);
  const whose = kind === 'text' && c.sentence ? null : who;
  return q.is(kind, whose, q.label, Math.min(0.97, best.weight), 'words');
});

/** What follows is where somebody lives. */
const WHERE = /(?:_ ?,? of|\bresiding at|\blocated at|\bat|\bcon domicilio en)$/;

/** "by ____________ (“Seller”)": the paper says who is called so */
export const calledSo = rule('name of who is called so', (q) =>
  q.bracket && q.width > SIGNED_WIDE && !WHERE.test(plain(q.flow.before))
    ? q.is('name', q.bracket, q.label, 0.75, 'role')
    : null,
);

/** "____________ Witness": they sign too, and are nobody of the packet */
export const outsider = rule('witness or notary', (q) =>
  OUTSIDER.test(plain(q.label)) && q.width > SIGNED_WIDE && !q.c.sentence
    ? q.is('signature', null, q.label, 0.7, 'role')
    : null,
);

/** "X ______________": an old way to say sign here */
export const signAtX = rule('X before a line', (q) =>
  /(?:^|\s)x:?$/.test(plain(q.c.left)) && q.width > 60 ? q.is('signature', q.who, q.label, 0.9, 'words') : null,
);

/** "________, seller   ________, date": said behind the line, where nothing stands before it */
export const signedBefore = rule('hand with its role behind', (q) => {
  if (q.width < 110 || q.flow.before || q.b.made === 'cell') return null;
  const said = /^,\s*([^,;.]{3,30})/.exec(q.c.right)?.[1] ?? '';
  if (!isRoleHeading(said)) return null;
  const dated = q.scan.phrases.some(
    (p) => Math.abs(p.y - q.b.y) < 8 && /\b(?:date[ds]?|fecha)\W*$/.test(plain(p.text)),
  );
  return dated ? q.is('signature', q.role(said), said, 0.75, 'role') : null;
});

/** "Seller / date" under one line: a hand, and the day beside it */
export const handAndDay = rule('hand and day on one line', (q) =>
  q.width > 130 && !q.runs && /^[^/&,]{3,40}(?:\/|&|,|\band\b|\by\b)\s*(?:date|fecha)\W*$/.test(plain(q.label)) && q.who
    ? q.is('signature', q.who, q.label, 0.7, 'words')
    : null,
);

/** "I, ________, agree" */
export const whoSpeaks = rule('who speaks', (q) =>
  q.width > SIGNED_WIDE &&
  /(?:^|[.;] |")(?:i|we|yo|nosotros|(?:i|we|the|el|la),? (?:the )?undersigned|el suscrito|la suscrita),?$/.test(
    plain(q.flow.before),
  )
    ? q.is('name', null, q.label, 0.7, 'words')
    : null,
);

/** Returns whether the caption is a role and nothing else, at a blank wide enough for a name. */
function roleAlone(q: Asked): boolean {
  if (q.runs) return false;
  const leadsOn = /\b(?:of|at|in|to|for|the|del?|en|a|al)\s*$/i.test(q.c.left);
  return !!q.who && !q.c.sentence && !leadsOn && q.label.split(' ').length <= 7 && q.width > SIGNED_WIDE;
}

const roleBelow = (q: Asked) => q.below !== '' && q.role(q.below) !== null;

/** "Notes of the broker: ________": somebody is named, but something else is asked for */
export const aboutSomebody = rule('about somebody', (q) =>
  roleAlone(q) &&
  !roleBelow(q) &&
  /\b(?:notes?|remarks?|comments?|instructions?|share|fee|part|copy|for use|notas?|observaciones)\b/.test(
    plain(q.c.left),
  )
    ? q.is('text', q.who, q.label, 0.6, 'none')
    : null,
);

/** "Seller 1" under its line; "Seller: ________" where people sign, or where they are named */
export const roleAsCaption = rule('role as caption', (q) => {
  if (!roleAlone(q)) return null;
  const below = roleBelow(q);
  const kind = below || (!q.flows && signsNear(q.scan, q.b)) ? 'signature' : 'name';
  return q.is(kind, q.who, q.label, below ? 0.85 : 0.75, 'role');
});

/** "SELLER" over lines that have no captions of their own */
export const lineUnderRole = rule('line under a role', (q) => {
  const { c, b } = q;
  if (q.words || c.colHead || b.h > 34 || b.made === 'parens' || q.width < 110 || q.pageWide) return null;
  const head = roleOver(q.scan, b);
  return head ? q.is('signature', q.role(head), head, 0.7, 'role') : null;
});
