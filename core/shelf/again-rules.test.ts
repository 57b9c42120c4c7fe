/** Where a mark goes on a changed paper: what each word around it counts for, and at which distance each rule begins. */
import type { DocumentFacts, Mark, MarkKind } from '../packet';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import { facts, mark, page, printedPlace } from '../test-support';
import { findAgain, type Again } from '.';

/** A word with where it stands; letters are 8 points wide. */
type Put = [text: string, x: number, y: number];
function paper(words: Put[], places: PrintedPlace[] = [], height = 10): DocumentFacts {
  const made = page(words.map(([text, x, y]) => ({ x, y, w: text.length * 8, h: height })));
  return facts([{ ...made, words: words.map(([text]) => text) }], 'doc', 'Paper', places);
}
/** A mark that stands on no printed place, 120 by 16 points. */
const free = (x: number, y: number, id = 'm'): Mark => mark(id, 'p', 'label', 1, { x, y, w: 120, h: 16 });
const one = (before: DocumentFacts, after: DocumentFacts, m: Mark): Again => findAgain(before, after, [m])[0]!;
/** What becomes of a mark at 300, 400 when the words go from the first to the second. */
const went = (before: Put[], after: Put[], m = free(300, 400)) => {
  const { state, rect } = one(paper(before), paper(after), m);
  return [state, rect.x, rect.y];
};

describe('which words count', () => {
  // "Signature" ends at 144; a second word far away keeps its page from being empty.
  const far: Put = ['elsewhere', 72, 700];
  test.each<[string, Mark, boolean]>([
    ['to its left, as far as 240 points', free(384, 400), true],
    ['to its left, farther', free(385, 400), false],
    ['above, as far as 70 points', free(72, 480), true],
    ['above, farther', free(72, 481), false],
    ['below, as far as 70 points', free(72, 314), true],
    ['below, farther', free(72, 313), false],
  ])('a word %s', (_where, m, counts) => {
    const { state, rect } = one(paper([['Signature', 72, 400], far]), paper([['Signature', 72, 430], far]), m);
    // Where no word counts it stays where it stood.
    expect([state, rect.y]).toEqual(counts ? ['moved', m.rect.y + 30] : ['same', m.rect.y]);
  });
  test('a word to its right counts as far as 240 points', () => {
    const right = (x: number) => went([['Signature', x, 400], far], [['Signature', x, 430], far]);
    expect(right(660)).toEqual(['moved', 300, 430]);
    expect(right(661)).toEqual(['same', 300, 400]);
  });
  test('one short word alone says nothing; a long one does, once it is met only once', () => {
    expect(went([['Date', 200, 400]], [['Date', 200, 430]])).toEqual(['lost', 300, 400]);
    expect(went([['Dated', 200, 400]], [['Dated', 200, 430]])).toEqual(['moved', 300, 430]);
    const twice: Put[] = [
      ['Dated', 200, 430],
      ['Dated', 200, 600],
    ];
    expect(went([['Dated', 200, 400]], twice)).toEqual(['lost', 300, 400]);
    expect(went(twice, [['Dated', 200, 430]], free(300, 430))).toEqual(['lost', 300, 430]);
  });
  test('signs that are no words are passed over, and capitals and accents are no other words', () => {
    expect(
      went(
        [
          ['—', 280, 400],
          ['Signé:', 200, 400],
        ],
        [['SIGNE', 200, 430]],
      ),
    ).toEqual(['moved', 300, 430]);
    expect(went([['……', 200, 400]], [['……', 200, 430]])).toEqual(['same', 300, 400]);
  });
});

describe('whose word counts most', () => {
  test('a caption just under a blank outvotes what stands above; farther down it is no caption', () => {
    const caption = (below: number) => {
      const y = 416 + below;
      return went(
        [
          ['Signature', 310, y],
          ['paragraph', 310, 370],
        ],
        [
          ['Signature', 310, y + 60],
          ['paragraph', 310, 370],
        ],
      );
    };
    expect(caption(5)).toEqual(['moved', 300, 460]);
    expect(caption(8)).toEqual(['moved', 300, 460]);
    expect(caption(9)[0]).toBe('doubtful');
  });
  test('what stands beside the line, or above it as close, is no caption', () => {
    const other: Put = ['paragraph', 310, 446];
    const above: Put = ['Signature', 310, 385];
    expect(went([above, other], [['Signature', 310, 325], other])[0]).toBe('doubtful');
    const beside: Put = ['Signature', 200, 421];
    expect(went([beside, other], [['Signature', 200, 361], other])[0]).toBe('doubtful');
  });
  test('a line of many words counts as its nearest word does', () => {
    // Four words of one line beneath say one thing; the word on the mark’s own line another.
    const below = (dy: number): Put[] =>
      ['under', 'blank', 'words', 'below'].map((text, i): Put => [text, 300 + 50 * i, 440 + dy]);
    expect(went([['Signature', 200, 402], ...below(0)], [['Signature', 200, 362], ...below(0)])).toEqual([
      'moved',
      300,
      360,
    ]);
  });
});

describe('how many must agree', () => {
  // Each alone in its line: two as near as each other, two farther away.
  const [a, b, c, d]: Put[] = [
    ['above', 310, 370],
    ['below', 310, 436],
    ['higher', 310, 350],
    ['deeper', 310, 456],
  ] as [Put, Put, Put, Put];
  const down = ([text, x, y]: Put, by: number): Put => [text, x, y + by];
  test('with all of them it is found, with most gone it is in doubt, with hardly any it is lost', () => {
    expect(
      went(
        [a!, b!, c!, d!],
        [a!, b!, c!, d!].map((w) => down(w, 100)),
      ),
    ).toEqual(['moved', 300, 500]);
    expect(
      went(
        [a!, b!, c!, d!],
        [a!, b!].map((w) => down(w, 100)),
      ),
    ).toEqual(['moved', 300, 500]);
    expect(went([a!, b!, c!, d!], [down(a!, 100)])).toEqual(['doubtful', 300, 500]);
    expect(went([a!, b!, c!, d!], [down(c!, 100)])).toEqual(['lost', 300, 400]);
  });
  test('words that put it a little apart mean one place; farther apart it is in doubt', () => {
    expect(went([a!, b!], [down(a!, 100), down(b!, 113)])).toEqual(['moved', 300, 500]);
    expect(went([a!, b!], [down(a!, 100), down(b!, 114)])[0]).toBe('doubtful');
  });
  test('what stands free needs words that mean one column', () => {
    const right = ([text, x, y]: Put, by: number): Put => [text, x + by, y];
    expect(went([a!, b!], [a!, right(b!, 8)])).toEqual(['same', 300, 400]);
    expect(went([a!, b!], [a!, right(b!, 9)])[0]).toBe('doubtful');
  });
  test('the middle of what they say is taken, by weight', () => {
    const near: Put = ['Signature', 200, 402];
    expect(went([near, a!, c!], [down(near, 106), down(a!, 100), down(c!, 103)])).toEqual(['moved', 300, 506]);
    expect(went([a!, b!, c!, d!], [down(a!, 100), down(b!, 102), down(c!, 104), down(d!, 106)])[2]).toBe(502);
  });
});

test('in type of another size small distances grow with it, distances along a line do not; it is in doubt', () => {
  const sized = (dx: number, height: number) => {
    const m = free(72 + dx, 430);
    const { state, rect } = one(paper([['Signature', 72, 400]]), paper([['Signature', 172, 300]], [], height), m);
    return [state, Math.round(rect.x * 10) / 10, Math.round(rect.y * 10) / 10];
  };
  expect(sized(30, 12)).toEqual(['doubtful', 208, 336]);
  expect(sized(-30, 12)).toEqual(['doubtful', 136, 336]);
  expect(sized(40, 12)).toEqual(['doubtful', 212, 336]);
  // No more than that: a headline is no measure.
  expect(sized(30, 30)).toEqual(['doubtful', 220, 348]);
  expect(sized(30, 2)).toEqual(['doubtful', 190, 318]);
  expect(sized(30, 10.2)).toEqual(['moved', 202.6, 330.6]);
});

describe('printed places', () => {
  const printed = ({ y, ...change }: Partial<PrintedPlace> & { y: number }) =>
    printedPlace({ rect: { x: 300, y, w: 120, h: 16 }, ...change });
  const signs = (kind: MarkKind = 'signature'): Mark => ({ ...free(300, 400), kind });
  const moved = (after: PrintedPlace[], m = signs(), was = printed({ y: 400 })) => {
    const words = (y: number): Put[] => [['Signature', 200, y]];
    const { state, rect } = one(paper(words(403), [was]), paper(words(463), after), m);
    return [state, rect.y];
  };
  test('the one that is meant is near where the words say, and the nearest of those', () => {
    expect(moved([printed({ y: 496 })])).toEqual(['moved', 496]);
    expect(moved([printed({ y: 497 })])).toEqual(['doubtful', 460]);
    expect(moved([printed({ y: 440 }), printed({ y: 470 }), printed({ y: 485 })])).toEqual(['moved', 470]);
    expect(moved([printed({ y: 485 }), printed({ y: 450 })])).toEqual(['moved', 450]);
    expect(moved([])).toEqual(['doubtful', 460]);
  });
  test('it is of the same kind, role and number, and on the same page', () => {
    for (const other of [{ role: 'buyer' as const }, { ordinal: 2 }, { kind: 'initials' as const }, { page: 2 }])
      expect(moved([printed({ y: 460, ...other })])).toEqual(['doubtful', 460]);
    // Where the mark stood on the second seller’s line, the second seller’s line is meant.
    const second = printed({ y: 400, ordinal: 2 });
    expect(moved([printed({ y: 460 }), printed({ y: 480, ordinal: 2 })], signs(), second)).toEqual(['moved', 480]);
  });
  test.each<[MarkKind, PlaceKind]>([
    ['initials', 'initials'],
    ['date_signed', 'date'],
    ['date', 'date'],
    ['printed_name', 'name'],
    ['text', 'text'],
    ['number', 'text'],
    ['money', 'text'],
    ['tick', 'checkbox'],
    ['choice', 'checkbox'],
  ])('%s stands on a place for %s', (kind, on) => {
    expect(moved([printed({ y: 470, kind: on })], signs(kind), printed({ y: 400, kind: on }))).toEqual(['moved', 470]);
  });
  test('a mark that stood on none is not drawn to one', () => {
    const beside = printed({ y: 450 });
    expect(moved([printed({ y: 480 })], signs(), beside)).toEqual(['moved', 480]);
    expect(moved([printed({ y: 480 })], { ...signs(), kind: 'label' })).toEqual(['moved', 460]);
  });
  test('a hair’s breadth is no move', () => {
    const shifted = (by: number) => {
      const words: Put[] = [['Signature', 200, 403]];
      return one(paper(words, [printed({ y: 400 })]), paper(words, [printed({ y: 400 + by })]), signs()).state;
    };
    expect([shifted(1.9), shifted(2), shifted(-2)]).toEqual(['same', 'moved', 'moved']);
  });
});

describe('two marks on one spot', () => {
  const lines = (apart: number): Put[] => [
    ['Landlord', 200, 402],
    ['Guarantor', 200, 402 + apart],
  ];
  const both = (apart: number) =>
    findAgain(paper(lines(60)), paper(lines(apart)), [free(300, 400, 'a'), free(300, 460, 'b')]).map((f) => f.state);
  test('did not both find their own', () => {
    expect(both(12)).toEqual(['doubtful', 'doubtful']);
    expect(both(13)).toEqual(['same', 'moved']);
    expect(both(40)).toEqual(['same', 'moved']);
  });
  test('are right where they stood so before', () => {
    const doc = paper(lines(60));
    const states = findAgain(doc, doc, [free(300, 400, 'a'), free(310, 402, 'b')]).map((f) => f.state);
    expect(states).toEqual(['same', 'same']);
  });
  test('one that is lost stands in nobody’s way', () => {
    const after: Put[] = [['Landlord', 200, 462]];
    const states = findAgain(paper(lines(60)), paper(after), [free(300, 400, 'a'), free(300, 460, 'b')]);
    expect(states.map((f) => [f.state, f.rect.y])).toEqual([
      ['moved', 460],
      ['lost', 460],
    ]);
  });
});

describe('over print and at the rim', () => {
  const word: Put = ['Landlord', 200, 402];
  test('free marks do not come to lie on print, unless they lay on print before', () => {
    const print: Put = ['covered', 320, 432];
    expect(went([word], [['Landlord', 200, 432], print])[0]).toBe('doubtful');
    expect(went([word, ['covered', 320, 402]], [['Landlord', 200, 432], print])).toEqual(['moved', 300, 430]);
  });
  test('a mark with no word near it stands where it stood while that is free', () => {
    const far = ['many', 'words', 'stand', 'far', 'above'].map((text, i): Put => [text, 72 + 60 * i, 100]);
    expect(went(far, far)).toEqual(['same', 300, 400]);
    expect(went(far, [...far, ['covered', 320, 402]])).toEqual(['doubtful', 300, 400]);
  });
  test('it stays on the page', () => {
    expect(went([word], [['Landlord', 200, 785]])).toEqual(['moved', 300, 776]);
    expect(went([['Landlord', 300, 402]], [['Landlord', 150, 402]], free(100, 400))).toEqual(['moved', 0, 400]);
  });
});
