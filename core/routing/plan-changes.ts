/** Applies events to the plan of a packet that was already sent: corrected contacts, people who leave, other marks, added documents. */
import { puts } from '../packet/acts';
import type { LeftOutPage, Plan } from '../packet/types';
import { progressOf } from './progress';
import type { Contact, PacketEventBody, PacketState } from './types';

/** Returns the plan with another name, address or telephone number of a person. */
export function withContact(plan: Plan, partyId: string, contact: Contact): Plan {
  return { ...plan, parties: plan.parties.map((p) => (p.id === partyId ? { ...p, ...contact } : p)) };
}

type BodyOf<T extends PacketEventBody['type']> = Extract<PacketEventBody, { type: T }>;

/**
 * Returns the plan without a person's marks and gate. The person is still named in it, for the log and the record. At
 * a gate with nobody else, open or done, they stay, so that later gates keep their number.
 */
export function without({ plan, gate }: PacketState, partyId: string): Plan {
  const left = plan.gates.map((g, i) => {
    const partyIds = g.partyIds.filter((id) => id !== partyId);
    return partyIds.length === g.partyIds.length || (!partyIds.length && i <= gate) ? g : { ...g, partyIds };
  });
  return {
    ...plan,
    gates: left.filter((g) => g.partyIds.length),
    marks: plan.marks.filter((m) => m.partyId !== partyId),
    ...(plan.leftOut ? { leftOut: plan.leftOut.filter((x) => x.partyId !== partyId) } : {}),
  };
}

/** Returns the plan after a person was given something else to do. Who signs nothing any more has no marks. */
export function withAct(plan: Plan, { partyId, act, only, gates, marks }: BodyOf<'act_changed'>): Plan {
  const kept = puts({ act }) ? plan.marks : plan.marks.filter((m) => m.partyId !== partyId);
  return {
    ...plan,
    gates,
    marks: [...kept, ...marks],
    parties: plan.parties.map((p) => (p.id === partyId ? { ...p, act, ...(only ? { only } : {}) } : p)),
  };
}

/**
 * Returns the plan with marks added, moved or removed. A page that loses its initials is an exception made by hand.
 */
export function withMarks(plan: Plan, { partyId, put, dropped }: BodyOf<'marks_changed'>): Plan {
  const gone = new Set([...dropped, ...put.map((m) => m.id)]);
  const marks = [...plan.marks.filter((m) => !gone.has(m.id)), ...put];
  const isInitialled = (x: LeftOutPage) =>
    marks.some(
      (m) =>
        m.kind === 'initials' &&
        !m.redlineId &&
        m.partyId === x.partyId &&
        m.documentId === x.documentId &&
        m.page === x.page,
    );
  const pages = new Map((plan.leftOut ?? []).map((x) => [`${x.documentId} ${x.page} ${x.partyId}`, x]));
  for (const m of plan.marks)
    if (gone.has(m.id) && m.kind === 'initials' && !m.redlineId)
      pages.set(`${m.documentId} ${m.page} ${partyId}`, { documentId: m.documentId, page: m.page, partyId });
  const leftOut = [...pages.values()].filter((x) => !isInitialled(x));
  return { ...plan, marks, ...(leftOut.length || plan.leftOut ? { leftOut } : {}) };
}

/**
 * Returns the plan with a document that was added after sending: it is for people at later gates, and for copies at
 * the end.
 */
export function withDocument(
  state: PacketState,
  { document, marks }: Pick<BodyOf<'document_added'>, 'document' | 'marks'>,
): Plan {
  const { plan } = state;
  const before = plan.documents.map((d) => d.id);
  const gets = (id: string) => {
    const gate = plan.gates.findIndex((g) => g.partyIds.includes(id));
    return gate < 0 ? !progressOf(state, id).askedAt : gate > state.gate;
  };
  return {
    ...plan,
    documents: [...plan.documents, document],
    marks: [...plan.marks, ...marks],
    parties: plan.parties.map((p) => {
      if (gets(p.id)) return p.only ? { ...p, only: [...p.only, document.id] } : p;
      return p.only ? p : { ...p, only: before };
    }),
  };
}
