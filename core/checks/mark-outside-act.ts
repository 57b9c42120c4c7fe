import { isSenders } from '../packet/kinds';
import { hasDocument } from '../packet/place-party';
import type { CheckRule, Finding } from './types';
import { documentIn, nameIn } from './words';

/** Finds marks on documents that their party does not receive: the party could never fill them. */
export const markOutsideAct: CheckRule = (input) => {
  const found: Finding[] = [];
  for (const p of input.draft.parties) {
    if (!p.only) continue;
    for (const d of input.draft.documents) {
      if (hasDocument(p, d.id)) continue;
      const first = input.marks.find((m) => m.partyId === p.id && m.documentId === d.id && !isSenders(m.kind));
      if (!first) continue;
      found.push({
        rule: 'mark-outside-act',
        severity: 'stops',
        sentence: `${nameIn(input, p.id)} has marks on ${documentIn(input, d.id)}, but does not get that document.`,
        place: { documentId: d.id, page: first.page, partyId: p.id, markId: first.id },
        mend: {
          label: `Give ${nameIn(input, p.id)} the document`,
          edits: [{ op: 'put', list: 'parties', item: { ...p, only: [...p.only, d.id] } }],
        },
      });
    }
  }
  return found;
};
