/** Finds the phrases around a blank in each direction: what they name and how far away they are. */
import { isInColumn, sameRow } from './captions';
import type { Judged, PaperContext } from './asked';
import type { Blank, PageScan } from './blanks';
import type { RuleName } from './rules';
import type { Phrase } from './text';
import type { PlaceKind } from './types';
import { isRoleHeading, kindOfWords, roleOfLetter, roleOfWords, type RoleRead } from './words';
import { groupBy } from '../sure';

/** A blank, and what the rules say of it. */
export interface Candidate {
  /** From 0. */
  page: number;
  scan: PageScan;
  judged: Judged;
  rule: RuleName;
  /** Whether the rules take it for a place at all. */
  isPlace: boolean;
}

/** A phrase of a page, and the kind of place and role it names. */
export interface Said {
  phrase: Phrase;
  kind: PlaceKind | null;
  role: RoleRead | null;
  heading: boolean;
  words: number;
  /** The blank whose caption the phrase is by where it stands: in its cell, or right before it on its row. Null if there is none. */
  owner: Blank | null;
}

/** A page with what each of its phrases names: a kind of place, a role, a heading. */
export interface PageView {
  scan: PageScan;
  said: Said[];
  /** The baselines of all phrases of running text, from the top. */
  text: readonly number[];
  headings: Said[];
  /** The other headings on the row of each heading. */
  beside: ReadonlyMap<Said, readonly Said[]>;
  candidates: Candidate[];
}

export const DIRECTIONS = ['left', 'right', 'below', 'above'] as const;
export type Direction = (typeof DIRECTIONS)[number];

/** Distances beyond this are as good as nothing, in points. */
export const FAR = 400;

/** A phrase in one direction from a blank, its distance in points, and the number of other blanks in between. */
export interface Sighting {
  said: Said;
  gap: number;
  between: number;
}

const MANY_WORDS = 7;

/** Returns the role that words name, spelled out or by its letter. */
export const roleSaid = (text: string, paper: PaperContext) =>
  roleOfLetter(text, paper.letters) ?? roleOfWords(text, paper);

/** Maximum distance between a caption and the blank after it, in points. */
const RIGHT_AFTER = 40;
/** Height of the bands by which blanks are looked up, in points. */
const BAND = 12;

/** Returns a function that returns the blank whose caption a phrase is by where it stands. */
function ownersOf(blanks: readonly Blank[]): (p: Phrase) => Blank | null {
  const inCell = new Map(blanks.flatMap((b) => (b.inside ?? []).map((p) => [p, b] as const)));
  const bands = groupBy(blanks, (b) => Math.floor(b.y / BAND));
  return (p) => {
    const own = inCell.get(p);
    if (own) return own;
    const at = Math.floor(p.y / BAND);
    let next: Blank | null = null;
    for (let band = at - 1; band <= at + 1; band++)
      for (const b of bands.get(band) ?? []) {
        const gap = b.x0 - p.x1;
        if (
          gap > -5 &&
          gap < RIGHT_AFTER &&
          b.made !== 'cell' &&
          b.made !== 'box' &&
          isOnRow(p, b) &&
          (!next || b.x0 < next.x0)
        )
          next = b;
      }
    return next;
  };
}

/** Returns the phrases of a page with what they name. */
export function viewOf(scan: PageScan, paper: PaperContext, candidates: Candidate[]): PageView {
  const ownerOf = ownersOf(scan.blanks);
  const said = scan.phrases.map((phrase): Said => {
    const words = phrase.text.split(' ').length;
    const short = words <= MANY_WORDS;
    return {
      phrase,
      kind: short ? kindOfWords(phrase.text) : null,
      role: short ? roleSaid(phrase.text, paper) : null,
      heading: short && isRoleHeading(phrase.text),
      words,
      owner: ownerOf(phrase),
    };
  });
  const headings = said.filter(
    (s) =>
      s.role &&
      (s.heading || s.phrase.bold || /:\s*$/.test(s.phrase.text) || /^[^a-z]+$/.test(s.phrase.text)) &&
      !/[.;]\s*$/.test(s.phrase.text),
  );
  const beside = new Map(
    headings.map((h) => [h, headings.filter((o) => o !== h && Math.abs(o.phrase.y - h.phrase.y) < 6)]),
  );
  const text = said
    .filter((s) => s.words > MANY_WORDS)
    .map((s) => s.phrase.y)
    .sort((p, q) => p - q);
  return { scan, said, text, headings, beside, candidates };
}

/** Maximum number of lines of text between two blanks that are told apart. */
const MANY_LINES = 9;

/** Returns how many lines of running text are between two heights of a page. */
export function textBetween(view: PageView, from: number, to: number): number {
  let n = 0;
  for (const y of view.text) if (y > from && y < to && ++n === MANY_LINES) break;
  return n;
}

export const isOnRow = (p: Phrase, b: Blank) =>
  b.made === 'box' || b.made === 'cell'
    ? p.y > b.y - b.h - 3 && p.y < b.y + 4
    : p.y <= b.y + 0.4 * p.size && p.y >= b.y - 0.8 * p.size - 3;

/** Returns phrases in a direction from a blank, the nearest first. */
export function inDirection(view: PageView, b: Blank, direction: Direction): Sighting[] {
  const out: Sighting[] = [];
  for (const said of view.said) {
    const p = said.phrase;
    const overlap = Math.min(p.x1, b.x1) - Math.max(p.x0, b.x0);
    let gap = -1;
    if (direction === 'left' && isOnRow(p, b) && p.x1 <= b.x0 + 5) gap = b.x0 - p.x1;
    if (direction === 'right' && isOnRow(p, b) && p.x0 >= b.x1 - 5) gap = p.x0 - b.x1;
    const near = overlap > 0 || (p.x1 > b.x0 - 12 && p.x0 < b.x0 + 12);
    if (direction === 'below' && near && p.y - 0.74 * p.size > b.y - 3) gap = p.y - 0.74 * p.size - b.y;
    if (direction === 'above' && near && p.y < b.y - 4 && !isOnRow(p, b)) gap = b.y - p.y;
    if (gap === -1 || gap > (direction === 'left' || direction === 'right' ? FAR : 60)) continue;
    out.push({ said, gap: Math.max(0, gap), between: 0 });
  }
  out.sort((p, q) => p.gap - q.gap);
  const blanks = view.scan.blanks;
  for (const s of out.slice(0, 6)) {
    const p = s.said.phrase;
    s.between = blanks.filter((o) => {
      if (o === b) return false;
      if (direction === 'left') return sameRow(o, b) && o.x0 >= p.x1 - 5 && o.x1 <= b.x0 + 3;
      if (direction === 'right') return sameRow(o, b) && o.x1 <= p.x0 + 5 && o.x0 >= b.x1 - 3;
      const across = Math.min(o.x1, b.x1) - Math.max(o.x0, b.x0) > 4;
      if (direction === 'below') return across && o.y > b.y + 3 && o.y < p.y + 3;
      return across && o.y < b.y - 3 && o.y > p.y + 3;
    }).length;
  }
  return out;
}

/** Returns whether a phrase is the caption of another blank than this one. */
export const isTaken = ({ owner }: Said, b: Blank): boolean => owner !== null && owner !== b;

/** The phrases around a blank by direction, and the white space above and below it in points. */
export interface Outlook {
  seen: Record<Direction, Sighting[]>;
  gaps: { above: number; below: number };
}

/** A heading that names a role, and its distance above a blank in points. */
export interface Heading {
  role: RoleRead;
  gap: number;
  /** Whether the heading is the caption of another blank. */
  isTaken: boolean;
}

/** Distance that a blank may begin before its heading, in points. */
const BEFORE_HEADING = 20;

/** Returns whether a heading is over the column of a blank. */
function isOfColumn(view: PageView, h: Said, b: Blank): boolean {
  const beside = view.beside.get(h) ?? [];
  return (
    !beside.length ||
    isInColumn(
      b,
      h.phrase,
      beside.map((o) => o.phrase),
      BEFORE_HEADING,
    )
  );
}

/** Returns the nearest heading above a blank that names a role. Of several headings on one row, it is the one of the blank's column. */
export function headingOver(view: PageView, b: Blank): Heading | null {
  let best: Heading | null = null;
  for (const h of view.headings) {
    const gap = b.y - h.phrase.y;
    if (gap < 3 || gap > FAR || (best && gap >= best.gap) || !h.role) continue;
    if (isOfColumn(view, h, b)) best = { role: h.role, gap, isTaken: isTaken(h, b) };
  }
  return best;
}

/** Returns the role that the last heading of a page names for the column of a blank, which is on the next page. */
export function lastHeading(view: PageView, b: Blank): RoleRead | null {
  let best: Said | null = null;
  for (const h of view.headings)
    if (h.role && (!best || h.phrase.y > best.phrase.y) && isOfColumn(view, h, b)) best = h;
  return best?.role ?? null;
}

/** Returns whether no words stand before the first blank of a row. */
export function startsWithBlank(view: PageView, first: Candidate): boolean {
  const b = first.judged.blank;
  return !view.said.some((s) => isOnRow(s.phrase, b) && s.phrase.x1 <= b.x0 + 5 && /[a-z]{2}/i.test(s.phrase.text));
}
/** Returns whether no words stand after the last blank of a row. */
export function endsWithBlank(view: PageView, last: Candidate): boolean {
  const b = last.judged.blank;
  return !view.said.some((s) => isOnRow(s.phrase, b) && s.phrase.x0 >= b.x1 - 5 && /[a-z]{2}/i.test(s.phrase.text));
}

/** Returns the white space between a blank and the nearest words under it, in points. */
export function gapBelow(view: PageView, b: Blank): number {
  let best = FAR;
  for (const { phrase: p } of view.said)
    if (p.x0 < b.x1 && p.x1 > b.x0) {
      const gap = p.y - 0.74 * p.size - b.y;
      if (gap > -3 && gap < best) best = gap;
    }
  return best;
}
/** Returns the distance from a blank to the nearest words over it, in points. */
export function gapAbove(view: PageView, b: Blank): number {
  let best = FAR;
  for (const { phrase: p } of view.said)
    if (p.x0 < b.x1 && p.x1 > b.x0 && p.y < b.y - 3) best = Math.min(best, b.y - p.y);
  return best;
}
