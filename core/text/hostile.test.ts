/** Text made to hurt: long runs, and characters that no text may hold. */
import fc from 'fast-check';
import '../patterns';
import { validateValue } from '../packet/kinds';
import { patternOf } from './pattern';
import { mergeTags } from '../merge';
import { isRoleHeading, kindOfWords, lettersOf, misnamedIn, roleOfWords, senseOf } from '../reading/words';
import { suggestType } from '../reading';
import { wordsOfName } from '../reading/acroform';
import { clip, cutEnd, fileNameOf, firstName, initialsOf, isClean, isEmail, oneLine } from './index';

const RUNS = [
  'a',
  '0',
  '_',
  '-',
  ' ',
  '\t',
  ':',
  '.',
  '/',
  '(',
  '{{',
  '{{a',
  'no.',
  'a-',
  '0123456789abcdef',
  '_ ',
  'A',
  '$1,',
  'name ',
  'print name ',
];

/** Everything that looks for forms in text from outside. */
const readers: Record<string, (text: string) => unknown> = {
  suggestType: (t) => suggestType(t, t),
  kindOfWords,
  roleOfWords,
  isRoleHeading,
  senseOf,
  lettersOf: (t) => lettersOf(t, senseOf('')),
  misnamedIn: (t) => misnamedIn(t, senseOf('')),
  wordsOfName,
  mergeTags: (t) => mergeTags(t, new Map()),
  isEmail,
  firstName,
  initialsOf,
  oneLine,
  fileNameOf,
  cutEnd: (t) => cutEnd(t, /[\s_]/),
  text: (t) => validateValue({ kind: 'text', lines: 'several', check: { form: 'phone' } }, t),
  money: (t) => validateValue({ kind: 'money', lines: 'several' }, t),
  date: (t) => validateValue({ kind: 'date', lines: 'several' }, t),
  pattern: (t) => validateValue({ kind: 'text', lines: 'several', check: { form: 'pattern', pattern: '(a+)+b' } }, t),
};

test.each(Object.keys(readers))('%s ends on long runs of anything', (name) => {
  for (const unit of RUNS)
    for (const [before, after] of [
      ['', ''],
      ['', '!'],
      ['seller ', ' x'],
    ] as const)
      readers[name]!(before + unit.repeat(Math.ceil(20_000 / unit.length)) + after);
});

test('a member’s pattern is linear, and says when it cannot be', () => {
  expect(patternOf('(a+)+')!('a'.repeat(4000))).toBe(true);
  expect(patternOf('(a+)+')!(`${'a'.repeat(4000)}!`)).toBe(false);
  expect(patternOf('[A-Z]{2}-\\d+')!('TL-42')).toBe(true);
  expect(patternOf('[A-Z]{2}-\\d+')!('xTL-42')).toBe(false);
  expect(patternOf('\\p{L}+')!('Ñandú')).toBe(true);
  for (const no of ['(', '(?=a)a', '(a)\\1', '((a{1000}){1000}){1000}']) expect(patternOf(no)).toBeNull();
});

test('what no text may hold is found, and nothing else', () => {
  for (const bad of ['\u0000', 'a\u0007', '\ud83d', '\udc00', 'x\ud83dx', '\u0085', '\u007f'])
    expect([bad, isClean(bad)]).toEqual([bad, false]);
  for (const good of ['', 'Wren Alder', 'a\tb\r\nc', '🙂', 'Ñandú', 'नमस्ते', '\u00a0']) expect(isClean(good)).toBe(true);
  fc.assert(fc.property(fc.string({ unit: 'grapheme' }), (s) => isClean(s) || /\p{Cc}/u.test(s)));
});

test('cutting never halves a character, and a line is one line', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme-composite' }), fc.nat(30), (s, n) => {
      const cut = clip(s, n);
      return cut.length <= n && s.startsWith(cut) && (!isClean(s) || isClean(cut));
    }),
  );
  fc.assert(fc.property(fc.string({ unit: 'binary' }), (s) => !/[\n\r\u2028\u202e\u200b]/.test(oneLine(s))));
  expect(oneLine('Ada\u200b \u202eByron')).toBe('Ada Byron');
  // A joiner between letters that join stays.
  expect(oneLine('می\u200cخواهم')).toBe('می\u200cخواهم');
  expect(fileNameOf('..\\a/b\u202egpj.pdf\u0000')).toBe('..abgpj.pdf');
  expect(fileNameOf(undefined)).toBe('file');
});
