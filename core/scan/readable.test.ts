import fc from 'fast-check';
import type { Glyph, PrintedPlace } from '../reading/types';
import { itemAt } from '../sure';
import { readable, withRecognized } from './readable';

/** Letters of some words on a line, each with a blank behind it, as they are laid over a scanned page. */
function line(text: string, y = 100, x = 50): Glyph[] {
  return Array.from(text, (ch, i) => ({ ch, x0: x + i * 6, x1: x + i * 6 + 6, y, size: 10, bold: false }));
}
const textOf = (glyphs: Glyph[]) => glyphs.map((g) => g.ch).join('');
const rect = { x: 60, y: 90, w: 100, h: 14 };

test('what forms say is read as it was printed; what contracts say stays as it is', () => {
  expect(textOf(readable(line('lnitials: Iandlord’s signatune')).glyphs)).toBe('Initials: Landlord’s signature');
  const whole =
    'properly promises broken guarantee officer manages signer sealing premise addressed named lender witnessed';
  expect(textOf(readable(line(whole)).glyphs)).toBe(whole);
});

test('letters keep their room: a word that is read in another way stands where it stood', () => {
  const glyphs = line('Sellen: ____', 100);
  const { glyphs: read } = readable(glyphs);
  expect(textOf(read)).toBe('Seller: ____');
  expect([read[0]!.x0, itemAt(read, 6).x1]).toEqual([50, 50 + 7 * 6]);
});

test('a place is named by what was recognized, not by what it was read as', () => {
  const page = readable([...line('Tenamt signatune', 100), ...line('Tenant date', 400)]);
  const place = (y: number, label: string) => ({ label, page: 1, rect: { ...rect, y } }) as PrintedPlace;
  const named = withRecognized([place(95, 'Tenant signature'), place(395, 'Tenant date')], () => page);
  expect(named.map((p) => p.label)).toEqual(['Tenamt signatune', 'Tenant date']);
});

test('whatever stands on a page, no letter moves off its word and none is lost from the way back', () => {
  const word = fc.constantFrom(
    'seller',
    'sellen',
    'buyer',
    'bayer',
    'the',
    'rent',
    '[]',
    '[I',
    'signature',
    'signatune',
  );
  fc.assert(
    fc.property(fc.array(word, { minLength: 1, maxLength: 12 }), (words) => {
      const text = words.join(' ');
      const page = readable(line(text));
      expect(page.recognized(textOf(page.glyphs), rect).split(' ')).toHaveLength(words.length);
      for (const g of page.glyphs) expect(g.x1).toBeGreaterThan(g.x0);
      expect(page.glyphs[page.glyphs.length - 1]!.x1).toBeCloseTo(50 + text.length * 6);
    }),
  );
});
