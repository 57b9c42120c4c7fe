/** What is next in a deal: which act, in which words, with which weight. */
import { waitingPacket } from '../test/support';
import { daysWords, nextActs, type FactDef, type Needs, type PacketNow, type Requirement } from './index';

const TODAY = '2026-12-04';
const ME = 'odile@example.com';
const NOTHING: Needs = { requirements: [], asked: [] };
const wait = (change: Partial<PacketNow['waits'][number]> = {}) => ({ ...waitingPacket().waits[0]!, ...change });
const requirement = (change: Partial<Requirement> = {}): Requirement => ({
  ruleId: 'r1',
  paper: 'lead_paint',
  title: 'Lead paint disclosure',
  reason: 'built before 1978',
  state: 'open',
  corner: 'needed',
  words: 'needed',
  due: null,
  dueHangsOn: null,
  documentId: null,
  packetId: null,
  signers: ['seller'],
  waiver: null,
  ...change,
});
const acts = (packets: PacketNow[], needs = NOTHING, own: FactDef[] = [], today = TODAY) =>
  nextActs({ kind: 'sale', needs, packets, own, me: ME, today });
const about = { detail: 'Purchase papers: has not opened it, 3 days', due: null, since: '2026-12-01' };
const part = { packetId: 'p1', partyId: 'priya' };

test('days in words', () => {
  expect([-1, 0, 1, 2, 30].map(daysWords)).toEqual(['today', 'today', 'since yesterday', '2 days', '30 days']);
});

test('somebody who is waited for: a nudge after a day, the heavier the longer, up to a week', () => {
  const nudge = { id: 'nudge p1 priya', act: { do: 'nudge', ...part }, title: 'Nudge Priya', ...about, weight: 54 };
  expect(acts([waitingPacket()])).toEqual([nudge]);
  const since = (day: string) => acts([waitingPacket({ waits: [wait({ since: day })] })]);
  expect(since('2026-12-04')).toEqual([]);
  expect(since('2026-12-03')[0]).toMatchObject({ weight: 48, detail: expect.stringContaining('since yesterday') });
  expect(since('2026-11-01')[0]!.weight).toBe(65);
});

test('the nearer the last day, the heavier; beyond two weeks and two months late it makes no more difference', () => {
  const last = (day: string) => acts([waitingPacket({ lastDay: day })])[0]!;
  expect(last('2026-12-04')).toMatchObject({ due: '2026-12-04', weight: 54 + 14 });
  expect(last('2026-12-11').weight).toBe(54);
  expect(last('2026-12-18').weight).toBe(54 - 14);
  expect(last('2027-12-18').weight).toBe(54 - 14);
  expect(last('2026-12-01').weight).toBe(54 + 20);
  expect(last('2020-01-01').weight).toBe(54 + 120);
});

test('a message that came back, a member who is to sign, and somebody at the desk each have an act of their own', () => {
  const due = '2026-12-09';
  const rush = 4;
  const of = (change: Partial<PacketNow['waits'][number]>) =>
    acts([waitingPacket({ lastDay: due, waits: [wait({ since: TODAY, ...change })] })]);
  const now = { due, since: TODAY };
  expect(of({ bounced: true, email: ME })).toEqual([
    {
      ...now,
      id: 'address p1 priya',
      act: { do: 'address', ...part },
      title: 'Correct Priya’s address',
      detail: 'Purchase papers: the message came back',
      weight: 88 + rush,
    },
  ]);
  expect(of({ email: ME, desk: true })).toEqual([
    {
      ...now,
      id: 'sign p1 priya',
      act: { do: 'sign', ...part },
      title: 'Sign Purchase papers',
      detail: 'waiting for you, today',
      weight: 80 + rush,
    },
  ]);
  expect(of({ desk: true })).toEqual([
    {
      ...now,
      id: 'host p1 priya',
      act: { do: 'host', ...part },
      title: 'Let Priya sign at the desk',
      detail: 'Purchase papers: has not opened it, today',
      weight: 50 + rush,
    },
  ]);
  // Without an address nobody is the member who looks, whoever looks.
  const nobody = waitingPacket({ waits: [wait({ email: '' })] });
  expect(
    nextActs({ kind: 'sale', needs: NOTHING, packets: [nobody], own: [], me: '', today: TODAY }).map((a) => a.act.do),
  ).toEqual(['nudge']);
});

test('a packet that is over asks for nothing but answers; a draft is gone on with', () => {
  const questions = [
    { id: 'q', partyId: 'priya', name: 'Priya Nair', day: '2026-12-02', text: 'Is the shed part of it?' },
  ];
  const answer = {
    id: 'answer p1 q',
    act: { do: 'answer', packetId: 'p1', questionId: 'q', partyId: 'priya', text: 'Is the shed part of it?' },
    title: 'Answer Priya',
    detail: '“Is the shed part of it?”',
    due: null,
    since: '2026-12-02',
    weight: 92,
  };
  for (const status of ['executed', 'declined', 'withdrawn', 'lapsed'] as const)
    expect(acts([waitingPacket({ status, questions })])).toEqual([answer]);
  expect(acts([waitingPacket({ status: 'drafting', questions })])).toEqual([
    answer,
    {
      id: 'send p1',
      act: { do: 'send', packetId: 'p1' },
      title: 'Continue with Purchase papers',
      detail: 'in draft, 4 days',
      due: null,
      since: '2026-11-30',
      weight: 40,
    },
  ]);
});

test('a question of eighty letters is shown whole, a longer one is cut; it gains weight for nine days', () => {
  const of = (text: string, day = TODAY) =>
    acts([waitingPacket({ waits: [], questions: [{ id: 'q', partyId: 'p', name: 'Priya Nair', day, text }] })])[0]!;
  expect(of('x'.repeat(80)).detail).toBe(`“${'x'.repeat(80)}”`);
  expect(of('x'.repeat(81)).detail).toBe(`“${'x'.repeat(79)}…”`);
  expect([of('x').weight, of('x', '2026-11-25').weight, of('x', '2026-10-01').weight]).toEqual([90, 99, 99]);
});

test('a paper that is needed is added, one that is here goes into a packet, and no other asks for anything', () => {
  const of = (change: Partial<Requirement>) => acts([], { requirements: [requirement(change)], asked: [] });
  const day = { day: '2026-12-07', why: '' };
  const common = { detail: 'built before 1978', due: '2026-12-07', since: null };
  expect(of({ due: day })).toEqual([
    {
      ...common,
      id: 'bring r1',
      act: { do: 'bring', ruleId: 'r1' },
      title: 'Add the lead paint disclosure',
      weight: 67,
    },
  ]);
  expect(of({ due: day, documentId: 'd1' })).toEqual([
    {
      ...common,
      id: 'prepare r1',
      act: { do: 'prepare', ruleId: 'r1', documentId: 'd1', name: 'Lead paint disclosure' },
      title: 'Put the lead paint disclosure into a packet',
      weight: 69,
    },
  ]);
  expect(of({ due: null })[0]).toMatchObject({ due: null, weight: 55 });
  expect(of({ signers: [] })[0]!.detail).toBe('built before 1978; no one signs it');
  expect(of({ signers: [], reason: '' })[0]!.detail).toBe('no one signs it');
  for (const corner of ['draft', 'out', 'executed', 'waived'] as const) expect(of({ corner })).toEqual([]);
  for (const state of ['met', 'waived'] as const) expect(of({ state })).toEqual([]);
});

test('facts that are not known are asked for with what hangs on them; days and facts that are gone are not', () => {
  const own: FactDef[] = [{ key: 'own.gate', label: 'Gate code', type: 'text', kinds: ['sale'] }];
  const of = (fact: string, papers: string[]) => acts([], { requirements: [], asked: [{ fact, papers }] }, own);
  expect(of('own.gate', ['Lease'])).toEqual([
    {
      id: 'fact own.gate',
      act: { do: 'fact', fact: 'own.gate' },
      title: 'Fill in: gate code',
      detail: 'Lease hangs on it',
      due: null,
      since: null,
      weight: 33,
    },
  ]);
  const many = of('pets', ['A', 'B', 'C', 'D', 'E', 'F', 'G']);
  expect(many[0]).toMatchObject({ detail: 'A, B and C hang on it', weight: 45 });
  expect(of('date.closing', ['A'])).toEqual([]);
  expect(of('own.gone', ['A'])).toEqual([]);
});

test('a day that open requirements are counted from is asked for once', () => {
  const hanging = (n: number, change: Partial<Requirement> = {}) =>
    Array.from({ length: n }, (_, i) =>
      requirement({ ruleId: `r${i}`, title: `Paper ${i + 1}`, corner: 'out', dueHangsOn: 'closing', ...change }),
    );
  const of = (requirements: Requirement[]) => acts([], { requirements, asked: [] });
  expect(of(hanging(1))).toEqual([
    {
      id: 'date closing',
      act: { do: 'date', date: 'closing' },
      title: 'Set the day: closing',
      detail: 'Paper 1 is counted from it',
      due: null,
      since: null,
      weight: 30,
    },
  ]);
  expect(of(hanging(7))).toMatchObject([{ detail: 'Paper 1, Paper 2 and Paper 3 are counted from it', weight: 38 }]);
  expect(of(hanging(2, { state: 'met' }))).toEqual([]);
  expect(of(hanging(2, { dueHangsOn: null }))).toEqual([]);
});

test('the heaviest comes first, and of two alike the one whose name comes first', () => {
  const packets = ['b', 'a', 'c'].map((id) => waitingPacket({ id, lastDay: id === 'c' ? '2026-12-04' : null }));
  expect(acts(packets).map((a) => a.id)).toEqual(['nudge c priya', 'nudge a priya', 'nudge b priya']);
});
