/** What a rule of reading is. The rules are in files by subject, and in their order in `rules.ts`. */
import type { Asked, Judged } from './asked';

/** What a rule decides: places to fill, none if the blank is not a place, null if the rule does not apply. */
type Saying = Judged[] | null;

interface Rule<N extends string> {
  name: N;
  judge: (q: Asked) => Saying;
}

/** Returns a named rule of reading. */
export const rule = <const N extends string>(name: N, judge: (q: Asked) => Judged | Judged[] | null): Rule<N> => ({
  name,
  judge: (q) => {
    const said = judge(q);
    return said === null || Array.isArray(said) ? said : [said];
  },
});

/** Maximum width of a blank for initials, and for the day, month or year of a date, in points. */
export const INITIALS_WIDE = 90;

/** Maximum width of a blank for a day, in points. */
export const DAY_WIDE = 110;

/** Minimum width of a signature, in points. */
export const SIGNED_WIDE = 80;

/** Returns the judgment of the one before for the next of its role. */
export function sameAgain(q: Asked, prior: Judged, by: Judged['by']): Judged {
  const role = prior.role && { role: prior.role.role, ordinal: null };
  return q.is(prior.kind, role, prior.label, prior.confidence, by);
}
