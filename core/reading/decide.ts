/**
 * Deciding what each blank of a document is for: kind, role and ordinal are weighed by what was learned from labeled forms,
 * looked at a second time with what the first look made of the neighbors, and taken together where a spot repeats on
 * several pages. How certain a decision is, is weighed last, by how well it agrees with those around it.
 */
import type { Candidate, Known } from './evidence';
import {
  kindFeatures,
  ordinalFeatures,
  roleFeatures,
  secondKindFeatures,
  secondRoleFeatures,
  type Decided,
} from './features';
import { probabilityOf, scoreOf, typed, type Boosted } from './trees';
import { PLACE_KINDS, PLACE_ROLES, type PlaceRole } from './types';
import { groupBy } from '../sure';

/** What a candidate may be: a kind of place, or none. */
export const KINDS = [...PLACE_KINDS, 'none'] as const;
/** The highest ordinal that is weighed. */
export const MOST_ORDINAL = 5;

/** What was learned. */
export interface Weights {
  /** First and second look at the kind: one model a kind. */
  kind: [Boosted[], Boosted[]];
  /** First and second look at the role: one model for all roles. */
  role: [Boosted, Boosted];
  ordinal: Boosted;
  /** How certain a decision is. */
  certainty: Boosted;
}

/** Probabilities of each candidate, which add up to 1. */
export type Shares = Map<Candidate, number[]>;

const shares = (p: number[]) => {
  const sum = p.reduce((a, b) => a + b, 0);
  return p.map((x) => x / sum);
};

/** Returns the probabilities of the kinds of each candidate. */
export function kindsOf(models: readonly Boosted[], known: Known[], rows: number[][]): Shares {
  return new Map(known.map((k, i) => [k.c, shares(models.map((w) => probabilityOf(scoreOf(w, rows[i]!))))]));
}

/** Returns the roles that a document names anywhere in few words; the others need not be weighed. */
function rolesIn(known: readonly Known[]): ReadonlySet<PlaceRole> {
  const out = new Set<PlaceRole>(['unknown']);
  for (const view of new Set(known.map((k) => k.view))) for (const s of view.said) if (s.role) out.add(s.role.role);
  for (const k of known) {
    for (const r of [k.c.judged.role, ...k.named, ...k.said]) if (r) out.add(r.role);
  }
  return out;
}

/**
 * Returns the probabilities of the roles of each candidate.
 *
 * @param row  the features of a candidate for a role; null for a role that is not weighed
 */
export function rolesOf(
  model: Boosted,
  known: readonly Known[],
  row: (k: Known, role: PlaceRole) => number[] | null,
): Shares {
  const of = (k: Known, role: PlaceRole) => {
    const features = row(k, role);
    return features ? probabilityOf(scoreOf(model, features)) : 0;
  };
  return new Map(known.map((k) => [k.c, shares(PLACE_ROLES.map((role) => of(k, role)))]));
}

const best = (p: readonly number[]) => p.indexOf(Math.max(...p));

/** Returns the most probable kind and role of each candidate. */
export function decidedOf(known: Known[], kinds: Shares, roles: Shares): Map<Candidate, Decided> {
  return new Map(
    known.map((k) => [
      k.c,
      { kind: KINDS[best(possible(k.c, kinds.get(k.c)!))]!, role: PLACE_ROLES[best(roles.get(k.c)!)]! },
    ]),
  );
}

/** Returns the probabilities of the ordinals of each candidate. */
export function ordinalsOf(model: Boosted, known: Known[], decided: Map<Candidate, Decided>): Shares {
  return new Map(
    known.map((k) => {
      if (decided.get(k.c)!.role === 'unknown') return [k.c, [1]];
      const p = Array.from({ length: MOST_ORDINAL }, (_, i) =>
        probabilityOf(scoreOf(model, ordinalFeatures(k, i + 1, decided))),
      );
      return [k.c, shares(p)];
    }),
  );
}

/** Returns shares with those at one spot of several pages replaced by their mean: a footer means the same everywhere. */
function pooled(known: Known[], all: Shares): Shares {
  const spots = new Map<string, Known[]>();
  for (const k of known) {
    const there = spots.get(k.spot);
    if (there) there.push(k);
    else if (k.twins) spots.set(k.spot, [k]);
  }
  const out = new Map(all);
  for (const twins of spots.values()) {
    const width = all.get(twins[0]!.c)!.length;
    const sum = Array.from({ length: width }, (_, i) =>
      Math.exp(twins.reduce((n, k) => n + Math.log(Math.max(1e-4, all.get(k.c)![i] ?? 0)), 0) / twins.length),
    );
    const mean = shares(sum);
    for (const k of twins) out.set(k.c, mean);
  }
  return out;
}

/** A candidate as it was decided, with the probabilities it was decided by. */
export interface Decision {
  k: Known;
  kind: (typeof KINDS)[number];
  role: PlaceRole;
  ordinal: number | null;
  shares: { kind: number[]; role: number[]; ordinal: number[] };
  /** Whether the row says it itself: a caption names the role and the number, and its day of signing follows. */
  spelledOut?: true;
}

/** Returns the probabilities of kinds without signatures and initials where a sentence goes on behind the blank. */
function possible({ judged }: Candidate, kinds: readonly number[]): readonly number[] {
  const within = judged.amid || (judged.inText && judged.by !== 'words');
  return within ? kinds.map((p, i) => (KINDS[i] === 'signature' || KINDS[i] === 'initials' ? 0 : p)) : kinds;
}

/**
 * Returns, for each page and role of which more people are counted there than is weighed, that the rules' count goes: long
 * lists of people are unlike the forms that were learned from.
 */
function longLists(known: readonly Known[]): Set<string> {
  return new Set(
    known.flatMap(({ c }) =>
      (c.judged.role?.ordinal ?? 0) > MOST_ORDINAL ? [`${c.page} ${c.judged.role?.role}`] : [],
    ),
  );
}

const NAME = KINDS.indexOf('name');
const SIGNATURE = KINDS.indexOf('signature');

/**
 * Makes a name the signature of its row where the rules took it for one, a day of the same role follows, and nobody else
 * signs on the row: who writes a day there signs there. How probable the two kinds are changes places with it. Notes which
 * signatures their rows spell out.
 */
function signRows(all: readonly Decision[]): void {
  const of = new Map(all.map((d) => [d.k.c, d]));
  for (const d of all) {
    const { judged, isPlace } = d.k.c;
    if (!isPlace || judged.kind !== 'signature' || (d.kind !== 'name' && d.kind !== 'signature')) continue;
    const row = d.k.row.flatMap((c) => of.get(c) ?? []);
    const next = row[row.indexOf(d) + 1];
    if (next?.kind !== 'date' || next.role !== d.role || row.some((o) => o !== d && o.kind === 'signature')) continue;
    if (d.kind === 'name') {
      const kind = [...d.shares.kind];
      [kind[NAME], kind[SIGNATURE]] = [kind[SIGNATURE]!, kind[NAME]!];
      d.kind = 'signature';
      d.shares = { ...d.shares, kind };
    }
    const [label] = d.k.named;
    if (label?.role !== d.role || label.ordinal === null || label.ordinal !== d.ordinal) continue;
    d.spelledOut = true;
    if (next.ordinal === d.ordinal) next.spelledOut = true;
  }
}

/** Decides all candidates of a form. */
export function decide(weights: Omit<Weights, 'certainty'>, known: Known[]): Decision[] {
  const rows = known.map(kindFeatures);
  const kinds1 = kindsOf(weights.kind[0], known, rows);
  const kinds = pooled(
    known,
    kindsOf(
      weights.kind[1],
      known,
      known.map((k, i) => secondKindFeatures(k, rows[i]!, kinds1)),
    ),
  );
  const named = rolesIn(known);
  const roleRows = new Map(
    known.map((k) => [k, PLACE_ROLES.map((role) => (named.has(role) ? roleFeatures(k, role, kinds1) : null))]),
  );
  const rowOf = (k: Known, role: PlaceRole) => roleRows.get(k)![PLACE_ROLES.indexOf(role)]!;
  const roles1 = rolesOf(weights.role[0], known, rowOf);
  const roles = pooled(
    known,
    rolesOf(weights.role[1], known, (k, role) => {
      const first = rowOf(k, role);
      return first && secondRoleFeatures(k, role, first, kinds1, roles1);
    }),
  );
  const ordinals = pooled(known, ordinalsOf(weights.ordinal, known, decidedOf(known, kinds, roles)));
  const lists = longLists(known);
  const decided = known.map((k): Decision => {
    const shares = { kind: kinds.get(k.c)!, role: roles.get(k.c)!, ordinal: ordinals.get(k.c)! };
    const kind = KINDS[best(possible(k.c, shares.kind))]!;
    const role = kind === 'checkbox' || kind === 'none' ? 'unknown' : PLACE_ROLES[best(shares.role)]!;
    const ruled = k.c.judged.role;
    const counted = ruled?.role === role && lists.has(`${k.c.page} ${role}`) ? ruled.ordinal : null;
    return {
      k,
      kind,
      role,
      ordinal: role === 'unknown' ? null : (counted ?? best(shares.ordinal) + 1),
      shares,
    };
  });
  signRows(decided);
  return decided;
}

/** The decisions of a document by page, without those that are no place, and the ordinals of its signatures by role. */
export interface Around {
  pages: ReadonlyMap<number, readonly Decision[]>;
  hands: ReadonlyMap<PlaceRole, readonly number[]>;
}

/** Returns the decisions of a document as each of them is compared with the others. */
export function aroundOf(all: readonly Decision[]): Around {
  const places = all.filter((d) => d.kind !== 'none');
  const signatures = places.filter((d) => d.kind === 'signature');
  const hands = [...groupBy(signatures, (d) => d.role)].map(
    ([role, of]) => [role, of.map((d) => d.ordinal ?? 0)] as const,
  );
  return { pages: groupBy(places, (d) => d.k.c.page), hands: new Map(hands) };
}

/** Returns the features by which it is weighed whether a decision is right in kind, role and ordinal together. */
export function certaintyFeatures(d: Decision, around: Around): number[] {
  const { kind, role, ordinal } = d.shares;
  const sorted = (p: readonly number[]) => [...p].sort((a, b) => b - a);
  const margin = (p: readonly number[]) => (sorted(p)[0] ?? 0) - (sorted(p)[1] ?? 0);
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
    Math.max(...kind),
    margin(kind),
    Math.max(...role),
    margin(role),
    Math.max(...ordinal),
    margin(ordinal),
    Math.max(...kind) * Math.max(...role) * Math.max(...ordinal),
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

/** Returns weights as they were stored, ready to be applied. */
export const readied = (stored: Weights): Weights => ({
  kind: [stored.kind[0].map(typed), stored.kind[1].map(typed)],
  role: [typed(stored.role[0]), typed(stored.role[1])],
  ordinal: typed(stored.ordinal),
  certainty: typed(stored.certainty),
});
