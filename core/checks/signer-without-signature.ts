import { puts } from '../packet/acts';
import { isByHand } from '../packet/draft';
import type { CheckRule } from './types';
import { nameIn } from './words';

/** Requires that every party who signs has a signature in the packet. */
export const signerWithoutSignature: CheckRule = (input) =>
  input.draft.parties
    .filter(puts)
    .filter((p) => !input.marks.some((m) => m.partyId === p.id && m.kind === 'signature' && m.required))
    // A person who signed on paper is asked only for what is missing there.
    .filter((p) => !input.marks.some((m) => m.partyId === p.id && m.required && isByHand(input.draft, m.documentId)))
    .map((p) => ({
      rule: 'signer-without-signature',
      severity: 'stops' as const,
      sentence: `${nameIn(input, p.id)} signs, but has no signature anywhere.`,
      place: { partyId: p.id },
    }));
