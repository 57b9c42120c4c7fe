/** A draft brought up to what its packet has become under way. */
import { type Draft, NOBODY } from '@gatepath/core/packet';
import type { PacketState } from '@gatepath/core/routing';

/**
 * The draft a packet was sent from, with everything that was changed since: people as they are
 * called and reached now, those who were added, the order of gates, documents, and changes on
 * pages. What rules and redlines make is made anew on the desk.
 */
export function currentDraft(draft: Draft, state: PacketState): Draft {
  const { plan } = state;
  const before = new Map(draft.parties.map((p) => [p.id, p]));
  const documents = new Set(draft.documents.map((d) => d.id));
  const added = plan.marks.filter(
    (m) =>
      !m.redlineId && !m.ruleId && (!before.has(m.partyId) || !documents.has(m.documentId)) && m.partyId !== NOBODY,
  );
  return {
    ...draft,
    parties: plan.parties.map((p) => (p.secondStep === 'code' ? { ...p, codeKept: true } : p)),
    gates: plan.gates,
    documents: plan.documents.map((d) => ({ id: d.id })),
    marks: [...draft.marks, ...added.filter((m) => !draft.marks.some((x) => x.id === m.id))],
    redlines: plan.redlines ?? draft.redlines,
    schedule: plan.schedule ?? draft.schedule,
  };
}
