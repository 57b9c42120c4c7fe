/** Tests the rules that find a mark's place on a changed paper, each at the distance where it begins to apply. */
import type { DocumentFacts, Mark, MarkKind } from '../packet';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import { facts, mark, page, printedPlace } from '../test/support';
import { findAgain, type Again } from '.';

/** A printed word and its position in points. Each letter is 8 points wide. */
type Put = [text: string, x: number, y: number];
function paper(words: Put[], places: PrintedPlace[] = [], height = 10): DocumentFacts {
  const made = page(words.map(([text, x, y]) => ({ x, y, w: text.length * 8, h: height })));
  return facts([{ ...made, words: words.map(([text]) => text) }], 'doc', 'Paper', places);
}
/** Returns a mark of 120 x 16 points that is not on a printed place. */
const free = (x: number, y: number, id = 'm'): Mark => mark(id, 'p', 'label', 1, { x, y, w: 120, h: 16 });
const one = (before: DocumentFacts, after: DocumentFacts, m: Mark): Again => findAgain(before, after, [m])[0]!;
/** Returns the state and position found for a mark at (300, 400) when `before` becomes `after`. */
const went = (before: Put[], after: Put[], m = free(300, 400)) => {
  const { state, rect } = one(paper(before), paper(after), m);
  return [state, rect.x, rect.y];
};

describe('which words count', () => {
  // "Signature" spans x = 72 to 144. The far word only makes both pages recognizable as the same page.
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
    // A mark without a nearby word keeps its position.
    expect([state, rect.y]).toEqual(counts ? ['moved', m.rect.y + 30] : ['same', m.rect.y]);
  });
  test('a word to its right counts as far as 240 points', () => {
    const right = (x: number) => went([['Signature', x, 400], far], [['Signature', x, 430], far]);
    expect(right(660)).toEqual(['moved', 300, 430]);
    expect(right(661)).toEqual(['same', 300, 400]);
  });
  test('a single word counts only if it has five letters or more and occurs once on each paper', () => {
    expect(went([['Date', 200, 400]], [['Date', 200, 430]])).toEqual(['lost', 300, 400]);
    expect(went([['Dated', 200, 400]], [['Dated', 200, 430]])).toEqual(['moved', 300, 430]);
    const twice: Put[] = [
      ['Dated', 200, 430],
      ['Dated', 200, 600],
    ];
    expect(went([['Dated', 200, 400]], twice)).toEqual(['lost', 300, 400]);
    expect(went(twice, [['Dated', 200, 430]], free(300, 430))).toEqual(['lost', 300, 430]);
  });
  test('punctuation is ignored, and case and accents make no difference', () => {
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

describe('which word counts most', () => {
  test('a caption within 9 points below a blank outweighs the paragraph above it', () => {
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
  test('a word above the blank or beside it does not count as a caption', () => {
    const other: Put = ['paragraph', 310, 446];
    const above: Put = ['Signature', 310, 385];
    expect(went([above, other], [['Signature', 310, 325], other])[0]).toBe('doubtful');
    const beside: Put = ['Signature', 200, 421];
    expect(went([beside, other], [['Signature', 200, 361], other])[0]).toBe('doubtful');
  });
  test('a line of many words counts no more than its nearest word', () => {
    // The word on the mark's own line moves up; the four words of the line below stay.
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
  // Four words on separate lines: `a` and `b` are equally near to the mark; `c` and `d` are farther away.
  const [a, b, c, d]: Put[] = [
    ['above', 310, 370],
    ['below', 310, 436],
    ['higher', 310, 350],
    ['deeper', 310, 456],
  ] as [Put, Put, Put, Put];
  const down = ([text, x, y]: Put, by: number): Put => [text, x, y + by];
  test('a mark is found with 60 % of its words, doubtful with 30 %, and lost with fewer', () => {
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
  test('words may disagree by less than 14 points in height', () => {
    expect(went([a!, b!], [down(a!, 100), down(b!, 113)])).toEqual(['moved', 300, 500]);
    expect(went([a!, b!], [down(a!, 100), down(b!, 114)])[0]).toBe('doubtful');
  });
  test('a mark off printed places needs words that agree on its column within 8 points', () => {
    const right = ([text, x, y]: Put, by: number): Put => [text, x + by, y];
    expect(went([a!, b!], [a!, right(b!, 8)])).toEqual(['same', 300, 400]);
    expect(went([a!, b!], [a!, right(b!, 9)])[0]).toBe('doubtful');
  });
  test('the weighted median of the positions is taken', () => {
    const near: Put = ['Signature', 200, 402];
    expect(went([near, a!, c!], [down(near, 106), down(a!, 100), down(c!, 103)])).toEqual(['moved', 300, 506]);
    expect(went([a!, b!, c!, d!], [down(a!, 100), down(b!, 102), down(c!, 104), down(d!, 106)])[2]).toBe(502);
  });
});

test('in type of another size, distances under 40 points scale and the mark is doubtful', () => {
  const sized = (dx: number, height: number) => {
    const m = free(72 + dx, 430);
    const { state, rect } = one(paper([['Signature', 72, 400]]), paper([['Signature', 172, 300]], [], height), m);
    return [state, Math.round(rect.x * 10) / 10, Math.round(rect.y * 10) / 10];
  };
  expect(sized(30, 12)).toEqual(['doubtful', 208, 336]);
  expect(sized(-30, 12)).toEqual(['doubtful', 136, 336]);
  expect(sized(40, 12)).toEqual(['doubtful', 212, 336]);
  // Distances grow or shrink by a factor of 1.6 or 0.6 at most.
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
  test('the nearest printed place within 36 points of the expected position is taken; beyond 14 points it is doubtful', () => {
    expect(moved([printed({ y: 473 })])).toEqual(['moved', 473]);
    expect(moved([printed({ y: 474 })])).toEqual(['doubtful', 474]);
    expect(moved([printed({ y: 496 })])).toEqual(['doubtful', 496]);
    expect(moved([printed({ y: 497 })])).toEqual(['doubtful', 460]);
    expect(moved([printed({ y: 440 }), printed({ y: 470 }), printed({ y: 485 })])).toEqual(['moved', 470]);
    expect(moved([printed({ y: 485 }), printed({ y: 450 })])).toEqual(['moved', 450]);
    expect(moved([])).toEqual(['doubtful', 460]);
  });
  test('the printed place must match in kind, role, number and page', () => {
    for (const other of [{ role: 'buyer' as const }, { ordinal: 2 }, { kind: 'initials' as const }, { page: 2 }])
      expect(moved([printed({ y: 460, ...other })])).toEqual(['doubtful', 460]);
    // A mark from the second seller's line goes to the second seller's line, but not unseen if that is farther than the words say.
    const second = printed({ y: 400, ordinal: 2 });
    expect(moved([printed({ y: 460 }), printed({ y: 480, ordinal: 2 })], signs(), second)).toEqual(['doubtful', 480]);
    expect(moved([printed({ y: 460 }), printed({ y: 470, ordinal: 2 })], signs(), second)).toEqual(['moved', 470]);
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
  ])('a mark of kind %s belongs on a printed place of kind %s', (kind, on) => {
    expect(moved([printed({ y: 470, kind: on })], signs(kind), printed({ y: 400, kind: on }))).toEqual(['moved', 470]);
  });
  test('a label does not snap to a printed place', () => {
    const beside = printed({ y: 450 });
    expect(moved([printed({ y: 480 })], signs(), beside)).toEqual(['moved', 480]);
    expect(moved([printed({ y: 480 })], { ...signs(), kind: 'label' })).toEqual(['moved', 460]);
  });
  test('a shift of less than 2 points is not a move', () => {
    const shifted = (by: number) => {
      const words: Put[] = [['Signature', 200, 403]];
      return one(paper(words, [printed({ y: 400 })]), paper(words, [printed({ y: 400 + by })]), signs()).state;
    };
    expect([shifted(1.9), shifted(2), shifted(-2)]).toEqual(['same', 'moved', 'moved']);
  });
});

describe('two marks at one position', () => {
  const lines = (apart: number): Put[] => [
    ['Landlord', 200, 402],
    ['Guarantor', 200, 402 + apart],
  ];
  const both = (apart: number) =>
    findAgain(paper(lines(60)), paper(lines(apart)), [free(300, 400, 'a'), free(300, 460, 'b')]).map((f) => f.state);
  test('are doubtful when they overlap by more than a fifth', () => {
    expect(both(12)).toEqual(['doubtful', 'doubtful']);
    expect(both(13)).toEqual(['same', 'moved']);
    expect(both(40)).toEqual(['same', 'moved']);
  });
  test('are fine when they overlapped before', () => {
    const doc = paper(lines(60));
    const states = findAgain(doc, doc, [free(300, 400, 'a'), free(310, 402, 'b')]).map((f) => f.state);
    expect(states).toEqual(['same', 'same']);
  });
  test('a lost mark makes no other mark doubtful', () => {
    const after: Put[] = [['Landlord', 200, 462]];
    const states = findAgain(paper(lines(60)), paper(after), [free(300, 400, 'a'), free(300, 460, 'b')]);
    expect(states.map((f) => [f.state, f.rect.y])).toEqual([
      ['moved', 460],
      ['lost', 460],
    ]);
  });
});

describe('over print and at the page edge', () => {
  const word: Put = ['Landlord', 200, 402];
  test('a mark that would newly cover print is doubtful', () => {
    const print: Put = ['covered', 320, 432];
    expect(went([word], [['Landlord', 200, 432], print])[0]).toBe('doubtful');
    expect(went([word, ['covered', 320, 402]], [['Landlord', 200, 432], print])).toEqual(['moved', 300, 430]);
  });
  test('a mark without a nearby word keeps its position, and is doubtful if print now stands there', () => {
    const far = ['many', 'words', 'stand', 'far', 'above'].map((text, i): Put => [text, 72 + 60 * i, 100]);
    expect(went(far, far)).toEqual(['same', 300, 400]);
    expect(went(far, [...far, ['covered', 320, 402]])).toEqual(['doubtful', 300, 400]);
  });
  test('a mark never leaves the page', () => {
    expect(went([word], [['Landlord', 200, 785]])).toEqual(['moved', 300, 776]);
    expect(went([['Landlord', 300, 402]], [['Landlord', 150, 402]], free(100, 400))).toEqual(['moved', 0, 400]);
  });
});

describe('where nobody looks at what is found for certain', () => {
  const rows = Array.from({ length: 8 }, (_, i): Put[] => [
    [`Clause${i}`, 72, 100 + 24 * i],
    [`words${i}`, 200, 100 + 24 * i],
  ]).flat();
  const signed: Put = ['Signature', 200, 402];
  const found = (after: Put[], unseen: boolean) =>
    findAgain(paper([...rows, signed]), paper(after), [free(300, 400)], { unseen })[0]!.state;

  test('a mark that moved although all else is where it was is doubtful', () => {
    const moved: Put[] = [...rows, ['Signature', 200, 450]];
    expect([found(moved, false), found(moved, true)]).toEqual(['moved', 'doubtful']);
    expect([found([...rows, signed], false), found([...rows, signed], true)]).toEqual(['same', 'same']);
  });

  test('so is one on a part of the page with too few words to tell how it has moved', () => {
    const lower = [...rows, signed].map(([text, x, y]): Put => [text, x, y + 60]);
    expect([found(lower, false), found(lower, true)]).toEqual(['moved', 'doubtful']);
  });

  test('a box to check is doubtful on any other layout', () => {
    const lower = [...rows, signed].map(([text, x, y]): Put => [text, x, y + 20]);
    const tick = { ...free(300, 400), kind: 'tick' as const };
    const went = (m: Mark) => findAgain(paper([...rows, signed]), paper(lower), [m], { unseen: true })[0]!.state;
    expect([went(free(300, 250)), went({ ...tick, rect: { ...tick.rect, y: 250 } })]).toEqual(['moved', 'doubtful']);
  });

  test('a mark on a row with two printed places of one kind is doubtful on another layout', () => {
    const lower = [...rows, signed].map(([text, x, y]): Put => [text, x, y + 20]);
    const went = (second: PlaceKind, y: number, x = 410) => {
      const at = (kind: PlaceKind, left: number, top: number) =>
        printedPlace({ kind, rect: { x: left, y: top, w: 100, h: 16 } });
      const after = paper(lower, [at('text', 300, 270), at(second, x, y)]);
      const before = paper([...rows, signed], [at('text', 300, 250), at(second, x, y - 20)]);
      return findAgain(before, after, [free(300, 250)], { unseen: true })[0]!.state;
    };
    expect(went('text', 270)).toBe('doubtful');
    // Another kind, another row, or too far away: nothing to mistake it for.
    expect([went('date', 270), went('text', 300), went('text', 270, 430)]).toEqual(['moved', 'moved', 'moved']);
  });

  test('a mark on no printed place that moved further aside than the words around it is doubtful', () => {
    const beside = (dx: number): Put[] =>
      [...rows, signed].map(([text, x, y]): Put => [text, y > 210 && y < 300 ? x + dx : x, y + 20]);
    const went = (dx: number, unseen: boolean) =>
      findAgain(paper([...rows, signed]), paper(beside(dx)), [free(300, 250)], { unseen })[0]!;
    expect(went(6, true).state).toBe('moved');
    expect(went(20, true).state).toBe('doubtful');
  });

  test('a mark on what is left of a blank that is filled in is doubtful', () => {
    const blank = (w: number) => [printedPlace({ kind: 'text', rect: { x: 300, y: 400, w, h: 16 } })];
    const went = (w: number, unseen: boolean) =>
      findAgain(
        paper([...rows, signed], blank(120)),
        paper([...rows, signed], blank(w)),
        [{ ...free(300, 400), kind: 'text' }],
        {
          unseen,
        },
      )[0]!.state;
    expect([went(72, true), went(71, true), went(71, false)]).toEqual(['same', 'doubtful', 'same']);
  });

  test('a mark on a blank with a new word in it or right before it is doubtful', () => {
    const blank = [printedPlace({ kind: 'text', rect: { x: 300, y: 400, w: 120, h: 16 } })];
    const went = (word: Put[], unseen: boolean) => {
      const after = paper([...rows, signed, ...word], blank);
      return findAgain(paper([...rows, signed], blank), after, [{ ...free(300, 400), kind: 'text' }], { unseen })[0]!
        .state;
    };
    // "Nine" is 32 points wide.
    const at = (x: number, y = 403): Put[] => [['Nine', x, y]];
    expect([went(at(261), true), went(at(419), true), went(at(340), true)]).toEqual([
      'doubtful',
      'doubtful',
      'doubtful',
    ]);
    expect([went(at(259), true), went(at(421), true), went(at(340, 420), true)]).toEqual(['same', 'same', 'same']);
    expect(went(at(261), false)).toBe('same');
  });

  test('a mark without words nearby stays only if the part of the page around it has stayed', () => {
    const far: Put = ['elsewhere', 72, 700];
    const apart: Put[] = [['Heading', 72, 260], far];
    const below: Put[] = [['Heading', 72, 275], far];
    const went = (after: Put[], unseen: boolean) =>
      findAgain(paper(apart), paper(after), [free(330, 400)], { unseen })[0]!.state;
    expect([went(apart, false), went(apart, true)]).toEqual(['same', 'same']);
    expect([went(below, false), went(below, true)]).toEqual(['same', 'doubtful']);
  });
});
