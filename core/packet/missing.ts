/** Sending a paper back for what is missing on it: marks where nobody wrote, for whom they are, and for nobody else. */
import { partyOfPlace } from './place-party';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import type { Draft, DraftEdit } from './draft';
import { overlapArea } from '../paper/geometry';
import { isOwn } from './kinds';
import { gatesOfPattern } from './path';
import type { Proposal } from './proposal';
import { leaveOutEdits, proposalsOf } from './proposals';
import type { DocumentFacts } from './resolve';
import type { MarkKind, PacketParty } from './types';

const KIND: Record<Exclude<PlaceKind, 'date'>, MarkKind> = {
  signature: 'signature',
  initials: 'initials',
  name: 'printed_name',
  text: 'text',
  checkbox: 'tick',
};

/** The mark that fills a place which is empty. */
const kindOf = (place: PrintedPlace): MarkKind =>
  place.kind === 'date' ? (place.signed === false ? 'date' : 'date_signed') : KIND[place.kind];

const isSame = (m: PrintedPlace, p: Proposal) =>
  m.page === p.page && overlapArea(m.rect, p.rect) > 0.3 * Math.min(m.rect.w * m.rect.h, p.rect.w * p.rect.h);

/**
 * The edits that make of a fresh draft one for what is missing.
 *
 * @param document the paper that came back, as it was read: its other places are left out knowingly, they were filled by hand
 * @param missing  the empty places, as they lie on it
 * @returns the edits, and the places that are nobody's in this deal: their marks are placed by hand
 */
export function missingEdits(
  draft: Draft,
  document: DocumentFacts,
  missing: (PrintedPlace & { id: string })[],
  newId: () => string,
): { edits: DraftEdit[]; nobodys: PrintedPlace[] } {
  const documentId = document.id;
  const asked = new Set<PacketParty>();
  const nobodys: PrintedPlace[] = [];
  const marks: DraftEdit[] = [];
  for (const place of missing) {
    const party = partyOfPlace(place, documentId, draft.parties);
    if (!party) {
      nobodys.push(place);
      continue;
    }
    asked.add(party);
    const kind = kindOf(place);
    const own = isOwn(kind);
    marks.push({
      op: 'put',
      list: 'marks',
      item: {
        id: `back.${place.id}`,
        documentId,
        page: place.page,
        kind,
        partyId: party.id,
        rect: place.rect,
        required: own,
        ...(own || !place.label ? {} : { label: place.label.slice(0, 200) }),
      },
    });
  }
  const staying = draft.parties.filter((p) => asked.has(p));
  return {
    edits: [
      ...draft.gates.map((g): DraftEdit => ({ op: 'drop', list: 'gates', id: g.id })),
      ...draft.parties.filter((p) => !asked.has(p)).map((p): DraftEdit => ({ op: 'drop', list: 'parties', id: p.id })),
      ...gatesOfPattern('by_side', staying, newId).map((item): DraftEdit => ({ op: 'put', list: 'gates', item })),
      // What else there is on it was written by hand: nobody is asked for it.
      { op: 'put', list: 'documents', item: { id: documentId, byHand: true } },
      ...marks,
      ...leaveOutEdits(proposalsOf(draft, [document]).filter((p) => !missing.some((m) => isSame(m, p)))),
    ],
    nobodys,
  };
}
