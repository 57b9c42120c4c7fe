import { isFixed } from '../packet/kinds';
import { placeOf, showHand, shownWords, type ShownFill } from '../packet/shown';
import type { PlanDocument, Redline } from '../packet/types';
import type { PacketState } from './types';

/**
 * Returns everything that is on the pages so far, in the plan's order of marks: the sender's labels and what was
 * filled. With `only`, what is in those marks.
 */
export function shownFills(state: PacketState, only?: ReadonlySet<string>): ShownFill[] {
  const inks = new Map(state.plan.parties.map((p) => [p.id, p]));
  const marks = only ? state.plan.marks.filter((m) => only.has(m.id)) : state.plan.marks;
  return marks.flatMap((m): ShownFill[] => {
    const party = inks.get(m.partyId);
    if (isFixed(m)) return shownWords(m);
    const base = placeOf(m, party?.ink ?? 0);
    const fill = state.fills.get(m.id);
    if (!fill || !party) return [];
    if ('text' in fill.value) return [{ ...base, shows: { form: 'text', text: fill.value.text } }];
    if ('tick' in fill.value) return [{ ...base, shows: { form: 'tick' } }];
    if ('file' in fill.value) return [{ ...base, shows: { form: 'text', text: `Added: ${fill.value.file.name}` } }];
    const set = state.hands[fill.value.hand];
    if (!set) throw new Error(`fill of ${m.id} names a hand that was never set`);
    const under = m.kind === 'signature' && party.capacity ? { under: party.capacity } : {};
    return [
      { ...base, ...under, shows: showHand(set.hand, m.kind === 'initials' ? 'initials' : 'signature', party.name) },
    ];
  });
}

/**
 * Returns the documents of a packet: those that were sent, files its people added, named by their marks, and signing
 * records that are files of their own.
 */
export function documentsOf(state: PacketState): PlanDocument[] {
  const added = state.plan.marks.flatMap((m): PlanDocument[] => {
    const value = state.fills.get(m.id)?.value;
    if (!value || !('file' in value)) return [];
    const { sha256, name, pages } = value.file;
    return [{ id: `file.${m.id}`, name: m.label ? `${m.label}: ${name}` : name, sha256, pages }];
  });
  const of = [...state.plan.documents, ...added];
  const records = (state.sealed ?? []).flatMap(({ documentId, sha256, recordOf, pages }): PlanDocument[] => {
    const document = of.find((d) => d.id === recordOf);
    return document && pages ? [{ id: documentId, name: `${document.name}: signing record`, sha256, pages }] : [];
  });
  return [...of, ...records];
}

/** Returns the redlines on the pages of a packet. */
export function shownRedlines(state: PacketState): Redline[] {
  return state.plan.redlines ?? [];
}
