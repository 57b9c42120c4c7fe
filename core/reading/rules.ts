/**
 * What a blank is for: rules in their order, the first that says something decides. Each is there for lines of a form, which
 * its comment shows; the tests hold one such form for each. The last says something of whatever is left.
 */
import { boxWords, followsBlank, handsAtHead, initialsAsked, isCorner, roleOver, signsNear } from './around';
import type { Blank } from './blanks';
import { BLANK } from './flow';
import { Asked, type Judged } from './asked';
import { tail } from './captions';
import type { PlaceKind } from './types';
import { isRoleHeading, kindOfWords, plain, type RoleRead } from './words';

/** What a rule says: places to fill, none where the blank is no place, null where it has nothing to say. */
type Saying = Judged[] | null;
interface Rule<N extends string> {
  name: N;
  judge: (q: Asked) => Saying;
}

const rule = <const N extends string>(name: N, judge: (q: Asked) => Judged | Judged[] | null): Rule<N> => ({
  name,
  judge: (q) => {
    const said = judge(q);
    return said === null || Array.isArray(said) ? said : [said];
  },
});

/** People who sign beside the parties. */
export const OUTSIDER = /\b(?:witness(?:es)?|notary(?: public)?|testigos?|notari[oa])\b/;

/** Words that a day follows. */
const DAY_BEFORE =
  /\b(?:on|on or (?:before|about|after)|until|since|before|dated|(?:offer|agreement|contract|listing|oferta|contrato) (?:of|del?)|(?:no|not) later than|through|till|as of|(?:extended|moved|postponed) to|prorrogad[oa] (?:a|al|hasta)|vence el|antes del|a mas tardar el|commencing|beginning|effective|hasta(?: el)?|desde(?: el)?|a partir del?|el dia|ending|midnight of|(?:entregado|recibido|pagado) el)\s?:?$/;
/** What is of a day, where the blank is no wider than one: "the lease of ________". */
const OF_DAY = /\b(?:lease|letter|list|notice|addendum) (?:of|dated)$/;

/** Widest that a blank for initials is, and for the day, month or year of a date, in points. */
const INITIALS_WIDE = 90;
const DAY_WIDE = 110;
/** Narrowest that a signature is. */
const SIGNED_WIDE = 80;

/** "[ ] Smoke alarms" */
const boxToTick = rule('box to tick', (q) =>
  q.b.made === 'box' ? q.is('checkbox', null, boxWords(q.scan, q.b) || q.c.left, q.b.cell ? 0.9 : 0.92, 'shape') : null,
);

/** "Date: __/__/____" */
const dateInPieces = rule('date in pieces', (q) =>
  q.b.pieces ? q.is('date', q.role(q.c.left), q.c.left || 'Date', 0.9, 'words') : null,
);

/** "Dated this ____ day of", "a los ____ dias" */
const dayOfMonth = rule('day of a month', (q) =>
  q.width < DAY_WIDE &&
  /\bthis$|\bdated(?: this| the)?$|\bel dia$|\ba los?$|\ben fecha$/.test(q.leftTail) &&
  /^(?:st|nd|rd|th)?\s*day\b|^dias?\b|^de\b/.test(q.right)
    ? q.ofText('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "Signed on the ____ day of" */
const dayBefore = rule('day of, behind it', (q) =>
  q.width < DAY_WIDE && /^(?:st|nd|rd|th)?\s*day of\b(?! (?:each|every|the|any)\b)/.test(q.right)
    ? q.ofText('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "day of __________" */
const month = rule('month after its day', (q) =>
  /\bday of$|\bdias? (?:de|del mes de)$/.test(q.leftTail) ? q.ofText('date', null, q.c.left, 0.85, 'words') : null,
);

/** ", 20__" behind a day and a month; "built in 19__" */
const year = rule('year after its century', (q) => {
  if (q.width >= 80 || !/(?:^|[\s,])(?:19|20|de 20|del? ano 20|del? ano)$/.test(q.leftTail)) return null;
  const ofDay = /_ ?,? ?(?:(?:of|del?) )?(?:ano )?(?:19|20)?$|\b(?:date[ds]?|fecha|day|dia)\b/.test(
    plain(q.flow.before),
  );
  return q.ofText(ofDay ? 'date' : 'text', null, 'Year', 0.8, 'words');
});

/** "from ________ to ________": the second of two days */
const toDay = rule('day to which', (q) =>
  q.lastInText?.kind === 'date' &&
  q.width < 150 &&
  new RegExp(`${BLANK} (?:to|al|and|through|until|hasta(?: el)?|a)$`).test(plain(q.flow.before))
    ? q.ofText('date', null, q.c.left, 0.65, 'words')
    : null,
);

/** "From ________ until ________" */
const fromDay = rule('day from which', (q) =>
  q.width > 55 &&
  q.width < 110 &&
  /\b(?:from|desde|by|del)(?: the)?$/.test(q.leftTail || tail(q.flow.before, 3)) &&
  (/^(?:[.,;]|$|for\b|por\b|on\b)/.test(plain(q.flow.after)) ||
    new RegExp(`^(?:until|to|through|till|hasta|a|al)\\b.{0,12}${BLANK}`).test(plain(q.flow.after)))
    ? q.ofText('date', null, q.c.left, 0.65, 'words')
    : null,
);

/** "a ____ de ________ de 20__" */
const spanishDay = rule('day of a month in Spanish', (q) => {
  if (q.width >= DAY_WIDE) return null;
  const [before, after] = [plain(q.flow.before), plain(q.flow.after)];
  const day = /\b(?:a|el|los|dia|del?)$/.test(before) && new RegExp(`^de ${BLANK} del?\\b`).test(after);
  const ofDay = new RegExp(`${BLANK} de$`).test(before) && /^de(?:l| ano)* ?(?:20|19)?/.test(after);
  return day || (ofDay && /^del?\b/.test(after)) ? q.ofText('date', null, q.c.left, 0.8, 'words') : null;
});

/** "between ____, of ____ (the “Landlord”), and ____ and ____ (together the “Tenant”)" */
const inPreamble = rule('party of a preamble', (q) => {
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

/** "The owner, ____,", "The tenant ____ owes" */
function calledBefore(q: Asked, before: string): RoleRead | null {
  const who = /([a-z' -]{3,30}),$/.exec(before)?.[1]?.split(' ').slice(-2).join(' ') ?? '';
  if (/^\s*,/.test(q.flow.after) && isRoleHeading(who)) return q.role(who);
  const named = /(?:\b(?:the|el|la|and|y)|,) ([a-z'()-]+)$/.exec(before)?.[1] ?? '';
  return /^\s*(?:[a-z]|,)/.test(q.flow.after) && isRoleHeading(named) ? q.role(named) : null;
}

/** "hereinafter called the seller", ", buyer,", "(the “Tenant”)": who is explained right behind the blank. */
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

/** The first brackets ahead in the sentence, where they name a role. */
function bracketAhead(q: Asked, after: string): RoleRead | null {
  const said = /\(|,\s*(?:called|hereinafter|herein|denominad[oa])\b/i.exec(after);
  if (!said || /[.;]\s/.test(after.slice(0, said.index))) return null;
  return q.role(after.slice(said.index + 1, said.index + 60).split(/[),.;]/)[0] ?? '');
}

/** "between ________" at the end of a line, and "______" at the head of the next: one place, where there is more room */
const goesOn = rule('blank over two lines', (q) => {
  const { from, to } = q.flow;
  if (from && q.b.made === 'underscores' && isCut(q, from, q.b)) return [];
  if (!to || q.b.made !== 'underscores' || !isCut(q, q.b, to)) return null;
  return to.x1 - to.x0 > q.width ? q.is('text', null, q.words, 0.7, 'none', to) : null;
});

/** Whether a blank at the end of a line goes on at the head of the next. */
function isCut(q: Asked, from: Blank, to: Blank): boolean {
  if (from.made !== 'underscores' || to.made !== 'underscores' || q.scan.right - from.x1 > 24) return false;
  const words = q.scan.phrases.some(
    (p) => p.x1 <= from.x0 + 4 && from.x0 - p.x1 < 12 && Math.abs(p.y - from.y) < 0.5 * p.size && !/:\s*$/.test(p.text),
  );
  return words && to.x1 - to.x0 < 0.8 * (q.scan.right - q.scan.left);
}

/** "Tenants' initials: ( ____ ) ( ____ )" */
const initialsGoOn = rule('initials that go on', (q) => {
  const { prior } = q;
  if (prior?.kind !== 'initials' || q.width >= INITIALS_WIDE) return null;
  // A caption of its own says whose it is: "Seller 1", "Broker" under each.
  const own = q.bracket ?? q.role(q.below);
  return own ? q.is('initials', own, q.below, prior.confidence, 'words') : sameAgain(q, prior, 'words');
});

/** "Tenants: ______ and ______" */
const peopleGoOn = rule('people joined by and', (q) => {
  const { prior } = q;
  const people = prior?.kind === 'name' || (prior?.kind === 'signature' && prior.by === 'role');
  return prior && people && /^(?:and|y|&)$/i.test(q.c.left) ? sameAgain(q, prior, prior.by) : null;
});

/** One after the other asks the same of the next one of its role. */
function sameAgain(q: Asked, prior: Judged, by: Judged['by']): Judged {
  const role = prior.role && { role: prior.role.role, ordinal: null };
  return q.is(prior.kind, role, prior.label, prior.confidence, by);
}

/** "______________________" over "Signature        Date" */
const partedLine = rule('line parted by its captions', (q) => {
  const { c, b } = q;
  if (c.below.length < 2 || kindOfWords(q.shortLeft) || q.runs) return null;
  const known = c.below
    .map((p) => ({ p, kind: kindOfWords(p.text), role: q.role(p.text) }))
    .filter((part) => part.kind || part.role);
  if (known.length < 2 || new Set(known.map((part) => part.kind)).size < 2) return null;
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

/** "( ____ ) ( ____ ) Tenants' initials" */
const initialsBeforeWords = rule('initials before their words', (q) =>
  q.width < INITIALS_WIDE && kindOfWords(q.after) === 'initials' && /^[\s()[\],/]*$/.test(q.c.left)
    ? q.is('initials', q.role(q.after), q.after.replace(/^[\s)\]]+/, ''), 0.85, 'words')
    : null,
);

/** "Initials: Seller ____ Buyer ____" */
const initialsOfRow = rule('initials of a row', (q) => {
  const { shortLeft } = q;
  if (q.width >= INITIALS_WIDE || kindOfWords(q.c.row) !== 'initials') return null;
  const named = q.role(shortLeft);
  if (!named && shortLeft && kindOfWords(shortLeft) !== 'initials' && !/^[\s(,/:;]*$/.test(shortLeft)) return null;
  const whose = q.bracket ?? q.role(q.below) ?? named ?? q.role(q.c.row) ?? q.role(q.after);
  return q.is('initials', whose, shortLeft || q.c.row, 0.9, 'words');
});

/** "The tenant shall initial here ____" */
const initialHere = rule('initial here', (q) =>
  q.width < INITIALS_WIDE && /\binitial(?:s|ed)? (?:here|below|in the)\b/.test(plain(q.c.left))
    ? q.is('initials', q.role(q.c.left), q.c.left, 0.85, 'words')
    : null,
);

/** Whether a short blank stands before words that are no caption: a clause, an answer. */
function beforeClause(q: Asked): boolean {
  const { c } = q;
  if (q.runs) return false;
  const caption = kindOfWords(c.right) && c.right.split(' ').length < 4 && !/initial/i.test(c.right);
  return q.b.made !== 'cell' && q.width < 48 && (!!c.right || startsLine(q)) && !caption;
}
/** "(b) ____ The buyer has received the booklet." */
const isNumbered = (q: Asked) => /^\(?[a-z0-9]{1,4}[).]$/i.test(q.c.left) && q.c.from < q.scan.left + 60;
const startsLine = (q: Asked) => !q.c.left && q.b.x0 < q.scan.left + 60;

/** "____ Yes  ____ No" */
const answerToTick = rule('answer to tick', (q) =>
  beforeClause(q) && /^(?:yes|no|n\/?a|unknown|si|none|not applicable|waived?|accepted|rejected)\W*$/.test(q.right)
    ? q.is('checkbox', null, q.c.right, 0.8, 'shape')
    : null,
);

/** "____ The buyer has read the pamphlet." where the paper asks for initials before its clauses */
const clauseToInitial = rule('clause to initial', (q) => {
  const { right } = q.c;
  const begins = startsLine(q) || isNumbered(q);
  if (!beforeClause(q) || !begins || !right || !/^[(]?[a-z0-9]/i.test(q.right) || q.width <= 16) return null;
  const over = initialsAsked(q.scan, q.b);
  if (!q.paper.asksInitials && !over && !ASKS_IN_CLAUSE.test(plain(right))) return null;
  const named = q.role(right.split(' ').slice(0, 4).join(' '));
  return q.is('initials', q.role(over ?? '') ?? named ?? q.paper.initialsBy, right, 0.75, 'shape');
});
const ASKS_IN_CLAUSE = /\binitials?\b\s*[:)\]]|\binitials\b|\biniciales\b/;

/** "____ ____ The buyers waive the inspection.": two hands before a clause, and no heads over them that say yes and no */
const handsBeforeClause = rule('hands before a clause', (q) => {
  if (q.b.made === 'cell' || q.b.made === 'box' || q.width >= 60 || q.width <= 16) return null;
  const hands = handsAtHead(q.scan, q.b);
  if (!hands) return null;
  const { clause, n } = hands;
  const asked = initialsAsked(q.scan, q.b);
  if (!q.paper.asksInitials && !asked && !q.paper.speaksOfInitials) return null;
  const who = q.role(asked ?? '') ?? q.role(clause.split(' ').slice(0, 4).join(' ')) ?? q.paper.initialsBy;
  return q.is('initials', who && { role: who.role, ordinal: n }, clause, 0.75, 'shape');
});

/** "____ A home inspection is wanted." */
const clauseToTick = rule('clause to tick', (q) =>
  beforeClause(q) && startsLine(q) && q.c.right && /^[(]?[a-z0-9]/i.test(q.right)
    ? q.is('checkbox', null, q.c.right, 0.7, 'shape')
    : null,
);

/** "a deposit of $ ________", "________ dollars" */
const sum = rule('sum of money', (q) =>
  /[$\u20ac\u00a3]\s*\(?$/.test(q.c.left) || /^(?:%|percent|dollars|por ciento|dolares)/.test(q.right)
    ? q.is('text', null, q.c.left || q.c.right, 0.8, 'words')
    : null,
);

/** "The term begins on ________", "not later than ________" */
const dayInSentence = rule('day in a sentence', (q) =>
  q.width > 38 &&
  q.width < 150 &&
  [null, 'text'].includes(kindOfWords(q.shortLeft)) &&
  (DAY_BEFORE.test(tail(q.c.left || q.flow.before, 5)) ||
    (q.width < DAY_WIDE && OF_DAY.test(tail(q.c.left || q.flow.before, 5))))
    ? q.ofText('date', null, q.c.left, 0.7, 'words')
    : null,
);

/** Under a head that is nobody but a person: what the row asks of them */
const ofPersonInTable = rule('row of a person in a table', (q) => {
  const { c, b } = q;
  if (b.made !== 'cell' || c.cell || !c.rowHead || !isRoleHeading(c.colHead)) return null;
  const asked = kindOfWords(c.rowHead);
  const personal =
    asked && (asked !== 'date' || /^(?:date[ds]?|date signed|fecha(?: de firma)?)\W*$/.test(plain(c.rowHead)));
  const kind =
    personal && (asked !== 'name' || /\bnames?\b|\bnombres?\b|\bprint/.test(plain(c.rowHead))) ? asked : 'text';
  return q.is(kind, q.role(c.colHead), c.rowHead, 0.85, 'words');
});

/** A table's cell that holds words already: "Kitchen" */
const filledCell = rule('cell that is filled', (q) => {
  const { cell } = q.c;
  const words = q.b.made === 'cell' && cell && !/[:?]\s*$/.test(cell) && !q.best;
  // Room left beside a role at the foot of a page is there for initials.
  const beside = q.b.x0 > (q.b.cell?.x ?? 0) + 6 && isRoleHeading(cell);
  return words && !beside && (q.b.inside?.[0]?.size ?? 0) > 8.9 ? [] : null;
});

/** "Signature of buyer: ________", "Date" under its line */
const namedByCaption = rule('named by its caption', (q) => {
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
const calledSo = rule('name of who is called so', (q) =>
  q.bracket && q.width > SIGNED_WIDE && !WHERE.test(plain(q.flow.before))
    ? q.is('name', q.bracket, q.label, 0.75, 'role')
    : null,
);

/** "____________ Witness": they sign too, and are nobody of the packet */
const outsider = rule('witness or notary', (q) =>
  OUTSIDER.test(plain(q.label)) && q.width > SIGNED_WIDE && !q.c.sentence
    ? q.is('signature', null, q.label, 0.7, 'role')
    : null,
);

/** "X ______________": an old way to say sign here */
const signAtX = rule('X before a line', (q) =>
  /(?:^|\s)x:?$/.test(plain(q.c.left)) && q.width > 60 ? q.is('signature', q.who, q.label, 0.9, 'words') : null,
);

/** "________, seller   ________, date": said behind the line, where nothing stands before it */
const signedBefore = rule('hand with its role behind', (q) => {
  if (q.width < 110 || q.flow.before || q.b.made === 'cell') return null;
  const said = /^,\s*([^,;.]{3,30})/.exec(q.c.right)?.[1] ?? '';
  if (!isRoleHeading(said)) return null;
  const dated = q.scan.phrases.some(
    (p) => Math.abs(p.y - q.b.y) < 8 && /\b(?:date[ds]?|fecha)\W*$/.test(plain(p.text)),
  );
  return dated ? q.is('signature', q.role(said), said, 0.75, 'role') : null;
});

/** "Seller / date" under one line: a hand, and the day beside it */
const handAndDay = rule('hand and day on one line', (q) =>
  q.width > 130 && !q.runs && /^[^/&,]{3,40}(?:\/|&|,|\band\b|\by\b)\s*(?:date|fecha)\W*$/.test(plain(q.label)) && q.who
    ? q.is('signature', q.who, q.label, 0.7, 'words')
    : null,
);

/** "I, ________, agree" */
const whoSpeaks = rule('who speaks', (q) =>
  q.width > SIGNED_WIDE &&
  /(?:^|[.;] |")(?:i|we|yo|nosotros|(?:i|we|the|el|la),? (?:the )?undersigned|el suscrito|la suscrita),?$/.test(
    plain(q.flow.before),
  )
    ? q.is('name', null, q.label, 0.7, 'words')
    : null,
);

/** Whether the caption is a role and nothing else, at a blank wide enough for a name. */
function roleAlone(q: Asked): boolean {
  if (q.runs) return false;
  const leadsOn = /\b(?:of|at|in|to|for|the|del?|en|a|al)\s*$/i.test(q.c.left);
  return !!q.who && !q.c.sentence && !leadsOn && q.label.split(' ').length <= 7 && q.width > SIGNED_WIDE;
}
const roleBelow = (q: Asked) => q.below !== '' && q.role(q.below) !== null;

/** "Notes of the broker: ________": somebody is named, but something else is asked for */
const aboutSomebody = rule('about somebody', (q) =>
  roleAlone(q) &&
  !roleBelow(q) &&
  /\b(?:notes?|remarks?|comments?|instructions?|share|fee|part|copy|for use|notas?|observaciones)\b/.test(
    plain(q.c.left),
  )
    ? q.is('text', q.who, q.label, 0.6, 'none')
    : null,
);

/** "Seller 1" under its line; "Seller: ________" where people sign, or where they are named */
const roleAsCaption = rule('role as caption', (q) => {
  if (!roleAlone(q)) return null;
  const below = roleBelow(q);
  const kind = below || (!q.flows && signsNear(q.scan, q.b)) ? 'signature' : 'name';
  return q.is(kind, q.who, q.label, below ? 0.85 : 0.75, 'role');
});

/** "Seller ____" at the foot of a page */
const initialsAtFoot = rule('initials at the foot', (q) =>
  q.who && q.width <= SIGNED_WIDE && !q.c.sentence && q.b.y > 0.86 * q.scan.content.height
    ? q.is('initials', q.who, q.label, 0.7, 'role')
    : null,
);

/** A table's cell under "Effective" or the like */
const dayInTable = rule('day in a table', (q) =>
  q.b.made === 'cell' && (DAY_BEFORE.test(plain(q.c.colHead)) || DAY_BEFORE.test(plain(q.c.cell)))
    ? q.is('date', null, q.c.colHead || q.c.cell, 0.7, 'words')
    : null,
);

/** The empty cell between a table's heads */
const cornerOfTable = rule('corner of a table', (q) =>
  q.b.made === 'cell' && !q.c.cell && !q.c.rowHead && isCorner(q.scan, q.b) ? [] : null,
);

/** A frame without a word in or around it: a place to write if it is of a size for it */
const bareFrame = rule('frame without words', (q) => {
  const { c, b } = q;
  if (b.made !== 'cell' || c.cell || c.left || c.colHead || c.above || c.below.length) return null;
  return q.width < 300 && b.h > 14 ? q.is('text', null, '', 0.35, 'none') : [];
});

/** A frame behind words: "Forwarding address [          ]" */
const frameBehindWords = rule('frame behind words', (q) => {
  const { c, b } = q;
  const asked = c.cell || /:\s*$/.test(c.left) || c.colHead;
  return b.made === 'cell' && !asked ? q.is('text', null, c.left, 0.5, 'none') : null;
});

/** Any other cell: "Phone:" in it, or under a head */
const cell = rule('cell to fill', (q) =>
  q.b.made === 'cell' ? q.is('text', null, q.label, q.c.cell && !/[:?]\s*$/.test(q.c.cell) ? 0.4 : 0.6, 'none') : null,
);

/** A line across the page: to write on after words that ask, else an ornament */
const lineAcross = rule('line across the page', (q) => {
  if (!q.pageWide || q.b.made !== 'rule') return null;
  return followsBlank(q.scan, q.b) ? q.is('text', null, q.words, 0.6, 'none') : [];
});

/** Underscores across the page that follow nothing */
const ornament = rule('underscores that part the page', (q) =>
  q.pageWide && q.b.made === 'underscores' && !q.words && !followsBlank(q.scan, q.b) ? [] : null,
);

/** "Parking: ........", and not the dots of a table of contents */
const dots = rule('dots', (q) => {
  if (q.b.made !== 'dots') return null;
  return q.words && /[:)]\s*$/.test(q.c.left) ? q.is('text', null, q.words, 0.55, 'none') : [];
});

/** "SELLER" over lines that have no captions of their own */
const lineUnderRole = rule('line under a role', (q) => {
  const { c, b } = q;
  if (q.words || c.colHead || b.h > 34 || b.made === 'parens' || q.width < 110 || q.pageWide) return null;
  const head = roleOver(q.scan, b);
  return head ? q.is('signature', q.role(head), head, 0.7, 'role') : null;
});

/** A line without words that follows nothing, brackets around nothing */
const ofNothing = rule('line or brackets of nothing', (q) => {
  if (q.words) return null;
  return q.b.made === 'parens' || (q.b.made === 'rule' && !followsBlank(q.scan, q.b)) ? [] : null;
});

/** "Fixtures that stay: ________" */
const textToWrite = rule('words to write', (q) =>
  q.is('text', null, q.words, q.b.made === 'underscores' ? 0.75 : q.words ? 0.65 : 0.45, 'none'),
);

export const RULES = [
  boxToTick,
  dateInPieces,
  dayOfMonth,
  dayBefore,
  month,
  year,
  spanishDay,
  goesOn,
  initialsGoOn,
  peopleGoOn,
  partedLine,
  handsBeforeClause,
  clauseToInitial,
  initialsBeforeWords,
  initialsOfRow,
  initialHere,
  answerToTick,
  clauseToTick,
  sum,
  inPreamble,
  dayInSentence,
  fromDay,
  toDay,
  cornerOfTable,
  ofPersonInTable,
  filledCell,
  signedBefore,
  handAndDay,
  whoSpeaks,
  namedByCaption,
  calledSo,
  outsider,
  signAtX,
  aboutSomebody,
  roleAsCaption,
  initialsAtFoot,
  dayInTable,
  lineUnderRole,
  bareFrame,
  frameBehindWords,
  cell,
  lineAcross,
  ornament,
  dots,
  ofNothing,
  textToWrite,
] as const;
export type RuleName = (typeof RULES)[number]['name'];
