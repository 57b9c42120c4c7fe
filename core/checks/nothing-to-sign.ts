import type { CheckRule } from './types';

/** A packet without documents cannot be sent. */
export const nothingToSign: CheckRule = ({ draft }) =>
  draft.documents.length
    ? []
    : [
        {
          rule: 'nothing-to-sign',
          severity: 'stops',
          sentence: 'There is no document in this packet. Add one first.',
          place: {},
        },
      ];
