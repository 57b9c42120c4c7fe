/** Problems that pass by themselves: the same request may succeed in a moment, so nothing is given up because of them. */
import type { ProblemCode } from './problems';

/** Problems that end by themselves: the same request may succeed later. */
export const TRANSIENT = ['busy', 'reading', 'changed-meanwhile', 'disk-full'] as const satisfies ProblemCode[];
