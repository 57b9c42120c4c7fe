/** What holds of every kind, whichever are added. */
import fc from 'fast-check';
import '../../patterns';
import { party } from '../../test/support';
import { ENGLISH } from '../../words';
import { MARK_KINDS } from '../types';
import { validateValue, filledHow, handOf, isAutomatic, isFixed, isForClient, isOwn, kinOf, KINDS } from './index';

test.each(MARK_KINDS)('%s can be put on a page, told of, and is filled by somebody', (kind) => {
  const { word, several, size, least, begins } = KINDS[kind];
  expect(word).toBe(word.trim().toLowerCase());
  expect([several(1), several(2)]).toEqual([expect.stringMatching(/^1 /), expect.stringMatching(/^2 /)]);
  expect(size.w >= least.w && size.h >= least.h).toBe(true);
  expect(ENGLISH.messages[`kind.${kind}`]).toBeTruthy();
  if (filledHow(kind).by === 'sender') expect(begins?.value).toBeTruthy();
  // Nobody fills it twice: a client, the product, or the sender.
  const by = [isForClient({ kind }), isAutomatic(kind), isFixed({ kind })];
  expect(by.filter(Boolean)).toHaveLength(1);
});

test('what stands in it already is nobody’s to fill', () => {
  for (const kind of MARK_KINDS) expect([kind, isForClient({ kind, readOnly: true })]).toEqual([kind, false]);
});

test('kin are made of each other both ways, and what is one’s own is not made into what is asked', () => {
  for (const kind of MARK_KINDS)
    for (const other of kinOf(kind)) {
      expect(kinOf(other)).toContain(kind);
      expect([kind, other, isOwn(other)]).toEqual([kind, other, isOwn(kind)]);
    }
});

test('only initials take the short form of a hand', () => {
  expect(MARK_KINDS.filter((k) => handOf(k) === 'initials')).toEqual(['initials']);
});

test('what fills itself knows what it will be, as far as a draft tells', () => {
  const wren = party('wren', { company: 'Alder Family Trust' });
  const known = MARK_KINDS.flatMap((kind) => {
    const how = filledHow(kind);
    if (how.by !== 'itself') return [];
    const text = how.text({ party: wren, dateText: 'Nov 23, 2026' });
    // What a draft promises is what will stand there.
    if (how.known(wren) !== null) expect(how.known(wren)).toBe(text);
    return [[kind, text]];
  });
  expect(Object.fromEntries(known)).toEqual({
    date_signed: 'Nov 23, 2026',
    printed_name: 'Wren Alder',
    company: 'Alder Family Trust',
  });
});

test('whatever is written is taken in a form that is taken again as it is, or refused in words', () => {
  const written = MARK_KINDS.filter((k) => filledHow(k).by === 'writing');
  fc.assert(
    fc.property(
      fc.constantFrom(...written),
      fc.oneof(fc.string({ maxLength: 60 }), fc.double().map(String), fc.constantFrom('Gas', '11/23/2026', '$1,250')),
      (kind, text) => {
        const mark = { kind, options: ['Gas', 'Wood'] };
        const first = validateValue(mark, text);
        if (!first.ok) return expect(first.sentence).toMatch(/\.$/);
        expect(validateValue(mark, first.value)).toEqual({ ok: true, value: first.value });
      },
    ),
    {
      numRuns: 500,
      examples: [
        ['number', '1000000000.0000001'],
        ['number', '-0.0000001'],
        ['number', '9'.repeat(400)],
        ['money', '1' + '0'.repeat(21)],
      ],
    },
  );
});
