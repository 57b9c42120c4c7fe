/** Every language says everything that English says, with the same parts, and none has a hole. */
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { dayIn, ENGLISH, listIn, say, timeIn, WORD_KEYS, type WordKey, type Words } from './index';

const dir = __dirname;
const LANGUAGES: Words[] = readdirSync(dir)
  .filter((f) => f.endsWith('.json'))
  .map((f) => ({
    language: f.replace('.json', ''),
    messages: JSON.parse(readFileSync(path.join(dir, f), 'utf8')) as Words['messages'],
  }));

/**
 * Returns the named parts of a message, including those inside plurals and choices. A number that only selects a form
 * and is not shown counts only with `choosing`, because not every language has plurals.
 */
function parts(elements: MessageFormatElement[], choosing = true): Set<string> {
  const out = new Set<string>();
  for (const e of elements) {
    if (e.type === TYPE.literal || e.type === TYPE.pound) continue;
    const silent =
      e.type === TYPE.plural && !Object.values(e.options).some((o) => o.value.some((v) => v.type === TYPE.pound));
    if (choosing || !silent) out.add(e.value);
    if (e.type === TYPE.select || e.type === TYPE.plural)
      for (const o of Object.values(e.options)) for (const p of parts(o.value, choosing)) out.add(p);
  }
  return out;
}
const partsOf = (words: Words, key: WordKey, choosing?: boolean) =>
  parts(parse(words.messages[key], { ignoreTag: true }), choosing);

test('English, Spanish and Vietnamese are there', () =>
  expect(LANGUAGES.map((w) => w.language)).toEqual(expect.arrayContaining(['en', 'es', 'vi'])));

test.each(LANGUAGES)('$language has every sentence, with every part, and nothing else', (words) => {
  expect(Object.keys(words.messages).sort()).toEqual([...WORD_KEYS].sort());
  for (const key of WORD_KEYS) {
    const needed = partsOf(ENGLISH, key);
    const used = partsOf(words, key);
    // A part too many could never be filled; one too few would keep something from the reader.
    expect([key, [...used].filter((p) => !needed.has(p))]).toEqual([key, []]);
    expect([key, [...partsOf(ENGLISH, key, false)].filter((p) => !used.has(p))]).toEqual([key, []]);
    for (const n of [0, 1, 2, 5, 21]) {
      const sentence = say(
        words,
        key,
        Object.fromEntries([...needed].map((p) => [p, p === 'kind' || p === 'act' ? 'x' : n])),
      );
      expect(sentence.trim()).not.toBe('');
      expect(sentence).not.toMatch(/[{}]|undefined|null/);
    }
  }
});

test.each(LANGUAGES.filter((w) => w.language !== 'en'))('$language is a translation, not a copy', (words) => {
  const same = WORD_KEYS.filter(
    (k) => words.messages[k] === ENGLISH.messages[k] && /\p{L}{4}/u.test(words.messages[k]),
  );
  // What is only parts and punctuation is the same everywhere.
  expect(same.filter((k) => !/^[“”{}\w\s.,·]*$/.test(words.messages[k]) || /\s\w{4}/.test(words.messages[k]))).toEqual(
    [],
  );
});

test('a part that was not given is a fault, never a hole in a message', () => {
  expect(() => say(ENGLISH, 'mail.hello')).toThrow();
  expect(() => say({ language: 'xx', messages: {} as Words['messages'] }, 'mail.hello', { toName: 'W' })).toThrow(
    'no words for "mail.hello" in "xx"',
  );
});

test('lists, days and times are written as the language writes them', () => {
  const [es, vi] = ['es', 'vi'].map((l) => LANGUAGES.find((w) => w.language === l)!);
  expect(listIn(ENGLISH, ['Wren', 'Callum', 'Priya'])).toBe('Wren, Callum and Priya');
  expect(listIn(es!, ['Wren', 'Callum'])).toBe('Wren y Callum');
  const at = '2026-11-24T03:30:00Z';
  expect(dayIn(ENGLISH, at, 'America/New_York')).toBe('Monday, November 23');
  expect(dayIn(es!, at, 'America/New_York')).toBe('lunes, 23 de noviembre');
  expect(dayIn(vi!, at, 'America/New_York')).toContain('23');
  expect(timeIn(ENGLISH, at, 'America/New_York')).toBe('Nov 23, 2026, 22:30:00 UTC-05:00');
});
