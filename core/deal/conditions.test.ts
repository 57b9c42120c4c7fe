/** Conditions: how values compare, where a condition's limits lie, and how it reads as a sentence. */
import {
  CONDITION_LIMITS,
  compareWords,
  conditionFaults,
  conditionWords,
  factsByKey,
  factsIn,
  holds,
  type Compare,
  type Condition,
} from './index';

const FACTS = factsByKey([{ key: 'own.gate', label: 'Gate', type: 'text', kinds: ['sale'] }]);
const yes = (fact: string): Condition => ({ fact, compare: 'is', value: true });
const well: Condition = { fact: 'water', compare: 'is', value: 'well' };
const old: Condition = { fact: 'year_built', compare: 'before', value: 1978 };

test.each<[string, Compare, string | number | boolean, string | number | boolean, boolean]>([
  ['text in another case is the same', 'is', 'Iron', 'iRON', true],
  ['spaces around what is known do not count', 'is', '  iron ', 'iron', true],
  ['spaces around what it is compared with do not count', 'is', 'iron', ' iron  ', true],
  ['spaces within text count', 'is', 'iron gate', 'irongate', false],
  ['another text is not the same', 'is', 'iron', 'wood', false],
  ['text that differs only in case is not another', 'is_not', 'IRON', 'iron', false],
  ['numbers are the same by value', 'is', 3, 3, true],
  ['another number', 'is', 3, 4, false],
  ['another number, asked for', 'is_not', 3, 4, true],
  ['no is not yes', 'is', false, true, false],
  ['before the day itself is no', 'before', 1978, 1978, false],
  ['at least the day itself is yes', 'at_least', 1978, 1978, true],
])('%s', (_what, compare, known, value, is) =>
  expect(holds({ fact: 'own.gate', compare, value }, { 'own.gate': known })).toEqual({ is, hangs: [] }),
);

test('a comparison without a value answers nothing', () => {
  for (const compare of ['is', 'is_not', 'before', 'at_least'] as const)
    expect(holds({ fact: 'own.gate', compare }, { 'own.gate': 'iron' })).toEqual({ is: null, hangs: ['own.gate'] });
});

test('what is known is not what the answer hangs on, and each unknown fact is named once', () => {
  const c: Condition = { all: [yes('pets'), old, { any: [old, yes('furnished')] }] };
  expect(holds(c, { pets: true })).toEqual({ is: null, hangs: ['year_built', 'furnished'] });
});

test('every fact is found, however the condition is built, and each once', () => {
  const c: Condition = { all: [yes('pets'), { any: [old, { not: { all: [yes('tank'), old] } }] }] };
  expect(factsIn(c).sort()).toEqual(['pets', 'tank', 'year_built']);
  expect(factsIn({ all: [] })).toEqual([]);
  expect(factsIn(old)).toEqual(['year_built']);
});

test('a condition may be as deep and as wide as the limits say, and no more', () => {
  const nested = (steps: number, wrap: (c: Condition) => Condition) => {
    let c: Condition = old;
    for (let i = 1; i < steps; i++) c = wrap(c);
    return c;
  };
  const { depth, size } = CONDITION_LIMITS;
  for (const wrap of [
    (c: Condition): Condition => ({ not: c }),
    (c: Condition): Condition => ({ all: [c] }),
    (c: Condition): Condition => ({ any: [c] }),
  ]) {
    expect(conditionFaults(nested(depth, wrap), FACTS)).toEqual([]);
    expect(conditionFaults(nested(depth + 1, wrap), FACTS)).toHaveLength(1);
  }
  // The list itself counts as a part.
  const wide = (n: number) => conditionFaults({ any: Array.from({ length: n }, () => old) }, FACTS);
  expect(wide(size - 1)).toEqual([]);
  expect(wide(size)).toHaveLength(1);
  // Two lists that are too long are refused once.
  const list = { all: Array.from({ length: size }, () => old) };
  expect(conditionFaults({ any: [list, list] }, FACTS)).toHaveLength(1);
});

test.each<[string, unknown, string]>([
  ['a list that is none', { all: 'pets' }, 'This is not a condition.'],
  ['a list with something beside it', { all: [old], value: 1 }, 'This is not a condition.'],
  ['a “not” with something beside it', { not: old, fact: 'pets' }, 'This is not a condition.'],
  ['one key that is no part', { nor: old }, 'This is not a condition.'],
  ['a value alone', { value: 1 }, 'Choose a fact.'],
  ['a fact that is no text', { fact: 3, compare: 'is', value: 1 }, 'Choose a fact.'],
  ['a fact that is a list of one', { fact: ['pets'], compare: 'is', value: true }, 'Choose a fact.'],
  ['no comparison', { fact: 'pets', value: true }, 'Pets: choose how it is compared.'],
  ['a comparison that is none', { fact: 'pets', compare: 'like', value: true }, 'Pets: choose how it is compared.'],
  [
    'a choice has no order',
    { fact: 'water', compare: 'at_least', value: 'well' },
    'Water from has no order: choose “is” or “is not”.',
  ],
])('refused: %s', (_what, condition, words) => expect(conditionFaults(condition, FACTS)).toEqual([{ at: '', words }]));

test('“is” and “is not” need no order, and figures have one', () => {
  for (const compare of ['is', 'is_not']) expect(conditionFaults({ ...well, compare }, FACTS)).toEqual([]);
  for (const compare of ['before', 'at_least'])
    expect(conditionFaults({ fact: 'price', compare, value: 1 }, FACTS)).toEqual([]);
  expect(conditionFaults({ fact: 'pets', compare: 'unknown' }, FACTS)).toEqual([]);
});

test('days are before one another, figures are less', () => {
  const words = (type: 'year' | 'day' | 'number' | 'money') =>
    (['is', 'is_not', 'before', 'at_least', 'unknown'] as const).map((how) => compareWords(how, { type }));
  const days = ['is', 'is not', 'is before', 'is not before', 'is not known'];
  expect(words('year')).toEqual(days);
  expect(words('day')).toEqual(days);
  const figures = ['is', 'is not', 'is less than', 'is at least', 'is not known'];
  expect(words('number')).toEqual(figures);
  expect(words('money')).toEqual(figures);
});

test.each<[Condition, string]>([
  [old, 'Year built is before 1978'],
  [{ fact: 'price', compare: 'at_least', value: 412_000 }, 'Price is at least $412,000'],
  [{ all: [old, yes('pets')] }, 'Year built is before 1978 and Pets is yes'],
  [{ all: [old, { any: [yes('pets'), well] }] }, 'Year built is before 1978 and (Pets is yes or Water from is a well)'],
  // A list of one needs no brackets, neither outside nor within.
  [{ all: [{ any: [yes('pets')] }, old] }, 'Pets is yes and Year built is before 1978'],
  [{ all: [{ any: [yes('pets'), well] }] }, 'Pets is yes or Water from is a well'],
  [{ all: [] }, 'always'],
  [{ any: [] }, ''],
  [{ not: { any: [yes('pets'), well] } }, 'not (Pets is yes or Water from is a well)'],
  [{ not: old }, 'not (Year built is before 1978)'],
  [{ fact: 'year_built', compare: 'unknown' }, 'Year built is not known'],
  [{ not: { fact: 'year_built', compare: 'unknown' } }, 'Year built is known'],
  [{ not: { fact: 'gone', compare: 'unknown' } }, 'A fact is known'],
  [{ fact: 'gone', compare: 'is', value: 1 }, 'a fact that is gone'],
])('%j reads “%s”', (condition, words) => expect(conditionWords(condition, FACTS)).toBe(words));
