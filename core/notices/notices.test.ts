/** Rules for notices, and tables with a row a household. */
import fc from 'fast-check';
import { addDays, dueDay } from '../calendar';
import { guessFields } from '../intake';
import { tagDefs } from '../writing';
import {
  homeFields,
  homeKey,
  homesOf,
  SAMPLE_NOTICE_RULES,
  sameHomes,
  termOf,
  type NoticeRule,
  type Placed,
} from './index';

const TAGS = tagDefs().filter((t) => ['paper.new_rent', 'paper.from', 'pets'].includes(t.key));
const RENT = SAMPLE_NOTICE_RULES[0]!;
const find = (goes: string, from: string, more: Partial<NoticeRule> = {}, way: 'link' | 'post' = 'link') =>
  termOf({ ...RENT, ...more }, { goes, way, from, holidays: ['2026-12-25'] });

test('a day too early for its term is named with the first one that holds', () => {
  // Friday: it counts as delivered on Monday, and 60 days later it may hold.
  expect(find('2026-11-27', '2027-01-29')).toEqual({ delivered: '2026-11-30', earliest: '2027-01-29', sentence: null });
  expect(find('2026-11-27', '2027-01-28')?.sentence).toBe(
    '60 days are required before Thu, Jan 28, 2027, and there would be 59: it counts as delivered on Mon, Nov 30. The earliest effective date is Fri, Jan 29, 2027.',
  );
  // A letter takes longer.
  expect(find('2026-11-27', '2027-01-29', {}, 'post')?.sentence).toContain('there would be 58');
  expect(find('2026-11-27', '2026-11-28')?.sentence).toContain('it would come too late');
  expect(termOf(RENT, { goes: '2026-11-27', way: 'link', from: undefined, holidays: [] })).toBeNull();
  expect(find('2026-11-27', '2027-01-29', { day: null })).toBeNull();
});

test('a term in business days is counted and named in business days', () => {
  const after = { n: 5, unit: 'business_days' as const };
  // Counts as delivered on Monday 30 November; the week after has five business days, Friday 4 December the fourth.
  expect(find('2026-11-27', '2026-12-07', { term: after })?.sentence).toBeNull();
  expect(find('2026-11-27', '2026-12-04', { term: after })?.sentence).toContain(
    '5 business days are required before Fri, Dec 4, and there would be 4:',
  );
  // A weekend adds nothing.
  expect(find('2026-11-27', '2026-12-06', { term: after })?.sentence).toContain('there would be 4:');
});

test('a notice whose day is the day it is delivered comes too late, and what is no day is not looked at', () => {
  expect(find('2026-11-27', '2026-11-30')?.sentence).toContain('and it would come too late:');
  expect(find('2026-11-27', '2026-12-01')?.sentence).toContain('and there would be 1:');
  const of = (from: unknown) => termOf(RENT, { goes: '2026-11-27', way: 'link', from: from as never, holidays: [] });
  for (const from of [1190, true, 'soon', '2027-02-30', ['2027-01-28']]) expect(of(from)).toBeNull();
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
    { line: 3, home: '', values: { 'paper.new_rent': 1 }, why: ['Home: missing.'] },
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

test('the home is asked for, and each tag is known by the last part of its key too', () => {
  const [home, ...tags] = homeFields(TAGS);
  expect([home!.key, home!.needed]).toEqual(['home', true]);
  expect(Object.fromEntries(tags.map((t) => [t.key, t.also]))).toEqual({
    'paper.new_rent': ['new rent'],
    'paper.from': ['from'],
    pets: ['pets'],
  });
});

test('cells that are blank, too long, missing, or of a tag that names people', () => {
  const names = tagDefs().find((t) => t.type === 'names')!;
  const long = 'x'.repeat(161);
  const found = homesOf(
    {
      rows: [[' ', '\t', ' ', ''], [long, '900', 'Somebody', ''], ['Unit 2', 'y'.repeat(201), '', ''], ['Unit 3']],
      lines: [4],
    },
    ['home', 'paper.new_rent', names.key, ''],
    [...TAGS, names],
  );
  // Without a line of its own a row is counted from the one below the headings.
  expect(found.map((r) => r.line)).toEqual([3, 4, 5]);
  expect(found.map((r) => r.home)).toEqual(['', 'Unit 2', 'Unit 3']);
  expect(found.map((r) => r.values)).toEqual([{ 'paper.new_rent': 900 }, {}, {}]);
  // Each cell gives at most one reason: a home that is too long is not reported as missing too.
  expect(found.map((r) => r.why.length)).toEqual([1, 1, 0]);
  expect(found[0]!.why[0]).toMatch(/^Home/);
  expect(found[1]!.why[0]).toContain('New rent a month');
});

test('a table without a column for the home has no home in any row', () => {
  expect(homesOf({ rows: [['900']], lines: [2] }, ['paper.new_rent'], TAGS)).toEqual([
    { line: 2, home: '', values: { 'paper.new_rent': 900 }, why: ['Home: missing.'] },
  ]);
});

test('two ways to write an address are one home, two addresses are two', () => {
  expect(homeKey(' Unit 1,  4 Basin St.')).toBe('unit 1 4 basin st');
  expect(homeKey('UNIT 1 – 4 Básin St')).toBe(homeKey('Unit 1, 4 Basin St.'));
  expect(homeKey('Unit 11, 4 Basin St')).not.toBe(homeKey('Unit 1, 14 Basin St'));
});

test('rows say the same whatever the order of their columns, and of many others three are named', () => {
  const row = (n: number, values: Placed['values']): Placed => ({ id: `r${n}`, n, dealId: 'x', values });
  const alike = sameHomes([row(2, { rent: 1, from: '2027-01-01' }), row(3, { from: '2027-01-01', rent: 1 })]);
  expect([...alike]).toEqual([['r3', 'The same entry is in row 2. Leave this one out.']]);
  const five = sameHomes([1, 2, 3, 4, 5].map((n) => row(n, { rent: n })));
  expect(five.get('r5')).toBe(
    'Row 1, 2, 3 is for the same home and says something different. Leave out the wrong one.',
  );
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
        const alike = new Set(own.map((r) => r.values['rent'])).size === 1;
        if (alike) expect(right).toContain(home);
      }
    }),
  );
});
