/** People who sign a document on which there is no line for them, and no room beside the printed ones. */
import { sideLabel } from '../text/sides';
import type { Draft } from './draft';
import type { Proposal } from './proposal';
import { isSure } from './proposals';
import { roleHere, signersOf } from './place-party';
import type { DocumentFacts } from './resolve';
import type { Mark, PacketParty } from './types';

/**
 * Returns who is left over on a document: of a role that signs on printed lines, with neither a line nor a place
 * beside them.
 *
 * @param proposals of the draft
 * @param marks on its documents
 */
export function peopleWithoutLine(
  draft: Pick<Draft, 'parties'>,
  doc: DocumentFacts,
  proposals: readonly Proposal[],
  marks: readonly Mark[],
): PacketParty[] {
  const lines = proposals.filter(
    (p) => p.documentId === doc.id && p.kind === 'signature' && p.place.role !== 'unknown',
  );
  const has = new Set([
    ...lines.map((p) => p.partyId),
    ...marks.filter((m) => m.documentId === doc.id && m.kind === 'signature').map((m) => m.partyId),
  ]);
  const roles = new Set(lines.filter((p) => !p.beside).map((p) => roleHere(p.place, doc.id, draft.parties)));
  return [...roles]
    .flatMap((role) => signersOf(role, doc.id, draft.parties))
    .filter((p, i, all) => !has.has(p.id) && all.indexOf(p) === i);
}

/** Returns a person's name under their line on a page for further signatures. */
export const furtherName = (p: Pick<PacketParty, 'side' | 'ordinal' | 'name'>) => ({
  called: sideLabel(p.side, p.ordinal),
  name: p.name,
});

/**
 * Returns the places of people on a page for further signatures, once it is read: all of them are theirs and need no
 * confirmation.
 */
export const furtherPlaces = (proposals: readonly Proposal[], documentId: string, after: number): Proposal[] =>
  proposals.filter((p) => p.documentId === documentId && p.page > after && isSure(p));
