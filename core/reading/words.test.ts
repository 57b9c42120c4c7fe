/** Words whose meaning the rest of the document decides: letters, brokers of whom it is not said whose, misnamed parties. */
import { lettersOf, misnamedIn, roleOfLetter, roleOfWords, senseOf, unclearIn } from './words';

test.each([
  ['The buyer signs. The buyer pays. The purchaser waits.', 'buyer_broker'],
  ['The buyer signs. The buyer pays. The seller waits.', 'broker'],
  ['The tenant signs. The tenant pays. The owner waits.', 'broker'],
  // Twice may be by chance.
  ['The buyer signs and the buyer pays.', 'broker'],
  // A picture of a home for sale is no side; whoever lists it is.
  ['The buyer signs. The buyer pays. The buyer saw a listing photo.', 'buyer_broker'],
  ['The buyer signs. The buyer pays. The listing firm waits.', 'broker'],
  ['El comprador firma. El comprador paga. El comprador espera.', 'buyer_broker'],
])('in “%s” a bare broker is the %s', (text, role) => {
  const sense = senseOf(text);
  expect(roleOfWords('Broker', sense)?.role).toBe(role);
  expect(roleOfWords('Agent 2:', sense)).toEqual({ role, ordinal: 2 });
  // Where the words say whose, they are believed.
  expect(roleOfWords('Listing broker', sense)?.role).toBe('broker');
  expect(roleOfWords('Buyer’s agent', sense)?.role).toBe('buyer_broker');
});

test.each([
  ['The tenant pays the rent of the lease.', 'landlord'],
  ['The buyer pays the purchase price at the sale.', 'seller'],
  // Whom the owner faces says more than what else is spoken of.
  ['The transferee pays. Rent is due at the lease, and the rent is no penalty.', 'seller'],
])('in “%s” an owner is the %s', (text, role) => expect(roleOfWords('Owner', senseOf(text))?.role).toBe(role));

test.each([
  ['B1', 'buyer', 1],
  ['S 2', 'seller', 2],
  ['(T3)', 'tenant', 3],
  ['L-1:', 'landlord', 1],
  ['B', null, null],
  ['X1', null, null],
  ['B12', null, null],
  ['Box 1', null, null],
  ['Schedule B', null, null],
])('without a legend “%s” is %s %s', (text, role, ordinal) =>
  expect(roleOfLetter(text, new Map())).toEqual(role && { role, ordinal }),
);

test('a legend says what letters mean, with a number and without', () => {
  const letters = lettersOf('B = Buyer, S = the seller. G = guarantor; Q = question', senseOf(''));
  expect([...letters]).toEqual([
    ['b', 'buyer'],
    ['s', 'seller'],
    ['g', 'guarantor'],
  ]);
  expect(roleOfLetter('G', letters)).toEqual({ role: 'guarantor', ordinal: null });
  expect(roleOfLetter('G2', letters)).toEqual({ role: 'guarantor', ordinal: 2 });
  expect(lettersOf('L = Lessee', senseOf('')).get('l')).toBe('tenant');
});

test.each([
  ['Marlow Pike, the seller (“Buyer”), agrees', [['buyer', 'seller']]],
  ['the landlord, called “Tenant”, agrees', [['tenant', 'landlord']]],
  ['Marlow Pike, the seller (“Seller”), and Ines Caldera, the buyer (“Buyer”)', []],
  ['Marlow Pike (“Seller”) sells to Ines Caldera (“Buyer”)', []],
  // Who stands farther back is somebody else.
  ['bought from the seller by Ines Caldera (“Buyer”)', []],
  ['the roof (“Roof”) of the seller', []],
])('“%s” misnames %j', (text, misnamed) => expect([...misnamedIn(text, senseOf(''))]).toEqual(misnamed));

test.each([
  ['Owner and buyer agree. The rent of the lease goes on.', [['seller', 'landlord']]],
  ['The owner and the tenant agree on the rent.', []],
  ['The seller, who is the owner, and the buyer agree on the rent of the lease and what is let.', []],
  ['The buyer pays the broker. The buyer and the seller agree. The buyer waits.', [['broker', 'buyer_broker']]],
  ['The buyer pays the listing broker. The buyer and the seller agree. The buyer waits.', []],
  ['The seller pays the broker. The buyer waits.', []],
  [
    'El comprador paga al corredor. El comprador y el vendedor firman. El comprador espera.',
    [['broker', 'buyer_broker']],
  ],
])('in “%s” it is unclear who is meant: %j', (text, roles) =>
  expect([...unclearIn(text, senseOf(text))]).toEqual(roles),
);
