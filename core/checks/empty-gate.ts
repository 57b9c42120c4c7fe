import type { CheckRule, Finding } from './types';

/** Finds gates without people. */
export const emptyGate: CheckRule = ({ draft }) => {
  const known = new Set(draft.parties.map((p) => p.id));
  return draft.gates.flatMap((g, i): Finding[] =>
    g.partyIds.some((p) => known.has(p))
      ? []
      : [
          {
            rule: 'empty-gate',
            severity: 'stops',
            sentence: `No one is at gate ${i + 1}.`,
            place: { gateId: g.id },
            mend: { label: 'Take the gate away', edits: [{ op: 'drop', list: 'gates', id: g.id }] },
          },
        ],
  );
};
