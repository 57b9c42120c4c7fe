/**
 * What people read, in their language. A language is one file of ICU messages
 * (https://unicode-org.github.io/icu/userguide/format_parse/messages/): `en.json` names every
 * key, the others say the same. The server finds the files; nothing else lists them.
 */
import { IntlMessageFormat } from 'intl-messageformat';
import type { Side } from '../text/sides';
import en from './en.json';
import { keysOf } from '../sure';

/** Name of one sentence. */
export type WordKey = keyof typeof en;

/** The sentences of one language; `language` is its tag (BCP 47), as the file is named. */
export interface Words {
  language: string;
  messages: Record<WordKey, string>;
}

/** Values for a sentence's placeholders. */
export type WordParams = Record<string, string | number | boolean | null | undefined>;

/** English: what the firm's own screens speak, and what every other language is measured by. */
export const ENGLISH: Words = { language: 'en', messages: en };

/** Keys of all sentences. */
export const WORD_KEYS = keysOf(en);

const formats = new WeakMap<Words, Map<string, IntlMessageFormat>>();

/**
 * One sentence with its parts put in.
 *
 * @throws when the language has no such sentence, or a part of it was not given: a hole in a
 *   message is a fault, never shown to a client
 */
export function say(words: Words, key: WordKey, params: WordParams = {}): string {
  let known = formats.get(words);
  if (!known) formats.set(words, (known = new Map()));
  let format = known.get(key);
  if (!format) {
    const message = words.messages[key];
    if (!message) throw new Error(`no words for "${key}" in "${words.language}"`);
    format = new IntlMessageFormat(message, localeOf(words), undefined, { ignoreTag: true });
    known.set(key, format);
  }
  return String(format.format(params));
}

/** Which party of the deal somebody is: "Seller 2". */
export function sideIn(words: Words, p: { side: Side; ordinal: number }): string {
  return say(words, `side.${p.side}`, { n: p.ordinal });
}

/** A list of names as the language joins them: "Wren, Callum and Priya". */
export function listIn(words: Words, items: string[]): string {
  const joined = new Intl.ListFormat(localeOf(words), { style: 'long', type: 'conjunction' }).format(items);
  // English as it is written everywhere else here: without a comma before "and".
  return words.language === 'en' ? joined.replace(/, and /, ' and ') : joined;
}

/** A day of the calendar (ISO 8601, no time): the same everywhere. */
export function calendarDay(words: Words, day: string, withYear = false): string {
  return dayIn(words, `${day}T12:00:00Z`, 'utc', withYear);
}

/** A day, long enough to be read once: "Friday, November 27". */
export function dayIn(words: Words, iso: string, timeZone: string, withYear = false): string {
  return new Intl.DateTimeFormat(localeOf(words), {
    weekday: 'long',
    month: 'long',
    day: 'numeric',
    ...(withYear ? { year: 'numeric' as const } : {}),
    timeZone,
  }).format(new Date(iso));
}

/** Day and time to the second with the zone's offset, as records want them. */
export function timeIn(words: Words, iso: string, timeZone: string): string {
  return new Intl.DateTimeFormat(localeOf(words), {
    year: 'numeric',
    month: 'short',
    day: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
    timeZoneName: 'longOffset',
    timeZone,
  })
    .format(new Date(iso))
    .replace(/GMT/, 'UTC');
}

/** The locale a language's numbers, lists and dates are written in; English as in the United States. */
export function localeOf(words: Words): string {
  return words.language === 'en' ? 'en-US' : words.language;
}
