/**
 * One-time codes: six digits sent to somebody's address. What is right, too old or one try too many is decided here for
 * the second step of a party and for a person's own page alike. A code is used once; tries are counted per person.
 */
import { randomInt } from 'node:crypto';
import { CODE_MINUTES } from '@gatepath/contract';

/**
 * Number of wrong codes in a row that lock a person out: of a signing link until the sender lets them try again, of
 * their own page for half an hour.
 */
export const MAX_TRIES = 5;
/** How soon another code may be sent, in milliseconds. */
export const CODE_AGAIN_MS = 60_000;
/** How long the same code, sent again by a form that was submitted twice, counts as right, in milliseconds. */
const REPEATED_MS = 15_000;

/** What is stored of a person's code. */
export interface CodeRow {
  /** The keyed hash of the code that was sent; null when there is none, or it was used. */
  code_hash: string | null;
  code_at: Date | null;
  /** Wrong codes since the last right one. */
  tries: number;
  /** The code that was used last, and when, where a repeated submission counts as one. */
  used_hash?: string | null;
  used_at?: Date | null;
}

/** What a code that was given is. */
export type CodeVerdict =
  | { is: 'right'; repeated: boolean }
  | { is: 'old' }
  | { is: 'wrong'; /** Wrong codes, this one included. */ tries: number; locked: boolean };

/** Returns a new code of six digits. */
export const newCode = () => String(randomInt(0, 1_000_000)).padStart(6, '0');

/** Returns the digits of what was typed: people copy codes with spaces and hyphens. */
export const digitsOf = (given: string) => given.replace(/\D/g, '');

/** Returns whether a code was sent so recently that no other may be sent yet. */
export function sentJustNow(row: CodeRow | null, now: Date): boolean {
  return !!row?.code_hash && !!row.code_at && now.getTime() - row.code_at.getTime() < CODE_AGAIN_MS;
}

/** Returns the verdict on a code that was given, by its keyed hash. */
export function judgeCode(row: CodeRow | null, givenHash: string, now: Date): CodeVerdict {
  const since = (at: Date | null | undefined) => (at ? now.getTime() - at.getTime() : Infinity);
  if (row?.used_hash === givenHash && since(row.used_at) < REPEATED_MS) return { is: 'right', repeated: true };
  if (row?.code_hash !== givenHash) return wrongTry(row);
  return since(row.code_at) > CODE_MINUTES * 60_000 ? { is: 'old' } : { is: 'right', repeated: false };
}

/** Returns the verdict on a wrong code. */
export function wrongTry(row: CodeRow | null): CodeVerdict & { is: 'wrong' } {
  const tries = (row?.tries ?? 0) + 1;
  return { is: 'wrong', tries, locked: tries >= MAX_TRIES };
}
