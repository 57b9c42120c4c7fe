/** Generated forms: the same from the same seed, labeled as they are written, and of every layout. */
import { PLACE_KINDS, PLACE_ROLES } from '@gatepath/core/reading';
import { LABEL } from '../blank';
import { writeForm } from './form';
import { FEET } from './initialing';
import { randomOf } from './random';
import { SIGNING } from './signing';

const SEEDS = Array.from({ length: 300 }, (_, i) => i);
const labelsOf = (html: string) =>
  [...html.matchAll(new RegExp(`href="${LABEL}([^"]*)"`, 'g'))].map(
    (m) => m[1]!.split('/') as [string, string, string],
  );

test('the same seed writes the same form, and another one another', () => {
  for (const seed of SEEDS.slice(0, 20)) expect(writeForm(seed)).toEqual(writeForm(seed));
  expect(new Set(SEEDS.map((s) => writeForm(s).html)).size).toBe(SEEDS.length);
});

test('every blank says its kind, and whose it is by role and number together', () => {
  const isLabel = ([kind, role, ordinal]: [string, string, string]) =>
    (PLACE_KINDS as readonly string[]).includes(kind) &&
    (role === '-' ? ordinal === '-' : (PLACE_ROLES as readonly string[]).includes(role) && Number(ordinal) > 0);
  const labels = SEEDS.flatMap((seed) => labelsOf(writeForm(seed).html));
  expect(labels.length).toBeGreaterThan(10 * SEEDS.length);
  expect(labels.filter((l) => !isLabel(l))).toEqual([]);
});

test('somebody signs on every form, and initials count the people of each role', () => {
  for (const seed of SEEDS) {
    const all = labelsOf(writeForm(seed).html);
    expect(all.some(([kind]) => kind === 'signature')).toBe(true);
    const most = (kind: string, of: string) =>
      Math.max(0, ...all.filter(([k, role]) => k === kind && role === of).map(([, , n]) => Number(n)));
    for (const role of PLACE_ROLES) expect(most('initials', role)).toBeLessThanOrEqual(4);
  }
});

test('every layout of signatures and of feet occurs', () => {
  const forms = SEEDS.map(writeForm);
  expect(new Set(forms.flatMap((f) => f.signing))).toEqual(new Set(SIGNING));
  expect(new Set(forms.map((f) => f.foot))).toEqual(new Set(FEET));
});

test('random choices stay in their bounds and follow their weights', () => {
  const r = randomOf(5);
  const drawn = Array.from({ length: 4_000 }, () =>
    r.weighted([
      ['a', 3],
      ['b', 1],
    ] as const),
  );
  const share = drawn.filter((x) => x === 'a').length / drawn.length;
  expect(share).toBeGreaterThan(0.7);
  expect(share).toBeLessThan(0.8);
  const numbers = Array.from({ length: 500 }, () => r.int(2, 5));
  expect(new Set(numbers)).toEqual(new Set([2, 3, 4, 5]));
  expect(r.shuffled([1, 2, 3, 4, 5]).sort()).toEqual([1, 2, 3, 4, 5]);
});
