import { PACKET_LIMITS } from '../packet/draft';
import { count } from '../text/names';
import type { CheckRule, Finding } from './types';
import { keysOf } from '../sure';

/** Finds packets that are too large to send. */
export const overLimits: CheckRule = (input) => {
  const have = {
    documents: input.draft.documents.length,
    pages: input.documents.reduce((n, d) => n + d.pages.length, 0),
    parties: input.draft.parties.length,
    marks: input.marks.length,
  };
  const words = { documents: 'document', pages: 'page', parties: 'person', marks: 'mark' } as const;
  return keysOf(have).flatMap((k): Finding[] =>
    have[k] > PACKET_LIMITS[k]
      ? [
          {
            rule: 'over-limits',
            severity: 'stops',
            sentence: `The packet has ${k === 'parties' ? `${have[k]} people` : count(have[k], words[k])}; ${PACKET_LIMITS[k].toLocaleString('en-US')} is the maximum. Split it into two packets.`,
            place: {},
          },
        ]
      : [],
  );
};
