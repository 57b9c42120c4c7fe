/** Documents recognized by their words, and what was on them placed again for other people. */
import fc from 'fast-check';
import { applyEdits, emptyDraft, NOBODY, type Draft, type Mark } from '../packet';
import type { DocumentFacts } from '../packet/resolve';
import { newSlot } from '../shelf';
import { blank, form, paper, PLACES, replaced } from '../test/disclosure';
import { mark, party } from '../test/support';
import { editsOfRecalled, fingerprintOf, keysOf, likeness, recall, withoutDeal } from '.';

let n = 0;
const newId = () => `new${n++}`;

describe('fingerprints', () => {
  const print = (doc: DocumentFacts) => fingerprintOf(doc)!;

  test('a value in a blank, a number and a mark of punctuation change nothing', () => {
    const filled = form(replaced('________ dollars', '412,000 dollars'));
    expect(print(filled)).toEqual(print(form()));
    expect(print(form(replaced('so for many', 'so, for many')))).toEqual(print(form()));
  });

  test('documents with little print have none', () => {
    expect(fingerprintOf(paper([['Photo of a kitchen']]))).toBeNull();
  });

  const words = fc.array(fc.stringMatching(/^[a-z]{3,9}$/), { minLength: 150, maxLength: 250 });
  test('a document of which one word in fifty differs has a key in common with it, any other one hardly any', () => {
    fc.assert(
      fc.property(words, words, (text, other) => {
        const a = paper([text]);
        const b = paper([text.map((w, i) => (i % 50 === 7 ? `${w}x` : w))]);
        const c = paper([other]);
        const shared = (x: DocumentFacts) => keysOf(print(x)).filter((k) => keysOf(print(a)).includes(k)).length;
        expect(shared(b)).toBeGreaterThan(0);
        expect(likeness(print(a), print(b))).toBeGreaterThan(0.6);
        expect(likeness(print(a), print(c))).toBeLessThan(0.3);
      }),
      { numRuns: 30 },
    );
  });
});

describe('recalling', () => {
  const seller = newSlot('one', 'seller', 1, 'slot-s', 0);
  const buyer = newSlot('one', 'buyer', 1, 'slot-b', 1);
  const at = (id: string, slot: string, kind: Mark['kind'], line: number, x = 170): Mark => ({
    ...mark(id, slot, kind, 1, { x, y: 56 + 24 * line, w: 110, h: 16 }),
  });
  const remembered = (change: Partial<Draft> = {}) => ({
    before: form(),
    form: {
      ...emptyDraft('Disclosure'),
      parties: [seller, buyer],
      documents: [{ id: 'doc' }],
      marks: [at('m1', 'slot-s', 'signature', 5), at('m2', 'slot-b', 'signature', 6)],
      rules: [{ id: 'r', documentId: 'doc', partyIds: ['slot-s'], anchor: { fx: 1, fy: 1 }, except: [], moved: [] }],
      passed: [{ id: 'doc.1.2' }],
      gates: [
        { id: 'g1', partyIds: ['slot-b'] },
        { id: 'g2', partyIds: ['slot-s'] },
      ],
      ...change,
    },
  });
  const agnes = party('agnes', { side: 'seller', ordinal: 1 });
  const priya = party('priya', { side: 'buyer', ordinal: 1 });
  const draft = (parties = [agnes, priya]): Draft => ({
    ...emptyDraft('Papers'),
    parties,
    documents: [{ id: 'now' }],
  });
  const now = (doc: DocumentFacts): DocumentFacts => ({ ...doc, id: 'now' });

  test('marks, the initials rule and dismissed places come again, for the people of the same side and number', () => {
    const found = recall(remembered(), now(form()), draft(), newId)!;
    expect(found).toMatchObject({ uncertain: 0, lost: 0, unfilled: 0, beyond: [], open: 0 });
    expect(found.slots).toEqual([
      { name: 'Seller 1', partyIds: ['agnes'] },
      { name: 'Buyer 1', partyIds: ['priya'] },
    ]);
    expect(found.marks).toMatchObject([
      { documentId: 'now', partyId: 'agnes', kind: 'signature', rect: { y: 176 } },
      { documentId: 'now', partyId: 'priya', kind: 'signature', rect: { y: 200 } },
    ]);
    expect(found.rules).toMatchObject([{ documentId: 'now', partyIds: ['agnes'] }]);
    expect(found.passed).toEqual([{ id: 'now.1.2' }]);
    expect(found.gates).toMatchObject([{ partyIds: ['priya'] }, { partyIds: ['agnes'] }]);
    const after = applyEdits(draft(), editsOfRecalled(draft(), found));
    expect([after.marks, after.rules, after.passed, after.gates]).toEqual([
      found.marks,
      found.rules,
      found.passed,
      found.gates,
    ]);
  });

  test('the order of acts comes along only where nothing is on the pages of the packet yet', () => {
    const other = { ...draft(), marks: [{ ...mark('x', 'agnes', 'text'), documentId: 'another' }] };
    expect(recall(remembered(), now(form()), other, newId)!.gates).toBeNull();
    const found = recall(remembered(), now(form()), draft(), newId)!;
    const edits = (of: Draft) => editsOfRecalled(of, found).filter((e) => e.op !== 'set' && e.list === 'gates').length;
    expect([edits(draft()), edits(other)]).toEqual([2, 0]);
    const same = {
      ...draft(),
      gates: [
        { id: 'g', partyIds: ['priya'] },
        { id: 'h', partyIds: ['agnes'] },
      ],
    };
    expect(recall(remembered(), now(form()), same, newId)!.gates).toBeNull();
  });

  test('on another edition marks go where their words went, and the place that is new is left to be decided', () => {
    const lower = PLACES.map((p) => ({ ...p, rect: { ...p.rect, y: p.rect.y + 24 } }));
    const next = form(
      ([title, ...rest]) => [title!, 'A line that no earlier edition had', ...rest],
      [...lower, blank(9, 'signature', 'broker')],
    );
    const found = recall(remembered(), now(next), draft(), newId)!;
    expect(found.relation).toMatchObject({ kind: 'edition', gone: 0, added: 7 });
    expect(found.marks).toMatchObject([
      { partyId: 'agnes', rect: { y: 200 } },
      { partyId: 'priya', rect: { y: 224 } },
    ]);
    expect(found.passed).toEqual([{ id: 'now.1.2' }]);
    expect(found.open).toBe(1);
  });

  test('a mark whose place is gone is not placed', () => {
    const without = form((lines) => lines.filter((l) => !l.startsWith('Buyer signs')), [PLACES[0]!]);
    const found = recall(remembered(), now(without), draft(), newId)!;
    expect(found.marks).toHaveLength(1);
    expect(found.uncertain + found.lost).toBe(1);
  });

  test('marks of a side that the packet has nobody of are left out and counted', () => {
    const found = recall(remembered(), now(form()), draft([agnes]), newId)!;
    expect(found.marks.map((m) => m.partyId)).toEqual(['agnes']);
    expect(found.unfilled).toBe(1);
    expect(found.slots[1]).toEqual({ name: 'Buyer 1', partyIds: [] });
  });

  test('nobody of the earlier deal comes along: a person of no side is no slot, and has no mark', () => {
    const ida = { ...party('ida', { name: 'Ida Holm', side: 'other', act: 'sign' }), slot: 'person' as const };
    const with_ = remembered({
      parties: [seller, ida],
      marks: [at('m1', 'slot-s', 'signature', 5), at('m2', 'ida', 'signature', 6), at('m3', NOBODY, 'label', 2)],
    });
    const found = recall(with_, now(form()), draft(), newId)!;
    expect(JSON.stringify(found)).not.toMatch(/ida|Holm/);
    expect(found.marks).toHaveLength(2);
  });

  test('a dismissed line of somebody who was not there is asked about again', () => {
    const without = remembered({ parties: [seller], passed: [{ id: 'doc.1.1' }, { id: 'doc.1.2' }] });
    const alone = { ...without, form: { ...without.form, marks: [at('m1', 'slot-s', 'signature', 5)] } };
    const found = recall(alone, now(form()), draft(), newId)!;
    expect(found.passed).toEqual([{ id: 'now.1.2' }]);
    expect(found.open).toBe(1);
  });

  test('two people where the form had one line: room is found for the second', () => {
    const mateo = party('mateo', { side: 'buyer', ordinal: 2 });
    const found = recall(remembered(), now(form()), draft([agnes, priya, mateo]), newId)!;
    expect(found.beyond).toEqual(['mateo']);
    expect(found.marks.filter((m) => m.kind === 'signature').map((m) => m.partyId)).toEqual([
      'agnes',
      'priya',
      'mateo',
    ]);
  });

  test('of another document nothing is recalled', () => {
    expect(recall(remembered(), now(paper([['Something else entirely']])), draft(), newId)).toBeNull();
  });

  test('words that people wrote and that name the earlier deal do not come along', () => {
    const wren = party('wren', { name: 'Wren Alder' });
    const tags = new Map([['address', '7 Weir Terrace']]);
    const marks = [
      { ...mark('a', 's', 'text'), label: 'Keys for Wren', help: 'At 7 Weir Terrace, under the mat' },
      { ...mark('b', 's', 'text'), label: 'Number of keys', help: 'Count them' },
      { ...mark('c', 's', 'choice'), label: 'Gas', options: ['Wren pays', 'Nobody'] },
      { ...mark('d', 's', 'choice'), label: 'Wren pays', check: { message: 'Ask Wren' } },
    ];
    const clean = withoutDeal({ ...emptyDraft('x'), marks }, [wren], tags);
    expect(JSON.stringify(clean)).not.toMatch(/Wren|Weir/);
    expect(clean.marks.map((m) => [m.label, m.help])).toEqual([
      [undefined, undefined],
      ['Number of keys', 'Count them'],
      ['Gas', undefined],
      [undefined, undefined],
    ]);
  });
});
