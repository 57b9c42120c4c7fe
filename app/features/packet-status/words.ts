import type { AnyPacketStatus, PacketSummary } from '@gatepath/contract';
import { count } from '@gatepath/core/text';

/** Returns the status of a packet in one line. */
export function packetLine(p: PacketSummary): string {
  switch (p.status) {
    case 'drafting':
      return p.gateCount ? `Draft, ${count(p.gateCount, 'gate')}` : 'Draft';
    case 'at_gate':
      return `At gate ${p.gate + 1} of ${p.gateCount}. ${p.holdUp}`;
    case 'executed':
      return `Executed, ${count(p.marksDone, 'mark')}, no gap`;
    default:
      return `${STATUS_WORDS[p.status]}. ${p.holdUp}`;
  }
}

export const STATUS_WORDS: Record<AnyPacketStatus, string> = {
  drafting: 'Draft',
  at_gate: 'Under way',
  executed: 'Executed',
  declined: 'Declined',
  withdrawn: 'Withdrawn',
  lapsed: 'Lapsed',
};

/** What the screens of “packet-status” say, in one place to read, edit and translate. */
export const TEXT = {
  // path-strip.tsx
  done: ', done',
};
