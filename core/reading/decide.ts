/**
 * Decides the kind, role and ordinal of each blank of a document, with trees that were trained on labeled forms.
 *
 * The trees run twice: the second time they also know what the first run decided about neighboring blanks. Blanks at the same
 * spot of several pages, and blanks of one row, are then decided together. `certainty.ts` computes how certain the result is.
 */
import type { Known } from './evidence';
import type { Judged } from './asked';
import type { Candidate } from './sight';
import {
  kindFeatures,
  ordinalFeatures,
  roleFeatures,
  secondKindFeatures,
  secondRoleFeatures,
  type Decided,
  type DecidedSoFar,
} from './features';
import { probabilityOf, scoreOf, typed, type Boosted } from './trees';
import { readRow, signatureBeside, waysOf } from './together';
import { PLACE_KINDS, PLACE_ROLES, type PlaceRole } from './types';
import { kindOfWords } from './words';
import { groupBy, itemAt } from '../sure';

/** What a candidate may be: a kind of place, or none. */
export const KINDS = [...PLACE_KINDS, 'none'] as const;
/** The highest ordinal that is weighed. */
export const MOST_ORDINAL = 5;

/** What was learned. */
export interface Weights {
  /** Models of the first and second run: one for each kind. */
  kind: [Boosted[], Boosted[]];
  /** Models of the first and second run: one for all roles. */
  role: [Boosted, Boosted];
  ordinal: Boosted;
  /** How certain a decision is. */
  certainty: Boosted;
}

/** Probabilities of each candidate, which add up to 1. */
export type Shares = Map<Candidate, readonly number[]>;

const shares = (p: readonly number[]): readonly number[] => {
  const sum = p.reduce((a, b) => a + b, 0);
  return p.map((x) => x / sum);
};

/** Returns the probabilities of the kinds of each candidate. */
export function kindsOf(models: readonly Boosted[], known: Known[], rows: number[][]): Shares {
  return new Map(known.map((k, i) => [k.c, kindsOfOne(models, itemAt(rows, i))]));
}

const kindsOfOne = (models: readonly Boosted[], row: number[]) =>
  shares(models.map((w) => probabilityOf(scoreOf(w, row))));

/** Probability above which the first run’s kind or role is final: the second run skips the blank, which saves time. */
const CLEAR = 0.99;

/** Returns the probabilities of the kinds after the second run. Blanks of which the first run was sure keep its probabilities: see `CLEAR`. */
function kindsOfSecondRun(models: readonly Boosted[], known: Known[], rows: number[][], first: Shares): Shares {
  return new Map(
    known.map((k, i) => {
      const seen = first.get(k.c)!;
      return [
        k.c,
        Math.max(...seen) > CLEAR ? seen : kindsOfOne(models, secondKindFeatures(k, itemAt(rows, i), first)),
      ];
    }),
  );
}

/** Returns the roles that a document names anywhere in few words; the others need not be weighed. */
export function rolesIn(known: readonly Known[]): ReadonlySet<PlaceRole> {
  const out = new Set<PlaceRole>(['unknown']);
  for (const view of new Set(known.map((k) => k.view))) for (const s of view.said) if (s.role) out.add(s.role.role);
  for (const k of known) {
    for (const r of [k.c.judged.role, ...k.named, ...k.said]) if (r) out.add(r.role);
  }
  return out;
}

/** If a blank is a box to check, or no place at all, with at least this probability, its role is not computed. */
const WITHOUT_ROLE = 0.98;
/** The probabilities of the roles of such a blank: it belongs to nobody. */
const NOBODY = PLACE_ROLES.map((r) => (r === 'unknown' ? 1 : 0));

/**
 * Returns the probabilities of the roles of each candidate. Boxes to check, and blanks that are no place, belong to nobody.
 *
 * @param kinds  the probabilities of the kinds
 * @param row    the features of a candidate for a role; null for a role that is not weighed
 * @param first  for the second run, the result of the first: where that was clear, it stays
 */
export function rolesOf(
  model: Boosted,
  known: readonly Known[],
  kinds: Shares,
  row: (k: Known, role: PlaceRole) => number[] | null,
  first?: Shares,
): Shares {
  const of = (k: Known, role: PlaceRole) => {
    const features = row(k, role);
    return features ? probabilityOf(scoreOf(model, features)) : 0;
  };
  return new Map(
    known.map((k) => {
      const p = kinds.get(k.c)!;
      const seen = first?.get(k.c);
      if (seen && Math.max(...seen) > CLEAR) return [k.c, seen];
      const isWithoutRole = (p[CHECKBOX] ?? 0) + (p[NONE] ?? 0) > WITHOUT_ROLE;
      return [k.c, isWithoutRole ? NOBODY : shares(PLACE_ROLES.map((role) => of(k, role)))];
    }),
  );
}

const CHECKBOX = KINDS.indexOf('checkbox');
const NONE = KINDS.indexOf('none');

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

/** Returns the probabilities of the ordinals of a candidate, as it was decided. */
function ordinalsOfOne(model: Boosted, k: Known, decided: DecidedSoFar): readonly number[] {
  const features = ordinalFeatures(k, decided);
  return shares(Array.from({ length: MOST_ORDINAL }, (_, i) => probabilityOf(scoreOf(model, features(i + 1)))));
}

/** Returns the probabilities of the ordinals of each candidate. */
export function ordinalsOf(model: Boosted, known: Known[], decided: Map<Candidate, Decided>): Shares {
  return new Map(
    known.map((k) => [k.c, decided.get(k.c)!.role === 'unknown' ? [1] : ordinalsOfOne(model, k, decided)]),
  );
}

/** Gives candidates at the same spot of several pages the same probabilities: a footer means the same everywhere. */
const pooled = (known: Known[], all: Shares): Shares => meanOver(known, all, (k) => (k.twins ? k.spot : null));

/** Gives the cells of a table's column the same probabilities if the head of the column names a role. */
const pooledByHead = (known: Known[], all: Shares): Shares => meanOver(known, all, (k) => k.headed);

/**
 * Groups candidates by a key, and gives all candidates of a group the geometric mean of their probabilities.
 *
 * @param keyOf  returns the key of a candidate, or null if it is in no group
 */
function meanOver(known: Known[], all: Shares, keyOf: (k: Known) => string | null): Shares {
  const grouped = known.flatMap((k) => {
    const key = keyOf(k);
    return key === null ? [] : [{ key, c: k.c }];
  });
  const out = new Map(all);
  for (const group of groupBy(grouped, (g) => g.key).values()) {
    const mean = meanOf(group.map(({ c }) => [all.get(c)!, 1 / group.length] as const));
    for (const { c } of group) out.set(c, mean);
  }
  return out;
}

/** Returns the weighted geometric mean of shares. */
function meanOf(all: readonly (readonly [readonly number[], number])[]): readonly number[] {
  const width = Math.min(...all.map(([p]) => p.length));
  return shares(
    Array.from({ length: width }, (_, i) =>
      Math.exp(all.reduce((n, [p, weight]) => n + weight * Math.log(Math.max(1e-4, itemAt(p, i))), 0)),
    ),
  );
}

/** Weight of a date or name when its probabilities are averaged with those of the signature on its row, which weighs 1. */
const WEIGHT_BESIDE = 0.35;

/** Returns, for each date and name, the signature on its row; without those whose own caption names another role. */
function belongings(known: readonly Known[], decided: ReadonlyMap<Candidate, Decided>): Map<Candidate, Candidate> {
  const out = new Map<Candidate, Candidate>();
  for (const k of known) {
    const kind = decided.get(k.c)!.kind;
    if (kind !== 'date' && kind !== 'name') continue;
    const signature = signatureBeside(k, (c) => decided.get(c)!.kind === 'signature');
    if (!signature) continue;
    const own = k.named[0]?.role;
    if (!own || own === decided.get(signature)!.role) out.set(k.c, signature);
  }
  return out;
}

/** Returns the probabilities, averaged over each signature and the dates and names that belong to it. */
function sharedBy(all: Shares, belong: ReadonlyMap<Candidate, Candidate>): Shares {
  const out = new Map(all);
  for (const [signature, of] of groupBy([...belong], ([, s]) => s)) {
    const mean = meanOf([[all.get(signature)!, 1], ...of.map(([c]) => [all.get(c)!, WEIGHT_BESIDE] as const)]);
    for (const c of [signature, ...of.map(([c]) => c)]) out.set(c, mean);
  }
  return out;
}

/** A candidate as it was decided, with the probabilities it was decided by. */
export interface Decision {
  k: Known;
  kind: (typeof KINDS)[number];
  role: PlaceRole;
  ordinal: number | null;
  shares: { kind: readonly number[]; role: readonly number[]; ordinal: readonly number[] };
  /** Whether the row says it itself: a caption names the role and the number, and its day of signing follows. */
  spelledOut?: true;
}

/** Minimum width of a signature or initials, in points. */
const LEAST_HAND = 10;

/** Returns whether the words under a blank ask for a signature or initials: "Received by Tenant" before it is no sentence then. */
function isAskedUnder({ captions: { below } }: Judged): boolean {
  const kind = below.length ? kindOfWords(below.map((p) => p.text).join(' ')) : null;
  return kind === 'signature' || kind === 'initials';
}

/** How much less probable it is that a line with words of its own right before it is no place at all. */
const CAPTIONED = 0.5;

/** Number of words of a caption at most. */
const CAPTION = 6;

/** Returns whether a line to write on, as rules see it, has few words of its own before it, which are no sentence. */
const isCaptioned = ({ isPlace, judged: { blank, captions } }: Candidate): boolean =>
  isPlace &&
  (blank.made === 'rule' || blank.made === 'underscores') &&
  captions.left !== '' &&
  !captions.sentence &&
  captions.left.split(' ').length <= CAPTION;

/**
 * Returns the probabilities of the kinds of a candidate. Signatures and initials are set to 0 if the sentence continues after
 * the blank, or if the blank is too narrow to sign; no place at all is less probable for a line with a caption before it.
 */
function possible(c: Candidate, all: readonly number[]): readonly number[] {
  const { judged } = c;
  const kinds = isCaptioned(c) ? all.map((p, i) => (i === NONE ? CAPTIONED * p : p)) : all;
  const within = judged.amid || (judged.inText && judged.by !== 'words' && !isAskedUnder(judged));
  const narrow = judged.blank.x1 - judged.blank.x0 < LEAST_HAND;
  return within || narrow ? kinds.map((p, i) => (KINDS[i] === 'signature' || KINDS[i] === 'initials' ? 0 : p)) : kinds;
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

/** Reads each row of signatures, and of initials, as a whole: see `readRow`. */
function readRows(model: Boosted, all: readonly Decision[], soFar: DecidedSoFar, lists: ReadonlySet<string>): void {
  const hands = all.filter((d) => d.kind === 'signature' || d.kind === 'initials');
  const of = new Map(hands.map((d) => [d.k.c, d]));
  const done = new Set<Decision>();
  for (const d of hands) {
    if (done.has(d)) continue;
    const row = d.k.row.flatMap((c) => of.get(c) ?? []).filter((o) => o.kind === d.kind);
    for (const o of row) done.add(o);
    if (row.length < 2 || row.some((o) => lists.has(`${o.k.c.page} ${o.role}`))) continue;
    const ordinals = row.map((o) => {
      const known = new Map([[o.role, o.shares.ordinal]]);
      return (role: PlaceRole) => {
        const p =
          known.get(role) ??
          ordinalsOfOne(model, o.k, {
            get: (c) => (c === o.k.c ? { kind: o.kind, role } : soFar.get(c)),
          });
        known.set(role, p);
        return p;
      };
    });
    readRow(row.map((o, i) => waysOf(o.shares.role, itemAt(ordinals, i), o.k.named[0]))).forEach((w, i) => {
      const o = itemAt(row, i);
      if (w.role === o.role && w.ordinal === (o.ordinal ?? 1)) return;
      o.shares = { ...o.shares, ordinal: w.role === 'unknown' ? [1] : itemAt(ordinals, i)(w.role) };
      o.role = w.role;
      o.ordinal = w.role === 'unknown' ? null : w.ordinal;
    });
  }
}

/** Gives each date and name the role and ordinal of the signature that it belongs to. */
function follow(all: readonly Decision[], belong: ReadonlyMap<Candidate, Candidate>): void {
  const of = new Map(all.map((d) => [d.k.c, d]));
  for (const [c, s] of belong) {
    const [d, signature] = [of.get(c)!, of.get(s)!];
    if (signature.kind !== 'signature' || (d.kind !== 'date' && d.kind !== 'name')) continue;
    d.role = signature.role;
    d.ordinal = signature.ordinal;
    d.shares = { ...d.shares, ordinal: signature.shares.ordinal };
  }
}

/** Decides all candidates of a form. */
export function decide(weights: Omit<Weights, 'certainty'>, known: Known[]): Decision[] {
  const rows = known.map(kindFeatures);
  const kinds1 = kindsOf(weights.kind[0], known, rows);
  const kinds = pooled(known, kindsOfSecondRun(weights.kind[1], known, rows, kinds1));
  const named = rolesIn(known);
  const roleRows = new Map<Known, (number[] | null)[]>();
  const rowOf = (k: Known, role: PlaceRole) => {
    let of = roleRows.get(k);
    if (!of) {
      of = PLACE_ROLES.map((r) => (named.has(r) ? roleFeatures(k, r, kinds1) : null));
      roleRows.set(k, of);
    }
    return itemAt(of, PLACE_ROLES.indexOf(role));
  };
  const roles1 = rolesOf(weights.role[0], known, kinds1, rowOf);
  const roles = pooledByHead(
    known,
    pooled(
      known,
      rolesOf(
        weights.role[1],
        known,
        kinds1,
        (k, role) => {
          const first = rowOf(k, role);
          return first && secondRoleFeatures(k, role, first, kinds1, roles1);
        },
        roles1,
      ),
    ),
  );
  const belong = belongings(known, decidedOf(known, kinds, roles));
  const shared = sharedBy(roles, belong);
  const soFar = decidedOf(known, kinds, shared);
  const ordinals = sharedBy(pooled(known, ordinalsOf(weights.ordinal, known, soFar)), belong);
  const lists = longLists(known);
  const decided = known.map((k): Decision => {
    const shares = { kind: kinds.get(k.c)!, role: shared.get(k.c)!, ordinal: ordinals.get(k.c)! };
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
  readRows(weights.ordinal, decided, soFar, lists);
  follow(decided, belong);
  return decided;
}

/** Returns weights as they were stored, ready to be applied. */
export const readied = (stored: Weights): Weights => ({
  kind: [stored.kind[0].map(typed), stored.kind[1].map(typed)],
  role: [typed(stored.role[0]), typed(stored.role[1])],
  ordinal: typed(stored.ordinal),
  certainty: typed(stored.certainty),
});
