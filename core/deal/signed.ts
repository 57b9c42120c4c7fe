/** Who of a deal's people signed a document. This is decided here and nowhere else. */
import { isBroker, type Side } from '../text/sides';
import { whoOf } from '../text/who';

/** A person of a deal, or of one of its packets. */
export interface Person {
  id: string;
  name: string;
  email: string;
  phone: string | null;
  side: Side;
}

/** Who of a deal's people signed a document. */
export interface Signed {
  /** Ids of the deal's people who signed. */
  signedBy: string[];
  /** Broker sides for which somebody signed who is not one of the deal's people: the firm's own broker. */
  signedFor: Side[];
}

/**
 * Finds the deal's people among those who signed: by id, then by name and address where exactly one person of the deal
 * has both. Two people of one name are two people; a name without an address is nobody's.
 *
 * @param signers  who signed, as they stood in their packets: all rounds and returned sheets of one document
 */
export function signersIn(signers: readonly Person[], people: readonly Person[]): Signed {
  const signedBy = new Set<string>();
  const signedFor = new Set<Side>();
  for (const signer of signers) {
    const known = people.find((p) => p.id === signer.id) ?? onlyOneLike(signer, people);
    if (known) signedBy.add(known.id);
    else if (isBroker(signer.side)) signedFor.add(signer.side);
  }
  return { signedBy: [...signedBy], signedFor: [...signedFor] };
}

function onlyOneLike(signer: Person, people: readonly Person[]): Person | null {
  const { called, mailbox } = whoOf(signer);
  if (!mailbox) return null;
  const [one, ...others] = people.filter((p) => {
    const who = whoOf(p);
    return who.called === called && who.mailbox === mailbox;
  });
  return one && !others.length ? one : null;
}
