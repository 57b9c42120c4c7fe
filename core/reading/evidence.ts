/**
 * What is known of each blank before it is decided what it is for: the words around it with their distances, its row and
 * column, its twins on other pages, and what the rules say of it. Everything is a number, so that it can be weighed.
 */
import type { Judged, PaperContext } from './asked';
import type { Blank, PageScan } from './blanks';
import { sameRow } from './captions';
import { OUTSIDER } from './classify';
import { flowOf } from './flow';
import { BESIDE, habitsOf, likenessOf, listedOf, namingOf, NOBODY, rowFactsOf, type Naming } from './habits';
import {
  DIRECTIONS,
  endsWithBlank,
  FAR,
  gapAbove,
  gapBelow,
  headingOver,
  inDirection,
  isOnRow,
  lastHeading,
  roleSaid,
  startsWithBlank,
  viewOf,
  type Candidate,
  type Direction,
  type Heading,
  type Outlook,
  type PageView,
  type Sighting,
} from './sight';
import type { Phrase } from './text';
import type { PlaceRole } from './types';
import { plain, type RoleRead } from './words';
import { groupBy, itemAt, lastOf } from '../sure';

/** Everything known of a candidate, by which its features are computed. */
export interface Known extends Outlook {
  c: Candidate;
  view: PageView;
  paper: PaperContext;
  heading: Heading | null;
  /** The role that the last heading of the previous page names for this column, if no heading of this page is above the blank. */
  carried: RoleRead | null;
  /** The candidates of the previous page. */
  earlier: readonly Candidate[];
  /** The last candidate of the previous page that has the same left and right edge: a table may go on over the page. */
  overleaf: Candidate | null;
  /** For each of the blank's own captions (see `OWN_CAPTIONS`): whether it names a witness, a notary or another outsider. */
  outsiders: readonly boolean[];
  /** The nearest signature below the blank, according to the rules, at most `REACH` points away. */
  signedBelow: Candidate | null;
  /** The signatures before and after the blank, according to the rules. */
  signedBefore: SignedBeside;
  signedAfter: SignedBeside;
  /** The number of signatures of each role in the document, according to the rules. */
  signers: ReadonlyMap<PlaceRole, number>;
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
  /** The roles named right before and after it in the running text, and in the sentence before it. */
  said: readonly [RoleRead | null, RoleRead | null, RoleRead | null];
  /** The column of a table whose head names a role, as a key; null in any other place. */
  headed: string | null;
  starts: boolean;
  ends: boolean;
  /** Roles named on its row. */
  rowRoles: readonly PlaceRole[];
  /** Its row as a whole: see `rowFactsOf`. */
  rowFacts: readonly number[];
  /** Where blanks that are drawn alike on the page have their captions, as numbers: see `habitsOf`. */
  habits: readonly number[];
  /** The words on the side where blanks that are drawn alike have their captions; null if there are none near by. */
  caption: { direction: Direction; seen: Sighting } | null;
  /** Who is named on the side where blanks that are drawn alike name people: see `namingOf`. */
  naming: Naming;
  /** Who it is by a list of people beside its row: see `listedOf`. */
  listed: RoleRead | null;
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

/** Index of the head of the column in `CAPTIONS`. */
const HEAD = 7;
/** Number of entries of `CAPTIONS`, from the first, that belong to the blank itself: its label and the words on its four sides. */
const OWN_CAPTIONS = 5;

/** Maximum distance from a blank down to the signature that it may belong to, in points. */
const REACH = 170;

function signatureUnder(view: PageView, b: Blank): Candidate | null {
  let best: Candidate | null = null;
  for (const o of view.candidates) {
    const gap = o.judged.blank.y - b.y;
    if (!o.isPlace || o.judged.kind !== 'signature' || gap < 8 || gap > REACH) continue;
    if (!best || o.judged.blank.y < best.judged.blank.y) best = o;
  }
  return best;
}

/** Returns the end of the sentence that runs up to a blank. */
const sentenceBefore = (before: string) => lastOf(before.slice(-120).split(/[.;!?] /));

/** Returns the key of the column that a cell is in; null if it is in none. */
const headedBy = ({ page, judged: { blank, captions } }: Candidate) =>
  blank.made === 'cell' && captions.colHead ? `${page} ${Math.round(blank.x0)} ${captions.colHead}` : null;

/** Maximum distance between the edges of blanks of one column of a table, on two pages, in points. */
const EDGES = 3;

/** Returns the last candidate of a page whose left and right edges are those of a blank. */
function lastAlike(view: PageView, b: Blank): Candidate | null {
  let best: Candidate | null = null;
  for (const o of view.candidates) {
    const { x0, x1, y } = o.judged.blank;
    if (Math.abs(x0 - b.x0) > EDGES || Math.abs(x1 - b.x1) > EDGES) continue;
    if (!best || y > best.judged.blank.y) best = o;
  }
  return best;
}

/** Facts about the whole document that every candidate needs. */
interface Whole {
  views: PageView[];
  paper: PaperContext;
  /** What the captions of each candidate name. */
  named: ReadonlyMap<Candidate, Named>;
  /** The pages on which a candidate lies at each spot. */
  spots: ReadonlyMap<string, ReadonlySet<number>>;
  mentions: readonly number[];
  /** All signatures as the rules see them, in the order of the document. */
  signatures: readonly Candidate[];
  signers: ReadonlyMap<PlaceRole, number>;
}

/** Returns whether a candidate comes before another one in the document. */
const isBefore = (p: Candidate, q: Candidate) =>
  p.page < q.page || (p.page === q.page && p.judged.blank.y < q.judged.blank.y - SAME_LINE);

/** Maximum distance between the baselines of blanks of one line, in points. */
const SAME_LINE = 3;

/** The signatures next to a candidate in one direction of the document. */
interface SignedBeside {
  /** The nearest one, on any page; null if there is none. */
  nearest: Candidate | null;
  /** Its vertical distance in points; `FAR` on another page. */
  gap: number;
  /** The number of roles that sign near it, in the same direction. */
  roles: number;
}

/** Vertical distance in points within which signatures are of one block, and the number of them that are examined. */
const ONE_BLOCK = 64;
const MOST_EXAMINED = 8;

/** Returns the signatures from a position of the list on, forwards or backwards, as seen from a candidate. */
function signedBeside(c: Candidate, signatures: readonly Candidate[], from: number, step: 1 | -1): SignedBeside {
  const nearest = signatures[from];
  if (!nearest) return { nearest: null, gap: FAR, roles: 0 };
  if (nearest.page !== c.page) return { nearest, gap: FAR, roles: 0 };
  const roles = new Set<PlaceRole | undefined>();
  for (let n = 0; n < MOST_EXAMINED; n++) {
    const s = signatures[from + n * step];
    if (!s || s.page !== c.page || Math.abs(s.judged.blank.y - nearest.judged.blank.y) > ONE_BLOCK) break;
    roles.add(s.judged.role?.role);
  }
  return { nearest, gap: Math.min(FAR, Math.abs(nearest.judged.blank.y - c.judged.blank.y)), roles: roles.size };
}

/** Returns the signatures before a candidate and those after it, found by bisection. */
function signedAround(c: Candidate, signatures: readonly Candidate[]): [SignedBeside, SignedBeside] {
  const first = (comes: (s: Candidate) => boolean) => {
    let [lo, hi] = [0, signatures.length];
    while (lo < hi) {
      const mid = (lo + hi) >> 1;
      if (comes(itemAt(signatures, mid))) hi = mid;
      else lo = mid + 1;
    }
    return lo;
  };
  return [
    signedBeside(c, signatures, first((s) => !isBefore(s, c)) - 1, -1),
    signedBeside(
      c,
      signatures,
      first((s) => isBefore(c, s)),
      1,
    ),
  ];
}

/** The words of a blank's captions, and the roles they name: see `CAPTIONS`. */
interface Named {
  words: readonly string[];
  roles: readonly (RoleRead | null)[];
}

function namedBy({ judged }: Candidate, paper: PaperContext): Named {
  const words = CAPTIONS.map((caption) => caption(judged).slice(-120));
  return { words, roles: words.map((text) => (text ? roleSaid(text, paper) : null)) };
}

/**
 * Returns the position of a candidate on its page, rounded to 5 points, with the roles that are named before and under it, as a
 * key: a footer has the same key on every page. A buyer's line has not that of the seller's line on another page.
 */
function spotOf({ judged: { blank } }: Candidate, { roles: [, left, below] }: Named): string {
  const who = [left, below].map((r) => (r ? `${r.role} ${r.ordinal ?? ''}` : ''));
  return [...[blank.x0, blank.x1, blank.y].map((v) => Math.round(v / 5)), ...who].join('|');
}

/** Returns what is known of one candidate, except `rowFacts`, `habits`, `caption`, `naming` and `listed`, which need the other candidates first. */
function knownAlone(c: Candidate, whole: Whole): Known {
  const { views, paper, mentions, signatures, signers } = whole;
  const named = whole.named.get(c)!;
  const spot = spotOf(c, named);
  const [signedBefore, signedAfter] = signedAround(c, signatures);
  const view = itemAt(views, c.page);
  const earlier = views[c.page - 1];
  const b = c.judged.blank;
  const row = view.candidates
    .filter((o) => sameRow(o.judged.blank, b))
    .sort((p, q) => p.judged.blank.x0 - q.judged.blank.x0);
  const column = view.candidates
    .filter((o) => Math.abs(o.judged.blank.x0 - b.x0) < 9 || Math.abs(o.judged.blank.x1 - b.x1) < 4)
    .sort((p, q) => p.judged.blank.y - q.judged.blank.y);
  const [first, last] = [row[0], row[row.length - 1]];
  const flow = flowOf(view.scan, b);
  const roleOf = (text: string) => (text ? roleSaid(text, paper) : null);
  const heading = headingOver(view, b);
  return {
    c,
    view,
    paper,
    named: named.roles,
    said: [roleOf(flow.before.slice(-40)), roleOf(flow.after.slice(0, 40)), roleOf(sentenceBefore(flow.before))],
    headed: named.roles[HEAD] ? headedBy(c) : null,
    gaps: { above: gapAbove(view, b), below: gapBelow(view, b) },
    starts: !!first && startsWithBlank(view, first),
    ends: !!last && endsWithBlank(view, last),
    rowRoles: view.said.flatMap((s) => (s.role && isOnRow(s.phrase, b) ? [s.role.role] : [])),
    spot,
    seen: Object.fromEntries(DIRECTIONS.map((d) => [d, inDirection(view, b, d)])) as Known['seen'],
    heading,
    earlier: earlier?.candidates ?? [],
    carried: heading || !earlier ? null : lastHeading(earlier, b),
    overleaf: earlier ? lastAlike(earlier, b) : null,
    signedBefore,
    signedAfter,
    signers,
    outsiders: named.words.slice(0, OWN_CAPTIONS).map((text) => OUTSIDER.test(plain(text))),
    signedBelow: signatureUnder(view, b),
    row,
    rowIndex: row.indexOf(c),
    column,
    columnIndex: column.indexOf(c),
    twins: (whole.spots.get(spot)?.size ?? 1) - 1,
    pages: views.length,
    rowFacts: [],
    habits: [],
    caption: null,
    naming: NOBODY,
    listed: null,
    mentions,
  };
}

/** Returns what is known of all candidates of a document. */
export function evidenceOf(candidates: Candidate[], pages: PageScan[], paper: PaperContext): Known[] {
  const byPage = groupBy(candidates, (c) => c.page);
  const views = pages.map((scan, i) => viewOf(scan, paper, byPage.get(i) ?? []));
  const spots = new Map<string, Set<number>>();
  const named = new Map(candidates.map((c) => [c, namedBy(c, paper)]));
  for (const [c, n] of named) spots.set(spotOf(c, n), (spots.get(spotOf(c, n)) ?? new Set()).add(c.page));
  const signatures = candidates
    .filter((c) => c.isPlace && c.judged.kind === 'signature')
    .sort((p, q) => p.page - q.page || p.judged.blank.y - q.judged.blank.y);
  const signers = new Map<PlaceRole, number>();
  for (const { judged } of signatures)
    if (judged.role) signers.set(judged.role.role, (signers.get(judged.role.role) ?? 0) + 1);
  const whole = { views, paper, named, spots, mentions: mentionsOf(pages), signatures, signers };
  const known = candidates.map((c) => knownAlone(c, whole));
  const of = new Map(known.map((k) => [k.c, k]));
  for (const k of known) {
    const row = k.row.map((c) => of.get(c)!);
    k.rowFacts = rowFactsOf(row);
    // Once for each row: by its first blank.
    if (k.rowIndex === 0) listedOf(row, paper)?.forEach((who, i) => (itemAt(row, i).listed = who));
  }
  for (const alike of groupBy(known, (k) => likenessOf(k.c)).values()) {
    const { facts, side } = habitsOf(alike);
    for (const k of alike) {
      k.habits = facts;
      const [seen] = k.seen[side];
      k.caption = seen && seen.gap < BESIDE && !seen.between ? { direction: side, seen } : null;
    }
    namingOf(alike).forEach((naming, i) => (itemAt(alike, i).naming = naming));
  }
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
