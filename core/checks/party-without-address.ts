import { byLink, receives } from '../packet/acts';
import { isEmail } from '../text/email';
import type { CheckRule, Finding } from './types';

/** Finds parties without an email address and phone: everyone receives at least a copy. */
export const partyWithoutAddress: CheckRule = ({ draft }) =>
  draft.parties
    // Who signs at the desk, or is a member of the firm, needs none to sign.
    .filter((p) => (p.email.trim() ? !isEmail(p.email) : byLink(p) && !p.memberId && !p.phone))
    .map((p): Finding => ({
      rule: 'party-without-address',
      // A delivery can be made on paper.
      severity: receives(p) && !p.email.trim() ? 'warns' : 'stops',
      sentence: p.email.trim()
        ? `“${p.email}” is not an email address. Correct it for ${p.name}.`
        : receives(p)
          ? `${p.name} has no email address: a letter must be mailed.`
          : `${p.name} has no email address.`,
      place: { partyId: p.id },
    }));
