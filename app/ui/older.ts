/** Older items of a list, asked for as its end nears. */
import { useEffect, useRef, useState } from 'react';

/** How often older items are asked for at one length of a list: one that does not grow is not asked for ever. */
const MOST_TIMES = 30;

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
  // The length at which more is wanted, and how often it was asked for there.
  const wanted = useRef({ at: -1, times: 0 });
  const [turn, setTurn] = useState(0);
  const { isFetching, isError, hasNextPage, fetchNextPage } = list;
  const isDue = hasNextPage && !isFetching && !isError;
  const ask = () => {
    if (wanted.current.times++ > MOST_TIMES) return;
    // It may have been put off without anybody hearing of it: what was under way ended in the same moment.
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
