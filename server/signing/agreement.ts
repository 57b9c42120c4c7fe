/** What a client agrees to before the first mark; the words are with the languages. */
import { say, type Words } from '@gatepath/core/words';

/** Rises when the meaning of the text changes; together with the language it goes into the record. */
const VERSION = 2;

export function agreementOf(words: Words): { version: string; paragraphs: string[] } {
  const keys = ['agreement.1', 'agreement.2', 'agreement.3', 'agreement.4'] as const;
  return { version: `${VERSION} (${words.language})`, paragraphs: keys.map((k) => say(words, k)) };
}
