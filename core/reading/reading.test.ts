import fc from 'fast-check';
import {
  kindOfWords,
  linesOf,
  placeOfField,
  roleOfWords,
  suggestType,
  matchPages,
  wordsOf,
  type FormField,
  type Glyph,
} from './index';
import { candidatesOf } from './candidates';
import { readPlaces } from './read';
import { filled, Sheet } from '../test/sheet';

const read = (...sheets: Sheet[]) => readPlaces(sheets.map((s) => s.content));
const short = (sheet: Sheet) => read(sheet).map((p) => [p.kind, p.role, p.ordinal]);
test('underscores, tight or loose, are one blank; slashes join a date', () => {
  const lines = linesOf(new Sheet().text(60, 100, 'Name: ______ Date: __/__/____').content.glyphs);
  expect(lines[0]!.tokens.map((t) => t.made)).toEqual([
    'word',
    'underscores',
    'word',
    'underscores',
    'word',
    'underscores',
    'word',
    'underscores',
  ]);
  expect(short(filled().text(60, 300, 'Date: ____/____/______'))).toEqual([['date', 'unknown', null]]);
});

test.each<[string, number]>([
  ['Sellers’ initials: ( ____ / ____ / ____ )', 3],
  ['( ____ / ____ / ____ )', 3],
  ['Initials: Tenant ____ / ____ / ____', 3],
  ['Seller ____ / ____ / ____', 3],
  ['Buyers ____ / ____ / ____ / ____', 4],
  ['Closing on ____ / ____ / ____', 1],
  ['Seller’s date: ____ / ____ / ____', 1],
  ['Born ____/____/____', 1],
])('blanks joined by slashes are one date, or the initials of several people: %s', (text, n) => {
  const found = candidatesOf([filled().text(60, 300, text).content]).candidates;
  expect(found.map((c) => !!c.judged.blank.pieces)).toEqual(n === 1 ? [true] : Array.from({ length: n }, () => false));
});

test('a caption in the cell of a blank for initials says whose it is, whoever stands first in its row', () => {
  const sheet = filled().text(330, 757, 'Initials:', 7);
  ['Seller 1', 'Seller 2', 'Broker'].forEach((text, i) =>
    sheet.box(370 + i * 62, 740, 50, 22).text(373 + i * 62, 757, text, 6),
  );
  const found = candidatesOf([sheet.content]).candidates.map(({ judged: j }) => [
    j.kind,
    j.role?.role,
    j.role?.ordinal,
  ]);
  expect(found).toEqual([
    ['initials', 'seller', 1],
    ['initials', 'seller', 2],
    ['initials', 'broker', 1],
  ]);
});

test.each<[string, string | null]>([
  ['Seller’s signature', 'signature'],
  ['Signature of buyer', 'signature'],
  ['Firma del vendedor', 'signature'],
  ['Accepted by:', 'signature'],
  ['Buyer’s initials', 'initials'],
  ['Iniciales del comprador', 'initials'],
  ['initial here', 'initials'],
  ['initial deposit', null],
  ['the initial term of this lease', null],
  ['Date signed', 'date'],
  ['Fecha', 'date'],
  ['Printed name of guarantor', 'name'],
  ['Nombre', 'name'],
  ['Name of the trust', null],
  ['Phone', 'text'],
  ['Domicilio', 'text'],
])('the caption “%s” names %s', (caption, kind) => {
  const found = kindOfWords(caption);
  expect(found === 'text' && kind === null ? null : found).toBe(kind);
});

test.each<[string, string, number | null]>([
  ['Seller 2', 'seller', 2],
  ['Co-Buyer', 'buyer', 2],
  ['Second tenant', 'tenant', 2],
  ['Buyer #1', 'buyer', 1],
  ['Buyer’s agent', 'buyer_broker', null],
  ['Listing broker, for Towpath & Vane Realty', 'broker', null],
  ['Landlord or agent', 'landlord', null],
  ['Landlord’s agent', 'broker', null],
  ['Arrendador', 'landlord', null],
  ['Arrendatario 2', 'tenant', 2],
  ['Comprador', 'buyer', null],
  ['Fiador', 'guarantor', null],
  ['Property manager', 'manager', null],
])('“%s” is %s', (caption, role, ordinal) => expect(roleOfWords(caption)).toEqual({ role, ordinal }));

test('a role under a line is a signature, with the date beside it', () => {
  const sheet = filled().rule(60, 300, 300).text(60, 311, 'Seller 1', 9).rule(330, 480, 300).text(330, 311, 'Date', 9);
  sheet.rule(60, 300, 360).text(60, 371, 'Seller 2', 9).rule(330, 480, 360).text(330, 371, 'Date', 9);
  expect(short(sheet)).toEqual([
    ['signature', 'seller', 1],
    ['date', 'seller', 1],
    ['signature', 'seller', 2],
    ['date', 'seller', 2],
  ]);
});

test('captions left, in brackets, and for the whole row', () => {
  const sheet = filled()
    .text(60, 300, 'Buyer: ________________________ Date: __________')
    .text(60, 340, 'Seller’s Initials ( ______ ) ( ______ )')
    .text(60, 380, 'Initials: Landlord ______ Tenant ______');
  expect(short(sheet)).toEqual([
    ['signature', 'buyer', 1],
    ['date', 'buyer', 1],
    ['initials', 'seller', 1],
    ['initials', 'seller', 2],
    ['initials', 'landlord', 1],
    ['initials', 'tenant', 1],
  ]);
});

test('a heading over a block gives its role to what stands under it, column by column', () => {
  const sheet = filled().text(60, 300, 'SELLER', 11, true).text(330, 300, 'BUYER', 11, true);
  sheet.rule(60, 260, 340).text(60, 350, 'Signature', 8).rule(330, 530, 340).text(330, 350, 'Signature', 8);
  expect(short(sheet)).toEqual([
    ['signature', 'seller', 1],
    ['signature', 'buyer', 1],
  ]);
});

test('table cells take kind from the head of the column and role from the row', () => {
  const sheet = filled();
  const cols = [60, 200, 380, 540];
  const rows = [300, 324, 354, 384];
  for (let r = 0; r < 3; r++)
    for (let c = 0; c < 3; c++) sheet.box(cols[c]!, rows[r]!, cols[c + 1]! - cols[c]!, rows[r + 1]! - rows[r]!);
  sheet
    .text(64, 316, 'Party')
    .text(204, 316, 'Signature')
    .text(384, 316, 'Date')
    .text(64, 344, 'Tenant 1')
    .text(64, 374, 'Tenant 2');
  expect(short(sheet)).toEqual([
    ['signature', 'tenant', 1],
    ['date', 'tenant', 1],
    ['signature', 'tenant', 2],
    ['date', 'tenant', 2],
  ]);
});

test('a box with its words at its head or at its foot is written in where there is room', () => {
  const sheet = filled()
    .box(60, 300, 240, 44)
    .text(66, 311, 'Buyer’s signature', 9)
    .box(60, 360, 240, 44)
    .text(66, 400, 'Seller’s signature', 9);
  const places = read(sheet);
  expect(places.map((p) => [p.kind, p.role])).toEqual([
    ['signature', 'buyer'],
    ['signature', 'seller'],
  ]);
  expect(places[0]!.rect.y).toBeGreaterThan(312);
  expect(places[1]!.rect.y + places[1]!.rect.h).toBeLessThan(395);
});

test('the lower edge of a cell is its last line where the words over it ask for something', () => {
  const cell = (last: string) => {
    const sheet = filled().box(60, 200, 240, 90);
    ['Sign here', 'Print name'].forEach((w, i) => sheet.text(65, 212 + i * 30, w, 8).rule(65, 295, 234 + i * 26));
    return sheet.text(65, 268, last, 8);
  };
  const lines = (sheet: Sheet) => candidatesOf([sheet.content]).candidates.map((c) => Math.round(c.judged.blank.y));
  expect(lines(cell('Date'))).toEqual([234, 260, 289]);
  // What is only said there asks for nothing.
  expect(lines(cell('All of this was read aloud.'))).toEqual([234, 260]);
});

test('boxes to tick: drawn, in brackets, as characters', () => {
  const sheet = filled()
    .box(60, 292, 10, 10)
    .text(74, 300, 'Yes')
    .text(60, 330, '[ ] No')
    .text(60, 360, '\u2610 Unknown');
  expect(short(sheet).map((p) => p[0])).toEqual(['checkbox', 'checkbox', 'checkbox']);
});

test('headings, rules between sections, leaders and struck words are nothing to fill', () => {
  const sheet = filled()
    .text(60, 60, 'Lease agreement', 18, true)
    .rule(60, 560, 66)
    .text(60, 140, 'Deposit ........................................ 4')
    .text(60, 180, 'An initial deposit is paid when the keys are handed over.')
    .rule(60, 180, 176)
    .rule(60, 560, 240);
  expect(read(sheet)).toEqual([]);
});

test('blanks in a sentence: sums are text, days are dates', () => {
  const sheet = filled()
    .text(60, 300, 'The price is $ __________ and the lease begins on ____________.')
    .text(60, 330, 'Signed this ____ day of __________, 20____.');
  expect(short(sheet).map((p) => p[0])).toEqual(['text', 'date', 'date', 'date', 'date']);
});

test('whatever is on a page, places lie on it and reading never fails', () => {
  const word = fc.constantFrom(
    'Seller',
    'initials',
    '______',
    '(',
    ')',
    'Date:',
    '....',
    'Buyer 2',
    '[ ]',
    'x',
    '\u2610',
    'firma',
    '/',
    '20',
  );
  const line = fc.record({
    x: fc.integer({ min: 0, max: 560 }),
    y: fc.integer({ min: 10, max: 780 }),
    words: fc.array(word, { maxLength: 6 }),
    size: fc.integer({ min: 6, max: 18 }),
  });
  const rule = fc.record({
    x: fc.integer({ min: 0, max: 500 }),
    y: fc.integer({ min: 0, max: 790 }),
    w: fc.integer({ min: 1, max: 400 }),
  });
  const box = fc.record({
    x: fc.integer({ min: 0, max: 560 }),
    y: fc.integer({ min: 0, max: 760 }),
    w: fc.integer({ min: 4, max: 300 }),
    h: fc.integer({ min: 4, max: 60 }),
  });
  fc.assert(
    fc.property(
      fc.array(line, { maxLength: 25 }),
      fc.array(rule, { maxLength: 12 }),
      fc.array(box, { maxLength: 12 }),
      (lines, rules, boxes) => {
        const sheet = new Sheet();
        for (const l of lines) sheet.text(l.x, l.y, l.words.join(' '), l.size);
        for (const r of rules) sheet.rule(r.x, r.x + r.w, r.y);
        for (const b of boxes) sheet.box(b.x, b.y, b.w, b.h);
        for (const p of read(sheet)) {
          expect(p.rect.w).toBeGreaterThan(0);
          expect(p.rect.h).toBeGreaterThan(0);
          expect(p.confidence).toBeGreaterThan(0);
          if (p.role === 'unknown') expect(p.ordinal).toBeNull();
          else expect(p.ordinal).toBeGreaterThan(0);
        }
      },
    ),
    { numRuns: 150 },
  );
});

test('words keep their boxes, and blanks are no words', () => {
  const words = wordsOf(linesOf(new Sheet().text(60, 100, 'Price ______ each').content.glyphs));
  expect(words.map((w) => w.text)).toEqual(['Price', 'each']);
  expect(words[0]!.rect).toMatchObject({ x: 60, w: 25 });
});

test('bold that is printed twice is read once', () => {
  const sheet = new Sheet().text(60, 100, 'Seller').text(60.3, 100, 'Seller');
  expect(linesOf(sheet.content.glyphs as Glyph[])[0]!.tokens.map((t) => t.text)).toEqual(['Seller']);
});

const field = (more: Partial<FormField>): FormField => ({
  page: 1,
  rect: { x: 10, y: 10, w: 100, h: 20 },
  type: 'text',
  name: '',
  tooltip: '',
  required: false,
  readOnly: false,
  multiline: false,
  maxLength: null,
  options: [],
  filled: false,
  ...more,
});

test.each<[Partial<FormField>, string, string, number | null]>([
  [{ name: 'Seller1_Signature', type: 'signature' }, 'signature', 'seller', 1],
  [{ name: 'buyer_2_init' }, 'initials', 'buyer', 2],
  [{ name: 'CoTenantSigDate' }, 'date', 'tenant', 2],
  [{ name: 'form1[0].Landlord_Name[0]' }, 'name', 'landlord', 1],
  [{ name: 'Text12', tooltip: 'Phone of the guarantor' }, 'text', 'guarantor', 1],
  [{ name: 'agree', type: 'tick' }, 'checkbox', 'unknown', null],
])('a field %j is %s', (f, kind, role, ordinal) => {
  expect(placeOfField(field(f))).toMatchObject({ kind, role, ordinal, source: 'acroform' });
});

test('a field whose name says nothing is what is printed beside it, and lends its role to its neighbours', () => {
  const sheet = filled()
    .text(60, 300, 'Seller 2 signature:')
    .text(60, 340, 'Initials of buyer:')
    .text(60, 380, 'The stove stays')
    .text(330, 300, 'Date:');
  const at = (name: string, x: number, y: number, w: number, more: Partial<FormField> = {}) =>
    placeOfField(field({ name, rect: { x, y: y - 14, w, h: 18 }, ...more }))!;
  const places = readPlaces(
    [sheet.content],
    [
      at('Text1', 170, 300, 140),
      at('Text2', 365, 300, 80),
      at('Text3', 170, 340, 40),
      at('Box1', 40, 380, 12, { type: 'tick' }),
    ],
  );
  expect(places.map((p) => [p.kind, p.role, p.ordinal, p.label, p.source])).toEqual([
    ['signature', 'seller', 2, 'Seller 2 signature', 'acroform'],
    ['date', 'seller', 2, 'Date', 'acroform'],
    ['initials', 'buyer', 1, 'Initials of buyer', 'acroform'],
    ['checkbox', 'unknown', null, 'The stove stays', 'acroform'],
  ]);
});

test('buttons and fields nobody can fill are no places', () => {
  expect(placeOfField(field({ type: 'button' }))).toBeNull();
  expect(placeOfField(field({ readOnly: true }))).toBeNull();
});

test.each([
  ['Exclusive listing agreement between the sellers and the broker', 'listing_agreement'],
  ['Residential lease agreement. The tenant pays the rent to the landlord.', 'lease'],
  ['Seller’s property disclosure', 'seller_disclosure'],
  ['Agency disclosure. The broker acts for the seller; lead paint is not spoken of', 'agency_disclosure'],
  ['Disclosure of lead-based paint and its hazards', 'lead_paint'],
  ['Residential lease agreement with house rules and an inventory', 'lease'],
  ['Statement about a private well', 'water'],
  ['Pet addendum to the lease', 'pets'],
  ['Contrato de compraventa', 'purchase_agreement'],
  ['Shopping list: apples, pears', 'other'],
])('“%s” is suggested to be a %s', (text, type) => expect(suggestType(text)).toBe(type));

test('pages are found again by their words, wherever they moved', () => {
  const pages = [
    'roof and walls of the house were made new',
    'water and drains and heat of the house',
    'who signs this paper and when',
  ];
  expect(matchPages(pages, [pages[2]!, 'a page nobody has seen before this day', pages[0]!])).toEqual([2, null, 0]);
  expect(matchPages(['same words here'], ['same words here', 'same words here'])).toEqual([0]);
});
