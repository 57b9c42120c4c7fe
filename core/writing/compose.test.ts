/** Tests the paper made from a written form: blocks, places and their sizes, and signature lines. */
import { ENGLISH } from '../words';
import {
  composed,
  EACH_NAME,
  tagDefs,
  WRITTEN_LIMITS,
  writtenFrom,
  type ComposeFor,
  type PaperBlock,
  type SlotPerson,
} from './index';
import type { FactValue } from '../deal';

const TAGS = new Map(tagDefs().map((t) => [t.key, t]));
const wren: SlotPerson = { partyId: 'wren', name: 'Wren Alder', under: 'Tenant 1' };
const ines: SlotPerson = { partyId: 'ines', name: 'Ines Moor', under: 'Tenant 2' };
const odile: SlotPerson = { partyId: 'L', name: 'Odile Marsh', under: 'Landlord 1' };

const on = (facts: Record<string, FactValue> = {}, change: Partial<ComposeFor> = {}): ComposeFor => ({
  words: ENGLISH,
  tags: TAGS,
  values: { facts: new Map(Object.entries(facts)), people: new Map([['tenant', ['Wren Alder', 'Ines Moor']]]) },
  slots: new Map([
    ['L', [odile]],
    ['T', [wren, ines]],
  ]),
  everyOf: new Map([['T', 'tenant']]),
  sides: new Map([
    ['tenant', [wren, ines]],
    ['landlord', [odile]],
  ]),
  ...change,
});
const made = (content: object[], as = on()) => composed(writtenFrom({ doc: { type: 'doc', content } }), as);
const blocks = (content: object[], as = on()) => made(content, as).blocks;
const t = (text: string, ...marks: string[]) => ({ type: 'text', text, marks: marks.map((type) => ({ type })) });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const tag = (key: string) => ({ type: 'tag', attrs: { key } });
const never = (...content: object[]) => ({
  type: 'when',
  attrs: { key: 'people.guarantor', is: 'there' },
  content,
});
const item = (...content: object[]) => ({ type: 'listItem', content });
const row = (...content: object[]) => ({ type: 'tableRow', content });
const line = (text: string): PaperBlock => ({ is: 'paragraph', runs: [{ text }], align: 'left' });

test('headings, paragraphs and page breaks stand as they were written', () => {
  expect(
    blocks([
      { type: 'heading', attrs: { level: 2 }, content: [t('Rules', 'italic', 'bold')] },
      { type: 'paragraph', attrs: { align: 'right' }, content: [t('a'), { type: 'hardBreak' }, t('b', 'underline')] },
      { type: 'pageBreak' },
      p(),
    ]),
  ).toEqual([
    { is: 'heading', level: 2, runs: [{ text: 'Rules', styles: ['bold', 'italic'] }] },
    { is: 'paragraph', align: 'right', runs: [{ text: 'a' }, { text: '\n' }, { text: 'b', styles: ['underline'] }] },
    { is: 'break' },
    { is: 'paragraph', align: 'left', runs: [] },
  ]);
});

test('a list keeps its kind and drops items that are empty', () => {
  const list = (type: string, ...content: object[]) => blocks([{ type, content }]);
  expect(list('orderedList', item(p(t('a'))), item(never(p(t('b')))), item(p(t('c'))))).toEqual([
    { is: 'list', ordered: true, items: [[line('a')], [line('c')]] },
  ]);
  expect(list('bulletList', item(p(t('a'))))).toEqual([{ is: 'list', ordered: false, items: [[line('a')]] }]);
  expect(list('bulletList', item(never(p(t('b')))))).toEqual([]);
});

test('a table keeps headers, widths and empty cells, and drops rows without cells', () => {
  const head = { type: 'tableHeader', attrs: { colspan: 2 }, content: [p(t('Rent'))] };
  const cell = { type: 'tableCell', content: [never(p(t('x')))] };
  expect(blocks([{ type: 'table', content: [row(head), row(), row(cell)] }])).toEqual([
    {
      is: 'table',
      rows: [[{ head: true, across: 2, blocks: [line('Rent')] }], [{ head: false, across: 1, blocks: [] }]],
    },
  ]);
  expect(blocks([{ type: 'table', content: [row()] }])).toEqual([]);
});

test.each<[string, { w: number; h: number }]>([
  ['initials', { w: 44, h: 18 }],
  ['tick', { w: 11, h: 11 }],
  ['date', { w: 90, h: 15 }],
  ['number', { w: 70, h: 15 }],
  ['money', { w: 90, h: 15 }],
  ['text', { w: 130, h: 15 }],
])('a place for %s has its fixed size; only a text place can be wide', (kind, size) => {
  const placeOf = (wide: boolean) =>
    made([p({ type: 'place', attrs: { kind, slot: 'L', label: 'Keys', required: kind !== 'tick', wide } })]).places;
  const plain = { kind, partyId: 'L', label: 'Keys', required: kind !== 'tick', ...size };
  expect(placeOf(false)).toEqual([plain]);
  expect(placeOf(true)).toEqual([kind === 'text' ? { ...plain, w: 300 } : plain]);
});

test('a place for several people appears once for each, separated by a space and numbered in order', () => {
  const place = (slot: string) => ({ type: 'place', attrs: { kind: 'initials', slot } });
  const { blocks, places } = made([p(place('L')), p(place('T')), p(place('gone'))]);
  expect(blocks.map((b) => (b.is === 'paragraph' ? b.runs : []))).toEqual([
    [{ text: '', place: 0 }],
    [{ text: '', place: 1 }, { text: ' ' }, { text: '', place: 2 }],
    [],
  ]);
  expect(places.map((x) => x.partyId)).toEqual(['L', 'wren', 'ines']);
});

test('each signer gets a signature line, and a date if the text asks for one', () => {
  const signatures = (date: boolean) => made([{ type: 'signatures', attrs: { slots: ['L', 'T'], date } }]);
  const dated = signatures(true);
  expect(dated.blocks).toEqual([
    {
      is: 'signers',
      dateWord: 'Date',
      signers: [
        { name: 'Odile Marsh', under: 'Landlord 1', sign: 0, date: 1 },
        { name: 'Wren Alder', under: 'Tenant 1', sign: 2, date: 3 },
        { name: 'Ines Moor', under: 'Tenant 2', sign: 4, date: 5 },
      ],
    },
  ]);
  expect(dated.places.slice(0, 2)).toEqual([
    { kind: 'signature', partyId: 'L', label: '', required: true, w: 210, h: 26 },
    { kind: 'date_signed', partyId: 'L', label: '', required: true, w: 100, h: 18 },
  ]);
  const [block] = signatures(false).blocks;
  expect(block).toMatchObject({ signers: [{ sign: 0, date: null }, { sign: 1, date: null }, { sign: 2 }] });
});

test('in a part repeated for a side, a slot for everybody of that side means the current person', () => {
  const each = (side: string) => ({
    type: 'each',
    attrs: { side },
    content: [{ type: 'signatures', attrs: { slots: ['T'], date: false } }, p(tag(EACH_NAME))],
  });
  const names = (side: string) =>
    blocks([each(side)]).flatMap((b) => (b.is === 'signers' ? [b.signers.map((s) => s.name)] : []));
  expect(names('tenant')).toEqual([['Wren Alder'], ['Ines Moor']]);
  expect(names('landlord')).toEqual([['Wren Alder', 'Ines Moor']]);
  expect(names('guarantor')).toEqual([]);
  // Outside a repeated part the tag has no name to show.
  const outside = made([p(tag(EACH_NAME))]);
  expect([outside.blocks, outside.missing]).toEqual([[line('____________')], [EACH_NAME]]);
});

test.each<[string, string, FactValue | undefined, boolean]>([
  ['there', '', 0, true],
  ['there', '', '', false],
  ['there', '', 'a shed', true],
  ['not', '', 'a shed', false],
  ['not', '', '', true],
  ['equals', 'true', true, true],
  ['equals', '2', 2, true],
  ['equals', '2', 3, false],
  ['equals', '', 'a shed', false],
  ['equals', 'undefined', undefined, false],
])('a condition %s %j with %j', (is, value, known, stands) => {
  const block = { type: 'when', attrs: { key: 'own.x', is, value }, content: [p(t('so'))] };
  const found = made([block], on(known === undefined ? {} : { 'own.x': known }));
  expect(found.blocks).toEqual(stands ? [line('so')] : []);
  expect(found.missing).toEqual(known === undefined ? ['own.x'] : []);
});

test('the sample paper shows tags by name, and marks deleted tags', () => {
  const sample = on({}, { sample: true });
  expect(blocks([p(tag('rent')), p(tag('own.gone')), never(p(t('so')))], sample)).toEqual([
    line('‹Rent a month›'),
    line('‹a tag that is gone›'),
    line('so'),
  ]);
  expect(made([p(tag('own.gone'))], sample).missing).toEqual([]);
  expect(made([p(tag('own.gone'))]).missing).toEqual(['own.gone']);
});

test('a paper holds exactly the allowed number of lines', () => {
  // The repeated part counts once, and each of its lines once for each person.
  const PEOPLE = 67;
  const lines = (WRITTEN_LIMITS.composed - 1) / PEOPLE;
  expect(Number.isInteger(lines)).toBe(true);
  const crowd = Array.from({ length: PEOPLE }, (_, i) => ({ ...wren, partyId: `t${i}` }));
  const as = on({}, { sides: new Map([['tenant', crowd]]) });
  const each = { type: 'each', attrs: { side: 'tenant' }, content: Array.from({ length: lines }, () => p()) };
  expect(blocks([each], as)).toHaveLength(lines * PEOPLE);
  expect(() => blocks([each, p()], as)).toThrow('too long for one paper');
  // Runs, places and signers count as well.
  const all = new Map([['T', crowd]]);
  const counts = (one: object, n: number, many = on({}, { slots: all })) =>
    blocks(
      Array.from({ length: n }, () => one),
      many,
    );
  const signed = { type: 'signatures', attrs: { slots: ['T'] } };
  const most = Math.floor(WRITTEN_LIMITS.composed / (PEOPLE + 1));
  expect(counts(signed, most)).toHaveLength(most);
  expect(() => counts(signed, most + 1)).toThrow('too long for one paper');
  const placed = p({ type: 'place', attrs: { kind: 'tick', slot: 'T' } });
  const fewer = Math.floor(WRITTEN_LIMITS.composed / (PEOPLE + 2));
  expect(counts(placed, fewer)).toHaveLength(fewer);
  expect(() => counts(placed, fewer + 1)).toThrow('too long for one paper');
});
