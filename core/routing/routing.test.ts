import fc from 'fast-check';
import { party, planOf } from '../test-support';
import {
  activity,
  decide,
  evolve,
  holdsGate,
  holdUp,
  isTurnOf,
  marksLeft,
  pathOf,
  replay,
  shownFills,
  type PacketCommand,
  type PacketEvent,
  type PacketState,
  type Plan,
} from './index';

const HAND = { form: 'typed', face: 'caveat', signature: 'Wren Alder', initials: 'WA' } as const;

/** A packet under test: commands go in, refused ones change nothing. */
class Packet {
  events: PacketEvent[] = [];
  state: PacketState | null = null;

  do(command: PacketCommand): string {
    const d = decide(this.state, command);
    if (!d.ok) return d.refusal.code;
    for (const body of d.events) {
      const event: PacketEvent = {
        packetId: 'p',
        seq: this.events.length + 1,
        at: new Date(Date.UTC(2026, 10, 23, 12, 0, this.events.length)).toISOString(),
        actor: { kind: 'system' },
        origin: null,
        body,
      };
      this.events.push(event);
      this.state = evolve(this.state, event);
    }
    return 'ok';
  }

  signAll(id: string): string {
    this.do({ type: 'open', partyId: id });
    this.do({ type: 'agree', partyId: id, agreement: '1' });
    this.do({ type: 'set_hand', partyId: id, hand: HAND });
    for (const m of marksLeft(this.state!, id)) this.do({ type: 'fill', partyId: id, markId: m.id, actId: m.id });
    return this.do({ type: 'finish', partyId: id, actId: `${id}-done`, dateText: 'Nov 23, 2026' });
  }
}

const sent = (plan: Plan): Packet => {
  const p = new Packet();
  expect(p.do({ type: 'send', plan })).toBe('ok');
  return p;
};

test('gates open one after the other, and the last one executes the packet', () => {
  const p = sent(planOf([['wren', 'callum'], ['tobias']]));
  expect(p.state!.parties.tobias!.status).toBe('waiting');
  expect(p.do({ type: 'open', partyId: 'tobias' })).toBe('not_your_turn');
  expect(p.signAll('wren')).toBe('ok');
  expect(p.state!.gate).toBe(0);
  expect(holdUp(p.state!).sentence).toBe('Callum has not opened it yet.');
  expect(p.signAll('callum')).toBe('ok');
  expect(p.state!.gate).toBe(1);
  expect(p.state!.parties.tobias!.status).toBe('asked');
  expect(p.signAll('tobias')).toBe('ok');
  expect(p.state!.status).toBe('executed');
  expect(shownFills(p.state!)).toHaveLength(9);
});

test('nothing can be marked before the agreement, without a hand, or in another’s place', () => {
  const p = sent(planOf([['wren', 'callum']]));
  const fill = (markId: string) => p.do({ type: 'fill', partyId: 'wren', markId, actId: 'a' });
  expect(fill('wren-i')).toBe('not_agreed');
  p.do({ type: 'agree', partyId: 'wren', agreement: '1' });
  expect(fill('wren-i')).toBe('no_hand');
  p.do({ type: 'set_hand', partyId: 'wren', hand: HAND });
  expect(fill('callum-i')).toBe('not_your_mark');
  expect(fill('nothing')).toBe('unknown_mark');
  expect(fill('wren-d')).toBe('bad_value');
  expect(fill('wren-i')).toBe('ok');
  expect(p.do({ type: 'finish', partyId: 'wren', actId: 'f', dateText: 'x' })).toBe('marks_left');
});

test('an act that is repeated leaves one fill, with the hand it was made with', () => {
  const p = sent(planOf([['wren']]));
  p.do({ type: 'agree', partyId: 'wren', agreement: '1' });
  p.do({ type: 'set_hand', partyId: 'wren', hand: HAND });
  p.do({ type: 'fill', partyId: 'wren', markId: 'wren-i', actId: 'a' });
  p.do({ type: 'set_hand', partyId: 'wren', hand: { ...HAND, initials: 'W.A.' } });
  const before = p.events.length;
  expect(p.do({ type: 'fill', partyId: 'wren', markId: 'wren-i', actId: 'b' })).toBe('ok');
  expect(p.events).toHaveLength(before);
  expect(shownFills(p.state!)[0]!.shows).toMatchObject({ text: 'WA' });
});

test('declining and withdrawing end the packet for everyone', () => {
  const p = sent(planOf([['wren', 'callum'], ['tobias']]));
  expect(p.do({ type: 'decline', partyId: 'wren', reason: '  ' })).toBe('bad_value');
  expect(p.do({ type: 'decline', partyId: 'wren', reason: 'The price is wrong' })).toBe('ok');
  expect(p.signAll('callum')).toBe('ended');
  expect(activity(p.events)[0]!.sentence).toContain('The price is wrong');
  const q = sent(planOf([['wren']]));
  expect(q.do({ type: 'withdraw', reason: 'New terms' })).toBe('ok');
  expect(q.do({ type: 'open', partyId: 'wren' })).toBe('ended');
});

test('whoever approves holds the gate without marks; copies never hold one', () => {
  const p = sent(planOf([['attorney'], ['escrow'], ['wren']], { attorney: 'approve', escrow: 'copy' }));
  p.do({ type: 'agree', partyId: 'attorney', agreement: '1' });
  expect(p.do({ type: 'finish', partyId: 'attorney', actId: 'f', dateText: 'x' })).toBe('ok');
  expect(p.state!.gate).toBe(2);
  expect(p.state!.parties.escrow!.status).toBe('asked');
});

test('a plan with an empty gate, a stranger or a lost signer cannot be sent', () => {
  const plan = planOf([['wren'], ['callum']]);
  const bad = (change: Partial<Plan>) => new Packet().do({ type: 'send', plan: { ...plan, ...change } });
  expect(bad({ gates: [...plan.gates, { id: 'x', partyIds: [] }] })).toBe('bad_plan');
  expect(bad({ gates: [{ id: 'x', partyIds: ['nobody'] }] })).toBe('bad_plan');
  expect(bad({ gates: [plan.gates[0]!] })).toBe('bad_plan');
  expect(bad({ gates: [plan.gates[0]!, plan.gates[0]!] })).toBe('bad_plan');
});

test('paths in one touch put everyone who acts at one gate each', () => {
  let n = 0;
  const parties = [
    party('buyer', { side: 'buyer' }),
    party('wren'),
    party('callum', { ordinal: 2 }),
    party('broker', { side: 'listing_broker' }),
    party('escrow', { side: 'other', act: 'copy' }),
  ];
  const ids = (pattern: Parameters<typeof pathOf>[0]) =>
    pathOf(pattern, parties, () => `g${n++}`).map((g) => g.partyIds);
  expect(ids('together')).toEqual([['buyer', 'wren', 'callum', 'broker']]);
  expect(ids('one_by_one')).toEqual([['wren'], ['callum'], ['broker'], ['buyer']]);
  expect(ids('by_side')).toEqual([['wren', 'callum'], ['broker'], ['buyer']]);
});

/** Random commands by anybody, in any order, on paths of any shape. */
const people = ['anna', 'bela', 'cora', 'dov'];
const shape = fc.shuffledSubarray(people, { minLength: 1 }).chain((ids) =>
  fc
    .tuple(
      fc.array(fc.boolean(), { minLength: ids.length, maxLength: ids.length }),
      fc.array(fc.constantFrom('sign', 'sign', 'approve', 'copy'), { minLength: ids.length, maxLength: ids.length }),
    )
    .map(([cuts, acts]) => {
      const gates: string[][] = [[]];
      ids.forEach((id, i) => {
        if (cuts[i] && gates[gates.length - 1]!.length) gates.push([]);
        gates[gates.length - 1]!.push(id);
      });
      return planOf(gates, Object.fromEntries(ids.map((id, i) => [id, acts[i]!])) as never);
    }),
);
const who = fc.constantFrom(...people);
const anyCommand: fc.Arbitrary<PacketCommand> = fc.oneof(
  who.map((partyId) => ({ type: 'open' as const, partyId })),
  { weight: 2, arbitrary: who.map((partyId) => ({ type: 'agree' as const, partyId, agreement: '1' })) },
  { weight: 2, arbitrary: who.map((partyId) => ({ type: 'set_hand' as const, partyId, hand: HAND })) },
  {
    weight: 8,
    arbitrary: fc
      .tuple(who, who, fc.constantFrom('i', 's', 'd'), fc.nat(1e6))
      .map(([partyId, owner, k, n]) => ({ type: 'fill' as const, partyId, markId: `${owner}-${k}`, actId: `a${n}` })),
  },
  {
    weight: 3,
    arbitrary: who.map((partyId) => ({ type: 'finish' as const, partyId, actId: 'f', dateText: 'today' })),
  },
  { weight: 1, arbitrary: who.map((partyId) => ({ type: 'decline' as const, partyId, reason: 'no' })) },
);
/** People who get on with it, so that runs reach the end too. */
const diligent = who.map((partyId) => ({ type: 'everything' as const, partyId }));

test('whatever is tried: no gate passes early, nobody acts out of turn, no ended packet moves', () => {
  fc.assert(
    fc.property(
      shape,
      fc.array(fc.oneof({ weight: 5, arbitrary: anyCommand }, { weight: 2, arbitrary: diligent }), { maxLength: 60 }),
      (plan, commands) => {
        const p = new Packet();
        if (p.do({ type: 'send', plan }) !== 'ok') return;
        for (const c of commands) {
          const before = p.state!;
          const count = p.events.length;
          const result = c.type === 'everything' ? p.signAll(c.partyId) : p.do(c);
          const after = p.state!;
          if (before.status !== 'at_gate') expect(p.events).toHaveLength(count);
          if (result !== 'ok' && c.type !== 'everything') expect(after).toBe(before);
          if ('partyId' in c && p.events.length > count) expect(isTurnOf(before, c.partyId)).toBe(true);
          plan.gates
            .slice(0, after.gate)
            .forEach((g) =>
              g.partyIds
                .filter((id) => holdsGate(plan.parties.find((x) => x.id === id)!))
                .forEach((id) => expect(after.parties[id]!.status).toBe('done')),
            );
          plan.gates
            .slice(after.gate + 1)
            .forEach((g) => g.partyIds.forEach((id) => expect(after.parties[id]!.askedAt).toBeNull()));
          for (const [markId, fill] of Object.entries(after.fills))
            expect(plan.marks.find((m) => m.id === markId)!.partyId).toBe(fill.partyId);
          for (const x of plan.parties)
            if (after.parties[x.id]!.status === 'done') expect(marksLeft(after, x.id)).toEqual([]);
        }
        expect(replay(p.events)).toEqual(p.state);
      },
    ),
    { numRuns: 400 },
  );
});
