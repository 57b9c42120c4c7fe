/** Tests tags of written forms: the list of tags, formatted values, and values used by conditions. */
import type { FactDef, FactValue } from '../deal';
import { ENGLISH, type Words } from '../words';
import es from '../words/es.json';
import { tagDefs, tagFact, tagWords, valueIn, type TagDef, type TagValues } from './index';

const SPANISH: Words = { language: 'es', messages: es };
const OWN: FactDef[] = [
  { key: 'own.area', label: 'Area', type: 'number', unit: 'sq ft', kinds: ['sale'] },
  { key: 'own.heat', label: 'Heat', type: 'choice', options: [{ value: 'oil', label: 'oil' }], kinds: ['sale'] },
  { key: 'own.note', label: 'Note', type: 'text', kinds: ['sale'] },
];
const byKey = (own?: FactDef[]) => new Map(tagDefs(own).map((t) => [t.key, t]));
const TAGS = byKey(OWN);
const values = (facts: Record<string, FactValue> = {}): TagValues => ({
  facts: new Map(Object.entries(facts)),
  people: new Map([['tenant', ['Wren Alder', 'Ines Moor']]]),
});
const words = (key: string, facts: Record<string, FactValue> = {}) =>
  tagWords(key, TAGS.get(key), values(facts), ENGLISH);

test('tags are listed in the order deal, facts, paper, people, repeated person', () => {
  const from = tagDefs(OWN).map((t) => t.from);
  expect(from.slice(0, 4)).toEqual(['deal', 'deal', 'firm', 'firm']);
  const changes = from.filter((f, i) => f !== from[i - 1]);
  expect(changes).toEqual(['deal', 'firm', 'deal', 'paper', 'people']);
  expect(tagDefs().at(-1)).toEqual({
    key: 'each.name',
    label: 'Name, in a repeated part',
    type: 'text',
    from: 'people',
  });
  expect(byKey().has('own.area')).toBe(false);
});

test('the tag of a fact has the fact’s type, unit and choices', () => {
  expect(OWN.map((f) => TAGS.get(f.key))).toEqual([
    { key: 'own.area', label: 'Area', type: 'number', unit: 'sq ft', from: 'deal' },
    { key: 'own.heat', label: 'Heat', type: 'choice', options: [{ value: 'oil', label: 'oil' }], from: 'deal' },
    { key: 'own.note', label: 'Note', type: 'text', from: 'deal' },
  ]);
});

test('each side has one tag for all names and four for single names', () => {
  const of = (side: string) => tagDefs().filter((t) => t.key.split('.')[1] === side);
  expect(of('tenant')).toEqual([
    { key: 'people.tenant', label: 'All names: tenant', type: 'names', from: 'people' },
    ...[1, 2, 3, 4].map((n) => ({
      key: `person.tenant.${n}`,
      label: `Name of Tenant ${n}`,
      type: 'text',
      from: 'people',
    })),
  ]);
  expect(of('listing_broker')).toHaveLength(5);
  expect(of('other')).toEqual([]);
});

test.each<[Partial<TagDef>, FactValue, string]>([
  [{ type: 'number', unit: 'sq ft' }, 1250, '1,250 sq ft'],
  [{ type: 'number', unit: '%' }, 2.5, '2.5%'],
  [{ type: 'number' }, 0.123456, '0.1235'],
  [{ type: 'number' }, 'about ten', 'about ten'],
  [{ type: 'money' }, 1450.5, '$1,450.50'],
  [{ type: 'money' }, 'by the month', 'by the month'],
  [{ type: 'money' }, false, 'no'],
  [{ type: 'names' }, 'Wren Alder', 'Wren Alder'],
  [{ type: 'names' }, 3, '3'],
  [{ type: 'choice', options: [{ value: 'oil', label: 'heating oil' }] }, 'oil', 'heating oil'],
])('with %j, %j is formatted as %s', (def, value, written) => {
  expect(valueIn(ENGLISH, { type: 'text', ...def }, value)).toBe(written);
});

test('numbers follow the paper’s language; amounts stay in dollars', () => {
  expect(valueIn(SPANISH, { type: 'number', unit: 'm' }, 12_345.5)).toBe('12.345,5 m');
  expect(valueIn(SPANISH, { type: 'money' }, 12_345.5)).toBe('$12.345,50');
});

test('a tag shows a fact, one name or all names, or nothing if unknown', () => {
  expect(words('own.area', { 'own.area': 10 })).toBe('10 sq ft');
  expect(words('own.area', { 'own.area': 0 })).toBe('0 sq ft');
  expect(words('own.note', { 'own.note': '' })).toBeNull();
  expect(words('own.note')).toBeNull();
  // The value of a deleted tag.
  expect(words('own.gone', { 'own.gone': 'x' })).toBeNull();
  expect([1, 2, 3].map((n) => words(`person.tenant.${n}`))).toEqual(['Wren Alder', 'Ines Moor', null]);
  expect(words('people.tenant')).toBe('Wren Alder and Ines Moor');
  for (const key of ['people.seller', 'people.cat', 'people', 'person.cat.1', 'person.tenant', 'person.tenant.0'])
    expect(words(key)).toBeNull();
});

test('a condition tests whether people exist, and the value of a fact', () => {
  const fact = (key: string) => tagFact(key, values({ rent: 1450, person: 'x', 'own.person': 'y' }));
  expect([fact('people.tenant'), fact('people.seller'), fact('people.cat')]).toEqual([true, false, false]);
  expect([1, 2, 3].map((n) => fact(`person.tenant.${n}`))).toEqual([true, true, false]);
  expect([fact('rent'), fact('own.person'), fact('deposit')]).toEqual([1450, 'y', undefined]);
});
