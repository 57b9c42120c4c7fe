/** Redlines and the initials they call for. */
import type { PacketParty, Mark, Redline } from './types';
import { FreeSpace } from '../paper/space';
import type { PageFacts, Rect } from '../paper/types';
import { itemAt, lastOf } from '../sure';

/** Sizes of the initials beside a change, from comfortable down to still readable. */
const SIZES = [
  { w: 40, h: 18 },
  { w: 32, h: 15 },
  { w: 26, h: 12 },
];
/** How far from the change, in points, its initials may stand. */
const REACH = [90, 200, 800];

/** The marks beside redlines, and redlines without room for them. */
export interface RedlineMarks {
  marks: Mark[];
  unplaced: { documentId: string; page: number; partyId: string; redlineId: string }[];
}

/**
 * Returns the initials of one redline: one set per party that signs this document, side by side or near each other,
 * clear of print and of everything in `obstacles`.
 */
export function marksOfRedline(
  redline: Redline,
  page: PageFacts,
  parties: PacketParty[],
  obstacles: Rect[],
): RedlineMarks {
  const out: RedlineMarks = { marks: [], unplaced: [] };
  const moved = new Map(redline.moved.map((m) => [m.partyId, m.rect]));
  const space = new FreeSpace(page, [...obstacles, ...redline.rects, ...moved.values()]);
  const box = bounds(redline.rects);
  let wish = { x: box.x + box.w + 4, y: box.y + box.h / 2 - itemAt(SIZES, 0).h / 2 };
  for (const party of parties) {
    const there = moved.get(party.id);
    const rect = there ?? place(space, wish);
    if (!rect) {
      out.unplaced.push({
        documentId: redline.documentId,
        page: redline.page,
        partyId: party.id,
        redlineId: redline.id,
      });
      continue;
    }
    if (!there) {
      space.take(rect);
      wish = { x: rect.x + rect.w + 3, y: rect.y };
    }
    out.marks.push({
      id: `${redline.id}.r.${party.id}`,
      documentId: redline.documentId,
      page: redline.page,
      kind: 'initials',
      partyId: party.id,
      rect,
      required: true,
      redlineId: redline.id,
    });
  }
  return out;
}

function place(space: FreeSpace, wish: { x: number; y: number }): Rect | null {
  // Nearer and smaller beats larger and far away: initials must be seen to belong to the change.
  for (const reach of REACH)
    for (const size of SIZES) {
      const at = space.nearest(size, wish, reach, 12, 1.6);
      if (at) return at;
    }
  return null;
}

function bounds(rects: Rect[]): Rect {
  const x = Math.min(...rects.map((r) => r.x));
  const y = Math.min(...rects.map((r) => r.y));
  return { x, y, w: Math.max(...rects.map((r) => r.x + r.w)) - x, h: Math.max(...rects.map((r) => r.y + r.h)) - y };
}

/**
 * Returns the words between two points of a page, as one box per line: the words that a strike from one point to the
 * other covers. Both points snap to the nearest word.
 */
export function wordsBetween(
  page: PageFacts,
  from: { x: number; y: number },
  to: { x: number; y: number },
): { rects: Rect[]; text: string } | null {
  const order = readingOrder(page);
  const near = (p: { x: number; y: number }) => {
    let best = -1;
    let least = 60;
    order.forEach((i, n) => {
      const r = itemAt(page.print, i);
      const dx = Math.max(r.x - p.x, 0, p.x - r.x - r.w);
      const dy = Math.max(r.y - p.y, 0, p.y - r.y - r.h);
      const d = Math.hypot(dx, 2 * dy);
      if (d < least) {
        least = d;
        best = n;
      }
    });
    return best;
  };
  const a = near(from);
  const b = near(to);
  if (a < 0 || b < 0) return null;
  return stretch(page, order, Math.min(a, b), Math.max(a, b));
}

/** Returns the words `from` to `to` of a reading order, as one box per line. */
function stretch(page: PageFacts, order: number[], from: number, to: number): { rects: Rect[]; text: string } {
  const picked = order.slice(from, to + 1);
  const rects: Rect[] = [];
  for (const i of picked) {
    const r = itemAt(page.print, i);
    const last = rects[rects.length - 1];
    if (last && Math.abs(last.y + last.h / 2 - r.y - r.h / 2) < 0.5 * r.h && r.x > last.x) {
      const right = Math.max(last.x + last.w, r.x + r.w);
      const top = Math.min(last.y, r.y);
      last.h = Math.max(last.y + last.h, r.y + r.h) - top;
      last.y = top;
      last.w = right - last.x;
    } else rects.push({ ...r });
  }
  return { rects, text: picked.map((i) => page.words[i] ?? '').join(' ') };
}

/**
 * Returns a strike with its first and last word moved by a number of words (backward if negative), for people who use
 * the keyboard; null if no words would be left, or it would leave the page.
 */
export function shiftStrike(
  page: PageFacts,
  redline: Pick<Redline, 'rects'>,
  by: { first: number; last: number },
): { rects: Rect[]; text: string } | null {
  const order = readingOrder(page);
  const at = (x: number, r: Rect, edge: 'left' | 'right') =>
    order.findIndex((i) => {
      const w = itemAt(page.print, i);
      const near = edge === 'left' ? Math.abs(w.x - x) : Math.abs(w.x + w.w - x);
      return near < 0.6 && w.y < r.y + r.h && w.y + w.h > r.y;
    });
  const head = itemAt(redline.rects, 0);
  const tail = lastOf(redline.rects);
  const first = at(head.x, head, 'left') + by.first;
  const last = at(tail.x + tail.w, tail, 'right') + by.last;
  if (at(head.x, head, 'left') < 0 || at(tail.x + tail.w, tail, 'right') < 0) return null;
  if (first < 0 || last >= order.length || first > last) return null;
  return stretch(page, order, first, last);
}

/** Indexes of a page's words line by line, left to right. */
function readingOrder(page: PageFacts): number[] {
  const all = page.print.map((_, i) => i).sort((i, j) => itemAt(page.print, i).y - itemAt(page.print, j).y);
  const lines: number[][] = [];
  for (const i of all) {
    const r = itemAt(page.print, i);
    const line = lines.find((l) => {
      const f = itemAt(page.print, itemAt(l, 0));
      return Math.abs(f.y + f.h / 2 - r.y - r.h / 2) < 0.45 * Math.min(f.h, r.h);
    });
    if (line) line.push(i);
    else lines.push([i]);
  }
  return lines.flatMap((l) => l.sort((i, j) => itemAt(page.print, i).x - itemAt(page.print, j).x));
}
