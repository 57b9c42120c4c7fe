/** What contracts say about their deals: by example, and against hostile text. */
import fc from 'fast-check';
import { abstractOf, acceptedAtFirst, dealOf, type Abstract } from './index';
import { dayAt, amountOf, moneyAt, numberAt } from './numbers';
import { piecesOfAll } from './pieces';
import { printed } from '../test/printed';

const read = (...rows: string[]) => abstractOf(printed(['PURCHASE AGREEMENT', ...rows]));
const lease = (...rows: string[]) =>
  abstractOf(printed(['RESIDENTIAL LEASE', 'The Landlord lets to the Tenant.', ...rows]));
const of = (a: Abstract, field: string) => a.fields.find((f) => f.field === field);
const value = (a: Abstract, field: string) => of(a, field)?.readings[0]?.value;
const sure = (a: Abstract, field: string) => (of(a, field)?.certain ? value(a, field) : undefined);
const names = (a: Abstract) => a.people.map((p) => `${p.side}: ${p.name}${p.certain ? '' : '?'}`);

describe('people', () => {
  test.each([
    [
      ['between Orla Byrne and Dermot Byrne (the “Sellers”) and Maren Aalto (“Buyer”).'],
      ['seller: Orla Byrne', 'seller: Dermot Byrne', 'buyer: Maren Aalto'],
    ],
    [['Seller: Orla Byrne ~ Buyer: Maren Aalto'], ['seller: Orla Byrne', 'buyer: Maren Aalto']],
    [['Orla Byrne, of Tern Lock, hereinafter called the seller,'], ['seller: Orla Byrne']],
    [['Orla Byrne, a single woman, (“Seller”)'], ['seller: Orla Byrne']],
    [['Alder Holdings LLC (the “Buyer”), by its manager'], ['buyer: Alder Holdings LLC']],
    [
      ['The buyer, Mateo J. de la Cruz and Priya Nair, offers to pay'],
      ['buyer: Mateo J. de la Cruz', 'buyer: Priya Nair'],
    ],
    [
      ['entre Lucía Fuentes Rey y Joaquín Haddad (en adelante, “el Vendedor”) y'],
      ['seller: Lucía Fuentes Rey', 'seller: Joaquín Haddad'],
    ],
    [['Buyer signature: ~ Date:', 'Printed name: Maren Aalto'], ['buyer: Maren Aalto']],
    [['At 9 Mill Cut, Port Alder, the seller answers as follows.'], []],
    [['The Seller shall give the Buyer a Copy of Every Report it has paid for.'], []],
  ])('%j', (rows, expected) => {
    expect(names(read(...rows))).toEqual(expected);
  });

  test('the same person in two places is one, with both places; the same name on both sides is not certain', () => {
    const a = read('Seller: Orla Byrne', 'Orla Byrne, seller', 'Buyer: Wren Alder', 'Seller: Wren Alder');
    expect(names(a)).toEqual(['seller: Orla Byrne', 'seller: Wren Alder?', 'buyer: Wren Alder?']);
    expect(a.people[0]!.sources).toHaveLength(2);
  });

  test('a name on a scan is certain only if two places say it', () => {
    const scanned = (rows: string[]) =>
      abstractOf(printed(['PURCHASE AGREEMENT', ...rows]).map((p) => ({ ...p, scanned: true })));
    expect(names(scanned(['Seller: Orla Byrne']))).toEqual(['seller: Orla Byrne?']);
    expect(names(scanned(['Seller: Orla Byrne', 'Orla Byrne, seller']))).toEqual(['seller: Orla Byrne']);
  });
});

describe('amounts', () => {
  test.each([
    ['Purchase price: $412,000.00. Initial deposit: $ 8,000, held in trust.', { price: 412_000, earnest: 8_000 }],
    [
      'offers to pay $ 389,500 for the house, of which $5,000 is the initial deposit',
      { price: 389_500, earnest: 5_000 },
    ],
    [
      'The price is $735,900, paid so: $22,200 with this contract; $52,000 by a loan',
      { price: 735_900, earnest: 22_200 },
    ],
    ['The loan amount is $300,000. The seller credits $3,500 toward closing costs.', {}],
    ['Precio: $ 412.000 Depósito inicial: $ 8.000,00', { price: 412_000, earnest: 8_000 }],
    ['The fee is 5% of the price or $12,000.', {}],
    ['The price is $489 ,900 and no less.', {}],
  ])('%s', (row, expected: { price?: number; earnest?: number }) => {
    const a = read(row);
    expect({ price: sure(a, 'fact.price'), earnest: sure(a, 'fact.earnest') }).toEqual({
      price: undefined,
      earnest: undefined,
      ...expected,
    });
  });

  test('rent is what is paid a month; what counts toward something else is not certain', () => {
    expect(sure(lease('Tenant agrees to pay $1,450 a month, due on the first.'), 'fact.rent')).toBe(1_450);
    expect(sure(lease('Rent counts toward the price at $588 a month.'), 'fact.rent')).toBeUndefined();
    expect(sure(lease('The security deposit is $2,000; of it $100 is for keys.'), 'fact.deposit')).toBe(2_000);
  });

  test('two prices contradict each other', () => {
    const price = of(read('The purchase price is $412,000.', 'Purchase price: $421,000'), 'fact.price')!;
    expect(price).toMatchObject({ certain: false, readings: [{ value: 412_000 }, { value: 421_000 }] });
  });

  test('figures with broken thousands are no figures', () => {
    expect(['412,000', '1,250.50', '412.000', '8.000,00', '1450', '4,12', '1.2.3', '12,0000'].map(amountOf)).toEqual([
      412_000,
      1_250.5,
      412_000,
      8_000,
      1_450,
      null,
      null,
      null,
    ]);
  });
});

describe('days', () => {
  const day = (row: string, spanish = false) => {
    const pieces = piecesOfAll(printed([row]));
    for (let i = 0; i < pieces.length; i++) {
      const found = dayAt(pieces, i, spanish);
      if (found) return found.value;
    }
    return null;
  };
  test.each([
    ['January 15, 2027', '2027-01-15'],
    ['the 15th day of January, 2027', '2027-01-15'],
    ['on 3 day of March , 20 27', '2027-03-03'],
    ['1/15/2027', '2027-01-15'],
    ['15/01/27', '2027-01-15'],
    ['2027-01-15', '2027-01-15'],
    ['15 de enero de 2027', '2027-01-15'],
    ['11 / 28 / 2026', '2026-11-28'],
    ['February 30, 2027', null],
    ['the first day of each month', null],
    ['12/31/9999', null],
  ])('%s', (row, expected) => {
    expect(day(row)?.day ?? null).toBe(expected);
  });

  test('in Spanish the day comes first, and where it could be the month it is not sure', () => {
    expect(day('3/4/2027', true)).toEqual({ day: '2027-04-03', clear: false });
    expect(day('23/4/2027', true)).toEqual({ day: '2027-04-23', clear: true });
    expect(day('3/4/2027')).toEqual({ day: '2027-03-04', clear: true });
  });

  test.each([
    ['Closing takes place on or before January 15, 2027.', 'date.closing', { day: '2027-01-15' }],
    [
      'Buyer shall complete all inspections within ten (10) days after acceptance.',
      'date.inspection',
      { count: { n: 10, unit: 'days', way: 'after', roll: false }, from: 'accepted' },
    ],
    [
      'The financing contingency is removed five business days before closing.',
      'date.loan',
      { count: { n: 5, unit: 'business_days', way: 'before', roll: false }, from: 'closing' },
    ],
    [
      'El cierre tendrá lugar 45 días después de la aceptación.',
      'date.closing',
      { count: { n: 45, unit: 'days', way: 'after', roll: false }, from: 'accepted' },
    ],
    [
      'Closing, which was to be on January 15, 2027, is extended to January 29, 2027.',
      'date.closing',
      { day: '2027-01-29' },
    ],
  ])('%s', (row, field, expected) => {
    expect(sure(read(row), field)).toEqual(expected);
  });

  test.each([
    'This offer expires on June 30, 2031 unless accepted before.',
    'The final walk-through is held 2 days before closing.',
    'The seller answers each question within ten days of the date of the last signature.',
    'This agreement is made on November 2, 2026.',
  ])('%s — is no key date', (row) => {
    expect(read(row).fields).toEqual([]);
  });

  test('what was agreed before is no reading, also where what takes its place cannot be read', () => {
    expect(
      sure(read('Closing, which was to be on January 15, 2027, is extended to January 15, 9999.'), 'date.closing'),
    ).toBeUndefined();
    expect(sure(read('The price was $412,000. The price is $405,000 now.'), 'fact.price')).toBe(405_000);
    expect(sure(read('The price is $405,000 instead of $412,000.'), 'fact.price')).toBe(405_000);
  });

  test('the words and the figures of a count must agree', () => {
    const n = (row: string) => numberAt(piecesOfAll(printed([row])), 0)?.value ?? null;
    expect([n('ten (10) days'), n('ten (12) days'), n('forty-five days'), n('twenty one days'), n('veintiún')]).toEqual(
      [10, null, 45, 21, null],
    );
  });

  test('a lease begins and ends where its term does, not where an option does', () => {
    const a = lease('The term begins on April 1, 2027 and ends on March 31, 2028.');
    expect([sure(a, 'date.move_in'), sure(a, 'date.end')]).toEqual([{ day: '2027-04-01' }, { day: '2028-03-31' }]);
    expect(sure(lease('The option costs $900 and runs until May 5, 2028.'), 'date.end')).toBeUndefined();
  });

  const signatures = [
    'Seller: Orla Byrne',
    'Seller: Orla Byrne ~ Date: 11/28/2026',
    'Buyer: Maren Aalto ~ Date: 11/27/2026',
  ];
  test('the last signature is the day of acceptance, once both sides have signed', () => {
    expect(sure(read(...signatures), 'date.accepted')).toEqual({ day: '2026-11-28' });
    expect(sure(read('Seller: Orla Byrne', 'Buyer: Maren Aalto ~ Date: 11/27/2026'), 'date.accepted')).toBeUndefined();
  });
});

describe('the property', () => {
  test.each([
    ['for the property at 26 Lock Hill, Tern Lock (the “Property”).', '26 Lock Hill', 'Tern Lock'],
    ['Property: 9 Mill Cut, Unit 4, Port Alder, MA 02139', '9 Mill Cut, Unit 4', 'Port Alder'],
    ['la vivienda sita en Calle del Muelle 14, St. Anne, que el', 'Calle del Muelle 14', 'St. Anne'],
    ['Seller’s mailing address: 88 Harbor Street, Millbasin', undefined, undefined],
    ['OFFER TO BUY A HOME', undefined, undefined],
  ])('%s', (row, address, city) => {
    const a = read(row);
    expect([sure(a, 'address'), sure(a, 'city')]).toEqual([address, city]);
  });

  test('facts are those that are answered, not those that are asked', () => {
    expect(sure(read('The home was built in 1968.'), 'fact.year_built')).toBe(1968);
    expect(sure(read('Homeowners association: [x] yes [ ] no'), 'fact.association')).toBe(true);
    expect(sure(read('Homeowners association: ☐ yes ☒ no'), 'fact.association')).toBe(false);
    expect(sure(read('Homeowners association: [ ] yes [ ] no'), 'fact.association')).toBeUndefined();
    expect(sure(read('Homeowners association: yes no'), 'fact.association')).toBeUndefined();
  });
});

test('a caption whose value cannot be read is named with its place, so that it can be shown', () => {
  const a = read('Purchase price: $ ~', 'Closing takes place on or before the day agreed.');
  expect(a.unread.map((u) => u.field)).toEqual(['fact.price']);
  expect(a.unread[0]!.source.rect.w).toBeGreaterThan(220);
  expect(read('Purchase price: $412,000').unread).toEqual([]);
});

test('a list of ten thousand people is read, and no more are taken over than a deal may have', () => {
  const row = 'Orla Byrne, Dermot Aalto, Maren Quill, Priya Nair, Agnes Thorvald,';
  const pages = Array.from({ length: 100 }, () => Array.from({ length: 20 }, () => row));
  const many = abstractOf(printed(...pages, ['(the “Buyers”)']));
  expect(acceptedAtFirst(many).people.filter((p) => p.on).length).toBeLessThanOrEqual(40);
});

describe('hostile text', () => {
  const words = fc.array(
    fc.oneof(
      fc.constantFrom(
        '$',
        '412,000',
        'price',
        'Seller:',
        '(“Buyer”)',
        'Orla',
        'Byrne',
        ',',
        '.',
        'closing',
        '1/15/2027',
        '10',
        'days',
        'after',
        'acceptance',
        'at',
        '26',
        'Hill',
        '20',
        '~',
      ),
      fc.string({ unit: 'binary', maxLength: 8 }),
    ),
    { maxLength: 60 },
  );
  test('whatever stands on a page, reading it ends and its values are ones a deal may have', () => {
    fc.assert(
      fc.property(words, words, (x, y) => {
        const a = abstractOf(printed([x.join(' '), y.join(' ')], [y.join(' ')]));
        const made = dealOf(a, acceptedAtFirst(a), []);
        for (const v of Object.values(made.facts)) expect(typeof v === 'number' ? Number.isFinite(v) : true).toBe(true);
        for (const p of a.people) expect(p.name.length).toBeLessThan(400);
      }),
    );
  });

  test('sixty thousand words of captions are read', () => {
    const row = 'Seller: Orla Byrne, price $1,000 closing 1/15/2027 (the “Buyer”) at 9 Mill Cut,';
    const pages = Array.from({ length: 400 }, () => Array.from({ length: 12 }, () => row));
    expect(abstractOf(printed(...pages)).people.length).toBeGreaterThan(0);
  });

  test('an amount never begins in the middle of another', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1_000, max: 99_999_999 }), (n) => {
        const text = `$${n.toLocaleString('en-US')}`;
        expect(moneyAt(piecesOfAll(printed([text])), 0)?.value.amount).toBe(n);
      }),
    );
  });
});
