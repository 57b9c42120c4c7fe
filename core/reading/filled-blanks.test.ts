/** Which blanks of a page have a value in them, and which lines underline printed words or divide the page. */
import { filled, Sheet } from '../test/sheet';
import { filledBlanks } from './filled-blanks';
import { linesOf } from './text';

const found = (sheet: Sheet) => filledBlanks(sheet.content, linesOf(sheet.content.glyphs));
/** Returns a page with a value on a line of 200 points. */
const value = (text = 'Wren Alder', y = 300) =>
  filled()
    .rule(120, 320, y + 1)
    .text(122, y, text);

test('a value on a line is found where words stand before, after or under the line', () => {
  expect(found(value().text(80, 300, 'Buyer:'))).toEqual([{ x: 120, y: 290, w: 200, h: 12 }]);
  expect(found(value().text(325, 300, 'is the buyer.'))).toHaveLength(1);
  expect(found(value().text(122, 311, 'Name of the buyer', 7))).toHaveLength(1);
});

test.each([
  ['nothing says what it is for', value()],
  ['the words take the whole line, as what is underlined does', value('W'.repeat(39)).text(80, 300, 'Buyer:')],
  [
    'the line is as wide as the text, as one that divides sections',
    filled().rule(60, 540, 301).text(62, 300, 'Rent').text(62, 312, 'Due'),
  ],
  ['the words go on beyond its end', value('W'.repeat(44)).text(80, 300, 'Buyer:')],
  ['the line is one of a grid', value().text(80, 300, 'Buyer:').box(119, 285, 203, 16)],
  ['the text under it is a paragraph', value().text(122, 311, 'The buyer pays what was agreed upon here before')],
  ['the line strikes the words out', filled().text(80, 300, 'Buyer:').text(122, 300, 'Wren Alder').rule(120, 320, 293)],
  ['nothing stands on it', filled().rule(120, 320, 301).text(80, 300, 'Buyer:')],
  ['it is too short to write on', filled().rule(120, 148, 301).text(122, 300, 'W').text(80, 300, 'Buyer:')],
])('no value where %s', (_, sheet) => {
  expect(found(sheet)).toEqual([]);
});

test('text typed over underscores or dots is found, as far as the blank reaches', () => {
  const typed = (blank: string) => filled().text(60, 300, 'Buyer:').text(100, 300, blank).text(110, 300, 'Wren Alder');
  expect(found(typed('_'.repeat(40)))).toEqual([{ x: 100, y: 290, w: 200, h: 12.5 }]);
  expect(found(typed('.'.repeat(40)))).toHaveLength(1);
  // Empty ones, and one that a letter of the caption touches, have nothing typed over them.
  expect(found(filled().text(60, 300, 'Buyer:').text(100, 300, '_'.repeat(40)))).toEqual([]);
  expect(found(filled().text(60, 300, 'Buyer:').text(88, 300, '_'.repeat(40)))).toEqual([]);
  expect(found(filled().text(60, 300, 'The price is due. It is paid in full.'))).toEqual([]);
  // A typewriter underlines a word by printing underscores over it.
  const underlined = filled().text(60, 300, 'The buyer shall not pay.').text(140, 300, '_'.repeat(3));
  expect(found(underlined)).toEqual([]);
  expect(found(filled().text(60, 300, 'SELLER DISCLOSURE').text(60, 300, '_'.repeat(18)))).toEqual([]);
});

test('a value under the caption of its cell is found; cells of text are not', () => {
  const cell = (caption: number, value: number, h = 30) =>
    filled().box(120, 300, 160, h).text(124, 308, 'Price', caption).text(124, 324, '412,000', value);
  expect(found(cell(7, 10))).toEqual([{ x: 120, y: 309.75, w: 160, h: 20.25 }]);
  expect(found(cell(10, 10))).toEqual([]);
  expect(found(cell(7, 10, 80))).toEqual([]);
  expect(found(filled().box(120, 300, 160, 30).text(124, 318, '412,000'))).toEqual([]);
  expect(found(cell(7, 10).text(124, 315, 'in all', 7))).toEqual([]);
});

test('a page of drawings is left alone', () => {
  const sheet = value().text(80, 300, 'Buyer:');
  for (let i = 0; i < 400; i++) sheet.rule(10, 50, 400 + i / 2);
  expect(found(sheet)).toEqual([]);
});
