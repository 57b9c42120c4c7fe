/** A packet under test: commands go in, refused ones change nothing. */
import { decide, evolve, marksLeft, type PacketCommand, type PacketEvent, type PacketState } from '../routing/index';
import { type Plan } from '../packet';

export const HAND = { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' } as const;

export class TestPacket {
  events: PacketEvent[] = [];
  state: PacketState | null = null;
  /** Days since the start, for events that the calendar counts from. */
  day = 0;

  static sent(plan: Plan): TestPacket {
    const p = new TestPacket();
    const result = p.do({ type: 'send', plan });
    if (result !== 'ok') throw new Error(`the plan cannot be sent: ${result}`);
    return p;
  }

  /** Returns the day's date in the plan's time zone (noon in UTC is the same day there). */
  get today(): string {
    return new Date(Date.UTC(2026, 10, 23 + this.day)).toISOString().slice(0, 10);
  }

  do(command: PacketCommand): string {
    const d = decide(this.state, command);
    if (!d.ok) return d.refusal.code;
    for (const body of d.events) {
      const event: PacketEvent = {
        packetId: 'p',
        seq: this.events.length + 1,
        at: new Date(Date.UTC(2026, 10, 23 + this.day, 12, 0, this.events.length % 3600)).toISOString(),
        actor: { kind: 'member', id: 'm', name: 'Odile Farrant' },
        origin: null,
        body,
      };
      this.events.push(event);
      this.state = evolve(this.state, event);
    }
    return 'ok';
  }

  /** Does everything a party has to do, up to Finish. */
  signAll(id: string): string {
    this.do({ type: 'open', partyId: id });
    if (this.state?.plan.parties.find((p) => p.id === id)?.act === 'desk')
      this.do({ type: 'host', partyId: id, hostName: 'Odile Farrant' });
    this.do({ type: 'agree', partyId: id, agreement: '1' });
    this.do({ type: 'set_hand', partyId: id, hand: HAND });
    for (const m of marksLeft(this.state!, id)) this.do({ type: 'fill', partyId: id, markId: m.id, actId: m.id });
    return this.do({ type: 'finish', partyId: id, actId: `${id}-done`, dateText: 'Nov 23, 2026' });
  }
}
