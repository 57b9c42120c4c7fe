/** Tests who fills the slots of a written form, in a packet and on the sample paper. */
import { party } from '../test/support';
import { fillSlots, newSlot } from '../shelf';
import { ENGLISH } from '../words';
import { emptyWritten, namesBySide, sampleFor, slotPeople, tagDefs } from './index';

const landlord = newSlot('one', 'landlord', 1, 'L', 0);
const tenants = newSlot('every', 'tenant', 1, 'T', 1);
const PEOPLE = [
  party('ines', { side: 'tenant', ordinal: 2, name: 'Ines Moor' }),
  party('odile', { side: 'landlord', name: 'Odile Marsh', company: 'Canal Homes' }),
  party('wren', { side: 'tenant', ordinal: 1, name: 'Wren Alder' }),
  party('ada', { side: 'landlord', ordinal: 2, name: 'Ada Reed' }),
];

test('a slot for one person keeps its id; a slot for everybody uses the people’s ids, in order', () => {
  const { slots, everyOf, sides } = slotPeople(fillSlots([landlord, tenants], PEOPLE), PEOPLE, ENGLISH);
  const odile = { partyId: 'L', name: 'Canal Homes: Odile Marsh', under: 'Landlord 1' };
  const all = [
    { partyId: 'wren', name: 'Wren Alder', under: 'Tenant 1' },
    { partyId: 'ines', name: 'Ines Moor', under: 'Tenant 2' },
  ];
  expect(slots.get('L')).toEqual([odile]);
  expect(new Set(slots.get('T'))).toEqual(new Set(all));
  expect([...everyOf]).toEqual([['T', 'tenant']]);
  expect(sides.get('tenant')).toEqual(all);
  // A person without a slot keeps their own id.
  expect(sides.get('landlord')).toEqual([odile, { partyId: 'ada', name: 'Ada Reed', under: 'Landlord 2' }]);
  expect(sides.get('seller')).toEqual([]);
});

test('names of a side are in order; a company replaces its person’s name', () => {
  const names = namesBySide(PEOPLE);
  expect(names.get('tenant')).toEqual(['Wren Alder', 'Ines Moor']);
  expect(names.get('landlord')).toEqual(['Canal Homes', 'Ada Reed']);
  expect(names.get('buyer')).toEqual([]);
});

test('the sample paper shows each slot once by name, and one person for each side', () => {
  const tags = new Map(tagDefs().map((t) => [t.key, t]));
  const sample = sampleFor([landlord, tenants], tags, ENGLISH);
  const [one, every] = [
    { partyId: 'L', name: '‹Landlord 1›', under: '' },
    { partyId: 'T', name: '‹Every tenant›', under: '' },
  ];
  expect([...sample.slots]).toEqual([
    ['L', [one]],
    ['T', [every]],
  ]);
  expect([...sample.everyOf]).toEqual([['T', 'tenant']]);
  expect(sample.sides.get('tenant')).toEqual([every]);
  expect(sample.sides.get('landlord')).toEqual([{ partyId: '', name: '‹Landlord 1›', under: '' }]);
  expect(sample.sides.get('seller')).toEqual([{ partyId: '', name: '‹Seller 1›', under: '' }]);
  expect([sample.sample, sample.tags, sample.values]).toEqual([true, tags, { facts: new Map(), people: new Map() }]);
});

test('a new text has a title and an empty paragraph', () => {
  expect(emptyWritten('House rules')).toEqual({
    language: 'en',
    doc: {
      type: 'doc',
      content: [
        { type: 'heading', attrs: { level: 1 }, content: [{ type: 'text', text: 'House rules' }] },
        { type: 'paragraph', content: [] },
      ],
    },
  });
});
