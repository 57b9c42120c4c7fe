/** Marks that find their places again, on pages made up word by word: what moved, what is in doubt, what is lost. */
import fc from 'fast-check';
import type { DocumentFacts, Mark, MarkKind } from '../packet';
import type { PrintedPlace } from '../reading/types';
import { facts, mark, page, printedPlace } from '../test/support';
import { findAgain } from '.';

type Line = [y: number, words: string];

/** Returns a page with lines at given positions; each letter is 8 points wide. */
function sheet(lines: Line[], height = 10) {
  const made = page(
    lines.flatMap(([y, words]) => {
      let x = 72;
      return words.split(' ').map((w) => {
        const rect = { x, y, w: w.length * 8, h: height };
        x += w.length * 8 + 6;
        return rect;
      });
    }),
  );
  return { ...made, words: lines.flatMap(([, words]) => words.split(' ')) };
}
const paper = (pages: Line[][], places: PrintedPlace[] = [], height = 10): DocumentFacts =>
  facts(
    pages.map((lines) => sheet(lines, height)),
    'doc',
    'Paper',
    places,
  );
const at = (id: string, kind: MarkKind, y: number, x = 320, on = 1): Mark =>
  mark(id, 'p', kind, on, { x, y, w: 120, h: 16 });
const line = (ordinal: number, y: number, on = 1): PrintedPlace =>
  printedPlace({ page: on, ordinal, rect: { x: 320, y, w: 120, h: 16 } });

const TEXT: Line[] = [
  [80, 'What the owners know about their house by the river'],
  [140, 'The roof above the northern rooms was mended last autumn'],
  [200, 'Whoever signs beside this line agrees with everything above'],
  [260, 'Nothing further was agreed between them that day'],
];
const lower = (lines: Line[], by: number): Line[] => lines.map(([y, w]) => [y + by, w]);

test('on the same paper every mark is where it was', () => {
  const doc = paper([TEXT]);
  const marks = [at('a', 'text', 138), at('b', 'label', 198, 400)];
  expect(findAgain(doc, { ...doc, id: 'new' }, marks)).toEqual(
    marks.map((m) => ({ markId: m.id, state: 'same', page: 1, rect: m.rect })),
  );
});

test('a mark goes where its line went: further down, onto the next page, to another place among the others', () => {
  const before = paper([TEXT], [line(1, 198)]);
  const m = at('s', 'signature', 198);
  const down = findAgain(before, paper([lower(TEXT, 60)], [line(1, 258)]), [m])[0]!;
  expect([down.state, down.page, down.rect.y]).toEqual(['moved', 1, 258]);
  const next = paper([TEXT.slice(0, 2), lower(TEXT.slice(2), -100)], [line(1, 98, 2)]);
  expect(findAgain(before, next, [m])[0]).toMatchObject({ state: 'moved', page: 2, rect: { y: 98 } });
  const first: Line[] = [[80, TEXT[2]![1]], ...lower([TEXT[0]!, TEXT[1]!], 60), TEXT[3]!];
  expect(findAgain(before, paper([first], [line(1, 78)]), [m])[0]).toMatchObject({ state: 'moved', rect: { y: 78 } });
});

test('a mark whose line is gone is not found, and one whose printed place is gone is in doubt', () => {
  const before = paper([TEXT], [line(1, 198)]);
  const m = at('s', 'signature', 198);
  const without = paper([[TEXT[0]!, TEXT[3]!]]);
  expect(['lost', 'doubtful']).toContain(findAgain(before, without, [m])[0]!.state);
  expect(findAgain(before, paper([lower(TEXT, 40)]), [m])[0]!.state).toBe('doubtful');
  // A place of somebody else is not the one that is meant.
  expect(findAgain(before, paper([lower(TEXT, 40)], [line(2, 238)]), [m])[0]!.state).toBe('doubtful');
});

test('a mark whose words went several ways is in doubt, also where most of them stayed', () => {
  const before = paper([TEXT], [line(1, 198)]);
  const scattered: Line[] = [
    [35, 'owners'],
    [80, 'the know their house by the river'],
    [125, 'about'],
    [140, 'The roof northern last autumn'],
    [170, 'What'],
    [185, 'above was'],
    [200, 'Whoever beside line agrees everything'],
    [230, 'the mended'],
    [260, 'Nothing further was them that day'],
    [290, 'rooms this with'],
    [305, 'between'],
    [350, 'signs above agreed'],
  ];
  const m = at('s', 'signature', 198);
  expect(findAgain(before, paper([scattered], [line(1, 198)]), [m])[0]).toMatchObject({
    state: 'doubtful',
    rect: { y: 198 },
  });
});

test('where it would lie on print, or on another mark, it is in doubt', () => {
  const before = paper([TEXT]);
  const m = at('l', 'label', 138, 560);
  const after = paper([[...TEXT, [138, 'x '.repeat(40).trim() + ' somewhere quite other words']]]);
  expect(findAgain(before, after, [m])[0]!.state).toBe('doubtful');
  // Two lines become one: both of their marks would stand on it.
  const two: Line[] = [
    [100, 'Initials of the owner beside the roof clause'],
    [160, 'Initials of the owner beside the cellar clause'],
  ];
  const one: Line[] = [[100, 'Initials of the owner beside the roof clause and the cellar clause']];
  const states = findAgain(paper([two]), paper([one]), [
    at('a', 'initials', 98, 480),
    at('b', 'initials', 158, 480),
  ]).map((a) => a.state);
  expect(states).not.toContain('same');
  expect(states.filter((s) => s === 'moved').length).toBeLessThan(2);
});

test('a mark with no word near it stands where it stood, on the page its page became', () => {
  const doc = paper([TEXT, lower(TEXT, 20).map(([y, w]): Line => [y, `${w} once more`])]);
  const far = mark('f', 'p', 'initials', 2, { x: 500, y: 740, w: 40, h: 16 });
  const after = paper([
    [[80, 'A page that was put in front of all the others']],
    TEXT,
    lower(TEXT, 20).map(([y, w]): Line => [y, `${w} once more`]),
  ]);
  expect(findAgain(doc, after, [far])[0]).toEqual({ markId: 'f', state: 'moved', page: 3, rect: far.rect });
  expect(findAgain(doc, paper([[[80, 'Nothing of it is left']]]), [far])[0]!.state).toBe('lost');
});

test('in type of another size a mark on a printed place is found, and one that stands free is in doubt', () => {
  const before = paper([TEXT], [line(1, 198)]);
  const after = paper([lower(TEXT, 10)], [line(1, 208)], 13);
  expect(findAgain(before, after, [at('s', 'signature', 198)])[0]).toMatchObject({ state: 'moved', rect: { y: 208 } });
  expect(findAgain(before, after, [at('l', 'label', 138, 560)])[0]!.state).not.toBe('same');
});

test('whatever became of the paper, every mark is answered for once, on a page that is there', () => {
  const words = fc.constantFrom('roof', 'cellar', 'owner', 'river', 'line', 'signs', 'the', 'of');
  const lines = fc.array(fc.tuple(fc.integer({ min: 40, max: 740 }), fc.array(words, { minLength: 1, maxLength: 8 })), {
    maxLength: 12,
  });
  const pages = fc.array(lines, { minLength: 1, maxLength: 3 });
  fc.assert(
    fc.property(pages, pages, fc.integer({ min: 0, max: 700 }), (a, b, y) => {
      const make = (p: typeof a) => paper(p.map((ls) => ls.map(([at0, ws]): Line => [at0, ws.join(' ')])));
      const [before, after] = [make(a), make(b)];
      const marks = before.pages.map((_, i) => at(`m${i}`, 'label', y, 200, i + 1));
      const found = findAgain(before, after, marks);
      expect(found.map((f) => f.markId)).toEqual(marks.map((m) => m.id));
      for (const f of found) {
        expect(f.page).toBeGreaterThanOrEqual(1);
        expect(f.page).toBeLessThanOrEqual(after.pages.length);
        expect(Number.isFinite(f.rect.x + f.rect.y)).toBe(true);
      }
    }),
    { numRuns: 150 },
  );
});
