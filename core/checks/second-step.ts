import { holdsGate, byLink } from '../packet/acts';
import { firstName } from '../text/names';
import type { CheckRule, Finding } from './types';

/** Finds second steps that nobody could pass: no code was set, or there is no address to send one to. */
export const secondStep: CheckRule = ({ draft }) =>
  draft.parties.flatMap((p): Finding[] => {
    const wrong =
      !holdsGate(p) || !byLink(p)
        ? null
        : p.secondStep === 'code' && !p.codeKept && (p.accessCode ?? '').replace(/\s/g, '').length < 4
          ? `${firstName(p.name)} is to give an access code, and none of at least 4 signs is set.`
          : p.secondStep === 'phone' && !p.phone
            ? `${firstName(p.name)} is to get a code by phone, and has no phone number.`
            : p.secondStep === 'email' && !p.email
              ? `${firstName(p.name)} is to get a code by email, and has no email address.`
              : null;
    return wrong ? [{ rule: 'second-step', severity: 'stops', sentence: wrong, place: { partyId: p.id } }] : [];
  });
