import type { PacketEvent, PacketState, PartyProgress } from './types';

const FRESH: PartyProgress = {
  status: 'waiting',
  askedAt: null,
  openedAt: null,
  agreedAt: null,
  doneAt: null,
  lastActAt: null,
  hand: null,
  reason: null,
};

/**
 * The state after one more event. Pure: returns a new state, shares what did not change.
 *
 * @throws when the events are not in order, or the first is not `sent`: then the log is damaged
 */
export function evolve(state: PacketState | null, event: PacketEvent): PacketState {
  const { body, at, seq } = event;
  if (seq !== (state?.seq ?? 0) + 1) throw new Error(`event ${seq} cannot follow event ${state?.seq ?? 0}`);
  if (body.type === 'sent') {
    if (state) throw new Error('a packet is sent once');
    return {
      packetId: event.packetId,
      seq,
      status: 'at_gate',
      gate: -1,
      plan: body.plan,
      sentAt: at,
      endedAt: null,
      parties: Object.fromEntries(body.plan.parties.map((p) => [p.id, FRESH])),
      fills: {},
      hands: {},
      sealed: null,
    };
  }
  if (!state) throw new Error(`a packet begins with "sent", not with "${body.type}"`);
  const next: PacketState = { ...state, seq };
  const party = (id: string, change: Partial<PartyProgress>) => {
    const was = state.parties[id];
    if (!was) throw new Error(`event ${seq} names a party that is not in the packet`);
    next.parties = { ...state.parties, [id]: { ...was, ...change } };
  };
  switch (body.type) {
    case 'gate_opened':
      next.gate = body.gate;
      return next;
    case 'asked':
      party(body.partyId, { status: 'asked', askedAt: at });
      return next;
    case 'opened':
      party(body.partyId, { status: 'opened', openedAt: at, lastActAt: at });
      return next;
    case 'agreed':
      party(body.partyId, { status: 'in_progress', agreedAt: at, lastActAt: at });
      return next;
    case 'hand_set':
      party(body.partyId, { hand: { seq, hand: body.hand }, lastActAt: at });
      next.hands = { ...state.hands, [seq]: { partyId: body.partyId, hand: body.hand } };
      return next;
    case 'mark_filled':
      party(body.partyId, { status: 'in_progress', lastActAt: at });
      next.fills = {
        ...state.fills,
        [body.markId]: { value: body.value, at, seq, partyId: body.partyId },
      };
      return next;
    case 'mark_cleared': {
      party(body.partyId, { status: 'in_progress', lastActAt: at });
      const { [body.markId]: _gone, ...rest } = state.fills;
      next.fills = rest;
      return next;
    }
    case 'party_done':
      party(body.partyId, { status: 'done', doneAt: at, lastActAt: at });
      return next;
    case 'gate_passed':
      next.gate = body.gate + 1;
      return next;
    case 'executed':
      return { ...next, status: 'executed', endedAt: at };
    case 'declined':
      party(body.partyId, { status: 'declined', lastActAt: at, reason: body.reason });
      return { ...next, status: 'declined', endedAt: at };
    case 'withdrawn':
      return { ...next, status: 'withdrawn', endedAt: at };
    case 'sealed':
      return { ...next, sealed: body.documents };
  }
}

/** The state of a whole log; null for an empty one. */
export function replay(events: PacketEvent[], from: PacketState | null = null): PacketState | null {
  return events.reduce<PacketState | null>(evolve, from);
}
