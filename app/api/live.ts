import { useEffect } from 'react';
import { useQueryClient, type QueryKey } from '@tanstack/react-query';

/** Asks again for `key` whenever the server says on `url` that something changed. */
export function useLive(url: string | null, key: QueryKey): void {
  const client = useQueryClient();
  const name = JSON.stringify(key);
  useEffect(() => {
    if (!url || typeof EventSource === 'undefined') return;
    const source = new EventSource(url);
    let first = true;
    source.onmessage = () => void client.invalidateQueries({ queryKey: JSON.parse(name) as QueryKey });
    // After a lost connection there may be news that was missed.
    source.onopen = () => {
      if (!first) void client.invalidateQueries({ queryKey: JSON.parse(name) as QueryKey });
      first = false;
    };
    return () => source.close();
  }, [url, name, client]);
}
