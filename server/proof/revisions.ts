/** Which documents a seal touches and what it writes there: worked out from a packet's state alone. */
import { type PlanDocument, type Redline, type ShownFill, hasDocument, isFixed, approves } from '@gatepath/core/packet';
import {
  type PacketState,
  type RevisionDue,
  documentsOf,
  partyOf,
  shownFills,
  shownRedlines,
} from '@gatepath/core/routing';
import { itemAt } from '@gatepath/core/sure';

/** One document's part of a revision. */
export interface RevisionPart {
  document: PlanDocument;
  /** The file it is appended to. */
  base: string;
  fills: ShownFill[];
  redlines: Redline[];
}

/** Returns the current file of a document: that of its latest revision, or the file that was sent. */
export function currentFile(state: PacketState, document: PlanDocument): string {
  for (let i = state.revisions.length - 1; i >= 0; i--) {
    const found = itemAt(state.revisions, i).documents.find((d) => d.documentId === document.id);
    if (found) return found.sha256;
  }
  return document.sha256;
}

/** Returns whether a document has a seal of this packet already. */
export const isSealedBefore = (state: PacketState, documentId: string) =>
  state.revisions.some((r) => r.documents.some((d) => d.documentId === documentId));

/** Returns what the preparer put on a document before anybody acted; it is written with the document's first seal. */
function prepared(state: PacketState, documentId: string): Pick<RevisionPart, 'fills' | 'redlines'> {
  if (isSealedBefore(state, documentId)) return { fills: [], redlines: [] };
  const later = new Set(state.corrections.map((c) => c.redline.id));
  const fixed = new Set(state.plan.marks.filter((m) => m.value && isFixed(m)).map((m) => m.id));
  return {
    fills: shownFills(state).filter((f) => f.documentId === documentId && fixed.has(f.markId)),
    redlines: shownRedlines(state).filter((r) => r.documentId === documentId && !later.has(r.id)),
  };
}

const partOf = (
  state: PacketState,
  document: PlanDocument,
  fills: ShownFill[],
  redlines: Redline[] = [],
): RevisionPart => {
  const first = prepared(state, document.id);
  return {
    document,
    base: currentFile(state, document),
    fills: [...first.fills, ...fills],
    redlines: [...first.redlines, ...redlines],
  };
};

/** Returns the event up to which a party's acts are written into the documents; 0 if none are. */
function lastRevisionOf(state: PacketState, partyId: string): number {
  return Math.max(0, ...state.revisions.filter((r) => r.partyId === partyId).map((r) => r.forSeq));
}

/** Returns a document with what a party filled in and what was changed since its last seal. */
export function partSoFar(state: PacketState, partyId: string, document: PlanDocument): RevisionPart {
  const before = lastRevisionOf(state, partyId);
  const due = new Set(state.due.map((d) => d.seq));
  return partOf(
    state,
    document,
    shownFills(state).filter((f) => {
      const fill = state.fills.get(f.markId);
      return f.documentId === document.id && fill?.partyId === partyId && fill.seq > before;
    }),
    state.corrections.filter((c) => c.redline.documentId === document.id && due.has(c.seq)).map((c) => c.redline),
  );
}

/** Returns the parts of a revision that is due: a party's finished acts, or a correction. */
export function partsOf(state: PacketState, due: RevisionDue): RevisionPart[] {
  const documents = documentsOf(state);
  if (due.partyId === null) {
    const correction = state.corrections.find((c) => c.seq === due.seq)!;
    const document = documents.find((d) => d.id === correction.redline.documentId)!;
    return [partOf(state, document, [], [correction.redline])];
  }
  const party = partyOf(state.plan, due.partyId)!;
  const before = lastRevisionOf(state, party.id);
  const isNew = (seq: number) => seq > before && seq <= due.seq;
  const fresh = new Map([...state.fills].filter(([, f]) => f.partyId === party.id && isNew(f.seq)));
  const shown = shownFills(state).filter((f) => fresh.has(f.markId));
  return documents.flatMap((document): RevisionPart[] => {
    const mark = document.id.startsWith('file.') ? document.id.slice('file.'.length) : null;
    // A file that the party added is sealed with the acts it belongs to.
    if (mark) return fresh.has(mark) ? [partOf(state, document, [])] : [];
    const own = shown.filter((f) => f.documentId === document.id);
    const approved =
      approves(party) &&
      hasDocument(party, document.id) &&
      (before === 0 || state.corrections.some((c) => c.redline.documentId === document.id && c.seq > before));
    return own.length || approved ? [partOf(state, document, own)] : [];
  });
}

/** Returns the parts of the last revision, which adds the signing record to every document. */
export function lastParts(state: PacketState): RevisionPart[] {
  return documentsOf(state).map((d) => partOf(state, d, []));
}
