/** How two documents are related by their printed words: the same paper, the same with other values, another edition, or neither. */
import type { Rect } from '../paper/types';
import type { DocumentFacts } from '../packet/resolve';
import { matchWords, printedForm, wordsOf, type Word } from '../shelf';
import { itemAt } from '../sure';
import { isInBlank, isInFilled, isInPlace, type Spot } from './in-blank';
import { samePosition, withStayed } from './same-position';

/** `identical`: word for word; `filled`: only what is in blanks differs; `edition`: words differ; `other`: another document. */
export const RELATIONS = ['identical', 'filled', 'edition', 'other'] as const;
/** One of `RELATIONS`. */
export type RelationKind = (typeof RELATIONS)[number];

/** How a document differs from an earlier one. */
export interface Relation {
  kind: RelationKind;
  /** Number of printed words of the earlier document that are gone, and of words that are new, outside of blanks. */
  gone: number;
  added: number;
  /** Whether words stand in another order. */
  moved: boolean;
}

/** Least share of the printed words of each that two editions of a document have in common. */
const EDITION = 0.6;
/** Number of words of a title that count, how much higher than most words of the page they are, and how many must be there again. */
const TITLE = 12;
const HIGHER = 1.2;
const TITLE_AGAIN = 0.6;
/** How much lower than the highest words of a page those of its title may be: values are typed in type larger than the text, too. */
const LARGEST = 0.95;

/** Returns how a document is related to an earlier one. */
export function relationOf(before: DocumentFacts, after: DocumentFacts): Relation {
  const [was, now] = [wordsOf(before), wordsOf(after)];
  const signs = signsBetween(before, after);
  const equal = was.length === now.length && was.every((w, i) => w.printed === now[i]?.printed);
  if (equal && !signs.gone && !signs.added && before.pages.length === after.pages.length)
    return { kind: was.length ? 'identical' : 'other', gone: 0, added: 0, moved: false };
  // Words that are found by their letters and digits may still be printed otherwise: "$4,100" and "$41.00".
  const stayed = samePosition(was, now);
  const matched = matchWords(was, now);
  const went = closeGaps(was, now, stayed ? withStayed(stayed, matched) : matched).map((j, i) =>
    j >= 0 && was[i]?.printed !== now[j]?.printed ? -1 : j,
  );
  const came = new Int32Array(now.length).fill(-1);
  went.forEach((j, i) => {
    if (j >= 0) came[j] = i;
  });
  const gone =
    signs.gone + outsideBlanks({ of: was, to: now, went, own: before, others: after, stayed: stayed?.was ?? null });
  const added =
    signs.added +
    outsideBlanks({ of: now, to: was, went: came, own: after, others: before, stayed: stayed?.now ?? null });
  const kept = went.filter((j) => j >= 0).length;
  const isValue = (i: number) => isInBlank(before, itemAt(was, i));
  const moved = isMoved(went, isValue);
  const same = !gone && !added && !moved && before.pages.length === after.pages.length;
  const kind: RelationKind =
    kept < EDITION * (kept + gone) || kept < EDITION * (kept + added) || !hasTitle(was, went, isValue)
      ? 'other'
      : same
        ? 'filled'
        : 'edition';
  return { kind, gone, added, moved };
}

/** Returns how many signs without letters or digits ("\u2612", "$") only the earlier, and only the later of two documents has. */
function signsBetween(before: DocumentFacts, after: DocumentFacts): { gone: number; added: number } {
  const left = new Map<string, number>();
  const signsIn = (doc: DocumentFacts) =>
    doc.pages
      .flatMap((p) => p.words.filter((w) => !/[\p{L}\p{N}]/u.test(w)).map(printedForm))
      .filter((w) => !BLANK.test(w));
  for (const sign of signsIn(before)) left.set(sign, (left.get(sign) ?? 0) + 1);
  let added = 0;
  for (const sign of signsIn(after)) {
    const n = left.get(sign) ?? 0;
    if (n) left.set(sign, n - 1);
    else added++;
  }
  return { gone: [...left.values()].reduce((a, b) => a + b, 0), added };
}

/** What is drawn for a blank, or stands for words that are not read. */
const BLANK = /^[\s_.\u00b7\u2022-]*$/;

/** Returns whether the words of the earlier document's title are there again: those in larger type, or its first words. */
function hasTitle(was: readonly Word[], went: Int32Array, isValue: (i: number) => boolean): boolean {
  const first = was.flatMap(({ page, rect }, i) => (page === 1 && !isValue(i) ? [{ i, rect }] : []));
  const heights = first.map((w) => w.rect.h).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] ?? 0;
  const highest = heights.at(-1) ?? 0;
  const isLarge = ({ h }: Rect) => h > HIGHER * usual && h > LARGEST * highest;
  // A title has its line for itself; a value stands beside a caption.
  const small = new Set(first.flatMap(({ rect: r }) => (isLarge(r) ? [] : [Math.round((r.y + r.h / 2) / LINE)])));
  const isAlone = ({ y, h }: Rect) => {
    for (let line = Math.ceil(y / LINE); line * LINE <= y + h; line++) if (small.has(line)) return false;
    return true;
  };
  const large = first.filter(({ rect }) => isLarge(rect) && isAlone(rect));
  const title = (large.length ? large : first).slice(0, TITLE);
  return title.filter(({ i }) => itemAt(went, i) >= 0).length >= TITLE_AGAIN * title.length;
}

/** Within so many points, words are on one line. */
const LINE = 4;

/** Number of words that are looked ahead to go on after a word that differs. */
const AHEAD = 8;

/** Matches what is left between matched words: words that occur often are told apart by their order only. */
function closeGaps(was: readonly Word[], now: readonly Word[], went: Int32Array): Int32Array {
  const out = went.slice();
  const taken = new Uint8Array(now.length);
  for (const j of out) if (j >= 0) taken[j] = 1;
  let next = 0;
  for (let i = 0; i < was.length; i++) {
    const to = itemAt(out, i);
    if (to >= 0) {
      next = to + 1;
      continue;
    }
    for (let j = next; j < Math.min(now.length, next + AHEAD) && !taken[j]; j++) {
      if (now[j]?.text !== was[i]?.text) continue;
      out[i] = j;
      taken[j] = 1;
      next = j + 1;
      break;
    }
  }
  return out;
}

/** Number of words in a row by which it is told that a part was moved: single words cross each other in values. */
const PART = 4;

/** Returns whether parts of the text stand in another order. */
function isMoved(went: Int32Array, isValue: (i: number) => boolean): boolean {
  let [last, run] = [-1, 0];
  for (let i = 0; i < went.length; i++) {
    const j = itemAt(went, i);
    if (isValue(i)) {
      // Values do not count as moved text: the same name may stand in another blank now.
      run = 0;
      continue;
    }
    run = j >= 0 && i > 0 && j === itemAt(went, i - 1) + 1 ? run + 1 : j >= 0 ? 1 : 0;
    if (run < PART) continue;
    if (j < last) return true;
    last = j;
  }
  return false;
}

interface Side {
  of: readonly Word[];
  to: readonly Word[];
  went: Int32Array;
  /** The document that `of` are the words of, and the other one. */
  own: DocumentFacts;
  others: DocumentFacts;
  /** For each word of `of`, 1 if it stands at the same position in both; null if the layout is not the same. */
  stayed: Uint8Array | null;
}

/** How many words before and after a word are searched for the nearest one that both documents have. */
const NEIGHBORS = 12;

/** Returns the number of words that only one of two documents has and that are not values in blanks. */
function outsideBlanks({ of, to, went, own, others, stayed }: Side): number {
  let n = 0;
  for (const [i, word] of of.entries()) {
    if ((went[i] ?? -1) >= 0 || isInPlace(own, word)) continue;
    const there = placed(of, to, went, stayed, i);
    // A word in a filled blank is a value only if the other document has a filled blank there, too: otherwise the blank
    // itself is gone or new.
    const isValue = there && (isInPlace(others, there) || (isInFilled(own, word) && isInFilled(others, there)));
    if (!isValue) n++;
  }
  return n;
}

/** Returns where a word would be in the other document, by the nearest word that is in both, on its line if there is one. */
function placed(
  of: readonly Word[],
  to: readonly Word[],
  went: Int32Array,
  stayed: Uint8Array | null,
  i: number,
): Spot | null {
  const word = itemAt(of, i);
  // Words of its line tell best; a value that stands alone in a cell has none.
  let near: Spot | null = null;
  for (let away = 1; away <= NEIGHBORS; away++)
    for (const k of [i - away, i + away]) {
      const beside = of[k];
      const there = to[went[k] ?? -1];
      // A value may have been matched with the same value in another blank; only words that stayed tell the position.
      if (!beside || !there || beside.page !== word.page || stayed?.[k] === 0) continue;
      const { x, y, w, h } = word.rect;
      const rect = { x: x + there.rect.x - beside.rect.x, y: y + there.rect.y - beside.rect.y, w, h };
      if (Math.abs(beside.rect.y - word.rect.y) <= h) return { page: there.page, rect };
      near ??= { page: there.page, rect };
    }
  return near;
}
