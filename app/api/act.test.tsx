/** Acts: their answers are shown at once, and what they change is asked for again. */
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query';
import { act as during, renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { useAct } from './act';
import { keys } from './keys';

const client = new QueryClient({ defaultOptions: { queries: { retry: false, gcTime: Infinity } } });
const wrapper = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);
afterEach(() => client.clear());

test('what an act answers with stands under its key, without being asked for', async () => {
  const { result } = renderHook(() => useAct((name: string) => Promise.resolve({ name }), { shows: keys.deal('d1') }), {
    wrapper,
  });
  await during(async () => void (await result.current.mutateAsync('Harbor Row')));
  expect(client.getQueryData(keys.deal('d1'))).toEqual({ name: 'Harbor Row' });
});

test('a key that is known from the answer only is said by a function', async () => {
  const { result } = renderHook(
    () => useAct(() => Promise.resolve({ id: 'p9' }), { shows: (p) => [[keys.packet(p.id), p]] }),
    { wrapper },
  );
  await during(async () => void (await result.current.mutateAsync()));
  expect(client.getQueryData(keys.packet('p9'))).toEqual({ id: 'p9' });
});

test('an act that waits for a list is pending until the list is there, and renews all that begin with the key', async () => {
  let n = 0;
  let answer = () => {};
  const ask = () => (n++ ? new Promise<number>((done) => (answer = () => done(2))) : Promise.resolve(1));
  const { result } = renderHook(
    () => ({
      list: useQuery({ queryKey: keys.dealList({ tag: 'x' }), queryFn: ask }),
      remove: useAct(() => Promise.resolve(), { waitsFor: [keys.deals] }),
    }),
    { wrapper },
  );
  await waitFor(() => expect(result.current.list.data).toBe(1));
  await during(async () => result.current.remove.mutate());
  await waitFor(() => expect(n).toBe(2));
  expect(result.current.remove.isPending).toBe(true);
  await during(async () => answer());
  await waitFor(() => expect(result.current.remove.isPending).toBe(false));
  expect(result.current.list.data).toBe(2);
});

test('an act that was refused shows nothing and renews nothing', async () => {
  client.setQueryData(keys.deal('d1'), 'before');
  const done = jest.fn();
  const { result } = renderHook(
    () => useAct(() => Promise.reject(new Error('no')), { shows: keys.deal('d1'), onDone: done }),
    { wrapper },
  );
  await during(async () => void (await result.current.mutateAsync().catch(() => undefined)));
  expect([client.getQueryData(keys.deal('d1')), done.mock.calls.length]).toEqual(['before', 0]);
});
