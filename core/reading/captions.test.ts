/** Which words belong to a blank, and which belong to another one: grids of cells, fields in cells, captions before lines. */
import { filled, Sheet } from '../test/sheet';
import { candidatesOf } from './candidates';
import { headingOver, isTaken, viewOf } from './sight';
import type { PrintedPlace } from './types';

/** Returns a grid of cells, 200 points wide and 30 high, each with its caption at its top. */
function grid(sheet: Sheet, rows: string[][], y = 300): Sheet {
  rows.forEach((row, r) =>
    row.forEach((text, i) => {
      sheet.box(60 + i * 200, y + r * 30, 200, 30);
      if (text) sheet.text(63 + i * 200, y + 8 + r * 30, text, 7);
    }),
  );
  return sheet;
}

const captionsIn = (sheet: Sheet, fields: PrintedPlace[] = []) =>
  candidatesOf([sheet.content], fields).candidates.map(({ judged: { captions: c, blank } }) => ({
    made: blank.made,
    cell: c.cell,
    heads: [c.left, c.rowHead, c.colHead].filter(Boolean),
  }));

test('in a grid of cells with captions, a caption is no heading of the cells after or under it', () => {
  const sheet = grid(filled(), [
    ['SELLER (1)', 'SELLER (2)'],
    ['STREET', 'TOWN'],
    ['LISTING BEGINS', 'LISTING ENDS'],
  ]);
  expect(captionsIn(sheet)).toEqual(
    ['SELLER (1)', 'SELLER (2)', 'STREET', 'TOWN', 'LISTING BEGINS', 'LISTING ENDS'].map((cell) => ({
      made: 'cell',
      cell,
      heads: [],
    })),
  );
});

test('a cell full of words heads the captioned cells under it, and cells without captions have the heads of a table', () => {
  const card = filled().box(60, 280, 200, 16).text(63, 292, 'TENANT 1', 10, true);
  expect(captionsIn(grid(card, [['Full name'], ['Employer']], 296)).map((c) => c.heads)).toEqual([
    ['TENANT 1'],
    ['TENANT 1'],
  ]);
  const table = filled().box(60, 300, 160, 24).text(64, 316, 'Item').box(220, 300, 160, 24).text(224, 316, 'Due');
  table.box(60, 324, 160, 24).text(64, 340, 'Deposit').box(220, 324, 160, 24);
  expect(captionsIn(table)).toEqual([{ made: 'cell', cell: '', heads: ['Deposit', 'Deposit', 'Due'] }]);
});

test('a field that fills its cell has the caption of the cell, not that of the cell under it', () => {
  const sheet = grid(filled(), [
    ['Owner', 'Co-owner'],
    ['Unit and street', 'Account number'],
  ]);
  const fields = [0, 1, 2, 3].map((i): PrintedPlace => {
    const rect = { x: 62 + (i % 2) * 200, y: 309 + Math.floor(i / 2) * 30, w: 196, h: 20 };
    return {
      page: 1,
      kind: 'text',
      role: 'unknown',
      ordinal: null,
      rect,
      label: `Text${i}`,
      source: 'acroform',
      confidence: 0.5,
    };
  });
  const captions = captionsIn(sheet, fields);
  expect(captions.map((c) => c.cell)).toEqual(['Owner', 'Co-owner', 'Unit and street', 'Account number']);
  // Two fields in one cell share its words: neither has the cell to itself.
  const halves = [0, 100].map((dx) => ({ ...fields[0]!, rect: { ...fields[0]!.rect, x: 62 + dx, w: 96 } }));
  const alone = captionsIn(grid(filled(), [['Owner']]), halves);
  expect(alone.map((c) => c.made)).toEqual(['rule', 'rule']);
});

test('words before a line, and words in a cell, are the captions of these and of no other blank', () => {
  const sheet = filled()
    .text(60, 300, 'SELLER:', 10, true)
    .rule(110, 310, 301)
    .text(60, 340, 'Address')
    .rule(110, 310, 341)
    .text(330, 340, 'of the home');
  const { candidates, scans, paper } = candidatesOf([sheet.content]);
  const view = viewOf(scans[0]!, paper, candidates);
  const blanks = candidates.map((c) => c.judged.blank);
  const said = (text: string) => view.said.find((s) => s.phrase.text === text)!;
  const [first, second] = blanks;
  expect(blanks.map((b) => b.y)).toEqual([301, 341]);
  expect(['SELLER:', 'Address', 'of the home'].map((text) => said(text).owner)).toEqual([first, second, null]);
  expect([isTaken(said('SELLER:'), first!), isTaken(said('SELLER:'), second!)]).toEqual([false, true]);
  // It may still be a heading, as one that also has a line of its own.
  expect(headingOver(view, second!)).toMatchObject({ role: { role: 'seller' }, gap: 41, isTaken: true });
  const alone = filled().text(60, 300, 'SELLER:', 10, true).text(60, 340, 'Address').rule(110, 310, 341);
  const read = candidatesOf([alone.content]);
  const over = headingOver(viewOf(read.scans[0]!, read.paper, read.candidates), read.candidates[0]!.judged.blank);
  expect(over).toMatchObject({ gap: 41, isTaken: false });
});
