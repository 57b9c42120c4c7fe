/**
 * What is known of each blank before it is decided what it is for: the words around it with their distances, its row and
 * column, its twins on other pages, and what the rules say of it. Everything is a number, so that it can be weighed.
 */
import { sameRow } from './captions';
import { flowOf } from './flow';
import type { Judged, PaperContext } from './asked';
import type { Blank, PageScan } from './blanks';
import type { RuleName } from './rules';
import type { Phrase } from './text';
import type { PlaceKind, PlaceRole } from './types';
import { isRoleHeading, kindOfWords, plain, roleOfWords, type RoleRead } from './words';
import { groupBy, itemAt } from '../sure';

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
interface Said {
  phrase: Phrase;
  kind: PlaceKind | null;
  role: RoleRead | null;
  heading: boolean;
  words: number;
}

/** A page with what each of its phrases names: a kind of place, a role, a heading. */
interface PageView {
  scan: PageScan;
  said: Said[];
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

/** Returns the phrases of a page with what they name. */
function viewOf(scan: PageScan, paper: PaperContext, candidates: Candidate[]): PageView {
  const said = scan.phrases.map((phrase): Said => {
    const words = phrase.text.split(' ').length;
    const short = words <= MANY_WORDS;
    return {
      phrase,
      kind: short ? kindOfWords(phrase.text) : null,
      role: short ? roleOfWords(phrase.text, paper.owner) : null,
      heading: short && isRoleHeading(phrase.text),
      words,
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
  return { scan, said, headings, beside, candidates };
}

const isOnRow = (p: Phrase, b: Blank) =>
  b.made === 'box' || b.made === 'cell'
    ? p.y > b.y - b.h - 3 && p.y < b.y + 4
    : p.y <= b.y + 0.4 * p.size && p.y >= b.y - 0.8 * p.size - 3;

/** Returns phrases in a direction from a blank, the nearest first. */
function inDirection(view: PageView, b: Blank, direction: Direction): Sighting[] {
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

/** Everything known of a candidate, by which its features are computed. */
export interface Known {
  c: Candidate;
  view: PageView;
  paper: PaperContext;
  seen: Record<Direction, Sighting[]>;
  heading: { role: RoleRead; gap: number } | null;
  row: Candidate[];
  rowIndex: number;
  column: Candidate[];
  columnIndex: number;
  /** On how many other pages a candidate lies at the same spot, and which spot that is. */
  twins: number;
  spot: string;
  pages: number;
  /** The roles its captions name: see `CAPTIONS`. */
  named: readonly (RoleRead | null)[];
  /** The roles named right before and after it in the running text. */
  said: readonly [RoleRead | null, RoleRead | null];
  gaps: { above: number; below: number };
  starts: boolean;
  ends: boolean;
  /** Roles named on its row. */
  rowRoles: readonly PlaceRole[];
  /** Its row as a whole: see `rowFactsOf`. */
  rowFacts: readonly number[];
  /** How often the document speaks of each role, as shares, in the order of `PLACE_ROLES`. */
  mentions: readonly number[];
}

const joinedText = (phrases: readonly Phrase[]) => phrases.map((p) => p.text).join(' ');

/** The captions by which a role is looked for, in the order of the features. */
const CAPTIONS: readonly ((j: Judged) => string)[] = [
  (j) => j.label,
  (j) => j.captions.left,
  (j) => joinedText(j.captions.below),
  (j) => j.captions.above,
  (j) => j.captions.right.slice(0, 60),
  (j) => j.captions.cell,
  (j) => j.captions.rowHead,
  (j) => j.captions.colHead,
  (j) => j.captions.row,
];

/** Returns what is known of all candidates of a document. */
export function evidenceOf(candidates: Candidate[], pages: PageScan[], paper: PaperContext): Known[] {
  const byPage = groupBy(candidates, (c) => c.page);
  const views = pages.map((scan, i) => viewOf(scan, paper, byPage.get(i) ?? []));
  // Places at the same spot of several pages: a footer, a margin.
  const spot = (c: Candidate) => {
    const { x0, x1, y } = c.judged.blank;
    return `${Math.round(x0 / 5)} ${Math.round(x1 / 5)} ${Math.round(y / 5)}`;
  };
  const spots = new Map<string, Set<number>>();
  for (const c of candidates) {
    const at = spots.get(spot(c)) ?? new Set();
    spots.set(spot(c), at.add(c.page));
  }
  const mentions = mentionsOf(pages);
  const known = candidates.map((c): Known => {
    const view = itemAt(views, c.page);
    const b = c.judged.blank;
    const row = view.candidates
      .filter((o) => sameRow(o.judged.blank, b))
      .sort((p, q) => p.judged.blank.x0 - q.judged.blank.x0);
    const column = view.candidates
      .filter((o) => Math.abs(o.judged.blank.x0 - b.x0) < 9 || Math.abs(o.judged.blank.x1 - b.x1) < 4)
      .sort((p, q) => p.judged.blank.y - q.judged.blank.y);
    const [first, last] = [row[0], row[row.length - 1]];
    const flow = flowOf(view.scan, b);
    const roleOf = (text: string) => (text ? roleOfWords(text, paper.owner) : null);
    return {
      c,
      view,
      paper,
      named: CAPTIONS.map((caption) => roleOf(caption(c.judged).slice(-120))),
      said: [roleOf(flow.before.slice(-40)), roleOf(flow.after.slice(0, 40))],
      gaps: { above: gapAbove(view, b), below: gapBelow(view, b) },
      starts: !!first && startsWithBlank(view, first),
      ends: !!last && endsWithBlank(view, last),
      rowRoles: view.said.flatMap((s) => (s.role && isOnRow(s.phrase, b) ? [s.role.role] : [])),
      spot: spot(c),
      seen: Object.fromEntries(DIRECTIONS.map((d) => [d, inDirection(view, b, d)])) as Record<Direction, Sighting[]>,
      heading: headingOver(view, b),
      row,
      rowIndex: row.indexOf(c),
      column,
      columnIndex: column.indexOf(c),
      twins: (spots.get(spot(c))?.size ?? 1) - 1,
      pages: pages.length,
      rowFacts: [],
      mentions,
    };
  });
  const of = new Map(known.map((k) => [k.c, k]));
  for (const k of known) k.rowFacts = rowFactsOf(k.row.map((c) => of.get(c)!));
  return known;
}

/** Words by which a document speaks of a role; of a broker it does not always say whose. */
const MENTIONS: readonly RegExp[] = [
  /\b(?:seller|vendor|vendedor)/g,
  /\b(?:buyer|purchaser|comprador)/g,
  /\b(?:landlord|lessor|arrendador)/g,
  /\b(?:tenant|lessee|renter|resident|inquilin|arrendatari)/g,
  /\b(?:guarantor|co-?signer|fiador)/g,
  /\b(?:listing|seller's|landlord's) (?:broker|agent|firm)/g,
  /\b(?:buyer's|selling|cooperating|purchaser's) (?:broker|agent|firm)/g,
  /\b(?:manager|administrador)/g,
  /\b(?:broker|agent|corredor)/g,
];

function mentionsOf(pages: readonly PageScan[]): number[] {
  const text = plain(
    pages
      .map((s) => s.phrases.map((p) => p.text).join(' '))
      .join(' ')
      .slice(0, 200_000),
  );
  const counts = MENTIONS.map((re) => text.match(re)?.length ?? 0);
  const sum = counts.reduce((a, b) => a + b, 0);
  return counts.map((n) => n / Math.max(1, sum));
}

/** How near a caption is to its blank at most, in points. */
const NEAR = 60;

/**
 * Returns on which side the captions of a row lie: whether roles stand before its first and behind its last blank, the mean
 * distances of words before and behind its blanks, and how many roles are named on either side.
 */
function rowFactsOf(row: readonly Known[]): number[] {
  const by = (k: Known | undefined, side: 'left' | 'right') => {
    const near = k?.seen[side].find((s) => s.said.role);
    return near && !near.between && near.gap < NEAR ? 1 : 0;
  };
  const mean = (side: 'left' | 'right') =>
    row.reduce((n, k) => n + Math.min(NEAR, k.seen[side][0]?.gap ?? NEAR), 0) / Math.max(1, row.length);
  const named = (side: 'left' | 'right') => row.filter((k) => by(k, side)).length;
  return [
    by(row[0], 'left'),
    by(row[row.length - 1], 'right'),
    mean('left'),
    mean('right'),
    named('left') - named('right'),
    row.filter((k) => k.gaps.below < 14).length / Math.max(1, row.length),
    row.filter((k) => k.gaps.above < 24).length / Math.max(1, row.length),
  ];
}

function headingOver(view: PageView, b: Blank): Known['heading'] {
  let best: Known['heading'] = null;
  for (const h of view.headings) {
    const gap = b.y - h.phrase.y;
    if (gap < 3 || gap > FAR || (best && gap >= best.gap)) continue;
    const beside = view.beside.get(h) ?? [];
    const next = beside.filter((o) => o.phrase.x0 > h.phrase.x0).sort((p, q) => p.phrase.x0 - q.phrase.x0)[0];
    if (beside.length && (b.x0 < h.phrase.x0 - 20 || (next && b.x0 > next.phrase.x0 - 8))) continue;
    if (h.role) best = { role: h.role, gap };
  }
  return best;
}

/** Returns whether a row begins with this blank, before any words. */
function startsWithBlank(view: PageView, first: Candidate): boolean {
  const b = first.judged.blank;
  return !view.said.some((s) => isOnRow(s.phrase, b) && s.phrase.x1 <= b.x0 + 5 && /[a-z]{2}/i.test(s.phrase.text));
}
function endsWithBlank(view: PageView, last: Candidate): boolean {
  const b = last.judged.blank;
  return !view.said.some((s) => isOnRow(s.phrase, b) && s.phrase.x0 >= b.x1 - 5 && /[a-z]{2}/i.test(s.phrase.text));
}

export function gapBelow(view: PageView, b: Blank): number {
  let best = FAR;
  for (const { phrase: p } of view.said)
    if (p.x0 < b.x1 && p.x1 > b.x0) {
      const gap = p.y - 0.74 * p.size - b.y;
      if (gap > -3 && gap < best) best = gap;
    }
  return best;
}
export function gapAbove(view: PageView, b: Blank): number {
  let best = FAR;
  for (const { phrase: p } of view.said)
    if (p.x0 < b.x1 && p.x1 > b.x0 && p.y < b.y - 3) best = Math.min(best, b.y - p.y);
  return best;
}
