/** Pages made to mislead: what they say is read in time, and nothing on them is certain that should not be. */
import { filled, Sheet } from '../test/sheet';
import { readPlaces } from './read';
import { DOUBT, type PrintedPlace } from './types';

const read = (...sheets: Sheet[]) => readPlaces(sheets.map((s) => s.content));
const said = (p: PrintedPlace) => `${p.kind} ${p.role} ${p.ordinal}`;
const hands = (places: PrintedPlace[]) => places.filter((p) => p.kind === 'signature' || p.kind === 'initials');

test('a page with twenty thousand blanks is read in time, and nothing on it is certain', () => {
  const sheet = filled();
  for (let row = 0; row < 200; row++)
    for (let column = 0; column < 100; column++)
      sheet.content.across.push({ x0: 20 + column * 25, x1: 36 + column * 25, y: 30 + row * 15 });
  sheet.content.width = 2_600;
  sheet.content.height = 3_100;
  for (const p of read(sheet)) expect(p.confidence).toBeLessThanOrEqual(DOUBT);
});

test('a caption of ten thousand letters is read, and names what its end names', () => {
  const sheet = filled()
    .text(60, 300, `${'and so on '.repeat(1_000)}`, 0.05)
    .text(90, 330, 'Tenant signature: ____________________');
  expect(hands(read(sheet)).map((p) => p.role)).toEqual(['tenant']);
});

test('two columns whose lines meet are two places, each of the party over it', () => {
  const sheet = filled()
    .text(60, 400, 'SELLER', 10, true)
    .text(320, 400, 'BUYER', 10, true)
    .rule(60, 300, 450)
    .rule(306, 545, 450)
    .text(60, 461, 'Signature', 8)
    .text(320, 461, 'Signature', 8);
  expect(hands(read(sheet)).map(said)).toEqual(['signature seller 1', 'signature buyer 1']);
});

test('where a document calls the seller “Buyer”, no place of a buyer is certain, and the seller is the other reading', () => {
  const form = (who: string) =>
    filled()
      .text(60, 140, `This agreement is made by Marlow Pike, ${who} (“Buyer”), and Ines Caldera.`)
      .text(60, 600, 'Buyer 1 signature: ______________________________   Date: ____________');
  expect(hands(read(form('the purchaser'))).every((p) => p.confidence > DOUBT)).toBe(true);
  const [place, ...more] = hands(read(form('the seller')));
  expect(more).toEqual([]);
  expect(place?.confidence).toBeLessThanOrEqual(DOUBT);
  expect(place?.other).toEqual({ kind: 'signature', role: 'seller', ordinal: 1 });
});

test('a place under a picture is not certain', () => {
  const form = () => filled().text(60, 600, 'Buyer 1 signature: ______________________________   Date: ____________');
  expect(hands(read(form())).every((p) => p.confidence > DOUBT)).toBe(true);
  const covered = form();
  covered.content.pictures.push({ x: 120, y: 560, w: 300, h: 60 });
  expect(hands(read(covered)).map((p) => p.confidence > DOUBT)).toEqual([false]);
  // A picture elsewhere on the page changes nothing.
  const beside = form();
  beside.content.pictures.push({ x: 120, y: 400, w: 300, h: 60 });
  expect(hands(read(beside)).map((p) => p.confidence > DOUBT)).toEqual([true]);
});

test('a contradiction between the name of a field and the page beside it is in doubt, with the page as the other reading', () => {
  const field = (role: PrintedPlace['role']): PrintedPlace => ({
    page: 1,
    kind: 'signature',
    role,
    ordinal: 1,
    rect: { x: 160, y: 582, w: 180, h: 18 },
    label: 'signature',
    source: 'acroform',
    confidence: 0.97,
  });
  const sheet = () => filled().text(60, 600, 'Buyer 1 signature:').text(360, 600, 'Date: ____________');
  const [same] = hands(readPlaces([sheet().content], [field('buyer')]));
  expect(same?.confidence).toBeGreaterThan(DOUBT);
  const [other] = hands(readPlaces([sheet().content], [field('seller')]));
  expect(other?.confidence).toBeLessThanOrEqual(DOUBT);
  expect([other?.role, other?.other]).toEqual(['seller', { kind: 'signature', role: 'buyer', ordinal: 1 }]);
});
