/** Comparing two versions of a document. */
import { around, roundRect } from '../paper/geometry';
import { clip } from '../text';
import { groupBy, itemAt } from '../sure';
import { align } from './align';
import { drawnBetween } from './drawn';
import { movesOf } from './moves';
import { pairPages } from './pages';
import { likeness } from './alike';
import { judged, runsOf, type Run } from './differences';
import { markAsides, tokensOf, type Token } from './tokens';
import type { AsideKind, Change, Comparison, Passage, VersionPage } from './types';

/** Maximum numbers reported: changes, letters of a passage, boxes of it, words around it. */
export const COMPARE_LIMITS = { changes: 500, letters: 800, boxes: 40, around: 6 } as const;

/**
 * Compares two versions word by word, and what is drawn beside the words. Headers, page numbers and renumbered items
 * are reported as such. Time is about proportional to both.
 */
export function compareVersions(before: readonly VersionPage[], after: readonly VersionPage[]): Comparison {
  // The same lookup key on both sides finds candidate matches; `likeness` then compares them page by page.
  const loose = [...before, ...after].some((p) => p.scan);
  const [allA, allB] = [tokensOf(before, loose), tokensOf(after, loose)];
  markAsides([
    { tokens: allA, pages: before },
    { tokens: allB, pages: after },
  ]);
  const [a, b] = [allA.filter((t) => !t.aside), allB.filter((t) => !t.aside)];
  const match = matched(a, b);
  const slight = split(match, a, b);
  const first = judged(runsOf(match, a, b), a, b);
  const { moves, same, runs, numbering } = movesOf(first.runs, a, b);
  const pairs = Int32Array.from(match);
  for (const [i, j] of same) pairs[i] = j;
  // Within what moved, words are compared like all others.
  const moved = judged(
    same
      .filter(([i, j]) => itemAt(a, i).exact !== itemAt(b, j).exact)
      .map(([i, j]) => ({ a0: i, a1: i + 1, b0: j, b1: j + 1 })),
    a,
    b,
  );
  const pages = pairPages(before, after, a, b, pairs);
  const rows = { a, b, next: nextOf(match, b.length) };
  const found: Placed[] = [
    ...moves.map((m) => changeOf(m, rows, true)),
    ...[...runs, ...moved.runs].map((r) => changeOf(r, rows, false)),
    ...numbering.map((r) => asideOf(changeOf(r, rows, false), 'numbering')),
    ...[...slight, ...first.slight, ...moved.slight].map((r) => asideOf(changeOf(r, rows, false), 'reading')),
    ...asidesOf(pages, allA, allB),
  ];
  numberingAside(found);
  const told = found.map((f) => f.change);
  const drawn = drawnBetween(before, after, pages, { a, b, match: pairs }, told);
  found.push(...drawn.changes.map((change) => ({ change, at: placeOf(change, pages) })));
  return {
    pages,
    changes: shown(found).map((f) => f.change),
    more: Math.max(0, found.length - COMPARE_LIMITS.changes),
    slight: found.filter((f) => f.change.aside === 'reading').length,
    wordsOnly: drawn.wordsOnly,
  };
}

/** Returns as many changes as are reported, in order; those that can be hidden make way for those that cannot. */
function shown(found: Placed[]): Placed[] {
  const byPlace = (p: Placed, q: Placed) => p.at[0] - q.at[0] || p.at[1] - q.at[1] || p.at[2] - q.at[2];
  const sorted = [...found].sort(byPlace);
  if (sorted.length <= COMPARE_LIMITS.changes) return sorted;
  const [own, aside] = [sorted.filter((f) => !f.change.aside), sorted.filter((f) => f.change.aside)];
  return [...own, ...aside].slice(0, COMPARE_LIMITS.changes).sort(byPlace);
}

const asideOf = (placed: Placed, aside: AsideKind): Placed => ({ ...placed, change: { ...placed.change, aside } });

/**
 * Splits pairs that matched only by their loose key: real differences are unmatched, slight misreadings are returned.
 */
function split(match: Int32Array, a: readonly Token[], b: readonly Token[]): Run[] {
  const slight: Run[] = [];
  match.forEach((j, i) => {
    if (j < 0) return;
    const how = likeness(itemAt(a, i), itemAt(b, j));
    if (how === 'differs') match[i] = -1;
    else if (how === 'slight') slight.push({ a0: i, a1: i + 1, b0: j, b1: j + 1 });
  });
  return slight;
}

/** A change with its sort position: row of pages, then down, then right. */
interface Placed {
  change: Change;
  /** Whether its words begin lines: only there does a number count items. */
  leads?: boolean;
  at: [number, number, number];
}

const matched = (a: readonly Token[], b: readonly Token[]) =>
  align(
    a.map((t) => t.key),
    b.map((t) => t.key),
  );

/**
 * Both rows of words. `next` is, for each word of the earlier one and its end, the index of the next unchanged word
 * in the later one.
 */
interface Rows {
  a: readonly Token[];
  b: readonly Token[];
  next: Int32Array;
}

function nextOf(match: Int32Array, end: number): Int32Array {
  const out = new Int32Array(match.length + 1).fill(end);
  for (let i = match.length - 1; i >= 0; i--) out[i] = itemAt(match, i) >= 0 ? itemAt(match, i) : itemAt(out, i + 1);
  return out;
}

function changeOf(r: Run, rows: Rows, moved: boolean): Placed {
  const { a, b } = rows;
  const [before, after] = [passageOf(a.slice(r.a0, r.a1)), passageOf(b.slice(r.b0, r.b1))];
  const side = after ? { row: b, from: r.b0, to: r.b1 } : { row: a, from: r.a0, to: r.a1 };
  const n = COMPARE_LIMITS.around;
  const words = (from: number, to: number) =>
    side.row
      .slice(Math.max(0, from), to)
      .map((t) => t.text)
      .join(' ');
  // What is missing on a scanned page may only not have been recognized: the words beside it show what the page is.
  const beside = [a[r.a0 - 1], b[r.b0 - 1], a[r.a1], b[r.b1]];
  const scan = [...a.slice(r.a0, r.a1), ...b.slice(r.b0, r.b1), ...beside].some((t) => t?.scan);
  const kind = moved ? 'moved' : before && after ? 'replaced' : before ? 'struck' : 'put_in';
  const lead = clip(words(side.from - n, side.from), 200);
  const tail = clip(words(side.to, side.to + n), 200);
  return {
    change: { kind, before, after, lead, tail, aside: null, drawn: false, scan },
    leads: [...a.slice(r.a0, r.a1), ...b.slice(r.b0, r.b1)].every((t) => t.leads),
    at: whereIn(r, rows),
  };
}

/** Returns the position in the later version; struck text is placed at the next unchanged word. */
function whereIn(r: Run, { b, next }: Rows): [number, number, number] {
  const put = r.b0 < r.b1;
  const at = b[put ? r.b0 : itemAt(next, r.a1)] ?? b[b.length - 1];
  if (!at) return [Infinity, 0, 0];
  return [at.page, at.rect.y + at.rect.h / 2, put ? at.rect.x : at.rect.x - 0.1];
}

function placeOf(change: Change, pages: Comparison['pages']): [number, number, number] {
  const box = change.after?.boxes[0];
  if (box) return [box.page, box.rect.y + box.rect.h / 2, box.rect.x];
  const old = change.before?.boxes[0];
  const row = pages.find((p) => p.before === old?.page);
  return [row?.after ?? Infinity, (old?.rect.y ?? 0) + (old?.rect.h ?? 0) / 2, old?.rect.x ?? 0];
}

/** Returns words as a passage with one box per line. */
function passageOf(tokens: readonly Token[]): Passage | null {
  if (!tokens.length) return null;
  const boxes: Passage['boxes'] = [];
  let last: Token | null = null;
  for (const t of tokens) {
    const box = boxes[boxes.length - 1];
    // Beyond so many lines those of a page are one box.
    const joins = box?.page === t.page && (last?.line === t.line || boxes.length >= COMPARE_LIMITS.boxes);
    if (joins) box.rect = around(box.rect, t.rect);
    else boxes.push({ page: t.page, rect: t.rect });
    last = t;
  }
  const words: string[] = [];
  let letters = 0;
  for (const t of tokens) {
    if ((letters += t.text.length + 1) > COMPARE_LIMITS.letters + 200) break;
    words.push(t.text);
  }
  const text = clip(words.join(' '), COMPARE_LIMITS.letters);
  return {
    text: words.length < tokens.length ? `${text} …` : text,
    boxes: boxes.map((x) => ({ ...x, rect: roundRect(x.rect) })),
  };
}

/** Returns what changed in headers and footers of paired pages. */
function asidesOf(pages: Comparison['pages'], allA: readonly Token[], allB: readonly Token[]): Placed[] {
  const byPage = (all: readonly Token[]) =>
    groupBy(
      all.filter((t) => t.aside),
      (t) => t.page,
    );
  const [ofA, ofB] = [byPage(allA), byPage(allB)];
  return pages.flatMap(({ before, after }) => {
    if (before === null || after === null) return [];
    const [a, b] = [ofA.get(before) ?? [], ofB.get(after) ?? []];
    const match = matched(a, b);
    const slight = split(match, a, b);
    const rows = { a, b, next: nextOf(match, b.length) };
    return [
      ...runsOf(match, a, b).map((r) => asideOf(changeOf(r, rows, false), (b[r.b0] ?? a[r.a0])?.aside ?? 'header')),
      ...slight.map((r) => asideOf(changeOf(r, rows, false), 'reading')),
    ];
  });
}

const ITEM = /^\(?(?:\d{1,3}(?:\.\d{1,3}){0,4}|[a-z]|[ivxlc]{1,6})[.)]$/i;

/** Marks renumbered items: where something was inserted, struck or moved, "4." after it becomes "5.". */
function numberingAside(found: Placed[]): void {
  const others = found.some((f) => !f.change.aside && !isNumbering(f));
  for (const f of found)
    // A number beside a blank is easily missed on a scanned page.
    if (!f.change.aside && isNumbering(f) && (others || f.change.scan)) f.change.aside = 'numbering';
}

const isNumbering = ({ change: c, leads }: Placed) =>
  !!leads && !c.drawn && c.kind !== 'moved' && [c.before, c.after].every((p) => !p || ITEM.test(p.text));
