/** Running text around blanks: over the ends of lines, and nothing that is signed within it. */
import fc from 'fast-check';
import { scanPage } from './blanks';
import { flowOf } from './flow';
import { readPlaces } from './read';
import { filled, Sheet } from '../test/sheet';

const SIGNED = ['signature', 'initials'];

test('a sentence goes on over the end of a line, and a blank that begins the next knows what was said before', () => {
  const sheet = filled()
    .text(60, 300, 'This agreement is made by all of the people who are named here, and it is made between')
    .text(60, 314, '____________________ (the Seller) and nobody else.');
  const scan = scanPage(sheet.content);
  const flow = flowOf(scan, scan.blanks[0]!);
  expect([flow.before.slice(-15), flow.after.slice(0, 12)]).toEqual(['is made between', '(the Seller)']);
});

test('columns are no lines of one sentence', () => {
  const sheet = filled().text(60, 300, 'Seller:').text(300, 300, 'Buyer:').text(60, 314, '____________________');
  const scan = scanPage(sheet.content);
  expect(flowOf(scan, scan.blanks[0]!).before).toBe('');
});

test('whatever a sentence speaks of, a blank in the middle of it is nobody’s to sign, and no day of signing', () => {
  const word = fc.constantFrom(
    ...['the', 'seller', 'buyer', 'agrees', 'signature', 'initials', 'property', 'date', 'on', 'broker', 'tenant'],
    ...['of', 'by', 'between', 'and', 'sign', 'price', 'house', 'with', 'all', 'under', 'lease', 'agent'],
  );
  const some = (least: number, most: number) => fc.array(word, { minLength: least, maxLength: most });
  fc.assert(
    fc.property(some(3, 6), some(4, 7), fc.integer({ min: 4, max: 24 }), (before, after, width) => {
      const text = `it was said ${before.join(' ')} that ${'_'.repeat(width)} goes along ${after.join(' ')} from then.`;
      // Somebody signs right under it, as at the end of an offer.
      const sheet = new Sheet()
        .text(
          40,
          100,
          'a line of the text as wide as the page is, so that it has a width to go by in all of this case here',
        )
        .text(40, 300, text)
        .rule(40, 240, 340)
        .text(40, 351, 'Seller 1', 9)
        .rule(300, 400, 340)
        .text(300, 351, 'Date', 9);
      const within = readPlaces([sheet.content]).filter((p) => p.rect.y + p.rect.h < 310);
      for (const p of within) {
        expect(SIGNED).not.toContain(p.kind);
        expect(p.signed ?? false).toBe(false);
      }
    }),
    { numRuns: 500 },
  );
});
