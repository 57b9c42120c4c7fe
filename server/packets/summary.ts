import type { PacketSummary } from '@gatepath/contract';
import type { PacketListRow } from './queries';

/** Returns a packet as lists show it. */
export function packetSummary(p: PacketListRow): PacketSummary {
  return {
    id: p.id,
    dealId: p.deal_id,
    name: p.name,
    status: p.status,
    gate: p.gate,
    gateCount: p.gates.length,
    marksDone: p.marks_done,
    marksTotal: p.marks_total,
    holdUp: p.hold_up,
    path: p.gates.map((g) => ({ partyIds: g.partyIds })),
    parties: p.parties.map((x) => ({ id: x.id, name: x.name, ink: x.ink, act: x.act, done: p.done.includes(x.id) })),
    sentAt: p.sent_at?.toISOString() ?? null,
    endedAt: p.ended_at?.toISOString() ?? null,
    createdAt: p.created_at.toISOString(),
  };
}
