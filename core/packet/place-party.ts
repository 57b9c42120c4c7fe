/** Whose a printed place is: from the role and number on the page to a party of the packet. */
import { puts } from './acts';
import { plain, roleOfWords } from '../reading/words';
import { ofRole } from '../reading/role-sides';
import type { PlaceRole, PrintedPlace } from '../reading/types';
import type { PacketParty } from './types';

/** Returns whether a party signs and has this document. */
export function signsDocument(party: PacketParty, documentId: string): boolean {
  return puts(party) && hasDocument(party, documentId);
}

/** Returns whether a document is among those a party gets; without a list it gets all of them. */
export function hasDocument(party: PacketParty, documentId: string): boolean {
  return !party.only || party.only.includes(documentId);
}

/** Returns the signers of a role in the order of their numbers. */
export function signersOf(role: PlaceRole, documentId: string, parties: PacketParty[]): PacketParty[] {
  return ofRole(
    role,
    parties.filter((p) => signsDocument(p, documentId)),
  );
}

/** Returns the role as it is meant in this packet: "seller or landlord" is whichever is there. */
export function roleHere(place: PrintedPlace, documentId: string, parties: PacketParty[]): PlaceRole {
  if (place.role === 'unknown' || signersOf(place.role, documentId, parties).length) return place.role;
  const rest = plain(place.label).split(/\bor\b|\/|\bo\b/);
  for (const part of rest) {
    const other = roleOfWords(part);
    if (other && signersOf(other.role, documentId, parties).length) return other.role;
  }
  return place.role;
}

/** Returns the party a printed place is for; null if none. */
export function partyOfPlace(place: PrintedPlace, documentId: string, parties: PacketParty[]): PacketParty | null {
  const here = signersOf(roleHere(place, documentId, parties), documentId, parties);
  return here[(place.ordinal ?? 1) - 1] ?? null;
}
