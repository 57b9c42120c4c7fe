import { holdsGate } from '../packet/acts';
import type { CheckRule } from './types';

/** Requires a party who signs, approves or receives a delivery. */
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
