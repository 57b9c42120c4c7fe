/** Tests reading a written form from untrusted JSON: accepted parts, defaults, refusals and limits. */
import { UnfitText, WRITTEN_LIMITS, writtenFrom } from './index';

const t = (text: string, more: object = {}) => ({ type: 'text', text, ...more });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const read = (...content: object[]) => writtenFrom({ doc: { type: 'doc', content } }).doc.content;
const list = (type: string, ...items: object[]) => ({ type, content: items });
const item = (...content: object[]) => ({ type: 'listItem', content });
const cell = (content: object[], more: object = {}) => ({ type: 'tableCell', content, ...more });
const table = (...rows: object[][]) => ({
  type: 'table',
  content: rows.map((content) => ({ type: 'tableRow', content })),
});
const place = (attrs: object) => ({ type: 'place', attrs: { kind: 'text', slot: 'L', ...attrs } });
const signatures = (attrs: object) => ({ type: 'signatures', attrs });
const attrsOf = (block: object) => (read(block)[0] as { attrs?: object }).attrs;
const placeOf = (attrs: object) => {
  const [block] = read(p(place(attrs)));
  return (block as { content: { attrs: Record<string, unknown> }[] }).content[0]!.attrs;
};

test('a text with every kind of part is accepted unchanged', () => {
  const content = [
    { type: 'heading', attrs: { level: 2 }, content: [t('Rules')] },
    { type: 'paragraph', attrs: { align: 'center' }, content: [t('a', { marks: [{ type: 'bold' }] }), t('b')] },
    { type: 'paragraph', attrs: { align: 'right' }, content: [{ type: 'hardBreak' }] },
    list('bulletList', item(p(t('one'))), item(p(t('two')))),
    list('orderedList', item(p({ type: 'tag', attrs: { key: 'rent' } }))),
    table([
      { type: 'tableHeader', attrs: { colspan: 2 }, content: [p(t('head'))] },
      { type: 'tableCell', attrs: { colspan: 1 }, content: [p()] },
    ]),
    { type: 'pageBreak' },
    { type: 'when', attrs: { key: 'pets', is: 'equals', value: 'cat' }, content: [p()] },
    { type: 'each', attrs: { side: 'tenant' }, content: [p()] },
    p({ type: 'place', attrs: { kind: 'money', slot: 'T', label: 'Deposit', required: false, wide: true } }),
    signatures({ slots: ['L', 'T'], date: false }),
  ];
  expect(read(...content)).toEqual(content);
});

test('unknown attributes are dropped, and missing ones get their defaults', () => {
  expect(read({ type: 'paragraph', attrs: { class: 'x', textAlign: 'right' } })).toEqual([
    { type: 'paragraph', attrs: { align: 'right' }, content: [] },
  ]);
  for (const attrs of [{ align: 'left' }, { align: 'justify' }, {}, null, undefined])
    expect(read({ type: 'paragraph', attrs })).toEqual([{ type: 'paragraph', content: [] }]);
  expect(attrsOf({ type: 'paragraph', attrs: { align: 'center', textAlign: 'right' } })).toEqual({ align: 'center' });
  expect(attrsOf({ type: 'when', attrs: { key: 'pets', is: 'there' } })).toEqual({
    key: 'pets',
    is: 'there',
    value: '',
  });
  expect(read(table([cell([]), cell([], { attrs: null })]))).toEqual([
    table([cell([], { attrs: { colspan: 1 } }), cell([], { attrs: { colspan: 1 } })]),
  ]);
  expect(placeOf({})).toEqual({ kind: 'text', slot: 'L', label: '', required: true, wide: false });
  expect(placeOf({ required: null, wide: 'yes' })).toMatchObject({ required: true, wide: false });
  expect(placeOf({ label: 'Two\nlines' })['label']).toBe('Two lines');
  expect(attrsOf(signatures({ slots: ['L', 'T', 'L'] }))).toEqual({ slots: ['L', 'T'], date: true });
  expect(read(p({ ...t('a'), attrs: null }))).toEqual([p(t('a'))]);
});

test('styles are limited to known ones, without duplicates, in a fixed order', () => {
  const marks = (...types: string[]) => read(p(t('a', { marks: types.map((type) => ({ type })) })));
  expect(marks('italic', 'bold', 'bold', 'link')).toEqual([
    p(t('a', { marks: [{ type: 'bold' }, { type: 'italic' }] })),
  ]);
  expect(marks('link')).toEqual([p(t('a'))]);
  expect(read(p(t('a', { marks: null })))).toEqual([p(t('a'))]);
  expect(marks(...Array<string>(20).fill('bold'))).toHaveLength(1);
  expect(() => marks(...Array<string>(21).fill('bold'))).toThrow('looks is not known');
  expect(() => read(p(t('a', { marks: 'bold' })))).toThrow('looks is not known');
});

test.each<[string, object, string]>([
  ['a list of no items', list('bulletList', p()), 'A list contains something that is not a list item.'],
  ['a table of no rows', { type: 'table', content: [p()] }, 'A table contains something that is not a row.'],
  ['a row of no cells', table([p()]), 'A table row contains something that is not a cell.'],
  ['a cell whose attributes are a list', table([cell([], { attrs: [] })]), 'A cell is not valid.'],
  ['a part whose attributes are text', { type: 'paragraph', attrs: 'x' }, 'A part of the text is not'],
  ['a run whose attributes are text', p({ ...t('a'), attrs: 'x' }), 'A part of the text is not'],
  ['content that is no list', { type: 'paragraph', content: {} }, 'A part of the text is not'],
  ['a part that is nothing', { type: 'paragraph', content: [null] }, 'A part of the text is not'],
  ['a part that is a list', { type: 'paragraph', content: [[]] }, 'A part of the text is not'],
  ['text that is a number', p({ type: 'text', text: 3 }), 'A line of the text is no text.'],
  ['a tag without a key', p({ type: 'tag', attrs: {} }), 'A tag is no text.'],
  ['a place without a slot', p({ type: 'place', attrs: { kind: 'text' } }), 'Whose place it is is no text.'],
  ['a condition of another kind', { type: 'when', attrs: { key: 'a', is: 'maybe' } }, 'A condition is not known.'],
  ['a part repeated for nobody', { type: 'each', attrs: { side: 'cat' } }, 'For whom a part is repeated is not known.'],
  ['signers that are no list', signatures({ slots: 'L' }), 'Who signs is not said.'],
  ['a signer that is a number', signatures({ slots: [1] }), 'Who signs is no text.'],
])('%s is refused with a message that names it', (_what, block, says) => {
  const taken = () => read(block);
  expect(taken).toThrow(UnfitText);
  expect(taken).toThrow(says);
});

describe('limits', () => {
  /** Returns a block wrapped in `n` nested conditions; the block itself is at depth `n` + 1. */
  const under = (n: number, block: object): object =>
    n ? { type: 'when', attrs: { key: 'a', is: 'there' }, content: [under(n - 1, block)] } : block;

  test.each<[string, object, number]>([
    ['a paragraph with words', p(t('a')), 12],
    ['a heading with words', { type: 'heading', attrs: { level: 1 }, content: [t('a')] }, 12],
    ['a paragraph without content', { type: 'paragraph' }, 13],
    ['a list of empty items', list('bulletList', { type: 'listItem' }), 12],
    ['a list', list('bulletList', item(p(t('a')))), 10],
    ['a table of empty rows', { type: 'table', content: [{ type: 'tableRow' }] }, 12],
    ['a table of empty cells', table([{ type: 'tableCell' }]), 11],
    ['a table', table([cell([{ type: 'paragraph' }])]), 10],
    ['a repeated part', { type: 'each', attrs: { side: 'tenant' }, content: [{ type: 'paragraph' }] }, 12],
  ])('%s has a maximum depth', (_what, block, deepest) => {
    expect(read(under(deepest, block))).toHaveLength(1);
    expect(() => read(under(deepest + 1, block))).toThrow('too deep');
  });

  test('the numbers of parts and letters are limited', () => {
    const most = Array.from({ length: WRITTEN_LIMITS.nodes / 2 }, () => p(t('a')));
    expect(read(...most)).toHaveLength(most.length);
    expect(() => read(...most, p())).toThrow('too long for one form');
    const line = 'abcdefghi '.repeat(1_000);
    const full = Array.from({ length: WRITTEN_LIMITS.letters / line.length }, () => p(t(line)));
    expect(read(...full)).toHaveLength(full.length);
    expect(() => read(...full, p(t('a')))).toThrow('too long for one form');
    expect(() => read(p(t(`${line.repeat(30)}a`)))).toThrow(`at most ${WRITTEN_LIMITS.letters} letters`);
  });

  test('a word that is too long for a line is refused with its length and beginning', () => {
    const most = 'x'.repeat(WRITTEN_LIMITS.word);
    expect(read(p(t(`a ${most} b`)))).toHaveLength(1);
    expect(() => read(p(t(`a ${most}y b`)))).toThrow(
      `a word of ${WRITTEN_LIMITS.word + 1} letters, “${'x'.repeat(20)}…”`,
    );
    expect(() => read(p(t(`${'w'.repeat(302)} ${most}y`)))).toThrow('a word of 302 letters');
  });

  test.each<[string, (text: string) => object, number]>([
    ['a tag’s key', (key) => p({ type: 'tag', attrs: { key } }), WRITTEN_LIMITS.name],
    ['a slot', (slot) => p(place({ slot })), WRITTEN_LIMITS.name],
    ['a label', (label) => p(place({ label })), WRITTEN_LIMITS.label],
    ['a condition', (key) => ({ type: 'when', attrs: { key, is: 'not' } }), WRITTEN_LIMITS.name],
    [
      'what it compares with',
      (value) => ({ type: 'when', attrs: { key: 'a', is: 'not', value } }),
      WRITTEN_LIMITS.name,
    ],
    ['a signer', (slot) => signatures({ slots: [slot] }), WRITTEN_LIMITS.name],
  ])('%s has a maximum length', (_what, of, most) => {
    expect(read(of('x'.repeat(most)))).toHaveLength(1);
    expect(() => read(of('x'.repeat(most + 1)))).toThrow(`at most ${most} letters`);
  });

  test('columns, signers and heading levels are limited', () => {
    const wide = (colspan: unknown) => table([cell([], { attrs: { colspan } }), cell([])]);
    expect(read(wide(WRITTEN_LIMITS.columns - 1))).toHaveLength(1);
    expect(() => read(wide(WRITTEN_LIMITS.columns))).toThrow(`at most ${WRITTEN_LIMITS.columns} columns`);
    const width = `The width of a cell is a whole number from 1 to ${WRITTEN_LIMITS.columns}.`;
    for (const colspan of [0, 13, 1.5, '2', Number.NaN]) expect(() => read(wide(colspan))).toThrow(width);
    const slots = (n: number) => Array.from({ length: n }, (_, i) => `s${i}`);
    expect(attrsOf(signatures({ slots: slots(60) }))).toMatchObject({ slots: slots(60) });
    expect(() => read(signatures({ slots: slots(61) }))).toThrow('Who signs is not said.');
    for (const level of [1, 2, 3]) expect(attrsOf({ type: 'heading', attrs: { level } })).toEqual({ level });
    for (const level of [0, 4, 2.5, '1', undefined])
      expect(() => read({ type: 'heading', attrs: { level } })).toThrow('a whole number from 1 to 3');
  });

  test('a language is a BCP 47 tag', () => {
    const languageOf = (language: unknown) => writtenFrom({ language, doc: { type: 'doc' } }).language;
    for (const tag of ['en', 'haw', 'es-MX', 'zh-Hant', 'en-abcdefgh']) expect(languageOf(tag)).toBe(tag);
    expect(languageOf(undefined)).toBe('en');
    expect(languageOf(null)).toBe('en');
    for (const tag of ['e', 'EN', 'abcd', 'en-', 'en-abcdefghi', 'en-U5', 'en_US', 'en-US-x', ' en', 'en ', 3, ''])
      expect(() => languageOf(tag)).toThrow('The language of the paper is not known.');
  });
});
