/** Tests conditions on facts, values of facts, and rules. */
import fc from 'fast-check';
import {
  conditionFaults,
  conditionWords,
  factsByKey,
  factWords,
  holds,
  isOurs,
  ruleFaults,
  sampleRules,
  sidesOf,
  termWords,
  wrongWith,
  type Condition,
  type Facts,
} from './index';

const FACTS = factsByKey();
const yes = (fact: string): Condition => ({ fact, compare: 'is', value: true });
const old: Condition = { fact: 'year_built', compare: 'before', value: 1978 };

test.each<[Condition, Facts, boolean | null, string[]]>([
  [old, { year_built: 1972 }, true, []],
  [old, { year_built: 1985 }, false, []],
  [old, { year_built: 1978 }, false, []],
  [old, {}, null, ['year_built']],
  [{ fact: 'year_built', compare: 'unknown' }, {}, true, []],
  [{ fact: 'year_built', compare: 'unknown' }, { year_built: 1972 }, false, []],
  [{ not: { fact: 'year_built', compare: 'unknown' } }, { year_built: 1972 }, true, []],
  [{ fact: 'units', compare: 'at_least', value: 3 }, { units: 3 }, true, []],
  [{ fact: 'units', compare: 'at_least', value: 3 }, { units: 2 }, false, []],
  [{ fact: 'water', compare: 'is_not', value: 'town' }, { water: 'well' }, true, []],
  [{ fact: 'date.closing', compare: 'before', value: '2027-01-01' }, { 'date.closing': '2026-12-30' }, true, []],
  // What does not matter any more is not asked for.
  [{ all: [old, yes('pets')] }, { year_built: 1990 }, false, []],
  [{ all: [old, yes('pets')] }, { year_built: 1972 }, null, ['pets']],
  [{ any: [old, yes('pets')] }, { year_built: 1972 }, true, []],
  [{ any: [old, yes('pets')] }, { pets: false }, null, ['year_built']],
  [{ any: [old, yes('pets')] }, {}, null, ['year_built', 'pets']],
  [{ not: { any: [old, yes('pets')] } }, { year_built: 1985, pets: false }, true, []],
  // A value of another type is unknown, whichever way it is compared, and a sure answer beside it still decides.
  [old, { year_built: 'old' }, null, ['year_built']],
  [yes('pets'), { pets: 'yes' }, null, ['pets']],
  [{ fact: 'units', compare: 'is_not', value: 3 }, { units: '3' }, null, ['units']],
  [{ not: old }, { year_built: 'old' }, null, ['year_built']],
  [{ all: [old, yes('pets')] }, { year_built: 'old', pets: false }, false, []],
  [{ all: [old, yes('pets')] }, { pets: false }, false, []],
  [{ any: [old, yes('pets')] }, { pets: true }, true, []],
  [yes('constructor'), {}, null, ['constructor']],
])('%j over %j', (condition, facts, is, hangs) => expect(holds(condition, facts)).toEqual({ is, hangs }));

const leaf = fc.constantFrom<Condition>(
  old,
  yes('pets'),
  yes('association'),
  { fact: 'units', compare: 'at_least', value: 3 },
  { fact: 'pets', compare: 'unknown' },
);
const condition = fc.letrec<{ c: Condition }>((tie) => ({
  c: fc.oneof(
    { maxDepth: 4 },
    leaf,
    fc.array(tie('c'), { minLength: 1, maxLength: 3 }).map((all) => ({ all })),
    fc.array(tie('c'), { minLength: 1, maxLength: 3 }).map((any) => ({ any })),
    tie('c').map((not) => ({ not })),
  ),
})).c;
const full = fc.record({
  year_built: fc.integer({ min: 1900, max: 2020 }),
  pets: fc.boolean(),
  association: fc.boolean(),
  units: fc.integer({ min: 1, max: 6 }),
});

test('with everything known there is an answer; an answer never changes when more becomes known', () => {
  fc.assert(
    fc.property(condition, full, fc.subarray(['year_built', 'association', 'units']), (c, facts, gone) => {
      const partly = Object.fromEntries(Object.entries(facts).filter(([k]) => !gone.includes(k)));
      const all = holds(c, facts);
      expect(all.is).not.toBeNull();
      const some = holds(c, partly);
      // (“Not known” asks about knowing itself; `pets` is always known here.)
      if (some.is !== null) expect(some.is).toBe(all.is);
      else for (const f of some.hangs) expect(gone).toContain(f);
      expect(conditionFaults(c, FACTS).filter((x) => !x.words.includes('deeper'))).toEqual([]);
      expect(conditionWords(c, FACTS)).not.toBe('');
    }),
  );
});

test('mistakes in a condition are named where they stand', () => {
  const wrong = {
    all: [
      old,
      { any: [] },
      { not: { fact: 'nothing', compare: 'is', value: 1 } },
      { fact: 'year_built', compare: 'is' },
    ],
  };
  expect(conditionFaults(wrong, FACTS)).toEqual([
    { at: '1', words: 'This group is empty. Add a fact, or remove the group.' },
    { at: '2.0', words: 'Choose a fact.' },
    { at: '3', words: 'Year built: say with what it is compared.' },
  ]);
  const of = (c: unknown) => conditionFaults(c, FACTS)[0]?.words;
  expect(of({ fact: 'pets', compare: 'before', value: true })).toContain('has no order');
  expect(of({ fact: 'year_built', compare: 'is', value: 'old' })).toBe('Year built: write a year, like 1972.');
  expect(of({ fact: 'water', compare: 'is', value: 'wine' })).toContain('choose one of');
  expect(of({ fact: 'pets', compare: 'unknown', value: true })).toContain('takes no value');
  expect(of({ fact: 'pets', compare: 'is', value: true, more: 1 })).toBe('This is not a condition.');
  for (const c of [null, 1, 'x', [], {}, { all: 1 }, { all: [], any: [] }]) expect(of(c)).toBeTruthy();
});

test('a condition ten thousand deep, or as wide, is refused and not gone into', () => {
  let deep: object = old;
  for (let i = 0; i < 10_000; i++) deep = { not: deep };
  expect(conditionFaults(deep, FACTS)).toHaveLength(1);
  expect(conditionFaults(deep, FACTS)[0]!.words).toContain('deeper than 8');
  const wide = conditionFaults({ all: Array.from({ length: 10_000 }, () => old) }, FACTS);
  expect(wide).toEqual([{ at: '59', words: 'There are more than 60 parts. Write it as two rules.' }]);
});

test('values must suit their facts, and are told in words', () => {
  const def = (key: string) => FACTS.get(key)!;
  expect(wrongWith(def('year_built'), 1972)).toBeNull();
  for (const bad of ['1972', 19.72, 99, null, true]) expect(wrongWith(def('year_built'), bad)).not.toBeNull();
  expect(wrongWith(def('price'), -1)).not.toBeNull();
  expect(wrongWith(def('price'), Infinity)).not.toBeNull();
  expect(wrongWith(def('price_words'), ' ')).not.toBeNull();
  expect(wrongWith(def('date.closing'), '2026-02-30')).not.toBeNull();
  expect(factWords(def('price'), 412_000)).toBe('$412,000');
  expect(factWords(def('rent'), 1_250.5)).toBe('$1,250.50');
  expect(factWords(def('water'), 'well')).toBe('a well');
  expect(factWords(def('commission'), 5)).toBe('5 %');
  expect(factWords(def('pets'), false)).toBe('no');
});

test('the side the firm acts for is ours, and is asked for first', () => {
  expect(sidesOf('sale', 'buyer').slice(0, 2)).toEqual(['buyer', 'buyer_broker']);
  expect(sidesOf('tenancy', 'landlord')[0]).toBe('landlord');
  expect(isOurs('seller', 'listing_broker')).toBe(true);
  expect(isOurs('seller', 'buyer')).toBe(false);
  expect(isOurs('both', 'buyer')).toBe(true);
});

test('the sample sets are sound, and say what they ask for', () => {
  const rules = sampleRules();
  expect(new Set(rules.map((r) => r.id)).size).toBe(rules.length);
  for (const r of rules) {
    expect(ruleFaults(r, FACTS)).toEqual([]);
    expect(r.sample).toBe(true);
  }
  const lead = rules.find((r) => r.id === 'sample-sale-lead_paint')!;
  expect(conditionWords(lead.when!, FACTS)).toBe('Year built is before 1978');
  expect(termWords(lead.due!)).toBe('3 business days after the offer is accepted');
});

test('a rule that cannot be kept says what is wrong in which part', () => {
  const faults = ruleFaults(
    {
      kinds: [],
      when: { fact: 'x', compare: 'is' },
      paper: 'poem',
      title: ' ',
      signers: ['king'],
      due: {},
      reason: '',
    },
    FACTS,
  );
  expect(faults.map((f) => f.part)).toEqual(['kinds', 'when', 'paper', 'title', 'reason', 'signers', 'due']);
  const lease = { ...sampleRules()[0]!, kinds: ['tenancy'] };
  expect(ruleFaults(lease, FACTS)).toEqual([
    { part: 'due', at: '', words: 'A tenancy does not have this date: it is listed.' },
  ]);
});
