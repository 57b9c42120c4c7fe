import { drawingSteps, setScript } from '../packet/hand';
import { fitLine } from '../paper/fit';
import { count, firstName, initialsOf, isEmail, listWords, sideLabel } from './index';

test.each([
  ['Wren Alder', 'WA'],
  ['Tobías de la Muñoz', 'TM'],
  ['Юрий Калина', 'ЮК'],
  ['Σπύρος Παπαδόπουλος', 'ΣΠ'],
  ['Anne-Marie Oda Holt Berg', 'AHB'],
  ['wren', 'W'],
  ['Émile Zed', 'ÉZ'],
])('initials of %s are %s', (name, initials) => expect(initialsOf(name)).toBe(initials));

test('lists, counts, names and sides in words', () => {
  expect(listWords(['Wren', 'Callum', 'Priya'])).toBe('Wren, Callum and Priya');
  expect(count(1, 'page')).toBe('1 page');
  expect(firstName(' Wren  Alder ')).toBe('Wren');
  expect(sideLabel('seller', 2)).toBe('Seller 2');
  expect(sideLabel('listing_broker', 1)).toBe('Listing broker');
});

test.each([
  ['wren@example.com', true],
  ['o’brien@example.co.uk', true],
  ['wren@example', false],
  ['wren example.com', false],
  ['Wren <wren@example.com>', false],
  ['', false],
])('%s as an email address: %s', (text, ok) => expect(isEmail(text)).toBe(ok));

test('text fits its box or says that it does not', () => {
  const measure = (t: string, size: number) => t.length * size * 0.5;
  expect(fitLine('WA', { w: 54, h: 22 }, measure, 40, 5)).toEqual({ size: 22 / 1.15, fits: true });
  expect(fitLine('x'.repeat(200), { w: 54, h: 22 }, measure, 40, 5).fits).toBe(false);
  const line = setScript('WA', 'initials', { x: 10, y: 10, w: 54, h: 22 }, measure);
  expect(line.x).toBeGreaterThan(10);
  expect(line.baseline).toBeLessThan(32);
});

test('a drawing is scaled into its mark without being stretched', () => {
  const rect = { x: 100, y: 200, w: 60, h: 24 };
  const steps = drawingSteps(
    {
      strokes: [
        [0, 0, 50, 100, 100, 0, 400, 50],
        [7, 7],
      ],
    },
    rect,
  ).flat();
  for (const s of steps) {
    expect(s.x).toBeGreaterThanOrEqual(rect.x);
    expect(s.x).toBeLessThanOrEqual(rect.x + rect.w);
    expect(s.y).toBeGreaterThanOrEqual(rect.y);
    expect(s.y).toBeLessThanOrEqual(rect.y + rect.h);
  }
});
