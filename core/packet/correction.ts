/** Redlines after sending: found by their words, inserted where there is room. */
import { cutEnd } from '../text/ends';
import { plain } from '../reading/words';
import { FreeSpace } from '../paper/space';
import { wordsBetween } from './redline';
import type { PageFacts, Rect } from '../paper/types';
import { itemAt } from '../sure';

/** Size of inserted words, in points: a little smaller than most print, to fit between lines. */
const LINE = 13;
const PER_SIGN = 5.4;
const WIDEST = 320;

/** Finds words on a page as printed, ignoring case and punctuation. Returns every occurrence in reading order. */
export function findWords(page: PageFacts, text: string): { rects: Rect[]; text: string }[] {
  const wanted = text.split(/\s+/).map(bare).filter(Boolean);
  if (!wanted.length) return [];
  const order = page.print.map((_, i) => i).sort((a, b) => lineOrder(page, a, b));
  const words = order.map((i) => bare(page.words[i] ?? ''));
  const out: { rects: Rect[]; text: string }[] = [];
  for (let at = 0; at + wanted.length <= words.length; at++) {
    if (!wanted.every((w, k) => words[at + k] === w)) continue;
    const first = itemAt(page.print, itemAt(order, at));
    const last = itemAt(page.print, itemAt(order, at + wanted.length - 1));
    const found = wordsBetween(page, middle(first), middle(last));
    if (found) out.push(found);
  }
  return out;
}

/** Words picked by tapping the page: the first tap picks one word, the second extends to another. */
export interface PickedWords {
  from: { x: number; y: number };
  /** Whether both ends were touched; a touch after that begins anew. */
  both: boolean;
  rects: Rect[];
  text: string;
}

/** Returns what is picked after a tap; null if no word is near. */
export function pickWords(
  page: PageFacts,
  before: PickedWords | null,
  at: { x: number; y: number },
): PickedWords | null {
  const from = before && !before.both ? before.from : at;
  const found = wordsBetween(page, from, at);
  return found && { ...found, from, both: from !== at };
}

/** Returns a word without case, accents and surrounding punctuation. */
const bare = (word: string) => cutEnd(plain(word).replace(/^[^\p{L}\p{N}]+/u, ''), /[^\p{L}\p{N}]/u);

const middle = (r: Rect) => ({ x: r.x + r.w / 2, y: r.y + r.h / 2 });

/** Orders words by line, then left to right; words of one line may differ slightly in height. */
function lineOrder(page: PageFacts, a: number, b: number): number {
  const [p, q] = [itemAt(page.print, a), itemAt(page.print, b)];
  const apart = p.y + p.h / 2 - (q.y + q.h / 2);
  return Math.abs(apart) < 0.45 * Math.min(p.h, q.h) ? p.x - q.x : apart;
}

/**
 * Returns room for inserted words, as near as possible to a point.
 *
 * @param obstacles existing marks and redlines
 * @returns null if the page is full
 */
export function roomForWords(
  page: PageFacts,
  text: string,
  near: { x: number; y: number },
  obstacles: Rect[],
): Rect | null {
  const space = new FreeSpace(page, obstacles);
  const signs = text.trim().length;
  for (const widest of [WIDEST, 220, 140]) {
    const w = Math.min(widest, Math.max(40, signs * PER_SIGN + 6));
    const lines = Math.max(1, Math.ceil((signs * PER_SIGN + 6) / w));
    const at = space.nearest({ w, h: lines * LINE + 2 }, near, 1200, 18, 1.4);
    if (at) return at;
  }
  return null;
}
