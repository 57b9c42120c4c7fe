/**
 * For values that must exist: where the surrounding code has made sure that a list is long enough or a value is
 * known, these functions say so, and throw an error that names it if it is not. They replace `!`, which only silences
 * the compiler.
 *
 * Knows nothing of packets or papers.
 */

export { groupBy } from './group';

/**
 * Returns the item of a list at a position from 0.
 *
 * @throws RangeError if the list is shorter
 * @example itemAt(['a', 'b'], 1) // 'b'
 */
export function itemAt<T>(list: ArrayLike<T>, index: number): T {
  const found = list[index];
  if (found === undefined) throw new RangeError(`no item ${index} in a list of ${list.length}`);
  return found;
}

/**
 * Returns the last item of a list that is not empty.
 *
 * @throws RangeError if it is empty
 */
export const lastOf = <T>(list: ArrayLike<T>): T => itemAt(list, list.length - 1);

/**
 * Returns a value that cannot be missing here.
 *
 * @param what  names it in the error: "the party of a mark"
 * @throws Error if it is missing
 */
export function sure<T>(value: T | null | undefined, what: string): T {
  if (value === null || value === undefined) throw new Error(`${what} is missing`);
  return value;
}

/** Returns the keys of an object that has no others than its type says. */
export const keysOf = <T extends object>(object: T) => Object.keys(object) as (keyof T & string)[];

/** Returns whether a text is one of an object's own keys. */
export const isKeyOf = <T extends object>(object: T, key: PropertyKey): key is keyof T => Object.hasOwn(object, key);

/** Returns whether a value is in a list. */
export const isOneOf = <const T>(list: readonly T[], value: unknown): value is T => list.some((one) => one === value);
