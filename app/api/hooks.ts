/** The server's data as hooks. Keys and routes have the same nouns. */
import { useCallback } from 'react';
import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  ChangeBody,
  NoticesBody,
  DealBody,
  DealView,
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
import { call } from './client';
import { officeNews, useLive } from './live';

export const keys = {
  session: ['session'],
  firm: ['firm'],
  deals: (ask: object) => ['deals', ask],
  deal: (id: string) => ['deal', id],
  packet: (id: string) => ['packet', id],
  facts: (id: string) => ['facts', id],
  mailroom: (packetId: string | undefined) => ['mailroom', packetId ?? 'all'],
  message: (id: string) => ['message', id],
  signing: (token: string) => ['signing', token],
} as const;

/** The part of a long list to ask for: little at first, more at once for whoever goes on towards its end. */
export const pageAfter = (after: string) => (after ? { after, limit: 100 } : { limit: 40 });

/** The firm, who is signed in, and what the server can do. */
export function useSession() {
  return useQuery({ queryKey: keys.session, queryFn: () => call('session'), staleTime: 60_000 });
}

/** An act after which somebody else, or nobody, is signed in: all that was shown is forgotten. */
export function useEnter<B>(enter: (body: B) => Promise<SessionView>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: enter,
    onSuccess: (session) => {
      client.clear();
      client.setQueryData(keys.session, session);
    },
  });
}
/** Sets the firm up, and signs in who did. */
export const useSetup = () => useEnter((body: SetupBody) => call('setup', { body }));
/** Signs in. */
export const useSignIn = () => useEnter((body: SignInBody) => call('signIn', { body }));

/** Signs out, and forgets all that was shown. */
export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('signOut'),
    onSuccess: (session) => {
      client.clear();
      client.setQueryData(keys.session, session);
    },
  });
}

/** The firm with its members and its seal. */
export function useFirm() {
  return useQuery({ queryKey: keys.firm, queryFn: () => call('firm') });
}

/** What is asked of the list of deals. */
export type DealAsk = Omit<DealsQuery, 'after' | 'limit'>;

/** Deals, newest first or as they are ordered, page by page. */
export function useDeals(ask: DealAsk) {
  return useInfiniteQuery({
    queryKey: keys.deals(ask),
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('deals', { query: { ...ask, ...pageAfter(pageParam) } }),
    placeholderData: keepPreviousData,
    getNextPageParam: (last) => last.next,
  });
}

/** Opens a deal. */
export function useNewDeal() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: DealBody) => call('newDeal', { body }),
    onSuccess: (deal) => {
      client.setQueryData(keys.deal(deal.id), deal);
      void client.invalidateQueries({ queryKey: ['deals'] });
    },
  });
}

/** A deal, asked for again whenever it changes. */
export function useDeal(dealId: string) {
  useLive(officeNews, dealId ? `deal:${dealId}` : null, keys.deal(dealId));
  return useQuery({
    queryKey: keys.deal(dealId),
    queryFn: () => call('deal', { params: { dealId } }),
    enabled: !!dealId,
  });
}

/** Adds, corrects or drops a party of a deal; each answers with the whole deal. */
export function usePartyActions(dealId: string) {
  const client = useQueryClient();
  const onSuccess = (deal: DealView) => client.setQueryData(keys.deal(dealId), deal);
  return {
    add: useMutation({
      mutationFn: (body: PartyBody) => call('addParty', { params: { dealId }, body }),
      onSuccess,
    }),
    set: useMutation({
      mutationFn: ({ partyId, body }: { partyId: string; body: PartyBody }) =>
        call('setParty', { params: { partyId }, body }),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: (partyId: string) => call('removeParty', { params: { partyId } }),
      onSuccess,
    }),
  };
}

/** Takes a document out of a deal. */
export function useDeleteDocument(dealId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (documentId: string) => call('deleteDocument', { params: { documentId } }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.deal(dealId) }),
  });
}

/** Begins a packet in a deal. */
export function useNewPacket(dealId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: NewPacketBody) => call('newPacket', { params: { dealId }, body }),
    onSuccess: (packet) => {
      client.setQueryData(keys.packet(packet.id), packet);
      void client.invalidateQueries({ queryKey: keys.deal(dealId) });
    },
  });
}

/** A packet, asked for again whenever it changes; while pages are read, every second. */
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

/** Whether a draft has a document whose pages are still being read. */
export function waitsForReading(packet: PacketView | undefined): boolean {
  if (packet?.status !== 'drafting') return false;
  const reading = new Set(packet.documents.filter((d) => d.status === 'reading').map((d) => d.id));
  return packet.draft.documents.some((d) => reading.has(d.id));
}

/** What can be done with a packet; each answers with the packet as it is then. */
export function usePacketActions(packetId: string) {
  const client = useQueryClient();
  const onSuccess = (packet: PacketView) => client.setQueryData(keys.packet(packetId), packet);
  return {
    send: useMutation({
      mutationFn: (body: SendBody) => call('sendPacket', { params: { packetId }, body }),
      onSuccess,
    }),
    sendLater: useMutation({
      mutationFn: (body: SendLaterBody) => call('sendLater', { params: { packetId }, body }),
      onSuccess,
    }),
    sendNotLater: useMutation({
      mutationFn: () => call('sendNotLater', { params: { packetId } }),
      onSuccess,
    }),
    withdraw: useMutation({
      mutationFn: (reason: string) => call('withdrawPacket', { params: { packetId }, body: { reason } }),
      onSuccess,
    }),
    drop: useMutation({ mutationFn: () => call('deletePacket', { params: { packetId } }) }),
    change: useMutation({
      mutationFn: (body: ChangeBody) => call('changePacket', { params: { packetId }, body }),
      onSuccess,
    }),
    newVersion: useMutation({
      mutationFn: (reason: string) => call('newVersion', { params: { packetId }, body: { reason } }),
      onSuccess: () => client.invalidateQueries({ queryKey: keys.packet(packetId) }),
    }),
    lateRound: useMutation({
      mutationFn: (documentIds: string[]) => call('lateRound', { params: { packetId }, body: { documentIds } }),
    }),
    host: useMutation({
      mutationFn: (partyId: string) => call('hostParty', { params: { packetId, partyId } }),
    }),
    own: useMutation({
      mutationFn: (partyId: string) => call('ownLink', { params: { packetId, partyId } }),
    }),
  };
}

/** Settings of the member and of the firm, and the demo's clock. */
export function useSettings() {
  const client = useQueryClient();
  const onSession = (session: SessionView) => client.setQueryData(keys.session, session);
  return {
    notices: useMutation({
      mutationFn: (body: NoticesBody) => call('setNotices', { body }),
      onSuccess: onSession,
    }),
    holidays: useMutation({
      mutationFn: (holidays: string[]) => call('setHolidays', { body: { holidays } }),
      onSuccess: (firm) => client.setQueryData(keys.firm, firm),
    }),
    again: useMutation({
      mutationFn: (body: TryAgainBody) => call('tryAgain', { body }),
      onSuccess: (firm) => client.setQueryData(keys.firm, firm),
    }),
    forward: useMutation({
      mutationFn: (hours: number) => call('forwardClock', { body: { hours } }),
      onSuccess: (session) => {
        onSession(session);
        void client.invalidateQueries();
      },
    }),
  };
}

/** Lets a message come back, as if its address were wrong. */
export function useReturnMessage(messageId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('returnMessage', { params: { messageId }, body: {} }),
    onSuccess: (m) => {
      client.setQueryData(keys.message(messageId), m);
      void client.invalidateQueries({ queryKey: ['mailroom'] });
    },
  });
}

/** Facts of a document's pages never change: asked for once. */
export function factsQuery(documentId: string) {
  return {
    queryKey: keys.facts(documentId),
    queryFn: () => call('documentFacts', { params: { documentId } }),
    staleTime: Infinity,
    gcTime: Infinity,
  };
}

/** Messages, newest first, page by page; of one packet or of all. */
export function useMailroom(packetId?: string) {
  return useInfiniteQuery({
    queryKey: keys.mailroom(packetId),
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('mailroom', { query: { packetId, ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
    // Whoever has gone on to older ones reads those: all of them are not asked for again and again.
    refetchInterval: ({ state }) => ((state.data?.pages.length ?? 0) > 1 ? false : 5_000),
  });
}

/** A message with what it says. */
export function useMessage(messageId: string) {
  return useQuery({
    queryKey: keys.message(messageId),
    queryFn: () => call('message', { params: { messageId } }),
  });
}
