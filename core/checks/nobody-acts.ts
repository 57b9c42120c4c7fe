import { holdsGate } from '../packet/acts';
import type { CheckRule } from './types';

/** A packet needs at least one party who signs or approves, or to whom it is delivered. */
export const nobodyActs: CheckRule = ({ draft }) =>
  draft.parties.some(holdsGate)
    ? []
    : [
        {
          rule: 'nobody-acts',
          severity: 'stops',
          sentence:
            'No one signs or approves anything in this packet, and it is delivered to no one. Add the people first.',
          place: {},
        },
      ];
