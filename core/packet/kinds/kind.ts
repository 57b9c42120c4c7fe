/** What is known of a kind of mark. Whatever depends on a kind asks its entry. */
import { count } from '../../text/names';
import type { ValueResult, Wanted } from '../values';
import type { Mark, PacketParty } from '../types';

/** Width and height in points. */
export interface Size {
  w: number;
  h: number;
}

/** What is known when a party finishes, for marks that fill themselves. */
export interface AtFinish {
  party: PacketParty;
  /** The day of signing in the deal's time zone, in words. */
  dateText: string;
}

/** How a mark is filled, and by whom. */
export type Filled =
  /** With the party's hand: its signature or its initials. */
  | { by: 'hand'; as: 'signature' | 'initials' }
  /** By itself when the party finishes. `known` is its value as far as the draft determines it; null otherwise. */
  | { by: 'itself'; text: (at: AtFinish) => string; known: (party: PacketParty) => string | null }
  /** With what the client writes, or chooses from a list. */
  | { by: 'writing'; check: (wanted: Wanted) => ValueResult; keyboard: Keyboard; asks: Asks }
  /** By touch; `together`: marks of a group exclude each other, and one alone is invalid. */
  | { by: 'touch'; together: boolean }
  /** With a file the client adds. */
  | { by: 'file' }
  /** By the sender, with words for everyone to read. */
  | { by: 'sender' };

/** The keyboard a phone shows. */
export type Keyboard = 'text' | 'email' | 'numeric' | 'decimal';
/** What a sender can require of a value: form and length, minimum and maximum, first and last day, one of a list. */
export type Asks = 'form' | 'range' | 'days' | 'list' | 'nothing';

/** Everything the product knows about a kind of mark. */
export interface Kind {
  /** Its name on members' screens; clients read `kind.…` in their language. */
  word: string;
  /** A number of them in the record: "2 sets of initials". */
  several: (n: number) => string;
  /** Its size when first placed, in points. */
  size: Size;
  /** Its minimum size to be read and touched, in points. */
  least: Size;
  filled: Filled;
  /** Whether a new one has to be filled. */
  required: boolean;
  /** What a new mark starts with. */
  begins?: Pick<Mark, 'value' | 'options'>;
  /** Whether it belongs to a signature and should stand on its page. */
  withSignature?: true;
  /** Whether a printed place may be taken for it. */
  printed: boolean;
  /** Marks of kinds of one kin can become each other without losing their meaning. */
  kin: 'own' | 'written' | null;
}

/** Minimum size of marks with words, and of ticks. */
export const LEAST: Size = { w: 18, h: 9 };
const LEAST_TO_TICK: Size = { w: 7, h: 7 };

/** Returns a kind that a client writes: one line high, with a caption like any text. */
export const written = (
  word: string,
  width: number,
  how: Omit<Extract<Filled, { by: 'writing' }>, 'by'>,
  more: Partial<Kind> = {},
): Kind => ({
  word,
  several: (n) => count(n, 'text'),
  size: { w: width, h: 18 },
  least: LEAST,
  filled: { by: 'writing', ...how },
  required: true,
  printed: true,
  kin: 'written',
  ...more,
});

/** Returns a kind that is ticked. */
export const ticked = (word: string, together: boolean, more: Pick<Kind, 'required' | 'printed'>): Kind => ({
  word,
  several: (n) => count(n, 'tick'),
  size: { w: 14, h: 14 },
  least: LEAST_TO_TICK,
  filled: { by: 'touch', together },
  kin: null,
  ...more,
});

/** Returns a kind that fills itself when its party finishes, together with the signature. */
export const byItself = (
  word: string,
  width: number,
  several: Kind['several'],
  how: Omit<Extract<Filled, { by: 'itself' }>, 'by'>,
): Kind => ({
  word,
  several,
  size: { w: width, h: 18 },
  least: LEAST,
  filled: { by: 'itself', ...how },
  required: true,
  withSignature: true,
  printed: true,
  kin: 'own',
});

/** Returns a kind that takes the party's hand. */
export const byHand = (as: 'signature' | 'initials', size: Size, several: Kind['several']): Kind => ({
  word: as,
  several,
  size,
  least: LEAST,
  filled: { by: 'hand', as },
  required: true,
  printed: true,
  kin: 'own',
});
