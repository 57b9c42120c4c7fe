/** Where the words around a mark say that it is on a changed paper. */
import type { Mark } from '../packet/types';
import type { Rect } from '../paper/types';
import { itemAt } from '../sure';
import { groupBy } from '../sure/group';
import type { Word } from './matched';
import { APART, type Papers } from './papers';

/** How far around a mark words are considered, in points. */
const NEAR = { x: 240, y: 70 };
/** A caption is closer under its blank than a paragraph would be, in points. */
const CAPTION = 9;
/** How far apart, across the page in points, two words may place a mark and still mean the same column. */
const COLUMN = 8;
/** Greatest relative change of type size. Beyond it, the distance of such a mark from its words is unknown. */
const SAME_TYPE = 0.03;

/** Where one word says that a mark is. */
export interface Vote {
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
export function votesFor(papers: Papers, m: Mark): Vote[] {
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
export function nearness(word: Rect, mark: Rect): number {
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
export function strongest(votes: Vote[]): (Vote & { second: number; agree: number; asLarge: boolean }) | null {
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
