/** What a rule of reading is; the rules themselves lie by what they are about, and stand in their order in `rules.ts`. */
import type { Asked, Judged } from './asked';

/** What a rule says: places to fill, none where the blank is no place, null where it has nothing to say. */
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

/** Widest that a blank for initials is, and for the day, month or year of a date, in points. */
export const INITIALS_WIDE = 90;

/** Width, in points, up to which a blank can be a day. */
export const DAY_WIDE = 110;

/** Narrowest that a signature is. */
export const SIGNED_WIDE = 80;

/** One after the other asks the same of the next one of its role. */
export function sameAgain(q: Asked, prior: Judged, by: Judged['by']): Judged {
  const role = prior.role && { role: prior.role.role, ordinal: null };
  return q.is(prior.kind, role, prior.label, prior.confidence, by);
}
