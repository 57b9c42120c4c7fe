import { puts, ACT_FACTS } from '../packet/acts';
import { isSenders } from '../packet/kinds';
import type { DraftEdit } from '../packet/draft';
import type { CheckRule } from './types';
import { nameIn } from './words';

/** Finds marks of parties who only approve, receive a delivery or get a copy: they would never be filled. */
export const markWithoutAct: CheckRule = (input) =>
  input.draft.parties
    .filter((p) => !puts(p))
    .flatMap((p) => {
      const mine = input.marks.filter((m) => m.partyId === p.id && !isSenders(m.kind));
      const first = mine[0];
      if (!first) return [];
      return [
        {
          rule: 'mark-without-act',
          severity: 'stops' as const,
          sentence: `${nameIn(input, p.id)} only ${ACT_FACTS[p.act].does}, but has marks to fill.`,
          mend: {
            label: 'Remove the marks',
            edits: [
              ...input.draft.marks
                .filter((m) => m.partyId === p.id)
                .map((m): DraftEdit => ({ op: 'drop', list: 'marks', id: m.id })),
              ...input.draft.rules
                .filter((r) => r.partyIds.includes(p.id))
                .map((r): DraftEdit => ({
                  op: 'put',
                  list: 'rules',
                  item: { ...r, partyIds: r.partyIds.filter((q) => q !== p.id) },
                })),
            ],
          },
          place: { documentId: first.documentId, page: first.page, partyId: p.id, markId: first.id },
        },
      ];
    });
