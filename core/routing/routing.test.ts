import { HAND, TestPacket as Packet } from '../test/packet';
import { mark, party, planOf } from '../test/support';
import { activity, holdUp, shownFills } from './index';
import { gatesOfPattern, type Plan } from '../packet';

const sent = (plan: Plan): Packet => {
  const p = new Packet();
  expect(p.do({ type: 'send', plan })).toBe('ok');
  return p;
};

test('gates open one after the other, and the last one executes the packet', () => {
  const p = sent(planOf([['wren', 'callum'], ['tobias']]));
  expect(p.state!.parties['tobias']!.status).toBe('waiting');
  expect(p.do({ type: 'open', partyId: 'tobias' })).toBe('not_your_turn');
  expect(p.signAll('wren')).toBe('ok');
  expect(p.state!.gate).toBe(0);
  expect(holdUp(p.state!).sentence).toBe('Callum has not opened it yet.');
  expect(p.signAll('callum')).toBe('ok');
  expect(p.state!.gate).toBe(1);
  expect(p.state!.parties['tobias']!.status).toBe('asked');
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
  expect(fill('wren-d')).toBe('fills_itself');
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
  expect(p.do({ type: 'decline', partyId: 'wren', reason: '  ' })).toBe('reason_wanted');
  expect(p.do({ type: 'decline', partyId: 'wren', reason: 'The price is wrong' })).toBe('ok');
  expect(p.signAll('callum')).toBe('ended_declined');
  expect(activity(p.events)[0]!.sentence).toContain('The price is wrong');
  const q = sent(planOf([['wren']]));
  expect(q.do({ type: 'withdraw', reason: 'New terms' })).toBe('ok');
  expect(q.do({ type: 'open', partyId: 'wren' })).toBe('ended_withdrawn');
});

test('whoever approves holds the gate without marks; copies never hold one', () => {
  const p = sent(planOf([['attorney'], ['escrow'], ['wren']], { attorney: 'approve', escrow: 'copy' }));
  p.do({ type: 'agree', partyId: 'attorney', agreement: '1' });
  expect(p.do({ type: 'finish', partyId: 'attorney', actId: 'f', dateText: 'x' })).toBe('ok');
  expect(p.state!.gate).toBe(2);
  expect(p.state!.parties['escrow']!.status).toBe('asked');
});

test('a copy at sending goes out at once and never holds; one at the end waits', () => {
  const plan = planOf([['wren']]);
  const copies = [party('escrow', { act: 'copy', copyAt: 'sending' }), party('lender', { act: 'copy' })];
  const p = sent({ ...plan, parties: [...plan.parties, ...copies] });
  expect([p.state!.parties['escrow']!.status, p.state!.parties['lender']!.status]).toEqual(['asked', 'waiting']);
  expect(p.do({ type: 'open', partyId: 'escrow' })).toBe('ok');
  expect(p.do({ type: 'finish', partyId: 'escrow', actId: 'f', dateText: 'x' })).toBe('not_your_turn');
  expect(p.signAll('wren')).toBe('ok');
  expect(p.state!.status).toBe('executed');
});

test('who signs at the desk needs a host, and the host is remembered', () => {
  const p = sent(planOf([['wren']], { wren: 'desk' }));
  expect(p.do({ type: 'agree', partyId: 'wren', agreement: '2' })).toBe('host_wanted');
  expect(p.do({ type: 'host', partyId: 'wren', hostName: 'Odile Farrant' })).toBe('ok');
  expect(p.signAll('wren')).toBe('ok');
  expect(p.state!.parties['wren']!.hostName).toBe('Odile Farrant');
});

test('what was sealed once stays: after a change only the new initials can be given', () => {
  const p = sent(planOf([['wren'], ['callum']]));
  p.signAll('wren');
  const due = () => p.state!.due.map((d) => d.partyId);
  expect(due()).toEqual(['wren']);
  p.do({ type: 'revise', forSeq: p.state!.due[0]!.seq, documents: [] });
  const redline = { id: 'r', documentId: 'doc', page: 1, kind: 'strike' as const, rects: [], text: 'x', moved: [] };
  const initials = (id: string) => ({ ...mark(`r.${id}`, id, 'initials'), redlineId: 'r' });
  expect(p.do({ type: 'correct', redline, marks: [initials('wren')] })).toBe('bad_plan');
  expect(p.do({ type: 'correct', redline, marks: ['wren', 'callum'].map(initials) })).toBe('ok');
  // Sent twice, it is one change.
  expect(p.do({ type: 'correct', redline, marks: ['wren', 'callum'].map(initials) })).toBe('ok');
  expect([p.state!.corrections.length, p.state!.corrections[0]!.askedAgain, due()]).toEqual([1, ['wren'], [null]]);
  expect(holdUp(p.state!).sentence).toContain('Waiting for');
  p.signAll('callum');
  expect(p.state!.status).toBe('at_gate');
  expect(holdUp(p.state!).sentence).toBe('Wren has to initial a change: 1 place.');
  p.signAll('wren');
  expect([p.state!.status, due()]).toEqual(['executed', [null, 'callum', 'wren']]);
});

test('what an earlier seal holds is not written over when somebody is asked again', () => {
  const plan = planOf([['wren'], ['callum']]);
  const note = { ...mark('wren-note', 'wren', 'text'), required: false };
  const p = sent({ ...plan, marks: [...plan.marks, note] });
  p.do({ type: 'open', partyId: 'wren' });
  p.do({ type: 'agree', partyId: 'wren', agreement: '1' });
  const write = (text: string) => p.do({ type: 'fill', partyId: 'wren', markId: 'wren-note', text, actId: text });
  const written = () => p.state!.fills.get('wren-note')?.value;
  expect([write('the shed stays'), write('the shed goes')]).toEqual(['ok', 'ok']);
  p.signAll('wren');
  p.do({ type: 'revise', forSeq: p.state!.due[0]!.seq, documents: [] });
  const redline = { id: 'r', documentId: 'doc', page: 1, kind: 'strike' as const, rects: [], text: 'x', moved: [] };
  const initials = (id: string) => ({ ...mark(`r.${id}`, id, 'initials'), redlineId: 'r' });
  expect(p.do({ type: 'correct', redline, marks: ['wren', 'callum'].map(initials) })).toBe('ok');
  expect(write('the shed burns')).toBe('already_done');
  expect(write('')).toBe('already_done');
  expect(written()).toEqual({ text: 'the shed goes' });
});

test('handing over takes a name, an address and a reason, and a phone number where the code goes to one', () => {
  const handOver = (secondStep: 'phone' | 'email' | undefined, contact: object, reason = 'my lawyer signs') => {
    const plan = planOf([['wren']]);
    const parties = plan.parties.map((x) => ({ ...x, ...(secondStep ? { secondStep } : {}) }));
    const p = sent({ ...plan, parties, handOver: true });
    p.do({ type: 'open', partyId: 'wren' });
    const whole = { name: 'Ana Ruiz', email: 'ana@example.com', phone: null, company: '', capacity: '', ...contact };
    return p.do({ type: 'hand_over', partyId: 'wren', contact: whole, reason });
  };
  expect(handOver(undefined, {})).toBe('ok');
  expect(handOver('email', {})).toBe('ok');
  expect(handOver('phone', {})).toBe('bad_contact');
  expect(handOver('phone', { phone: '' })).toBe('bad_contact');
  expect(handOver('phone', { phone: '555-0123' })).toBe('ok');
  expect(handOver(undefined, { name: ' ' })).toBe('bad_contact');
  expect(handOver(undefined, { email: 'ana' })).toBe('bad_contact');
  expect(handOver(undefined, {}, ' ')).toBe('reason_wanted');
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
  const ids = (pattern: Parameters<typeof gatesOfPattern>[0]) =>
    gatesOfPattern(pattern, parties, () => `g${n++}`).map((g) => g.partyIds);
  expect(ids('together')).toEqual([['buyer', 'wren', 'callum', 'broker']]);
  expect(ids('one_by_one')).toEqual([['wren'], ['callum'], ['broker'], ['buyer']]);
  expect(ids('by_side')).toEqual([['wren', 'callum'], ['broker'], ['buyer']]);
});
