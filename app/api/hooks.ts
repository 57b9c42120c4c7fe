/** The server's data as hooks. */
import { useCallback } from 'react';
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  ChangeBody,
  NoticesBody,
  DealBody,
  NewPacketBody,
  PacketView,
  PartyBody,
  SendBody,
  SendLaterBody,
  SessionView,
  SetupBody,
  SignInBody,
  TryAgainBody,
  DealsQuery,
} from '@gatepath/contract';
import { useAct } from './act';
import { call } from './client';
import { keys } from './keys';
import { officeNews, useLive } from './live';

/** Returns the query for the next part of a long list: a short part first, longer ones after it. */
export const pageAfter = (after: string) => (after ? { after, limit: 100 } : { limit: 40 });

/** Queries the firm, the signed-in member, and what the server can do. */
export function useSession() {
  return useQuery({ queryKey: keys.session, queryFn: () => call('session'), staleTime: 60_000 });
}

/** Returns a mutation for an act that signs another member in, or nobody; it clears the whole query cache. */
export function useEnter<B = void>(enter: (body: B) => Promise<SessionView>) {
  const client = useQueryClient();
  return useAct(enter, {
    onDone: (session) => {
      client.clear();
      client.setQueryData(keys.session, session);
    },
  });
}
/** Sets the firm up and signs in. */
export const useSetup = () => useEnter((body: SetupBody) => call('setup', { body }));
/** Signs in. */
export const useSignIn = () => useEnter((body: SignInBody) => call('signIn', { body }));

/** Signs out. */
export const useSignOut = () => useEnter(() => call('signOut'));

/** Queries the firm with its members and its seal. */
export function useFirm() {
  return useQuery({ queryKey: keys.firm, queryFn: () => call('firm') });
}

/** Filters and order of the list of deals. */
export type DealAsk = Omit<DealsQuery, 'after' | 'limit'>;

/** Queries deals, newest first or in the given order, page by page. */
export function useDeals(ask: DealAsk) {
  return useInfiniteQuery({
    queryKey: keys.dealList(ask),
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('deals', { query: { ...ask, ...pageAfter(pageParam) } }),
    placeholderData: keepPreviousData,
    getNextPageParam: (last) => last.next,
  });
}

/** Opens a deal. */
export const useNewDeal = () =>
  useAct((body: DealBody) => call('newDeal', { body }), {
    shows: (deal) => [[keys.deal(deal.id), deal]],
    renews: [keys.deals],
  });

/** Queries a deal; refetched whenever it changes. */
export function useDeal(dealId: string) {
  useLive(officeNews, dealId ? `deal:${dealId}` : null, keys.deal(dealId));
  return useQuery({
    queryKey: keys.deal(dealId),
    queryFn: () => call('deal', { params: { dealId } }),
    enabled: !!dealId,
  });
}

/** Adds, corrects or removes a party of a deal. */
export function usePartyActions(dealId: string) {
  const shows = keys.deal(dealId);
  return {
    add: useAct((body: PartyBody) => call('addParty', { params: { dealId }, body }), { shows }),
    set: useAct(
      ({ partyId, body }: { partyId: string; body: PartyBody }) => call('setParty', { params: { partyId }, body }),
      { shows },
    ),
    drop: useAct((partyId: string) => call('removeParty', { params: { partyId } }), { shows }),
  };
}

/** Deletes a document of a deal. */
export const useDeleteDocument = (dealId: string) =>
  useAct((documentId: string) => call('deleteDocument', { params: { documentId } }), {
    waitsFor: [keys.deal(dealId)],
  });

/** Makes a packet in a deal. */
export const useNewPacket = (dealId: string) =>
  useAct((body: NewPacketBody) => call('newPacket', { params: { dealId }, body }), {
    shows: (packet) => [[keys.packet(packet.id), packet]],
    renews: [keys.deal(dealId)],
  });

/** Queries a packet; refetched whenever it changes, and every second while pages are read. */
export function usePacket(packetId: string) {
  const client = useQueryClient();
  const isKnown = useCallback(
    (seq: number) => (client.getQueryData<PacketView>(keys.packet(packetId))?.sent?.seq ?? 0) >= seq,
    [client, packetId],
  );
  useLive(officeNews, packetId ? `packet:${packetId}` : null, keys.packet(packetId), isKnown);
  return useQuery({
    queryKey: keys.packet(packetId),
    queryFn: () => call('packet', { params: { packetId } }),
    enabled: !!packetId,
    refetchInterval: (query) => (waitsForReading(query.state.data) ? 800 : false),
  });
}

/** Returns whether a draft has a document whose pages are still being read. */
export function waitsForReading(packet: PacketView | undefined): boolean {
  if (packet?.status !== 'drafting') return false;
  const reading = new Set(packet.documents.filter((d) => d.status === 'reading').map((d) => d.id));
  return packet.draft.documents.some((d) => reading.has(d.id));
}

/** Returns the mutations that act on a packet; most answer with the packet as it is afterwards. */
export function usePacketActions(packetId: string) {
  const shows = keys.packet(packetId);
  const params = { packetId };
  return {
    send: useAct((body: SendBody) => call('sendPacket', { params, body }), { shows }),
    sendLater: useAct((body: SendLaterBody) => call('sendLater', { params, body }), { shows }),
    sendNotLater: useAct(() => call('sendNotLater', { params }), { shows }),
    withdraw: useAct((reason: string) => call('withdrawPacket', { params, body: { reason } }), { shows }),
    drop: useAct(() => call('deletePacket', { params })),
    change: useAct((body: ChangeBody) => call('changePacket', { params, body }), { shows }),
    newVersion: useAct((reason: string) => call('newVersion', { params, body: { reason } }), { waitsFor: [shows] }),
    lateRound: useAct((documentIds: string[]) => call('lateRound', { params, body: { documentIds } })),
    host: useAct((partyId: string) => call('hostParty', { params: { packetId, partyId } })),
    own: useAct((partyId: string) => call('ownLink', { params: { packetId, partyId } })),
  };
}

/** Returns the settings of the member and of the firm, and the demo's clock. */
export const useSettings = () => ({
  notices: useAct((body: NoticesBody) => call('setNotices', { body }), { shows: keys.session }),
  holidays: useAct((holidays: string[]) => call('setHolidays', { body: { holidays } }), { shows: keys.firm }),
  placeRemembered: useAct((on: boolean) => call('setPlaceRemembered', { body: { on } }), { shows: keys.firm }),
  again: useAct((body: TryAgainBody) => call('tryAgain', { body }), { shows: keys.firm }),
  // At another time everything may differ.
  forward: useAct((hours: number) => call('forwardClock', { body: { hours } }), { shows: keys.session, renews: [[]] }),
});

/** Returns a message, as if its address were wrong. */
export const useReturnMessage = (messageId: string) =>
  useAct(() => call('returnMessage', { params: { messageId }, body: {} }), {
    shows: keys.message(messageId),
    renews: [keys.mailroom],
  });

/** Returns the query for the facts of a document's pages, which never change. */
export function factsQuery(documentId: string) {
  return {
    queryKey: keys.facts(documentId),
    queryFn: () => call('documentFacts', { params: { documentId } }),
    staleTime: Infinity,
    gcTime: Infinity,
  };
}

/** Queries messages, newest first, page by page; of one packet or of all. */
export function useMailroom(packetId?: string) {
  return useInfiniteQuery({
    queryKey: keys.messages(packetId),
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('mailroom', { query: { packetId, ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
    // After older items were loaded, they are not all refetched again and again.
    refetchInterval: ({ state }) => ((state.data?.pages.length ?? 0) > 1 ? false : 5_000),
  });
}

/** Queries a message with its text. */
export function useMessage(messageId: string) {
  return useQuery({
    queryKey: keys.message(messageId),
    queryFn: () => call('message', { params: { messageId } }),
  });
}
