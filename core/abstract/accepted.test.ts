/** What a member accepts of a contract, and what later documents state otherwise. */
import { dueDay } from '../calendar';
import type { DealKind } from '../deal';
import { printed } from '../test/printed';
import { abstractOf, acceptedAtFirst, changesStated, datesOf, dealOf, fieldsShown, forWhomOf } from './index';

const read = (...rows: string[]) => abstractOf(printed(['PURCHASE AGREEMENT', ...rows]));

describe('what a member accepts', () => {
  const a = read(
    'Seller: Orla Byrne ~ Buyer: Maren Aalto',
    'for the property at 26 Lock Hill, Tern Lock (the “Property”). The price is $412,000.',
    'Inspections are completed within 10 days after acceptance. Loan approval: 5 business days before closing.',
    'Closing takes place 45 days after acceptance.',
    'Seller: Orla Byrne ~ Date: 11/28/2026',
    'Buyer: Maren Aalto ~ Date: 11/27/2026',
  );
  const start = acceptedAtFirst(a);

  test('counted days agree with the calendar, also one that is counted from a counted one', () => {
    const dates = datesOf(a, start, []);
    const closing = dueDay({ n: 45, unit: 'days', way: 'after', roll: false }, '2026-11-28', []);
    expect(dates.closing).toEqual(closing);
    expect(dates.loan).toEqual(dueDay({ n: 5, unit: 'business_days', way: 'before', roll: false }, closing.day, []));
  });

  test('what is certain makes the deal; what is left out or typed makes it otherwise', () => {
    expect(dealOf(a, start, [])).toMatchObject({
      kind: 'sale',
      address: '26 Lock Hill',
      city: 'Tern Lock',
      parties: [{ name: 'Orla Byrne' }, { name: 'Maren Aalto' }],
      facts: { price: 412_000 },
      dates: { accepted: '2026-11-28', inspection: '2026-12-08' },
    });
    const other = {
      ...start,
      fields: { ...start.fields, 'fact.price': { typed: 400_000 }, 'date.accepted': null },
      people: start.people.map((p, i) => ({ ...p, on: i > 0 })),
    };
    expect(dealOf(a, other, [])).toMatchObject({
      parties: [{ name: 'Maren Aalto' }],
      facts: { price: 400_000 },
      dates: {},
    });
    expect(dealOf(a, { ...start, kind: 'tenancy' }, []).facts).toEqual({});
  });

  test('a person of the address book is taken over only if just one has the name', () => {
    const known = [{ id: 'p1', email: 'maren@example.com', phone: null, company: '' }];
    const people = (n: number) =>
      a.people.map((p) => ({ ...p, known: p.name === 'Maren Aalto' ? [...known, ...known].slice(0, n) : [] }));
    expect(acceptedAtFirst({ ...a, people: people(1) }).people[1]).toMatchObject({
      personId: 'p1',
      email: 'maren@example.com',
    });
    expect(acceptedAtFirst({ ...a, people: people(2) }).people[1]).toMatchObject({ personId: null, email: '' });
  });

  test('the usual fields are asked for even if the contract does not state them', () => {
    const shown = (kind: DealKind) => fieldsShown({ fields: [] }, kind);
    expect(shown('sale')).toEqual(['address', 'city', 'fact.price', 'date.accepted', 'date.closing']);
    expect(shown('tenancy')).toContain('fact.rent');
  });

  test('the firm acts for the side whose broker it is', () => {
    const broker = read('Buyer’s broker: Towpath & Vane Realty');
    expect(forWhomOf(broker, 'sale', 'Towpath & Vane Realty')).toBe('buyer');
    expect(forWhomOf(broker, 'sale', 'Other Realty')).toBeNull();
  });
});

describe('documents that state otherwise', () => {
  const deal = {
    kind: 'sale' as const,
    facts: { price: 412_000 },
    dates: { accepted: '2026-11-28', closing: '2027-01-15' },
    parties: [{ side: 'buyer' as const, name: 'Maren Aalto' }],
  };
  const document = (id: string, ...rows: string[]) => ({ id, name: id, since: '2026-12-01', abstract: read(...rows) });
  const stated = (...documents: ReturnType<typeof document>[]) =>
    changesStated(documents, deal, [], (key) => key === 'gone fact.price 405000').map((c) => [
      c.documentId,
      c.field,
      c.value,
    ]);

  test('another day, price or person is reported; the same one, and what was dismissed, is not', () => {
    expect(stated(document('a', 'Closing: January 29, 2027. The price is $412,000.'))).toEqual([
      ['a', 'date.closing', '2027-01-29'],
    ]);
    expect(stated(document('b', 'Buyer: Priya Nair'))).toEqual([['b', 'side.buyer', 'Priya Nair']]);
    expect(stated(document('c', 'Buyer: Maren K. Aalto'))).toEqual([]);
    expect(stated(document('gone', 'The price is $405,000.'))).toEqual([]);
  });

  test('the newest document that states a field counts; contradictions count as nothing and hide what older ones say', () => {
    expect(stated(document('new', 'Closing: January 15, 2027'), document('old', 'Closing: January 29, 2027'))).toEqual(
      [],
    );
    const both = document('both', 'Closing: January 29, 2027', 'Closing date: January 30, 2027');
    expect(stated(both, document('old', 'Closing: January 20, 2027'))).toEqual([]);
    expect(stated(document('both', 'Closing: January 29, 2027', 'Closing date: January 30, 2027'))).toEqual([]);
  });
});
