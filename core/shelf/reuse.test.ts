/** What of a packet is kept on the shelf: its roles and its order, and nothing that was that deal's. */
import { emptyDraft, NOBODY } from '../packet';
import type { Draft } from '../packet';
import { mark, party } from '../test/support';
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

test('a slot keeps its person’s second step and copy; a person without a side stays that person', () => {
  const step = { by: 'email' } as never;
  const kept = slotsOfPeople(
    [
      party('wren', { secondStep: step, copyAt: 'sending', act: 'desk', ordinal: 2 }),
      party('ida', { side: 'other', name: 'Ida Holm', secondStep: step, act: 'copy' }),
    ],
    newId,
  );
  expect(kept.get('wren')).toMatchObject({
    name: 'Seller 2',
    email: '',
    act: 'desk',
    secondStep: step,
    copyAt: 'sending',
  });
  expect(kept.get('ida')).toMatchObject({ name: 'Ida Holm', email: 'ida@example.com', act: 'copy', slot: 'person' });
  expect('secondStep' in kept.get('ida')!).toBe(false);
});

test('a form keeps only the marks, rules and people of its own paper', () => {
  const moved = { page: 2, partyId: 'wren', rect: { x: 1, y: 2, w: 40, h: 16 } } as never;
  const rule = (id: string, documentId: string, partyId: string) => ({
    id,
    documentId,
    partyIds: [partyId],
    anchor: { fx: 0, fy: 1 as const },
    except: [],
    moved: partyId === 'wren' ? [moved] : [],
  });
  const draft: Draft = {
    ...emptyDraft('Papers'),
    parties: ['wren', 'callum', 'ada', 'bo'].map((id, i) => party(id, { ordinal: i + 1 })),
    documents: [{ id: 'doc' }, { id: 'other' }],
    marks: [
      { ...mark('a', 'callum', 'signature'), placeId: 'doc.2.1' },
      { ...mark('b', 'ada', 'signature'), documentId: 'other', placeId: 'document.1.1' },
      { ...mark('c', 'callum', 'text'), placeId: 'document.1.1' },
    ],
    rules: [rule('r', 'doc', 'wren'), rule('q', 'other', 'bo')],
  };
  const people = slotsOfPeople(draft.parties, newId);
  const slot = (id: string) => people.get(id)!.id;
  const form = formFrom({ draft, people, tags: TAGS, newId }, 'doc', 'new', 'Disclosure');
  expect(form.parties.map((p) => p.id)).toEqual([slot('wren'), slot('callum')]);
  expect(form.documents).toEqual([{ id: 'new' }]);
  expect(form.marks.map((m) => [m.partyId, m.documentId, m.placeId])).toEqual([
    [slot('callum'), 'new', 'new.2.1'],
    [slot('callum'), 'new', 'document.1.1'],
  ]);
  expect(form.rules).toEqual([
    {
      ...rule('rule-new', 'new', slot('wren')),
      moved: [{ page: 2, partyId: slot('wren'), rect: { x: 1, y: 2, w: 40, h: 16 } }],
    },
  ]);
});

test('a kit keeps a packet’s settings, gates and forms', () => {
  const draft: Draft = {
    ...emptyDraft('Papers'),
    subject: '',
    parties: [wren],
    gates: [{ id: 'g', partyIds: ['wren', 'gone'], need: 'any' }],
    schedule: { lastDay: '2026-12-01', warnDays: 3, nudge: null },
  };
  const kit = (change: Partial<Draft>) => {
    const d = { ...draft, ...change };
    return kitFrom({ draft: d, people: slotsOfPeople(d.parties, newId), tags: TAGS, newId }, ['f1', 'f2'], 'Kit');
  };
  const made = kit({ readAlong: true, handOver: true, reports: ['odile'] });
  expect(made).toMatchObject({
    name: 'Kit',
    subject: 'Please sign: Kit',
    readAlong: true,
    handOver: true,
    reports: ['odile'],
    documents: [{ id: 'f1' }, { id: 'f2' }],
    schedule: { lastDay: null, warnDays: 3, nudge: null },
  });
  expect(made.gates).toEqual([{ id: expect.any(String), partyIds: [made.parties[0]!.id], need: 'any' }]);
  expect(made.gates[0]!.id).not.toBe('g');
  const plain = kit({});
  expect([plain.readAlong, 'reports' in plain]).toEqual([false, false]);
});

test('values of four letters or more become tags, the longest first', () => {
  const tags = new Map([
    ['city', 'Lock'],
    ['unit', '12A'],
    ['address', '7 Lock Row'],
  ]);
  expect(asTags('7 Lock Row, Lock, 12A', [], tags)).toBe('{address}, {city}, 12A');
  // Words inside a tag, and names of people without a side, do not count as names.
  const lister = party('x', { name: 'Seller Marsh' });
  expect(asTags('For {seller 1} only', [lister], tags)).toBe('For {seller 1} only');
  expect(asTags('For Seller only', [lister], tags)).toBe('');
  expect(asTags('Ask Ida Holm', [party('ida', { name: 'Ida Holm', side: 'other' })], tags)).toBe('Ask Ida Holm');
  // Parts of names: one letter is ignored, two or three letters match as written or in capitals, four or more in any case.
  expect(asTags('Plan B', [party('b', { name: 'B. Mann' })], tags)).toBe('Plan B');
  expect(asTags('ann and the others', [party('a', { name: 'Ann Reed' })], tags)).toBe('ann and the others');
  expect(asTags('ANN and the others', [party('a', { name: 'Ann Reed' })], tags)).toBe('');
  expect(asTags('anne and the others', [party('a', { name: 'Anne Li' })], tags)).toBe('');
  expect(asTags('O’Hara signs', [party('o', { name: 'Mary O’Hara' })], tags)).toBe('');
});
