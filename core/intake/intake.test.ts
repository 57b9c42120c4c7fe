import fc from 'fast-check';
import { dayOfCell, dealsOf, factOfCell, figureOfCell, guessFields, intakeFields, peopleOf, textOfCell } from './index';
import { factsByKey } from '../deal';

const table = (rows: string[][]) => ({ rows, lines: rows.map((_, i) => i + 2) });

test('headings are understood in any order and in other people’s words; each field is taken once', () => {
  const people = intakeFields('people');
  expect(guessFields(['E-Mail', 'Full name', 'Mobile', 'Notes', 'Name'], people)).toEqual([
    'email',
    'name',
    'phone',
    '',
    '',
  ]);
  const deals = intakeFields('deals');
  expect(
    guessFields(['Closing date', 'PRICE', 'Street address', 'Sellers', 'year built', 'Rent a month'], deals),
  ).toEqual(['date.closing', 'fact.price', 'address', 'side.seller', 'fact.year_built', 'fact.rent']);
});

test.each([
  ['2026-11-30', '2026-11-30'],
  ['11/30/2026', '2026-11-30'],
  ['30.11.2026', '2026-11-30'],
  ['2026-1-5', '2026-01-05'],
  ['2026-11-30T00:00:00', '2026-11-30'],
  ['13/30/2026', null],
  ['2026-02-30', null],
  ['tomorrow', null],
  ['', null],
])('the day %s', (text, day) => expect(dayOfCell(text)).toBe(day));

test.each([
  ['412000', 412000],
  ['$412,000.50', 412000.5],
  ['3 %', 3],
  ['4,12', null],
  ['-5', null],
  ['1e9', null],
  ['many', null],
])('the figure %s', (text, figure) => expect(figureOfCell(text)).toBe(figure));

test('facts say what is wrong with what they cannot be', () => {
  const defs = factsByKey();
  const of = (key: string, text: string) => factOfCell(defs.get(key)!, text);
  // Another way of writing figures is none of ours: 1.190 is no $1.19.
  for (const text of ['1.190', '$1.190', '12.500', '1.190.000', '1,190.005'])
    expect([text, of('rent', text)]).toEqual([text, text]);
  for (const [text, figure] of [
    ['1,190', 1190],
    ['1190.5', 1190.5],
    ['1,190.50', 1190.5],
  ] as const)
    expect(of('rent', text)).toBe(figure);
  expect([of('association', 'Yes'), of('water', 'A well'), of('price', '$1,000'), of('year_built', '1972')]).toEqual([
    true,
    'well',
    1000,
    1972,
  ]);
  expect(of('association', 'perhaps')).toBe('perhaps');
});

test('an apostrophe that keeps a spreadsheet from working out a cell is no part of it', () => {
  expect(textOfCell("'=SUM(A1)", 'Name', 40)).toBe('=SUM(A1)');
  expect(textOfCell("'tis", 'Name', 40)).toBe("'tis");
  expect(() => textOfCell('a\u0000b', 'Name', 40)).toThrow('cannot be saved');
  expect(() => textOfCell('a'.repeat(41), 'Name', 40)).toThrow('longer than 40');
});

test('people: rows that cannot be taken are named with every reason, empty ones are passed over', () => {
  const taken = peopleOf(
    table([
      ['Wren Alder', 'wren@example.com', '555-0101'],
      ['', 'nobody@example.com', ''],
      ['', '', ''],
      ['Callum', 'not an address', 'none'],
      ['wren alder', 'Wren@example.com', ''],
    ]),
    ['name', 'email', 'phone'],
  );
  expect(taken.good).toEqual([
    { line: 2, row: { name: 'Wren Alder', email: 'wren@example.com', phone: '555-0101', company: '' } },
  ]);
  expect(taken.bad).toEqual([
    { line: 3, why: ['Name: missing.'] },
    { line: 5, why: ['Email: “not an address” is no address.', 'Phone: “none” is no number.'] },
    { line: 6, why: ['The same entry is on line 2.'] },
  ]);
});

test('deals: kind, status, facts, days and people; what belongs to another kind is passed over', () => {
  const map = [
    'kind',
    'address',
    'status',
    'fact.price',
    'fact.rent',
    'date.closing',
    'side.seller',
    'tags',
    'forWhom',
  ];
  const taken = dealsOf(
    table([
      [
        'Sale',
        '14 Lantern Row',
        'under contract',
        '$412,000',
        '900',
        '11/30/2026',
        'Wren Alder <wren@example.com>; Callum',
        'a; b',
        'the seller',
      ],
      ['tenancy', '2 Mill Cut', 'running', '1', '1,200', '', '', '', 'tenant'],
      ['boat', '', 'sunk', 'much', '', 'soon', '<x>', '', 'buyer'],
    ]),
    map,
  );
  expect(taken.good.map((g) => g.row)).toEqual([
    {
      kind: 'sale',
      forWhom: 'seller',
      address: '14 Lantern Row',
      city: '',
      status: 'under_contract',
      tags: ['a', 'b'],
      facts: { price: 412000 },
      dates: { closing: '2026-11-30' },
      people: [
        { side: 'seller', name: 'Wren Alder', email: 'wren@example.com' },
        { side: 'seller', name: 'Callum', email: '' },
      ],
    },
    expect.objectContaining({ kind: 'tenancy', forWhom: 'tenant', status: 'running', facts: { rent: 1200 } }),
  ]);
  expect(taken.bad).toEqual([{ line: 4, why: expect.arrayContaining([expect.stringContaining('Kind: “boat”')]) }]);
  expect(taken.bad[0]!.why.length).toBeGreaterThan(4);
});

test('whatever stands in cells, each row is taken or named, once', () => {
  const keys = intakeFields('deals').map((f) => f.key);
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.oneof(fc.string(), fc.string({ unit: 'binary' })), { maxLength: 8 }), { maxLength: 12 }),
      fc.array(fc.constantFrom('', ...keys), { maxLength: 8 }),
      (rows, map) => {
        const { good, bad } = dealsOf(table(rows), map);
        const lines = [...good, ...bad].map((x) => x.line);
        expect(new Set(lines).size).toBe(lines.length);
        expect(lines.length).toBe(rows.filter((r) => r.some((c) => c.trim())).length);
        expect(bad.every((b) => b.why.length > 0)).toBe(true);
      },
    ),
  );
});
