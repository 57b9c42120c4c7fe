import type { Context } from './context';

/**
 * Returns a function that gives each context a value of its own, made when it is first asked for. What a server has
 * seen (caches, counters) belongs to its context: two servers in one process share nothing but what is the same for
 * everyone, such as fonts, and files and states that are found by their hash.
 *
 * @example
 * const cacheOf = perContext(() => new LRUCache<string, Comparison>({ max: 60 }));
 * cacheOf(ctx).get(key);
 */
export function perContext<T>(make: () => T): (ctx: Context) => T {
  const made = new WeakMap<Context, T>();
  return (ctx) => {
    let value = made.get(ctx);
    if (value === undefined) made.set(ctx, (value = make()));
    return value;
  };
}
