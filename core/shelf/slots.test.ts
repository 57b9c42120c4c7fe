/** Tests slots of forms and kits: defaults, equality across forms, and slots read from printed places. */
import { party, printedPlace } from '../test/support';
import type { PrintedPlace } from '../reading/types';
import { newSlot, slotsOnPages, slotsTogether, type Slot } from '.';
import { sameSlot } from './slots';

const person = (name: string, email: string, more: Partial<Slot> = {}): Slot => ({
  ...party('ida', { name, email, side: 'other' }),
  slot: 'person',
  ...more,
});

test('a new slot signs, or gets a copy if it has no side; only a slot for one person has a number', () => {
  expect(newSlot('one', 'seller', 2, 'x', 3)).toEqual({
    id: 'x',
    name: 'Seller 2',
    email: '',
    phone: null,
    side: 'seller',
    ordinal: 2,
    act: 'sign',
    ink: 3,
    slot: 'one',
  });
  expect(newSlot('every', 'buyer', 3, 'x', 0)).toMatchObject({ name: 'Every buyer', ordinal: 1, slot: 'every' });
  expect(newSlot('one', 'other', 1, 'x', 0).act).toBe('copy');
});

test.each<[string, Slot, Slot, boolean]>([
  ['same side and number', newSlot('one', 'seller', 1, 'a', 0), newSlot('one', 'seller', 1, 'b', 1), true],
  ['another number', newSlot('one', 'seller', 1, 'a', 0), newSlot('one', 'seller', 2, 'b', 1), false],
  ['another side', newSlot('one', 'seller', 1, 'a', 0), newSlot('one', 'buyer', 1, 'b', 1), false],
  ['one and everybody', newSlot('one', 'seller', 1, 'a', 0), newSlot('every', 'seller', 1, 'b', 1), false],
  ['everybody of a side', newSlot('every', 'tenant', 1, 'a', 0), newSlot('every', 'tenant', 1, 'b', 1), true],
  [
    'everybody, whatever their numbers',
    newSlot('every', 'tenant', 1, 'a', 0),
    { ...newSlot('every', 'tenant', 1, 'b', 1), ordinal: 4 },
    true,
  ],
  ['everybody of two sides', newSlot('every', 'tenant', 1, 'a', 0), newSlot('every', 'buyer', 1, 'b', 1), false],
  ['a person, in another case', person('Ida Holm', 'ida@example.com'), person('Ida Holm', 'IDA@example.com'), true],
  ['spouses with one mailbox', person('Ida Holm', 'a@example.com'), person('Ola Holm', 'a@example.com'), false],
  ['one name, two addresses', person('Ida Holm', 'a@example.com'), person('Ida Holm', 'b@example.com'), false],
  ['a person of another side', person('Ida', 'a@x.example'), person('Ida', 'a@x.example', { side: 'seller' }), true],
  ['a person and a slot', person('Ida', ''), { ...newSlot('one', 'other', 1, 'b', 0), name: 'Ida' }, false],
])('%s', (_what, a, b, same) => {
  expect([sameSlot(a, b), sameSlot(b, a)]).toEqual([same, same]);
});

test('equal slots of several drafts are merged, keeping the first, with inks in order', () => {
  const a = { ...newSlot('one', 'seller', 1, 'a', 5), act: 'approve' as const };
  const b = newSlot('one', 'seller', 1, 'b', 0);
  const c = newSlot('one', 'buyer', 1, 'c', 0);
  // A party without a slot kind counts as a slot for one person.
  const plain = party('wren', { side: 'buyer' });
  expect(slotsTogether([{ parties: [a] }, { parties: [b, c] }, { parties: [plain] }])).toEqual([
    { ...a, ink: 0 },
    { ...c, ink: 1 },
  ]);
});

test('a form gets one slot for each printed signature or initials line of a side', () => {
  const names = (...places: PrintedPlace[]) => slotsOnPages(places, () => 'id').map((s) => s.name);
  expect(names(printedPlace({ role: 'buyer' }), printedPlace({ ordinal: 2 }), printedPlace({}))).toEqual([
    'Seller 1',
    'Seller 2',
    'Buyer 1',
  ]);
  expect(names(printedPlace({ kind: 'initials', ordinal: 3 }), printedPlace({ ordinal: 1 }))).toHaveLength(3);
  expect(names(printedPlace({ kind: 'text', ordinal: 4 }), printedPlace({ kind: 'date' }))).toEqual([]);
  expect(names(printedPlace({ ordinal: null }))).toEqual(['Seller 1']);
  expect(names(printedPlace({ ordinal: 40 }))).toHaveLength(12);
  expect(names(printedPlace({ role: 'unknown' }))).toEqual([]);
  const inks = slotsOnPages([printedPlace({ ordinal: 2 }), printedPlace({ role: 'tenant' })], () => 'id').map(
    (s) => s.ink,
  );
  expect(inks).toEqual([0, 1, 2]);
});
