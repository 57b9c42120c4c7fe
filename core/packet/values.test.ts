import fc from 'fast-check';
import '../patterns';
import { validateValue } from './kinds';
import { isoDay, showDay } from './values';
import type { Mark } from './types';

const value = (kind: Mark['kind'], text: string, more: Partial<Mark> = {}) => {
  const r = validateValue({ kind, ...more }, text);
  return r.ok ? r.value : `! ${r.sentence}`;
};

test.each<[Mark['kind'], string, string, Partial<Mark>]>([
  ['email', ' wren@example.com ', 'wren@example.com', {}],
  ['email', 'wren at home', '! This is not an email address, like name@example.com.', {}],
  ['email', 'wren@', '! Yours, please.', { check: { message: 'Yours, please.' } }],
  ['text', '  two   words ', 'two words', {}],
  ['text', 'a\r\nb', 'a\nb', { lines: 'several' }],
  ['number', '1200.50', '1,200.50', {}],
  ['number', '1,200', '1,200', {}],
  ['money', '$ 1200', '$1,200.00', {}],
  ['money', '1,250.5', '$1,250.50', {}],
  ['date', '2026-11-23', 'Nov 23, 2026', {}],
  ['date', '11/23/26', 'Nov 23, 2026', {}],
  ['date', 'November 3, 2026', 'Nov 3, 2026', {}],
  ['list', 'Gas', 'Gas', { options: ['Gas', 'Oil'] }],
  ['text', '0142', '0142', { check: { form: 'digits' } }],
  ['text', 'a@example.com', 'a@example.com', { check: { form: 'email' } }],
  ['text', '(555) 010-0142', '(555) 010-0142', { check: { form: 'phone' } }],
  ['text', 'TL-42', 'TL-42', { check: { form: 'pattern', pattern: '[A-Z]{2}-\\d+' } }],
])('%s takes %s', (kind, text, shown, more) => expect(value(kind, text, more)).toBe(shown));

test.each<[Mark['kind'], string, RegExp, Partial<Mark>]>([
  ['text', '   ', /write something/, {}],
  ['number', 'twelve', /a number, like/, {}],
  ['money', '1.234,00', /an amount, like/, {}],
  ['money', '12.345', /two digits/, {}],
  ['money', '900', /\$1,000.00 or more/, { check: { min: 1000 } }],
  ['money', '9000', /\$5,000.00 or less/, { check: { max: 5000 } }],
  ['date', '2026-02-30', /Please write a date/, {}],
  ['date', '2026-01-01', /Feb 1, 2026 or later/, { check: { from: '2026-02-01' } }],
  ['date', '2027-01-01', /Feb 1, 2026 or earlier/, { check: { to: '2026-02-01' } }],
  ['list', 'Coal', /from the list/, { options: ['Gas', 'Oil'] }],
  ['text', '12a', /digits only/, { check: { form: 'digits' } }],
  ['text', 'not an address', /email address/, { check: { form: 'email' } }],
  ['text', '12', /phone number/, { check: { form: 'phone' } }],
  [
    'text',
    'x',
    /berth number/,
    { check: { form: 'pattern', pattern: '\\d+', message: 'Please write the berth number.' } },
  ],
  ['text', 'ab', /at least 3/, { check: { minLength: 3 } }],
  ['text', 'abcd', /under 4/, { check: { maxLength: 3 } }],
])('%s does not take %s', (kind, text, why, more) => expect(value(kind, text, more)).toMatch(why));

test('what a value is shown as is taken again and shown the same', () => {
  fc.assert(
    fc.property(fc.integer({ min: -99_999_999, max: 99_999_999 }), (cents) => {
      const shown = value('money', (cents / 100).toFixed(2));
      expect(value('money', shown)).toBe(shown);
    }),
  );
  fc.assert(
    fc.property(fc.date({ min: new Date('1900-01-01'), max: new Date('2200-01-01'), noInvalidDate: true }), (d) => {
      const iso = d.toISOString().slice(0, 10);
      expect(isoDay(showDay(iso))).toBe(iso);
    }),
  );
});
