/** What is only delivered: opened, or counted by the rule; come back, or gone as a letter. */
import fc from 'fast-check';
import { countsFrom, holdUp, nextTick, wantsLetter } from './index';
import type { PacketParty, Plan } from '../packet';
import { dueDay } from '../calendar';
import { party, planOf } from '../test/support';
import { TestPacket } from '../test/packet';

const gets = (id: string, more: Partial<PacketParty> = {}): PacketParty => ({ ...party(id), act: 'receive', ...more });

/**
 * Returns a plan sent on Monday, November 23, 2026. By link a day counts after one business day, by mail after three.
 */
function plan(people: PacketParty[], gates = [people.map((p) => p.id)], more: Partial<Plan> = {}): Plan {
  return { ...planOf(gates), parties: people, marks: [], ...more };
}
const day = (p: TestPacket, id: string) => countsFrom(p.state!, id)?.day ?? null;

test('opened it is delivered, and when all have it the packet is executed', () => {
  const p = TestPacket.sent(plan([gets('wren'), gets('callum')]));
  expect([day(p, 'wren'), wantsLetter(p.state!, 'wren')]).toEqual(['2026-11-24', false]);
  expect(p.do({ type: 'open', partyId: 'wren' })).toBe('ok');
  expect(p.state!.parties['wren']).toMatchObject({ status: 'done', delivered: { how: 'opened', day: '2026-11-24' } });
  expect(p.state!.status).toBe('at_gate');
  p.do({ type: 'open', partyId: 'callum' });
  expect(p.state!.status).toBe('executed');
  // Nothing is to be written into the papers for it but the record.
  expect(p.state!.due).toEqual([]);
});

test('nobody signs, declines or hands over what is only delivered', () => {
  const p = TestPacket.sent(plan([gets('wren')], [['wren']], { handOver: true }));
  const contact = { name: 'Agnes', email: 'agnes@example.com', phone: null };
  expect(p.do({ type: 'agree', partyId: 'wren', agreement: '1' })).toBe('not_your_turn');
  expect(p.do({ type: 'decline', partyId: 'wren', reason: 'no' })).toBe('not_your_turn');
  expect(p.do({ type: 'hand_over', partyId: 'wren', contact, reason: 'x' })).toBe('no_handing_over');
  expect(p.do({ type: 'ask_question', partyId: 'wren', questionId: 'q', text: 'Why?' })).toBe('ok');
});

test('unopened it counts from the day of the rule, and not a day before; opened later that is known too', () => {
  const p = TestPacket.sent(plan([gets('wren'), gets('callum')]));
  expect(nextTick(p.state!)).toContain('2026-11-24');
  p.do({ type: 'tick', today: '2026-11-23', working: true });
  p.do({ type: 'tick', today: '2026-11-24', working: false });
  expect(p.state!.status).toBe('at_gate');
  p.do({ type: 'tick', today: '2026-11-24', working: true });
  expect([p.state!.status, p.state!.parties['wren']!.delivered?.how]).toEqual(['executed', 'deemed']);
  p.day = 4;
  expect(p.do({ type: 'open', partyId: 'callum' })).toBe('ok');
  expect(p.state!.parties['callum']).toMatchObject({ status: 'done', openedAt: expect.stringContaining('2026-11-27') });
  const before = p.events.length;
  p.do({ type: 'open', partyId: 'callum' });
  expect(p.events).toHaveLength(before);
});

test('what came back never counts by itself; a letter does, from its own day, or a new address', () => {
  const p = TestPacket.sent(plan([gets('wren'), gets('callum')]));
  p.do({ type: 'arrive', partyId: 'wren', channel: 'email' });
  for (const partyId of ['wren', 'callum'])
    p.do({ type: 'bounce', partyId, channel: 'email', why: 'No such mailbox.' });
  expect(p.state!.parties['wren']!.arrivedAt).toBeNull();
  expect([day(p, 'wren'), wantsLetter(p.state!, 'wren'), nextTick(p.state!)]).toEqual([null, true, null]);
  expect(holdUp(p.state!).sentence).toContain('Mail the letter');
  p.do({ type: 'tick', today: '2027-01-01', working: true });
  expect(p.state!.status).toBe('at_gate');
  p.day = 3;
  const letter = (on: string) => p.do({ type: 'letter', partyId: 'wren', day: on, way: 'post', today: p.today });
  expect([letter('2026-11-22'), letter('2026-11-27')]).toEqual(['bad_letter_day', 'bad_letter_day']);
  expect(letter('2026-11-26')).toBe('ok');
  // Thursday, and then three days on which people work.
  expect([day(p, 'wren'), wantsLetter(p.state!, 'wren')]).toEqual(['2026-12-01', false]);
  p.day = 4;
  p.do({ type: 'correct_party', partyId: 'callum', contact: { name: 'Callum', email: 'c@example.com', phone: null } });
  expect(day(p, 'callum')).toBe('2026-11-30');
});

test('who cannot be written to waits for a letter; handed over it counts at once', () => {
  const p = TestPacket.sent(plan([gets('wren', { email: '', phone: null })]));
  expect([wantsLetter(p.state!, 'wren'), holdUp(p.state!).sentence]).toEqual([
    true,
    expect.stringContaining('must be mailed'),
  ]);
  p.do({ type: 'letter', partyId: 'wren', day: p.today, way: 'hand', today: p.today });
  expect(day(p, 'wren')).toBe(p.today);
  p.do({ type: 'tick', today: p.today, working: true });
  expect(p.state!.status).toBe('executed');
});

test('signers behind it are asked once it is delivered', () => {
  const signer = party('tobias');
  const base = planOf([['tobias']]);
  const p = TestPacket.sent({
    ...base,
    parties: [gets('wren'), signer],
    gates: [
      { id: 'a', partyIds: ['wren'] },
      { id: 'b', partyIds: ['tobias'] },
    ],
  });
  p.do({ type: 'tick', today: '2026-11-24', working: true });
  expect([p.state!.gate, p.state!.parties['tobias']!.status]).toEqual([1, 'asked']);
});

test('property: whatever the order, a packet is executed when each has opened it or their day has come, and never before', () => {
  const act = fc.record({
    who: fc.constantFrom('a', 'b', 'c'),
    what: fc.constantFrom('open', 'bounce', 'letter', 'tick', 'later'),
  });
  fc.assert(
    fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
      const people = ['a', 'b', 'c'];
      const p = TestPacket.sent(plan(people.map((id) => gets(id))));
      const counted = new Map(
        people.map((id): [string, string | null] => [
          id,
          dueDay({ n: 1, unit: 'business_days', way: 'after', roll: true }, p.today, []).day,
        ]),
      );
      const has = new Set<string>();
      for (const { who, what } of acts) {
        const open = p.state!.status === 'at_gate';
        if (what === 'open') {
          p.do({ type: 'open', partyId: who });
          has.add(who);
        } else if (what === 'bounce') {
          if (
            p.do({ type: 'bounce', partyId: who, channel: 'email', why: 'gone' }) === 'ok' &&
            !p.state!.parties[who]!.letter
          )
            counted.set(who, null);
        } else if (what === 'letter') {
          const done = p.do({ type: 'letter', partyId: who, day: p.today, way: 'post', today: p.today });
          if (done === 'ok')
            counted.set(who, dueDay({ n: 3, unit: 'business_days', way: 'after', roll: true }, p.today, []).day);
        } else if (what === 'later') p.day++;
        else {
          p.do({ type: 'tick', today: p.today, working: true });
          if (open)
            for (const id of people) if (!has.has(id) && counted.get(id) && counted.get(id)! <= p.today) has.add(id);
        }
        expect(p.state!.status).toBe(has.size === 3 ? 'executed' : 'at_gate');
      }
    }),
    { numRuns: 300 },
  );
});

test('what is only delivered does not lapse with the last day for signing', () => {
  const schedule = { lastDay: '2026-11-24', warnDays: 0, nudge: null };
  const p = TestPacket.sent(plan([gets('wren', { email: '', phone: null })], [['wren']], { schedule }));
  p.do({ type: 'tick', today: '2026-12-24', working: true });
  expect([p.state!.status, nextTick(p.state!)]).toEqual(['at_gate', null]);
});
