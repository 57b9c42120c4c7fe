/** What of a packet is kept on the shelf: its roles and its order, and nothing that was that deal's. */
import { emptyDraft, NOBODY } from '../packet';
import type { Draft } from '../packet';
import { mark, party } from '../test-support';
import { asTags, formFrom, kitFrom, slotsOfPeople } from '.';

let n = 0;
const newId = () => `id${n++}`;

const TAGS = new Map([
  ['address', '7 Weir Terrace'],
  ['price', '$412,000'],
  ['sellers', 'Wren Alder'],
  ['seller 1', 'Wren Alder'],
]);
const wren = party('wren', { name: 'Wren Alder', note: 'Wren, the shed is yours.', language: 'es' });

test('text is kept with tags in the place of the deal; where somebody is named all the same it is not kept', () => {
  expect(asTags('The papers about 7 Weir Terrace for Wren Alder', [wren], TAGS)).toBe(
    'The papers about {address} for {seller 1}',
  );
  expect(asTags('Wren, these are the papers', [wren], TAGS)).toBe('');
  expect(asTags('The Alders know', [wren], TAGS)).toBe('The Alders know');
  expect(asTags('Call me', [wren], TAGS)).toBe('Call me');
  // In whatever case, and however short; a small word that is also a name counts as it is written.
  for (const text of ['Hello ALDER family', 'hi wren', 'WREN: sign here', 'for alder’s house'])
    expect([text, asTags(text, [wren], TAGS)]).toEqual([text, '']);
  const [bo, will] = [party('bo', { name: 'Bo Li' }), party('will', { name: 'Will An' })];
  expect(asTags('Hello Bo, hello Li.', [bo], TAGS)).toBe('');
  expect(asTags('Hello BO', [bo], TAGS)).toBe('');
  expect(asTags('All of it is below', [bo], TAGS)).toBe('All of it is below');
  expect(asTags('An offer', [will], TAGS)).toBe('');
  expect(asTags('an offer', [will], TAGS)).toBe('an offer');
});

test('what is kept of a packet has roles and no deal: no name, no note, no sum, no address', () => {
  const draft: Draft = {
    ...emptyDraft('Sale papers'),
    subject: 'Please sign for 7 Weir Terrace',
    message: 'Wren, call me.',
    parties: [wren, party('ida', { name: 'Ida Holm', side: 'other', act: 'copy', note: 'for you' })],
    documents: [{ id: 'doc' }],
    gates: [{ id: 'g', partyIds: ['wren'] }],
    marks: [
      { ...mark('s', 'wren', 'signature'), placeId: 'doc.1.0' },
      { ...mark('t', 'wren', 'text'), value: '$412,000', readOnly: true },
      { ...mark('u', 'wren', 'text'), value: 'the blue one', readOnly: true },
      { ...mark('l', NOBODY, 'label'), value: '7 Weir Terrace' },
      { ...mark('w', NOBODY, 'label'), value: 'sold as seen on Friday' },
      { ...mark('c', 'wren', 'choice'), value: 'Gas', group: 'heat' },
    ],
    rules: [
      {
        id: 'r',
        documentId: 'doc',
        partyIds: ['wren'],
        anchor: { fx: 0, fy: 1 },
        except: [{ page: 1, partyId: 'wren' }],
        moved: [],
      },
    ],
    passed: [{ id: 'doc.1.3' }, { id: 'other.1.1' }],
    schedule: { lastDay: '2026-12-01', warnDays: 1, nudge: null },
  };
  const from = { draft, people: slotsOfPeople(draft.parties, newId), tags: TAGS, newId };
  const kept = formFrom(from, 'doc', 'new', 'Disclosure');
  const kit = kitFrom(from, ['f1'], 'Again');
  const all = JSON.stringify([kept, kit]);
  for (const secret of ['Wren', 'Alder', 'Weir', '412', 'blue', 'Friday', 'wren@', 'for you', 'shed'])
    expect(all).not.toContain(secret);
  expect(kept.marks.map((m) => [m.kind, m.value])).toEqual([
    ['signature', undefined],
    ['text', '{price}'],
    ['text', undefined],
    ['label', '{address}'],
    ['choice', 'Gas'],
  ]);
  expect([kept.passed, kept.marks[0]!.placeId, kept.rules[0]!.except[0]!.partyId]).toEqual([
    [{ id: 'new.1.3' }],
    'new.1.0',
    kept.parties[0]!.id,
  ]);
  expect([kit.subject, kit.message, kit.schedule.lastDay]).toEqual(['Please sign for {address}', '', null]);
  expect(kit.parties.map((p) => [p.name, p.act])).toEqual([
    ['Seller 1', 'sign'],
    ['Ida Holm', 'copy'],
  ]);
  expect(kit.gates[0]!.partyIds).toEqual([kit.parties[0]!.id]);
});
