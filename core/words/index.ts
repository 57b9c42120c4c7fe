/**
 * Texts in the reader's language. A language is one file of ICU messages
 * (https://unicode-org.github.io/icu/userguide/format_parse/messages/): `en.json` has every key, the others have the
 * same. The server finds the files; nothing else lists them.
 */
import { IntlMessageFormat } from 'intl-messageformat';
import type { Side } from '../text/sides';
import en from './en.json';
import { keysOf } from '../sure';

/** Key of a text. */
export type WordKey = keyof typeof en;

/** The texts of one language; `language` is its tag (BCP 47) and the name of its file. */
export interface Words {
  language: string;
  messages: Record<WordKey, string>;
}

/** Values for the placeholders of a text. */
export type WordParams = Record<string, string | number | boolean | null | undefined>;

/** English: the language of the firm's screens, and the reference for every other language. */
export const ENGLISH: Words = { language: 'en', messages: en };

/** The keys of all texts. */
export const WORD_KEYS = keysOf(en);

const formats = new WeakMap<Words, Map<string, IntlMessageFormat>>();

/**
 * Returns a text with its values filled in.
 *
 * @throws Error if the language lacks the text or a value is missing: a gap in a message is a bug, and clients never
 * see one
 * @example say(ENGLISH, 'side.seller', { n: 2 }) // 'Seller 2'
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

/** Returns a party's side in a language: "Seller 2". */
export function sideIn(words: Words, p: { side: Side; ordinal: number }): string {
  return say(words, `side.${p.side}`, { n: p.ordinal });
}

/** Returns a list of names as the language joins them: "Wren, Callum and Priya". */
export function listIn(words: Words, items: string[]): string {
  const joined = new Intl.ListFormat(localeOf(words), { style: 'long', type: 'conjunction' }).format(items);
  // English as it is written everywhere else here: without a comma before "and".
  return words.language === 'en' ? joined.replace(/, and /, ' and ') : joined;
}

/** Returns a day of the calendar (ISO 8601 without a time) in words; it is the same in every time zone. */
export function calendarDay(words: Words, day: string, withYear = false): string {
  return dayIn(words, `${day}T12:00:00Z`, 'utc', withYear);
}

/** Returns a day in words: "Friday, November 27". */
export function dayIn(words: Words, iso: string, timeZone: string, withYear = false): string {
  return new Intl.DateTimeFormat(localeOf(words), {
    weekday: 'long',
    month: 'long',
    day: 'numeric',
    ...(withYear ? { year: 'numeric' as const } : {}),
    timeZone,
  }).format(new Date(iso));
}

/** Returns day and time to the second with the zone's offset, for records. */
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

/** Returns the locale for numbers, lists and dates of a language; for English that of the United States. */
export function localeOf(words: Words): string {
  return words.language === 'en' ? 'en-US' : words.language;
}
