/** Looking up one row for each of many who ask at once, with one statement. */
import { outsideTransactions } from './tx';

interface Asked<V> {
  resolve(value: V | null): void;
  reject(error: unknown): void;
}

/** Keys that go into one statement at most. */
const MOST = 500;

/**
 * Makes a look-up of one key out of one of many: whoever asks while a statement is under way, or in
 * the same turn of the loop, is answered by the next one together.
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
