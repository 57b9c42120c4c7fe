/** A list to whose end one came while there was news goes on all the same. */
import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { act, screen, waitFor } from '@testing-library/react';
import { Text } from 'react-native';
import { show } from '../test/office';
import { useOlder } from './older';

let end: () => void;
let news: () => Promise<void>;

function Ten() {
  const client = useQueryClient();
  const list = useInfiniteQuery({
    queryKey: ['ten'],
    initialPageParam: 0,
    queryFn: async ({ pageParam, signal }) => {
      await new Promise((done) => setTimeout(done, 20));
      if (signal.aborted) throw new Error('put off');
      return { items: [`item ${pageParam}`], next: pageParam < 9 ? pageParam + 1 : null };
    },
    getNextPageParam: (last) => last.next,
  });
  end = useOlder(list);
  news = () => client.invalidateQueries({ queryKey: ['ten'] });
  return <Text>{list.data?.pages.flatMap((p) => p.items).join(', ') ?? 'nothing'}</Text>;
}

test('the end is said once; news before and after it put it off, and it comes', async () => {
  show(<Ten />, () => ({}));
  await screen.findByText('item 0');
  act(() => void news());
  await new Promise((done) => setTimeout(done, 5));
  act(() => end());
  act(() => void news());
  await screen.findByText('item 0, item 1');
  act(() => end());
  act(() => void news());
  await screen.findByText('item 0, item 1, item 2');
  // Only what was called for.
  await new Promise((done) => setTimeout(done, 150));
  await waitFor(() => expect(screen.queryByText('item 0, item 1, item 2')).not.toBeNull());
});
