/**
 * Acts that can be undone for a few seconds: they are done when the time is over, when the screen is left or when the
 * page is closed, whichever comes first, so that none is lost.
 */
import { useCallback, useEffect, useRef, useState } from 'react';

/** How long an act can be undone, in milliseconds. */
const WAIT_MS = 6_000;

export interface Later {
  id: string;
  /** What was done, in words: "Nudged Priya". */
  said: string;
}

interface Waiting extends Later {
  run: () => void;
  timer: ReturnType<typeof setTimeout>;
}

export function useLater() {
  const waiting = useRef(new Map<string, Waiting>());
  const [shown, setShown] = useState<Later[]>([]);
  const tell = useCallback(() => setShown([...waiting.current.values()].map(({ id, said }) => ({ id, said }))), []);
  const finish = useCallback(
    (id: string) => {
      const w = waiting.current.get(id);
      if (!w) return;
      clearTimeout(w.timer);
      waiting.current.delete(id);
      tell();
      w.run();
    },
    [tell],
  );
  useEffect(() => {
    const all = waiting.current;
    const flush = () => [...all.keys()].forEach(finish);
    window.addEventListener('pagehide', flush);
    return () => {
      window.removeEventListener('pagehide', flush);
      flush();
    };
  }, [finish]);
  return {
    /** Acts that can still be undone, oldest first. */
    shown,
    /** Does something after a while; the same act again while it waits counts once. */
    later: useCallback(
      (id: string, said: string, run: () => void) => {
        if (waiting.current.has(id)) return;
        waiting.current.set(id, { id, said, run, timer: setTimeout(() => finish(id), WAIT_MS) });
        tell();
      },
      [finish, tell],
    ),
    takeBack: useCallback(
      (id: string) => {
        const w = waiting.current.get(id);
        if (w) clearTimeout(w.timer);
        waiting.current.delete(id);
        tell();
      },
      [tell],
    ),
  };
}
