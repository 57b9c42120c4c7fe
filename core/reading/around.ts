/** What is around a blank besides its captions: signatures, other lines to write on, the headings of a table. */
import { BOX_GLYPH, type Blank, type PageScan } from './blanks';
import { isRoleHeading, plain } from './words';

/** Returns the words after the last blank of a row: "Initials ____ / ____ tenants". */
export function afterRow(scan: PageScan, b: Blank): string {
  const last = scan.blanks.filter((o) => Math.abs(o.y - b.y) < 4).reduce((x, o) => Math.max(x, o.x1), b.x1);
  return scan.phrases
    .filter((p) => p.x0 >= last - 2 && p.x0 - last < 70 && Math.abs(p.y - b.y) < 6)
    .map((p) => p.text)
    .join(' ');
}

/** Returns the words of a checkbox, up to the next box, blank or wide gap. */
export function boxWords(scan: PageScan, b: Blank): string {
  const middle = b.y - b.h / 2;
  const line = scan.lines.find((l) =>
    l.tokens.some(
      (t) =>
        t.x0 >= b.x1 - 3 && t.x0 - b.x1 < 40 && Math.abs(t.y - 0.33 * t.size - middle) < 0.7 * Math.max(t.size, b.h),
    ),
  );
  const words: string[] = [];
  let at = b.x1;
  for (const t of line?.tokens ?? []) {
    if (t.x0 < b.x1 - 3) continue;
    if (
      t.made !== 'word' ||
      BOX_GLYPH.test(t.text) ||
      /^[[(]+$/.test(t.text) ||
      t.x0 - at > (words.length ? 1.6 * t.size : 40)
    )
      break;
    if (!/^[\])]+$/.test(t.text)) words.push(t.text.replace(/^[\])]+/, ''));
    at = t.x1;
  }
  return words.join(' ');
}

/** Returns whether people sign near a blank: there is a date close by, or the word signature over the block. */
export function signsNear(scan: PageScan, b: Blank): boolean {
  return scan.phrases.some((p) => {
    const t = plain(p.text);
    if (Math.abs(p.y - b.y) < 32 && /^(?:date[d]?|date signed|fecha|fecha y hora|date and time)\W*$/.test(t))
      return true;
    return (
      b.y - p.y > -20 &&
      b.y - p.y < 150 &&
      t.length < 60 &&
      /\b(?:signatures?|signed|signs?|signing|firmas?|witness(?:eth)?)\b/.test(t)
    );
  });
}

/** Returns whether a line follows words that ask for something, or another such line at writing distance. */
export function followsBlank(scan: PageScan, b: Blank): boolean {
  const near = scan.blanks.some(
    (o) =>
      o !== b &&
      o.made !== 'box' &&
      b.y - o.y > 9 &&
      b.y - o.y < 34 &&
      Math.min(o.x1, b.x1) - Math.max(o.x0, b.x0) > 0.6 * Math.min(o.x1 - o.x0, b.x1 - b.x0) &&
      empty(scan, o.y, b),
  );
  const next = scan.blanks.some(
    (o) =>
      o !== b &&
      o.made !== 'box' &&
      o.y - b.y > 9 &&
      o.y - b.y < 34 &&
      Math.abs(o.x0 - b.x0) < 12 &&
      Math.abs(o.x1 - b.x1) < 12 &&
      empty(scan, b.y, o),
  );
  const asks = scan.phrases.some((p) => b.y - p.y > 5 && b.y - p.y < 34 && /[:?]\s*$/.test(p.text) && p.x0 < b.x0 + 40);
  const between = scan.phrases.some(
    (p) => b.y - p.y > 3 && b.y - p.y < 12 && p.x0 < b.x1 && p.x1 > b.x0 && !/[:?]\s*$/.test(p.text),
  );
  return (near || asks || next) && !between;
}

/** Returns whether nothing is printed between a height and a blank below it. */
function empty(scan: PageScan, from: number, b: Blank): boolean {
  return !scan.phrases.some((p) => p.y > from + 1.5 && p.y < b.y + 1 && p.x0 < b.x1 && p.x1 > b.x0);
}

/**
 * Returns whether an empty cell is the corner between a table's headings: words to its right and below it, none
 * above.
 */
export function isCorner(scan: PageScan, b: Blank): boolean {
  const c = b.cell!;
  const words = (r: { x: number; y: number; w: number; h: number }) =>
    scan.phrases.some(
      (p) => (p.x0 + p.x1) / 2 > r.x && (p.x0 + p.x1) / 2 < r.x + r.w && p.y > r.y && p.y < r.y + r.h + 1,
    );
  const right = scan.cells.find((o) => Math.abs(o.y - c.y) < 4 && Math.abs(o.x - c.x - c.w) < 4);
  const under = scan.cells.find((o) => Math.abs(o.x - c.x) < 4 && Math.abs(o.y - c.y - c.h) < 4);
  const over = scan.cells.some((o) => Math.abs(o.x - c.x) < 4 && Math.abs(o.y + o.h - c.y) < 4);
  return !over && !!right && words(right) && !!under && words(under);
}

/**
 * Returns the nearest heading over a blank, or the heading of its column, that asks for initials; null if none does.
 */
export function initialsAsked(scan: PageScan, b: Blank): string | null {
  const heads = scan.phrases
    .filter(
      (p) =>
        b.y - p.y > 6 &&
        b.y - p.y < 260 &&
        (p.bold || (p.text.length < 64 && !/[.;,]$/.test(p.text))) &&
        p.x0 < scan.left + 90,
    )
    .filter((p) => p.bold || !/^[(]?[a-z0-9]/.test(p.text))
    .filter((p) => !scan.blanks.some((o) => Math.abs(o.y - p.y) < 5 && o.x1 <= p.x0 + 6 && p.x0 - o.x1 < 40))
    .sort((p, q) => q.y - p.y);
  const near = heads[0];
  return near && /\binitials?\b|\biniciales\b/.test(plain(near.text)) ? near.text : null;
}

/** Headings over short blanks that ask for an answer, not for initials. */
const ANSWERS = /^(?:yes|no|n\/?a|unknown|si|s\/n|in|out|ok|good|poor)\W*$/;

/**
 * Returns the clause after two to four short blanks at the beginning of a line, and which of the blanks this is, from
 * 1.
 */
export function handsAtHead(scan: PageScan, b: Blank): { clause: string; n: number } | null {
  const row = scan.blanks
    .filter((o) => Math.abs(o.y - b.y) < 4 && o.made !== 'cell' && o.made !== 'box')
    .sort((o, q) => o.x0 - q.x0);
  const hands: Blank[] = [];
  for (const o of row) {
    const last = hands[hands.length - 1];
    if (o.x1 - o.x0 >= 60 || (last && o.x0 - last.x1 > 20)) break;
    hands.push(o);
  }
  const first = hands[0];
  const n = hands.indexOf(b) + 1;
  if (!first || !n || hands.length < 2 || hands.length > 4 || first.x0 > scan.left + 60) return null;
  const end = hands[hands.length - 1]?.x1 ?? b.x1;
  const words = scan.phrases.filter((p) => Math.abs(p.y - b.y) < 6);
  if (words.some((p) => p.x1 < end + 1 && !/^(?:[\s/,|&]*|\(?[a-z0-9]{1,3}[).])$/i.test(p.text))) return null;
  const clause = words.find((p) => p.x0 >= end - 2 && p.x0 - end < 30);
  if (!clause || clause.text.split(' ').length < 3) return null;
  const answers = scan.phrases.some(
    (p) => b.y - p.y > 4 && b.y - p.y < 300 && p.x0 < end && p.x1 > first.x0 && ANSWERS.test(plain(p.text)),
  );
  return answers ? null : { clause: clause.text, n };
}

/** Returns a role alone over a line, with nothing but such lines between. */
export function roleOver(scan: PageScan, b: Blank): string | null {
  const over = scan.phrases
    .filter((p) => b.y - p.y > 8 && b.y - p.y < 130 && p.x0 < b.x1 - 2 && p.x1 > b.x0 + 2)
    .sort((p, q) => q.y - p.y)[0];
  return over && over.x0 < b.x0 + 14 && isRoleHeading(over.text) ? over.text : null;
}
