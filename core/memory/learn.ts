/**
 * What the reader learns from a packet that was sent: how people corrected the printed places of a document, so that the
 * same document is read that way the next time.
 */
import type { Draft } from '../packet/draft';
import { isSenders, takesHand } from '../packet/kinds';
import type { Proposal } from '../packet/proposal';
import { KIND_OF_PLACE, PLACE_KIND_OF, proposalsOf } from '../packet/proposals';
import type { DocumentFacts } from '../packet/resolve';
import { NOBODY, type Mark } from '../packet/types';
import { clampToPage, coversPrint, overlapArea } from '../paper/geometry';
import type { Rect } from '../paper/types';
import { roleOfSide } from '../reading/role-sides';
import { DOUBT, type PrintedPlace } from '../reading/types';
import { findAgain, slotsOf, type Slot } from '../shelf';
import { groupBy, itemAt } from '../sure';
import { asRead } from './as-read';
import { relationOf } from './relation';

/** A packet that was sent, and one of its documents. A form of the shelf will do, too. */
export interface SentDocument {
  draft: Draft;
  document: DocumentFacts;
}

/** How people corrected a place. */
interface Correction extends Pick<PrintedPlace, 'kind' | 'role' | 'ordinal' | 'signed'> {
  rect: Rect;
  dismissed: boolean;
  /** Whether it holds for the next packet, too. It may not if the person the page names was not in the packet. */
  isSure: boolean;
}

/** Distance in points within which a mark is where it was proposed. */
const AS_PROPOSED = 2;
/** Least share of the smaller one that a mark and its place have in common. */
const ON_PLACE = 0.3;
/** Least share of the smaller one that a place and the position where it is searched have in common. */
const SAME_PLACE = 0.6;

const areaOf = (r: Rect) => r.w * r.h;
const share = (a: Rect, b: Rect) => overlapArea(a, b) / Math.max(1, Math.min(areaOf(a), areaOf(b)));
const isAt = (a: Rect, b: Rect) =>
  [a.x - b.x, a.y - b.y, a.w - b.w, a.h - b.h].every((away) => Math.abs(away) <= AS_PROPOSED);

/** Returns the number of corrections on a document: corrected places, and marks on no printed place. */
export function countCorrections(sent: SentDocument): number {
  const { draft, document } = sent;
  const marks = draft.marks.filter((m) => m.documentId === document.id && isTheirs(m));
  const free = marks.filter((m) =>
    document.places.every((p) => p.page !== m.page || share(m.rect, p.rect) <= ON_PLACE),
  );
  return correctionsOf(sent).size + free.length;
}

/** Returns whether a mark is for a party to fill in. */
const isTheirs = (m: Mark): boolean => m.partyId !== NOBODY && !isSenders(m.kind);

/** Returns the corrections on a document, by the position of the place in its list of places. */
function correctionsOf({ draft, document }: SentDocument): Map<number, Correction> {
  const dismissed = new Set(draft.passed.map((p) => p.id));
  const slots = new Map(slotsOf(draft.parties).map((s) => [s.id, s]));
  const raw = asRead(document);
  // The proposal of a printed place has the same position as the place.
  const proposals = proposalsOf({ ...draft, passed: [] }, [raw], []);
  const marks = marksOnPlaces(draft.marks, document);
  const out = new Map<number, Correction>();
  for (const [i, place] of document.places.entries()) {
    const proposal = itemAt(proposals, i);
    const mark = marks.get(i);
    const slot = mark && slots.get(mark.partyId);
    const isDismissed = dismissed.has(proposal.id);
    const correction =
      mark && slot
        ? corrected(mark, slot, itemAt(raw.places, i), proposal)
        : isDismissed && !proposal.stranger
          ? { ...place, dismissed: true, isSure: true }
          : // Corrected before, and left as it was this time.
            place.read || place.dismissed
            ? { ...place, dismissed: place.dismissed ?? false, isSure: place.confidence > DOUBT }
            : null;
    if (correction) out.set(i, correction);
  }
  return out;
}

/** Returns how a mark corrects the place it is on; null if it is as proposed, or its person has no role that forms print. */
function corrected(mark: Mark, slot: Slot, was: PrintedPlace, proposal: Proposal): Correction | null {
  const kind = PLACE_KIND_OF[mark.kind] ?? 'text';
  const signed = mark.kind === 'date_signed';
  const isTheirsAsRead = proposal.partyId === mark.partyId;
  const isKind = kind === was.kind && (kind !== 'date' || signed === !!was.signed);
  if (isKind && isTheirsAsRead && isAt(mark.rect, was.rect)) return null;
  const role = isTheirsAsRead ? was.role : slot.slot === 'person' ? null : roleOfSide(slot.side);
  if (!role) return null;
  return {
    kind,
    role,
    ordinal: isTheirsAsRead ? was.ordinal : slot.slot === 'every' ? null : slot.ordinal,
    ...(kind === 'date' ? { signed } : {}),
    rect: isAt(mark.rect, was.rect) ? was.rect : mark.rect,
    dismissed: false,
    isSure: !proposal.stranger,
  };
}

/** Returns the mark on each place, by the position of the place: the mark that was accepted for it, or else the one that covers most of it. */
function marksOnPlaces(marks: readonly Mark[], { id, places }: DocumentFacts): Map<number, Mark> {
  const byPage = groupBy([...places.keys()], (i) => itemAt(places, i).page);
  const out = new Map<number, Mark>();
  const most = new Map<number, number>();
  for (const m of marks) {
    if (m.documentId !== id || !isTheirs(m)) continue;
    const covered = (byPage.get(m.page) ?? []).map((i) => ({
      i,
      // A mark that was accepted for a place and moved is still its mark.
      part: m.placeId === `${id}.${m.page}.${i}` ? 2 : share(m.rect, itemAt(places, i).rect),
    }));
    const [best] = covered.sort((a, b) => b.part - a.part);
    if (!best || best.part <= ON_PLACE || best.part <= (most.get(best.i) ?? 0)) continue;
    most.set(best.i, best.part);
    out.set(best.i, m);
  }
  return out;
}

/**
 * Returns the printed places of a document with the corrections that people made on an earlier one.
 *
 * @returns null if it is another document; its places as they are if nothing was corrected
 */
export function learnedPlaces(sent: SentDocument, after: DocumentFacts): PrintedPlace[] | null {
  const before = sent.document;
  if (relationOf(before, after).kind === 'other') return null;
  const corrections = [...correctionsOf(sent)];
  const [was, now] = [asRead(before), asRead(after)];
  const searched = corrections.map(([i]): Mark => {
    const { page, kind, rect } = itemAt(was.places, i);
    const place = { page, kind: KIND_OF_PLACE[kind], rect };
    return { id: String(i), documentId: before.id, partyId: NOBODY, required: false, ...place };
  });
  const places = [...now.places];
  for (const [n, found] of findAgain(was, now, searched, { unseen: true }).entries()) {
    if (found.state !== 'same' && found.state !== 'moved') continue;
    const [i, correction] = itemAt(corrections, n);
    const old = itemAt(was.places, i);
    const at = now.places.findIndex(
      (p) => p.page === found.page && p.kind === old.kind && share(p.rect, found.rect) > SAME_PLACE,
    );
    const place = now.places[at];
    const page = now.pages[found.page - 1];
    if (place && page) places[at] = withCorrection(place, correction, old.rect, page);
  }
  return places;
}

/** Returns a place as it was corrected. @param was where the place was on the earlier document */
function withCorrection(
  place: PrintedPlace,
  { kind, role, ordinal, signed, rect, dismissed, isSure }: Correction,
  was: Rect,
  page: DocumentFacts['pages'][number],
): PrintedPlace {
  const read = { kind: place.kind, role: place.role, ordinal: place.ordinal, rect: place.rect };
  if (dismissed)
    // A line to sign that nobody signs is a loss: it is shown as uncertain, and the gate check still names it.
    return takesHand(KIND_OF_PLACE[place.kind]) && place.role !== 'unknown'
      ? { ...place, confidence: Math.min(place.confidence, DOUBT), read }
      : { ...place, dismissed: true };
  const { other: _other, signed: _signed, ...rest } = place;
  const corrected = {
    ...rest,
    kind,
    role,
    ordinal,
    ...(signed === undefined ? {} : { signed }),
    rect: movedAs(rect, was, place.rect, page),
  };
  const isSame =
    kind === read.kind &&
    role === read.role &&
    ordinal === read.ordinal &&
    !!signed === !!place.signed &&
    isAt(corrected.rect, read.rect);
  if (isSame) return isSure ? place : { ...place, confidence: Math.min(place.confidence, DOUBT), read };
  return isSure
    ? { ...corrected, confidence: 1, read }
    : { ...corrected, confidence: DOUBT, other: { kind: read.kind, role: read.role, ordinal: read.ordinal }, read };
}

/** Returns a place's rectangle moved as its mark was moved; as it is, if it would cover print that it does not cover now. */
function movedAs(mark: Rect, was: Rect, now: Rect, page: DocumentFacts['pages'][number]): Rect {
  if (isAt(mark, was)) return now;
  const moved = clampToPage({ ...mark, x: mark.x + now.x - was.x, y: mark.y + now.y - was.y }, page.width, page.height);
  return coversPrint(page, moved) && !coversPrint(page, now) ? now : moved;
}
