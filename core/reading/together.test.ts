/** Rows as a whole: the reading that explains most and contradicts least. */
import fc from 'fast-check';
import { readRow, waysOf, type Reading } from './together';
import { PLACE_ROLES, type PlaceRole } from './types';

const who = (r: Reading) => `${r.role} ${r.ordinal}`;
/** Returns the ways to read a blank, by how probable each is. */
const ways = (of: Record<string, number>): Reading[] =>
  Object.entries(of).map(([name, p]) => {
    const [role, n] = name.split(' ');
    return { role: role as PlaceRole, ordinal: Number(n), score: Math.log(p) };
  });

test('of two blanks that say the same person, the less certain one is the next person', () => {
  const row = [
    ways({ 'seller 1': 0.9, 'seller 2': 0.1 }),
    ways({ 'seller 2': 0.8, 'seller 1': 0.2 }),
    ways({ 'seller 2': 0.6, 'broker 1': 0.4 }),
  ];
  expect(readRow(row).map(who)).toEqual(['seller 1', 'seller 2', 'broker 1']);
});

test('a second without a first is read as the first, unless the page insists', () => {
  expect(readRow([ways({ 'buyer 2': 0.55, 'buyer 1': 0.45 }), ways({ 'seller 1': 1 })]).map(who)).toEqual([
    'buyer 1',
    'seller 1',
  ]);
  expect(readRow([ways({ 'buyer 2': 0.97, 'buyer 1': 0.03 }), ways({ 'seller 2': 1 })]).map(who)).toEqual([
    'buyer 2',
    'seller 2',
  ]);
});

test('a row that returns to a side after the other is read otherwise where it can be', () => {
  const row = [
    ways({ 'buyer 1': 1 }),
    ways({ 'buyer 2': 0.6, 'seller 1': 0.4 }),
    ways({ 'seller 1': 0.5, 'buyer 2': 0.5 }),
    ways({ 'seller 2': 1 }),
  ];
  expect(readRow(row).map(who)).toEqual(['buyer 1', 'buyer 2', 'seller 1', 'seller 2']);
  // Nobody is made up: what the page says without doubt stays, however it contradicts.
  const back = [ways({ 'buyer 1': 1 }), ways({ 'seller 1': 1 }), ways({ 'buyer 1': 1 })];
  expect(readRow(back).map(who)).toEqual(['buyer 1', 'seller 1', 'buyer 1']);
});

test('who is named with a number stays, also where the same person signs twice on one row', () => {
  const tenant = (spelled: boolean) =>
    ways({ 'tenant 1': 0.9, 'tenant 2': 0.1 }).map((w) => ({ ...w, spelled: spelled && w.ordinal === 1 }));
  expect(readRow([tenant(true), tenant(true)]).map(who)).toEqual(['tenant 1', 'tenant 1']);
  expect(readRow([tenant(true), tenant(false)]).map(who)).toEqual(['tenant 1', 'tenant 2']);
  const roles = PLACE_ROLES.map((r) => (r === 'tenant' ? 1 : 0));
  const read = (ordinal: number | null) =>
    waysOf(roles, () => [0.5, 0.5], { role: 'tenant', ordinal }).map((w) => w.spelled);
  expect(read(2)).toEqual([false, true]);
  expect(read(null)).toEqual([false, false]);
});

test('the blanks of a row that is too long to be searched are read one by one', () => {
  const blank = ways({ 'seller 1': 0.6, 'seller 2': 0.4 });
  expect(new Set(readRow(Array.from({ length: 30 }, () => blank)).map(who))).toEqual(new Set(['seller 1']));
  expect(readRow([blank, blank]).map(who)).toEqual(['seller 1', 'seller 2']);
});

const anyWays = fc.array(
  fc.record({
    role: fc.constantFrom(...PLACE_ROLES),
    ordinal: fc.integer({ min: 1, max: 5 }),
    score: fc.double({ min: -8, max: 0, noNaN: true }),
  }),
  { minLength: 1, maxLength: 20 },
);

test('every blank of a row is read in one of its ways, however long the row is', () => {
  fc.assert(
    fc.property(fc.array(anyWays, { minLength: 1, maxLength: 40 }), (row) => {
      const read = readRow(row);
      expect(read.length).toBe(row.length);
      read.forEach((r, i) => expect(row[i]).toContain(r));
    }),
  );
});

test('a blank is read as nobody without numbers, and as a role with its probable numbers', () => {
  const roles = PLACE_ROLES.map((r) => (r === 'seller' ? 0.7 : r === 'unknown' ? 0.29 : r === 'buyer' ? 0.01 : 0));
  const all = waysOf(roles, () => [0.9, 0.09, 0.01]);
  expect(all.map(who)).toEqual(['seller 1', 'seller 2', 'unknown 1']);
  expect(all[0]?.score).toBeCloseTo(Math.log(0.63));
});
