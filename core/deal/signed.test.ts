import fc from 'fast-check';
import { signersIn, type Person } from './signed';

const person = (id: string, name: string, email = '', more: Partial<Person> = {}): Person => ({
  id,
  name,
  email,
  phone: null,
  side: 'seller',
  ...more,
});
const sr = person('sr', 'John Smith', 'sr@example.com');
const jr = person('jr', 'John Smith', 'jr@example.com');

test('two people of one name are two people: the one who signed has signed', () => {
  expect(signersIn([sr], [sr, jr]).signedBy).toEqual(['sr']);
  expect(signersIn([sr, jr], [sr, jr]).signedBy).toEqual(['sr', 'jr']);
  // Added to the packet on the way, under another id: known by name and address together.
  expect(signersIn([{ ...jr, id: 'late' }], [sr, jr]).signedBy).toEqual(['jr']);
  expect(signersIn([person('late', 'JOHN SMITH ', 'JR@example.com')], [sr, jr]).signedBy).toEqual(['jr']);
});

test('a name alone, an address alone, or two who fit are nobody', () => {
  expect(signersIn([person('x', 'John Smith')], [sr]).signedBy).toEqual([]);
  expect(signersIn([person('x', 'John Smith')], [person('y', 'John Smith')]).signedBy).toEqual([]);
  expect(signersIn([person('x', 'Jane Smith', 'sr@example.com')], [sr]).signedBy).toEqual([]);
  const twins = [person('a', 'Bo Li', 'home@example.com'), person('b', 'Bo Li', 'home@example.com')];
  expect(signersIn([person('x', 'Bo Li', 'home@example.com')], twins).signedBy).toEqual([]);
});

test('a phone is an address where there is no email', () => {
  const phone = { phone: '+1 555 0100' };
  expect(signersIn([person('x', 'Ada Poe', '', phone)], [person('y', 'Ada Poe', '', phone)]).signedBy).toEqual(['y']);
});

test('the firm’s own broker counts for the side they signed for; nobody else does', () => {
  const broker = person('m', 'Odile', 'odile@example.com', { side: 'listing_broker' });
  expect(signersIn([broker], [sr])).toEqual({ signedBy: [], signedFor: ['listing_broker'] });
  expect(signersIn([broker], [sr, { ...broker, id: 'known' }])).toEqual({ signedBy: ['known'], signedFor: [] });
  expect(signersIn([person('x', 'A Stranger', 'x@example.com')], [sr])).toEqual({ signedBy: [], signedFor: [] });
});

test('nobody counts as having signed who did not sign', () => {
  const name = fc.constantFrom('Al Poe', 'al poe', 'Bo Li', 'Cy Day');
  const mail = fc.constantFrom('', 'a@example.com', 'b@example.com');
  const people = fc
    .array(fc.tuple(name, mail), { maxLength: 6 })
    .map((list) => list.map(([n, m], i) => person(`p${i}`, n, m)));
  fc.assert(
    fc.property(people, people, (deal, packet) => {
      const renamed = packet.map((p) => ({ ...p, id: `k${p.id}` }));
      const { signedBy } = signersIn(renamed, deal);
      for (const id of signedBy) {
        const one = deal.find((p) => p.id === id)!;
        expect(
          renamed.some(
            (p) => p.name.toLowerCase() === one.name.toLowerCase() && p.email === one.email && p.email !== '',
          ),
        ).toBe(true);
      }
      expect(signersIn(packet, packet).signedBy).toEqual(packet.map((p) => p.id));
    }),
  );
});
