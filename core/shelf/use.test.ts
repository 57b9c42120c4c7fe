/** Tests the packet that a kit makes for a deal: settings, gates, rules, and places for people beyond the printed lines. */
import { emptyDraft, NOBODY } from '../packet';
import type { Draft, InitialsRule, Mark, PacketParty } from '../packet';
import type { PrintedPlace } from '../reading/types';
import { facts, mark, page, party, printedPlace } from '../test/support';
import { draftOfKit, newSlot, withDocuments, type FormInUse, type Slot } from '.';

let n = 0;
const newId = () => `id${n++}`;

const s1 = newSlot('one', 'seller', 1, 's1', 0);
const s2 = newSlot('one', 'seller', 2, 's2', 1);
const b1 = newSlot('one', 'buyer', 1, 'b1', 2);
const tenants = newSlot('every', 'tenant', 1, 't', 0);

const people = (side: PacketParty['side'], count: number): PacketParty[] =>
  Array.from({ length: count }, (_, i) => party(`${side}${i + 1}`, { side, ordinal: i + 1 }));
const put = (id: string, partyId: string, change: Partial<Mark> = {}): Mark => ({
  ...mark(id, partyId, 'signature'),
  documentId: 'form1',
  ...change,
});
const rule = (change: Partial<InitialsRule> = {}): InitialsRule => ({
  id: 'r',
  documentId: 'form1',
  partyIds: ['s1'],
  anchor: { fx: 0, fy: 1 },
  except: [],
  moved: [],
  ...change,
});
const form = (slots: Slot[], change: Partial<Draft> = {}, places: PrintedPlace[] = [], id = 'form1'): FormInUse => ({
  draft: { ...emptyDraft('Disclosure'), parties: slots, documents: [{ id }], ...change },
  document: facts([page(), page()], id, 'Disclosure', places),
});
const use = (forms: FormInUse[], who: PacketParty[], kit: Partial<Draft> = {}) =>
  draftOfKit({
    kit: { ...emptyDraft('Sale papers'), parties: forms.flatMap((f) => f.draft.parties), ...kit },
    forms,
    people: who,
    newId,
  });
const actOf = (d: Draft) => Object.fromEntries(d.parties.map((p) => [p.id, p.act]));

test('a packet takes the kit’s settings; missing settings are off', () => {
  const schedule = { lastDay: null, warnDays: 2, nudge: null };
  const kit = { subject: 'Papers', message: 'Hello', schedule, handOver: true, readAlong: true, reports: ['odile'] };
  expect(use([form([s1])], people('seller', 1), kit).draft).toMatchObject({ name: 'Sale papers', ...kit });
  const plain = use([form([s1])], people('seller', 1)).draft;
  expect([plain.readAlong, 'reports' in plain]).toEqual([false, false]);
});

test('people take the act, note, second step and copy of their slot, and keep their own language', () => {
  const slot = (change: Partial<Slot>): Slot => ({ ...s1, ...change });
  const only = (change: Partial<Slot>, person: Partial<PacketParty> = {}) => {
    const [seller] = people('seller', 1);
    return use([form([slot(change)])], [{ ...seller!, ...person }]).draft.parties[0]!;
  };
  expect(only({ act: 'approve' }).act).toBe('approve');
  expect(only({ note: 'Sign twice' }).note).toBe('Sign twice');
  expect(only({ secondStep: { by: 'email' } as never }).secondStep).toEqual({ by: 'email' });
  expect(only({ copyAt: 'sending' }).copyAt).toBe('sending');
  expect(only({ language: 'es' }).language).toBe('es');
  expect(only({ language: 'es' }, { language: 'vi' }).language).toBe('vi');
  const bare = only({});
  for (const key of ['note', 'secondStep', 'copyAt', 'language']) expect(key in bare).toBe(false);
  const two = use([form([s1, b1])], [...people('seller', 1), ...people('buyer', 1)]).draft.parties;
  expect(two.map((p) => [p.id, p.ink])).toEqual([
    ['seller1', 0],
    ['buyer1', 1],
  ]);
});

test('the kit’s slot decides the act when a form’s slot differs', () => {
  const inForm = { ...s1, id: 'f1', act: 'approve' as const };
  const made = draftOfKit({
    kit: { ...emptyDraft('Kit'), parties: [{ ...s1, act: 'desk' }] },
    forms: [form([inForm])],
    people: people('seller', 1),
    newId,
  });
  expect(actOf(made.draft)).toEqual({ seller1: 'desk' });
});

test('gates hold the people of their slots; empty gates are dropped, and extra people join the last slot of their side', () => {
  const gates = [
    { id: 'a', partyIds: ['b1'], need: 'any' as const },
    { id: 'b', partyIds: ['s1', 'gone'] },
    { id: 'c', partyIds: ['s2'] },
  ];
  const copy = { ...newSlot('one', 'guarantor', 1, 'c', 0), act: 'copy' as const };
  const who = [...people('seller', 3), ...people('guarantor', 1)];
  const { draft } = use([form([s1, s2, b1, copy])], who, { gates });
  expect(draft.gates.map((g) => g.partyIds)).toEqual([['seller1'], ['seller2', 'seller3']]);
  expect(new Set(draft.gates.map((g) => g.id)).size).toBe(2);
  expect(draft.gates.some((g) => ['a', 'b', 'c'].includes(g.id))).toBe(false);
  const both = use([form([s1, b1])], [...people('seller', 1), ...people('buyer', 1)], { gates: [gates[0]!] });
  expect(both.draft.gates.map((g) => [g.partyIds, g.need])).toEqual([
    [['buyer1'], 'any'],
    [['seller1'], undefined],
  ]);
});

test('marks get their slot’s person, labels stay, and choices of one question stay grouped', () => {
  const marks = [
    put('a', NOBODY, { kind: 'label', value: 'x' }),
    put('c1', 's1', { kind: 'choice', group: 'heat', value: 'Gas' }),
    put('c2', 's1', { kind: 'choice', group: 'heat', value: 'Oil', rect: { x: 300, y: 600, w: 12, h: 12 } }),
    put('c3', 's1', { kind: 'choice', group: 'water', value: 'Well', rect: { x: 300, y: 500, w: 12, h: 12 } }),
    put('s', 's2'),
  ];
  const once = use([form([s1, s2], { marks })], people('seller', 1)).draft.marks;
  expect(once.map((m) => [m.partyId, m.value])).toEqual([
    [NOBODY, 'x'],
    ['seller1', 'Gas'],
    ['seller1', 'Oil'],
    ['seller1', 'Well'],
  ]);
  const [, gas, oil, well] = once;
  expect('group' in once[0]!).toBe(false);
  expect([gas!.group, gas!.group === well!.group, gas!.group === 'heat']).toEqual([oil!.group, false, false]);
  // Using a form twice keeps the choices of both copies apart.
  const forms = [
    form([s1], { marks }),
    form([s1], { marks: marks.map((m) => ({ ...m, documentId: 'form2' })) }, [], 'form2'),
  ];
  const twice = use(forms, people('seller', 1)).draft.marks.filter((m) => m.value === 'Gas');
  expect(new Set(twice.map((m) => m.group)).size).toBe(2);
  expect(new Set(twice.map((m) => m.documentId))).toEqual(new Set(['form1', 'form2']));
});

test('marks that already name a person of the deal keep that person', () => {
  const [wren] = people('seller', 1);
  const { draft } = use([form([s1], { marks: [put('a', wren!.id), put('b', 'someone')] })], [wren!]);
  expect(draft.marks.map((m) => m.partyId)).toEqual(['seller1']);
});

test('places dismissed on a form stay dismissed in the packet', () => {
  const forms = [
    form([s1], { passed: [{ id: 'form1.1.3' }] }),
    form([s1], { passed: [{ id: 'form2.1.4' }] }, [], 'form2'),
  ];
  const { draft } = use(forms, people('seller', 1));
  expect(draft.passed).toEqual([{ id: 'form1.1.3' }, { id: 'form2.1.4' }]);
  expect(withDocuments(draft, (id) => `new-${id}`).passed).toEqual([{ id: 'new-form1.1.3' }, { id: 'new-form2.1.4' }]);
});

test('an initials rule covers extra people too, with its exceptions; a moved place stays with one person', () => {
  const ruled = rule({
    partyIds: ['s1', 's2', 'b1'],
    except: [
      { page: 2, partyId: 's2' },
      { page: 1, partyId: 'b1' },
    ],
    moved: [{ page: 1, partyId: 's2', rect: { x: 9, y: 9, w: 40, h: 16 } } as never],
  });
  const [made] = use([form([s1, s2, b1], { rules: [ruled] })], people('seller', 3)).draft.rules;
  expect(made).toMatchObject({
    documentId: 'form1',
    partyIds: ['seller1', 'seller2', 'seller3'],
    anchor: { fx: 0, fy: 1 },
    except: [
      { page: 2, partyId: 'seller2' },
      { page: 2, partyId: 'seller3' },
    ],
  });
  expect(made!.id).not.toBe('r');
  expect(made!.moved).toEqual([{ page: 1, partyId: 'seller2', rect: { x: 9, y: 9, w: 40, h: 16 } }]);
  // A rule without anybody left is dropped.
  expect(use([form([b1], { rules: [rule({ partyIds: ['b1'] })] })], people('seller', 1)).draft.rules).toEqual([]);
});

test('a mark for everybody of a side is copied for each person of that side only', () => {
  const marks = [
    put('a', 't'),
    put('d', 't', { kind: 'date_signed', rect: { x: 240, y: 600, w: 80, h: 20 } }),
    put('g', 'b1', { rect: { x: 72, y: 300, w: 120, h: 26 } }),
  ];
  const who = [...people('tenant', 3), ...people('buyer', 1)];
  const { draft } = use([form([tenants, b1], { marks })], who);
  const kinds = (id: string) => draft.marks.filter((m) => m.partyId === id && m.kind !== 'label').map((m) => m.kind);
  for (const id of ['tenant1', 'tenant2', 'tenant3'])
    expect([id, kinds(id).sort()]).toEqual([id, ['date_signed', 'signature']]);
  expect(kinds('buyer1')).toEqual(['signature']);
  // A slot for everybody that has no mark adds none.
  const none = use(
    [form([tenants], { marks: [put('x', NOBODY, { kind: 'label', value: 'x' })] })],
    people('tenant', 2),
  );
  expect(none.draft.marks.map((m) => m.partyId)).toEqual([NOBODY]);
});

test('without printed places, an extra person gets copies of the last slot’s marks', () => {
  const marks = [put('a', 's1'), put('t', 's1', { kind: 'text', rect: { x: 72, y: 300, w: 130, h: 15 } })];
  const { draft, beyond } = use([form([s1], { marks })], people('seller', 3));
  expect(beyond).toEqual([
    { partyId: 'seller2', documentIds: ['form1'] },
    { partyId: 'seller3', documentIds: ['form1'] },
  ]);
  for (const id of ['seller2', 'seller3'])
    expect(draft.marks.filter((m) => m.partyId === id && m.kind === 'signature')).toHaveLength(1);
});

test('extra people are listed with each form that has marks for their side', () => {
  const silent = form([s1, b1], { marks: [put('a', 'b1')] });
  expect(use([silent], people('seller', 2)).beyond).toEqual([]);
  const forms = [
    form([s1], { marks: [put('a', 's1')] }),
    form([s1], { marks: [put('b', 's1', { documentId: 'form2' })] }, [], 'form2'),
  ];
  expect(use(forms, people('seller', 2)).beyond).toEqual([{ partyId: 'seller2', documentIds: ['form1', 'form2'] }]);
});

test('an extra person gets the kinds of place that the form placed on its printed lines', () => {
  const printed = [printedPlace(), printedPlace({ kind: 'date', rect: { x: 300, y: 600, w: 80, h: 20 } })];
  const placed = printed.map((p, i) =>
    put(`p${i}`, 's1', {
      kind: p.kind === 'date' ? 'date_signed' : 'signature',
      rect: p.rect,
      placeId: `form1.1.${i}`,
    }),
  );
  const made = (marks: Mark[]) => use([form([s1], { marks }, printed)], people('seller', 2)).draft.marks;
  const second = (marks: Mark[]) =>
    made(marks)
      .filter((m) => m.partyId === 'seller2' && m.kind !== 'label')
      .map((m) => m.kind)
      .sort();
  expect(second(placed)).toEqual(['date_signed', 'signature']);
  // A form that placed only the date asks for no signature.
  expect(second(placed.slice(1))).toEqual(['date_signed']);
  expect(second(placed.slice(0, 1))).toEqual(['signature']);
});
