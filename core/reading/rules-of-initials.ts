/** Rules for initials, and for short blanks before words that are ticked instead. */
import { handsAtHead, initialsAsked } from './around';
import type { Asked } from './asked';
import { rule, INITIALS_WIDE, SIGNED_WIDE, sameAgain } from './rule';
import { kindOfWords, plain } from './words';

/** "Tenants' initials: ( ____ ) ( ____ )" */
export const initialsGoOn = rule('initials that go on', (q) => {
  const { prior } = q;
  if (prior?.kind !== 'initials' || q.width >= INITIALS_WIDE) return null;
  // A caption of its own says whose it is: "Seller 1", "Broker" under each.
  const own = q.bracket ?? q.role(q.below);
  if (own) return q.is('initials', own, q.below, prior.confidence, 'words');
  // So does the head of its column, unless it is one head over the initials of several people.
  const head = q.b.made === 'cell' ? q.c.cell || q.c.colHead : '';
  const headed = q.role(head);
  const isNew = headed && (headed.ordinal !== null || headed.role !== prior.role?.role);
  return isNew ? q.is('initials', headed, head, prior.confidence, 'words') : sameAgain(q, prior, 'words');
});

/** "( ____ ) ( ____ ) Tenants' initials" */
export const initialsBeforeWords = rule('initials before their words', (q) =>
  q.width < INITIALS_WIDE && kindOfWords(q.after) === 'initials' && /^[\s()[\],/]*$/.test(q.c.left)
    ? q.is('initials', q.role(q.after), q.after.replace(/^[\s)\]]+/, ''), 0.85, 'words')
    : null,
);

/** "Initials: Seller ____ Buyer ____" */
export const initialsOfRow = rule('initials of a row', (q) => {
  const { shortLeft } = q;
  if (q.width >= INITIALS_WIDE || kindOfWords(q.c.row) !== 'initials') return null;
  const named = q.role(shortLeft);
  if (!named && shortLeft && kindOfWords(shortLeft) !== 'initials' && !/^[\s(,/:;]*$/.test(shortLeft)) return null;
  // A caption in the cell of the blank is its own; the row's words are about all of its blanks.
  const own = q.role(q.c.cell);
  const whose = q.bracket ?? own ?? q.role(q.below) ?? named ?? q.role(q.c.row) ?? q.role(q.after);
  return q.is('initials', whose, own ? q.c.cell : shortLeft || q.c.row, 0.9, 'words');
});

/** "The tenant shall initial here ____" */
export const initialHere = rule('initial here', (q) =>
  q.width < INITIALS_WIDE && /\binitial(?:s|ed)? (?:here|below|in the)\b/.test(plain(q.c.left))
    ? q.is('initials', q.role(q.c.left), q.c.left, 0.85, 'words')
    : null,
);

/** Returns whether a short blank is before words that are not a caption: a clause, an answer. */
function beforeClause(q: Asked): boolean {
  const { c } = q;
  if (q.runs) return false;
  const caption = kindOfWords(c.right) && c.right.split(' ').length < 4 && !/initial/i.test(c.right);
  return q.b.made !== 'cell' && q.width < 48 && (!!c.right || startsLine(q)) && !caption;
}

/**
 * Returns whether a line is a numbered item with a blank for initials: "(b) ____ The buyer has received the booklet."
 */
const isNumbered = (q: Asked) => /^\(?[a-z0-9]{1,4}[).]$/i.test(q.c.left) && q.c.from < q.scan.left + 60;

const startsLine = (q: Asked) => !q.c.left && q.b.x0 < q.scan.left + 60;

/** "____ Yes  ____ No" */
export const answerToTick = rule('answer to tick', (q) =>
  beforeClause(q) && /^(?:yes|no|n\/?a|unknown|si|none|not applicable|waived?|accepted|rejected)\W*$/.test(q.right)
    ? q.is('checkbox', null, q.c.right, 0.8, 'shape')
    : null,
);

/** "____ The buyer has read the pamphlet." where the paper asks for initials before its clauses */
export const clauseToInitial = rule('clause to initial', (q) => {
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
export const handsBeforeClause = rule('hands before a clause', (q) => {
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
export const clauseToTick = rule('clause to tick', (q) =>
  beforeClause(q) && startsLine(q) && q.c.right && /^[(]?[a-z0-9]/i.test(q.right)
    ? q.is('checkbox', null, q.c.right, 0.7, 'shape')
    : null,
);

/** "Seller ____" at the foot of a page */
export const initialsAtFoot = rule('initials at the foot', (q) =>
  q.who && q.width <= SIGNED_WIDE && !q.c.sentence && q.b.y > 0.86 * q.scan.content.height
    ? q.is('initials', q.who, q.label, 0.7, 'role')
    : null,
);
