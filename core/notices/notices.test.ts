/** Rules for notices, and tables with a row a household. */
import fc from 'fast-check';
import { addDays, dueDay } from '../calendar';
import { guessFields } from '../intake';
import { tagDefs } from '../writing';
import { homeFields, homesOf, SAMPLE_NOTICE_RULES, sameHomes, termOf, type NoticeRule, type Placed } from './index';

const TAGS = tagDefs().filter((t) => ['paper.new_rent', 'paper.from', 'pets'].includes(t.key));
const RENT = SAMPLE_NOTICE_RULES[0]!;
const find = (goes: string, from: string, more: Partial<NoticeRule> = {}, way: 'link' | 'post' = 'link') =>
  termOf({ ...RENT, ...more }, { goes, way, from, holidays: ['2026-12-25'] });

test('a day too early for its term is named with the first one that holds', () => {
  // Friday: it counts as delivered on Monday, and 60 days later it may hold.
  expect(find('2026-11-27', '2027-01-29')).toEqual({ delivered: '2026-11-30', earliest: '2027-01-29', sentence: null });
  expect(find('2026-11-27', '2027-01-28')?.sentence).toBe(
    '60 days are wanted before Thu 28 Jan 2027, and there would be 59: it counts as delivered on Mon 30 Nov. The first day it can hold from is Fri 29 Jan 2027.',
  );
  // A letter takes longer.
  expect(find('2026-11-27', '2027-01-29', {}, 'post')?.sentence).toContain('there would be 58');
  expect(find('2026-11-27', '2026-11-28')?.sentence).toContain('it would come too late');
  expect(termOf(RENT, { goes: '2026-11-27', way: 'link', from: undefined, holidays: [] })).toBeNull();
  expect(find('2026-11-27', '2027-01-29', { day: null })).toBeNull();
});

test('property: what is called early enough is, and the day before the first one never is', () => {
  const after = fc.record({
    n: fc.integer({ min: 0, max: 90 }),
    unit: fc.constantFrom('days' as const, 'business_days' as const),
  });
  fc.assert(
    fc.property(after, after, fc.integer({ min: 0, max: 400 }), (term, link, plus) => {
      const goes = addDays('2026-01-05', plus);
      const rule = { ...RENT, term, delivery: { ...RENT.delivery, link } };
      const of = (from: string) => termOf(rule, { goes, way: 'link', from, holidays: ['2026-07-03'] })!;
      const { earliest, delivered } = of(goes);
      expect(delivered >= goes && earliest >= delivered).toBe(true);
      expect(of(earliest).sentence).toBeNull();
      expect(of(addDays(earliest, -1)).sentence).not.toBeNull();
      expect(earliest).toBe(dueDay({ ...term, way: 'after', roll: false }, delivered, ['2026-07-03']).day);
    }),
  );
});

test('columns are known by their headings, cells by their tags', () => {
  const headings = ['Unit', 'New rent', 'From', 'Pets', 'Remarks'];
  const map = guessFields(headings, homeFields(TAGS));
  expect(map).toEqual(['home', 'paper.new_rent', 'paper.from', 'pets', '']);
  const table = {
    rows: [
      ['Unit 1, 4 Basin Street', '$1,190', '2/1/2027', 'no', 'x'],
      ['', '1', '', '', ''],
      ['Unit 2', 'a lot', 'soon', 'maybe', ''],
      ['', '', '', '', ''],
      [`'=Unit 3`, '', '', '', ''],
    ],
    lines: [2, 3, 4, 5, 6],
  };
  expect(homesOf(table, map, TAGS)).toEqual([
    {
      line: 2,
      home: 'Unit 1, 4 Basin Street',
      values: { 'paper.new_rent': 1190, 'paper.from': '2027-02-01', pets: false },
      why: [],
    },
    { line: 3, home: '', values: { 'paper.new_rent': 1 }, why: ['Home: there is none.'] },
    {
      line: 4,
      home: 'Unit 2',
      values: {},
      why: [
        'Pets: say yes or no.',
        'New rent a month: write a figure, like 412,000.',
        'From which day: write a day, like 2026-11-30.',
      ],
    },
    { line: 6, home: '=Unit 3', values: {}, why: [] },
  ]);
});

test('rows for one home: the same again is left out, and of two that differ neither goes', () => {
  const row = (id: string, n: number, dealId: string | null, rent: number): Placed => ({
    id,
    n,
    dealId,
    values: { rent },
  });
  const found = sameHomes([
    row('a', 2, 'x', 1),
    row('b', 3, 'x', 1),
    row('c', 4, 'y', 1),
    row('d', 5, 'y', 2),
    row('e', 6, 'z', 1),
    row('f', 7, null, 1),
    row('g', 8, null, 1),
    row('h', 9, 'w', 1),
    row('i', 10, 'w', 1),
    row('k', 11, 'w', 2),
  ]);
  // Of three for one home of which two are alike none is taken for granted.
  expect([...found.keys()].sort()).toEqual(['b', 'c', 'd', 'h', 'i', 'k']);
  expect(found.get('b')).toContain('row 2');
  expect(found.get('c')).toContain('Row 5');
});

test('property: of the rows that are left as right no two are for one home', () => {
  const placed = fc.array(
    fc.record({ home: fc.constantFrom('x', 'y', 'z', null), rent: fc.integer({ min: 1, max: 3 }) }),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(placed, (all) => {
      const rows = all.map((r, i): Placed => ({ id: String(i), n: i + 1, dealId: r.home, values: { rent: r.rent } }));
      const wrong = sameHomes(rows);
      const right = rows.filter((r) => r.dealId && !wrong.has(r.id)).map((r) => r.dealId);
      expect(new Set(right).size).toBe(right.length);
      // A home that is named once, or always alike, is not lost.
      for (const home of ['x', 'y', 'z']) {
        const own = rows.filter((r) => r.dealId === home);
        const alike = new Set(own.map((r) => r.values.rent)).size === 1;
        if (alike) expect(right).toContain(home);
      }
    }),
  );
});
