/** What is known of a kind of mark. Whatever asks about a kind asks its entry. */
import { count } from '../../text/names';
import type { ValueResult, Wanted } from '../values';
import type { Mark, PacketParty } from '../types';

/** Width and height in points. */
export interface Size {
  w: number;
  h: number;
}

/** What is at hand when a party finishes, for what fills itself then. */
export interface AtFinish {
  party: PacketParty;
  /** The day of signing in the deal's time zone, in words. */
  dateText: string;
}

/** How a mark comes to be filled, and by whom. */
export type Filled =
  /** With the party's hand: its signature or its initials. */
  | { by: 'hand'; as: 'signature' | 'initials' }
  /** By itself as the party finishes. `known` is what will stand there as far as the draft tells; null when only time will. */
  | { by: 'itself'; text: (at: AtFinish) => string; known: (party: PacketParty) => string | null }
  /** With what the client writes or chooses of a list. */
  | { by: 'writing'; check: (wanted: Wanted) => ValueResult; keyboard: Keyboard; asks: Asks }
  /** With a touch; `together`: those of a group exclude each other, and one alone is none. */
  | { by: 'touch'; together: boolean }
  /** With a file the client adds. */
  | { by: 'file' }
  /** By the sender, with words for everybody to read. */
  | { by: 'sender' };

/** The keyboard a phone shows. */
export type Keyboard = 'text' | 'email' | 'numeric' | 'decimal';
/** What a preparer can ask of what is written: a form and a length, least and most, first and last day, one of a list. */
export type Asks = 'form' | 'range' | 'days' | 'list' | 'nothing';

/** Everything the product knows about a kind of mark. */
export interface Kind {
  /** Plain words for it on the screens of members; clients read `kind.…` of their language. */
  word: string;
  /** So many of them in the record: "2 sets of initials". */
  several: (n: number) => string;
  /** The size it has when it is first put on a page, in points. */
  size: Size;
  /** The smallest it can be and still be read and touched, in points. */
  least: Size;
  filled: Filled;
  /** Whether a new one has to be filled. */
  required: boolean;
  /** What a new one has from the start. */
  begins?: Pick<Mark, 'value' | 'options'>;
  /** Whether it belongs to a signature and should stand on its page. */
  withSignature?: true;
  /** Whether a printed place may be taken for it. */
  printed: boolean;
  /** Kinds of one kin are made of each other without losing what the mark is about. */
  kin: 'own' | 'written' | null;
}

/** The least size of what holds words, and of what is ticked. */
export const LEAST: Size = { w: 18, h: 9 };
const LEAST_TO_TICK: Size = { w: 7, h: 7 };

/** A kind that a client writes: one line high, and asked for like any other words. */
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

/** A kind that is ticked. */
export const ticked = (word: string, together: boolean, more: Pick<Kind, 'required' | 'printed'>): Kind => ({
  word,
  several: (n) => count(n, 'tick'),
  size: { w: 14, h: 14 },
  least: LEAST_TO_TICK,
  filled: { by: 'touch', together },
  kin: null,
  ...more,
});

/** A kind that fills itself as its party finishes, and goes with the signature. */
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

/** A kind that takes the party's hand. */
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
