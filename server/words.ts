/** The languages this server speaks: every file of words that ships with it. */
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import Negotiator from 'negotiator';
import { ENGLISH, WORD_KEYS, type Words } from '@gatepath/core/words';
import { itemAt } from '@gatepath/core/sure';

const require = createRequire(import.meta.url);
const dir = path.dirname(require.resolve('@gatepath/core/words/en.json'));

const known = new Map<string, Words>();
for (const file of readdirSync(dir)) {
  const language = /^([a-z]{2,3}(?:-[A-Za-z]+)?)\.json$/.exec(file)?.[1];
  if (!language) continue;
  const messages: Words['messages'] = JSON.parse(readFileSync(path.join(dir, file), 'utf8'));
  const missing = WORD_KEYS.filter((k) => !messages[k]);
  // The server does not start with an incomplete language, because a client would meet the gap while signing.
  if (missing.length) throw new Error(`${file} lacks ${missing.slice(0, 5).join(', ')}`);
  known.set(language, { language, messages });
}

/** Languages by tag with their own names, English first. */
export const LANGUAGES: { tag: string; name: string }[] = [...known]
  .map(([tag, w]) => ({ tag, name: w.messages['language.name'] }))
  .sort((a, b) => (a.tag === 'en' ? -1 : b.tag === 'en' ? 1 : a.name.localeCompare(b.name)));

/** Returns the words of a language; English for an unknown one. */
export function wordsOf(language: string | null | undefined): Words {
  return known.get(language ?? 'en') ?? ENGLISH;
}

/**
 * Returns the words of the language that an Accept-Language header prefers among those the server knows, otherwise
 * English.
 */
export function wordsFor(acceptLanguage: string | undefined): Words {
  // A browser sends a few; a longer header is not from a browser.
  const header = { 'accept-language': (acceptLanguage ?? '').slice(0, 300) };
  for (const tag of new Negotiator({ headers: header }).languages()) {
    const found = known.get(tag) ?? known.get(tag.toLowerCase()) ?? known.get(itemAt(tag.split('-'), 0).toLowerCase());
    if (found) return found;
  }
  return ENGLISH;
}
