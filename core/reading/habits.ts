/** Computes what blanks of one row, or blanks that are drawn alike on one page, have in common: where their captions are. */
import type { PaperContext } from './asked';
import { DIRECTIONS, isTaken, roleSaid, type Candidate, type Direction, type Outlook } from './sight';
import type { RoleRead } from './words';

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

/** Who is named next to a blank, on the side where blanks that are drawn alike name people. */
export interface Naming {
  role: RoleRead | null;
  /** The index of the side in `DIRECTIONS`; -1 if no side names anybody. */
  side: number;
  /** The share of the blanks that have somebody named on that side, and the next largest share of a side. */
  share: number;
  next: number;
}

export const NOBODY: Naming = { role: null, side: -1, share: 0, next: 0 };

/**
 * Returns, for each of the blanks that are drawn alike, who is named on the side where most of them name somebody. Names of
 * people may be under the lines while other captions are before them; and under each line but the last, the name is over the
 * next line, too: the side on which no line lacks one is the right one.
 */
export function namingOf(alike: readonly (Outlook & { c: Candidate })[]): Naming[] {
  const named = DIRECTIONS.map((d) =>
    alike.map(({ seen, c }) => {
      const found = seen[d].find((s) => s.said.role);
      const near = found && found.gap < BESIDE && !found.between && !isTaken(found.said, c.judged.blank);
      return near ? found.said.role : null;
    }),
  );
  const shares = named.map((of) => of.filter(Boolean).length / alike.length);
  const share = Math.max(...shares);
  if (!share) return alike.map(() => NOBODY);
  const side = shares.indexOf(share);
  const next = Math.max(...shares.filter((_, i) => i !== side));
  return alike.map((_, i) => ({ role: named[side]?.[i] ?? null, side, share, next }));
}

/** Characters and words between the entries of a list of people. */
const BETWEEN_PEOPLE = /[/,;&|]|\band\b|\by\b/;
/** Number of characters of a list that are examined. */
const MOST_LISTED = 120;

/**
 * Returns who is listed behind or before the blanks of a row, one for each blank in the same order, as in
 * "( ____ / ____ ) Listing broker / Buyer's broker"; null if there is no such list.
 */
export function listedOf(row: readonly Outlook[], paper: PaperContext): RoleRead[] | null {
  if (row.length < 2) return null;
  const ends = [row[row.length - 1]?.seen.right[0], row[0]?.seen.left[0]];
  for (const end of ends) {
    if (!end || end.between || end.gap > BESIDE || end.said.phrase.text.length > MOST_LISTED) continue;
    const parts = end.said.phrase.text.split(BETWEEN_PEOPLE).filter((part) => /[a-z]/i.test(part));
    if (parts.length !== row.length) continue;
    const people = parts.map((part) => roleSaid(part.replace(/[()[\]]/g, '').trim(), paper));
    if (!people.every((r) => r !== null)) continue;
    return people.map((r, i) => ({
      role: r.role,
      ordinal: r.ordinal ?? people.slice(0, i + 1).filter((o) => o.role === r.role).length,
    }));
  }
  return null;
}
