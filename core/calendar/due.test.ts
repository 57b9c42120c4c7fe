/** Days counted from days, each with the reason it gives. */
import fc from 'fast-check';
import { addDays, dayOf, dueDay, endOfDay, isBusinessDay, isDay, shortDay, type Count } from './index';

/** Thanksgiving and the day after, Christmas and New Year, and a summer holiday on a Saturday. */
const HOLIDAYS = ['2026-11-26', '2026-11-27', '2026-12-25', '2027-01-01', '2026-07-04', '2027-05-31'];
const count = (text: string): Count => {
  const [, n, business, way] = /^(\d+)( business)? (after|before)$/.exec(text)!;
  return { n: Number(n), unit: business ? 'business_days' : 'days', way: way as 'after' | 'before', roll: true };
};

/** How it is counted, from which day, the day, and what stands after the colon. */
const CASES: [string, string, string, string][] = [
  // Business days forward.
  ['3 business after', '2026-11-30', '2026-12-03', '3 business days after Mon, Nov 30, no holiday between'],
  ['1 business after', '2026-11-30', '2026-12-01', '1 business day after Mon, Nov 30, no holiday between'],
  ['3 business after', '2026-12-03', '2026-12-08', '3 business days after Thu, Dec 3, no holiday between'],
  ['1 business after', '2026-12-04', '2026-12-07', '1 business day after Fri, Dec 4, no holiday between'],
  ['1 business after', '2026-12-05', '2026-12-07', '1 business day after Sat, Dec 5, no holiday between'],
  ['1 business after', '2026-12-06', '2026-12-07', '1 business day after Sun, Dec 6, no holiday between'],
  ['5 business after', '2026-12-07', '2026-12-14', '5 business days after Mon, Dec 7, no holiday between'],
  [
    '1 business after',
    '2026-11-25',
    '2026-11-30',
    '1 business day after Wed, Nov 25, Thu, Nov 26 and Fri, Nov 27 are holidays',
  ],
  [
    '3 business after',
    '2026-11-24',
    '2026-12-01',
    '3 business days after Tue, Nov 24, Thu, Nov 26 and Fri, Nov 27 are holidays',
  ],
  ['1 business after', '2026-11-26', '2026-11-30', '1 business day after Thu, Nov 26, Fri, Nov 27 is a holiday'],
  ['2 business after', '2026-12-24', '2026-12-29', '2 business days after Thu, Dec 24, Fri, Dec 25 is a holiday'],
  ['3 business after', '2026-12-30', '2027-01-05', '3 business days after Wed, Dec 30, Fri, Jan 1, 2027 is a holiday'],
  ['1 business after', '2026-07-03', '2026-07-06', '1 business day after Fri, Jul 3, no holiday between'],
  [
    '10 business after',
    '2026-11-16',
    '2026-12-02',
    '10 business days after Mon, Nov 16, Thu, Nov 26 and Fri, Nov 27 are holidays',
  ],
  // Business days backward.
  ['1 business before', '2026-12-04', '2026-12-03', '1 business day before Fri, Dec 4, no holiday between'],
  ['1 business before', '2026-12-07', '2026-12-04', '1 business day before Mon, Dec 7, no holiday between'],
  ['1 business before', '2026-12-06', '2026-12-04', '1 business day before Sun, Dec 6, no holiday between'],
  [
    '3 business before',
    '2026-12-01',
    '2026-11-24',
    '3 business days before Tue, Dec 1, Thu, Nov 26 and Fri, Nov 27 are holidays',
  ],
  ['1 business before', '2026-12-28', '2026-12-24', '1 business day before Mon, Dec 28, Fri, Dec 25 is a holiday'],
  ['2 business before', '2027-01-04', '2026-12-30', '2 business days before Mon, Jan 4, Fri, Jan 1 is a holiday'],
  // Days of the calendar, forward; a day without work moves on.
  ['7 after', '2026-11-30', '2026-12-07', '7 days after Mon, Nov 30'],
  ['1 after', '2026-11-30', '2026-12-01', '1 day after Mon, Nov 30'],
  [
    '5 after',
    '2026-11-30',
    '2026-12-07',
    '5 days after Mon, Nov 30 is Sat, Dec 5, a weekend; this is the next business day',
  ],
  [
    '6 after',
    '2026-11-30',
    '2026-12-07',
    '6 days after Mon, Nov 30 is Sun, Dec 6, a weekend; this is the next business day',
  ],
  [
    '3 after',
    '2026-11-23',
    '2026-11-30',
    '3 days after Mon, Nov 23 is Thu, Nov 26, a holiday; this is the next business day',
  ],
  [
    '10 after',
    '2026-12-15',
    '2026-12-28',
    '10 days after Tue, Dec 15 is Fri, Dec 25, a holiday; this is the next business day',
  ],
  [
    '17 after',
    '2026-12-15',
    '2027-01-04',
    '17 days after Tue, Dec 15 is Fri, Jan 1, 2027, a holiday; this is the next business day',
  ],
  [
    '4 after',
    '2026-06-30',
    '2026-07-06',
    '4 days after Tue, Jun 30 is Sat, Jul 4, a weekend; this is the next business day',
  ],
  // Backward; a day without work moves back, so that it is never too late.
  ['10 before', '2026-12-14', '2026-12-04', '10 days before Mon, Dec 14'],
  [
    '9 before',
    '2026-12-14',
    '2026-12-04',
    '9 days before Mon, Dec 14 is Sat, Dec 5, a weekend; this is the last business day before it',
  ],
  [
    '8 before',
    '2026-12-14',
    '2026-12-04',
    '8 days before Mon, Dec 14 is Sun, Dec 6, a weekend; this is the last business day before it',
  ],
  [
    '4 before',
    '2026-12-01',
    '2026-11-25',
    '4 days before Tue, Dec 1 is Fri, Nov 27, a holiday; this is the last business day before it',
  ],
  [
    '3 before',
    '2026-12-28',
    '2026-12-24',
    '3 days before Mon, Dec 28 is Fri, Dec 25, a holiday; this is the last business day before it',
  ],
  // The day itself.
  ['0 after', '2026-11-30', '2026-11-30', 'on Mon, Nov 30'],
  ['0 before', '2026-11-30', '2026-11-30', 'by Mon, Nov 30'],
  ['0 after', '2026-12-05', '2026-12-07', 'Sat, Dec 5 is a weekend; this is the next business day'],
  ['0 before', '2026-12-05', '2026-12-04', 'Sat, Dec 5 is a weekend; this is the last business day before it'],
  ['0 before', '2026-12-25', '2026-12-24', 'Fri, Dec 25 is a holiday; this is the last business day before it'],
  // Ends of months, leap days, turns of the year.
  [
    '1 after',
    '2026-12-31',
    '2027-01-04',
    '1 day after Thu, Dec 31 is Fri, Jan 1, 2027, a holiday; this is the next business day',
  ],
  ['1 after', '2028-02-28', '2028-02-29', '1 day after Mon, Feb 28'],
  ['1 before', '2028-03-01', '2028-02-29', '1 day before Wed, Mar 1'],
  ['1 after', '2027-02-28', '2027-03-01', '1 day after Sun, Feb 28'],
  ['365 after', '2027-03-01', '2028-02-29', '365 days after Mon, Mar 1'],
  ['2 business after', '2028-02-28', '2028-03-01', '2 business days after Mon, Feb 28, no holiday between'],
  ['30 after', '2027-01-31', '2027-03-02', '30 days after Sun, Jan 31'],
  ['1 business before', '2027-06-01', '2027-05-28', '1 business day before Tue, Jun 1, Mon, May 31 is a holiday'],
  // Over the nights in which the clocks change a day is a day.
  [
    '1 after',
    '2027-03-13',
    '2027-03-15',
    '1 day after Sat, Mar 13 is Sun, Mar 14, a weekend; this is the next business day',
  ],
  ['2 after', '2027-03-13', '2027-03-15', '2 days after Sat, Mar 13'],
  ['3 business after', '2026-10-30', '2026-11-04', '3 business days after Fri, Oct 30, no holiday between'],
  ['7 before', '2026-11-05', '2026-10-29', '7 days before Thu, Nov 5'],
];

test.each(CASES)('%s %s is %s', (how, from, day, why) => {
  expect(dueDay(count(how), from, HOLIDAYS)).toEqual({ day, why: `${shortDay(day, from)}: ${why}` });
});
test('there are forty of them and more', () => expect(CASES.length).toBeGreaterThanOrEqual(40));

test('without rolling a day stays where it falls', () => {
  const due = dueDay({ ...count('5 after'), roll: false }, '2026-11-30', HOLIDAYS);
  expect(due).toEqual({ day: '2026-12-05', why: 'Sat, Dec 5: 5 days after Mon, Nov 30' });
});

test('many holidays are counted, and not all named', () => {
  const week = ['2026-12-07', '2026-12-08', '2026-12-09', '2026-12-10'];
  expect(dueDay(count('1 business after'), '2026-12-04', week)).toEqual({
    day: '2026-12-11',
    why: 'Fri, Dec 11: 1 business day after Fri, Dec 4, 4 holidays between',
  });
});

test('a list of holidays without a gap has no next business day: the day stays, and nothing hangs', () => {
  const all = Array.from({ length: 400 }, (_, i) => addDays('2026-11-30', i));
  expect(dueDay(count('1 after'), '2026-11-30', all).day).toBe('2026-12-01');
  expect(dueDay(count('1 business after'), '2026-11-30', all).day > '2027-12-01').toBe(true);
});

test('the day something happened is the day it was where the deal is', () => {
  // Five in the morning in London is still the day before in New York; so it is on the nights the clocks change.
  expect(dayOf('2026-12-01T04:30:00Z', 'America/New_York')).toBe('2026-11-30');
  expect(dayOf('2026-12-01T05:30:00Z', 'America/New_York')).toBe('2026-12-01');
  expect(dayOf('2027-03-14T06:59:00Z', 'America/New_York')).toBe('2027-03-14');
  expect(endOfDay('2027-03-14', 'America/New_York')).toBe('2027-03-15T04:00:00.000Z');
  expect(endOfDay('2026-11-01', 'America/New_York')).toBe('2026-11-02T05:00:00.000Z');
});

test('what is no day, or no count, is refused', () => {
  expect(() => dueDay(count('1 after'), '2026-02-30', [])).toThrow(RangeError);
  expect(() => dueDay({ ...count('1 after'), n: 1.5 }, '2026-02-28', [])).toThrow(RangeError);
  expect(() => dueDay({ ...count('1 after'), n: 4_000 }, '2026-02-28', [])).toThrow(RangeError);
  expect(['2026-02-30', '2026-13-01', '26-01-01', '2027-02-29', '', '2026-1-1'].filter(isDay)).toEqual([]);
  expect(['2028-02-29', '2026-12-31', '1900-01-01', '2200-12-31'].filter(isDay)).toHaveLength(4);
  // Beyond what a deal is about: years that leave no room to count, or stand for "no end".
  expect(['0000-01-01', '0001-01-01', '1899-12-31', '2201-01-01', '9999-12-31'].filter(isDay)).toEqual([]);
  expect(dueDay({ n: 3_660, unit: 'days', way: 'after', roll: false }, '2200-12-31', []).day).toBe('2211-01-08');
});

const days = fc.integer({ min: 0, max: 20_000 }).map((n) => addDays('2000-01-01', n));
const counts: fc.Arbitrary<Count> = fc.record({
  n: fc.integer({ min: 0, max: 60 }),
  unit: fc.constantFrom('days', 'business_days'),
  way: fc.constantFrom('after', 'before'),
  roll: fc.constant(true),
});
const someHolidays = fc.array(days, { maxLength: 30 });

test('whatever is counted falls on a day on which people work, and never on the wrong side', () => {
  fc.assert(
    fc.property(counts, days, someHolidays, (c, from, holidays) => {
      const { day } = dueDay(c, from, holidays);
      expect(isBusinessDay(day, holidays)).toBe(true);
      expect(c.way === 'after' ? day >= from : day <= from).toBe(true);
    }),
  );
});

test('counting business days there and back comes to where it began, when that was a business day', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60 }), days, someHolidays, (n, from, holidays) => {
      fc.pre(isBusinessDay(from, holidays));
      const there = dueDay({ n, unit: 'business_days', way: 'after', roll: true }, from, holidays).day;
      expect(dueDay({ n, unit: 'business_days', way: 'before', roll: true }, there, holidays).day).toBe(from);
    }),
  );
});

test('between two days there are as many business days as were counted', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 40 }), days, someHolidays, (n, from, holidays) => {
      const { day } = dueDay({ n, unit: 'business_days', way: 'after', roll: true }, from, holidays);
      let worked = 0;
      for (let d = addDays(from, 1); d <= day; d = addDays(d, 1)) if (isBusinessDay(d, holidays)) worked++;
      expect(worked).toBe(n);
    }),
  );
});
