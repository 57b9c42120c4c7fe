/** The kinds of marks, and what is asked of them. */
import { ENGLISH, say, type Words } from '../../words';
import { MARK_KINDS, type Mark, type MarkKind } from '../types';
import { tidied, type ValueResult } from '../values';
import type { Filled } from './kind';
import { KINDS } from './table';

export type { Asks, AtFinish, Filled, Keyboard, Kind } from './kind';

export { KINDS };

/** Returns how a mark of a kind is filled. */
export const filledHow = (kind: MarkKind): Filled => KINDS[kind].filled;

/** Returns whether the product fills a kind by itself when its party finishes. */
export const isAutomatic = (kind: MarkKind): boolean => filledHow(kind).by === 'itself';

/** Returns whether a kind takes the party's hand. */
export const takesHand = (kind: MarkKind): boolean => filledHow(kind).by === 'hand';

/** Returns whether a kind takes written words or numbers. */
export const takesText = (kind: MarkKind): boolean => filledHow(kind).by === 'writing';

/** Returns whether a kind is text of the sender and belongs to no party. */
export const isSenders = (kind: MarkKind): boolean => filledHow(kind).by === 'sender';

/** Returns which form of the hand a kind takes; the signature if it takes none. */
export function handOf(kind: MarkKind): 'signature' | 'initials' {
  const filled = filledHow(kind);
  return filled.by === 'hand' ? filled.as : 'signature';
}

/** Returns whether a kind identifies a party and that it signed, whatever the form asks for. */
export const isOwn = (kind: MarkKind): boolean => KINDS[kind].kin === 'own';

/** Returns the kinds a mark can become without losing its meaning, itself included; none for many kinds. */
export function kinOf(kind: MarkKind): MarkKind[] {
  const { kin } = KINDS[kind];
  return kin ? MARK_KINDS.filter((k) => KINDS[k].kin === kin) : [];
}

/** Returns whether the value of a mark is the sender's and cannot be changed: a label, or a fixed value. */
export const isFixed = (mark: Pick<Mark, 'kind' | 'readOnly'>): boolean => isSenders(mark.kind) || !!mark.readOnly;

/** Returns whether the client has to do something about a mark; false for a label and for a fixed value. */
export function isForClient(mark: Pick<Mark, 'kind' | 'readOnly'>): boolean {
  return !isFixed(mark) && !isAutomatic(mark.kind);
}

/**
 * Checks what a client wrote into a mark and brings it into the form it is shown in: sums as "$1,250.00", numbers with
 * thousands, days as "Nov 23, 2026".
 *
 * @param raw    as typed; days as ISO 8601 (2026-11-23) or as month/day/year
 * @param words  the language of who writes; what stands in the mark is the same in all of them
 */
export function validateValue(
  mark: Pick<Mark, 'kind' | 'check' | 'options' | 'lines'>,
  raw: string,
  words: Words = ENGLISH,
): ValueResult {
  const filled = filledHow(mark.kind);
  const tidy = tidied(mark, raw, (key, params) => say(words, key, params));
  return 'sentence' in tidy || filled.by !== 'writing' ? tidy : filled.check(tidy.wanted);
}
