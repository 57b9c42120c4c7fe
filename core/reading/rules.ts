/**
 * What a blank is for: rules in their order, the first that says something decides. Each is there for lines of a form, which
 * its comment shows; the tests hold one such form for each. The last says something of whatever is left.
 */
import { boxWords, followsBlank, isCorner, signsNear } from './around';
import { Asked, type Judged } from './asked';
import { tail } from './captions';
import type { PlaceKind } from './types';
import { kindOfWords, plain } from './words';

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
  /\b(?:on|on or (?:before|about|after)|until|(?:no|not) later than|as of|commencing|beginning|effective|hasta(?: el)?|desde(?: el)?|a partir del?|el dia)$/;

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
    ? q.is('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "Signed on the ____ day of" */
const dayBefore = rule('day of, behind it', (q) =>
  q.width < DAY_WIDE && /^(?:st|nd|rd|th)?\s*day of\b/.test(q.right)
    ? q.is('date', null, q.c.left, 0.85, 'words')
    : null,
);

/** "day of __________" */
const month = rule('month after its day', (q) =>
  /\bday of$|\bdias? (?:de|del mes de)$/.test(q.leftTail) ? q.is('date', null, q.c.left, 0.85, 'words') : null,
);

/** ", 20__" */
const year = rule('year after its century', (q) =>
  q.width < 80 && /(?:^|[\s,])(?:20|de 20|del? ano 20|del? ano)$/.test(q.leftTail)
    ? q.is('date', null, 'Year', 0.8, 'words')
    : null,
);

/** "Tenants' initials: ( ____ ) ( ____ )" */
const initialsGoOn = rule('initials that go on', (q) => {
  const { prior } = q;
  return prior?.kind === 'initials' && q.width < INITIALS_WIDE ? sameAgain(q, prior, 'words') : null;
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
  if (c.below.length < 2 || kindOfWords(q.shortLeft)) return null;
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
  return q.is('initials', named ?? q.role(q.c.row) ?? q.role(q.after), shortLeft || q.c.row, 0.9, 'words');
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
  const caption = kindOfWords(c.right) && c.right.split(' ').length < 4 && !/initial/i.test(c.right);
  return q.b.made !== 'cell' && q.width < 48 && (!!c.right || startsLine(q)) && !caption;
}
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
  if (!beforeClause(q) || !startsLine(q) || !right || !/^[(]?[a-z0-9]/i.test(q.right) || q.width <= 16) return null;
  if (!q.paper.asksInitials && kindOfWords(right) !== 'initials') return null;
  const named = q.role(right.split(' ').slice(0, 4).join(' '));
  return q.is('initials', named ?? q.paper.initialsBy, right, 0.75, 'shape');
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
  q.width > 38 && q.width < 150 && !kindOfWords(q.shortLeft) && DAY_BEFORE.test(q.leftTail)
    ? q.is('date', null, q.c.left, 0.7, 'words')
    : null,
);

/** A table's cell that holds words already: "Kitchen" */
const filledCell = rule('cell that is filled', (q) => {
  const { cell } = q.c;
  const words = q.b.made === 'cell' && cell && !/[:?]\s*$/.test(cell) && !q.best;
  return words && (q.b.inside?.[0]?.size ?? 0) > 8.9 ? [] : null;
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

/** "by ____________ (“Seller”)": the paper says who is called so */
const calledSo = rule('name of who is called so', (q) =>
  q.bracket && q.width > SIGNED_WIDE ? q.is('name', q.bracket, q.label, 0.75, 'role') : null,
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

/** Whether the caption is a role and nothing else, at a blank wide enough for a name. */
function roleAlone(q: Asked): boolean {
  const leadsOn = /\b(?:of|at|in|to|for|the|del?|en|a|al)\s*$/i.test(q.c.left);
  return !!q.who && !q.c.sentence && !leadsOn && q.label.split(' ').length <= 7 && q.width > SIGNED_WIDE;
}
const roleBelow = (q: Asked) => q.c.below.length > 0 && q.role(q.below) !== null;

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
  initialsGoOn,
  peopleGoOn,
  partedLine,
  initialsBeforeWords,
  initialsOfRow,
  initialHere,
  answerToTick,
  clauseToInitial,
  clauseToTick,
  sum,
  dayInSentence,
  filledCell,
  namedByCaption,
  calledSo,
  outsider,
  signAtX,
  aboutSomebody,
  roleAsCaption,
  initialsAtFoot,
  dayInTable,
  cornerOfTable,
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
