/** Facts: which values they take, how they read, and how deals stand. */
import {
  dateOfKey,
  DEAL_STATUSES,
  factWords,
  forWhomWords,
  FOR_WHOM_OF,
  isOver,
  MOST_FACT_TEXT,
  moneyWords,
  sidesOf,
  wrongWith,
  type FactDef,
} from './index';

const def = (type: FactDef['type'], more: Partial<FactDef> = {}) => ({ label: 'It', type, ...more });
const wells = def('choice', {
  options: [
    { value: 'town', label: 'the town' },
    { value: 'well', label: 'a well' },
  ],
});

test.each<[FactDef['type'], unknown[], unknown[], string]>([
  ['flag', [true, false], ['yes', 1, 0, null, undefined], 'It: say yes or no.'],
  ['year', [1000, 1972, 2200], [999, 2201, 1972.5, '1972', NaN, null], 'It: write a year, like 1972.'],
  ['number', [0, 3, 2.5, 1e12], [-1, 1e12 + 1, '3', NaN, Infinity, null, [3]], 'It: write a figure, like 3.'],
  ['money', [0, 412_000, 0.01, 1e12], [-0.01, 1e12 + 1, '1', NaN, null, [3]], 'It: write a figure, like 412,000.'],
  [
    'day',
    ['2026-11-30', '2028-02-29'],
    ['2026-02-30', '30 Nov', 20261130, null, ['2026-11-30']],
    'It: write a day, like 2026-11-30.',
  ],
  [
    'text',
    ['x', 'x'.repeat(MOST_FACT_TEXT)],
    ['', '  ', 'x'.repeat(MOST_FACT_TEXT + 1), 3, null, ['x']],
    'It: write at most 200 letters.',
  ],
])('%s takes what suits it and nothing else', (type, right, wrong, words) => {
  for (const value of right) expect([value, wrongWith(def(type), value)]).toEqual([value, null]);
  for (const value of wrong) expect([value, wrongWith(def(type), value)]).toEqual([value, words]);
});

test('a choice takes one of its values, and names them; without any it takes none', () => {
  expect(wrongWith(wells, 'well')).toBeNull();
  for (const value of ['a well', 'Well', '', null, 0])
    expect(wrongWith(wells, value)).toBe('It: choose one of “the town”, “a well”.');
  expect(wrongWith(def('choice'), 'well')).toBe('It: choose one of .');
});

test('values in words', () => {
  expect(moneyWords(1_250.5)).toBe('$1,250.50');
  expect(moneyWords(0)).toBe('$0');
  // Only the cents at the end are left out.
  expect(moneyWords(1_000_000)).toBe('$1,000,000');
  expect(moneyWords(100.01)).toBe('$100.01');
  expect(factWords(wells, 'well')).toBe('a well');
  expect(factWords(wells, 'spring')).toBe('spring');
  expect(factWords(def('choice'), 'spring')).toBe('spring');
  expect(factWords(def('number', { unit: 'months' }), 6)).toBe('6 months');
  expect(factWords(def('number'), 6)).toBe('6');
  expect(factWords(def('money'), 6)).toBe('$6');
  // A value of another type, kept from before its fact changed.
  expect(factWords(def('money'), 'much')).toBe('much');
  expect(factWords(def('text'), true)).toBe('yes');
});

test('keys of days name their key date, and no other key does', () => {
  expect(dateOfKey('date.closing')).toBe('closing');
  expect(dateOfKey('date.move_in')).toBe('move_in');
  for (const key of ['closing', 'date.', 'date.never', 'date.date.closing', 'closingdate.', ''])
    expect(dateOfKey(key)).toBeNull();
});

test('which deals are over', () => {
  expect(DEAL_STATUSES.filter(isOver)).toEqual(['closed', 'fell_through', 'ended']);
});

test('for whom the firm acts, in words, and the sides of a deal once each', () => {
  expect(forWhomWords('both')).toBe('for both sides');
  expect(forWhomWords('buyer')).toBe('for the buyer');
  for (const kind of ['listing', 'sale', 'tenancy'] as const)
    for (const whom of FOR_WHOM_OF[kind]) {
      const sides = sidesOf(kind, whom);
      expect(new Set(sides).size).toBe(sides.length);
      expect(sides).toHaveLength(kind === 'tenancy' ? 6 : 5);
      expect(sides).toContain('other');
    }
  expect(sidesOf('sale', 'buyer')).toEqual(['buyer', 'buyer_broker', 'seller', 'listing_broker', 'other']);
});
