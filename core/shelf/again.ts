/**
 * Finding a form's marks on a changed paper by the words around them, wherever those moved. What cannot be found for
 * certain is reported, never placed silently.
 */
import { clampToPage, coversPrint, overlapArea, roundRect } from '../paper/geometry';
import type { Rect } from '../paper/types';
import type { PrintedPlace } from '../reading/types';
import { groupBy } from '../sure/group';
import type { DocumentFacts } from '../packet/resolve';
import { takesHand } from '../packet/kinds';
import { PLACE_KIND_OF } from '../packet/proposals';
import type { Mark } from '../packet/types';
import { itemAt } from '../sure';
import { APART, compared, isAt, type Papers } from './papers';
import { isLikewiseElsewhere, isStillAround } from './parts';
import { strongest, votesFor } from './votes';

/** `same`: where it was; `moved`: found elsewhere; `doubtful`: a member must confirm it; `lost`: not found. */
export const FOUND_AGAIN = ['same', 'moved', 'doubtful', 'lost'] as const;
/** One of `FOUND_AGAIN`. */
export type FoundAgain = (typeof FOUND_AGAIN)[number];

/** A mark on the changed paper. */
export interface Again {
  markId: string;
  state: FoundAgain;
  /** Where it would be; for a lost mark where it was, if that page still exists. */
  page: number;
  rect: Rect;
}

/**
 * Finds each mark on the changed paper.
 *
 * @param before the paper the marks were placed on
 * @param after the changed paper
 * @param how `unseen`: nobody looks at what is found for certain, so a mark that moved otherwise than the part of the
 *   page around it is doubtful
 */
export function findAgain(
  before: DocumentFacts,
  after: DocumentFacts,
  marks: readonly Mark[],
  { unseen = false }: { unseen?: boolean } = {},
): Again[] {
  const papers = compared(before, after, unseen);
  const found = marks.map((m, i) => ({ m, i, a: findOne(papers, m) }));
  const there = groupBy(
    found.filter((f) => f.a.state !== 'lost'),
    (f) => f.a.page,
  );
  // Two that would overlap did not both find their own place.
  return found.map(({ m, i, a }) => {
    const clash =
      a.state !== 'lost' &&
      (there.get(a.page) ?? []).some((b) => b.i !== i && overlaps(a.rect, b.a.rect) && !stoodOver(m, b.m));
    return clash ? { ...a, state: 'doubtful' as const } : a;
  });
}

const overlaps = (a: Rect, b: Rect) => overlapArea(a, b) > 0.2 * Math.min(a.w * a.h, b.w * b.h);
const stoodOver = (a: Mark, b: Mark) => a.page === b.page && overlaps(a.rect, b.rect);

/** Share of the surrounding words that must agree for a place to be found. With less it is uncertain or lost. */
const SURE = 0.6;
const HARDLY = 0.3;
/**
 * For a mark on no printed place: the greatest share that may favor another place, and the share that must mean the
 * same column.
 */
const FREE = 0.25;
const AGREED = 0.7;
/** How far, in points, a printed place may be from where the words point, to be the one meant. */
const SNAP = 36;

/** Least share of its width that a blank must still have for a mark to be on it unseen: the rest may be filled in. */
const AS_WIDE = 0.6;
/** How far before a blank a word may end that was written in it, in points. */
const BEGUN = 8;

/** Returns whether a word that was not on the old paper is in a blank or right before it: it may be filled in already. */
const isBegun = ({ added }: Papers, { page, rect }: PrintedPlace): boolean =>
  (added.get(page) ?? []).some(({ rect: r }) => {
    const middle = r.y + r.h / 2;
    return middle > rect.y && middle < rect.y + rect.h && r.x + r.w > rect.x - BEGUN && r.x < rect.x + rect.w;
  });

function findOne(papers: Papers, m: Mark): Again {
  const { before, after } = papers;
  const votes = votesFor(papers, m);
  const all = votes.reduce((sum, v) => sum + v.weight, 0);
  const best = strongest(votes);
  const lost: Again = { markId: m.id, state: 'lost', page: Math.min(m.page, after.pages.length), rect: m.rect };
  if (!all) return onSamePage(papers, m) ?? lost;
  if (!best || best.weight < HARDLY * all) return lost;
  const stood = placeUnder(before, m, m.page, m.rect, 0);
  // A form has many blanks for text near each other: a mark on none of them is on none again.
  const place = stood || takesHand(m.kind) ? placeUnder(after, m, best.page, best.rect, SNAP, stood) : null;
  const page = itemAt(after.pages, best.page - 1);
  const rect = roundRect(clampToPage(place ? onPlace(m.rect, stood, place) : best.rect, page.width, page.height));
  const sure =
    best.weight >= SURE * all &&
    best.second < (stood ? SURE : FREE) * best.weight &&
    !isLikewiseElsewhere(papers, m, best, !place) &&
    // A mark on a printed place is on one again, where the words say it is: a place farther off that reads alike may be
    // another person's. A free mark is found by words alone, and they must agree.
    (stood
      ? place !== null &&
        awayFrom(place.rect, stood.rect, m.rect, best.rect) < APART &&
        !(papers.unseen && (place.rect.w < AS_WIDE * stood.rect.w || isBegun(papers, place)))
      : best.agree >= AGREED && best.asLarge && (!coversPrint(page, rect) || covered(before, m)));
  const state = !sure ? 'doubtful' : best.page === m.page && isAt(rect, m.rect) ? 'same' : 'moved';
  return { markId: m.id, state, page: best.page, rect };
}

/** Returns how far a place is from where the words say that it is: they say where the mark is, which lay on the place before. */
function awayFrom(place: Rect, stood: Rect, mark: Rect, found: Rect): number {
  const foot = (r: Rect) => r.y + r.h;
  return Math.hypot(place.x - stood.x - (found.x - mark.x), foot(place) - foot(stood) - (foot(found) - foot(mark)));
}

/** How much, in points, a printed place may have changed its size to be filled in as it was before. */
const SAME_SIZE = 2;

/** Returns where a mark is on a printed place: as it stood on the place before, if that was as large. */
function onPlace(mark: Rect, stood: PrintedPlace | null, { rect }: PrintedPlace): Rect {
  const was = stood?.rect;
  if (!was || Math.abs(was.w - rect.w) > SAME_SIZE || Math.abs(was.h - rect.h) > SAME_SIZE) return rect;
  return { ...mark, x: mark.x + rect.x - was.x, y: mark.y + rect.y - was.y };
}

function covered(before: DocumentFacts, m: Mark): boolean {
  const page = before.pages[m.page - 1];
  return !!page && coversPrint(page, m.rect);
}

/** Returns the printed place at or near a mark; of the same role and number as the one it was on, if known. */
function placeUnder(
  doc: DocumentFacts,
  m: Mark,
  page: number,
  rect: Rect,
  reach: number,
  like: PrintedPlace | null = null,
): PrintedPlace | null {
  const kind = PLACE_KIND_OF[m.kind];
  if (!kind) return null;
  let best: { place: PrintedPlace; away: number } | null = null;
  for (const place of doc.places) {
    if (place.page !== page || place.kind !== kind) continue;
    if (like && (place.role !== like.role || place.ordinal !== like.ordinal)) continue;
    const away = Math.hypot(place.rect.x - rect.x, place.rect.y + place.rect.h - (rect.y + rect.h));
    if (overlapArea(place.rect, rect) <= 0.2 * Math.min(place.rect.w * place.rect.h, rect.w * rect.h) && away > reach)
      continue;
    if (!best || away < best.away) best = { place, away };
  }
  return best?.place ?? null;
}

/**
 * Returns the old position of a mark without nearby words, on the matching page, if that place is free. Where nobody looks,
 * the part of the page around it must have stayed: an empty cell of a table moves with its rows.
 */
function onSamePage(papers: Papers, m: Mark): Again | null {
  const { after, pages, unseen } = papers;
  const to = pages[m.page - 1];
  if (to === null || to === undefined) return null;
  const page = itemAt(after.pages, to);
  const rect = clampToPage(m.rect, page.width, page.height);
  const isDoubtful = coversPrint(page, rect) || (unseen && !isStillAround(papers, m));
  const state = isDoubtful ? 'doubtful' : to + 1 === m.page ? 'same' : 'moved';
  return { markId: m.id, state, page: to + 1, rect };
}
