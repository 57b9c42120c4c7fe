import type { CheckRule } from './types';

/** Requires a document. */
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
