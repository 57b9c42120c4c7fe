import type { CheckRule } from './types';
import { nameIn, pageIn } from './words';

/** Finds changes on a page that a signer would not initial because there is no space. */
export const redlineWithoutInitials: CheckRule = (input) =>
  input.unplaced.flatMap((u) => {
    if (!u.redlineId) return [];
    return [
      {
        rule: 'redline-without-initials',
        severity: 'stops' as const,
        sentence: `No free space for ${nameIn(input, u.partyId)}’s initials beside the change on ${pageIn(input, u.documentId, u.page)}. Move the change, or remove it.`,
        place: { documentId: u.documentId, page: u.page, partyId: u.partyId },
      },
    ];
  });
