/** Matching the printed words of two documents, wherever on their pages they stand. */
import { numberWords, onceInBoth } from '../paper/words-match';
import type { Rect } from '../paper/types';
import type { DocumentFacts } from '../packet/resolve';
import { plain } from '../reading/words';
import { itemAt } from '../sure';
import { cutEnd } from '../text/ends';

/** A printed word and its position. */
export interface Word {
  /** From 1. */
  page: number;
  rect: Rect;
  /** Letters and digits only, in lower case. */
  text: string;
  /** As it is printed, but for case, the shape of quotation marks, and punctuation at its ends. */
  printed: string;
}

/** Returns a word so that two prints of the same text agree: "4,100" and "41,00" do not. */
export const printedForm = (word: string): string =>
  cutEnd(
    word
      .normalize('NFKC')
      .toLowerCase()
      .replace(/[\u2018\u2019]/g, "'")
      .replace(/[\u2010-\u2015]/g, '-')
      .replace(/^["'\u201c\u201d([]+/, ''),
    /["'\u201c\u201d)\].,;:!?]/,
  );

/** Returns the printed words of a document in the order of its pages. */
export function wordsOf(doc: DocumentFacts): Word[] {
  return doc.pages.flatMap((p, i) =>
    p.print.flatMap((rect, n) => {
      const text = plain(p.words[n] ?? '').replace(/[^\p{L}\p{N}]+/gu, '');
      return text ? [{ page: i + 1, rect, text, printed: printedForm(p.words[n] ?? '') }] : [];
    }),
  );
}

/** How many words in a row must occur once on either paper to be matched; longer rows are tried first. */
const ROWS = [5, 4, 3, 2, 1];

/**
 * Returns for each word of one document the index of its word in the other, or -1: rows that occur once in both, and the
 * words beside them.
 */
export function matchWords(was: readonly Word[], now: readonly Word[]): Int32Array {
  const went = new Int32Array(was.length).fill(-1);
  const taken = new Uint8Array(now.length);
  const pair = (i: number, j: number) => {
    went[i] = j;
    taken[j] = 1;
  };
  const free = (i: number, j: number) =>
    i >= 0 &&
    j >= 0 &&
    i < was.length &&
    j < now.length &&
    went[i] === -1 &&
    !taken[j] &&
    was[i]?.text === now[j]?.text;
  const [x, y] = numberWords(
    was.map((w) => w.text),
    now.map((w) => w.text),
  );
  const whole = { a0: 0, a1: was.length, b0: 0, b1: now.length };
  for (const n of ROWS)
    for (const [i, j] of onceInBoth(x, y, whole, n)) {
      // One short word alone says nothing of where it is.
      if (!free(i, j) || (n === 1 && itemAt(was, i).text.length < 5)) continue;
      for (let k = 0; free(i + k, j + k); k++) pair(i + k, j + k);
      for (let k = 1; free(i - k, j - k); k++) pair(i - k, j - k);
    }
  return went;
}
