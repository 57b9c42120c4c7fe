/** How right reading is on labeled forms: by kind, by person, of what "accept all" takes, and how well certainty is calibrated. */
import { DOUBT, PLACE_KINDS, type PlaceKind, type PrintedPlace } from '@gatepath/core/reading';
import { asRead, pair, sameKind, sameOrdinal, sameRole, type TruePlace } from './pairing';

const PERSONAL: ReadonlySet<string> = new Set(['signature', 'initials', 'date', 'name']);

/** Counts of one set of forms. */
export interface SetScore {
  forms: number;
  kinds: Record<PlaceKind, { truth: number; found: number; said: number }>;
  /** Places of a person found, and those with the right role; those whose role is known, and with the right ordinal. */
  persons: number;
  roles: number;
  named: number;
  ordinals: number;
  /** Signatures and initials that the forms have; those "accept all" takes; those of them that are right. */
  hands: { there: number; taken: number; right: number };
  /** Ten bins of certainty: places, and those right in kind, role and ordinal together. */
  bins: { n: number; right: number; sum: number }[];
  faults: string[];
}

export const newSetScore = (): SetScore => ({
  forms: 0,
  kinds: Object.fromEntries(PLACE_KINDS.map((k) => [k, { truth: 0, found: 0, said: 0 }])) as SetScore['kinds'],
  persons: 0,
  roles: 0,
  named: 0,
  ordinals: 0,
  hands: { there: 0, taken: 0, right: 0 },
  bins: Array.from({ length: 10 }, () => ({ n: 0, right: 0, sum: 0 })),
  faults: [],
});

/** Returns whether "accept all" takes a place. */
export type Taken = (p: PrintedPlace) => boolean;
export const isTaken: Taken = (p) => p.role !== 'unknown' && p.confidence > DOUBT;

const isHand = (kind: string) => kind === 'signature' || kind === 'initials';
const brief = (x: { kind: string; role: string; ordinal: number | null }) => `${x.kind} ${x.role} ${x.ordinal}`;

/** Adds what was read of a form to a score. */
export function scoreForm(
  s: SetScore,
  name: string,
  truth: readonly TruePlace[],
  read: PrintedPlace[],
  taken: Taken,
): void {
  s.forms++;
  for (const page of new Set([...truth, ...read].map((p) => p.page))) {
    const found = read.filter((p) => p.page === page);
    const real = asRead(
      truth.filter((t) => t.page === page),
      found,
    );
    const pairs = pair(real, found);
    const credited = new Map(pairs.map(([i, j]) => [j, real[i]!]));
    for (const t of real) {
      s.kinds[t.kind].truth++;
      if (isHand(t.kind)) s.hands.there++;
    }
    const missed = new Set(real);
    found.forEach((p, j) => {
      const t = credited.get(j);
      if (t) missed.delete(t);
      const kindRight = !!t && sameKind(t, p);
      s.kinds[kindRight ? t.kind : p.kind].said++;
      if (kindRight) {
        s.kinds[t.kind].found++;
        if (t.role !== 'unknown' || PERSONAL.has(t.kind)) {
          s.persons++;
          if (sameRole(t, p)) s.roles++;
        }
        if (t.role !== 'unknown') {
          s.named++;
          if (sameOrdinal(t, p)) s.ordinals++;
        }
      }
      const right = kindRight && sameRole(t, p) && sameOrdinal(t, p);
      if (taken(p) && isHand(p.kind)) {
        s.hands.taken++;
        if (right) s.hands.right++;
        else
          s.faults.push(
            `${name} p${page} TAKEN ${brief(p)} is ${t ? brief(t) : 'nothing'} (${p.label}) ${p.confidence}`,
          );
      }
      const bin = s.bins[Math.min(9, Math.floor(p.confidence * 10))]!;
      bin.n++;
      bin.sum += p.confidence;
      if (right) bin.right++;
      else
        s.faults.push(
          `${name} p${page} read ${brief(p)} is ${t ? brief(t) : 'nothing'} at ${[p.rect.x, p.rect.y, p.rect.w, p.rect.h].join()} (${p.label})`,
        );
    });
    for (const t of missed) s.faults.push(`${name} p${page} missed ${brief(t)} at ${t.rect.join()}`);
  }
}

const f1 = (t: { truth: number; found: number; said: number }) =>
  t.truth + t.said ? (2 * t.found) / (t.truth + t.said) : 1;
const share = (a: number, b: number) => (b ? a / b : 1);

/** Returns a score as a row of figures. */
export function figures(s: SetScore) {
  const sum = { truth: 0, found: 0, said: 0 };
  for (const k of PLACE_KINDS) for (const f of ['truth', 'found', 'said'] as const) sum[f] += s.kinds[k][f];
  return {
    places: sum.truth,
    all: f1(sum),
    ...(Object.fromEntries(PLACE_KINDS.map((k) => [k, f1(s.kinds[k])])) as Record<PlaceKind, number>),
    role: share(s.roles, s.persons),
    ordinal: share(s.ordinals, s.named),
    takenRight: share(s.hands.right, s.hands.taken),
    takenShare: share(s.hands.taken, s.hands.there),
  };
}

export const HEADS = ['set', 'places', 'all', ...PLACE_KINDS, 'role', 'ordinal', 'taken right', 'taken'] as const;

/** Returns a score as a line under `HEADS`. */
export function lineOf(name: string, s: SetScore): string {
  const f = figures(s);
  const cells = [f.all, ...PLACE_KINDS.map((k) => f[k]), f.role, f.ordinal, f.takenRight, f.takenShare];
  return `${name.padEnd(26)} ${String(f.places).padStart(6)} ${cells.map((c) => c.toFixed(3).padStart(9)).join(' ')} ${s.hands.right}/${s.hands.taken}/${s.hands.there}`;
}
