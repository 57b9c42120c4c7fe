/** Papers set of a form's text: the same bytes twice, blocks that stay together, places clear of print. */
import fc from 'fast-check';
import { newSlot } from '@gatepath/core/shelf';
import { ENGLISH } from '@gatepath/core/words';
import { composed, sampleFor, tagDefs, writtenFrom } from '@gatepath/core/writing';
import { fieldsFree, textOf } from '../test/judges';
import { setWritten } from './written';

jest.setTimeout(240_000);

const TAGS = new Map(tagDefs().map((t) => [t.key, t]));
const SLOTS = Array.from({ length: 6 }, (_, i) => newSlot('one', 'tenant', i + 1, `T${i}`, i));
const t = (text: string) => ({ type: 'text', text });
const p = (...content: object[]) => ({ type: 'paragraph', content });
const LINE = 'What stands here is agreed between the two sides, and is read by both before anybody signs. ';

/** Paragraphs of some lines, a heading and a signature block for so many people. */
const paperOf = (lines: readonly number[], signers: number) =>
  composed(
    writtenFrom({
      doc: {
        type: 'doc',
        content: [
          { type: 'heading', attrs: { level: 1 }, content: [t('House rules')] },
          ...lines.map((n) => p(t(LINE.repeat(n)))),
          { type: 'heading', attrs: { level: 2 }, content: [t('Signed by all')] },
          { type: 'signatures', attrs: { slots: SLOTS.slice(0, signers).map((s) => s.id), date: true } },
          p(t('The end.')),
        ],
      },
    }),
    sampleFor(SLOTS, TAGS, ENGLISH),
  );

test('the same text is the same file, byte for byte', async () => {
  const made = paperOf([3, 9, 4], 3);
  const [a, b] = [await setWritten({ title: 'Rules', ...made }), await setWritten({ title: 'Rules', ...made })];
  expect(Buffer.compare(a.bytes, b.bytes)).toBe(0);
  const words = textOf(a.bytes);
  expect(words).toMatch(/^\s*House rules/);
  expect(words.indexOf('Signed by all')).toBeLessThan(words.indexOf('‹Tenant 1›'));
});

test('papers set one after another, with fonts shared between them, hold nothing of each other', async () => {
  const [first, other] = [paperOf([3, 9, 4], 3), paperOf([1], 6)];
  const a = await setWritten({ title: 'Rules', ...first });
  const between = await setWritten({ title: 'Other rules', ...other });
  // Two at once use the same fonts too.
  const again = await Promise.all([first, other, first].map((made) => setWritten({ title: 'Rules', ...made })));
  for (const i of [0, 2]) expect(Buffer.compare(a.bytes, again[i]!.bytes)).toBe(0);
  expect(textOf(between.bytes)).toBe(textOf(again[1]!.bytes));
  expect(textOf(between.bytes)).toContain('‹Tenant 6›');
});

test('whatever the length of the text, a signature block and its heading stay on one page, and nothing is lost', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.integer({ min: 1, max: 14 }), { minLength: 0, maxLength: 16 }),
      fc.integer({ min: 1, max: 6 }),
      async (lines, signers) => {
        const made = paperOf(lines, signers);
        const set = await setWritten({ title: 'Rules', ...made });
        expect(set.rects).toHaveLength(signers * 2);
        expect(new Set(set.rects.map((r) => r.page)).size).toBe(1);
        const page = set.rects[0]!.page;
        const words = textOf(set.bytes).split('\f');
        expect(words[page - 1]).toContain('Signed by all');
        for (const { rect } of set.rects) {
          expect(rect.x).toBeGreaterThanOrEqual(60);
          expect(rect.x + rect.w).toBeLessThanOrEqual(552);
          expect(rect.y).toBeGreaterThan(0);
          // Room for initials stays free at the foot.
          expect(rect.y + rect.h).toBeLessThanOrEqual(792 - 90);
        }
        expect(words.join(' ').match(/between the two sides/g)?.length ?? 0).toBe(lines.reduce((a, b) => a + b, 0));
      },
    ),
    { numRuns: 25 },
  );
});

test('places in lines, lists and cells lie where their blanks are, and over no print', async () => {
  const place = (kind: string, slot: string) => ({ type: 'place', attrs: { kind, slot } });
  const made = composed(
    writtenFrom({
      doc: {
        type: 'doc',
        content: [
          p(
            place('initials', 'T0'),
            t(' at the beginning, '),
            place('money', 'T1'),
            t(' in the middle '),
            place('tick', 'T2'),
          ),
          {
            type: 'orderedList',
            content: [{ type: 'listItem', content: [p(t('In a list '), place('date', 'T0'), t(' it stands.'))] }],
          },
          {
            type: 'table',
            content: [
              {
                type: 'tableRow',
                content: [{ type: 'tableHeader', attrs: { colspan: 2 }, content: [p(t('Both'))] }],
              },
              {
                type: 'tableRow',
                content: [
                  { type: 'tableCell', content: [p(t('Number of keys'))] },
                  { type: 'tableCell', content: [p(place('number', 'T1'))] },
                ],
              },
            ],
          },
        ],
      },
    }),
    sampleFor(SLOTS, TAGS, ENGLISH),
  );
  const set = await setWritten({ title: 'Rules', ...made });
  expect(set.rects.map((r) => made.places[r.place]!.kind)).toEqual(['initials', 'money', 'tick', 'date', 'number']);
  expect(set.rects.every((r) => fieldsFree(set.bytes, r))).toBe(true);
  // And a place over print is one.
  expect(fieldsFree(set.bytes, { page: 1, rect: { ...set.rects[0]!.rect, w: 300 } })).toBe(false);
  expect(set.rects[0]!.rect.x).toBeCloseTo(64, 0);
});

test('letters that no face has are named', async () => {
  const made = composed(
    writtenFrom({ doc: { type: 'doc', content: [p(t('Fine ñ ế, not 中 nor \u{1F3E0}'))] } }),
    sampleFor([], TAGS, ENGLISH),
  );
  expect((await setWritten({ title: 'x', ...made })).unprintable).toEqual(['中', '\u{1F3E0}']);
});
