/**
 * How a packet on its way may end, so that room can be kept for its signing record before the
 * first seal. It only has to be as long as the real one: with too little room it is set smaller,
 * with too much there is a blank page at the end.
 */
import { holdsGate, byLink, receives } from '@gatepath/core/packet';
import {
  isNeeded,
  type PacketEvent,
  type PacketEventBody,
  type PacketState,
  type PartyProgress,
} from '@gatepath/core/routing';
import { lastOf } from '@gatepath/core/sure';
import { progressOf } from '@gatepath/core/routing';

/**
 * Returns the packet as it would be if every party that is still to act did so now, in the same way as those before.
 */
export function foreseenEnd(state: PacketState, events: PacketEvent[]): { state: PacketState; events: PacketEvent[] } {
  const { plan } = state;
  const at = lastOf(events).at;
  const origin = events.findLast((e) => e.origin)?.origin ?? null;
  const to = { ...state, endedAt: at, parties: { ...state.parties }, fills: new Map(state.fills) };
  const more: PacketEventBody[] = [];
  for (const p of plan.parties) {
    const s = progressOf(state, p.id);
    if (!holdsGate(p) || s.status === 'done' || !isNeeded(s.status)) continue;
    const hostName = byLink(p) ? null : (s.hostName ?? 'Host of the desk');
    to.parties[p.id] = {
      ...s,
      askedAt: at,
      openedAt: at,
      agreedAt: at,
      doneAt: at,
      hand: s.hand ?? { seq: 0, hand: { form: 'typed', face: 'caveat', signature: p.name, initials: 'WWW' } },
      proved: p.secondStep ? { at, step: p.secondStep } : null,
      hostName,
    };
    const { id: partyId } = p;
    if (receives(p)) {
      to.parties[p.id] = delivered(s, at);
      more.push(...asDelivered(partyId));
      continue;
    }
    more.push(
      { type: 'asked', partyId },
      { type: 'opened', partyId },
      { type: 'agreed', partyId, agreement: '2 (en)' },
    );
    if (p.secondStep) more.push({ type: 'proved', partyId, step: p.secondStep });
    if (hostName) more.push({ type: 'hosted', partyId, hostName });
    // One reminder each is what packets usually take.
    more.push({ type: 'nudged', partyId, n: 1 }, { type: 'party_done', partyId, actId: '' });
    for (const m of plan.marks)
      if (m.partyId === partyId && !to.fills.has(m.id))
        to.fills.set(m.id, { value: { tick: true }, at, seq: 0, partyId });
  }
  for (let gate = state.gate; gate < plan.gates.length; gate++)
    more.push({ type: 'gate_passed', gate }, { type: 'gate_opened', gate });
  more.push({ type: 'executed' });
  const last = lastOf(events);
  return {
    state: to,
    events: [
      ...events,
      ...more.map((body, i): PacketEvent => ({
        ...last,
        seq: last.seq + 1 + i,
        actor: { kind: 'system' },
        origin,
        body,
      })),
    ],
  };
}

/** Returns a party's state after the document was delivered to it. */
const delivered = (s: PartyProgress, at: string): PartyProgress => ({
  ...s,
  askedAt: at,
  arrivedAt: at,
  openedAt: at,
  doneAt: at,
  delivered: { how: 'opened', day: at.slice(0, 10) },
});

const asDelivered = (partyId: string): PacketEventBody[] => [
  { type: 'asked', partyId },
  { type: 'arrived', partyId, channel: 'email' },
  { type: 'opened', partyId },
  { type: 'nudged', partyId, n: 1 },
  { type: 'delivered', partyId, how: 'opened', day: null },
];
