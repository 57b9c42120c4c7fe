/** Computes how certain a decision is, from how well it agrees with the decisions around it, and what else the place may be. */
import { KINDS, type Decision, type Weights } from './decide';
import { textBetween, type Candidate } from './sight';
import { probabilityOf, scoreOf } from './trees';
import { PLACE_ROLES, type PlaceMeaning, type PlaceRole } from './types';
import { groupBy, itemAt } from '../sure';

/** Minimum probability of another reading, relative to the one decided, at which it is offered to the user. */
const WORTH_NAMING = 0.04;

/**
 * Returns the second most probable reading of a place: one that differs in kind, role or ordinal. Returns undefined if every
 * other reading is improbable.
 */
export function otherOf(d: Decision): PlaceMeaning | undefined {
  if (d.kind === 'none') return undefined;
  const meant = { kind: d.kind, role: d.role, ordinal: d.ordinal };
  let best = WORTH_NAMING;
  let other: PlaceMeaning | undefined;
  const weigh = (p: readonly number[], decided: number, meaning: (i: number) => PlaceMeaning | null) => {
    p.forEach((share, i) => {
      const ratio = share / Math.max(1e-6, p[decided] ?? 0);
      const named = i !== decided && ratio > best ? meaning(i) : null;
      if (named) [best, other] = [ratio, named];
    });
  };
  weigh(d.shares.kind, KINDS.indexOf(d.kind), (i) => {
    const kind = itemAt(KINDS, i);
    return kind === 'none' ? null : { ...meant, kind };
  });
  weigh(d.shares.role, PLACE_ROLES.indexOf(d.role), (i) => {
    const role = itemAt(PLACE_ROLES, i);
    return role === 'unknown' ? null : { ...meant, role, ordinal: d.role === 'unknown' ? 1 : d.ordinal };
  });
  if (isUncountedBroker(d)) return { ...meant, role: 'buyer_broker', ordinal: 1 };
  if (d.role !== 'unknown') weigh(d.shares.ordinal, (d.ordinal ?? 1) - 1, (i) => ({ ...meant, ordinal: i + 1 }));
  return other;
}

/** The decisions of a document by page, without those that are no place, and the ordinals of its signatures by role. */
export interface Around {
  pages: ReadonlyMap<number, readonly Decision[]>;
  hands: ReadonlyMap<PlaceRole, readonly number[]>;
}

/** Groups the decisions of a document so that each of them can be compared with those around it. */
export function aroundOf(all: readonly Decision[]): Around {
  const places = all.filter((d) => d.kind !== 'none');
  const signatures = places.filter((d) => d.kind === 'signature');
  const hands = [...groupBy(signatures, (d) => d.role)].map(
    ([role, of]) => [role, of.map((d) => d.ordinal ?? 0)] as const,
  );
  return { pages: groupBy(places, (d) => d.k.c.page), hands: new Map(hands) };
}

/** Returns the features of a decision from which its certainty is computed: see `certaintyOf`. */
export function certaintyFeatures(d: Decision, around: Around): number[] {
  const { kind, role, ordinal } = d.shares;
  // What was decided by the row may not be what is most probable by itself.
  const margin = (p: readonly number[], at: number) => (p[at] ?? 0) - Math.max(0, ...p.filter((_, i) => i !== at));
  const [ofKind, ofRole, ofOrdinal] = [KINDS.indexOf(d.kind), PLACE_ROLES.indexOf(d.role), (d.ordinal ?? 1) - 1];
  const share = (p: readonly number[], at: number) => p[at] ?? 0;
  const { judged } = d.k.c;
  const page = around.pages.get(d.k.c.page) ?? [];
  const b = judged.blank;
  const same = page.filter((o) => o !== d && o.kind === d.kind && o.role === d.role && o.ordinal === d.ordinal);
  const onRow = (o: Decision) => Math.abs(o.k.c.judged.blank.y - b.y) < 8;
  const near = (o: Decision) => Math.abs(o.k.c.judged.blank.y - b.y) < 90;
  const before =
    d.ordinal && d.ordinal > 1
      ? page.some((o) => o.kind === d.kind && o.role === d.role && o.ordinal === d.ordinal! - 1)
      : true;
  const hands = around.hands.get(d.role) ?? [];
  const neighbors = page.filter((o) => o !== d && onRow(o) && o.kind === d.kind);
  return [
    KINDS.indexOf(d.kind),
    PLACE_ROLES.indexOf(d.role),
    d.ordinal ?? 0,
    share(kind, ofKind),
    margin(kind, ofKind),
    share(role, ofRole),
    margin(role, ofRole),
    share(ordinal, ofOrdinal),
    margin(ordinal, ofOrdinal),
    share(kind, ofKind) * share(role, ofRole) * share(ordinal, ofOrdinal),
    d.k.c.isPlace && judged.kind === d.kind ? 1 : 0,
    judged.role ? (judged.role.role === d.role ? 1 : -1) : 0,
    judged.role?.ordinal ? (judged.role.ordinal === d.ordinal ? 1 : -1) : 0,
    judged.confidence,
    same.filter(onRow).length,
    same.filter(near).length,
    same.length,
    before ? 1 : 0,
    hands.length,
    Math.max(0, ...hands) - (d.ordinal ?? 0),
    neighbors.length,
    Math.min(1, ...neighbors.map((o) => Math.max(...o.shares.role) * Math.max(...o.shares.ordinal))),
    d.k.twins,
    d.k.gaps.above,
    d.k.gaps.below,
    d.k.rowRoles.length,
    new Set(d.k.rowRoles).size,
    d.k.starts ? 1 : 0,
    d.k.ends ? 1 : 0,
    b.x1 - b.x0,
    ...d.k.rowFacts,
  ];
}

/** Returns how certain a decision is: the probability that kind, role and ordinal are all right. */
export const certaintyOf = (weights: Weights, d: Decision, around: Around): number =>
  probabilityOf(scoreOf(weights.certainty, certaintyFeatures(d, around)));

/** Maximum distance, in points, between neighbors in a row, and in a stack, that are compared with each other. */
const NEXT = { across: 80, down: 70 };
/** Maximum difference in width, in points, of two blanks that are drawn alike. */
const ALIKE = 6;

const widthOf = ({ k }: Decision) => k.c.judged.blank.x1 - k.c.judged.blank.x0;
const areAlike = (a: Decision, b: Decision) =>
  a.k.c.judged.blank.made === b.k.c.judged.blank.made && Math.abs(widthOf(a) - widthOf(b)) < ALIKE;

/** Returns whether a caption before or under a blank, not one over it, names the number that was decided. */
const isCounted = ({ k, ordinal }: Decision) => OWN_SIDES.some((i) => k.named[i]?.ordinal === ordinal);
/** Which of the captions of a blank are before and under it: see `CAPTIONS` of the evidence. */
const OWN_SIDES = [1, 2] as const;

/** What contradictions are looked for in. Signatures are grouped, because a document may have thousands. */
interface Signed {
  of: ReadonlyMap<Candidate, Decision>;
  /** The signatures of one role on one page, from the bottom, by the key of `blockKey`. */
  byPage: ReadonlyMap<string, readonly Decision[]>;
  /** The number up to which people of a role sign without a gap, by role: 2 for signatures 1, 2 and 4. */
  countedTo: ReadonlyMap<PlaceRole, number>;
}

const blockKey = ({ k, role }: Decision) => `${k.c.page} ${role}`;
const blankOf = ({ k }: Decision) => k.c.judged.blank;

function signedOf(all: readonly Decision[]): Signed {
  const signatures = all.filter((d) => d.kind === 'signature' && d.role !== 'unknown');
  const upward = [...signatures].sort((p, q) => blankOf(q).y - blankOf(p).y || blankOf(q).x0 - blankOf(p).x0);
  const countedTo = new Map<PlaceRole, number>();
  for (const [role, of] of groupBy(signatures, (d) => d.role)) {
    const numbers = new Set(of.map((d) => d.ordinal ?? 1));
    let n = 0;
    while (numbers.has(n + 1)) n++;
    countedTo.set(role, n);
  }
  return { of: new Map(all.map((d) => [d.k.c, d])), byPage: groupBy(upward, blockKey), countedTo };
}

/** Returns whether initials are next to a blank that is drawn alike but was read as something else. */
function isBesideOther(d: Decision, { of }: Signed): boolean {
  const { row, rowIndex, c } = d.k;
  const { blank } = c.judged;
  if (d.kind !== 'initials' || blank.made === 'cell') return false;
  return [row[rowIndex - 1], row[rowIndex + 1]].some((o) => {
    const other = o && of.get(o);
    if (!other || !areAlike(d, other) || other.kind === 'initials') return false;
    const b = other.k.c.judged.blank;
    return Math.max(b.x0 - blank.x1, blank.x0 - b.x1) < NEXT.across;
  });
}

/** Returns whether the signature right over or under a signature is the same person's, or the one over it is drawn alike and nobody's. */
function isStackedWrong(d: Decision, { of }: Signed): boolean {
  const { column, columnIndex } = d.k;
  const next = (at: number) => {
    const c = column[at];
    const o = c && of.get(c);
    return o?.kind === 'signature' && Math.abs(blankOf(o).y - blankOf(d).y) < NEXT.down ? o : undefined;
  };
  const [over, under] = [next(columnIndex - 1), next(columnIndex + 1)];
  const isSame = (o: Decision | undefined) => o?.role === d.role && o.ordinal === d.ordinal;
  return isSame(over) || isSame(under) || (over?.role === 'unknown' && areAlike(d, over) && !isCounted(d));
}

/** Number of lines of running text between two blocks of signatures. */
const APART = 2;

/**
 * Returns the number that a signature has if those of its role are counted anew in its block; null if it is the number that was
 * decided, or if its caption names that. The same people may sign a second time for something else.
 */
function countedAnew(d: Decision, { byPage }: Signed): number | null {
  if ((d.ordinal ?? 1) < 2 || isCounted(d)) return null;
  const upward = byPage.get(blockKey(d)) ?? [];
  let place = 1;
  let last = blankOf(d).y;
  for (const o of upward.slice(upward.indexOf(d) + 1)) {
    const { y } = blankOf(o);
    if (textBetween(d.k.view, y, last) >= APART) return place === d.ordinal ? null : place;
    last = y;
    place++;
  }
  return null;
}

/** Returns whether a smaller number than a signature's is missing among those who sign for its role: then the count may be shifted. */
const isSkipped = (d: Decision, { countedTo }: Signed): boolean =>
  !isCounted(d) && (d.ordinal ?? 1) > (countedTo.get(d.role) ?? 0);

/**
 * Returns the number that a signature at the head of a page has if its block began on the page before: one more than the last
 * one there. Null if it was not counted as the first, if its caption counts it, or if a heading or text is between.
 */
function countedOverleaf(d: Decision, { byPage }: Signed): number | null {
  const { k, role, ordinal } = d;
  if (ordinal !== 1 || k.heading || isCounted(d)) return null;
  const last = byPage.get(`${k.c.page - 1} ${role}`)?.[0];
  if (!last || textBetween(k.view, 0, blankOf(d).y) >= APART) return null;
  const isCut = textBetween(last.k.view, blankOf(last).y, last.k.view.scan.content.height) < APART;
  return isCut ? (last.ordinal ?? 1) + 1 : null;
}

/**
 * Returns the decisions that something around them contradicts, with what they may be instead. In each case the reading may be
 * shifted by one person, which no place can tell by itself:
 *
 * - initials next to a blank that is drawn alike but was read as something else;
 * - a signature under one that is drawn alike but belongs to nobody, and two of one person, one over the other;
 * - a number that counts on from a block before the last paragraph, or that leaves out a smaller one;
 * - a first one at the head of a page, whose block began on the page before;
 * - a second broker although no caption says "2".
 */
export function contradicted(all: readonly Decision[]): ReadonlyMap<Decision, PlaceMeaning | undefined> {
  const signed = signedOf(all);
  const out = new Map<Decision, PlaceMeaning | undefined>();
  for (const d of all) {
    const { kind, role } = d;
    if (isUncountedBroker(d) || isBesideOther(d, signed)) out.set(d, undefined);
    if (kind !== 'signature' || role === 'unknown' || out.has(d)) continue;
    const anew = countedAnew(d, signed) ?? countedOverleaf(d, signed);
    if (anew !== null) out.set(d, { kind, role, ordinal: anew });
    else if (isSkipped(d, signed)) out.set(d, { kind, role, ordinal: (d.ordinal ?? 2) - 1 });
    else if (isStackedWrong(d, signed)) out.set(d, undefined);
  }
  return out;
}

/** Returns whether a place was given to a second broker although no caption says "2": the other side's broker may be meant. */
export const isUncountedBroker = (d: Decision): boolean =>
  d.role === 'broker' && (d.ordinal ?? 1) > 1 && !d.k.named.some((n) => n?.ordinal === d.ordinal);
