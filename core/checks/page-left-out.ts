import type { CheckRule } from './types';
import { documentIn, nameIn, pageRanges } from './words';
import { itemAt } from '../sure';

/** Lists pages that were left out of the initials rule by hand, so that they are not forgotten. */
export const pageLeftOut: CheckRule = (input) =>
  input.draft.rules.flatMap((rule) => {
    const doc = input.documents.find((d) => d.id === rule.documentId);
    if (!doc) return [];
    return rule.partyIds.flatMap((partyId) => {
      const pages = rule.except.filter((e) => e.partyId === partyId && e.page <= doc.pages.length).map((e) => e.page);
      // Initials placed there by hand make up for the exception.
      const bare = pages.filter(
        (page) =>
          !input.marks.some(
            (m) =>
              m.documentId === doc.id &&
              m.page === page &&
              m.partyId === partyId &&
              m.kind === 'initials' &&
              !m.redlineId,
          ),
      );
      if (!bare.length) return [];
      return [
        {
          rule: 'page-left-out',
          severity: 'warns' as const,
          sentence: `${nameIn(input, partyId)} does not initial ${pageRanges(bare)} of ${documentIn(input, doc.id)}: excepted by hand.`,
          place: { documentId: doc.id, page: itemAt(bare, 0), partyId },
          mend: {
            label: 'Initial them anyway',
            edits: [
              {
                op: 'put' as const,
                list: 'rules' as const,
                item: { ...rule, except: rule.except.filter((e) => e.partyId !== partyId) },
              },
            ],
          },
        },
      ];
    });
  });
