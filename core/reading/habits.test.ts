/** On which side the captions of blanks lie that are drawn alike. */
import { filled, Sheet } from '../test/sheet';
import { candidatesOf } from './candidates';
import { evidenceOf } from './evidence';
import { FAR } from './sight';

const knownOf = (sheet: Sheet) => {
  const { candidates, scans, paper } = candidatesOf([sheet.content]);
  return evidenceOf(candidates, scans, paper);
};
const WORDS = ['Seller 1 signature', 'Printed name', 'Date'];
/** Returns what each line of a stack has as its caption, and where. */
const captions = (sheet: Sheet) =>
  knownOf(sheet)
    .filter((k) => k.c.judged.blank.made === 'rule')
    .map((k) => k.caption && `${k.caption.direction}: ${k.caption.seen.said.phrase.text}`);

test('captions under the lines of a stack, each nearer to its own line', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.rule(60, 300, 400 + i * 40).text(60, 410 + i * 40, w, 8));
  expect(captions(sheet)).toEqual(WORDS.map((w) => `below: ${w}`));
});

test('captions over the lines of a stack, each nearer to its own line', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.text(60, 390 + i * 40, w, 8).rule(60, 300, 404 + i * 40));
  expect(captions(sheet)).toEqual(WORDS.map((w) => `above: ${w}`));
});

test('captions over the lines of a stack, each nearer to the line before: the last line has none under it', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.text(60, 380 + i * 30, w, 8).rule(60, 300, 402 + i * 30));
  expect(captions(sheet)).toEqual(WORDS.map((w) => `above: ${w}`));
});

test('captions before the lines; lines drawn otherwise have habits of their own', () => {
  const sheet = filled();
  WORDS.forEach((w, i) => sheet.text(60, 400 + i * 40, `${w}:`).rule(70 + 5 * w.length, 330, 400 + i * 40));
  sheet.rule(60, 110, 600).text(60, 610, 'Initials', 8);
  expect(captions(sheet)).toEqual([...WORDS.map((w) => `left: ${w}:`), 'below: Initials']);
});

test('on the second page of a block the heading of the first still counts, and its signatures are counted on', () => {
  const first = filled().text(60, 700, 'BUYER', 10, true).text(60, 740, 'Signature: ______________________');
  const second = filled().text(60, 60, 'Signature: ______________________');
  const { candidates, scans, paper } = candidatesOf([first.content, second.content]);
  const [one, two] = evidenceOf(candidates, scans, paper);
  expect(one?.heading?.role.role).toBe('buyer');
  expect(two?.heading).toBeNull();
  expect(two?.carried?.role).toBe('buyer');
  expect(two?.earlier).toEqual([one?.c]);
});

test('of two headings on one row of the first page each counts for its own column of the second', () => {
  const first = filled().text(60, 700, 'SELLER', 10, true).text(320, 700, 'BUYER', 10, true);
  const second = filled();
  for (const x of [60, 320]) second.rule(x, x + 200, 80).text(x, 90, 'Signature', 8);
  const { candidates, scans, paper } = candidatesOf([first.content, second.content]);
  const known = evidenceOf(candidates, scans, paper);
  expect(known.map((k) => k.carried?.role)).toEqual(['seller', 'buyer']);
});

test('a column that goes on over the page has the last cell of the page before over its first', () => {
  const cells = (sheet: Sheet, rows: number) => {
    for (let i = 0; i < rows; i++)
      for (const [x, w] of [
        [60, 180],
        [240, 90],
      ] as const)
        sheet.box(x, 60 + i * 30, w, 30);
    return sheet;
  };
  const { candidates, scans, paper } = candidatesOf([cells(filled(), 1).content, cells(filled(), 2).content]);
  const known = evidenceOf(candidates, scans, paper);
  const [first, second, ...rest] = known;
  expect([first?.overleaf, second?.overleaf]).toEqual([null, null]);
  expect(rest.map((k) => k.overleaf)).toEqual([first?.c, second?.c, first?.c, second?.c]);
});

test('a blank knows the signatures before and after it on any page, and the role its sentence names', () => {
  const first = filled().text(60, 600, 'Seller signature: ______________________________');
  const second = filled()
    .text(
      60,
      300,
      'In witness whereof the Buyer has signed and delivered this whole agreement on the ______ day of it.',
    )
    .text(60, 400, 'Buyer signature: ______________________________');
  const { candidates, scans, paper } = candidatesOf([first.content, second.content]);
  const [seller, day, buyer] = evidenceOf(candidates, scans, paper);
  expect([day?.signedBefore.nearest, day?.signedAfter.nearest]).toEqual([seller?.c, buyer?.c]);
  expect([day?.signedBefore.gap, day?.signedAfter.gap]).toEqual([FAR, 100]);
  expect([seller?.signedBefore.nearest, buyer?.signedAfter.nearest]).toEqual([null, null]);
  expect(day?.said.map((r) => r?.role)).toEqual([undefined, undefined, 'buyer']);
  expect(day?.signers).toEqual(
    new Map([
      ['seller', 1],
      ['buyer', 1],
    ]),
  );
});

test('a line at the same spot of two pages is a twin only where the same person is named at it', () => {
  const page = (who: string) => filled().text(60, 600, `${who} signature: ______________________________`);
  const twins = (...who: string[]) => {
    const { candidates, scans, paper } = candidatesOf(who.map((w) => page(w).content));
    return evidenceOf(candidates, scans, paper).map((k) => k.twins);
  };
  expect(twins('Buyer', 'Buyer')).toEqual([1, 1]);
  expect(twins('Buyer', 'Owner')).toEqual([0, 0]);
});

test('names under signature lines belong to the line over them, although each but the last is over the next line, too', () => {
  const sheet = filled();
  ['Seller 1', 'Seller 2'].forEach((w, i) =>
    sheet
      .text(60, 400 + i * 34, 'X')
      .rule(72, 300, 400 + i * 34)
      .text(60, 410 + i * 34, w, 8),
  );
  expect(knownOf(sheet).map((k) => k.naming)).toMatchObject([
    { role: { role: 'seller', ordinal: 1 }, share: 1, next: 0.5 },
    { role: { role: 'seller', ordinal: 2 }, share: 1, next: 0.5 },
  ]);
});

test.each([
  ['Initials ( ________ / ________ ) Listing broker / Buyer’s broker', ['broker 1', 'buyer_broker 1']],
  ['( ________ / ________ / ________ ) Buyer 1, Buyer 2 and Seller', ['buyer 1', 'buyer 2', 'seller 1']],
  ['Tenant / Tenant initials: ( ________ / ________ )', ['tenant 1', 'tenant 2']],
  // Not as many people as blanks, and words that are no people.
  ['( ________ / ________ ) Buyers', [undefined, undefined]],
  ['( ________ / ________ ) Buyer and house', [undefined, undefined]],
])('people listed beside a row of blanks, in the same order: %s', (text, who) => {
  const known = knownOf(filled().text(60, 400, text));
  expect(known.map((k) => k.listed && `${k.listed.role} ${k.listed.ordinal}`)).toEqual(who.map((w) => w ?? null));
});
