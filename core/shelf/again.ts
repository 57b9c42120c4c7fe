/**
 * Finding a form's marks on a changed paper by the words around them, wherever those moved. What cannot be found for
 * certain is reported, never placed silently.
 */
import { clampToPage, coversPrint, overlapArea, roundRect } from '../paper/geometry';
import type { Rect } from '../paper/types';
import { matchPages } from '../reading/match';
import type { PlaceKind, PrintedPlace } from '../reading/types';
import { groupBy } from '../sure/group';
import type { DocumentFacts } from '../packet/resolve';
import { takesHand } from '../packet/kinds';
import type { Mark, MarkKind } from '../packet/types';
import { itemAt } from '../sure';
import { matchWords, wordsOf, type Word } from './matched';

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
  const was = wordsOf(before);
  const now = wordsOf(after);
  const went = matchWords(was, now);
  const pages = matchPages(
    before.pages.map((p) => p.words.join(' ')),
    after.pages.map((p) => p.words.join(' ')),
  );
  const onPage = groupBy([...was.keys()], (i) => was[i]?.page ?? 0);
  const byText = groupBy(now, keyOf);
  const stays = staysPut(was, now, went);
  const matched = new Set(went);
  const added = groupBy(
    now.filter((_, j) => !matched.has(j)),
    (w) => w.page,
  );
  const found = marks.map((m, i) => ({
    m,
    i,
    a: findOne({ before, after, was, onPage, now, byText, went, pages, added, unseen, stays }, m),
  }));
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

interface Papers {
  before: DocumentFacts;
  after: DocumentFacts;
  was: Word[];
  /** The words of each old page, by their index among all. */
  onPage: ReadonlyMap<number, number[]>;
  now: Word[];
  /** The new words by page and text: see `keyOf`. */
  byText: ReadonlyMap<string, Word[]>;
  went: Int32Array;
  pages: (number | null)[];
  /** The new words of each page that no old word became. */
  added: ReadonlyMap<number, Word[]>;
  /** See `findAgain`. */
  unseen: boolean;
  /** Whether nearly all words are where they were. */
  stays: boolean;
}

const keyOf = ({ page, text }: Pick<Word, 'page' | 'text'>) => `${page} ${text}`;

/** How far around a mark words are considered, in points. */
const NEAR = { x: 240, y: 70 };
/** A caption is closer under its blank than a paragraph would be, in points. */
const CAPTION = 9;
/** How far apart, in points, two words may place a mark and still mean the same place. */
const APART = 14;
/** Share of the surrounding words that must agree for a place to be found. With less it is uncertain or lost. */
const SURE = 0.6;
const HARDLY = 0.3;
/**
 * For a mark on no printed place: the greatest share that may favor another place, and the share that must mean the
 * same column.
 */
const FREE = 0.25;
const AGREED = 0.7;
/** How far apart, across the page in points, two words may place a mark and still mean the same column. */
const COLUMN = 8;
/** Greatest relative change of type size. Beyond it, the distance of such a mark from its words is unknown. */
const SAME_TYPE = 0.03;
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

/** Share of the matched words that must be where they were, within so many points, for a layout to be the same. */
const STAYS = 0.7;
const STILL = 3;

/** Returns whether nearly all words that are on both are at the same position of the same page. */
function staysPut(was: readonly Word[], now: readonly Word[], went: Int32Array): boolean {
  let [matched, still] = [0, 0];
  for (const [i, { page, rect }] of was.entries()) {
    const to = now[went[i] ?? -1];
    if (!to) continue;
    matched++;
    if (to.page === page && Math.abs(to.rect.x - rect.x) < STILL && Math.abs(to.rect.y - rect.y) < STILL) still++;
  }
  return still > STAYS * matched;
}

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
function isLikewiseElsewhere(
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

const isAt = (a: Rect, b: Rect) => Math.abs(a.x - b.x) < 2 && Math.abs(a.y - b.y) < 2;

function covered(before: DocumentFacts, m: Mark): boolean {
  const page = before.pages[m.page - 1];
  return !!page && coversPrint(page, m.rect);
}

interface Vote {
  page: number;
  rect: Rect;
  weight: number;
  /** How much larger the word is now. */
  scale: number;
}

/**
 * Returns where each word near a mark says it is now. A word that is gone has no vote but counts. A line counts as
 * much as its nearest word, however many words it has; otherwise a paragraph below would outvote the heading beside
 * the mark.
 */
function votesFor(papers: Papers, m: Mark): Vote[] {
  const near = (papers.onPage.get(m.page) ?? []).flatMap((i) => {
    const word = itemAt(papers.was, i);
    const weight = nearness(word.rect, m.rect);
    return weight ? [{ i, word, weight }] : [];
  });
  const lines = groupBy(near, ({ word }) => Math.round((word.rect.y + word.rect.h / 2) / 4));
  return [...lines.values()].flatMap((line) => {
    const most = Math.max(...line.map((w) => w.weight));
    const sum = line.reduce((n, w) => n + w.weight, 0);
    return line.map(({ i, word, weight }) => voteOf(papers, m, word, i, (weight * most) / sum));
  });
}

function voteOf({ now, went }: Papers, m: Mark, word: Word, i: number, weight: number): Vote {
  const to = now[went[i] ?? -1];
  if (!to) return { page: 0, rect: m.rect, weight, scale: 1 };
  // In another type size the distances differ too.
  const scale = Math.min(1.6, Math.max(0.6, to.rect.h / Math.max(1, word.rect.h)));
  const dx = m.rect.x - word.rect.x;
  return {
    page: to.page,
    rect: {
      x: to.rect.x + dx * across(scale, Math.abs(dx)),
      y: to.rect.y + (m.rect.y - word.rect.y) * scale,
      w: m.rect.w,
      h: m.rect.h,
    },
    weight,
    scale,
  };
}

/**
 * Returns a horizontal distance at another type size. Only small distances grow with the type: a blank keeps its
 * place across a line.
 */
const across = (scale: number, distance: number) => (distance < 40 ? scale : 1);

/** Returns how much a word says about a mark: its caption below and words on its line say most. */
function nearness(word: Rect, mark: Rect): number {
  const dx = Math.max(0, mark.x - (word.x + word.w), word.x - (mark.x + mark.w));
  const dy = Math.max(0, mark.y - (word.y + word.h), word.y - (mark.y + mark.h));
  if (dx > NEAR.x || dy > NEAR.y) return 0;
  const onLine = dy === 0;
  // Along a line words belong together over a longer distance than across lines.
  if (onLine) return 4 / (1 + dx / 60);
  const beneath = dx === 0 && word.y >= mark.y && dy < CAPTION;
  return (beneath ? 5 : 1) / (1 + Math.hypot(dx, dy * 2) / 18);
}

/**
 * Returns the place most votes mean, with its weight and that of the next other place. `agree`: the share that means
 * its column; `asLarge`: no word changed its size.
 */
function strongest(votes: Vote[]): (Vote & { second: number; agree: number; asLarge: boolean }) | null {
  const groups: { page: number; votes: Vote[]; weight: number }[] = [];
  for (const v of [...votes].sort((a, b) => b.weight - a.weight)) {
    if (!v.page) continue;
    const at = groups.find(
      (g) =>
        g.page === v.page &&
        Math.abs(itemAt(g.votes, 0).rect.y - v.rect.y) < APART &&
        Math.abs(itemAt(g.votes, 0).rect.x - v.rect.x) < APART * 3,
    );
    if (at) {
      at.votes.push(v);
      at.weight += v.weight;
    } else groups.push({ page: v.page, votes: [v], weight: v.weight });
  }
  groups.sort((a, b) => b.weight - a.weight);
  const [first, second] = groups;
  if (!first) return null;
  const x = median(first.votes, 'x');
  const column = first.votes.filter((v) => Math.abs(v.rect.x - x) <= COLUMN).reduce((sum, v) => sum + v.weight, 0);
  return {
    page: first.page,
    weight: first.weight,
    second: second?.weight ?? 0,
    agree: column / first.weight,
    asLarge: first.votes.every((v) => Math.abs(v.scale - 1) < SAME_TYPE),
    scale: itemAt(first.votes, 0).scale,
    rect: { ...itemAt(first.votes, 0).rect, x, y: median(first.votes, 'y') },
  };
}

/** Returns the weighted median of the votes. */
function median(votes: Vote[], axis: 'x' | 'y'): number {
  const sorted = [...votes].sort((a, b) => a.rect[axis] - b.rect[axis]);
  const half = sorted.reduce((sum, v) => sum + v.weight, 0) / 2;
  let sum = 0;
  for (const v of sorted) {
    sum += v.weight;
    if (sum >= half) return v.rect[axis];
  }
  return itemAt(sorted, sorted.length - 1).rect[axis];
}

const PLACE_OF: Partial<Record<MarkKind, PlaceKind>> = {
  signature: 'signature',
  initials: 'initials',
  date_signed: 'date',
  date: 'date',
  printed_name: 'name',
  text: 'text',
  number: 'text',
  money: 'text',
  tick: 'checkbox',
  choice: 'checkbox',
};

/** Returns the printed place at or near a mark; of the same role and number as the one it was on, if known. */
function placeUnder(
  doc: DocumentFacts,
  m: Mark,
  page: number,
  rect: Rect,
  reach: number,
  like: PrintedPlace | null = null,
): PrintedPlace | null {
  const kind = PLACE_OF[m.kind];
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

/** Share of the words around a mark that must be where they were for the part of the page to have stayed. */
const STILL_AROUND = 0.9;

/** Returns whether nearly all words up and down the page from a mark are where they were. */
function isStillAround({ was, onPage, now, went }: Papers, m: Mark): boolean {
  const near = (onPage.get(m.page) ?? []).filter((i) => Math.abs(itemAt(was, i).rect.y - m.rect.y) <= PART);
  const still = near.filter((i) => {
    const to = now[went[i] ?? -1];
    return to !== undefined && to.page === m.page && isAt(to.rect, itemAt(was, i).rect);
  });
  return still.length > 0 && still.length >= STILL_AROUND * near.length;
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
