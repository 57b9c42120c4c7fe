/** What is decided together: pages of one form, rows, samples, and pages with more blanks than can be weighed. */
import { filled, Sheet } from '../test/sheet';
import { readPlaces } from './read';
import { DOUBT, type PrintedPlace } from './types';

const read = (...sheets: Sheet[]) => readPlaces(sheets.map((s) => s.content));
const said = (p: PrintedPlace) => `${p.kind} ${p.role} ${p.ordinal}`;
const hands = (places: PrintedPlace[]) => places.filter((p) => p.kind === 'signature' || p.kind === 'initials');

/** Returns a page with clauses and this line at its foot. */
const page = (foot: string) => {
  const sheet = filled();
  for (let i = 0; i < 30; i++)
    sheet.text(60, 120 + i * 18, 'The buyer and the seller agree that notices are given in writing and in good time.');
  return sheet.text(60, 750, foot, 9);
};

test.each([
  ['before', 'Initials: Buyer ______ ______   Seller ______ ______', ['buyer 1', 'buyer 2', 'seller 1', 'seller 2']],
  [
    'behind',
    '( ______ / ______ ) Buyer     ( ______ / ______ ) Seller',
    ['buyer 1', 'buyer 2', 'seller 1', 'seller 2'],
  ],
])('captions %s the blanks of a foot belong to them, on every page alike', (_, foot, who) => {
  const places = read(page(foot), page(foot), page(foot));
  for (const n of [1, 2, 3])
    expect(places.filter((p) => p.page === n).map(said)).toEqual(who.map((w) => `initials ${w}`));
});

test('who writes a day behind a named line signs there, also in the middle of a page of text', () => {
  const sheet = page('page 1');
  for (const n of [1, 2]) sheet.content.glyphs = sheet.content.glyphs.filter((g) => Math.abs(g.y - (282 + n * 18)) > 4);
  for (const n of [1, 2])
    sheet.text(60, 282 + n * 18, `Seller ${n}: ______________________ Date: ______________ here in Tern Lock.`);
  const places = read(sheet);
  expect(places.map(said)).toEqual(['signature seller 1', 'date seller 1', 'signature seller 2', 'date seller 2']);
  for (const p of places) expect(p.confidence).toBeGreaterThan(DOUBT);
});

test('captions with no line at all are places under the role over them', () => {
  const sheet = filled()
    .text(60, 400, 'IN WITNESS WHEREOF the parties have signed on the dates below.')
    .text(60, 440, 'SELLER:', 10, true)
    .text(60, 470, 'By:')
    .text(60, 500, 'Name:')
    .text(60, 530, 'Date:');
  expect(read(sheet).map(said)).toEqual(['signature seller 1', 'name seller 1', 'date seller 1']);
});

test('on a page that is marked as a sample nothing is certain', () => {
  const sign = (sheet: Sheet) =>
    sheet.text(60, 600, 'Buyer 1 signature: ______________________________   Date: ____________');
  expect(hands(read(sign(filled()))).map(said)).toEqual(['signature buyer 1']);
  const sample = read(sign(filled()).text(200, 60, 'SAMPLE - DO NOT SIGN', 16, true));
  expect(sample.length).toBeGreaterThan(0);
  for (const p of sample) expect(p.confidence).toBeLessThanOrEqual(DOUBT);
  // A sample of something is no sample of a form.
  const water = read(sign(filled()).text(200, 60, 'WATER SAMPLE', 16, true));
  expect(hands(water).every((p) => p.confidence > DOUBT)).toBe(true);
});

test('a page that says it was printed here is certain only of what its captions name', () => {
  const sheet = filled()
    .text(60, 40, 'Further signatures to “Terms”', 13, true)
    .text(60, 200, 'SELLER', 10, true)
    .text(60, 240, 'Signature: ______________________________')
    .text(60, 300, 'Seller 3: ______________________________   Date: ____________');
  const certain = read(sheet).filter((p) => p.confidence > DOUBT);
  expect(hands(certain).map((p) => p.ordinal)).toEqual([3]);
});

test('a day on the row of a certain signature is as certain, and one on the row of an uncertain one as uncertain', () => {
  const page = (size: number) => {
    const sheet = filled().text(60, 600, 'Buyer 1 signature: ______________________________   Date: ____________');
    return size ? sheet.text(200, 60, 'SAMPLE - DO NOT SIGN', size, true) : sheet;
  };
  const certain = (sheet: Sheet) =>
    read(sheet).flatMap((p) => (p.kind === 'signature' || p.kind === 'date' ? [[p.kind, p.confidence > DOUBT]] : []));
  expect(certain(page(0))).toEqual([
    ['signature', true],
    ['date', true],
  ]);
  expect(certain(page(16))).toEqual([
    ['signature', false],
    ['date', false],
  ]);
  // On a scan too, where a day has no name of its own.
  const scan = page(0);
  scan.content.scan = 'worded';
  expect(certain(scan)).toEqual([
    ['signature', true],
    ['date', true],
  ]);
});
