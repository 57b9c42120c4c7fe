/**
 * The acts of parties, and everything that is known of each. To add one: its name in `ACTS`, its entry here, and what
 * the compiler then asks for.
 */
import type { Act, PacketParty } from './types';

interface ActFacts {
  /** As members read it: "signs". */
  does: string;
  /** Whether its gate stays closed until it is done. */
  holdsGate: boolean;
  /** Whether marks are put down for it, which it fills. */
  puts: boolean;
  /** Whether it must have a place for its hand. */
  signs: boolean;
  /** Whether it comes through a link of its own and is written to; the others are let in by a host. */
  byLink: boolean;
  /** The message that asks for it. */
  letter: 'ask' | 'ask_approve' | 'deliver' | 'copy';
  /** Whether it may come as a letter on paper to who has neither an address nor a phone. */
  byPost?: true;
  /** What the seal says the party did. */
  did: string;
}

/** What each act means; adding an act is one entry here. */
export const ACT_FACTS: Record<Act, ActFacts> = {
  sign: { does: 'signs', holdsGate: true, puts: true, signs: true, byLink: true, letter: 'ask', did: 'Signed' },
  approve: {
    does: 'approves',
    holdsGate: true,
    puts: false,
    signs: false,
    byLink: true,
    letter: 'ask_approve',
    did: 'Approved',
  },
  desk: {
    does: 'signs at the desk',
    holdsGate: true,
    puts: true,
    signs: false,
    byLink: false,
    letter: 'ask',
    did: 'Signed',
  },
  receive: {
    does: 'has it delivered',
    holdsGate: true,
    puts: false,
    signs: false,
    byLink: true,
    letter: 'deliver',
    byPost: true,
    did: 'Delivered',
  },
  copy: {
    does: 'gets a copy',
    holdsGate: false,
    puts: false,
    signs: false,
    byLink: true,
    letter: 'copy',
    did: 'Signed',
  },
};

type Acting = Pick<PacketParty, 'act'>;

/** Returns whether a party's act keeps its gate closed until it is done. */
export const holdsGate = ({ act }: Acting): boolean => ACT_FACTS[act].holdsGate;

/** Returns whether a party puts marks on pages, by itself or at the desk. */
export const puts = ({ act }: Acting): boolean => ACT_FACTS[act].puts;

/** Returns whether a party has a link of its own; one without is let in by a host. */
export const byLink = ({ act }: Acting): boolean => ACT_FACTS[act].byLink;

/** Returns whether a party reads and agrees, and puts nothing on a page. */
export const approves = ({ act }: Acting): boolean => act === 'approve';

/**
 * Returns whether a party only has the document delivered. It holds its gate until it opens the document or the
 * document counts as delivered.
 */
export const receives = ({ act }: Acting): boolean => act === 'receive';
