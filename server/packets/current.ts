/** A draft with everything that changed after it was sent. */
import { type Draft, type InitialsRule, type Mark, NOBODY } from '@gatepath/core/packet';
import { stillIn, type PacketState } from '@gatepath/core/routing';

/**
 * Returns the draft a packet was sent from, with everything that changed since: names and addresses, people added or
 * removed, their acts and marks, the order of gates, documents, and redlines. Marks of rules and redlines are
 * computed again on the desk.
 */
export function currentDraft(draft: Draft, state: PacketState): Draft {
  const { plan } = state;
  const people = stillIn(state);
  const inIt = new Set([NOBODY, ...people.map((p) => p.id)]);
  const now = new Map(plan.marks.map((m) => [m.id, m]));
  const sentWith = new Set(plan.parties.map((p) => p.id));
  const before = new Set(draft.marks.map((m) => m.id));
  // Marks on papers that were never sent are not known here: they stay as they were.
  const kept = draft.marks.flatMap((m): Mark[] => {
    const sent = now.get(m.id);
    if (sent) return [m.value === undefined ? sent : { ...sent, value: m.value }];
    return sentWith.has(m.partyId) && plan.documents.some((d) => d.id === m.documentId) ? [] : [m];
  });
  const added = plan.marks.filter((m) => !m.redlineId && !m.ruleId && m.partyId !== NOBODY && !before.has(m.id));
  return {
    ...draft,
    parties: people.map((p) => (p.secondStep === 'code' ? { ...p, codeKept: true } : p)),
    gates: plan.gates
      .map((g) => ({ ...g, partyIds: g.partyIds.filter((id) => inIt.has(id)) }))
      .filter((g) => g.partyIds.length),
    documents: plan.documents.map((d) => ({ id: d.id })),
    marks: [...kept, ...added],
    rules: draft.rules.map((r) => ruleNow(r, inIt, added, plan.leftOut ?? [])),
    redlines: plan.redlines ?? draft.redlines,
    schedule: plan.schedule ?? draft.schedule,
    ...(plan.readAlong === undefined ? {} : { readAlong: plan.readAlong }),
    ...(plan.reports ? { reports: plan.reports } : {}),
  };
}

/** Returns an initials rule without removed people, and with exceptions where its initials were moved or removed. */
function ruleNow(
  rule: InitialsRule,
  inIt: ReadonlySet<string>,
  added: Mark[],
  leftOut: { documentId: string; page: number; partyId: string }[],
): InitialsRule {
  const byHand = [...leftOut, ...added.filter((m) => m.kind === 'initials')].filter(
    (x) => x.documentId === rule.documentId && rule.partyIds.includes(x.partyId),
  );
  const except = [...rule.except];
  for (const { page, partyId } of byHand)
    if (!except.some((e) => e.page === page && e.partyId === partyId)) except.push({ page, partyId });
  return { ...rule, partyIds: rule.partyIds.filter((id) => inIt.has(id)), except };
}
