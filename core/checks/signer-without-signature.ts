import { puts } from '../packet/acts';
import type { CheckInput, CheckRule } from './types';
import { nameIn } from './words';

const isByHand = (input: CheckInput, id: string) => input.draft.documents.some((d) => d.id === id && d.byHand);

/** A party who signs must have a signature somewhere in the packet. */
export const signerWithoutSignature: CheckRule = (input) =>
  input.draft.parties
    .filter(puts)
    .filter((p) => !input.marks.some((m) => m.partyId === p.id && m.kind === 'signature' && m.required))
    // Whoever signed by hand is asked only for what is missing on that paper.
    .filter((p) => !input.marks.some((m) => m.partyId === p.id && m.required && isByHand(input, m.documentId)))
    .map((p) => ({
      rule: 'signer-without-signature',
      severity: 'stops' as const,
      sentence: `${nameIn(input, p.id)} signs, but has no signature anywhere.`,
      place: { partyId: p.id },
    }));
