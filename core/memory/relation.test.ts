/** How two documents are related: the same, the same with other values, another edition, or another document. */
import type { DocumentFacts } from '../packet/resolve';
import type { Rect } from '../paper/types';
import { blank, CLAUSES, form, paper, PLACES, replaced } from '../test/disclosure';
import { fingerprintOf, relationOf } from '.';

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
    // A line that was filled in before the document came is not read as a place.
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
    // Values on lines do not change the fingerprint.
    expect(fingerprintOf(withLine(priced('Wren'), [line]))).toEqual(fingerprintOf(withLine(priced('Agnes'), [line])));
    expect(fingerprintOf(priced('Wren'))).not.toEqual(fingerprintOf(priced('Agnes')));
  });

  describe('values on lines', () => {
    /** Returns the disclosure with rows under it; what begins with a capital and ends in a digit stands on a line. */
    const onLines = (rows: string[], clauses = CLAUSES): DocumentFacts => {
      const doc = form(() => [...clauses, ...rows]);
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

    test('where a new line has moved all others down, a value is still one', () => {
      const [title = '', ...others] = CLAUSES;
      const longer = [title, 'Both parties keep one copy of this page', ...others];
      const [was, now] = [onLines(['The price is Abcd1 dollars']), onLines(['The price is Wxyz2 dollars'], longer)];
      expect(relationOf(was, now)).toMatchObject({ kind: 'edition', gone: 0, added: 8, moved: false });
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
    // Without one of the rows it is another edition.
    expect(relationOf(was, lines(form(() => rows(names.slice(1))))).kind).toBe('edition');
  });

  test('empty pages are no document that is known', () => {
    expect(relationOf(paper([[]]), paper([[]])).kind).toBe('other');
  });
});
