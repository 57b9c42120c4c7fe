/** Older items of a list, fetched as its end nears. */
import { useEffect, useRef, useState } from 'react';

/** Maximum number of fetches at one length of a list: one that does not grow is not asked forever. */
const MOST_TIMES = 30;

/** Of a list that comes in pages: whether there is more, and the function that fetches it. */
export interface Older {
  data?: { pages: { items: unknown[] }[] };
  isFetching: boolean;
  isError: boolean;
  hasNextPage: boolean;
  fetchNextPage: (how: { cancelRefetch: boolean }) => unknown;
}

/**
 * Returns the handler for when the end of a list is near.
 *
 * A list reports its end only once for each length. A fetch while the list is refetched (there was news) would cancel
 * it or be cancelled by the next news, and the end would never be reported again: so it waits until nothing else is
 * under way.
 */
export function useOlder(list: Older): () => void {
  const length = list.data?.pages.reduce((sum, page) => sum + page.items.length, 0) ?? 0;
  // The length at which more is wanted, and how often it was asked for there.
  const wanted = useRef({ at: -1, times: 0 });
  const [turn, setTurn] = useState(0);
  const { isFetching, isError, hasNextPage, fetchNextPage } = list;
  const isDue = hasNextPage && !isFetching && !isError;
  const ask = () => {
    if (wanted.current.times++ > MOST_TIMES) return;
    // The fetch may have been cancelled silently: the one under way ended at the same moment.
    void Promise.resolve(fetchNextPage({ cancelRefetch: false })).finally(() => setTurn((n) => n + 1));
  };
  useEffect(() => {
    if (isDue && wanted.current.at === length) ask();
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `ask` is another one each time and does the same
  }, [isDue, length, turn]);
  return () => {
    if (wanted.current.at !== length) wanted.current = { at: length, times: 0 };
    if (hasNextPage && !isFetching) ask();
  };
}
