/** A change in words, for members. */
import { REDLINE } from '../inks';
import type { AsideKind, Change } from './types';

/** How a change is marked on the pages: by shape and one color each, since paper is white in every theme. */
export const MARK_INKS = { struck: REDLINE, put_in: '#4C6B3C', moved: '#5B6770' } as const;

/** Returns how a change is marked on one side's pages. */
export const markedAs = (c: Change, side: 'before' | 'after'): keyof typeof MARK_INKS =>
  c.kind === 'moved' ? 'moved' : side === 'before' ? 'struck' : 'put_in';

/** What a change that can be hidden is called. */
export const ASIDE_WORDS: Record<AsideKind, string> = {
  header: 'Header or footer',
  page_number: 'Page number',
  print_date: 'Day of printing',
  numbering: 'Numbering',
  reading: 'Read slightly differently',
};

const KIND_WORDS: Record<Change['kind'], string> = {
  struck: 'struck',
  put_in: 'put in',
  replaced: 'changed',
  moved: 'moved',
};

/** Returns the kind of a change: "inserted", "something drawn, struck". */
export const kindInWords = (c: Change): string =>
  c.drawn ? `something drawn, ${KIND_WORDS[c.kind]}` : KIND_WORDS[c.kind];

/** Returns where a change is: "page 3", "page 2 before", "from page 2 to page 5". */
export function pageOf(c: Change): string {
  const [old, now] = [c.before?.boxes[0]?.page, c.after?.boxes[0]?.page];
  if (c.kind === 'moved' && old !== now) return `from page ${old} to page ${now}`;
  return now ? `page ${now}` : `page ${old} before`;
}
