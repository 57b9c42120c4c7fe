/** Tests requirements and readiness: states, order, wording, and due dates that change. */
import {
  changedNeeds,
  dueOf,
  factsBehind,
  factsOf,
  figuresOf,
  needsOf,
  readinessOf,
  ruleAsWaived,
  type Needs,
  type NeedsDeal,
  type DealDocument,
  type Requirement,
  type Rule,
  type Term,
} from './index';

const DEAL: NeedsDeal = {
  kind: 'sale',
  forWhom: 'seller',
  facts: {},
  dates: { accepted: '2026-11-30', closing: '2027-01-04' },
  parties: [{ id: 'wren', name: 'Wren Alder', side: 'seller', ordinal: 1 }],
};
const term: Term = { n: 3, unit: 'days', way: 'after', roll: false, from: 'accepted' };
const rule = (change: Partial<Rule> = {}): Rule => ({
  id: 'r1',
  kinds: ['sale'],
  when: null,
  paper: 'lead_paint',
  title: 'Lead paint disclosure',
  signers: ['seller'],
  due: term,
  reason: 'an old house',
  on: true,
  sample: false,
  ...change,
});
const paper = (change: Partial<DealDocument> = {}): DealDocument => ({
  documentId: 'd1',
  name: 'Lead paint',
  type: 'lead_paint',
  status: 'executed',
  packetId: 'p1',
  gaps: 0,
  signedBy: ['wren'],
  signedFor: [],
  waits: '',
  on: null,
  ...change,
});
const needs = (rules: Rule[], papers: DealDocument[] = [], more: Partial<Parameters<typeof needsOf>[0]> = {}) =>
  needsOf({ deal: DEAL, rules, papers, waivers: [], holidays: [], ...more });
const one = (papers: DealDocument[], change: Partial<Rule> = {}) => needs([rule(change)], papers).requirements[0]!;

test('rules that are off, or for another kind of deal, ask for nothing', () => {
  expect(needs([rule({ on: false })]).requirements).toEqual([]);
  expect(needs([rule({ kinds: ['tenancy'] })]).requirements).toEqual([]);
  expect(needs([rule({ kinds: ['tenancy', 'sale'] })]).requirements).toHaveLength(1);
});

test('what rules may ask about beside facts, and the facts behind a rule', () => {
  const facts = factsOf({ ...DEAL, facts: { pets: true } });
  expect(facts).toEqual({
    pets: true,
    kind: 'sale',
    for_whom: 'seller',
    'date.accepted': '2026-11-30',
    'date.closing': '2027-01-04',
  });
  expect(factsBehind({ when: null }, facts)).toEqual({});
  const both: Rule['when'] = {
    all: [
      { fact: 'pets', compare: 'is', value: true },
      { fact: 'units', compare: 'at_least', value: 3 },
    ],
  };
  expect(factsBehind({ when: both }, facts)).toEqual({ pets: true, units: null });
});

test('a waiver ends when any one of the facts behind it changes, and is told only where it is none', () => {
  const when: Rule['when'] = {
    any: [
      { fact: 'pets', compare: 'is', value: true },
      { fact: 'units', compare: 'at_least', value: 3 },
    ],
  };
  const r = rule({ when });
  const waiver = {
    ruleId: 'r1',
    reason: 'no need',
    by: 'Odile',
    at: '2026-11-30T10:00:00Z',
    facts: { pets: true, units: 3 },
    rule: ruleAsWaived(r),
  };
  const at = (facts: NeedsDeal['facts'], papers: DealDocument[] = []) =>
    needs([rule({ id: 'r0', title: 'Another paper', paper: 'water' }), r], papers, {
      deal: { ...DEAL, facts },
      waivers: [waiver],
    }).requirements;
  const said = { reason: 'no need', by: 'Odile', at: waiver.at };
  expect(at({ pets: true, units: 3 })[1]).toMatchObject({ state: 'waived', waiver: said });
  expect(at({ pets: true, units: 4 })[1]).toMatchObject({ state: 'open', waiver: null });
  expect(at({ pets: true })[1]).toMatchObject({ state: 'open', waiver: null });
  // A waiver is of its own rule alone.
  expect(at({ pets: true, units: 3 })[0]).toMatchObject({ title: 'Another paper', state: 'open', words: 'needed' });
  // The paper is in all the same: then nothing is done without.
  expect(at({ pets: true, units: 3 }, [paper()])[1]).toMatchObject({
    state: 'met',
    waiver: null,
    words: 'executed, no gap',
  });
});

test('facts that are not known: what most hangs on comes first, then by their keys', () => {
  const asks = (fact: string, title: string) => rule({ id: title, title, when: { fact, compare: 'is', value: true } });
  const n = needs([asks('tank', 'A'), asks('pets', 'B'), asks('flood_zone', 'C'), asks('tank', 'D')]);
  expect(n.asked).toEqual([
    { fact: 'tank', papers: ['A', 'D'] },
    { fact: 'flood_zone', papers: ['C'] },
    { fact: 'pets', papers: ['B'] },
  ]);
  expect(needs([asks('tank', 'A')], [], { deal: { ...DEAL, facts: { tank: true } } }).asked).toEqual([]);
});

test('when it is due hangs on its day, while there is none or none that can be counted from', () => {
  expect(one([])).toMatchObject({ due: { day: '2026-12-03' }, dueHangsOn: null });
  expect(one([], { due: null })).toMatchObject({ due: null, dueHangsOn: null });
  expect(one([], { due: { ...term, from: 'loan' } })).toMatchObject({ due: null, dueHangsOn: 'loan' });
  expect(dueOf(null, DEAL.dates, [])).toBeNull();
  expect(dueOf(term, {}, [])).toBeNull();
  expect(dueOf(term, { accepted: 'soon' }, [])).toBeNull();
  expect(dueOf(term, DEAL.dates, [])?.day).toBe('2026-12-03');
});

test('soonest due first, what has no day last, then by title', () => {
  const at = (id: string, n: number | null, title = id) => rule({ id, title, due: n === null ? null : { ...term, n } });
  const n = needs([at('d', null), at('c', 9), at('b', 1, 'same'), at('a', 1, 'same'), at('e', 1, 'first')]);
  expect(n.requirements.map((r) => r.ruleId)).toEqual(['e', 'a', 'b', 'c', 'd']);
});

test('a paper that nobody has to sign is enough once it is here, and stands ahead of none', () => {
  expect(one([paper({ status: 'here', packetId: null, signedBy: [] })], { signers: [] })).toMatchObject({
    state: 'met',
    words: 'here',
    documentId: 'd1',
    packetId: null,
  });
  expect(one([paper({ status: 'here' })])).toMatchObject({ state: 'open', packetId: 'p1' });
});

test('of papers that are not enough the one that has come furthest is told of', () => {
  const all = (['here', 'draft', 'out'] as const).map((status, i) => paper({ status, documentId: `d${i}` }));
  expect(one(all)).toMatchObject({ documentId: 'd2', words: 'out', corner: 'out' });
  expect(one(all.slice(0, 2))).toMatchObject({ documentId: 'd1', words: 'in draft', corner: 'draft' });
  // Of two that stand alike, the newer.
  expect(one([paper({ documentId: 'd1' }), paper({ documentId: 'd2' })])).toMatchObject({ documentId: 'd2' });
});

test.each<[Partial<DealDocument>, string]>([
  [{ on: '2026-12-01' }, 'executed Tue, Dec 1, no gap'],
  [{ status: 'elsewhere', on: '2026-12-01' }, 'signed elsewhere Tue, Dec 1'],
  [{ status: 'elsewhere' }, 'signed elsewhere'],
  [{ gaps: 2 }, 'executed with 2 gaps'],
  [{ status: 'out', waits: 'waits for Priya' }, 'out: waits for Priya'],
  [{ status: 'draft', gaps: 1 }, 'in draft, 1 gap'],
  [{ status: 'here' }, 'here, in no packet yet'],
])('%j is told as “%s”', (change, words) => expect(one([paper(change)]).words).toBe(words));

const requirement = (change: Partial<Requirement>): Requirement => ({ ...one([]), ...change });

test('figures count neither what is waived nor what is in as open', () => {
  const day = { day: '2026-12-03', why: '' };
  const all: Needs = {
    requirements: [
      requirement({ title: 'A', state: 'met', due: day }),
      requirement({ title: 'B', state: 'waived', due: day }),
      requirement({ title: 'C', state: 'open', due: day }),
      requirement({ title: 'D', state: 'open', due: null }),
    ],
    asked: [],
  };
  expect(figuresOf(all)).toEqual({
    met: 1,
    of: 3,
    open: [
      { title: 'C', day: '2026-12-03' },
      { title: 'D', day: null },
    ],
  });
});

test('what is open stands before the goal unless it is due after it; a day late is late, the day itself is not', () => {
  const open = (...days: (string | null)[]) => days.map((day, i) => ({ title: `Paper ${i + 1}`, day }));
  const of = (days: (string | null)[], dates: NeedsDeal['dates'] = DEAL.dates, today = '2026-12-03') =>
    readinessOf({ met: 1, of: days.length + 1, open: open(...days) }, { kind: 'sale', dates }, today);
  expect(of(['2027-01-04', '2027-01-05', null]).before).toEqual(['Paper 1', 'Paper 3']);
  expect(of(['2027-01-04', '2027-01-05', null], {}).before).toEqual(['Paper 1', 'Paper 2', 'Paper 3']);
  expect(of(['2026-12-02', '2026-12-03', null]).late).toEqual(['Paper 1']);
  expect(of(['2027-01-05']).sentence).toBe('1 of 2 done.');
  expect(of([null]).sentence).toBe('1 of 2 done. Needed before closing: Paper 1.');
  expect(of([null, null]).sentence).toBe('1 of 3 done. Needed before closing: Paper 1 and Paper 2.');
  expect(of([null, null, null]).sentence).toBe('1 of 4 done. Needed before closing: Paper 1 and 2 more.');
  expect(of(['2026-12-01', '2026-12-02']).sentence).toBe('1 of 3 done. Paper 1 and Paper 2 are late.');
  expect(readinessOf({ met: 1, of: 1, open: [] }, DEAL, '2026-12-03').sentence).toBe('The one paper it needs is done.');
  expect(readinessOf({ met: 2, of: 2, open: [] }, DEAL, '2026-12-03').sentence).toBe('All 2 papers are done.');
});

test('a change tells what came, what went, and what moved from which day to which', () => {
  const at = (id: string, n: number | null) =>
    rule({ id, title: `Paper ${id}`, due: n === null ? null : { ...term, n } });
  const before = needs([at('a', 1), at('b', 2), at('c', null), at('d', 4), at('e', null)]);
  const after = needs([at('a', 1), at('b', 5), at('c', 3), at('d', null), at('f', 1)]);
  const { moved, added, gone } = changedNeeds(before, after);
  expect(moved.sort((x, y) => x.title.localeCompare(y.title))).toEqual([
    { title: 'Paper b', from: '2026-12-02', to: '2026-12-05' },
    { title: 'Paper c', from: null, to: '2026-12-03' },
    { title: 'Paper d', from: '2026-12-04', to: null },
  ]);
  expect([added, gone]).toEqual([['Paper f'], ['Paper e']]);
});
