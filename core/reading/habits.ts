/** Computes what blanks of one row, or blanks that are drawn alike on one page, have in common: where their captions are. */
import { DIRECTIONS, type Candidate, type Direction, type Outlook } from './sight';

/** How near a caption is to its blank at most, in points. */
const NEAR = 60;

/**
 * Returns on which side the captions of a row lie: whether roles stand before its first and behind its last blank, the mean
 * distances of words before and behind its blanks, and how many roles are named on either side.
 */
export function rowFactsOf(row: readonly Outlook[]): number[] {
  const by = (k: Outlook | undefined, side: 'left' | 'right') => {
    const near = k?.seen[side].find((s) => s.said.role);
    return near && !near.between && near.gap < NEAR ? 1 : 0;
  };
  const mean = (side: 'left' | 'right') =>
    row.reduce((n, k) => n + Math.min(NEAR, k.seen[side][0]?.gap ?? NEAR), 0) / Math.max(1, row.length);
  const named = (side: 'left' | 'right') => row.filter((k) => by(k, side)).length;
  return [
    by(row[0], 'left'),
    by(row[row.length - 1], 'right'),
    mean('left'),
    mean('right'),
    named('left') - named('right'),
    row.filter((k) => k.gaps.below < 14).length / Math.max(1, row.length),
    row.filter((k) => k.gaps.above < 24).length / Math.max(1, row.length),
  ];
}

/** Minimum width, in points, of a line to sign or write on; narrower blanks are for initials and checks. */
const WIDE = 75;

/** Returns a key that blanks drawn alike share: their page, how they are drawn, and whether they are wide. */
export const likenessOf = ({ page, judged }: Candidate) =>
  `${page} ${judged.blank.made} ${judged.blank.x1 - judged.blank.x0 >= WIDE}`;

/** Maximum distance of a caption from its blank in any direction, in points. */
export const BESIDE = 40;

/**
 * How much more it counts that all blanks have a caption on a side than that it is near: a caption over its line may be nearer to
 * the line before, but then the last line of the stack has none under it.
 */
const COMPLETE = 3;

/** Where the captions of blanks are that are drawn alike: as features, and as the side on which they are. */
export interface Habits {
  facts: number[];
  side: Direction;
}

/**
 * Returns where the captions of blanks are that are drawn alike. The facts are the number of blanks and, for each direction, the
 * mean distance of words and the share of blanks with words there that name a kind or role. The side is the direction in which
 * that share is largest; of nearly equal ones, the one in which the words are nearest.
 */
export function habitsOf(alike: readonly Outlook[]): Habits {
  const n = alike.length;
  const mean = (of: (k: Outlook) => number) => alike.reduce((sum, k) => sum + of(k), 0) / n;
  const facts = [Math.min(n, 30)];
  let [side, best]: [Direction, number] = ['left', -Infinity];
  for (const d of DIRECTIONS) {
    const gap = mean((k) => Math.min(BESIDE, k.seen[d][0]?.gap ?? BESIDE));
    const named = mean((k) => {
      const [first] = k.seen[d];
      return first && first.gap < BESIDE && !first.between && (first.said.kind ?? first.said.role) ? 1 : 0;
    });
    facts.push(gap, named);
    const score = COMPLETE * named - gap / BESIDE;
    if (score > best) [side, best] = [d, score];
  }
  return { facts, side };
}
