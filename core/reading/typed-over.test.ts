/** Text typed over the lines, dots and spaces of blanks. */
import { linesOf } from './text';
import type { Glyph } from './types';

const WIDTH: Readonly<Record<string, number>> = { '.': 2.8, ' ': 2.8, ',': 2.8 };

/** Returns the characters of a text, side by side from a position on. */
function set(text: string, x: number, more: { pitch?: number } = {}): Glyph[] {
  let at = x;
  return Array.from(text, (ch) => {
    const w = WIDTH[ch] ?? 5.5;
    const g = { ch, x0: at, x1: at + w, y: 100, size: 10, bold: false };
    at += more.pitch ?? w;
    return g;
  });
}
const words = (...parts: Glyph[][]) =>
  linesOf(parts.flat()).flatMap((l) => l.tokens.filter((t) => t.made === 'word').map((t) => t.text));

test('a value over underscores is one word', () => {
  expect(words(set('Price: $', 50), set('_'.repeat(20), 100), set('412,000', 103))).toEqual(['Price:', '$', '412,000']);
});

test('a value over a dot leader has none of its dots, but its own point', () => {
  const leader = set('.'.repeat(40), 100, { pitch: 3.7 });
  expect(words(set('Tenant', 50), leader, set('Agnes Thorvald', 102))).toEqual(['Tenant', 'Agnes', 'Thorvald']);
  for (let x = 102; x < 106; x += 0.4) expect(words(set('Rent', 50), leader, set('1250.50', x))[1]).not.toBe('125050');
});

test('a value over the spaces of an underlined blank is one word', () => {
  expect(words(set('By this paper', 50), set(' '.repeat(30), 130), set('Agnes', 133))).toEqual([
    'By',
    'this',
    'paper',
    'Agnes',
  ]);
});

test('a full stop that is set close to the letter before it stays', () => {
  const close = (text: string, x: number) => {
    const glyphs = set(text, x);
    const stop = glyphs.at(-1)!;
    return [...glyphs.slice(0, -1), { ...stop, x0: stop.x0 - 1.6, x1: stop.x1 - 1.6 }];
  };
  expect(words(close('paper.', 50), close('year.', 120), close('door.', 190), close('7.', 260))).toEqual([
    'paper.',
    'year.',
    'door.',
    '7.',
  ]);
});

test('an empty blank is as it was', () => {
  const [line] = linesOf([...set('Seller:', 50), ...set('_'.repeat(12), 100), ...set('Date:', 180)]);
  expect(line!.tokens.map((t) => t.made)).toEqual(['word', 'underscores', 'word']);
});
