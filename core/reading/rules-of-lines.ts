/** Rules for boxes, cells and lines, and for whatever is left. */
import { boxWords, followsBlank, isCorner } from './around';
import type { Asked } from './asked';
import type { Blank } from './blanks';
import { rule } from './rule';
import { isRoleHeading, kindOfWords, plain } from './words';

/** "[ ] Smoke alarms" */
export const boxToTick = rule('box to tick', (q) =>
  q.b.made === 'box' ? q.is('checkbox', null, boxWords(q.scan, q.b) || q.c.left, q.b.cell ? 0.9 : 0.92, 'shape') : null,
);

/** "between ________" at the end of a line, and "______" at the head of the next: one place, where there is more room */
export const goesOn = rule('blank over two lines', (q) => {
  const { from, to } = q.flow;
  if (from && q.b.made === 'underscores' && isCut(q, from, q.b)) return [];
  if (!to || q.b.made !== 'underscores' || !isCut(q, q.b, to)) return null;
  return to.x1 - to.x0 > q.width ? q.is('text', null, q.words, 0.7, 'none', to) : null;
});

/** Returns whether a blank at the end of a line continues at the beginning of the next. */
function isCut(q: Asked, from: Blank, to: Blank): boolean {
  if (from.made !== 'underscores' || to.made !== 'underscores' || q.scan.right - from.x1 > 24) return false;
  const words = q.scan.phrases.some(
    (p) => p.x1 <= from.x0 + 4 && from.x0 - p.x1 < 12 && Math.abs(p.y - from.y) < 0.5 * p.size && !/:\s*$/.test(p.text),
  );
  return words && to.x1 - to.x0 < 0.8 * (q.scan.right - q.scan.left);
}

/** "a deposit of $ ________", "________ dollars" */
export const sum = rule('sum of money', (q) =>
  /[$\u20ac\u00a3]\s*\(?$/.test(q.c.left) || /^(?:%|percent|dollars|por ciento|dolares)/.test(q.right)
    ? q.is('text', null, q.c.left || q.c.right, 0.8, 'words')
    : null,
);

/** Under a head that is nobody but a person: what the row asks of them */
export const ofPersonInTable = rule('row of a person in a table', (q) => {
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
export const filledCell = rule('cell that is filled', (q) => {
  const { cell } = q.c;
  const words = q.b.made === 'cell' && cell && !/[:?]\s*$/.test(cell) && !q.best;
  // Room left beside a role at the foot of a page is there for initials.
  const beside = q.b.x0 > (q.b.cell?.x ?? 0) + 6 && isRoleHeading(cell);
  return words && !beside && (q.b.inside?.[0]?.size ?? 0) > 8.9 ? [] : null;
});

/** The empty cell between a table's heads */
export const cornerOfTable = rule('corner of a table', (q) =>
  q.b.made === 'cell' && !q.c.cell && !q.c.rowHead && isCorner(q.scan, q.b) ? [] : null,
);

/** A frame without a word in or around it: a place to write if it is of a size for it */
export const bareFrame = rule('frame without words', (q) => {
  const { c, b } = q;
  if (b.made !== 'cell' || c.cell || c.left || c.colHead || c.above || c.below.length) return null;
  return q.width < 300 && b.h > 14 ? q.is('text', null, '', 0.35, 'none') : [];
});

/** A frame behind words: "Forwarding address [          ]" */
export const frameBehindWords = rule('frame behind words', (q) => {
  const { c, b } = q;
  const asked = c.cell || /:\s*$/.test(c.left) || c.colHead;
  return b.made === 'cell' && !asked ? q.is('text', null, c.left, 0.5, 'none') : null;
});

/** Any other cell: "Phone:" in it, or under a head */
export const cell = rule('cell to fill', (q) =>
  q.b.made === 'cell' ? q.is('text', null, q.label, q.c.cell && !/[:?]\s*$/.test(q.c.cell) ? 0.4 : 0.6, 'none') : null,
);

/** A line across the page: to write on after words that ask, else an ornament */
export const lineAcross = rule('line across the page', (q) => {
  if (!q.pageWide || q.b.made !== 'rule') return null;
  return followsBlank(q.scan, q.b) ? q.is('text', null, q.words, 0.6, 'none') : [];
});

/** Underscores across the page that follow nothing */
export const ornament = rule('underscores that part the page', (q) =>
  q.pageWide && q.b.made === 'underscores' && !q.words && !followsBlank(q.scan, q.b) ? [] : null,
);

/** "Parking: ........", and not the dots of a table of contents */
export const dots = rule('dots', (q) => {
  if (q.b.made !== 'dots') return null;
  return q.words && /[:)]\s*$/.test(q.c.left) ? q.is('text', null, q.words, 0.55, 'none') : [];
});

/** A line without words that follows nothing, brackets around nothing */
export const ofNothing = rule('line or brackets of nothing', (q) => {
  if (q.words) return null;
  return q.b.made === 'parens' || (q.b.made === 'rule' && !followsBlank(q.scan, q.b)) ? [] : null;
});

/** "Fixtures that stay: ________" */
export const textToWrite = rule('words to write', (q) =>
  q.is('text', null, q.words, q.b.made === 'underscores' ? 0.75 : q.words ? 0.65 : 0.45, 'none'),
);
