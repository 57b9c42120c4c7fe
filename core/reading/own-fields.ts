/** Form fields among the blanks of a page: they replace what is printed under them, and take its captions. */
import type { Rect } from '../paper/types';
import { textIn, type Blank, type PageScan } from './blanks';
import type { Judged } from './classify';
import { isSigned, tidyLabel } from './judged';
import { DOUBT, type PrintedPlace } from './types';

function meets(a: Rect, b: Rect): boolean {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return w > 0.3 * Math.min(a.w, b.w) && h > 0.2 * Math.min(a.h, b.h);
}

/** Minimum share of a cell that a field fills if it is the cell that is written in. */
const LEAST_FILLED = 0.3;

/** Returns the cell that a field is in, if it is the only field there and fills much of it. */
function cellOf(scan: PageScan, { rect }: PrintedPlace, fields: readonly PrintedPlace[]): Rect | undefined {
  const isIn = (r: Rect, c: Rect) => {
    const [x, y] = [r.x + r.w / 2, r.y + r.h / 2];
    return x > c.x && x < c.x + c.w && y > c.y && y < c.y + c.h;
  };
  return scan.cells
    .filter((c) => isIn(rect, c) && rect.w * rect.h >= LEAST_FILLED * c.w * c.h && c.w * c.h >= rect.w * rect.h * 0.8)
    .filter((c) => fields.filter((o) => isIn(o.rect, c)).length === 1)
    .sort((p, q) => p.w * p.h - q.w * q.h)[0];
}

/** Returns the blanks of a page with the form's fields in place of what is printed under them. */
export function ownBlanks(scan: PageScan, fields: PrintedPlace[]): Map<Blank, PrintedPlace> {
  const out = new Map<Blank, PrintedPlace>();
  for (const f of fields) {
    const { x, y, w, h } = f.rect;
    scan.blanks = scan.blanks.filter(
      (b) => out.has(b) || !meets(f.rect, { x: b.x0, y: b.y - b.h, w: b.x1 - b.x0, h: b.h + 3 }),
    );
    const at = { x0: x, x1: x + w, y: y + h, h };
    const cell = f.kind === 'checkbox' ? undefined : cellOf(scan, f, fields);
    const blank: Blank =
      f.kind === 'checkbox'
        ? { ...at, made: 'box', cell: f.rect }
        : cell
          ? { ...at, made: 'cell', cell, inside: textIn(scan, cell) }
          : { ...at, made: 'rule' };
    scan.blanks.push(blank);
    out.set(blank, f);
  }
  scan.blanks.sort((p, q) => (Math.abs(p.y - q.y) > 4 ? p.y - q.y : p.x0 - q.x0));
  return out;
}

/** Minimum confidence at which a field's name says what it is for. */
const NAMED = 0.9;
const isNamed = (f: PrintedPlace) => f.kind !== 'text' || f.confidence >= NAMED;

/** Applies what a form field says about a place: its name, options and limits. */
export function sayOwn(j: Judged, f: PrintedPlace): void {
  if (isNamed(f)) j.kind = f.kind;
  if (f.role !== 'unknown') j.role = { role: f.role, ordinal: f.ordinal };
}

/**
 * Returns the place of a form field, completed from the page. Kind and role come from the field's name; if the name does not
 * say them, they come from the captions beside the field. If name and page contradict each other, the place is uncertain and
 * the page's reading is its `other`.
 */
export function withCaptions(f: PrintedPlace, j: Judged | undefined): PrintedPlace {
  if (!j) return f;
  const plainField = !f.field?.multiline && !f.field?.options.length && j.kind !== 'checkbox';
  const ownKind = isNamed(f) || !plainField;
  const ownRole = f.role !== 'unknown';
  const printed = { role: j.role?.role ?? ('unknown' as const), ordinal: j.role ? (j.role.ordinal ?? 1) : null };
  const place: PrintedPlace = {
    ...f,
    kind: ownKind ? f.kind : j.kind,
    ...(ownKind || j.kind !== 'date' ? {} : { signed: isSigned(j) }),
    role: ownRole ? f.role : printed.role,
    ordinal: ownRole ? f.ordinal : printed.ordinal,
    label: isNamed(f) && f.kind !== 'checkbox' ? f.label : tidyLabel(j.label) || f.label,
  };
  const pageIsSure = j.confidence > DOUBT;
  // A role that only the page names is no more certain than the page.
  if (!ownRole && printed.role !== 'unknown' && !pageIsSure)
    return { ...place, confidence: Math.min(f.confidence, j.confidence), ...(j.other ? { other: j.other } : {}) };
  const contradicts =
    ownRole && printed.role !== 'unknown' && (printed.role !== f.role || printed.ordinal !== (f.ordinal ?? 1));
  if (contradicts && pageIsSure)
    return { ...place, confidence: Math.min(f.confidence, DOUBT), other: { kind: place.kind, ...printed } };
  return place;
}
