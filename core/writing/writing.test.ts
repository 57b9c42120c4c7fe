/** Text of written forms: what comes in, what stands on the paper of a deal, and what is named as missing. */
import fc from 'fast-check';
import { party } from '../test/support';
import { fillSlots, newSlot } from '../shelf';
import {
  composed,
  emptyWritten,
  namesBySide,
  sampleFor,
  slotPeople,
  tagDefs,
  textChanges,
  UnfitText,
  valueIn,
  WRITTEN_LIMITS,
  writtenFrom,
  type Block,
  type PaperBlock,
} from '.';
import type { FactValue } from '../deal';
import { ENGLISH, type Words } from '../words';
import es from '../words/es.json';
import vi from '../words/vi.json';

const WORDS: Record<string, Words> = {
  en: ENGLISH,
  es: { language: 'es', messages: es },
  vi: { language: 'vi', messages: vi },
};
const TAGS = new Map(tagDefs().map((t) => [t.key, t]));
const landlord = newSlot('one', 'landlord', 1, 'L', 0);
const tenants = newSlot('every', 'tenant', 1, 'T', 1);
const SLOTS = [landlord, tenants];
const odile = party('odile', { side: 'landlord', name: 'Odile Marsh' });
const rentedBy = (...names: string[]) => [
  odile,
  ...names.map((name, i) => party(`t${i}`, { side: 'tenant', ordinal: i + 1, name })),
];

const on = (people: ReturnType<typeof rentedBy>, facts: Record<string, FactValue> = {}, language = 'en') => ({
  words: WORDS[language]!,
  tags: TAGS,
  values: { facts: new Map(Object.entries(facts)), people: namesBySide(people) },
  ...slotPeople(fillSlots(SLOTS, people), people, WORDS[language]!),
});
const t = (text: string) => ({ type: 'text', text });
const tag = (key: string) => ({ type: 'tag', attrs: { key } });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const text = (...content: object[]) => writtenFrom({ doc: { type: 'doc', content } });
const wordsOf = (blocks: PaperBlock[]): string[] =>
  blocks.flatMap((b) => {
    if (b.is === 'paragraph' || b.is === 'heading') return [b.runs.map((r) => r.text).join('')];
    if (b.is === 'list') return b.items.flatMap(wordsOf);
    return b.is === 'table' ? b.rows.flatMap((r) => r.flatMap((c) => wordsOf(c.blocks))) : [];
  });
const paper = (block: object, people = rentedBy('Wren Alder', 'Ines Moor'), facts: Record<string, FactValue> = {}) =>
  composed(text(block), on(people, facts));

test.each<[string, string, FactValue, string]>([
  ['en', 'rent', 1450, '$1,450'],
  ['en', 'rent', 1450.5, '$1,450.50'],
  ['es', 'deposit', 12900, '$12.900'],
  ['vi', 'rent', 1450, '$1.450'],
  ['en', 'date.move_in', '2027-02-01', 'February 1, 2027'],
  ['es', 'date.move_in', '2027-02-01', '1 de febrero de 2027'],
  ['vi', 'date.move_in', '2027-02-01', '1 tháng 2, 2027'],
  ['en', 'commission', 2.5, '2.5%'],
  ['es', 'pets', true, 'sí'],
  ['vi', 'pets', false, 'không'],
  ['en', 'water', 'well', 'a well'],
  ['en', 'year_built', 1972, '1972'],
])('in %s %s %p is written %s', (language, key, value, words) => {
  expect(valueIn(WORDS[language]!, TAGS.get(key)!, value)).toBe(words);
});

test('names of a side are joined as the language joins them, and the company goes before the person', () => {
  const people = rentedBy('Wren Alder', 'Ines Moor', 'Ada Reed');
  people[1]!.company = 'Alder Trust';
  const names = (language: string) =>
    wordsOf(composed(text(p(tag('people.tenant'))), on(people, {}, language)).blocks)[0];
  expect([names('en'), names('es'), names('vi')]).toEqual([
    'Alder Trust, Ines Moor and Ada Reed',
    'Alder Trust, Ines Moor y Ada Reed',
    'Alder Trust, Ines Moor và Ada Reed',
  ]);
});

test('what is not known is named once, and a blank stands in its place', () => {
  const made = paper(p(t('Rent '), tag('rent'), t(', again '), tag('rent'), t(', for '), tag('person.tenant.3')));
  expect(wordsOf(made.blocks)).toEqual(['Rent ____________, again ____________, for ____________']);
  expect(made.missing).toEqual(['rent', 'person.tenant.3']);
});

const when = (key: string, is: string, value = '') => ({
  type: 'when',
  attrs: { key, is, value },
  content: [p(t('so'))],
});
test.each<[object, Record<string, FactValue>, boolean, string[]]>([
  [when('pets', 'there'), { pets: true }, true, []],
  [when('pets', 'there'), { pets: false }, false, []],
  [when('pets', 'there'), {}, false, ['pets']],
  [when('pets', 'not'), { pets: false }, true, []],
  [when('pets', 'not'), {}, true, ['pets']],
  [when('water', 'equals', 'well'), { water: 'well' }, true, []],
  [when('water', 'equals', 'well'), { water: 'town' }, false, []],
  [when('people.tenant', 'there'), {}, true, []],
  [when('people.guarantor', 'there'), {}, false, []],
  [when('person.tenant.3', 'there'), {}, false, []],
])('a condition %j with %j', (block, facts, stands, missing) => {
  const made = paper(block, undefined, facts);
  expect([wordsOf(made.blocks).length > 0, made.missing]).toEqual([stands, missing]);
});

test('a part for each tenant names each, with a place of their own; others in it keep theirs', () => {
  const place = (slot: string) => ({ type: 'place', attrs: { kind: 'initials', slot, label: 'Keys' } });
  const made = paper({
    type: 'each',
    attrs: { side: 'tenant' },
    content: [p(tag('each.name'), t(' '), place('T'), place('L'))],
  });
  expect(wordsOf(made.blocks)).toEqual(['Wren Alder ', 'Ines Moor ']);
  expect(made.places.map((x) => x.partyId)).toEqual(['t0', 'L', 't1', 'L']);
});

test('a tick never has to be ticked; every other place is required as the text says', () => {
  const place = (kind: string, required: boolean) => ({
    type: 'place',
    attrs: { kind, slot: 'L', label: 'Keys', required },
  });
  const kinds = ['tick', 'initials', 'text'];
  const made = paper(p(...kinds.flatMap((kind) => [place(kind, true), place(kind, false)])));
  expect(made.places.map((x) => x.required)).toEqual([false, false, true, false, true, false]);
});

test('whoever is not there has no line; a place for everybody stands once for each', () => {
  const block = { type: 'signatures', attrs: { slots: ['L', 'T', 'gone'], date: true } };
  const signers = (people: ReturnType<typeof rentedBy>) =>
    paper(block, people).blocks.flatMap((b) => (b.is === 'signers' ? b.signers.map((s) => s.name) : []));
  expect(signers(rentedBy())).toEqual(['Odile Marsh']);
  expect(signers(rentedBy('A', 'B', 'C'))).toEqual(['Odile Marsh', 'A', 'B', 'C']);
  expect(paper(block, []).blocks).toEqual([]);
});

test('what the house itself writes under a signature is in the language of the paper', () => {
  const block = { type: 'signatures', attrs: { slots: ['L'], date: true } };
  const signed = (language: string) =>
    composed(text(block), on(rentedBy(), {}, language)).blocks.flatMap((b) =>
      b.is === 'signers' ? [b.dateWord, ...b.signers.map((s) => s.under)] : [],
    );
  expect([signed('en'), signed('es')]).toEqual([
    ['Date', 'Landlord 1'],
    ['Fecha', 'Arrendador 1'],
  ]);
});

test('text is text: what looks like a tag, a template or a script is printed as it is', () => {
  const hostile = ['{address}', '<script>1</script>', '${x}', '{{a}}', `${'{'.repeat(250)} `.repeat(400)];
  const made = paper({ type: 'paragraph', content: hostile.map(t) });
  expect(wordsOf(made.blocks)).toEqual([hostile.join('')]);
  expect(made.missing).toEqual([]);
});

test('while it is written every part is shown, and tags are called by their names', () => {
  const doc = text(p(tag('rent')), when('pets', 'there'), {
    type: 'each',
    attrs: { side: 'tenant' },
    content: [p(tag('each.name'))],
  });
  const made = composed(doc, sampleFor(SLOTS, TAGS, ENGLISH));
  expect(wordsOf(made.blocks)).toEqual(['‹Rent a month›', 'so', '‹Every tenant›']);
  expect(made.missing).toEqual([]);
});

const nested = (depth: number): object => {
  let inner: object = p(t('deep'));
  for (let i = 0; i < depth; i++) inner = { type: 'bulletList', content: [{ type: 'listItem', content: [inner] }] };
  return inner;
};
test.each<[string, unknown]>([
  ['nothing', null],
  ['a list', []],
  ['no document', { doc: { type: 'page' } }],
  ['no language', { language: '../xx', doc: { type: 'doc' } }],
  ['a part nobody knows', { doc: { type: 'doc', content: [{ type: 'script' }] } }],
  ['a line of something else', { doc: { type: 'doc', content: [p({ type: 'image' })] } }],
  ['too deep', { doc: { type: 'doc', content: [nested(12)] } }],
  ['too much', { doc: { type: 'doc', content: Array(WRITTEN_LIMITS.nodes + 1).fill(p()) } }],
  ['too long', { doc: { type: 'doc', content: [p(t('x'.repeat(WRITTEN_LIMITS.letters + 1)))] } }],
  ['half a letter', { doc: { type: 'doc', content: [p(t('\ud800'))] } }],
  ['a heading of no level', { doc: { type: 'doc', content: [{ type: 'heading', attrs: { level: 0.5 } }] } }],
  [
    'a place of a kind that stands in no line',
    { doc: { type: 'doc', content: [p({ type: 'place', attrs: { kind: 'signature', slot: 'L' } })] } },
  ],
  ['nobody who signs', { doc: { type: 'doc', content: [{ type: 'signatures', attrs: {} }] } }],
])('%s is not taken', (_what, value) => {
  expect(() => writtenFrom(value)).toThrow(UnfitText);
});

test('of anything at all either a text comes or a sentence, and a text that came comes again as it is', () => {
  const leaf = fc.oneof(fc.constant(t('a')), fc.constant(tag('rent')), fc.constant({ type: 'hardBreak' }), fc.object());
  const { block } = fc.letrec<{ block: object }>((tie) => ({
    block: fc.oneof(
      { depthSize: 'small', withCrossShrink: true },
      fc.record({ type: fc.constant('paragraph'), content: fc.array(leaf, { maxLength: 4 }) }),
      fc.record({
        type: fc.constantFrom('when', 'each', 'signatures', 'table'),
        attrs: fc.object(),
        content: fc.array(tie('block'), { maxLength: 3 }),
      }),
      fc.constant(when('pets', 'not')),
    ),
  }));
  fc.assert(
    fc.property(fc.array(block, { maxLength: 5 }), (content) => {
      let made;
      try {
        made = writtenFrom({ doc: { type: 'doc', content } });
      } catch (error) {
        expect(error).toBeInstanceOf(UnfitText);
        return;
      }
      expect(writtenFrom(JSON.parse(JSON.stringify(made)))).toEqual(made);
      composed(made, on(rentedBy('A')));
    }),
  );
});

test('what is repeated cannot be repeated within itself, and stops before it fills a house', () => {
  const each = (content: object[]) => ({ type: 'each', attrs: { side: 'tenant' }, content });
  expect(() => text(each([when('pets', 'there'), each([p(t('a'))])]))).toThrow('cannot be inside another');
  expect(text(each([p(t('a'))]), each([p(t('b'))])).doc.content).toHaveLength(2);
  const many = rentedBy(...Array.from({ length: 40 }, (_, i) => `Tenant ${i}`));
  const long = text(each(Array.from({ length: 2_000 }, () => p(t('a')))));
  expect(() => composed(long, on(many))).toThrow(UnfitText);
  const crowd = text(...Array.from({ length: 3_000 }, () => ({ type: 'signatures', attrs: { slots: ['T'] } })));
  expect(() => composed(crowd, on(many))).toThrow('too long for one paper');
});

test('what is new in a text and what is gone is told by its lines', () => {
  const before = text(p(t('One')), p(t('Two')), p(t('Two')));
  const after = text(p(t('One')), p(t('Two')), p(t('Three')), p(t('Four')));
  expect(textChanges(before, after)).toEqual(['2 lines of the text are new.', '1 line of it before is gone.']);
  expect(textChanges(before, before)).toEqual([]);
  const bold: Block = { type: 'paragraph', content: [{ type: 'text', text: 'One', marks: [{ type: 'bold' }] }] };
  expect(textChanges(text(p(t('One'))), text(bold))).toEqual(['The text is laid out differently.']);
  expect(textChanges(null, before)).toEqual([]);
  expect(emptyWritten('Rules').doc.content).toHaveLength(2);
});
