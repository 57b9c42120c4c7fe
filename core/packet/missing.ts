/**
 * Sending a returned paper back for what is missing: marks where nobody wrote, for the people they belong to, and for
 * nobody else.
 */
import { overlapArea } from '../paper/geometry';
import type { PrintedPlace } from '../reading/types';
import type { Draft, DraftEdit } from './draft';
import { gatesOfPattern } from './path';
import type { Proposal } from './proposal';
import { acceptEdits, canAccept, leaveOutEdits, proposalsOf } from './proposals';
import type { DocumentFacts } from './resolve';

const isSame = (a: Proposal, b: Proposal) =>
  a.page === b.page && overlapArea(a.rect, b.rect) > 0.3 * Math.min(a.rect.w * a.rect.h, b.rect.w * b.rect.h);

/**
 * Returns the edits that turn a new draft into one for the places missing on a returned paper.
 *
 * @param document the paper that came back, as it was read: its other places are left out knowingly, they were filled by hand
 * @param missing  the empty places, as they lie on it
 * @returns the edits; `strangers` are places of somebody who is not in the draft. A place that does not say whose it is
 *   stays open at the desk, where the gate check tells of it.
 */
export function missingEdits(
  draft: Draft,
  document: DocumentFacts,
  missing: PrintedPlace[],
  newId: () => string,
): { edits: DraftEdit[]; strangers: PrintedPlace[] } {
  const wanted = proposalsOf(draft, [{ ...document, places: missing }])
    .filter((p) => !p.beside)
    // Not the ids of the paper's own places, of which there may be others.
    .map((p, i) => ({ ...p, id: `${document.id}.back.${i}` }));
  const asked = wanted.filter(canAccept);
  const staying = draft.parties.filter((p) => !asked.length || asked.some((a) => a.partyId === p.id));
  const others = proposalsOf(draft, [document]).filter((p) => !wanted.some((w) => isSame(w, p)));
  return {
    edits: [
      ...draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
      ...draft.parties
        .filter((p) => !staying.includes(p))
        .map((p): DraftEdit => ({ op: 'drop', list: 'parties', id: p.id })),
      ...gatesOfPattern('by_side', staying, newId).map((item): DraftEdit => ({ op: 'put', list: 'gates', item })),
      // Anything else on it was written by hand: nobody is asked for it.
      { op: 'put', list: 'documents', item: { id: document.id, byHand: true } },
      ...acceptEdits(asked, draft.parties),
      ...leaveOutEdits(others),
    ],
    strangers: wanted.filter((p) => p.stranger).map((p) => p.place),
  };
}
