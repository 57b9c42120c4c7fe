import type { AnyPacketStatus, PacketSummary } from '@gatepath/contract';
import { count } from '@gatepath/core/text';

/** Where a packet stands, in one line. */
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

/** A date and time for people, in a zone: "Mon, Nov 23, 9:41 AM". */
export function when(iso: string, timeZone?: string): string {
  return new Intl.DateTimeFormat('en-US', {
    weekday: 'short',
    month: 'short',
    day: 'numeric',
    hour: 'numeric',
    minute: '2-digit',
    timeZone,
  }).format(new Date(iso));
}

/** A day of the calendar for people: "Fri, Nov 27". */
export function dayWords(day: string): string {
  return new Intl.DateTimeFormat('en-US', { weekday: 'short', month: 'short', day: 'numeric', timeZone: 'utc' }).format(
    new Date(`${day}T12:00:00Z`),
  );
}
