/** The shelf as hooks: forms and kits, and using a kit on a deal. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { SaveToShelfBody, KitBody, KitUseBody, ShelfPatch, WrittenFormBody } from '@gatepath/contract';
import { call } from './client';
import { useAct } from './act';
import { pageAfter } from './hooks';
import { keys } from './keys';
import { officeNews, useLive } from './live';

export type ShelfKind = 'form' | 'kit';
export type KitChanges = Omit<KitUseBody, 'send' | 'despiteWarnings' | 'saveValues'>;

/** Queries the forms or kits, by name, page by page. */
export function useShelf(what: ShelfKind, search: string, retired = false) {
  return useInfiniteQuery({
    queryKey: keys.shelfList(what, search, retired),
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call('shelf', { query: { what, retired, ...(search ? { search } : {}), ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
  });
}

/** Queries a form or kit; refetched whenever it changes. */
export function useShelfItem(id: string) {
  useLive(officeNews, id ? `shelf:${id}` : null, keys.shelfItem(id));
  return useQuery({
    queryKey: keys.shelfItem(id),
    queryFn: () => call('shelfItem', { params: { shelfId: id } }),
    enabled: !!id,
    // Its paper is read in the background.
    refetchInterval: (q) => (q.state.data?.documents.some((d) => d.status === 'reading') ? 800 : false),
  });
}

/** Makes a new item of the shelf: a kit of forms, a written form, or a form or kit from a packet. */
export function useNewOnShelf() {
  const renews = [keys.shelf];
  return {
    kit: useAct((body: KitBody) => call('newKit', { body }), { renews }),
    written: useAct((body: WrittenFormBody) => call('newWritten', { body }), { renews }),
    keep: useAct((body: SaveToShelfBody) => call('addToShelf', { body }), { renews }),
  };
}

/** Returns the mutations that act on a form or kit as a whole. */
export function useShelfActs(shelfId: string) {
  const params = { shelfId };
  const item = { shows: keys.shelfItem(shelfId), renews: [keys.shelf] };
  return {
    set: useAct((body: ShelfPatch) => call('setShelfItem', { params, body }), item),
    put: useAct((version: number) => call('putOnShelf', { params, body: { version } }), item),
    drop: useAct(() => call('deleteShelfItem', { params }), { renews: [keys.shelf] }),
  };
}

/** Queries kits for a deal, first those that meet what it needs. */
export function useDealKits(dealId: string, enabled: boolean) {
  return useQuery({
    queryKey: keys.dealKits(dealId),
    queryFn: () => call('dealKits', { params: { dealId } }),
    enabled,
  });
}

/** Queries the preview of a kit on a deal. */
export function useKitTrial(dealId: string, kitId: string, changes: KitChanges) {
  return useQuery({
    queryKey: keys.kitTrial(dealId, kitId, changes),
    queryFn: () => call('tryKit', { params: { dealId, shelfId: kitId }, body: changes }),
    placeholderData: (was) => was,
    gcTime: 0,
  });
}

/** Makes a packet from a kit, sent or as a draft. */
export const useKit = (dealId: string, kitId: string) =>
  useAct((body: KitUseBody) => call('useKit', { params: { dealId, shelfId: kitId }, body }), {
    shows: (packet) => [[keys.packet(packet.id), packet]],
    renews: [keys.deals, keys.deal(dealId)],
  });
