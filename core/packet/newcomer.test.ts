/** Places found while a packet is on its way: free of print, of marks and of each other. */
import fc from 'fast-check';
import { facts, mark, page, party } from '../test/support';
import { findWords, pickWords, roomForWords } from './correction';
import { FreeSpace } from '../paper/space';
import { marksForNewcomer } from './newcomer';
import { overlapArea } from '../paper/geometry';
import { type PageFacts, type Rect } from '../paper/types';

const anyPage = fc
  .array(
    fc.record({
      x: fc.integer({ min: 40, max: 480 }),
      y: fc.integer({ min: 40, max: 740 }),
      w: fc.integer({ min: 10, max: 90 }),
      h: fc.integer({ min: 8, max: 14 }),
    }),
    { maxLength: 60 },
  )
  .map((print) => page(print));

test('whoever is added signs near the last signature, and initials every page, clear of everything', () => {
  fc.assert(
    fc.property(fc.array(anyPage, { minLength: 1, maxLength: 4 }), fc.boolean(), (pages, initials) => {
      const doc = facts(pages);
      const there = [mark('s1', 'wren', 'signature', 1, { x: 100, y: 600, w: 160, h: 28 })];
      let n = 0;
      const made = marksForNewcomer(party('ewa'), [doc], there, [], initials, () => `m${n++}`);
      const all = [...there, ...made.marks];
      for (const m of made.marks) {
        expect(m.partyId).toBe('ewa');
        expect(new FreeSpace(pages[m.page - 1]!).isFree(m.rect)).toBe(true);
        for (const o of all) if (o !== m && o.page === m.page) expect(overlapArea(o.rect, m.rect)).toBe(0);
      }
      const kinds = made.marks.map((m) => m.kind);
      if (!made.without.length) expect(kinds.filter((k) => k === 'signature')).toHaveLength(1);
      if (initials && !made.without.length) expect(kinds.filter((k) => k === 'initials').length).toBeGreaterThan(0);
    }),
    { numRuns: 150 },
  );
});

test('a document without room is named instead of being overprinted', () => {
  const full = page([{ x: 0, y: 0, w: 612, h: 792 }]);
  const made = marksForNewcomer(party('ewa'), [facts([full])], [], [], true, () => 'm');
  expect(made).toEqual({ marks: [], without: ['Disclosure'] });
});

/** Returns a page with one line of words. */
function line(words: string[]): PageFacts {
  const print: Rect[] = words.map((w, i) => ({ x: 60 + i * 60, y: 100 + (i > 6 ? 16 : 0), w: w.length * 6, h: 11 }));
  return { ...page(print), words };
}

test('words are found as they are printed, whatever their case and punctuation', () => {
  const p = line(['The', 'shed,', 'and', 'the', 'roof.', 'The', 'shed']);
  expect(findWords(p, 'THE SHED').map((f) => f.text)).toEqual(['The shed,', 'The shed']);
  expect(findWords(p, 'the roof')[0]!.rects).toHaveLength(1);
  expect(findWords(p, 'the barn')).toEqual([]);
  expect(findWords(p, ' . ')).toEqual([]);
});

test('a first touch picks a word, a second all up to another, a third begins anew', () => {
  const p = line(['The', 'shed,', 'and', 'the', 'roof.', 'The', 'shed']);
  const on = (i: number) => ({ x: p.print[i]!.x + 2, y: p.print[i]!.y + 3 });
  const first = pickWords(p, null, on(4));
  expect([first?.text, first?.both]).toEqual(['roof.', false]);
  // Backwards is as good as forwards.
  const both = pickWords(p, first, on(1));
  expect([both?.text, both?.both, both?.rects.length]).toEqual(['shed, and the roof.', true, 1]);
  expect(pickWords(p, both, on(0))?.text).toBe('The');
  // The same word twice is that word.
  expect(pickWords(p, first, { ...on(4) })).toMatchObject({ text: 'roof.', both: true });
  expect(pickWords(p, null, { x: 300, y: 700 })).toBeNull();
});

test('words put in find room near the place that was wished for, and none on a full page', () => {
  fc.assert(
    fc.property(anyPage, fc.string({ minLength: 1, maxLength: 200 }), (p, text) => {
      const rect = roomForWords(p, text || 'x', { x: 100, y: 300 }, [{ x: 80, y: 290, w: 200, h: 30 }]);
      if (!rect) return;
      expect(new FreeSpace(p).isFree(rect)).toBe(true);
      expect(overlapArea(rect, { x: 80, y: 290, w: 200, h: 30 })).toBe(0);
    }),
    { numRuns: 150 },
  );
  expect(roomForWords(page([{ x: 0, y: 0, w: 612, h: 792 }]), 'words', { x: 1, y: 1 }, [])).toBeNull();
});
