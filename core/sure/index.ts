/**
 * For what must be there: where the code around it has made sure that a list is long enough or a thing
 * is known, these say so, and fail by name, at the place, if it turns out not to be true. They
 * stand in place of a `!`, which only silences the compiler.
 *
 * Knows nothing of packets or papers.
 */

export { groupBy } from './group';

/**
 * The item of a list at a position from 0.
 *
 * @throws RangeError when the list is shorter
 * @example itemAt(['a', 'b'], 1) // 'b'
 */
export function itemAt<T>(list: ArrayLike<T>, index: number): T {
  const found = list[index];
  if (found === undefined) throw new RangeError(`no item ${index} in a list of ${list.length}`);
  return found;
}

/**
 * The last item of a list that is not empty.
 *
 * @throws RangeError when it is empty
 */
export const lastOf = <T>(list: ArrayLike<T>): T => itemAt(list, list.length - 1);

/**
 * A value that cannot be missing here.
 *
 * @param what  names it in the error: "the party of a mark"
 * @throws Error when it is missing
 */
export function sure<T>(value: T | null | undefined, what: string): T {
  if (value === null || value === undefined) throw new Error(`${what} is missing`);
  return value;
}

/** The keys of an object that has no others than its type says. */
export const keysOf = <T extends object>(object: T) => Object.keys(object) as (keyof T & string)[];

/** Whether a text is one of an object's own keys. */
export const isKeyOf = <T extends object>(object: T, key: PropertyKey): key is keyof T => Object.hasOwn(object, key);

/** Whether a value is one of a list's. */
export const isOneOf = <const T>(list: readonly T[], value: unknown): value is T => list.some((one) => one === value);
