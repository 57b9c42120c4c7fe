/** News that comes without end: what is shown is asked for one time after the other, and the last news is not missed. */
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act, render, screen, waitFor } from '@testing-library/react';
import { Text } from 'react-native';
import { useLive, type News } from './live';

let tell: () => void = () => undefined;
// Only what a screen calls of it.
const news = {
  hear: (_topic: string, hear: (seq: number | null) => void) => {
    tell = () => hear(null);
    return () => (tell = () => undefined);
  },
} as unknown as News;

let truth = 0;
let asked = 0;
let ended = 0;

function Shown() {
  useLive(news, 'deal:a', ['deal:a']);
  const { data } = useQuery({
    queryKey: ['deal:a'],
    queryFn: async () => {
      asked++;
      const said = truth;
      await new Promise((done) => setTimeout(done, 60));
      ended++;
      return said;
    },
  });
  return <Text>{`says ${data ?? 'nothing'}`}</Text>;
}

test('a storm of news puts off no answer, and what it told of last is shown', async () => {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <Shown />
    </QueryClientProvider>,
  );
  await screen.findByText('says 0');
  // News every ten milliseconds, an answer takes sixty.
  for (let n = 1; n <= 60; n++) {
    truth = n;
    act(() => tell());
    await act(() => new Promise((done) => setTimeout(done, 10)));
  }
  // While it lasted there were answers, each brought to its end.
  expect([ended > 1, asked - ended <= 1, asked < 12]).toEqual([true, true, true]);
  await waitFor(() => expect(screen.queryByText('says 60')).not.toBeNull(), { timeout: 3_000 });
});
