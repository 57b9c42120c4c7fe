/**
 * What people have decided about the printed places of a document, for the next time that it is read: a place that was
 * moved, given to somebody else, or dismissed is not proposed the old way again.
 */
import type { Proposal } from '../packet/proposal';
import { KIND_OF_PLACE, proposalsOf } from '../packet/proposals';
import { isSenders } from '../packet/kinds';
import type { DocumentFacts } from '../packet/resolve';
import { NOBODY, type Mark, type MarkKind } from '../packet/types';
import { overlapArea } from '../paper/geometry';
import type { Rect } from '../paper/types';
import { roleOfSide } from '../reading/role-sides';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import { findAgain, slotsOf, type Slot } from '../shelf';
import { groupBy, itemAt } from '../sure';
import { asRead } from './as-read';
import type { Remembered } from './recall';
import { relationOf } from './relation';

/** What people made of a place: dismissed, or a meaning and a position. */
type Decision = { dismissed: true } | (Pick<PrintedPlace, 'kind' | 'role' | 'ordinal' | 'signed'> & { rect: Rect });

/** How far, in points, a mark may be from its place and still be where it was proposed. */
const AS_PROPOSED = 2;
/** Share of the smaller one that a mark and a place must have in common for the mark to be on the place. */
const ON_PLACE = 0.3;
const SAME_PLACE = 0.6;

const areaOf = (r: Rect) => r.w * r.h;
const share = (a: Rect, b: Rect) => overlapArea(a, b) / Math.max(1, Math.min(areaOf(a), areaOf(b)));
const isAt = (a: Rect, b: Rect) =>
  [a.x - b.x, a.y - b.y, a.w - b.w, a.h - b.h].every((away) => Math.abs(away) <= AS_PROPOSED);

/** Returns the kind of printed place that a kind of mark fills. */
function placeKindOf(kind: MarkKind): PlaceKind {
  if (kind === 'choice') return 'checkbox';
  if (kind === 'date_signed') return 'date';
  for (const [place, mark] of Object.entries(KIND_OF_PLACE) as [PlaceKind, MarkKind][]) if (mark === kind) return place;
  return 'text';
}

/** Returns how much on a document was decided by people otherwise than it was read: places, and marks on no printed place. */
export function countCorrections(remembered: Remembered): number {
  const { form, before } = remembered;
  const there = form.marks.filter((m) => m.documentId === before.id && isTheirs(m));
  const free = there.filter((m) => before.places.every((p) => p.page !== m.page || share(m.rect, p.rect) <= ON_PLACE));
  return decisionsOf(remembered).size + free.length;
}

/** Returns whether a mark is for a person to fill in, and says something about a printed place. */
const isTheirs = (m: Mark): boolean => m.partyId !== NOBODY && !isSenders(m.kind);

/** Returns what people have decided otherwise than it was read, by the number of the place among all of the document. */
function decisionsOf({ form, before }: Remembered): Map<number, Decision> {
  const dismissed = new Set(form.passed.map((p) => p.id));
  const slots = new Map(slotsOf(form.parties).map((s) => [s.id, s]));
  const raw = asRead(before);
  // A printed place and its proposal have the same number.
  const read = proposalsOf({ ...form, documents: [{ id: before.id }], passed: [] }, [raw], []);
  const marks = marksOnPlaces(form.marks, before);
  const out = new Map<number, Decision>();
  for (const [i, place] of before.places.entries()) {
    const mark = marks.get(i);
    const slot = mark && slots.get(mark.partyId);
    const was = itemAt(raw.places, i);
    if (!mark) {
      if (dismissed.has(`${before.id}.${place.page}.${i}`) || place.dismissed) out.set(i, { dismissed: true });
      // What an earlier one has taught goes on where nobody has decided otherwise.
      else if (place.read) out.set(i, meaningOf(place));
      continue;
    }
    if (!slot || slot.slot === 'person') continue;
    const proposal = itemAt(read, i);
    const isKind =
      placeKindOf(mark.kind) === was.kind && (was.kind !== 'date' || (mark.kind === 'date_signed') === !!was.signed);
    if (isKind && proposal.partyId === mark.partyId && isAt(mark.rect, was.rect)) continue;
    const meaning = meaningFor(mark, slot, was, proposal);
    if (meaning) out.set(i, meaning);
  }
  return out;
}

const meaningOf = ({ kind, role, ordinal, signed, rect }: PrintedPlace): Decision => ({
  kind,
  role,
  ordinal,
  ...(signed === undefined ? {} : { signed }),
  rect,
});

/** Returns what a mark says about the place it is on; null if its person has no role that is printed. */
function meaningFor(mark: Mark, slot: Slot, was: PrintedPlace, { partyId }: Proposal): Decision | null {
  const isAsRead = partyId === mark.partyId;
  const role = isAsRead ? was.role : roleOfSide(slot.side);
  if (!role) return null;
  const kind = placeKindOf(mark.kind);
  return {
    kind,
    role,
    ordinal: isAsRead ? was.ordinal : slot.slot === 'every' ? null : slot.ordinal,
    ...(kind === 'date' ? { signed: mark.kind === 'date_signed' } : {}),
    rect: isAt(mark.rect, was.rect) ? was.rect : mark.rect,
  };
}

/** Returns the mark on each printed place, by the number of the place: the one accepted for it, else the one that covers most of it. */
function marksOnPlaces(marks: readonly Mark[], { id, places }: DocumentFacts): Map<number, Mark> {
  const byPage = groupBy([...places.keys()], (i) => itemAt(places, i).page);
  const out = new Map<number, Mark>();
  const best = new Map<number, number>();
  for (const m of marks) {
    if (m.documentId !== id || !isTheirs(m)) continue;
    const here = byPage.get(m.page) ?? [];
    const own = here.find((i) => m.placeId === `${id}.${m.page}.${i}`);
    const rects = here.map((i) => ({ i, covers: i === own ? 2 : share(m.rect, itemAt(places, i).rect) }));
    const [most] = rects.sort((a, b) => b.covers - a.covers);
    if (!most || most.covers <= ON_PLACE || most.covers <= (best.get(most.i) ?? 0)) continue;
    best.set(most.i, most.covers);
    out.set(most.i, m);
  }
  return out;
}

/**
 * Returns the printed places of a document with what people have decided about them on an earlier one.
 *
 * @returns null if it is another document; its places as they are if there is nothing to learn
 */
export function learnedPlaces(remembered: Remembered, after: DocumentFacts): PrintedPlace[] | null {
  const { before } = remembered;
  if (relationOf(before, after).kind === 'other') return null;
  const decisions = [...decisionsOf(remembered)];
  const raw = asRead(before);
  const searched = decisions.map(([i]): Mark => {
    const { page, kind, rect } = itemAt(raw.places, i);
    const place = { page, kind: KIND_OF_PLACE[kind], rect };
    return { id: String(i), documentId: before.id, partyId: NOBODY, required: false, ...place };
  });
  const places = [...after.places];
  for (const [n, a] of findAgain(raw, asRead(after), searched, { unseen: true }).entries()) {
    if (a.state !== 'same' && a.state !== 'moved') continue;
    const [i, decision] = itemAt(decisions, n);
    const was = itemAt(raw.places, i);
    const at = after.places.findIndex(
      (p) => p.page === a.page && p.kind === was.kind && share(p.rect, a.rect) > SAME_PLACE,
    );
    const place = after.places[at];
    if (!place || isOn(place, decision)) continue;
    places[at] = decided(place, decision, was.rect);
  }
  return places;
}

/** Returns whether the reader reads a place now as it was decided. */
const isOn = (place: PrintedPlace, decision: Decision): boolean =>
  !('dismissed' in decision) &&
  place.kind === decision.kind &&
  place.role === decision.role &&
  place.ordinal === decision.ordinal &&
  (place.kind !== 'date' || !!place.signed === !!decision.signed) &&
  isAt(place.rect, decision.rect);

function decided(place: PrintedPlace, decision: Decision, was: Rect): PrintedPlace {
  if ('dismissed' in decision) return { ...place, dismissed: true };
  const { rect, ...meaning } = decision;
  const { kind, role, ordinal, other: _other, signed: _signed, ...rest } = place;
  return {
    ...rest,
    ...meaning,
    rect: isAt(rect, was)
      ? place.rect
      : { ...rect, x: rect.x + place.rect.x - was.x, y: rect.y + place.rect.y - was.y },
    // Somebody has looked at it.
    confidence: 1,
    read: { kind, role, ordinal, rect: place.rect },
  };
}
