import type { Mark } from '../packet/types';
import type { CheckRule, Finding } from './types';
import { nameIn, pageIn } from './words';

/** Finds groups of choices with only one in them: there is nothing to choose. */
export const choiceAlone: CheckRule = (input) => {
  const groups = new Map<string, Mark[]>();
  for (const m of input.marks) {
    if (m.kind !== 'choice') continue;
    const key = `${m.partyId}:${m.group ?? m.id}`;
    groups.set(key, [...(groups.get(key) ?? []), m]);
  }
  return [...groups.values()]
    .filter((g) => g.length === 1)
    .map(([m]): Finding => ({
      rule: 'choice-alone',
      severity: 'stops',
      sentence: `${nameIn(input, m!.partyId)} has only one choice to choose from on ${pageIn(input, m!.documentId, m!.page)}.`,
      place: { documentId: m!.documentId, page: m!.page, partyId: m!.partyId, markId: m!.id },
      mend: {
        label: 'Make it a tick',
        edits: [{ op: 'put', list: 'marks', item: { ...m!, kind: 'tick', group: undefined, value: undefined } }],
      },
    }));
};
