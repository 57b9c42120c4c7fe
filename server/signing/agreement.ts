/** What a client agrees to before the first mark. The text is in the language files. */
import { say, type Words } from '@gatepath/core/words';

/** Raise when the meaning of the text changes. It goes into the record together with the language. */
const VERSION = 2;

/** Returns the agreement's version and paragraphs in a language. */
export function agreementOf(words: Words): { version: string; paragraphs: string[] } {
  const keys = ['agreement.1', 'agreement.2', 'agreement.3', 'agreement.4'] as const;
  return { version: `${VERSION} (${words.language})`, paragraphs: keys.map((k) => say(words, k)) };
}
