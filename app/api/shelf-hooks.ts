/** The shelf as hooks: forms and kits, and what a kit makes of a deal. */
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  SaveToShelfBody,
  KitBody,
  KitUseBody,
  PacketView,
  ShelfItemView,
  ShelfPatch,
  WrittenFormBody,
} from '@gatepath/contract';
import { call } from './client';
import { keys, pageAfter } from './hooks';
import { officeNews, useLive } from './live';

export type ShelfKind = 'form' | 'kit';
export type KitChanges = Omit<KitUseBody, 'send' | 'despiteWarnings' | 'saveValues'>;

export const shelfKeys = {
  list: (what: ShelfKind, search: string, retired: boolean) => ['shelf', what, search, retired],
  item: (id: string) => ['shelf-item', id],
  kits: (dealId: string) => ['deal', dealId, 'kits'],
  trial: (dealId: string, kitId: string, changes: object) => ['trial-kit', dealId, kitId, changes],
} as const;

/** The forms or the kits, by name, page by page. */
export function useShelf(what: ShelfKind, search: string, retired = false) {
  return useInfiniteQuery({
    queryKey: shelfKeys.list(what, search, retired),
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call('shelf', { query: { what, retired, ...(search ? { search } : {}), ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
  });
}

/** A form or a kit, asked for again whenever it changes. */
export function useShelfItem(id: string) {
  useLive(officeNews, id ? `shelf:${id}` : null, shelfKeys.item(id));
  return useQuery({
    queryKey: shelfKeys.item(id),
    queryFn: () => call('shelfItem', { params: { shelfId: id } }),
    enabled: !!id,
    // Its paper is read in the background.
    refetchInterval: (q) => (q.state.data?.documents.some((d) => d.status === 'reading') ? 800 : false),
  });
}

/** What is made new: a kit of forms, or what a packet leaves behind. */
export function useNewOnShelf() {
  const client = useQueryClient();
  const onSuccess = () => void client.invalidateQueries({ queryKey: ['shelf'] });
  return {
    kit: useMutation({ mutationFn: (body: KitBody) => call('newKit', { body }), onSuccess }),
    written: useMutation({ mutationFn: (body: WrittenFormBody) => call('newWritten', { body }), onSuccess }),
    keep: useMutation({ mutationFn: (body: SaveToShelfBody) => call('addToShelf', { body }), onSuccess }),
  };
}

/** What is done with a form or a kit as a whole. */
export function useShelfActs(shelfId: string) {
  const client = useQueryClient();
  const params = { shelfId };
  const onSuccess = (item: ShelfItemView) => {
    client.setQueryData(shelfKeys.item(shelfId), item);
    void client.invalidateQueries({ queryKey: ['shelf'] });
  };
  return {
    set: useMutation({ mutationFn: (body: ShelfPatch) => call('setShelfItem', { params, body }), onSuccess }),
    put: useMutation({ mutationFn: (version: number) => call('putOnShelf', { params, body: { version } }), onSuccess }),
    drop: useMutation({
      mutationFn: () => call('deleteShelfItem', { params }),
      onSuccess: () => void client.invalidateQueries({ queryKey: ['shelf'] }),
    }),
  };
}

/** Kits for a deal, those first that meet what it needs. */
export function useDealKits(dealId: string, enabled: boolean) {
  return useQuery({
    queryKey: shelfKeys.kits(dealId),
    queryFn: () => call('dealKits', { params: { dealId } }),
    enabled,
  });
}

/** What a kit would make of a deal. */
export function useKitTrial(dealId: string, kitId: string, changes: KitChanges) {
  return useQuery({
    queryKey: shelfKeys.trial(dealId, kitId, changes),
    queryFn: () => call('tryKit', { params: { dealId, shelfId: kitId }, body: changes }),
    placeholderData: (was) => was,
    gcTime: 0,
  });
}

/** Makes a packet of a kit, sent or as a draft. */
export function useKit(dealId: string, kitId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: KitUseBody) => call('useKit', { params: { dealId, shelfId: kitId }, body }),
    onSuccess: (packet: PacketView) => {
      client.setQueryData(keys.packet(packet.id), packet);
      void client.invalidateQueries({ queryKey: ['deals'] });
      void client.invalidateQueries({ queryKey: keys.deal(dealId) });
    },
  });
}
