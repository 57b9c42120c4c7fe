import type { CheckRule } from './types';
import { nameIn } from './words';

/** Marks of a party who only approves or gets a copy would never be filled. */
export const markWithoutAct: CheckRule = (input) =>
  input.draft.parties
    .filter((p) => p.act !== 'sign')
    .flatMap((p) => {
      const first = input.marks.find((m) => m.partyId === p.id);
      if (!first) return [];
      const word = p.act === 'approve' ? 'only approves' : 'only gets a copy';
      return [
        {
          rule: 'mark-without-act',
          severity: 'stops' as const,
          sentence: `${nameIn(input, p.id)} ${word}, but has marks to fill.`,
          place: { documentId: first.documentId, page: first.page, partyId: p.id, markId: first.id },
        },
      ];
    });
