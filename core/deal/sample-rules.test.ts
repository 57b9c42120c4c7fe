/** Tests a sale under the sample rules: requirements, readiness and next steps. */
import fc from 'fast-check';
import { waitingPacket } from '../test/support';
import type { Side } from '../text';
import {
  changedNeeds,
  factsByKey,
  factsIn,
  figuresOf,
  KEY_DATES,
  needsOf,
  nextActs,
  readinessOf,
  ruleAsWaived,
  sampleRules,
  type KeyDates,
  type NeedsDeal,
  type PacketNow,
  type DealDocument,
  type Rule,
} from './index';

const FACTS = factsByKey();

const DEAL: NeedsDeal = {
  kind: 'sale',
  forWhom: 'seller',
  facts: { year_built: 1985, association: false, water: 'town', waste: 'sewer', tank: false, flood_zone: false },
  dates: { accepted: '2026-11-30', closing: '2027-01-04' },
  parties: [
    { id: 'wren', name: 'Wren Alder', side: 'seller', ordinal: 1 },
    { id: 'priya', name: 'Priya Nair', side: 'buyer', ordinal: 1 },
  ],
};
const RULES = sampleRules();
const needs = (deal: Partial<NeedsDeal> = {}, more: Partial<Parameters<typeof needsOf>[0]> = {}) =>
  needsOf({ deal: { ...DEAL, ...deal }, rules: RULES, papers: [], waivers: [], holidays: [], ...more });
const find = (n: ReturnType<typeof needs>, paper: string) => n.requirements.find((r) => r.paper === paper);
const lead: DealDocument = {
  documentId: 'd1',
  name: 'Lead paint',
  type: 'lead_paint',
  status: 'executed',
  packetId: 'p1',
  gaps: 0,
  signedBy: ['wren', 'priya'],
  signedFor: [],
  waits: '',
  on: '2026-12-01',
};

test('a year that turns out to be earlier adds the paper, its reason and its day', () => {
  expect(find(needs(), 'lead_paint')).toBeUndefined();
  const after = needs({ facts: { ...DEAL.facts, year_built: 1972 } });
  expect(find(after, 'lead_paint')).toMatchObject({
    reason: 'built before 1978',
    state: 'open',
    corner: 'needed',
    due: { day: '2026-12-03', why: 'Thu, Dec 3: 3 business days after Mon, Nov 30, no holiday between' },
  });
  expect(changedNeeds(needs(), after)).toEqual({ moved: [], added: ['Lead paint disclosure'], gone: [] });
});

test('a requirement is met by an executed paper without a gap that all its sides signed, and by nothing less', () => {
  const facts = { ...DEAL.facts, year_built: 1972 };
  const of = (paper: Partial<DealDocument>, parties = DEAL.parties) =>
    find(needs({ facts, parties }, { papers: [{ ...lead, ...paper }] }), 'lead_paint')!;
  expect(of({})).toMatchObject({ state: 'met', corner: 'executed', words: 'executed Tue, Dec 1, no gap' });
  expect(of({ gaps: 2 })).toMatchObject({ state: 'open', corner: 'out', words: 'executed with 2 gaps' });
  expect(of({ signedBy: ['wren'] })).toMatchObject({ state: 'open', words: 'executed without Priya' });
  expect(of({ signedBy: ['wren'] }, [DEAL.parties[0]!])).toMatchObject({
    state: 'open',
    words: 'executed, but there is no buyer 1',
  });
  // The firm's broker is not a party of the deal. Another person who signs for a seller does not count as the broker.
  const brokers = { signers: ['seller', 'listing_broker'] as Side[] };
  const own = (paper: Partial<DealDocument>, parties = [DEAL.parties[0]!]) =>
    find(
      needs(
        { facts, parties },
        { papers: [{ ...lead, signedBy: ['wren'], ...paper }], rules: RULES.map((r) => ({ ...r, ...brokers })) },
      ),
      'lead_paint',
    )!;
  expect(own({})).toMatchObject({ state: 'open', words: 'executed, but there is no listing broker' });
  expect(own({ signedFor: ['buyer_broker'] })).toMatchObject({ state: 'open' });
  expect(own({ signedFor: ['listing_broker'] })).toMatchObject({ state: 'met' });
  expect(own({ signedFor: ['seller', 'listing_broker'] }, [])).toMatchObject({
    words: 'executed, but there is no seller 1',
  });
  expect(of({ type: 'water' })).toMatchObject({ state: 'open', corner: 'needed', words: 'needed', documentId: null });
  expect(of({ status: 'out', waits: 'Priya has not opened it yet' })).toMatchObject({
    state: 'open',
    corner: 'out',
    words: 'out: Priya has not opened it yet',
  });
  expect(of({ status: 'draft', gaps: 1 })).toMatchObject({ corner: 'draft', words: 'in draft, 1 gap' });
  expect(of({ status: 'here', packetId: null })).toMatchObject({ corner: 'needed', words: 'here, in no packet yet' });
  expect(of({ status: 'elsewhere', signedBy: [] })).toMatchObject({ state: 'met', corner: 'executed' });
});

test('of several papers the one that is enough stands for the requirement', () => {
  const facts = { ...DEAL.facts, year_built: 1972 };
  const papers = [
    { ...lead, gaps: 1 },
    { ...lead, documentId: 'd2', status: 'elsewhere' as const },
    { ...lead, documentId: 'd3', status: 'draft' as const },
  ];
  expect(find(needs({ facts }, { papers }), 'lead_paint')).toMatchObject({ state: 'met', documentId: 'd2' });
});

test('a waiver holds while the facts behind it are what they were', () => {
  const waiver = {
    ruleId: 'sample-sale-lead_paint',
    reason: 'no paint',
    by: 'Odile',
    at: '2026-11-30T10:00:00Z',
    facts: { year_built: 1972 },
    rule: ruleAsWaived(RULES.find((r) => r.id === 'sample-sale-lead_paint')!),
  };
  const at = (year: number) =>
    find(needs({ facts: { ...DEAL.facts, year_built: year } }, { waivers: [waiver] }), 'lead_paint');
  expect(at(1972)).toMatchObject({ state: 'waived', corner: 'waived', words: 'waived by Odile: no paint' });
  expect(at(1960)).toMatchObject({ state: 'open', words: 'needed; waived by Odile before the facts changed' });
  expect(at(1990)).toBeUndefined();
  // The waiver ends when the rule's document, signers or condition change.
  const changed = (change: Partial<Rule>) =>
    needs(
      { facts: { ...DEAL.facts, year_built: 1972 } },
      { waivers: [waiver], rules: RULES.map((r) => (r.id === waiver.ruleId ? { ...r, ...change } : r)) },
    ).requirements.find((r) => r.ruleId === waiver.ruleId);
  for (const change of [
    { title: 'Flood zone notice' },
    { paper: 'water' },
    { signers: ['seller'] },
    { when: { fact: 'year_built', compare: 'before', value: 1980 } },
    { when: null },
  ] satisfies Partial<Rule>[])
    expect(changed(change)).toMatchObject({ state: 'open', words: 'needed; waived by Odile before the rule changed' });
  for (const change of [{ reason: 'an old house' }, { signers: ['buyer', 'seller'] }] satisfies Partial<Rule>[])
    expect(changed(change)).toMatchObject({ state: 'waived' });
});

test('a fact that is not known is asked for where a rule hangs on it', () => {
  const n = needs({ facts: {} });
  expect(n.asked.map((a) => a.fact)).toEqual(expect.arrayContaining(['year_built', 'association', 'water', 'tank']));
  expect(n.asked.find((a) => a.fact === 'year_built')!.papers).toEqual(['Lead paint disclosure']);
  expect(needs({ facts: { ...DEAL.facts } }).asked.map((a) => a.fact)).not.toContain('year_built');
});

test('moving a key date moves exactly what hangs on it', () => {
  const rules: fc.Arbitrary<Rule[]> = fc
    .array(
      fc.record({
        date: fc.constantFrom(...KEY_DATES.filter((d) => ['accepted', 'inspection', 'closing', 'loan'].includes(d))),
        n: fc.integer({ min: 0, max: 20 }),
        way: fc.constantFrom<'after' | 'before'>('after', 'before'),
      }),
      { minLength: 1, maxLength: 8 },
    )
    .map((list) =>
      list.map(({ date, n, way }, i) => ({
        ...RULES[0]!,
        id: `r${i}`,
        kinds: ['sale'],
        title: `Paper ${i}`,
        // Without rolling to a business day, a due date moves by as many days as the date it is counted from.
        due: { n, unit: 'days', way, roll: false, from: date },
      })),
    );
  const dates: KeyDates = {
    accepted: '2026-11-30',
    inspection: '2026-12-09',
    closing: '2027-01-04',
    loan: '2026-12-18',
  };
  fc.assert(
    fc.property(
      rules,
      fc.constantFrom<'accepted' | 'inspection' | 'closing' | 'loan'>('accepted', 'inspection', 'closing', 'loan'),
      fc.integer({ min: 1, max: 40 }),
      (list, moved, by) => {
        const before = needs({ dates }, { rules: list });
        const to = new Date(Date.parse(`${dates[moved]}T00:00Z`) + by * 86_400_000).toISOString().slice(0, 10);
        const after = needs({ dates: { ...dates, [moved]: to } }, { rules: list });
        const hang = list.filter((r) => r.due!.from === moved).map((r) => r.title);
        const change = changedNeeds(before, after);
        expect(change.moved.map((m) => m.title).sort()).toEqual([...hang].sort());
        expect([...change.added, ...change.gone]).toEqual([]);
        for (const m of change.moved) expect(Date.parse(m.to!) - Date.parse(m.from!)).toBe(by * 86_400_000);
      },
    ),
  );
});

test('readiness is a sentence with a figure', () => {
  const facts = { ...DEAL.facts, year_built: 1972 };
  const at = (n: ReturnType<typeof needs>, today: string) => readinessOf(figuresOf(n), DEAL, today).sentence;
  const n = needs({ facts }, { papers: [lead] });
  expect(at(n, '2026-11-30')).toBe('1 of 4 done. Needed before closing: Purchase agreement and 2 more.');
  expect(at(n, '2026-12-03')).toBe('1 of 4 done. Purchase agreement is late.');
  expect(readinessOf({ met: 4, of: 4, open: [] }, DEAL, '2026-12-03').sentence).toBe('All 4 papers are done.');
  expect(readinessOf({ met: 0, of: 0, open: [] }, DEAL, '2026-12-03').sentence).toBe('The rules require nothing yet.');
  const move = readinessOf(
    { met: 0, of: 1, open: [{ title: 'Lease', day: null }] },
    { kind: 'tenancy', dates: {} },
    '2026-12-03',
  );
  expect(move.sentence).toBe('0 of 1 done. Needed before move-in: Lease.');
});

const acts = (packets: PacketNow[], n = needs(), me = 'odile@example.com', today = '2026-12-04') =>
  nextActs({ kind: 'sale', needs: n, packets, own: [], me, today });

test('what is next: verb first, what presses most first', () => {
  const late = needs({ facts: { ...DEAL.facts, year_built: 1972 } });
  const [first] = acts([waitingPacket()], late, undefined, '2026-12-10');
  expect(first).toMatchObject({ act: { do: 'bring' }, title: 'Add the purchase agreement', due: '2026-12-02' });
  const nudge = acts([waitingPacket()]).find((a) => a.act.do === 'nudge')!;
  expect(nudge).toMatchObject({ title: 'Nudge Priya', detail: 'Purchase papers: has not opened it, 3 days' });
  expect(acts([waitingPacket()], undefined, undefined, '2026-12-01').some((a) => a.act.do === 'nudge')).toBe(false);
  expect(acts([waitingPacket()], undefined, 'priya@example.com').find((a) => a.act.do === 'sign')!.title).toBe(
    'Sign Purchase papers',
  );
  const back = waitingPacket({ waits: [{ ...waitingPacket().waits[0]!, bounced: true }] });
  expect(acts([back])[0]).toMatchObject({ title: 'Correct Priya’s address', act: { do: 'address' } });
  const asked = waitingPacket({
    questions: [{ id: 'q', partyId: 'priya', name: 'Priya Nair', day: '2026-12-03', text: 'x'.repeat(200) }],
  });
  expect(acts([asked])[0]!.title).toBe('Answer Priya');
  expect(acts([asked])[0]!.detail.length).toBeLessThan(90);
  expect(acts([waitingPacket({ status: 'drafting', waits: [] })]).find((a) => a.act.do === 'send')!.title).toBe(
    'Continue with Purchase papers',
  );
  const unknown = needs({ facts: {}, dates: {} });
  expect(acts([], unknown).find((a) => a.act.do === 'fact' && a.act.fact === 'year_built')!.detail).toBe(
    'Lead paint disclosure hangs on it',
  );
  expect(acts([], unknown).find((a) => a.act.do === 'date')!.title).toBe('Set the day: accepted');
  const both = acts([waitingPacket(), { ...asked, id: 'p2' }], unknown);
  expect(new Set(both.map((a) => a.id)).size).toBe(both.length);
});

test('every fact a sample rule names is one the house asks for', () => {
  for (const r of RULES) for (const f of r.when ? factsIn(r.when) : []) expect(FACTS.has(f)).toBe(true);
});

test('a paper that is out, in draft or waived is nobody’s to add; one that is here is put into a packet', () => {
  const facts = { ...DEAL.facts, year_built: 1972 };
  const leadActs = (paper: Partial<DealDocument> | null) =>
    acts([], needs({ facts }, { papers: paper ? [{ ...lead, ...paper }] : [] }))
      .filter((a) => a.title.includes('lead paint'))
      .map((a) => a.act.do);
  expect(leadActs(null)).toEqual(['bring']);
  expect(leadActs({ status: 'here', packetId: null })).toEqual(['prepare']);
  for (const status of ['out', 'draft', 'executed', 'elsewhere'] as const) expect(leadActs({ status })).toEqual([]);
  const ruleId = 'sample-sale-lead_paint';
  const rule = ruleAsWaived(RULES.find((r) => r.id === ruleId)!);
  const waiver = { ruleId, reason: 'x', by: 'Odile', at: '2026-11-30T10:00:00Z', facts: { year_built: 1972 }, rule };
  const waived = acts([], needs({ facts }, { waivers: [waiver] }));
  expect(waived.filter((a) => a.title.includes('lead paint'))).toEqual([]);
});
