/** What the rules say of roles: from captions, headings, rows, columns and neighbors, and which one of its role a place is. */
import type { Rect } from '../paper/types';
import type { PageScan } from './blanks';
import { isInColumn, sameRow } from './captions';
import { OUTSIDER, type Judged, type PaperContext } from './classify';
import { isOfText } from './judged';
import type { Phrase } from './text';
import { DOUBT, type PlaceKind } from './types';
import {
  asksForInitials,
  isRoleHeading,
  lettersOf,
  misnamedIn,
  unclearIn,
  plain,
  roleOfWords,
  senseOf,
  type RoleRead,
} from './words';
import { itemAt } from '../sure';

/** Sentences that ask for initials beside clauses. */
const ASKS_INITIALS =
  /\binitial(?:s|ed|ing)? (?:each|every|here|next|beside|below|above|where|all|before|opposite|in the|(?:to|at|on) the (?:left|right|side|margin))\b|\bmust be initial(?:l)?ed\b|\binitial(?:l)?ed by\b|\biniciales (?:en|junto)\b/;

/** Returns what a document's text says of all its blanks. */
export function paperOf(words: string): PaperContext {
  const text = plain(words);
  const sense = senseOf(text);
  const asking = ASKS_INITIALS.exec(text);
  return {
    ...sense,
    asksInitials: asking !== null,
    speaksOfInitials: asksForInitials(text),
    initialsBy: asking
      ? roleOfWords(text.slice(Math.max(0, asking.index - 24), asking.index + asking[0].length + 24), sense)
      : null,
    letters: lettersOf(text, sense),
    misnamed: new Map([...unclearIn(text, sense), ...misnamedIn(text, sense)]),
  };
}

/** Returns a judgment without signatures and initials within a sentence, whatever a word near the blank says. */
export function withinReason(j: Judged): Judged {
  const hand = j.kind === 'signature' || j.kind === 'initials';
  return hand && (j.amid || (j.inText && j.by !== 'words')) ? { ...j, kind: 'text', role: null, by: 'none' } : j;
}

const PERSONAL: PlaceKind[] = ['signature', 'initials', 'date', 'name'];

/** Gives roles to places without one: from the same row, the same column, or the heading over the block. */
export function giveRoles(scan: PageScan, all: Judged[], paper: PaperContext): void {
  const headings = scan.phrases.filter(
    (p) =>
      isRoleHeading(p.text) ||
      (p.text.length < 60 &&
        (p.bold || /^[^a-z]+$/.test(p.text) || /:\s*$/.test(p.text)) &&
        roleOfWords(p.text, paper) !== null &&
        !/[.;]\s*$/.test(p.text)),
  );
  const signs = all.filter((j) => j.kind === 'signature');
  for (const s of signs) {
    if (OUTSIDER.test(plain(s.label))) continue;
    // "Agent" below a heading that says whose agent is that agent.
    const vague = s.role?.role === 'broker' && !/\b(?:listing|seller|landlord|owner|lessor)/.test(plain(s.label));
    if (s.role && !vague) continue;
    const found = underHeading(scan, s, headings, paper);
    if (!s.role || found?.role === 'buyer_broker') s.role = found;
  }
  for (const j of all) {
    if (j.kind === 'checkbox' || j.kind === 'signature') continue;
    // Initials are independent: those of a footer belong to no signature above them.
    const partner = j.kind === 'initials' ? null : besideName(j, all) ? null : partnerOf(j, signs);
    if (
      partner?.role &&
      ((PERSONAL.includes(j.kind) && !isOfText(j)) ||
        (j.kind === 'text' && OF_SIGNER.test(plain(j.label)) && inBlock(j, partner)))
    ) {
      if (!j.role || (j.role.role === partner.role.role && j.role.ordinal === null)) {
        j.role = partner.role;
        shared.set(j, partner);
      }
    }
    // Beside a person's name if their signature is elsewhere.
    if (!j.role) j.role = besideName(j, all)?.role ?? null;
    if (
      !j.role &&
      (j.kind === 'initials' ||
        j.kind === 'name' ||
        (j.kind === 'date' && !j.inText && /^\(?(?:date|dated|date signed|fecha)\b/.test(plain(j.label))))
    ) {
      const found = underHeading(scan, j, headings, paper);
      if (found) j.role = found;
    }
  }
}

/** Captions of what a signer fills in beside the signature: phone, license number, title. */
const OF_SIGNER =
  /\b(?:phone|telephone|tel|cell|mobile|fax|e-?mail|address|licen[sc]e|lic|title|its|firm|company|brokerage|time|domicilio|direccion|telefono|correo|titulo|cargo|empresa)\b/;

/** The signature whose role a date or name has taken; its ordinal follows. */
const shared = new WeakMap<Judged, Judged>();

/** Returns the name of a person on the row of what they write about themselves. */
function besideName(j: Judged, all: Judged[]): Judged | undefined {
  if (j.kind !== 'text' || !OF_SIGNER.test(plain(j.label))) return undefined;
  return all.find((o) => o.kind === 'name' && o.role && o.blank.x1 <= j.blank.x0 && sameRow(o.blank, j.blank));
}

function inBlock(j: Judged, partner: Judged): boolean {
  return j.blank.y - partner.blank.y < 110 && j.blank.y - partner.blank.y > -60;
}

/**
 * Returns the signature a date or name belongs to: first to its left on its row, otherwise the nearest in its column.
 */
function partnerOf(j: Judged, signs: Judged[]): Judged | null {
  const row = signs.filter((s) => sameRow(s.blank, j.blank) && s !== j);
  const left = row.filter((s) => s.blank.x1 <= j.blank.x0 + 6).sort((a, b) => b.blank.x1 - a.blank.x1)[0];
  if (left && left.blank.x1 <= j.blank.x0 + 6) return left;
  if (row.length && j.kind === 'name')
    return itemAt(
      row.sort((a, b) => a.blank.x0 - b.blank.x0),
      0,
    );
  const column = signs.filter(
    (s) =>
      Math.min(s.blank.x1, j.blank.x1) - Math.max(s.captions.from, j.captions.from) >
      0.25 * Math.min(s.blank.x1 - s.captions.from, j.blank.x1 - j.captions.from),
  );
  const above = column
    .filter((s) => j.blank.y > s.blank.y && j.blank.y - s.blank.y < 100)
    .sort((a, b) => b.blank.y - a.blank.y)[0];
  const below = column
    .filter((s) => s.blank.y > j.blank.y && s.blank.y - j.blank.y < 52)
    .sort((a, b) => a.blank.y - b.blank.y)[0];
  // Captions of another way of printing: that is another block.
  const other = below && !!below.captions.left !== !!j.captions.left;
  if (above && below && other) return above;
  if (above && below) return j.blank.y - above.blank.y <= 1.15 * (below.blank.y - j.blank.y) ? above : below;
  return above ?? below ?? row[0] ?? null;
}

/** Returns the role of the nearest heading above, in the blank's column. */
function underHeading(scan: PageScan, j: Judged, headings: Phrase[], paper: PaperContext): RoleRead | null {
  const b = j.blank;
  // A table with heads of its own is no part of a block that began far above it.
  const reach = b.made === 'cell' && j.captions.colHead ? 80 : 230;
  const over = headings
    .filter((h) => h.y < b.y - 3 && b.y - h.y < reach)
    .filter((h) => b.made !== 'cell' || !scan.cells.some((c) => c.w < 0.9 * scan.content.width && holds(c, h)))
    .filter((h) => {
      const beside = headings.filter((o) => o !== h && Math.abs(o.y - h.y) < 5);
      if (!beside.length) return h.x0 < b.x1 && (h.x0 <= b.x0 + 12 || h.x1 > b.x0);
      return isInColumn(b, h, beside, 14);
    })
    .sort((p, q) => q.y - p.y)[0];
  if (!over) return null;
  // A new numbered section ends the block of the one before.
  const cut = scan.phrases.some(
    (p) =>
      p.y > over.y + 2 &&
      p.y < b.y - 4 &&
      p.bold &&
      p.size > over.size + 0.6 &&
      p.x0 < scan.left + 30 &&
      !roleOfWords(p.text, paper),
  );
  return cut ? null : roleOfWords(over.text, paper);
}

const holds = (c: Rect, p: Phrase) => p.x0 >= c.x - 1 && p.x1 <= c.x + c.w + 1 && p.y > c.y && p.y < c.y + c.h + 1;

/** Maximum distance in points of two places of one role that are counted on. */
const BLOCK = 150;

/** Gives ordinals to places of a role that do not say which one they are. */
export function giveOrdinals(all: Judged[]): void {
  for (const kind of PERSONAL) {
    const roles = new Set(all.filter((j) => j.kind === kind && j.role).map((j) => j.role!.role));
    for (const role of roles) {
      const mine = all.filter((j) => j.kind === kind && j.role?.role === role && !shared.has(j));
      let n = 0;
      let last: Judged | null = null;
      for (const j of mine) {
        const far =
          last &&
          (kind === 'initials'
            ? j.blank.y - last.blank.y > 44 ||
              (j.blank.y - last.blank.y > 5 && j.blank.x0 <= last.blank.x0 + 200 && sameHead(last, mine))
            : j.blank.y - last.blank.y > BLOCK);
        // One blank before each clause asks the same person again.
        if (
          far ||
          (kind === 'initials' &&
            (j.by === 'shape' || (j.blank.made === 'cell' && last !== null && !sameRow(j.blank, last.blank))))
        )
          n = 0;
        n = j.role!.ordinal ?? n + 1;
        j.role = { role, ordinal: n };
        last = j;
      }
    }
  }
  for (const j of all) {
    const partner = shared.get(j);
    if (partner?.role && j.role) j.role = { role: j.role.role, ordinal: partner.role.ordinal };
    // One date below the lines of two people: the page does not say whose it is.
    if (j.kind === 'date' && partner && isOfTwo(j, partner, all)) j.confidence = Math.min(j.confidence, DOUBT);
  }
}

/**
 * Lowers the confidence of roles on scanned pages that come from a heading or a neighbor, which may not have been
 * recognized. A role is certain only if the place's own caption names it, or that of its signature.
 */
export function doubtBorrowed(all: Judged[], paper: PaperContext): void {
  const says = (j: Judged) => roleOfWords(j.label, paper)?.role === j.role?.role;
  for (const j of all) {
    const partner = shared.get(j);
    if (j.role && !says(j) && !(partner && says(partner))) j.confidence = Math.min(j.confidence, DOUBT);
  }
}

/** Returns whether a date is below two signatures of one role, and the upper one has no date of its own. */
function isOfTwo(j: Judged, partner: Judged, all: Judged[]): boolean {
  if (sameRow(j.blank, partner.blank)) return false;
  const upper = all.find(
    (o) =>
      o !== partner &&
      o.kind === 'signature' &&
      o.role?.role === partner.role?.role &&
      o.blank.y < partner.blank.y &&
      partner.blank.y - o.blank.y < 80 &&
      Math.abs(o.blank.x0 - partner.blank.x0) < 20,
  );
  return !!upper && !all.some((o) => o.kind === 'date' && shared.get(o) === upper);
}

/**
 * Returns whether a row of initials starts again: it has more than one, so the next row asks the same people again.
 */
function sameHead(last: Judged, mine: Judged[]): boolean {
  return mine.some((o) => o !== last && sameRow(o.blank, last.blank));
}
