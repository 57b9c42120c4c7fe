/** Contracts that were added to open a deal, as hooks. */
import { useQuery } from '@tanstack/react-query';
import type { IncomingView, OpenIncomingBody, StatedBody } from '@gatepath/contract';
import { useAct } from './act';
import { call } from './client';
import { keys } from './keys';
import { officeNews, useLive } from './live';

/** Queries the member's contracts that have not become deals. */
export const useIncomingList = () => useQuery({ queryKey: keys.incoming, queryFn: () => call('incoming') });

/** Queries a contract; refetched as its pages are read. */
export function useIncoming(id: string) {
  useLive(officeNews, id ? `incoming:${id}` : null, keys.incomingContract(id));
  return useQuery({
    queryKey: keys.incomingContract(id),
    queryFn: () => call('incomingContract', { params: { incomingId: id } }),
    enabled: !!id,
    refetchInterval: (q) => (q.state.data?.status === 'reading' ? 800 : false),
  });
}

/** Adds a contract. @param send sends the file; a busy server is tried again by whoever passes it */
export const useAddIncoming = (send: (file: File) => Promise<IncomingView>) =>
  useAct(send, {
    shows: (view) => [[keys.incomingContract(view.id), view]],
  });

/** Opens the deal of a contract, or discards the contract. */
export function useIncomingActs(id: string) {
  const params = { incomingId: id };
  return {
    open: useAct((body: OpenIncomingBody) => call('openIncoming', { params, body }), {
      shows: (deal) => [[keys.deal(deal.id), deal]],
      renews: [keys.deals, keys.incoming],
    }),
    discard: useAct(() => call('discardIncoming', { params }), { renews: [keys.incoming] }),
  };
}

/** Accepts or dismisses what a document states otherwise than its deal. */
export const useActOnStated = (dealId: string) =>
  useAct((body: StatedBody) => call('actOnStated', { params: { dealId }, body }), {
    shows: keys.deal(dealId),
    renews: [keys.today, keys.deals, keys.activity(dealId)],
  });
