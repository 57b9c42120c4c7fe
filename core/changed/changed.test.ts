import fc from 'fast-check';
import { emptyGrid, inkRect } from '../paper/ink';
import type { Rect } from '../paper/types';
import { align } from './align';
import { compareVersions, type Change, type VersionPage } from './index';

const STEP = 16;

/**
 * Returns a page of lines of text, from the top; empty lines are gaps. Ink lies under every word, and wherever it is
 * drawn besides.
 */
function page(lines: string[], o: { top?: number; left?: number; drawn?: Rect[]; scan?: boolean } = {}): VersionPage {
  const [width, height] = [612, 792];
  const ink = emptyGrid(width, height);
  const [words, print]: [string[], Rect[]] = [[], []];
  lines.forEach((line, i) => {
    let x = o.left ?? 60;
    for (const word of line.split(' ').filter(Boolean)) {
      const rect = { x, y: (o.top ?? 100) + i * STEP, w: word.length * 5.5, h: 10 };
      words.push(word);
      print.push(rect);
      inkRect(ink, rect);
      x += rect.w + 4;
    }
  });
  for (const rect of o.drawn ?? []) inkRect(ink, rect);
  return { width, height, ink, words, print, ...(o.scan ? { scan: true } : {}) };
}

const OFFER = [
  'COUNTEROFFER NO. 1',
  'The seller accepts the offer of the buyer for 5 Lantern Row with the following changes:',
  '1. The price shall be $410,000 payable at closing.',
  '2. The buyer shall have ten days to inspect the roof and the boiler of the house.',
  '3. The seller leaves the stove, the blinds and the shed where they are now.',
  'All other terms stay as they were. Signed: ____________ Date: ________',
];
const changed = (was: string[], now: string[]) => compareVersions([page(was)], [page(now)]);
const told = (c: Change) => [c.kind, c.before?.text ?? null, c.after?.text ?? null];
const mains = (list: Change[]) => list.filter((c) => !c.aside).map(told);
const withLine = (i: number, line: string | null) =>
  OFFER.flatMap((l, k) => (k === i ? (line === null ? [] : [line]) : [l]));

describe('what changed in words', () => {
  test('two copies of one paper differ in nothing', () => {
    expect(changed(OFFER, OFFER)).toEqual({
      pages: [{ before: 1, after: 1 }],
      changes: [],
      more: 0,
      slight: 0,
      wordsOnly: [],
    });
  });
  test('one sum that changed is one change, with the words around it and where it is', () => {
    const { changes } = changed(OFFER, withLine(2, '1. The price shall be $415,000 payable at closing.'));
    expect(changes.map(told)).toEqual([['replaced', '$410,000', '$415,000']]);
    const [c] = changes;
    expect([c!.lead, c!.tail]).toEqual(['changes: 1. The price shall be', 'payable at closing. 2. The buyer']);
    expect(c!.after!.boxes).toEqual([{ page: 1, rect: expect.objectContaining({ y: 132, h: 10 }) }]);
  });
  test('a sentence put in, and one struck, are whole sentences', () => {
    const more = 'The buyer shall have the chimney swept before closing.';
    const now = withLine(3, `${OFFER[3]} ${more}`);
    expect(mains(changed(OFFER, now).changes)).toEqual([['put_in', null, more]]);
    expect(mains(changed(now, OFFER).changes)).toEqual([['struck', more, null]]);
  });
  test('words that flow onto other lines and pages are the same words', () => {
    const text = OFFER.join(' ').split(' ');
    const lines = (n: number) =>
      Array.from({ length: Math.ceil(text.length / n) }, (_, i) => text.slice(i * n, i * n + n).join(' '));
    const eight = lines(8);
    const { changes, pages } = compareVersions([page(lines(11))], [page(eight.slice(0, 5)), page(eight.slice(5))]);
    expect(changes).toEqual([]);
    expect(pages.map((p) => p.after)).toEqual([1, 2]);
    expect(pages.filter((p) => p.before === 1)).toHaveLength(1);
  });
  test('the length of a blank and the shape of quotation marks are no change; a divided word is listed', () => {
    const was = ['The “buyer” signs on ____________ here, and is non- paying.', 'It is an agree-', 'ment of both.'];
    const now = [
      'The "buyer" signs on ______________________ here, and is non- paying.',
      'It is an',
      'agreement of both.',
    ];
    expect(changed(was, now).changes.map((c) => [c.aside, ...told(c)])).toEqual([
      ['reading', 'replaced', 'agree- ment', 'agreement'],
    ]);
    // Otherwise divided, figures and small words are others.
    expect(mains(changed(['Lot 11 0 of them.'], ['Lot 1 10 of them.']).changes)).toEqual([
      ['replaced', '11 0', '1 10'],
    ]);
    expect(mains(changed(['He is not able to.'], ['He is notable to.']).changes)).toEqual([
      ['replaced', 'not able', 'notable'],
    ]);
  });
});

describe('what moved', () => {
  test('items that changed places are moves, and so is their new numbering', () => {
    const now = [
      OFFER[0]!,
      OFFER[1]!,
      OFFER[3]!.replace('2.', '1.'),
      OFFER[2]!.replace('1.', '2.'),
      OFFER[4]!,
      OFFER[5]!,
    ];
    const { changes } = changed(OFFER, now);
    expect(mains(changes).map(([kind]) => kind)).toEqual(['moved']);
    const [move] = changes.filter((c) => !c.aside);
    expect(move!.before!.text).toBe(move!.after!.text);
    expect(move!.before!.text).toMatch(/^The (?:price shall be|buyer shall have)/);
  });
  test('items that moved, one struck and one put in are told as that, whatever their numbers are now', () => {
    const clauses = [
      'The buyer shall have ten days to inspect the roof and the well.',
      'The seller leaves the stove and the blinds.',
      'The seller has the chimney swept and the gutters cleared before closing.',
      'Both sides pay half of what the survey costs.',
    ];
    const listed = (list: string[]) => list.map((c, i) => `${i + 2}. ${c}`);
    const [inspect, stove, sweeps, survey] = clauses as [string, string, string, string];
    const deposit = 'The deposit stays with the firm.';
    const { changes } = changed(listed(clauses), listed([sweeps, inspect.replace('ten', 'six'), survey, deposit]));
    expect(mains(changes)).toEqual([
      ['moved', sweeps, sweeps],
      ['replaced', 'ten', 'six'],
      ['struck', expect.stringContaining(stove), null],
      ['put_in', null, expect.stringContaining(deposit)],
    ]);
  });
  test('a paragraph that moved to another page is one move; what changed within it is told by itself', () => {
    const para = 'The tenant shall keep the boiler in good order and have it looked at by a fitter once in every year.';
    const others = Array.from(
      { length: 12 },
      (_, i) => `Clause ${'abcdefghijkl'[i]} says that item${i} is kept by party${i} until day${i} ends.`,
    );
    const was = [page([para, ...others.slice(0, 6)]), page(others.slice(6))];
    const now = [page(others.slice(0, 6)), page([...others.slice(6), para.replace('once', 'twice')])];
    const { changes } = compareVersions(was, now);
    expect(mains(changes)).toEqual([
      ['moved', para, para.replace('once', 'twice')],
      ['replaced', 'once', 'twice'],
    ]);
    expect(changes[0]!.before!.boxes[0]!.page).toBe(1);
    expect(changes[0]!.after!.boxes[0]!.page).toBe(2);
  });
  test('a page that moved lies beside itself; one that is gone lies alone', () => {
    const sheet = (name: string) =>
      page(Array.from({ length: 5 }, (_, i) => Array.from({ length: 7 }, (_, k) => `${name}${i}${k}`).join(' ')));
    const [a, b, c] = [sheet('roof'), sheet('lead'), sheet('well')];
    const { pages, changes } = compareVersions([a, b, c], [c, a]);
    expect(pages).toEqual([
      { before: 2, after: null },
      { before: 3, after: 1 },
      { before: 1, after: 2 },
    ]);
    expect(changes.map((x) => x.kind).sort()).toEqual(['moved', 'struck']);
  });
});

describe('what can be left aside', () => {
  const sheet = (n: number, of: number, head: string, day: string, text: string) => {
    const p = page([text, `${text} again in line two of sheet${n}`, `and line three of sheet${n}`]);
    const rim = page([head], { top: 30 });
    const foot = page([`Page ${n} of ${of}`, `Printed on ${day} by the office`], { top: 740 });
    for (const x of [rim, foot]) {
      p.words.push(...x.words);
      p.print.push(...x.print);
      for (const r of x.print) inkRect(p.ink, r);
    }
    return p;
  };
  const all = (n: number, head: string, day: string) =>
    Array.from({ length: n }, (_, i) => sheet(i + 1, n, head, day, `Clause${i} about thing${i} stands here`));
  test('headers, page numbers and the day of printing are told as such', () => {
    const { changes } = compareVersions(
      all(3, 'Lease of Lantern Row, draft', '11/26/2026'),
      all(4, 'Lease of Lantern Row, final', '11/28/2026'),
    );
    expect(mains(changes)).toHaveLength(1);
    expect(new Set(changes.map((c) => c.aside))).toEqual(new Set([null, 'header', 'page_number', 'print_date']));
  });
  test('a header that a single page has is text', () => {
    expect(mains(changed(OFFER, ['COUNTEROFFER NO. 2', ...OFFER.slice(1)]).changes)).toEqual([['replaced', '1', '2']]);
  });
});

describe('pictures of pages', () => {
  const scanned = (lines: string[], drawn: Rect[] = []) => [page(lines, { scan: true, left: 63, top: 104, drawn })];
  test('letters a machine took for others, and words it divided otherwise, are listed as read differently; a figure is told', () => {
    const read = OFFER.map((l) => l.replace('inspect', 'lnspect').replace('following', 'fol lowing'));
    const found = compareVersions([page(OFFER)], scanned(read));
    expect(mains(found.changes)).toEqual([]);
    expect(found.changes.map((c) => [c.aside, ...told(c)])).toEqual([
      ['reading', 'replaced', 'following', 'fol lowing'],
      ['reading', 'replaced', 'inspect', 'lnspect'],
    ]);
    expect(found.slight).toBe(2);
    const letters = OFFER.map((l) => l.replace('$410,000', '$41O,OOO'));
    expect(mains(compareVersions([page(OFFER)], scanned(letters)).changes)).toEqual([
      ['replaced', '$410,000', '$41O,OOO'],
    ]);
    const other = OFFER.map((l) => l.replace('$410,000', '$4,100.00'));
    const { changes } = compareVersions([page(OFFER)], scanned(other));
    expect(mains(changes)).toEqual([['replaced', '$410,000', '$4,100.00']]);
    expect(changes[0]!.scan).toBe(true);
  });
  test('a small letter that a speck makes is none, and a number that was missed is but numbering; a cross is told', () => {
    const read = OFFER.map((l) => l.replace('3. The', 'The').replace('stove,', 'stove, c'));
    const specks = compareVersions([page(OFFER)], scanned(read));
    expect(mains(specks.changes)).toEqual([]);
    expect(specks.changes.map((c) => c.aside)).toEqual(['numbering', 'reading']);
    // A change of letters that form words is reported.
    const or = OFFER.map((l) => l.replace('stove,', 'stove, o'));
    expect(mains(compareVersions([page(OFFER)], scanned(or)).changes)).toEqual([['put_in', null, 'o']]);
    const crossed = OFFER.map((l) => l.replace('stove,', 'X stove,'));
    expect(mains(compareVersions([page(OFFER)], scanned(crossed)).changes)).toEqual([['put_in', null, 'X']]);
    // Between papers that a machine printed each letter counts.
    const printed = OFFER.map((l) => l.replace('stove,', 'stove, c'));
    expect(mains(changed(OFFER, printed).changes)).toEqual([['put_in', null, 'c']]);
  });
  test('what a pen put on a page, or struck out, is seen though no word says so', () => {
    const pen = { x: 300, y: 300, w: 60, h: 24 };
    const { changes, wordsOnly } = compareVersions([page(OFFER)], scanned(OFFER, [pen]));
    expect(changes).toEqual([expect.objectContaining({ kind: 'put_in', drawn: true, scan: true })]);
    expect(changes[0]!.after!.boxes[0]!.rect.x).toBeCloseTo(pen.x, -1);
    expect(wordsOnly).toEqual([]);
    expect(mains(compareVersions([page(OFFER, { drawn: [pen] })], [page(OFFER)]).changes)).toEqual([
      ['struck', '', null],
    ]);
  });
  test('pages without words cannot be compared, and say so', () => {
    const blot = page([], { drawn: [{ x: 100, y: 100, w: 300, h: 300 }] });
    expect(compareVersions([page([])], [blot])).toMatchObject({ changes: [], wordsOnly: [1] });
  });
});

describe('held by properties', () => {
  const word = fc.constantFrom(
    'the',
    'buyer',
    'seller',
    'shall',
    'pay',
    'ten',
    '$5',
    'roof',
    'and',
    'of',
    '____',
    '2.',
  );
  const row = fc.array(word, { maxLength: 60 });
  const lines = (words: string[]) =>
    Array.from({ length: Math.ceil(words.length / 9) }, (_, i) => words.slice(i * 9, i * 9 + 9).join(' '));
  test('what is matched rises on both sides and is alike', () => {
    fc.assert(
      fc.property(row, row, (a, b) => {
        let last = -1;
        align(a, b).forEach((j, i) => {
          if (j < 0) return;
          expect(j).toBeGreaterThan(last);
          expect(b[j]).toBe(a[i]);
          last = j;
        });
      }),
    );
  });
  test('what is told turns the one version into the other: nothing is left out, and nothing told twice', () => {
    fc.assert(
      fc.property(row, row, (a, b) => {
        const { changes, more } = compareVersions([page(lines(a))], [page(lines(b))]);
        expect(more).toBe(0);
        const count = (text: string[]) => {
          const n = new Map<string, number>();
          for (const t of text) n.set(t, (n.get(t) ?? 0) + 1);
          return n;
        };
        // What was changed within a move is told by itself.
        const words = (side: 'before' | 'after') =>
          changes.filter((c) => !c.drawn && c.kind !== 'moved').flatMap((c) => c[side]?.text.split(' ') ?? []);
        const [was, now, out, put] = [a, b, words('before'), words('after')].map(count);
        for (const w of new Set([...a, ...b]))
          // Numbering beside what moved goes with it.
          if (w !== '2.')
            expect([w, (was!.get(w) ?? 0) - (out!.get(w) ?? 0)]).toEqual([w, (now!.get(w) ?? 0) - (put!.get(w) ?? 0)]);
      }),
    );
  });
  test('a long piece that moved with every third word changed is one move, however long', () => {
    const words = Array.from({ length: 9_000 }, (_, i) => `word${i}`);
    const sheets = (list: string[]) =>
      Array.from({ length: Math.ceil(list.length / 200) }, (_, p) =>
        page(Array.from({ length: 20 }, (_, i) => list.slice(p * 200 + i * 10, p * 200 + i * 10 + 10).join(' '))),
      );
    const keep = Array.from({ length: 12_000 }, (_, i) => `stays${i}`);
    const moved = words.map((w, i) => (i > 100 && i % 3 === 0 ? `new${i}` : w));
    const { changes, more } = compareVersions(sheets([...words, ...keep]), sheets([...keep, ...moved]));
    expect(changes[0]).toMatchObject({ kind: 'moved' });
    expect(changes.filter((c) => c.kind === 'moved')).toHaveLength(1);
    expect(changes.length + more).toBeGreaterThan(2_900);
  }, 60_000);
  test('a thousand pages, and pages of one word, end soon enough', () => {
    const sheets = (seed: number) =>
      Array.from({ length: 1_000 }, (_, p) =>
        page(Array.from({ length: 20 }, (_, i) => `w${(p * 7 + i * seed) % 977} x${(p * i) % 31} the of and`)),
      );
    const one = Array.from({ length: 200 }, () => page(Array.from({ length: 30 }, () => 'same same same same same')));
    expect(compareVersions(sheets(3), sheets(5)).pages.length).toBeGreaterThanOrEqual(1_000);
    expect(compareVersions(one, one.slice(50)).changes.length).toBeGreaterThan(0);
  }, 60_000);
});

describe('at the edge of each rule', () => {
  const numbered = (head: (n: number) => string, pages: number) =>
    Array.from({ length: pages }, (_, i) => {
      const p = page([
        `Clause ${'abcdefgh'[i]} says what thing${i} is and where it stands.`,
        `More of thing${i} here.`,
      ]);
      const rim = page([head(i)], { top: 30 });
      if (head(i)) {
        p.words.push(...rim.words);
        p.print.push(...rim.print);
        for (const r of rim.print) inkRect(p.ink, r);
      }
      return p;
    });

  test('a line at the rim of half of the pages is a header; on fewer it is text', () => {
    const on = (upTo: number, word: string) => numbered((i) => (i < upTo ? `Lease of Lantern Row, ${word}` : ''), 6);
    const asides = (upTo: number) => compareVersions(on(upTo, 'draft'), on(upTo, 'final')).changes.map((c) => c.aside);
    expect(asides(3)).toEqual(['header', 'header', 'header']);
    expect(asides(2)).toEqual([null, null]);
  });

  test('a number is numbering where it begins a line and something else changed, and nowhere else', () => {
    const lines = ['1. The roof is new.', 'It was made on day 4. of the month.', '2. The well is old.'];
    const alone = changed(lines, [lines[0]!, lines[1]!, '3. The well is old.']).changes;
    expect(alone.map((c) => [c.aside, ...told(c)])).toEqual([[null, 'replaced', '2.', '3.']]);
    const beside = changed(lines, ['1. The roof is sound.', lines[1]!, '3. The well is old.']).changes;
    expect(beside.map((c) => [c.aside, ...told(c)])).toEqual([
      [null, 'replaced', 'new.', 'sound.'],
      ['numbering', 'replaced', '2.', '3.'],
    ]);
    const within = changed(lines, ['1. The roof is sound.', 'It was made on day 5. of the month.', lines[2]!]).changes;
    expect(within.map((c) => [c.aside, ...told(c)])).toEqual([
      [null, 'replaced', 'new.', 'sound.'],
      [null, 'replaced', '4.', '5.'],
    ]);
  });

  test('pages are compared in ink where enough words hold them together, and say where they are not', () => {
    const words = (n: number) => Array.from({ length: n }, (_, i) => `word${i}`).join(' ');
    const pen = { x: 300, y: 300, w: 60, h: 24 };
    const compared = (n: number) => compareVersions([page([words(n)])], [page([words(n)], { drawn: [pen] })]);
    expect([compared(8).changes.length, compared(8).wordsOnly]).toEqual([1, []]);
    expect([compared(7).changes.length, compared(7).wordsOnly]).toEqual([0, [1]]);
  });

  test('what is told first is what cannot be left aside, however much can', () => {
    const name = (n: number) => `stays${Array.from(String(n), (d) => 'abcdefghij'[Number(d)]).join('')}`;
    const many = Array.from({ length: 30 }, (_, p) =>
      Array.from({ length: 20 }, (__, i) => `${name(p * 100 + i)} is the corner of it`),
    );
    const was = many.map((l) => page(l));
    const read = (line: string, last: boolean) => (last ? `${line} not` : line.replace('corner', 'comer'));
    const now = many.map((l, p) =>
      page(
        l.map((x, i) => read(x, p === 29 && i === 19)),
        { scan: true },
      ),
    );
    const { changes, more, slight } = compareVersions(was, now);
    expect([changes.length, slight > 500, more > 0]).toEqual([500, true, true]);
    expect(mains(changes)).toEqual([['put_in', null, 'not']]);
  });

  test('what was moved is compared word by word, too: a figure in it is told', () => {
    const clause = 'The tenant keeps the boiler in good order and pays $1,200.50 a year for that.';
    const others = ['Clause one about the roof stands here.', 'Clause two about the well stands here as well.'];
    const scan = (lines: string[]) => [page(lines, { scan: true })];
    const { changes } = compareVersions(
      scan([clause, ...others]),
      scan([...others, clause.replace('$1,200.50', '$1.200,50')]),
    );
    expect(mains(changes)).toContainEqual(['replaced', '$1,200.50', '$1.200,50']);
  });

  test('words that run another way are compared as ink', () => {
    const turned = (rect: Rect | null) => {
      const p = page(OFFER);
      if (!rect) return p;
      p.words.push('\u00b7');
      p.print.push(rect);
      inkRect(p.ink, rect);
      return p;
    };
    const { changes } = compareVersions([turned(null)], [turned({ x: 560, y: 300, w: 12, h: 90 })]);
    expect(changes.map((c) => [c.drawn, c.kind])).toEqual([[true, 'put_in']]);
  });
});
