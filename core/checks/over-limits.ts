import { count } from '../text/names';
import type { CheckRule, Finding } from './types';

/** The most a packet may hold. */
export const LIMITS = { documents: 60, pages: 1000, parties: 60, marks: 20_000 } as const;

/** A packet that is larger than what can be sent in one piece. */
export const overLimits: CheckRule = (input) => {
  const have = {
    documents: input.draft.documents.length,
    pages: input.documents.reduce((n, d) => n + d.pages.length, 0),
    parties: input.draft.parties.length,
    marks: input.marks.length,
  };
  const words = { documents: 'document', pages: 'page', parties: 'person', marks: 'mark' } as const;
  return (Object.keys(LIMITS) as (keyof typeof LIMITS)[]).flatMap((k): Finding[] =>
    have[k] > LIMITS[k]
      ? [
          {
            rule: 'over-limits',
            severity: 'stops',
            sentence: `The packet has ${k === 'parties' ? `${have[k]} people` : count(have[k], words[k])}; ${LIMITS[k].toLocaleString('en-US')} is the most. Make two packets of it.`,
            place: {},
          },
        ]
      : [],
  );
};
