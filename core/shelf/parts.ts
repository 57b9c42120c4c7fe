/** Whether a mark has moved as the part of the page around it has. */
import type { DocumentFacts } from '../packet/resolve';
import type { Mark } from '../packet/types';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';
import { groupBy } from '../sure/group';
import { APART, isAt, keyOf, type Papers } from './papers';
import { nearness } from './votes';

/** How far up and down the page words are considered that say how the part around a mark has moved, in points. */
const PART = 150;
/** Fewest words by which it is told how a part has moved. */
const ENOUGH = 12;
/** Number of words beside a mark that are looked for where that part has moved. */
const BESIDE = 3;
/** How far from there such a word may be, in points. */
const THERE = 8;

/** How far apart, in points, two printed places may be to stand on one row, and to be taken for each other. */
const ONE_ROW = 6;
const MISTAKEN = 120;

/** Returns whether several printed places of one kind stand on the row where a mark was found: on another layout any of them could be its own. */
function hasTwinOnRow(after: DocumentFacts, { page, rect }: { page: number; rect: Rect }): boolean {
  const foot = (r: Rect) => r.y + r.h;
  const near = after.places.filter(
    (p) => p.page === page && Math.abs(foot(p.rect) - foot(rect)) < ONE_ROW && Math.abs(p.rect.x - rect.x) < MISTAKEN,
  );
  return near.some((a, i) => near.some((b, n) => n > i && a.kind === b.kind));
}

/**
 * Returns whether a mark was found elsewhere than the part of the page around it has moved, although the words beside it are
 * there, too: the same words stand in several blocks, and those of another block may have been matched.
 */
export function isLikewiseElsewhere(
  { after, was, onPage, now, byText, went, unseen, stays }: Papers,
  m: Mark,
  found: { page: number; rect: Rect },
  isFree: boolean,
): boolean {
  if (unseen && stays) return found.page !== m.page || Math.abs(found.rect.y - m.rect.y) > APART;
  // Boxes to check stand in rows with the same words over and over: on another layout nothing tells them apart for certain.
  if (unseen && (m.kind === 'tick' || m.kind === 'choice' || hasTwinOnRow(after, found))) return true;
  const near = (onPage.get(m.page) ?? []).filter((i) => Math.abs(itemAt(was, i).rect.y - m.rect.y) <= PART);
  const shifts = near.flatMap((i) => {
    const to = now[went[i] ?? -1];
    const { rect } = itemAt(was, i);
    return to ? [{ page: to.page, dx: to.rect.x - rect.x, dy: to.rect.y - rect.y }] : [];
  });
  const [most] = [...groupBy(shifts, (o) => `${o.page} ${Math.round(o.dy / APART)}`).values()].sort(
    (a, b) => b.length - a.length,
  );
  const shift = most?.[0];
  if (!shift || !most || most.length < ENOUGH || 2 * most.length < shifts.length) return unseen;
  const middle = (values: number[]) =>
    itemAt(
      values.sort((a, b) => a - b),
      values.length >> 1,
    );
  const [dx, dy] = [middle(most.map((o) => o.dx)), middle(most.map((o) => o.dy))];
  const isElsewhere =
    found.page !== shift.page ||
    Math.abs(m.rect.y + dy - found.rect.y) > (unseen ? 1 : 2) * APART ||
    // No printed place says how far to the right a free mark belongs.
    (unseen && isFree && Math.abs(m.rect.x + dx - found.rect.x) > THERE);
  if (!isElsewhere || unseen) return isElsewhere;
  const beside = near
    .map((i) => ({ word: itemAt(was, i), weight: nearness(itemAt(was, i).rect, m.rect) }))
    .sort((a, b) => b.weight - a.weight)
    .slice(0, BESIDE);
  return beside.some(({ word }) =>
    (byText.get(keyOf({ page: shift.page, text: word.text })) ?? []).some(
      ({ rect }) => Math.abs(rect.x - word.rect.x - dx) < THERE && Math.abs(rect.y - word.rect.y - dy) < THERE,
    ),
  );
}

/** Share of the words around a mark that must be where they were for the part of the page to have stayed. */
const STILL_AROUND = 0.9;

/** Returns whether nearly all words up and down the page from a mark are where they were. */
export function isStillAround({ was, onPage, now, went }: Papers, m: Mark): boolean {
  const near = (onPage.get(m.page) ?? []).filter((i) => Math.abs(itemAt(was, i).rect.y - m.rect.y) <= PART);
  const still = near.filter((i) => {
    const to = now[went[i] ?? -1];
    return to !== undefined && to.page === m.page && isAt(to.rect, itemAt(was, i).rect);
  });
  return still.length > 0 && still.length >= STILL_AROUND * near.length;
}
