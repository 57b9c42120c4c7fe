/** Tests when a word counts as unchanged: printed words must be identical; scanned words may be misread, except figures, names and negations. */
import { hasFigure, isGuarded, likeness, onlyDivided, type Likeness } from './alike';
import type { Token } from './tokens';

const token = (text: string, change: Partial<Token> = {}): Token =>
  ({ text, exact: text, key: text, page: 1, line: 0, scan: false, begins: false, ends: false, ...change }) as Token;
const scanned = (text: string) => token(text, { scan: true });

test.each<[string, string]>([
  ['manager', 'rnanager'],
  ['Bond', 'bond'],
  ['premises', 'premises,'],
  ['tenant’s', 'tenants'],
  ['document', 'docurnent'],
])('in print, %s and %s are different words', (a, b) => {
  expect(likeness(token(a), token(b))).toBe('differs');
  expect(likeness(token(a), token(a))).toBe('same');
});

test.each<[string, string, Likeness]>([
  // Case and surrounding punctuation.
  ['premises', 'Premises', 'slight'],
  ['premises', '"premises,"', 'slight'],
  ['premises', '(premises);', 'slight'],
  ['and', 'And', 'slight'],
  ['tenant’s', 'tenants', 'slight'],
  ['café', 'cafe', 'differs'],
  // Similar-looking letters: one in a word of 5 to 8 letters, two in a longer word.
  ['house', 'hovse', 'differs'],
  ['house', 'honse', 'slight'],
  ['hunt', 'hnnt', 'differs'],
  ['burner', 'bumer', 'slight'],
  ['document', 'docurnent', 'slight'],
  ['dwelling', 'dvvelling', 'slight'],
  ['nineties', 'uiueties', 'differs'],
  ['annoyances', 'auuoyances', 'slight'],
  ['announcement', 'auuouncement', 'slight'],
  ['announcement', 'auuouucement', 'differs'],
  ['equation', 'eguatiou', 'differs'],
  ['equations', 'eguatious', 'slight'],
  // An added or missing letter always counts as a change.
  ['likely', 'unlikely', 'differs'],
  ['property', 'properly', 'differs'],
  ['seven', 'seventy', 'differs'],
  ['tenants', 'tenant', 'differs'],
  // Words with figures must match, apart from surrounding punctuation.
  ['12A', '12a', 'differs'],
  ['$1,500', '$1.500', 'differs'],
  ['1500', '15OO', 'differs'],
  ['1500', '1500.', 'slight'],
  ['(1500', '1500', 'slight'],
  ['l0', '10', 'differs'],
  // Negations, number words, days and names must match.
  ['without', 'witnout', 'differs'],
  ['ninety', 'niuety', 'differs'],
  ['never', 'nevcr', 'differs'],
  ['enero', 'encro', 'differs'],
  ['Nairne', 'Nainre', 'differs'],
  ['Hunner', 'Huuner', 'differs'],
  // Symbols without letters.
  ['☒', '☐', 'differs'],
  ['—', '-', 'differs'],
  ['—', 'rent', 'differs'],
])('on a scan, %s compared with %s: %s', (a, b, is) => {
  expect([likeness(scanned(a), scanned(b)), likeness(scanned(b), token(a))]).toEqual([is, is]);
});

test('a word of up to 60 letters may be misread; a longer one must match exactly', () => {
  const of = (n: number, letter: string) => scanned(`${'h'.repeat(n - 1)}${letter}`);
  expect(likeness(of(60, 'n'), of(60, 'u'))).toBe('slight');
  expect(likeness(of(61, 'n'), of(61, 'u'))).toBe('differs');
});

test('a capitalized word is a name unless it begins a sentence or stands in a heading', () => {
  expect(['Alder', 'McRae', '(Alder', 'A', 'Ñandú'].map((t) => isGuarded(token(t)))).toEqual(Array(5).fill(true));
  expect(['ALDER', 'alder', '(alder'].map((t) => isGuarded(token(t)))).toEqual([false, false, false]);
  expect(isGuarded(token('Roofs', { begins: true }))).toBe(false);
  // Number words, negations and days are protected in any case and position.
  for (const t of ['Nineteen', 'NOT', 'don’t', 'ningún', 'Martes'])
    expect([t, isGuarded(token(t, { begins: true }))]).toEqual([t, true]);
  expect(['½', 'x2', '٣', 'two'].map(hasFigure)).toEqual([true, true, true, false]);
});

test('words that are only split differently are unchanged, except figures and negations', () => {
  const words = (text: string, change: Partial<Token> = {}) => text.split(' ').map((t) => token(t, change));
  expect(onlyDivided(words('land lord'), words('landlord'))).toBe(true);
  expect(onlyDivided(words('land lord'), words('Landlord', { begins: true }))).toBe(false);
  expect(onlyDivided(words('land lord', { scan: true }), words('Landlord', { begins: true }))).toBe(true);
  expect(onlyDivided(words('can not'), words('cannot'))).toBe(false);
  expect(onlyDivided(words('15 00'), words('1500'))).toBe(false);
  const hyphen = [token('land-', { ends: true }), token('lord')];
  expect(onlyDivided(hyphen, words('landlord'))).toBe(true);
  expect(onlyDivided([token('land-'), token('lord')], words('landlord'))).toBe(false);
  expect(onlyDivided([token('lord-', { ends: true })], words('lord'))).toBe(false);
});
