/** Sending in a colleague's name, as hooks. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client';

const KEY = ['colleagues'];

/** Who may send in the member's name, and in whose name they may; and saying so anew. */
export function useColleagues() {
  const client = useQueryClient();
  const colleagues = useQuery({ queryKey: KEY, queryFn: () => call('colleagues'), staleTime: 60_000 });
  const set = useMutation({
    mutationFn: (lets: string[]) => call('setLets', { body: { lets } }),
    onSuccess: (view) => client.setQueryData(KEY, view),
  });
  return { colleagues, set };
}
