import { filledHow, KINDS } from '../packet/kinds';
import { onEachDocument } from './documents';
import type { Finding } from './types';
import { nameIn, pageIn } from './words';

/** Finds marks that fill themselves for a party whose value is not known: they would stay empty. */
export const nothingToPutIn = onEachDocument(({ marks }, input) => {
  const parties = new Map(input.draft.parties.map((p) => [p.id, p]));
  return marks.flatMap((m): Finding[] => {
    const how = filledHow(m.kind);
    const party = parties.get(m.partyId);
    if (how.by !== 'itself' || !party || (how.known(party) ?? 'in time').trim()) return [];
    return [
      {
        rule: 'nothing-to-put-in',
        severity: 'stops',
        sentence: `The ${KINDS[m.kind].word} on ${pageIn(input, m.documentId, m.page)} would stay empty, because it is not known for ${nameIn(input, m.partyId)}. Enter it under Path, or remove the mark.`,
        place: { documentId: m.documentId, page: m.page, partyId: m.partyId, markId: m.id },
        ...(m.ruleId || m.redlineId
          ? {}
          : { mend: { label: 'Take it out', edits: [{ op: 'drop' as const, list: 'marks' as const, id: m.id }] } }),
      },
    ];
  });
});
