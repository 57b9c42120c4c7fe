/** Which page of a new file is which page of the old one, by their words. */
import { pairBest, type ScoredPair } from '../paper/pair-best';
import { itemAt } from '../sure';
import { plain } from './words';

/** Returns the words of a page as a set of pairs, which distinguish pages of one form better than single words. */
function pairs(text: string): Set<string> {
  const words = plain(text)
    .replace(/[^a-z0-9 ]+/g, ' ')
    .split(/\s+/)
    .filter(Boolean);
  const out = new Set<string>();
  for (let i = 0; i + 1 < words.length; i++) out.add(`${words[i]} ${words[i + 1]}`);
  if (words.length === 1) out.add(itemAt(words, 0));
  return out;
}

/** Returns the share of pairs that two pages have in common (Jaccard), 0 to 1. */
function likeness(a: Set<string>, b: Set<string>): number {
  if (!a.size && !b.size) return 0.5;
  let both = 0;
  for (const p of a) if (b.has(p)) both++;
  return both / (a.size + b.size - both);
}

/** Minimum share for two pages to be the same. */
const ALIKE = 0.35;

/**
 * Matches old pages to new ones by their text, each at most once, most similar first. Of equally similar pages it
 * takes the one at the same distance from the start.
 *
 * @returns for each old page the index of its new page, or null if it is gone
 */
export function matchPages(before: string[], after: string[]): (number | null)[] {
  const old = before.map(pairs);
  const fresh = after.map(pairs);
  const scored: ScoredPair[] = [];
  old.forEach((x, a) =>
    fresh.forEach((y, b) => {
      const score = likeness(x, y);
      if (score >= ALIKE) scored.push({ a, b, score: score - 0.001 * Math.abs(a - b) });
    }),
  );
  const partners = pairBest(scored);
  return before.map((_, i) => partners.get(i) ?? null);
}
