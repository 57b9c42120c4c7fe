/** A change in words, for the office. */
import type { AsideKind, Change } from './types';

export const ASIDE_WORDS: Record<AsideKind, string> = {
  header: 'Header or footer',
  page_number: 'Page number',
  print_date: 'Day of printing',
  numbering: 'Numbering',
};

const KIND_WORDS: Record<Change['kind'], string> = {
  struck: 'struck',
  put_in: 'put in',
  replaced: 'changed',
  moved: 'moved',
};

/** "put in", "something drawn, struck". */
export const kindInWords = (c: Change): string =>
  c.drawn ? `something drawn, ${KIND_WORDS[c.kind]}` : KIND_WORDS[c.kind];

/** "page 3", "page 2 before", "from page 2 to page 5": where a reader finds it. */
export function pageOf(c: Change): string {
  const [old, now] = [c.before?.boxes[0]?.page, c.after?.boxes[0]?.page];
  if (c.kind === 'moved' && old !== now) return `from page ${old} to page ${now}`;
  return now ? `page ${now}` : `page ${old} before`;
}
