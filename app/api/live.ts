import { useEffect } from 'react';
import { useQueryClient, type QueryKey } from '@tanstack/react-query';

/**
 * Asks again for `key` whenever the server says on `url` that something changed.
 *
 * @param isKnown  whether the screen has what the log says up to a number already; then nothing is asked
 */
export function useLive(
  url: string | null,
  key: QueryKey,
  isKnown?: (seq: number) => boolean | Promise<boolean>,
): void {
  const client = useQueryClient();
  const name = JSON.stringify(key);
  useEffect(() => {
    if (!url || typeof EventSource === 'undefined') return;
    const source = new EventSource(url);
    let first = true;
    const ask = () => void client.invalidateQueries({ queryKey: JSON.parse(name) });
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const seq = Number(data);
      if (!isKnown || !Number.isInteger(seq)) return ask();
      void Promise.resolve(isKnown(seq)).then((known) => {
        if (!known) ask();
      });
    };
    // After a lost connection there may be news that was missed.
    source.onopen = () => {
      if (!first) ask();
      first = false;
    };
    return () => source.close();
  }, [url, name, client, isKnown]);
}
