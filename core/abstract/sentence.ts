/** What the sentence of a value says of it besides what it is: that it takes the place of another, or is no longer so. */
import { OTHER_TERMS, TERM_WORDS } from './cues';
import { isEnd } from './near';
import { pieceAt, type Piece } from './pieces';

/** Words before a value that takes the place of another. */
const CHANGING = new Set(
  'extended now moves moved changes changed becomes new goes amended revised replaced increased reduced nuevo nueva prorroga prorrogado cambia modifica'.split(
    ' ',
  ),
);
/** Number of pieces before a value in which such a word is looked for. */
const CHANGE_REACH = 7;

/** Returns whether a value is said to take the place of another, in its own sentence. */
export function isChange(pieces: readonly Piece[], from: number): boolean {
  for (let i = from - 1; i >= from - CHANGE_REACH && i >= 0 && !isEnd(pieces, i); i--)
    if (CHANGING.has(pieceAt(pieces, i))) return true;
  return false;
}

/** Words before a value that was agreed before and is so no longer: "which was to take place on", "instead of". */
const FORMER = new Set('was were originally formerly previously original former instead anterior era'.split(' '));

/** Returns whether a value is said to be what was agreed before. */
export function isFormer(pieces: readonly Piece[], from: number): boolean {
  for (let i = from - 1; i >= from - CHANGE_REACH && i >= 0 && !isEnd(pieces, i); i--) {
    const text = pieceAt(pieces, i);
    if (CHANGING.has(text)) return false;
    if (FORMER.has(text)) return true;
  }
  return false;
}

/** Number of pieces of a sentence that are examined on each side of a day. */
const SENTENCE = 40;

/** Returns whether the sentence of a day is about the term of a lease or listing. */
export function isOfTerm(pieces: readonly Piece[], at: number): boolean {
  const { page } = pieces[at]!;
  const says = { term: false, other: false };
  const look = (i: number) => {
    const text = pieceAt(pieces, i);
    says.term ||= TERM_WORDS.has(text);
    says.other ||= OTHER_TERMS.has(text);
  };
  for (let i = at - 1; i > at - SENTENCE && pieces[i]?.page === page && !isEnd(pieces, i); i--) {
    look(i);
    if (pieces[i]!.before === 'part') break;
  }
  for (let i = at; i < at + SENTENCE && pieces[i]?.page === page && !isEnd(pieces, i); i++) {
    if (i > at && pieces[i]!.before === 'part') break;
    look(i);
  }
  return says.term && !says.other;
}
