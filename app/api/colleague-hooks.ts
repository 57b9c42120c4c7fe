/** Sending in a colleague's name, as hooks. */
import { useQuery } from '@tanstack/react-query';
import { useAct } from './act';
import { call } from './client';
import { keys } from './keys';

/** Queries who may send in the member's name, and in whose name the member may send. */
export const useColleagues = () => ({
  colleagues: useQuery({ queryKey: keys.colleagues, queryFn: () => call('colleagues'), staleTime: 60_000 }),
  set: useAct((lets: string[]) => call('setLets', { body: { lets } }), { shows: keys.colleagues }),
});
