/** Documents recognized by their words, and what was on them placed again for other people. */
import fc from 'fast-check';
import { applyEdits, emptyDraft, NOBODY, type Draft, type Mark } from '../packet';
import type { DocumentFacts } from '../packet/resolve';
import type { Rect } from '../paper/types';
import { newSlot } from '../shelf';
import { blank, CLAUSES, form, paper, PLACES, replaced } from '../test/disclosure';
import { mark, party } from '../test/support';
import { editsOfRecalled, fingerprintOf, keysOf, likeness, recall, relationOf, withoutDeal } from '.';

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

describe('relations', () => {
  test.each<[string, DocumentFacts, ReturnType<typeof relationOf>]>([
    ['word for word the same', form(), { kind: 'identical', gone: 0, added: 0, moved: false }],
    [
      'a blank filled in with words',
      form(replaced('agreed ________ dollars', 'agreed fourhundred dollars')),
      { kind: 'filled', gone: 0, added: 0, moved: false },
    ],
    [
      'a number in a clause',
      form(replaced('within ten days', 'within two days')),
      { kind: 'edition', gone: 1, added: 1, moved: false },
    ],
    [
      'an amount with its comma elsewhere',
      form(replaced('within ten days', 'within $41.00 days')),
      { kind: 'edition', gone: 1, added: 1, moved: false },
    ],
    [
      'a "not" in a clause',
      form(replaced('may have', 'may not have')),
      { kind: 'edition', gone: 0, added: 1, moved: false },
    ],
    [
      'two clauses in another order',
      form(([a, b, c, ...rest]) => [a!, c!, b!, ...rest]),
      { kind: 'edition', gone: 0, added: 0, moved: true },
    ],
  ])('%s', (_, after, relation) => {
    expect(relationOf(form(), after)).toEqual(relation);
  });

  test('what was in the blanks of the earlier document is no change either', () => {
    const before = form(replaced('agreed ________ dollars', 'agreed fourhundred dollars'), PLACES.slice(0, 2));
    expect(relationOf(before, form()).kind).toBe('filled');
  });

  test('a page more is another edition, even an empty one', () => {
    expect(relationOf(form(), paper([CLAUSES, []], PLACES)).kind).toBe('edition');
    expect(relationOf(form(), paper([CLAUSES, ['One more clause that nobody has read']], PLACES)).kind).toBe('edition');
  });

  test('a value typed in larger type than the text is no title', () => {
    /** Returns a form with a value in type of 16 points, and the first three words of its title in another. */
    const typed = (lines: string[], value: string, title: number): DocumentFacts => {
      const doc = paper([lines]);
      const values = new Set(value.split(' '));
      const heightOf = (r: Rect, word = '') => (values.has(word) ? 16 : r.y === 60 && r.x < 150 ? title : 10);
      const pages = doc.pages.map((p) => ({
        ...p,
        print: p.print.map((r, i) => ({ ...r, h: heightOf(r, p.words[i]) })),
      }));
      return { ...doc, pages };
    };
    const price = (value: string) =>
      typed(
        CLAUSES.map((l) => l.replace('________', value)),
        value,
        10,
      );
    expect(relationOf(price('fourhundred'), price('threehundred')).kind).toBe('edition');
    const names = (value: string) => typed([...CLAUSES, 'Full name', value], value, 20);
    expect(relationOf(names('b c d e f g h i j'), names('k l m n o p q r s')).kind).toBe('edition');
  });

  test('a value alone on the line of its blank is what is filled in', () => {
    const owner = (value: string) => (lines: string[]) => [...lines, 'Full name of the owner', value];
    const empty = form(owner('________'), [...PLACES, blank(9, 'name', 'unknown', 60)]);
    expect(relationOf(form(owner('Wren Alder')), empty)).toEqual({ kind: 'filled', gone: 0, added: 0, moved: false });
    expect(relationOf(form(owner('Wren Alder')), form(owner('________'))).gone).toBe(2);
  });

  test('a document with the same clauses under another title is another one, and so is any other text', () => {
    const title = 'Notice concerning termination of residential leases';
    expect(
      relationOf(
        form(),
        form(([, ...rest]) => [title, ...rest.slice(1)]),
      ).kind,
    ).toBe('other');
    // Its title is what is printed in larger type, wherever the other words stand.
    const large = (doc: DocumentFacts): DocumentFacts => ({
      ...doc,
      pages: doc.pages.map((p) => ({ ...p, print: p.print.map((r) => (r.y === 60 ? { ...r, h: 16 } : r)) })),
    });
    const reversed = form(([, ...rest]) => ['Waiver of every warranty', ...rest.reverse()]);
    expect(relationOf(large(form()), large(reversed)).kind).toBe('other');
    expect(relationOf(form(), paper([CLAUSES.map((l) => [...l].reverse().join(''))])).kind).toBe('other');
  });

  test('figures with other punctuation, an accent and a sign are not the same words', () => {
    const before = form(replaced('ten days', '$4,100 año days'));
    for (const [from, to] of [
      ['$4,100', '$41.00'],
      ['$4,100', '€4,100'],
      ['año', 'ano'],
    ] as const)
      expect(
        relationOf(
          before,
          form((l) => replaced('ten days', '$4,100 año days')(l).map((x) => x.replace(from, to))),
        ),
      ).toMatchObject({ kind: 'edition', gone: 1, added: 1 });
    expect(relationOf(form(replaced('ten days', '☐ ten')), form(replaced('ten days', '☒ ten'))).kind).toBe('edition');
    expect(relationOf(form(replaced('rooms of', 'rooms, of')), form()).kind).toBe('identical');
  });

  test('what stands on a line is filled in where both have a line there; elsewhere another word is another edition', () => {
    // Nobody reads a place where a line was filled in before the document came.
    const places = PLACES.slice(0, 2);
    const line = { x: 135, y: 218, w: 110, h: 20 };
    const withLine = (doc: DocumentFacts, at: Rect[]): DocumentFacts => ({
      ...doc,
      pages: doc.pages.map((p) => ({ ...p, filled: at })),
    });
    const priced = (price: string) => form(replaced('agreed ________', `agreed ${price}`), places);
    const [was, now] = [priced('412,000'), priced('96,500')];
    expect(relationOf(was, now).kind).toBe('edition');
    expect(relationOf(withLine(was, [line]), withLine(now, [line])).kind).toBe('filled');
    expect(relationOf(withLine(was, [line]), now).kind).toBe('edition');
    expect(relationOf(was, withLine(now, [line])).kind).toBe('edition');
    // A word of a clause differs as well.
    const other = form(
      (l) => replaced('ten days', 'two days')(replaced('agreed ________', 'agreed 96,500')(l)),
      places,
    );
    expect(relationOf(withLine(was, [line]), withLine(other, [line]))).toMatchObject({
      kind: 'edition',
      gone: 1,
      added: 1,
    });
    // Words on lines are no part of what a document is found by.
    expect(fingerprintOf(withLine(priced('Wren'), [line]))).toEqual(fingerprintOf(withLine(priced('Agnes'), [line])));
    expect(fingerprintOf(priced('Wren'))).not.toEqual(fingerprintOf(priced('Agnes')));
  });

  describe('values on lines', () => {
    /** Returns the disclosure with rows under it; what begins with a capital and ends in a digit stands on a line. */
    const onLines = (rows: string[]): DocumentFacts => {
      const doc = form(() => [...CLAUSES, ...rows]);
      return {
        ...doc,
        pages: doc.pages.map((p) => ({
          ...p,
          filled: p.print.filter((_, i) => /^[A-Z][a-z]*[0-9]$/.test(p.words[i] ?? '')),
        })),
      };
    };

    test('long values that change places have not moved', () => {
      const [one, two] = ['Ab1 Cd2 Ef3 Gh4 Ij5 Kl6', 'Mn1 Op2 Qr3 St4 Uv5 Wx6'];
      const rows = (a: string, b: string) => onLines([`First ${a} pays the rent`, `Second ${b} pays the rest`]);
      expect(relationOf(rows(one, two), rows(two, one))).toEqual({ kind: 'filled', gone: 0, added: 0, moved: false });
    });

    test('a word that is found again in another row does not say where the one beside it is', () => {
      const rows = (a: string, b: string) => onLines([`First ${a} pays`, `The second one ${b} pays the rest`]);
      expect(relationOf(rows('Wren1 Aald2', 'Agne3'), rows('Mate4 Iban5', 'Wren1')).kind).toBe('filled');
    });

    test('a line that is gone with what stood on it, and a word where only the other has a line, are another edition', () => {
      const [withLine, without] = [onLines(['The price is Abcd1 dollars']), onLines(['The price is dollars'])];
      expect(relationOf(withLine, without)).toMatchObject({ kind: 'edition', gone: 1, added: 0 });
      expect(relationOf(without, withLine)).toMatchObject({ kind: 'edition', gone: 0, added: 1 });
      const printed = onLines(['The price is about dollars']);
      const empty = {
        ...without,
        pages: without.pages.map((p, i) => ({
          ...p,
          filled: onLines(['The price is Abcd1 dollars']).pages[i]!.filled!,
        })),
      };
      expect(relationOf(printed, empty)).toMatchObject({ kind: 'edition', gone: 1, added: 0 });
    });
  });

  test('rows with the same words and values that cross each other are the same rows', () => {
    const rows = (names: string[]) => [...CLAUSES, ...names.map((name) => `Tenant ${name} date ${name} and rent`)];
    const lines = (doc: DocumentFacts): DocumentFacts => ({
      ...doc,
      pages: doc.pages.map((p) => ({
        ...p,
        filled: p.print.flatMap((r, i) => (/^[A-Z][a-z]+[0-9]$/.test(p.words[i] ?? '') ? [r] : [])),
      })),
    });
    const names = ['Wren1', 'Agne2', 'Mate3', 'Priy4', 'Call5'];
    const was = lines(form(() => rows(names)));
    for (const order of [
      [4, 3, 2, 1, 0],
      [1, 2, 3, 4, 0],
      [2, 2, 2, 2, 2],
    ])
      expect(relationOf(was, lines(form(() => rows(order.map((i) => names[i]!)))))).toMatchObject({
        kind: 'filled',
        gone: 0,
        added: 0,
        moved: false,
      });
    // A row that is gone is not what was filled in.
    expect(relationOf(was, lines(form(() => rows(names.slice(1))))).kind).toBe('edition');
  });

  test('empty pages are no document that is known', () => {
    expect(relationOf(paper([[]]), paper([[]])).kind).toBe('other');
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
