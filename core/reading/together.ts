/**
 * Reads a row of signatures or initials as a whole. Read one by one, its blanks can contradict each other: the same person
 * twice, or a second seller without a first. A beam search finds the most probable reading of the row, with a cost for each
 * contradiction.
 */
import { sameRow } from './captions';
import type { Known } from './evidence';
import type { Candidate } from './sight';
import type { PlaceRole } from './types';
import { PLACE_ROLES } from './types';
import type { RoleRead } from './words';
import { itemAt } from '../sure';

/** One way to read a blank: the person, and the logarithm of its probability. */
export interface Reading {
  role: PlaceRole;
  ordinal: number;
  score: number;
  /** Whether the blank's own caption names this role and number: then nothing on the row contradicts it. */
  spelled?: boolean;
}

/** Costs of contradictions within a row, added to the logarithms of the probabilities. */
const COSTS = {
  /** Two blanks of one row for the same person. */
  twice: -3.5,
  /** A person whose number does not follow that of the one before. */
  jump: -2.5,
  /** A role to which a row returns after another. */
  back: -3,
  /** A row that does not begin with the first of a role. */
  late: -0.7,
  /** A row that names somebody, and nobody. */
  nobody: -1,
} as const;

/** Number of ways to read a row that are followed at once. */
const BEAM = 40;
/** Number of ways to read one blank that are followed. */
const WAYS = 8;
/** Maximum number of blanks of a row that is read as a whole; rows of forms have a dozen. */
const LONGEST_ROW = 24;

/** Returns what it costs to read a blank in this way behind those before it on its row. */
function costOf(before: readonly Reading[], next: Reading): number {
  const last = before[before.length - 1];
  if (next.spelled) return 0;
  if (!last) return next.ordinal > 1 ? COSTS.late : 0;
  const [a, b] = [last.role === 'unknown', next.role === 'unknown'];
  if (a || b) return a && b ? 0 : COSTS.nobody;
  if (before.some((o) => o.role === next.role && o.ordinal === next.ordinal)) return COSTS.twice;
  if (last.role === next.role) return next.ordinal === last.ordinal + 1 ? 0 : COSTS.jump;
  if (before.some((o) => o.role === next.role)) return COSTS.back;
  // Behind another role counting begins again; in columns the second of one stands beside the second of the other.
  return next.ordinal === 1 || next.ordinal === last.ordinal ? 0 : COSTS.jump;
}

/**
 * Returns the reading of a row, from left to right, that is most probable as a whole. In a row of more than `LONGEST_ROW` blanks
 * each is read by itself.
 *
 * @param row  the ways to read each blank of the row
 */
export function readRow(row: readonly (readonly Reading[])[]): Reading[] {
  if (row.length > LONGEST_ROW)
    return row.map((ways) => ways.reduce((best, next) => (next.score > best.score ? next : best)));
  let beam: { readings: Reading[]; score: number }[] = [{ readings: [], score: 0 }];
  for (const ways of row) {
    const some = [...ways].sort((a, b) => b.score - a.score).slice(0, WAYS);
    beam = beam
      .flatMap(({ readings, score }) =>
        some.map((next) => ({ readings: [...readings, next], score: score + next.score + costOf(readings, next) })),
      )
      .sort((a, b) => b.score - a.score)
      .slice(0, BEAM);
  }
  return itemAt(beam, 0).readings;
}

/** Share below which a way to read a blank is not followed. */
const LEAST = 0.02;

/**
 * Returns the ways to read a blank.
 *
 * @param roles    probability of each role, in the order of `PLACE_ROLES`
 * @param ordinals the probabilities of the ordinals, from 1, if it is this role's
 * @param named    the person that the blank's own caption names
 */
export function waysOf(
  roles: readonly number[],
  ordinals: (role: PlaceRole) => readonly number[],
  named?: RoleRead | null,
): Reading[] {
  return roles.flatMap((p, i): Reading[] => {
    const role = itemAt(PLACE_ROLES, i);
    if (p < LEAST) return [];
    if (role === 'unknown') return [{ role, ordinal: 1, score: Math.log(p) }];
    return ordinals(role).flatMap((q, n) =>
      q < LEAST
        ? []
        : [
            {
              role,
              ordinal: n + 1,
              score: Math.log(p) + Math.log(q),
              spelled: named?.role === role && named.ordinal === n + 1,
            },
          ],
    );
  });
}

/** Returns the signature that a date or name on the same row belongs to: the nearest on its left, otherwise the first on its right. */
export function signatureBeside(k: Known, isSignature: (c: Candidate) => boolean): Candidate | null {
  const on = k.row.filter((c) => c !== k.c && isSignature(c) && sameRow(c.judged.blank, k.c.judged.blank));
  const before = on.filter((c) => c.judged.blank.x0 < k.c.judged.blank.x0);
  return before[before.length - 1] ?? on[0] ?? null;
}
