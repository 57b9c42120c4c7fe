/** Batching look-ups: one statement for many callers that each need one row. */
import { outsideTransactions } from './tx';

interface Asked<V> {
  resolve(value: V | null): void;
  reject(error: unknown): void;
}

/** Maximum number of keys per statement. */
const MOST = 500;

/**
 * Returns a look-up of one key that batches concurrent callers: those that ask while a statement runs, or in the same
 * turn of the event loop, share the next one.
 */
export function gathered<V>(load: (keys: string[]) => Promise<Map<string, V>>): (key: string) => Promise<V | null> {
  const waiting = new Map<string, Asked<V>[]>();
  let working = false;
  const work = async () => {
    await new Promise((r) => setImmediate(r));
    while (waiting.size) {
      const batch = new Map([...waiting].slice(0, MOST));
      for (const key of batch.keys()) waiting.delete(key);
      try {
        const found = await load([...batch.keys()]);
        for (const [key, asked] of batch) for (const a of asked) a.resolve(found.get(key) ?? null);
      } catch (error) {
        for (const asked of batch.values()) for (const a of asked) a.reject(error);
      }
    }
    working = false;
  };
  return (key) =>
    new Promise((resolve, reject) => {
      outsideTransactions('A look-up together with others');
      const asked = waiting.get(key);
      if (asked) asked.push({ resolve, reject });
      else waiting.set(key, [{ resolve, reject }]);
      if (working) return;
      working = true;
      void work();
    });
}
