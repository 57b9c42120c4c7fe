/** Replaying a packet with ten times the fills. */
import type { Plan } from '@gatepath/core/packet';
import { type PacketEvent, replay } from '@gatepath/core/routing';
import { median, rowOf, type Row } from './measure';

function log(fills: number): PacketEvent[] {
  const plan: Plan = {
    packetName: 'Papers',
    dealName: '14 Lantern Row',
    timeZone: 'UTC',
    subject: '',
    message: '',
    parties: [
      { id: 'wren', name: 'Wren Alder', email: '', phone: null, side: 'seller', ordinal: 1, act: 'sign', ink: 0 },
    ],
    gates: [{ id: 'g', partyIds: ['wren'] }],
    documents: [],
    marks: [],
  };
  const at = '2026-11-23T12:00:00.000Z';
  const bodies: PacketEvent['body'][] = [
    { type: 'sent', plan },
    { type: 'gate_opened', gate: 0 },
    { type: 'asked', partyId: 'wren' },
    ...Array.from({ length: fills }, (_, i): PacketEvent['body'] => ({
      type: 'mark_filled',
      partyId: 'wren',
      markId: `m${i}`,
      value: { text: 'x' },
      actId: `a${i}`,
    })),
  ];
  return bodies.map((body, i) => ({ packetId: 'p', seq: i + 1, at, actor: { kind: 'system' }, origin: null, body }));
}

export async function rows(): Promise<Row[]> {
  const many = log(12_000);
  // Ten packets, not one ten times over: the processor's caches would hold a small one and tell of themselves.
  const few = Array.from({ length: 10 }, () => log(1_200));
  const theirs = (await median(() => few.forEach((l) => replay(l)), 41)) / few.length;
  const ours = await median(() => replay(many), 41);
  return [rowOf('replay a packet with 12,000 fills', ours, 'one with 1,200, of ten', theirs)];
}
