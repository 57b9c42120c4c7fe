/** Learning to decide: trains the weights of kind, role and ordinal on labeled forms. */
import { candidatesOf } from '@gatepath/core/reading/candidates';
import { evidenceOf, type Known } from '@gatepath/core/reading/evidence';
import type { Candidate } from '@gatepath/core/reading/sight';
import {
  kindFeatures,
  ordinalFeatures,
  roleFeatures,
  secondKindFeatures,
  secondRoleFeatures,
} from '@gatepath/core/reading/features';
import { aroundOf, certaintyFeatures } from '@gatepath/core/reading/certainty';
import {
  decide,
  decidedOf,
  KINDS,
  kindsOf,
  MOST_ORDINAL,
  rolesIn,
  rolesOf,
  type Weights,
} from '@gatepath/core/reading/decide';
import type { Boosted } from '@gatepath/core/reading/trees';
import { PLACE_ROLES, type PrintedPlace } from '@gatepath/core/reading';
import { binned, boost, BOOST } from './boost';
import type { Case } from './cases';
import { pair, type TruePlace } from './pairing';

/** Weights without those of certainty, which are trained on other forms. */
export type Uncalibrated = Omit<Weights, 'certainty'>;

/** A labeled form with its evidence and, for each candidate, what it really is. */
export interface Lesson {
  name: string;
  known: Known[];
  truth: (TruePlace | null)[];
}

const placeOf = ({ judged: { blank: b, kind }, page }: Candidate): PrintedPlace => {
  const high = b.made === 'cell' || b.made === 'box' ? b.h : Math.min(b.h, 16);
  return {
    page: page + 1,
    kind,
    role: 'unknown',
    ordinal: null,
    rect: { x: b.x0, y: b.y - high, w: b.x1 - b.x0, h: high },
    label: '',
    source: 'print',
    confidence: 1,
  };
};

/** Returns the evidence of a form and what each candidate really is. */
export function lessonOf(c: Case): Lesson {
  const { candidates, scans, paper } = candidatesOf(c.contents);
  const known = evidenceOf(candidates, scans, paper);
  const truth: (TruePlace | null)[] = candidates.map(() => null);
  const found = candidates.map(placeOf);
  for (const page of new Set(c.truth.map((t) => t.page))) {
    const at = found.flatMap((p, i) => (p.page === page ? [i] : []));
    const real = c.truth.filter((t) => t.page === page);
    for (const [i, j] of pair(
      real,
      at.map((n) => found[n]!),
    ))
      truth[at[j]!] = real[i]!;
  }
  return { name: c.name, known, truth };
}

const kindIndex = (t: TruePlace | null) => (t ? KINDS.indexOf(t.kind) : KINDS.length - 1);
const trueRole = (t: TruePlace | null) => t?.role ?? 'unknown';
/** Trains on labeled forms. What a look sees of an earlier one comes from weights trained on other forms. */
export function learn(lessons: Lesson[], say: (text: string) => void = () => undefined): Uncalibrated {
  const half = (i: number) => i % 2;
  const halves = [lessons.filter((_, i) => half(i) === 0), lessons.filter((_, i) => half(i) === 1)];
  say(`${lessons.reduce((n, l) => n + l.known.length, 0)} candidates of ${lessons.length} forms`);
  const kindRows = new Map(lessons.map((l) => [l, l.known.map(kindFeatures)]));
  const trainKinds = (some: Lesson[], rows: Map<Lesson, number[][]>) => {
    const data = binned(some.flatMap((l) => rows.get(l)!));
    const target = some.flatMap((l) => l.truth.map(kindIndex));
    return KINDS.map((_, k) =>
      boost(
        data,
        target.map((t) => (t === k ? 1 : 0)),
        null,
        { ...BOOST, trees: 80 },
      ),
    );
  };
  const kindHalf = halves.map((h) => trainKinds(h, kindRows));
  const kinds1 = new Map(lessons.map((l, i) => [l, kindsOf(kindHalf[1 - half(i)]!, l.known, kindRows.get(l)!)]));
  const kindA = trainKinds(lessons, kindRows);
  say('kinds trained');
  const rows2 = new Map(
    lessons.map((l) => [l, l.known.map((k, i) => secondKindFeatures(k, kindRows.get(l)![i]!, kinds1.get(l)!))]),
  );
  const kindB = trainKinds(lessons, rows2);
  say('kinds trained twice');
  type RoleRow = (k: Known, role: (typeof PLACE_ROLES)[number]) => number[];
  const trainRoles = (some: Lesson[], rowOf: Map<Lesson, RoleRow>, trees: number) => {
    const all = some.flatMap((l) => {
      const named = rolesIn(l.known);
      return l.known.flatMap((k, i) => {
        // What is no place, or a box to check, says nothing about roles.
        const t = l.truth[i]!;
        if (!t || t.kind === 'checkbox') return [];
        return PLACE_ROLES.flatMap((role) =>
          named.has(role)
            ? [{ row: Float32Array.from(rowOf.get(l)!(k, role)), target: trueRole(t) === role ? 1 : 0 }]
            : [],
        );
      });
    });
    return boost(
      binned(all.map((x) => x.row)),
      all.map((x) => x.target),
      null,
      { ...BOOST, trees, rows: 0.2 },
    );
  };
  const roleRow1 = new Map<Lesson, RoleRow>(
    lessons.map((l) => [l, (k, role) => roleFeatures(k, role, kinds1.get(l)!)]),
  );
  const roleHalf = halves.map((h) => trainRoles(h, roleRow1, 80));
  const roles1 = new Map(
    lessons.map((l, i) => [l, rolesOf(roleHalf[1 - half(i)]!, l.known, kinds1.get(l)!, roleRow1.get(l)!)]),
  );
  const roleA = trainRoles(lessons, roleRow1, 80);
  say('roles trained');
  const roleRow2 = new Map<Lesson, RoleRow>(
    lessons.map((l) => [
      l,
      (k, role) => secondRoleFeatures(k, role, roleRow1.get(l)!(k, role), kinds1.get(l)!, roles1.get(l)!),
    ]),
  );
  const roleB = trainRoles(lessons, roleRow2, 100);
  say('roles trained twice');
  const all = lessons.flatMap((l) => {
    const decided = decidedOf(l.known, kinds1.get(l)!, roles1.get(l)!);
    return l.known.flatMap((k, j) => {
      const t = l.truth[j];
      const d = decided.get(k.c)!;
      if (!t || t.role === 'unknown' || d.role !== t.role || d.kind !== t.kind) return [];
      const features = ordinalFeatures(k, decided);
      return Array.from({ length: MOST_ORDINAL }, (_, n) => ({
        row: features(n + 1),
        target: (t.ordinal ?? 1) === n + 1 ? 1 : 0,
      }));
    });
  });
  const ordinal = boost(
    binned(all.map((x) => x.row)),
    all.map((x) => x.target),
    null,
    { ...BOOST, trees: 90 },
  );
  say('ordinals trained');
  return { kind: [kindA, kindB], role: [roleA, roleB], ordinal };
}

/** Trains the certainty of decisions on forms that the weights were not trained on. */
export function learnCertainty(weights: Uncalibrated, lessons: readonly Lesson[]): Boosted {
  const rows: number[][] = [];
  const target: number[] = [];
  for (const l of lessons) {
    const all = decide(weights, l.known);
    const around = aroundOf(all);
    all.forEach((d, i) => {
      if (d.kind === 'none') return;
      const t = l.truth[i];
      const right =
        !!t &&
        t.kind === d.kind &&
        (t.role ?? 'unknown') === d.role &&
        (t.role === 'unknown' || (t.ordinal ?? 1) === d.ordinal);
      rows.push(certaintyFeatures(d, around));
      target.push(right ? 1 : 0);
    });
  }
  return boost(binned(rows), target, null, { ...BOOST, trees: 80, depth: 4, rate: 0.1, features: 0.6, rows: 0.6 });
}
