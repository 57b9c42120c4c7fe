/** The shelf: slots filled by side and order, and what a kit makes of its forms for a deal. */
import fc from 'fast-check';
import {
  applyEdits,
  emptyDraft,
  invertEdits,
  acceptEdits,
  proposalsOf,
  gatesOfPattern,
  canAccept,
  NOBODY,
} from '../packet';
import type { Draft, DraftEdit, PacketParty } from '../packet';
import { overlapArea } from '../paper/geometry';
import type { PrintedPlace } from '../reading/types';
import { viewDraft } from '../checks';
import { facts, mark, page, party, printedPlace } from '../test/support';
import {
  changesBetween,
  draftOfKit,
  editsOfAgain,
  fillSlots,
  mayMake,
  mayUse,
  newSlot,
  slotLetters,
  slotsOnPages,
  slotsTogether,
  withDocuments,
} from '.';

let n = 0;
const newId = () => `id${n++}`;

const line = (ordinal: number, kind: PrintedPlace['kind'], y: number, x = 72): PrintedPlace =>
  printedPlace({ kind, ordinal, rect: { x, y, w: kind === 'date' ? 80 : 200, h: 20 } });
const PRINTED = [
  line(1, 'signature', 500),
  line(1, 'date', 500, 300),
  line(2, 'signature', 550),
  line(2, 'date', 550, 300),
];
const document = facts(
  [page([{ x: 72, y: 72, w: 460, h: 300 }]), page([{ x: 72, y: 72, w: 460, h: 300 }])],
  'form1',
  'Disclosure',
  PRINTED,
);

/** Returns a form with two lines for sellers, initials of both on every page, and words of nobody's. */
function form(): Draft {
  const slots = slotsOnPages(PRINTED, newId);
  const bare: Draft = { ...emptyDraft('Disclosure'), parties: slots, documents: [{ id: 'form1' }] };
  return applyEdits(bare, [
    ...acceptEdits(proposalsOf(bare, [document]).filter(canAccept), slots),
    {
      op: 'put',
      list: 'rules',
      item: {
        id: 'r',
        documentId: 'form1',
        partyIds: slots.map((s) => s.id),
        anchor: { fx: 0, fy: 1 },
        except: [],
        moved: [],
      },
    } satisfies DraftEdit,
    {
      op: 'put',
      list: 'marks',
      item: { ...mark('label', NOBODY, 'label', 2), documentId: 'form1', value: '{address}' },
    },
  ]);
}

function kitOf(forms: Draft[]): Draft {
  const slots = forms[0]!.parties;
  return {
    ...emptyDraft('Sale papers'),
    parties: slots,
    documents: [{ id: 'f' }],
    gates: gatesOfPattern('by_side', slots, newId),
  };
}

const sellers = (count: number): PacketParty[] =>
  Array.from({ length: count }, (_, i) => party(`seller${i}`, { ordinal: i + 1, name: `Seller Number${i}` }));
const use = (people: PacketParty[], f = form()) =>
  draftOfKit({ kit: kitOf([f]), forms: [{ draft: f, document }], people, newId });

test('slots are called by what they are for', () => {
  const every = newSlot('every', 'tenant', 1, 'x', 0);
  expect([every.name, slotLetters(every)]).toEqual(['Every tenant', 'T+']);
  expect(slotLetters(newSlot('one', 'seller', 2, 'x', 0))).toBe('S2');
  expect(slotLetters(newSlot('one', 'listing_broker', 1, 'x', 0))).toBe('LB');
  expect(slotsOnPages(PRINTED, newId).map((s) => s.name)).toEqual(['Seller 1', 'Seller 2']);
});

test('two sellers stand in the places of Seller 1 and Seller 2, and the gate check has nothing to say', () => {
  const { draft, slots, beyond } = use(sellers(2));
  expect(slots.map((s) => s.people.map((p) => p.id))).toEqual([['seller0'], ['seller1']]);
  expect(beyond).toEqual([]);
  const signed = draft.marks.filter((m) => m.kind === 'signature');
  expect(signed.map((m) => [m.partyId, m.rect.y])).toEqual([
    ['seller0', 500],
    ['seller1', 550],
  ]);
  const view = viewDraft(draft, [document], { address: '7 Weir Terrace', city: '', price: '', closing: '' });
  expect(view.findings).toEqual([]);
  // Each of the two: initials on two pages, a signature and its date.
  expect(view.ledger.total).toBe(8);
});

test('five sellers on a form for two: each signs and dates beside the others and initials every page; nothing lies on print', () => {
  const { draft, beyond } = use(sellers(5));
  expect(beyond.map((b) => b.partyId)).toEqual(['seller2', 'seller3', 'seller4']);
  expect(draft.gates.map((g) => g.partyIds)).toEqual([sellers(5).map((s) => s.id)]);
  const view = viewDraft(draft, [document], { address: '7 Weir Terrace', city: '', price: '', closing: '' });
  expect(view.findings.filter((f) => f.severity === 'stops')).toEqual([]);
  for (const s of sellers(5)) {
    const kinds = view.marks.filter((m) => m.partyId === s.id && m.kind !== 'label').map((m) => m.kind);
    expect([s.id, kinds.sort()]).toEqual([s.id, ['date_signed', 'initials', 'initials', 'signature']]);
  }
});

test('whoever stands at two gates of a kit acts at the first alone', () => {
  const f = form();
  const [first, second] = f.parties.map((s) => s.id);
  const gates = [
    { id: 'a', partyIds: [first!] },
    { id: 'b', partyIds: [first!, second!] },
    { id: 'c', partyIds: [second!, second!] },
  ];
  const { draft } = draftOfKit({
    kit: { ...kitOf([f]), gates },
    forms: [{ draft: f, document }],
    people: sellers(2),
    newId,
  });
  expect(draft.gates.map((g) => g.partyIds)).toEqual([['seller0'], ['seller1']]);
});

test('what a form still has of another paper goes out with no packet', () => {
  const f = form();
  const [slot] = f.parties;
  const old = { ...mark('old', slot!.id, 'signature', 1), documentId: 'former' };
  const rule = { ...f.rules[0]!, id: 'old-rule', documentId: 'former' };
  const { draft } = use(sellers(2), { ...f, marks: [...f.marks, old], rules: [...f.rules, rule] });
  const plain = use(sellers(2), f).draft;
  expect([draft.marks.length, draft.rules.length]).toEqual([plain.marks.length, plain.rules.length]);
  for (const { documentId } of [...draft.marks, ...draft.rules]) expect(documentId).toBe('form1');
});

test('somebody beyond the printed lines initials a page once, by the rule or in a printed place', () => {
  const initials = (ordinal: number, x: number): PrintedPlace => ({
    ...line(ordinal, 'initials', 700, x),
    rect: { x, y: 700, w: 40, h: 16 },
  });
  const printed = [...PRINTED, initials(1, 72), initials(2, 130)];
  const pages = [page([{ x: 72, y: 72, w: 460, h: 300 }]), page([{ x: 72, y: 72, w: 460, h: 300 }])];
  const paper = facts(pages, 'form1', 'Disclosure', printed);
  const slots = slotsOnPages(printed, newId);
  const bare: Draft = { ...emptyDraft('Disclosure'), parties: slots, documents: [{ id: 'form1' }] };
  const marked = applyEdits(bare, acceptEdits(proposalsOf(bare, [paper]).filter(canAccept), slots));
  const every = {
    id: 'r',
    documentId: 'form1',
    partyIds: slots.map((s) => s.id),
    anchor: { fx: 0, fy: 1 },
    except: [],
    moved: [],
  };
  // In the third form everybody is exempt from the rule on page 1 and initials a printed place there instead. People
  // beyond the printed lines need a place on that page too.
  const except = slots.map((slot) => ({ page: 1, partyId: slot.id }));
  for (const f of [marked, { ...marked, rules: [every] }, { ...marked, rules: [{ ...every, except }] }]) {
    const { draft } = draftOfKit({
      kit: kitOf([f]),
      forms: [{ draft: f, document: paper }],
      people: sellers(4),
      newId,
    });
    const view = viewDraft(draft, [paper], { address: '7 Weir Terrace', city: '', price: '', closing: '' });
    for (const s of sellers(4)) {
      const on = view.marks.filter((m) => m.partyId === s.id && m.kind === 'initials').map((m) => m.page);
      expect([s.id, on.sort()]).toEqual([s.id, f.rules.length ? [1, 2] : [1]]);
    }
  }
});

test('one seller on a form for two: what is for the second goes, and whoever is missing altogether is told', () => {
  const { draft, slots } = use(sellers(1));
  expect(slots.map((s) => s.empty)).toEqual([null, 'fewer']);
  expect(new Set(draft.marks.map((m) => m.partyId))).toEqual(new Set(['seller0', NOBODY]));
  expect(use([]).slots.map((s) => s.empty)).toEqual(['nobody', 'nobody']);
});

test('what is for every tenant is there for each, and a fixed person comes along', () => {
  const every = newSlot('every', 'tenant', 1, 't', 0);
  const officer = { ...party('officer', { name: 'Ida Holm', side: 'other' }), slot: 'person' as const };
  const f: Draft = {
    ...emptyDraft('Rules of the house'),
    parties: [every, officer],
    documents: [{ id: 'form1' }],
    marks: [
      { ...mark('a', 't', 'signature'), documentId: 'form1' },
      { ...mark('b', 'officer', 'signature', 2), documentId: 'form1' },
    ],
  };
  const tenants = [1, 2, 3].map((ordinal) => party(`t${ordinal}`, { side: 'tenant', ordinal }));
  const { draft } = draftOfKit({ kit: kitOf([f]), forms: [{ draft: f, document }], people: tenants, newId });
  const signed = draft.marks.filter((m) => m.kind === 'signature');
  expect(signed.map((m) => m.partyId).sort()).toEqual(['officer', 't1', 't2', 't3']);
  const onFirst = signed.filter((m) => m.page === 1);
  for (const a of onFirst) for (const b of onFirst) if (a !== b) expect(overlapArea(a.rect, b.rect)).toBe(0);
});

test('whoever the people are, marks and gates are theirs alone, and everybody of a side the form names signs once', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 7 }), fc.integer({ min: 0, max: 3 }), (many, others) => {
      const people = [
        ...sellers(many),
        ...Array.from({ length: others }, (_, i) => party(`buyer${i}`, { side: 'buyer', ordinal: i + 1 })),
      ];
      const { draft } = use(people);
      const known = new Set([...draft.parties.map((p) => p.id), NOBODY]);
      expect(draft.marks.every((m) => known.has(m.partyId) && m.documentId === 'form1')).toBe(true);
      expect(draft.parties.map((p) => p.id)).toEqual(sellers(many).map((s) => s.id));
      expect(new Set(draft.marks.map((m) => m.id)).size).toBe(draft.marks.length);
      for (const s of sellers(many))
        expect(draft.marks.filter((m) => m.partyId === s.id && m.kind === 'signature')).toHaveLength(1);
      expect(draft.gates.flatMap((g) => g.partyIds).sort()).toEqual(
        sellers(many)
          .map((s) => s.id)
          .sort(),
      );
    }),
    { numRuns: 40 },
  );
});

test('slots are filled in the order of the side, whatever order people come in', () => {
  const slots = slotsOnPages(PRINTED, newId);
  const { slots: filled, beyond } = fillSlots(slots, [...sellers(3)].reverse());
  expect(filled.map((f) => f.people[0]?.id)).toEqual(['seller0', 'seller1']);
  expect(beyond.map((b) => [b.person.id, b.like.ordinal])).toEqual([['seller2', 2]]);
});

test('documents of the deal take the place of the form’s, also in the names of printed places', () => {
  const { draft } = use(sellers(2));
  const now = withDocuments(draft, (id) => `new-${id}`);
  expect(now.documents).toEqual([{ id: 'new-form1' }]);
  expect(now.marks.every((m) => m.documentId === 'new-form1')).toBe(true);
  expect(now.marks.flatMap((m) => m.placeId ?? []).every((id) => id.startsWith('new-form1.1.'))).toBe(true);
  const there = { ...document, id: 'new-form1' };
  expect(proposalsOf(now, [there]).every((p) => p.state === 'accepted')).toBe(true);
});

test('what changed between two editions is told, each thing once; nothing where nothing did', () => {
  const before = form();
  const name = (id: string) => `Paper ${id}`;
  expect(changesBetween(before, structuredClone(before), name)).toEqual([]);
  const [first, second] = before.parties;
  const mark1 = before.marks[0]!;
  const after: Draft = {
    ...before,
    name: 'Disclosure of 2027',
    parties: [{ ...first!, act: 'approve' }, second!, newSlot('one', 'buyer', 1, 'b', 2)],
    marks: [
      { ...mark1, rect: { ...mark1.rect, x: 1 } },
      ...before.marks.slice(1, -1),
      { ...mark('n', 'b', 'signature') },
    ],
    rules: before.rules.map((r) => ({ ...r, partyIds: [second!.id, 'b'] })),
    gates: [{ id: 'g', partyIds: [second!.id] }],
    message: 'Hello',
  };
  expect(changesBetween(before, after, name)).toEqual([
    'It is called “Disclosure of 2027” now, and was “Disclosure”.',
    'New: Buyer 1.',
    'Seller 1 has a different act.',
    '1 mark more.',
    '1 mark taken away.',
    '1 mark moved.',
    'Buyer 1 initials every page now.',
    'Seller 1 no longer initials every page.',
    'The order changed.',
    'Subject or message changed.',
  ]);
  // Another paper with the marks where they went is a changed paper and moved marks, and nothing else.
  const paper = withDocuments(before, () => 'form2');
  expect(changesBetween(before, paper, name)).toEqual(['The paper was changed.']);
  const kit = { ...emptyDraft('Kit'), documents: [{ id: 'a' }, { id: 'b' }] };
  expect(changesBetween(kit, { ...kit, documents: [{ id: 'b' }, { id: 'a' }, { id: 'c' }] }, name)).toEqual([
    'Paper c was added.',
    'The order of the papers changed.',
  ]);
});

test('somebody who is always the same is one person, however many forms name them', () => {
  const officer = (id: string) => ({
    ...party(id, { name: 'Ida Holm', email: 'ida@example.com', side: 'other' }),
    slot: 'person' as const,
  });
  const formOf = (documentId: string, slotId: string): Draft => ({
    ...emptyDraft(documentId),
    parties: [officer(slotId)],
    documents: [{ id: documentId }],
    marks: [{ ...mark(`${documentId}-m`, slotId, 'signature'), documentId }],
  });
  const forms = [formOf('form1', 'x'), formOf('form2', 'y')];
  const kit = { ...kitOf([{ ...emptyDraft(''), parties: [officer('z')] }]), documents: [{ id: 'a' }, { id: 'b' }] };
  const { draft } = draftOfKit({
    kit,
    forms: forms.map((f) => ({ draft: f, document: { ...document, id: f.documents[0]!.id } })),
    people: [],
    newId,
  });
  expect(draft.parties.map((p) => p.name)).toEqual(['Ida Holm']);
  expect(new Set(draft.marks.map((m) => m.partyId))).toEqual(new Set([draft.parties[0]!.id]));
  expect(draft.gates.map((g) => g.partyIds)).toEqual([[draft.parties[0]!.id]]);
});

test('a role that a form has since the kit was made is filled too, told when nobody fills it, and comes last', () => {
  const f = form();
  const kit = kitOf([f]);
  const newer: Draft = {
    ...f,
    parties: [...f.parties, newSlot('one', 'buyer', 1, 'b', 2)],
    marks: [...f.marks, { ...mark('bm', 'b', 'signature', 2), documentId: 'form1' }],
  };
  const made = (people: PacketParty[]) => draftOfKit({ kit, forms: [{ draft: newer, document }], people, newId });
  const without = made(sellers(1));
  expect(without.slots.find((s) => s.slot.side === 'buyer')!.empty).toBe('nobody');
  const buyer = party('priya', { side: 'buyer' });
  const { draft } = made([...sellers(1), buyer]);
  expect(draft.gates.map((g) => g.partyIds)).toEqual([['seller0'], ['priya']]);
});

test('the same place of several forms is one slot of their kit', () => {
  const [a, b] = [form(), form()];
  expect(slotsTogether([a, b]).map((s) => [s.name, s.ink])).toEqual([
    ['Seller 1', 0],
    ['Seller 2', 1],
  ]);
});

test('whoever answers for something may do everything with it, whoever is named what they are named for, and nobody else', () => {
  const s = { ownerId: 'o', users: ['u'], makers: ['m'] };
  expect(['o', 'm', 'u', 'x'].map((id) => [mayMake(s, id), mayUse(s, id)])).toEqual([
    [true, true],
    [true, true],
    [false, true],
    [false, false],
  ]);
  expect(mayUse({ ...s, users: null }, 'x')).toBe(true);
  expect(mayMake({ ...s, users: null }, 'x')).toBe(false);
});

test('a changed paper takes the place of the old one in one edit list, which taken back is the old paper again', () => {
  const f = form();
  const found = f.marks
    .filter((m) => m.documentId === 'form1')
    .map((m, i) => ({
      markId: m.id,
      state: i === 0 ? ('lost' as const) : ('moved' as const),
      page: 2,
      rect: { ...m.rect, y: 9 },
    }));
  const take = new Set(found.slice(0, -1).map((a) => a.markId));
  const edits = editsOfAgain(f, 'form1', 'form2', found, take);
  const now = applyEdits(f, edits);
  expect(now.documents).toEqual([{ id: 'form2' }]);
  expect(now.marks.map((m) => m.id)).toEqual(found.slice(1, -1).map((a) => a.markId));
  expect(now.marks.every((m) => m.documentId === 'form2' && m.page === 2 && m.rect.y === 9 && !m.placeId)).toBe(true);
  expect(now.rules.map((r) => [r.documentId, r.partyIds.length])).toEqual([['form2', 2]]);
  const back = applyEdits(now, invertEdits(f, edits));
  expect(new Set(back.marks.map((m) => JSON.stringify(m)))).toEqual(new Set(f.marks.map((m) => JSON.stringify(m))));
  expect([back.documents, back.rules]).toEqual([f.documents, f.rules]);
});
