/** Captions with white space behind them, and those that have none. */
import { filled, Sheet } from '../test/sheet';
import { scanPage } from './blanks';
import { spacesOf } from './spaces';

const spaces = (sheet: Sheet) => spacesOf(scanPage(sheet.content)).map((b) => [Math.round(b.x0), Math.round(b.x1)]);

test('a caption that asks for something has the space behind it, up to the next words or wall', () => {
  expect(spaces(filled().text(60, 300, 'By:'))).toEqual([[79, 309]]);
  expect(spaces(filled().text(60, 300, 'Name:').text(300, 300, 'Date:'))).toEqual([
    [89, 294],
    [329, 559],
  ]);
  const walled = filled().text(60, 300, 'Date:');
  walled.content.down.push({ x: 200, y0: 280, y1: 320 });
  expect(spaces(walled)).toEqual([[89, 194]]);
});

test.each([
  ['a line is there to write on', filled().text(60, 300, 'By: ______________________')],
  ['a line is right below', filled().text(60, 300, 'Signature:').rule(60, 300, 306)],
  ['words follow at once', filled().text(60, 300, 'Name:').text(100, 300, 'Wren Halloway')],
  ['it asks for nothing', filled().text(60, 300, 'Fixtures:')],
  ['it ends a sentence', filled().text(60, 300, 'the initials of those present.')],
  ['it is no caption', filled().text(60, 300, 'The name of the street was changed:')],
])('there is none where %s', (_, sheet) => {
  expect(spaces(sheet)).toEqual([]);
});
