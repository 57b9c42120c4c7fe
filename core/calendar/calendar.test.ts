import fc from 'fast-check';
import { DateTime } from 'luxon';
import {
  addDays,
  businessDayFrom,
  dayOf,
  daysBetween,
  endOfDay,
  hourOf,
  isBusinessDay,
  leftOfDay,
  isDay,
  morningOf,
  nudgeDays,
  plannedDates,
  sendingDay,
  warnDay,
  weekdayOf,
  type Schedule,
} from './index';

const NEW_YORK = 'America/New_York';

test('a day is the deal’s own, and lasts until its end, also when the clocks change', () => {
  expect(dayOf('2026-11-24T03:30:00Z', NEW_YORK)).toBe('2026-11-23');
  expect(endOfDay('2026-11-23', NEW_YORK)).toBe('2026-11-24T05:00:00.000Z');
  // The day on which summer time ends has 25 hours.
  expect(endOfDay('2026-10-31', NEW_YORK)).toBe('2026-11-01T04:00:00.000Z');
  expect(endOfDay('2026-11-01', NEW_YORK)).toBe('2026-11-02T05:00:00.000Z');
  expect(morningOf('2026-07-01', NEW_YORK)).toBe('2026-07-01T13:00:00.000Z');
  expect(daysBetween('2026-10-30', '2026-11-03')).toBe(4);
  expect([isDay('2026-02-28'), isDay('2026-02-30'), isDay('soon')]).toEqual([true, false, false]);
});

test('nudges wait for the next business day and count on from there', () => {
  const schedule: Schedule = {
    lastDay: '2026-12-04',
    warnDays: 1,
    nudge: { first: 2, every: 2, most: 3, businessDays: true },
  };
  // Asked on a Tuesday; Thursday is a holiday, then comes a weekend.
  const asked = '2026-11-24T15:00:00Z';
  expect(nudgeDays(schedule, asked, NEW_YORK, ['2026-11-26'])).toEqual(['2026-11-27', '2026-11-30', '2026-12-02']);
  expect(plannedDates(schedule, asked, NEW_YORK, ['2026-11-26']).map((d) => `${d.what} ${d.day}`)).toEqual([
    'nudge 2026-11-27',
    'nudge 2026-11-30',
    'nudge 2026-12-02',
    'warning 2026-12-03',
    'last_day 2026-12-04',
  ]);
  expect(warnDay({ ...schedule, warnDays: 0 })).toBeNull();
});

test('whatever the schedule: at most so many nudges, in order, never late, never on a free day', () => {
  const day = fc.integer({ min: 0, max: 400 }).map((n) => addDays('2026-01-01', n));
  fc.assert(
    fc.property(
      day,
      fc.record({
        first: fc.integer({ min: 0, max: 20 }),
        every: fc.integer({ min: 0, max: 20 }),
        most: fc.integer({ min: 0, max: 10 }),
        businessDays: fc.boolean(),
      }),
      fc.option(day, { nil: null }),
      fc.array(day, { maxLength: 30 }),
      fc.constantFrom(NEW_YORK, 'Pacific/Auckland', 'Asia/Kathmandu', 'America/Los_Angeles'),
      (asked, nudge, lastDay, holidays, zone) => {
        const days = nudgeDays({ lastDay, warnDays: 1, nudge }, morningOf(asked, zone), zone, holidays);
        expect(days.length).toBeLessThanOrEqual(nudge.most);
        days.forEach((d, i) => {
          expect(d > (days[i - 1] ?? asked)).toBe(true);
          if (lastDay) expect(d <= lastDay).toBe(true);
          expect(d).not.toBe(warnDay({ lastDay, warnDays: 1, nudge }));
          if (nudge.businessDays) expect(isBusinessDay(d, holidays)).toBe(true);
        });
      },
    ),
  );
});

test('the time left in a day agrees with the end of the day, across clock changes and skipped midnights', () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date('2024-01-01'), max: new Date('2028-01-01'), noInvalidDate: true }),
      fc.constantFrom('UTC', NEW_YORK, 'Pacific/Auckland', 'Asia/Kathmandu', 'America/Havana', 'Africa/Cairo'),
      (at, zone) => {
        const instant = at.toISOString();
        expect(leftOfDay(instant, zone)).toBe(Date.parse(endOfDay(dayOf(instant, zone), zone)) - at.getTime());
      },
    ),
    {
      examples: [
        [new Date('2026-03-08T05:30:00Z'), NEW_YORK],
        [new Date('2026-03-08T04:30:00Z'), 'America/Havana'],
      ],
    },
  );
});

test('a calendar without any business day still has an answer', () => {
  const all = Array.from({ length: 400 }, (_, i) => addDays('2026-01-01', i));
  expect(businessDayFrom('2026-01-05', all)).toBe('2026-01-05');
});

test('what goes at an hour goes at the first such hour of a business day that is ahead', () => {
  const zone = 'America/New_York';
  // Friday 27 November 2026, 10:00 in New York.
  const friday = '2026-11-27T15:00:00.000Z';
  expect(sendingDay({ days: 0, hour: 15 }, friday, zone, [])).toEqual({ day: '2026-11-27', hour: 15 });
  expect(sendingDay({ days: 0, hour: 10 }, friday, zone, [])).toEqual({ day: '2026-11-30', hour: 10 });
  expect(sendingDay({ days: 1, hour: 9 }, friday, zone, ['2026-11-30'])).toEqual({ day: '2026-12-01', hour: 9 });
  fc.assert(
    fc.property(
      fc.date({ min: new Date('2026-01-01'), max: new Date('2028-01-01'), noInvalidDate: true }),
      fc.nat(60),
      fc.nat(23),
      (at, days, hour) => {
        const now = at.toISOString();
        const due = sendingDay({ days, hour }, now, zone, ['2026-12-25', '2027-01-01']);
        expect(hourOf(due.day, due.hour, zone) > now).toBe(true);
        expect(isBusinessDay(due.day, ['2026-12-25', '2027-01-01'])).toBe(true);
      },
    ),
  );
});

test('the arithmetic of days agrees with a library of dates', () => {
  const utc = { zone: 'utc' };
  const days = fc
    .date({ min: new Date('0001-01-01'), max: new Date('9998-12-31'), noInvalidDate: true })
    .map((d) => d.toISOString().slice(0, 10));
  fc.assert(
    fc.property(days, fc.integer({ min: -360, max: 360 }), (day, n) => {
      const at = DateTime.fromISO(day, utc);
      expect(addDays(day, n)).toBe(at.plus({ days: n }).toISODate());
      expect(weekdayOf(day)).toBe(at.weekday - 1);
      expect(daysBetween(day, addDays(day, n))).toBe(n);
    }),
  );
  expect(() => addDays('9999-12-31', 1)).toThrow(RangeError);
  expect(() => addDays('soon', 1)).toThrow(RangeError);
});
