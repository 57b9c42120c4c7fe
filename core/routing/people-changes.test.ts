import { mark, planOf } from '../test/support';
import { buildLedger } from '../packet';
import { activity, holdUp, marksThatCount, readsAlong, shownFills } from './index';
import { TestPacket } from '../test/packet';

const told = (p: TestPacket) => activity(p.events).map((l) => l.sentence);

test('somebody who has done nothing is taken out: their marks go, and the gate that waited for them alone passes', () => {
  const p = TestPacket.sent(planOf([['wren'], ['callum'], ['tobias']]));
  expect(p.do({ type: 'drop_party', partyId: 'wren', reason: ' ' })).toBe('reason_wanted');
  expect(p.do({ type: 'drop_party', partyId: 'wren', reason: 'She sold her share.' })).toBe('ok');
  expect(p.state).toMatchObject({ gate: 1, parties: { wren: { status: 'dropped' }, callum: { status: 'asked' } } });
  expect(p.state!.plan.marks.some((m) => m.partyId === 'wren')).toBe(false);
  expect(told(p)).toContain('Odile Farrant removed Wren Alder from the packet: “She sold her share.”');
  // Twice at once is once.
  const length = p.events.length;
  expect(p.do({ type: 'drop_party', partyId: 'wren', reason: 'Again' })).toBe('ok');
  expect(p.events).toHaveLength(length);
  // Nothing of theirs is possible any more.
  expect(p.do({ type: 'open', partyId: 'wren' })).toBe('not_your_turn');
  expect(p.do({ type: 'ask_question', partyId: 'wren', questionId: 'q', text: 'Why?' })).toBe('not_your_turn');
  expect(p.do({ type: 'renew_link', partyId: 'wren' })).toBe('unknown_party');
  // Somebody ahead leaves with their gate.
  expect(p.do({ type: 'drop_party', partyId: 'tobias', reason: 'The other broker signs.' })).toBe('ok');
  expect(p.state!.plan.gates).toHaveLength(2);
  expect(p.do({ type: 'drop_party', partyId: 'callum', reason: 'Nobody' })).toBe('bad_plan');
  expect(p.signAll('callum')).toBe('ok');
  expect(p.state!.status).toBe('executed');
});

test('of two at one gate the other still holds it, also where any one of them is enough', () => {
  for (const need of [undefined, 'any' as const]) {
    const plan = planOf([['wren', 'callum'], ['tobias']]);
    const p = TestPacket.sent({ ...plan, gates: plan.gates.map((g, i) => (i || !need ? g : { ...g, need })) });
    expect(p.do({ type: 'drop_party', partyId: 'wren', reason: 'Sold' })).toBe('ok');
    expect([p.state!.gate, holdUp(p.state!).partyIds]).toEqual([0, ['callum']]);
    expect(p.signAll('callum')).toBe('ok');
    expect(p.state!.gate).toBe(1);
  }
});

test('who has put anything on a page stays', () => {
  const p = TestPacket.sent(planOf([['wren', 'callum']]));
  p.signAll('wren');
  expect(p.do({ type: 'drop_party', partyId: 'wren', reason: 'Sold' })).toBe('has_acted');
  expect(p.do({ type: 'change_marks', partyId: 'wren', put: [], drop: ['wren-i'] })).toBe('has_acted');
});

test('marks are moved, put and taken away; a page without its initials is one that was left out by hand', () => {
  const p = TestPacket.sent(planOf([['wren'], ['callum']]));
  const change = (put: ReturnType<typeof mark>[], drop: string[]) =>
    p.do({ type: 'change_marks', partyId: 'callum', put, drop });
  const ledger = () =>
    buildLedger({
      documents: [{ id: 'doc', pageCount: 1 }],
      partyIds: ['callum'],
      marks: marksThatCount(p.state!),
      rules: [],
      leftOut: p.state!.plan.leftOut ?? [],
      filled: new Set(),
    });
  const free = { x: 400, y: 300, w: 100, h: 24 };
  expect(change([], ['callum-i'])).toBe('ok');
  expect(p.state!.plan.leftOut).toEqual([{ documentId: 'doc', page: 1, partyId: 'callum' }]);
  expect(ledger()).toMatchObject({ gaps: 0 });
  expect(change([mark('new', 'callum', 'initials', 1, free)], [])).toBe('ok');
  expect(p.state!.plan.leftOut).toEqual([]);
  // What would make a bad page, or somebody else's, is refused and changes nothing.
  const before = p.state;
  expect(change([mark('x', 'callum', 'text', 1, free)], [])).toBe('bad_plan');
  expect(change([mark('new', 'callum', 'initials', 1, { ...free, y: 340 })], [])).toBe('bad_plan');
  expect(change([mark('x', 'wren', 'text', 1, { ...free, y: 340 })], [])).toBe('bad_plan');
  expect(change([mark('wren-s', 'callum', 'text', 1, { ...free, y: 340 })], [])).toBe('bad_plan');
  expect(change([mark('x', 'callum', 'text', 9, free)], [])).toBe('bad_plan');
  expect(change([mark('x', 'callum', 'text', 1, { x: 600, y: 300, w: 100, h: 20 })], [])).toBe('bad_plan');
  expect(change([mark('x', 'callum', 'label', 1, { ...free, y: 340 })], [])).toBe('bad_plan');
  expect(change([], ['wren-s'])).toBe('not_your_mark');
  expect(change([], ['new', 'callum-s'])).toBe('bad_plan');
  expect(p.state).toBe(before);
  p.signAll('wren');
  p.signAll('callum');
  expect(shownFills(p.state!).map((f) => f.markId)).toEqual(
    expect.arrayContaining(['new', 'callum-s', 'callum-d', 'wren-s']),
  );
  expect(told(p)).toEqual(
    expect.arrayContaining([
      'Odile Farrant took 1 mark of Callum Alder’s away.',
      'Odile Farrant put 1 mark for Callum Alder on the pages.',
    ]),
  );
});

test('what somebody ahead does is changed; who was asked already is not', () => {
  const p = TestPacket.sent(planOf([['wren'], ['callum'], ['tobias']]));
  const act = (partyId: string, to: 'sign' | 'approve' | 'copy', marks: ReturnType<typeof mark>[] = []) =>
    p.do({ type: 'change_act', partyId, act: to, gates: p.state!.plan.gates, marks });
  expect(act('wren', 'approve')).toBe('bad_plan');
  expect(act('callum', 'approve')).toBe('ok');
  expect(p.state!.plan.marks.some((m) => m.partyId === 'callum')).toBe(false);
  expect(act('callum', 'sign')).toBe('bad_plan');
  expect(act('callum', 'sign', [mark('again', 'callum', 'signature')])).toBe('ok');
  expect(act('tobias', 'copy')).toBe('ok');
  p.signAll('wren');
  expect(p.signAll('callum')).toBe('ok');
  // A gate where only a copy is handed out holds nobody.
  expect(p.state!.status).toBe('executed');
  expect(told(p)).toContain('Odile Farrant changed what Callum Alder does: approves.');
});

test('those ahead read along while the sender lets them, and are told once', () => {
  const p = TestPacket.sent({ ...planOf([['wren'], ['callum'], ['tobias']]), readAlong: true });
  const shown = () => p.events.filter((e) => e.body.type === 'shown').length;
  expect([shown(), readsAlong(p.state!, 'callum'), readsAlong(p.state!, 'wren')]).toEqual([2, true, false]);
  p.do({ type: 'set_reading', allowed: false });
  expect(readsAlong(p.state!, 'callum')).toBe(false);
  p.do({ type: 'set_reading', allowed: true });
  expect([shown(), readsAlong(p.state!, 'callum')]).toEqual([2, true]);
  p.signAll('wren');
  expect([readsAlong(p.state!, 'callum'), readsAlong(p.state!, 'tobias')]).toEqual([false, true]);
});
