/** Questions about a packet's state: whose turn it is, what is left, what holds it up. */
import { holdsGate } from '../packet/acts';
import { isForClient } from '../packet/kinds';
import { hasDocument } from '../packet/place-party';
import type { Mark, PacketParty, Plan } from '../packet/types';
import { sure } from '../sure';
import type { PacketState, PartyProgress, PartyStatus } from './types';

/** Returns the plan's marks by document and page, top to bottom, left to right. */
export function inReadingOrder(plan: Plan): readonly Mark[] {
  const known = ordered.get(plan);
  if (known) return known;
  const order = new Map(plan.documents.map((d, i) => [d.id, i]));
  const marks = [...plan.marks].sort(
    (a, b) =>
      (order.get(a.documentId) ?? 0) - (order.get(b.documentId) ?? 0) ||
      a.page - b.page ||
      a.rect.y - b.rect.y ||
      a.rect.x - b.rect.x,
  );
  ordered.set(plan, marks);
  return marks;
}

/** Cached order by plan: a plan is never changed in place. */
const ordered = new WeakMap<Plan, readonly Mark[]>();
const ofParty = new WeakMap<Plan, Map<string, readonly Mark[]>>();

/** Returns a party's marks in reading order. */
export function marksOfParty(plan: Plan, partyId: string): readonly Mark[] {
  let known = ofParty.get(plan);
  if (!known) {
    const all = new Map<string, Mark[]>();
    for (const m of inReadingOrder(plan)) {
      const own = all.get(m.partyId);
      if (own) own.push(m);
      else all.set(m.partyId, [m]);
    }
    ofParty.set(plan, (known = all));
  }
  return known.get(partyId) ?? [];
}

/**
 * Returns a party's progress.
 *
 * @throws Error if the packet has no such party
 */
export const progressOf = (state: Pick<PacketState, 'parties'>, partyId: string): PartyProgress =>
  sure(state.parties[partyId], `the progress of party ${partyId}`);

/** Returns whether a packet still needs a party; false if it was excused or removed. */
export const isNeeded = (status: PartyStatus): boolean => status !== 'excused' && status !== 'dropped';

/** Returns the parties that were not removed. */
export const stillIn = (state: PacketState): PacketParty[] =>
  state.plan.parties.filter((p) => progressOf(state, p.id).status !== 'dropped');

/** Returns the marks a party must fill itself and has not filled yet, in reading order. */
export function marksLeft(state: PacketState, partyId: string): Mark[] {
  const at = state.parties[partyId]?.status;
  if (at && !isNeeded(at)) return [];
  const mine = marksOfParty(state.plan, partyId).filter((m) => m.required && isForClient(m));
  const groups = new Set<string>();
  for (const m of mine) if (m.group && state.fills.has(m.id)) groups.add(m.group);
  return mine.filter((m) => {
    if (state.fills.has(m.id)) return false;
    if (!m.group) return true;
    // Of a group of choices one is left to do, and none once one is chosen.
    if (groups.has(m.group)) return false;
    groups.add(m.group);
    return true;
  });
}

/** Returns how many places a party has to fill itself; a group of choices is one. */
export function countPlaces(plan: Plan, partyId: string): number {
  const mine = marksOfParty(plan, partyId).filter((m) => m.required && isForClient(m));
  return new Set(mine.map((m) => m.group ?? m.id)).size;
}

/** Returns the marks that count: those of excused parties do not. */
export function marksThatCount(state: PacketState): Mark[] {
  return state.plan.marks.filter((m) => isNeeded(state.parties[m.partyId]?.status ?? 'waiting'));
}

/** Returns the index of a party's gate; -1 if it is at none (it gets a copy at the end). */
export function gateOf(plan: Plan, partyId: string): number {
  return plan.gates.findIndex((g) => g.partyIds.includes(partyId));
}

/** Returns a party of a plan. */
export function partyOf(plan: Plan, partyId: string): PacketParty | undefined {
  return plan.parties.find((p) => p.id === partyId);
}

/**
 * Returns whether a party may act now: the packet is at a gate, and the party's gate is open, or is passed and the
 * party was asked again because of a change.
 */
export function isTurnOf(state: PacketState, partyId: string): boolean {
  if (state.status !== 'at_gate') return false;
  const s = state.parties[partyId];
  const gate = gateOf(state.plan, partyId);
  if (!s || gate < 0 || s.status === 'done' || !isNeeded(s.status)) return false;
  return gate === state.gate || (gate < state.gate && (s.again || !holdsGate(partyOf(state.plan, partyId)!)));
}

/** Returns whom the packet waits for: those who hold it and are not done. */
export function waitingFor(state: PacketState): PacketParty[] {
  return state.plan.parties.filter((p) => holdsGate(p) && isTurnOf(state, p.id));
}

/** Returns whether a party whose gate is still ahead may read the documents already. */
export function readsAlong(state: PacketState, partyId: string): boolean {
  const s = state.parties[partyId];
  const party = partyOf(state.plan, partyId);
  if (state.status !== 'at_gate' || !state.plan.readAlong || !s || s.askedAt || !isNeeded(s.status)) return false;
  return !!party && holdsGate(party) && gateOf(state.plan, partyId) > state.gate;
}

/**
 * Returns whether the open gate is still held if the parties of `done` count as done and those of `gone` as removed.
 */
export function isHeld(state: PacketState, done: readonly string[] = [], gone?: string): boolean {
  const open = (id: string) =>
    !done.includes(id) && progressOf(state, id).status !== 'done' && isNeeded(progressOf(state, id).status);
  for (let i = 0; i <= state.gate; i++) {
    const gate = state.plan.gates[i];
    if (!gate) continue;
    const holders = gate.partyIds.filter(
      (id) => id !== gone && progressOf(state, id).status !== 'dropped' && holdsGate(partyOf(state.plan, id)!),
    );
    if (holders.some((id) => progressOf(state, id).again && open(id))) return true;
    if (i < state.gate) continue;
    if (gate.need === 'any' ? holders.length > 0 && holders.every(open) : holders.some(open)) return true;
  }
  return false;
}

/** Returns whether a party filled any mark on the pages. */
export function hasFilled(state: PacketState, partyId: string): boolean {
  // Called for every act, of thousands: it allocates no list.
  for (const fill of state.fills.values()) if (fill.partyId === partyId) return true;
  return false;
}

/** Returns whether a party filled a mark, or is done without one. */
export function hasActed(state: PacketState, partyId: string): boolean {
  return state.parties[partyId]?.status === 'done' || hasFilled(state, partyId);
}

/** Returns those who were done with a document when it was changed, and must confirm again. */
export function doneWith(state: PacketState, documentId: string): PacketParty[] {
  return state.plan.parties.filter(
    (p) => holdsGate(p) && hasDocument(p, documentId) && progressOf(state, p.id).status === 'done',
  );
}
