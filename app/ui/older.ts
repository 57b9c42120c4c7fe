/** Older items of a list, asked for as its end nears. */
import { useEffect, useRef } from 'react';

/** What of a list that comes in pages says whether there is more, and fetches it. */
export interface Older {
  data?: { pages: { items: unknown[] }[] };
  isFetching: boolean;
  isError: boolean;
  hasNextPage: boolean;
  fetchNextPage: (how: { cancelRefetch: boolean }) => unknown;
}

/**
 * What is called when the end of a list is near.
 *
 * A list says so only once for each length it has. A call that comes while the list is asked for anew (there was
 * news) would put that off or be put off by the next news, and then nobody would ever call again: so it waits, and is
 * made when nothing else is under way.
 */
export function useOlder(list: Older): () => void {
  const length = list.data?.pages.reduce((sum, page) => sum + page.items.length, 0) ?? 0;
  const wanted = useRef(-1);
  const { isFetching, isError, hasNextPage, fetchNextPage } = list;
  const isDue = hasNextPage && !isFetching && !isError;
  useEffect(() => {
    // Still wanted at this length: it was put off, or what was asked for never came.
    if (isDue && wanted.current === length) void fetchNextPage({ cancelRefetch: false });
  }, [isDue, length, fetchNextPage]);
  return () => {
    wanted.current = length;
    if (hasNextPage && !isFetching) void fetchNextPage({ cancelRefetch: false });
  };
}
