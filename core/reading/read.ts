/** Reading a document: every printed place with its kind, role and ordinal. */
import { overlapArea } from '../paper/geometry';
import type { Rect } from '../paper/types';
import type { Blank } from './blanks';
import { candidatesOf, type Candidates } from './candidates';
import { sameRow } from './captions';
import type { Judged } from './classify';
import { aroundOf, certaintyOf, contradicted, otherOf } from './certainty';
import { decide, readied, type Decision, type Weights } from './decide';
import { evidenceOf } from './evidence';
import { isSigned, tidyLabel } from './judged';
import { withCaptions } from './own-fields';
import { doubtBorrowed } from './roles';
import { DOUBT, type PageContent, type PlaceKind, type PlaceRole, type PrintedPlace } from './types';
import type { Phrase } from './text';
import { isFurtherPage, isSampleMark, type RoleRead } from './words';
import { groupBy } from '../sure';
import LEARNED from './weights.json';

/** What was learned: see `docs/concepts/reading.md`. JSON does not say that a pair is a pair. */
export const WEIGHTS = readied(LEARNED as unknown as Weights);

/** Width in points below which nothing can be written or checked. */
const NARROWEST = 4;

/** Number of blanks on a page beyond which they are not weighed one by one; a dense form has two hundred. */
const CROWD = 800;

/**
 * Minimum certainty of a signature or initials that "accept all" takes: `agreed` if the rules say the same, otherwise `alone`.
 * Nearly all that are wrong above it are held back by `contradicted` and `doubtContradictions`: docs/concepts/reading.md has the
 * figures.
 */
const SURE = { alone: 0.87, agreed: 0.7 };
/** Confidence of a neighbor below which a row is in doubt: it is less than 60 % certain. */
const LEAST_NEIGHBOR = 0.6 * DOUBT;
/** Maximum certainty of a place that a neighbor contradicts. */
const CONTRADICTED = 0.5;

/**
 * Finds the printed places of a document.
 *
 * @param pages  text and drawing of each page, in order
 * @param fields places of an AcroForm, which replace what is printed under them
 * @param before words of the pages before these, if a document is read in parts
 * @returns places in reading order, page by page
 */
export function readPlaces(pages: PageContent[], fields: PrintedPlace[] = [], before = ''): PrintedPlace[] {
  return placesBy(WEIGHTS, candidatesOf(pages, fields, before));
}

/** Returns the places of a document as weights decide them. */
export function placesBy(weights: Weights, found: Candidates): PrintedPlace[] {
  const { candidates, scans, paper, fields } = found;
  const crowded = new Set(
    [...groupBy(candidates, (c) => c.page)].flatMap(([page, all]) => (all.length > CROWD ? [page] : [])),
  );
  // Pages that were printed here are what the rules say: each line names its person.
  const further = new Set(scans.flatMap((s, page) => (s.phrases.some((p) => isFurtherPage(p.text)) ? [page] : [])));
  const byRules = (page: number) => crowded.has(page) || further.has(page);
  const decisions = decide(
    weights,
    evidenceOf(
      candidates.filter((c) => !byRules(c.page)),
      scans,
      paper,
    ),
  );
  const around = aroundOf(decisions);
  const shifted = contradicted(decisions);
  const decided = [
    ...decisions.map((d) => ({
      page: d.k.c.page,
      judged: judgedBy(d, certaintyOf(weights, d, around), shifted),
    })),
    // Where weighing would take too long, what the rules say is in doubt.
    ...candidates
      .filter((c) => byRules(c.page) && c.isPlace)
      .map(({ page, judged }) => ({
        page,
        judged: crowded.has(page) ? { ...judged, confidence: Math.min(judged.confidence, DOUBT) } : judged,
      })),
  ];
  scans.forEach((scan, page) => {
    const here = decided.flatMap((d) => (d.page === page && d.judged ? [d.judged] : []));
    // A page that only says that it was printed here is certain of nothing but what its own captions name.
    if (scan.content.scan || further.has(page)) doubtBorrowed(here, paper);
    certainDays(here);
    doubtMisnamed(here, paper.misnamed);
    doubtCovered(here, scan.content.pictures);
    if (!crowded.has(page)) doubtContradictions(here);
    if (scan.phrases.some(isSample)) for (const j of here) j.confidence = Math.min(j.confidence, DOUBT);
  });
  const out: PrintedPlace[] = [];
  const ofField = new Map<Blank, Judged>();
  for (const { page, judged: j } of decided) {
    if (!j) continue;
    if (fields.has(j.blank)) ofField.set(j.blank, j);
    // Captions that lie across each other can leave a part of a blank without any width.
    else if (j.blank.x1 - j.blank.x0 >= NARROWEST && j.blank.h >= NARROWEST) out.push(place(j, page + 1));
  }
  for (const [blank, field] of fields) out.push(withCaptions(field, ofField.get(blank)));
  return out.sort(
    (a, b) =>
      a.page - b.page ||
      (Math.abs(a.rect.y + a.rect.h - b.rect.y - b.rect.h) > 6
        ? a.rect.y + a.rect.h - b.rect.y - b.rect.h
        : a.rect.x - b.rect.x),
  );
}

/** Returns whether a phrase is a mark that the page is a sample: in capitals, bold or large, not within a sentence. */
const isSample = (p: Phrase) => isSampleMark(p.text) && (p.bold || p.size > 13 || /^[^a-z]+$/.test(p.text));

/**
 * Lowers the confidence of a row of signatures or initials in which one is in doubt, or in which one person is asked twice:
 * whoever is wrong, it may be the neighbor.
 */
function doubtContradictions(all: readonly Judged[]): void {
  const hands = all.filter((j) => j.kind === 'signature' || j.kind === 'initials');
  for (const j of hands) {
    const row = hands.filter((o) => o.kind === j.kind && sameRow(o.blank, j.blank));
    const twice = row.some((o) => o !== j && o.role?.role === j.role?.role && o.role?.ordinal === j.role?.ordinal);
    const unsure = row.some((o) => o.confidence < LEAST_NEIGHBOR);
    if (twice || unsure) j.confidence = Math.min(j.confidence, DOUBT);
  }
  // The date on the row of an uncertain signature is uncertain too, with the same other person.
  for (const j of all) {
    if (j.kind !== 'date' || !j.role) continue;
    const of = hands.find((o) => o.kind === 'signature' && sameRow(o.blank, j.blank) && isSameRole(o.role, j.role));
    if (!of || of.confidence > DOUBT) continue;
    j.confidence = Math.min(j.confidence, DOUBT);
    j.other = of.other?.kind === 'signature' ? { ...of.other, kind: 'date' } : undefined;
  }
}

/** Makes the date on the row of a certain signature certain, if a caption says that it is a date and the person is the same. */
function certainDays(all: readonly Judged[]): void {
  for (const j of all) {
    if (j.kind !== 'date' || j.by !== 'words' || !j.role) continue;
    const of = all.find((o) => o.kind === 'signature' && sameRow(o.blank, j.blank) && isSameRole(o.role, j.role));
    if (of && of.confidence > DOUBT) j.confidence = Math.max(j.confidence, of.confidence);
  }
}

const isSameRole = (a: RoleRead | null, b: RoleRead | null) => a?.role === b?.role && a?.ordinal === b?.ordinal;

/** Makes places uncertain whose role has another meaning in this document: a seller who is called "Buyer". */
function doubtMisnamed(all: readonly Judged[], misnamed: ReadonlyMap<PlaceRole, PlaceRole>): void {
  for (const j of all) {
    const role = j.role && misnamed.get(j.role.role);
    if (!role || !j.role) continue;
    j.confidence = Math.min(j.confidence, DOUBT);
    j.other = { kind: j.kind, role, ordinal: j.role.ordinal ?? 1 };
  }
}

/** Share of a place that a picture may cover before the place is uncertain. */
const MOST_COVERED = 0.4;

/** Makes places uncertain that a picture covers: the signer may not see them, or would sign over print. */
function doubtCovered(all: readonly Judged[], pictures: readonly Rect[]): void {
  for (const j of all) {
    const rect = rectOf(j);
    const isCovered = pictures.some((p) => overlapArea(p, rect) > MOST_COVERED * rect.w * rect.h);
    if (isCovered) j.confidence = Math.min(j.confidence, DOUBT);
  }
}

/** Returns whether the rules say the same of a candidate. */
const isAgreed = ({ k: { c }, kind, role, ordinal }: Decision) =>
  c.isPlace &&
  c.judged.kind === kind &&
  (c.judged.role?.role ?? 'unknown') === role &&
  (role === 'unknown' || (c.judged.role?.ordinal ?? 1) === ordinal);

/**
 * Returns a judgment with the kind, role and ordinal that were decided; null if it is no place. It is certain if the probability
 * is high enough or its row spells it out, unless a neighbor contradicts it.
 */
function judgedBy(d: Decision, certainty: number, shifted: ReturnType<typeof contradicted>): Judged | null {
  if (d.kind === 'none') return null;
  const isContradicted = shifted.has(d);
  const isSure = !isContradicted && (d.spelledOut || certainty >= (isAgreed(d) ? SURE.agreed : SURE.alone));
  return {
    ...d.k.c.judged,
    kind: d.kind,
    // The words of the rules explain only the kind that the rules decided.
    by: d.k.c.judged.kind === d.kind ? d.k.c.judged.by : 'none',
    role: d.role === 'unknown' ? null : { role: d.role, ordinal: d.ordinal },
    // Low enough to make its neighbors uncertain too: see `LEAST_NEIGHBOR`.
    confidence: isSure
      ? Math.max(certainty, SURE.agreed)
      : DOUBT * (isContradicted ? Math.min(certainty, CONTRADICTED) : certainty),
    other: shifted.get(d) ?? otherOf(d),
  };
}

function place(j: Judged, page: number): PrintedPlace {
  return {
    page,
    kind: j.kind,
    ...(j.kind === 'date' ? { signed: isSigned(j) } : {}),
    role: j.role?.role ?? 'unknown',
    ordinal: j.role ? (j.role.ordinal ?? 1) : null,
    rect: rectOf(j),
    label: tidyLabel(j.label),
    source: 'print',
    confidence: Math.round(j.confidence * 100) / 100,
    ...(j.other && j.confidence <= DOUBT ? { other: j.other } : {}),
  };
}

const HEIGHTS: Record<PlaceKind, number> = { signature: 24, initials: 18, date: 16, name: 16, text: 16, checkbox: 20 };

/** Returns the rectangle to write in: on the line, as high as the kind needs and the page leaves free. */
function rectOf(j: Judged): Rect {
  const b = j.blank;
  const r1 = (n: number) => Math.round(n * 10) / 10;
  const high =
    b.made === 'cell'
      ? Math.min(b.h, Math.max(HEIGHTS[j.kind], 30))
      : b.made === 'box'
        ? b.h
        : Math.max(Math.min(HEIGHTS[j.kind], b.h), Math.min(b.h, 9));
  return { x: r1(b.x0), y: r1(b.y - high), w: r1(b.x1 - b.x0), h: r1(high) };
}
