/** Pairing the pages of two versions: those that share most words, in order. */
import { pairBest } from '../paper/pair-best';
import { itemAt } from '../sure';
import type { Token } from './tokens';
import type { Comparison, VersionPage } from './types';

/**
 * Pairs the pages of two versions.
 *
 * @returns rows in the order of the later version; removed pages come before what followed them
 */
export function pairPages(
  before: readonly VersionPage[],
  after: readonly VersionPage[],
  a: readonly Token[],
  b: readonly Token[],
  match: Int32Array,
): Comparison['pages'] {
  const shared = new Map<string, { a: number; b: number; score: number }>();
  match.forEach((j, i) => {
    if (j < 0) return;
    const [p, q] = [itemAt(a, i).page, itemAt(b, j).page];
    const pair = shared.get(`${p} ${q}`);
    if (pair) pair.score++;
    else shared.set(`${p} ${q}`, { a: p, b: q, score: 1 });
  });
  const ofBefore = pairBest([...shared.values()]);
  const ofAfter = new Map([...ofBefore].map(([p, q]) => [q, p]));
  // Pages whose words say nothing are paired by number.
  const bare = (pages: readonly VersionPage[], p: number) => !!pages[p - 1] && !itemAt(pages, p - 1).words.length;
  for (let p = 1; p <= Math.min(before.length, after.length); p++)
    if (!ofBefore.has(p) && !ofAfter.has(p) && (bare(before, p) || bare(after, p))) {
      ofBefore.set(p, p);
      ofAfter.set(p, p);
    }
  return rowsOf(before.length, after.length, ofAfter);
}

function rowsOf(n: number, m: number, ofAfter: Map<number, number>): Comparison['pages'] {
  const paired = new Set(ofAfter.values());
  const rows: Comparison['pages'] = [];
  let told = 0;
  // Deleted pages are listed before the first page after them that still exists.
  const goneUpTo = (end: number) => {
    for (let p = told + 1; p < end; p++) if (!paired.has(p)) rows.push({ before: p, after: null });
    told = Math.max(told, end - 1);
  };
  for (let q = 1; q <= m; q++) {
    const p = ofAfter.get(q) ?? null;
    if (p !== null) goneUpTo(p);
    rows.push({ before: p, after: q });
  }
  goneUpTo(n + 1);
  return rows;
}
