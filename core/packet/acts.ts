/**
 * What parties of a packet do, and all that is known of each. To add one: its name in `ACTS`, its entry here, and what the
 * compiler then asks for.
 */
import type { Act, PacketParty } from './types';

interface ActFacts {
  /** What a member reads it as: "signs". */
  does: string;
  /** Whether its gate stays closed until it is done. */
  holdsGate: boolean;
  /** Whether marks are put down for it, which it fills. */
  puts: boolean;
  /** Whether it must have a place for its hand. */
  signs: boolean;
  /** Whether it comes through a link of its own and is written to; the others are let in by a host. */
  byLink: boolean;
  /** The message it is asked with. */
  letter: 'ask' | 'ask_approve' | 'copy';
  /** What its seal says it did. */
  did: string;
}

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

/** Whether a party's act keeps its gate closed until it is done. */
export const holdsGate = ({ act }: Acting): boolean => ACT_FACTS[act].holdsGate;

/** Whether a party puts marks on pages, by itself or at the desk. */
export const puts = ({ act }: Acting): boolean => ACT_FACTS[act].puts;

/** Whether a party has a link of its own; one without is let in by a host. */
export const byLink = ({ act }: Acting): boolean => ACT_FACTS[act].byLink;

/** Whether a party acts without putting anything on a page. */
export const approves = (party: Acting): boolean => holdsGate(party) && !puts(party);
