/** What reading learns from people: places that were moved, given to somebody else, or dismissed. */
import fc from 'fast-check';
import { emptyDraft, isSure, NOBODY, proposalsOf, type Draft, type Mark, type MarkKind } from '../packet';
import type { DocumentFacts } from '../packet/resolve';
import { DOUBT, type PrintedPlace } from '../reading/types';
import { newSlot } from '../shelf';
import { form, paper, PLACES, replaced } from '../test/disclosure';
import { mark, party } from '../test/support';
import { countCorrections, learnedPlaces, recall } from '.';

let n = 0;

const seller = newSlot('one', 'seller', 1, 'slot-s', 0);
const buyer = newSlot('one', 'buyer', 1, 'slot-b', 1);
const second = newSlot('one', 'buyer', 2, 'slot-b2', 2);
const [agnes, priya, mateo] = [
  party('agnes', { side: 'seller', ordinal: 1 }),
  party('priya', { side: 'buyer', ordinal: 1 }),
  party('mateo', { side: 'buyer', ordinal: 2 }),
];

/** Returns a mark on the blank of a line, moved by so many points. */
const on = (line: number, slot: string, kind: MarkKind, by = { x: 0, y: 0 }): Mark => ({
  ...mark(`m${line}`, slot, kind, 1, { x: (line === 7 ? 135 : 170) + by.x, y: 56 + 24 * line + by.y, w: 110, h: 16 }),
  documentId: 'doc',
});
const AS_READ = [on(5, 'slot-s', 'signature'), on(6, 'slot-b', 'signature')];
const sent = (change: Partial<Draft>, document: DocumentFacts = form()) => ({
  document,
  draft: { ...emptyDraft('Disclosure'), parties: [seller, buyer, second], documents: [{ id: 'doc' }], ...change },
});
const now = (doc: DocumentFacts): DocumentFacts => ({ ...doc, id: 'now' });

/** Returns what is proposed on a document after learning: state, kind and person of each printed place. */
function proposed(change: Partial<Draft>, after = now(form()), before?: DocumentFacts) {
  const places = learnedPlaces(sent(change, before), after)!;
  const draft = { ...emptyDraft('Papers'), parties: [agnes, priya, mateo], documents: [{ id: 'now' }] };
  return proposalsOf(draft, [{ ...after, places }])
    .slice(0, places.length)
    .map((p) => [p.state, p.kind, p.partyId]);
}
const READ = [
  ['open', 'signature', 'agnes'],
  ['open', 'signature', 'priya'],
  ['open', 'text', null],
];

test('where people have accepted what was read, everything is proposed as it is read', () => {
  expect(learnedPlaces(sent({ marks: AS_READ }), now(form()))).toEqual(PLACES);
  expect(countCorrections(sent({ marks: AS_READ }))).toBe(0);
  expect(proposed({ marks: AS_READ })).toEqual(READ);
});

test('a place that was given to somebody else is theirs the next time', () => {
  const marks = [on(5, 'slot-b2', 'signature'), on(6, 'slot-b', 'signature')];
  expect(countCorrections(sent({ marks }))).toBe(1);
  expect(proposed({ marks })).toEqual([['open', 'signature', 'mateo'], ...READ.slice(1)]);
  // One that nobody was read for, too.
  expect(proposed({ marks: [on(7, 'slot-s', 'text')] })).toEqual([...READ.slice(0, 2), ['open', 'text', 'agnes']]);
});

test('a place that was another kind is that kind the next time', () => {
  const marks = [on(5, 'slot-s', 'initials'), on(6, 'slot-b', 'date_signed')];
  expect(proposed({ marks })).toEqual([
    ['open', 'initials', 'agnes'],
    ['open', 'date_signed', 'priya'],
    ['open', 'text', null],
  ]);
});

test('a dismissed place stays dismissed, until somebody puts a mark on it', () => {
  const passed = [{ id: 'doc.1.2' }];
  expect(countCorrections(sent({ passed }))).toBe(1);
  expect(proposed({ passed })).toEqual([...READ.slice(0, 2), ['passed', 'text', null]]);
  const learned = form((l) => l, learnedPlaces(sent({ passed }), form())!);
  expect(proposed({}, now(form()), learned)).toEqual([...READ.slice(0, 2), ['passed', 'text', null]]);
  const marks = [{ ...on(7, NOBODY, 'label') }, on(7, 'slot-s', 'text')];
  expect(proposed({ marks }, now(form()), learned)[2]).toEqual(['open', 'text', 'agnes']);
});

test('a line to sign that was dismissed is not dismissed for the next people: it is uncertain, and the gate check names it', () => {
  const places = learnedPlaces(sent({ passed: [{ id: 'doc.1.0' }] }), form())!;
  expect(places[0]).toMatchObject({ role: 'seller', confidence: DOUBT, read: { kind: 'signature', role: 'seller' } });
  expect(places[0]!.dismissed).toBeUndefined();
  const draft = { ...emptyDraft('Papers'), parties: [agnes], documents: [{ id: 'doc' }] };
  expect(proposalsOf(draft, [form((l) => l, places)])[0]).toMatchObject({ state: 'open', doubtful: true });
  // It stays so where it was left open.
  expect(
    learnedPlaces(
      sent(
        {},
        form((l) => l, places),
      ),
      form(),
    ),
  ).toEqual(places);
});

test('what was done about the line of somebody who was not there holds for nobody else', () => {
  const alone = { parties: [seller], passed: [{ id: 'doc.1.1' }] };
  expect(learnedPlaces(sent(alone), form())).toEqual(PLACES);
  expect(countCorrections(sent(alone))).toBe(0);
  // Whoever signed on it may have done so in their place: both readings are shown.
  const places = learnedPlaces(sent({ parties: [seller], marks: [on(6, 'slot-s', 'signature')] }), form())!;
  expect(places[1]).toMatchObject({ role: 'seller', confidence: DOUBT, other: { kind: 'signature', role: 'buyer' } });
  const draft = { ...emptyDraft('Papers'), parties: [agnes, priya], documents: [{ id: 'doc' }] };
  const proposal = proposalsOf(draft, [form((l) => l, places)])[1]!;
  expect(proposal).toMatchObject({ partyId: 'agnes', doubtful: true, other: { partyId: 'priya' } });
  expect(isSure(proposal)).toBe(false);
});

test('a place whose mark was moved is proposed there, on another edition too', () => {
  const marks = [on(5, 'slot-s', 'signature', { x: 6, y: -3 }), on(6, 'slot-b', 'signature', { x: 2, y: 0 })];
  expect(countCorrections(sent({ marks }))).toBe(1);
  expect(learnedPlaces(sent({ marks }), now(form()))!.map((p) => p.rect)).toEqual([
    { ...PLACES[0]!.rect, x: 176, y: 173 },
    PLACES[1]!.rect,
    PLACES[2]!.rect,
  ]);
  const lower = PLACES.map((p) => ({ ...p, rect: { ...p.rect, y: p.rect.y + 24 } }));
  const edition = form(([title, ...rest]) => [title!, 'A line that no earlier edition had', ...rest], lower);
  expect(learnedPlaces(sent({ marks }), now(edition))![0]!.rect).toEqual({ ...lower[0]!.rect, x: 176, y: 197 });
});

test('what was learned goes on to the next document, and what it was read as stays known', () => {
  const first = learnedPlaces(sent({ marks: [on(5, 'slot-b2', 'initials', { x: 6, y: -3 })] }), form())!;
  expect(first[0]).toMatchObject({
    kind: 'initials',
    role: 'buyer',
    ordinal: 2,
    confidence: 1,
    read: { kind: 'signature', role: 'seller', ordinal: 1, rect: PLACES[0]!.rect },
  });
  // Sent without any mark on it, and sent as it was proposed: the same is learned from both.
  const learned = form((l) => l, first);
  expect(learnedPlaces(sent({}, learned), form())).toEqual(first);
  const accepted = [on(5, 'slot-b2', 'initials', { x: 6, y: -3 })];
  expect(learnedPlaces(sent({ marks: accepted }, learned), form())).toEqual(first);
  // Whoever undoes it is believed.
  expect(learnedPlaces(sent({ marks: AS_READ }, learned), form())).toEqual(PLACES);
});

test('an uncertain place that somebody has decided otherwise is uncertain no more', () => {
  const doubtful = PLACES.map((p, i): PrintedPlace =>
    i ? p : { ...p, confidence: 0.3, other: { ...p, role: 'buyer' } },
  );
  const places = learnedPlaces(
    sent({ marks: [on(5, 'slot-b', 'signature')] }),
    form((l) => l, doubtful),
  )!;
  expect(places[0]).toMatchObject({ role: 'buyer', confidence: 1 });
  expect(places[0]).not.toHaveProperty('other');
});

test('text of the sender, and what a person of no side fills in, teaches nothing', () => {
  const ida = { ...party('ida', { name: 'Ida Holm', side: 'other', act: 'sign' }), slot: 'person' as const };
  const marks = [on(5, 'ida', 'signature'), on(7, 'slot-s', 'label')];
  expect(learnedPlaces(sent({ marks, parties: [seller, ida] }), now(form()))).toEqual(PLACES);
});

test('a place that was moved stays on its page, and off print', () => {
  const marks = [{ ...on(5, 'slot-s', 'signature'), placeId: 'doc.1.0' }];
  const went = (by: { x: number; y: number }, after: DocumentFacts) => {
    const moved = marks.map((m) => ({ ...m, rect: { ...m.rect, x: m.rect.x + by.x, y: m.rect.y + by.y } }));
    return learnedPlaces(sent({ marks: moved }), after)![0]!.rect;
  };
  expect(went({ x: 330, y: 0 }, form())).toMatchObject({ x: 500 });
  expect(went({ x: 400, y: 0 }, form())).toMatchObject({ x: 612 - 110 });
  // Onto the words of the line below: the printed place covers none.
  const bare = form(replaced('here ________________', 'here'));
  const moved = marks.map((m) => ({ ...m, rect: { ...m.rect, x: 70, y: 200 } }));
  expect(learnedPlaces(sent({ marks: moved }, bare), bare)![0]!.rect).toEqual(PLACES[0]!.rect);
});

test('marks come again on a document that was read as people had decided', () => {
  const swapped = sent({
    marks: [on(5, 'slot-b', 'signature'), on(6, 'slot-s', 'signature')],
    passed: [{ id: 'doc.1.2' }],
  });
  const after = now(form((l) => l, learnedPlaces(swapped, form())!));
  const draft = { ...emptyDraft('Papers'), parties: [agnes, priya, mateo], documents: [{ id: 'now' }] };
  const found = recall({ form: swapped.draft, before: swapped.document }, after, draft, () => `new${n++}`)!;
  expect(found).toMatchObject({ uncertain: 0, lost: 0, open: 0, passed: [{ id: 'now.1.2' }] });
  expect(found.marks.slice(0, 2).map((m) => [m.partyId, m.rect])).toEqual([
    ['priya', PLACES[0]!.rect],
    ['agnes', PLACES[1]!.rect],
  ]);
});

test('marks on no printed place count as corrections', () => {
  const free = [{ ...mark('f', 'slot-s', 'signature', 1, { x: 400, y: 500, w: 110, h: 16 }), documentId: 'doc' }];
  expect(countCorrections(sent({ marks: [...AS_READ, ...free] }))).toBe(1);
});

test('nothing is learned from another document, or for a place that is not found again for certain', () => {
  const passed = [{ id: 'doc.1.0' }];
  expect(learnedPlaces(sent({ passed }), now(paper([['Something else entirely']])))).toBeNull();
  const gone = form(replaced('Seller signs here ________________', 'Nobody has to sign'), PLACES.slice(1));
  expect(learnedPlaces(sent({ passed }), now(gone))).toEqual(PLACES.slice(1));
});

test('whatever was decided, the places are as many and in the same order, and nothing names a person', () => {
  const kinds: MarkKind[] = ['signature', 'initials', 'text', 'date', 'date_signed', 'printed_name', 'tick', 'number'];
  const any = fc.record({
    line: fc.integer({ min: 5, max: 7 }),
    slot: fc.constantFrom('slot-s', 'slot-b', 'slot-b2', 'gone'),
    kind: fc.constantFrom(...kinds),
    by: fc.record({ x: fc.integer({ min: -60, max: 60 }), y: fc.integer({ min: -20, max: 20 }) }),
  });
  fc.assert(
    fc.property(fc.array(any, { maxLength: 5 }), fc.subarray([0, 1, 2, 99]), (marks, passed) => {
      const change = {
        marks: marks.map(({ line, slot, kind, by }, i) => ({ ...on(line, slot, kind, by), id: `m${i}` })),
        passed: passed.map((i) => ({ id: `doc.1.${i}` })),
      };
      const places = learnedPlaces(sent(change), now(form()))!;
      expect(places.map((p) => p.label)).toEqual(PLACES.map((p) => p.label));
      expect(places.map((p) => p.read?.rect ?? p.rect)).toEqual(PLACES.map((p) => p.rect));
      expect(JSON.stringify(places)).not.toMatch(/slot-/);
    }),
    { numRuns: 100 },
  );
});
