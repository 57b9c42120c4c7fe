/** Deals as a whole, rules, and the first screen, as hooks. Apart from the others: people who only sign need none of it. */
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  DealChanged,
  DealPatch,
  DocumentPatch,
  FeedView,
  PersonBody,
  PersonView,
  OwnFactsBody,
  RuleBody,
  RulesView,
  RuleTrialBody,
  TodayView,
} from '@gatepath/contract';
import { call } from './client';
import { keys, pageAfter } from './hooks';
import { officeNews, useLive } from './live';

export const dealKeys = {
  today: ['today'],
  rules: ['rules'],
  trial: (body: unknown) => ['trial', body],
  people: (search: string) => ['people', search],
  person: (id: string) => ['person', id],
  find: (q: string) => ['find', q],
  feed: (dealId: string | null) => ['feed', dealId ?? 'own'],
  activity: (dealId: string, about: string) => ['activity', dealId, about],
} as const;

/** What the day needs; asked for again whenever a deal stands otherwise. */
export function useToday() {
  useLive(officeNews, 'today:firm', dealKeys.today);
  return useQuery({ queryKey: dealKeys.today, queryFn: () => call('today'), refetchInterval: 300_000 });
}

/** Puts away what was executed until a moment. */
export function useSeen() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (until: string) => call('seen', { body: { until } }),
    onSuccess: (today: TodayView) => client.setQueryData(dealKeys.today, today),
  });
}

/** Changes of a deal; each answers with what it did to what the deal needs. */
export function useDealChanges(dealId: string) {
  const client = useQueryClient();
  const onSuccess = ({ deal }: DealChanged) => {
    client.setQueryData(keys.deal(dealId), deal);
    void client.invalidateQueries({ queryKey: ['activity', dealId] });
    void client.invalidateQueries({ queryKey: ['deals'] });
  };
  const params = { dealId };
  return {
    set: useMutation({ mutationFn: (body: DealPatch) => call('setDeal', { params, body }), onSuccess }),
    waive: useMutation({
      mutationFn: ({ ruleId, reason }: { ruleId: string; reason: string }) =>
        call('waive', { params: { dealId, ruleId }, body: { reason } }),
      onSuccess,
    }),
    unwaive: useMutation({
      mutationFn: (ruleId: string) => call('unwaive', { params: { dealId, ruleId } }),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: () => call('deleteDeal', { params }),
      onSuccess: () => client.invalidateQueries({ queryKey: ['deals'] }),
    }),
    document: useMutation({
      mutationFn: ({ documentId, body }: { documentId: string; body: DocumentPatch }) =>
        call('setDocument', { params: { documentId }, body }),
      onSuccess: () => client.invalidateQueries({ queryKey: keys.deal(dealId) }),
    }),
  };
}

/** What happened in a deal, newest first; of one person or of one paper when it is asked for so. */
export function useDealActivity(dealId: string, about: { partyId?: string; documentId?: string } = {}) {
  const key = dealKeys.activity(dealId, about.partyId ?? about.documentId ?? '');
  useLive(officeNews, `deal:${dealId}`, key);
  return useInfiniteQuery({
    queryKey: key,
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call('dealActivity', { params: { dealId }, query: { ...about, limit: 20, before: pageParam || undefined } }),
    getNextPageParam: (last) => last.next,
  });
}

/** The firm's rules and the facts it added. */
export function useRules() {
  return useQuery({ queryKey: dealKeys.rules, queryFn: () => call('rules') });
}

/** Rules written, turned on and off, taken away; each answers with all of them. */
export function useRuleActions() {
  const client = useQueryClient();
  const onSuccess = (rules: RulesView) => {
    client.setQueryData(dealKeys.rules, rules);
    void client.invalidateQueries({ queryKey: ['deal'] });
  };
  return {
    save: useMutation({
      mutationFn: ({ id, body }: { id: string | null; body: RuleBody }) =>
        id ? call('setRule', { params: { ruleId: id }, body }) : call('newRule', { body }),
      onSuccess,
    }),
    drop: useMutation({ mutationFn: (ruleId: string) => call('deleteOneRule', { params: { ruleId } }), onSuccess }),
    turn: useMutation({
      mutationFn: (body: { ids: string[]; on: boolean }) => call('turnRules', { body }),
      onSuccess,
    }),
    facts: useMutation({ mutationFn: (body: OwnFactsBody) => call('setOwnFacts', { body }), onSuccess }),
  };
}

/** What a rule would do as it stands; the last answer stays until the next is there. */
export function useTrial({ kinds, when, paper, title, signers, due, reason }: RuleTrialBody) {
  const body = { kinds, when, paper, title, signers, due, reason };
  return useQuery({
    queryKey: dealKeys.trial(body),
    queryFn: () => call('tryRule', { body }),
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}

/** The secret address of a deal's calendar, or of the member's own when no deal is named. */
export function useFeed(dealId: string | null) {
  const client = useQueryClient();
  const key = dealKeys.feed(dealId);
  const onSuccess = (feed: FeedView) => client.setQueryData(key, feed);
  return {
    feed: useQuery({
      queryKey: key,
      queryFn: () => (dealId ? call('dealFeed', { params: { dealId } }) : call('ownFeed')),
    }),
    renew: useMutation({
      mutationFn: () => (dealId ? call('renewDealFeed', { params: { dealId } }) : call('renewOwnFeed')),
      onSuccess,
    }),
    end: useMutation({
      mutationFn: () => (dealId ? call('endDealFeed', { params: { dealId } }) : call('endOwnFeed')),
      onSuccess,
    }),
  };
}

/** The address book, by name, page by page. */
export function usePeople(search: string, enabled = true) {
  return useInfiniteQuery({
    queryKey: dealKeys.people(search),
    enabled,
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('people', { query: { search, ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
  });
}

/** One person with all their deals, packets and messages. */
export function usePerson(personId: string) {
  return useQuery({ queryKey: dealKeys.person(personId), queryFn: () => call('person', { params: { personId } }) });
}

/** Corrects a person, or makes one of two. */
export function usePersonActions(personId: string) {
  const client = useQueryClient();
  const onSuccess = (person: PersonView) => {
    client.setQueryData(dealKeys.person(personId), person);
    for (const key of ['people', 'deal', 'find']) void client.invalidateQueries({ queryKey: [key] });
  };
  const params = { personId };
  return {
    set: useMutation({ mutationFn: (body: PersonBody) => call('setPerson', { params, body }), onSuccess }),
    merge: useMutation({
      mutationFn: (otherId: string) => call('mergePerson', { params, body: { personId: otherId } }),
      onSuccess,
    }),
  };
}

/** What is found by words; the last answer stays until the next is there. */
export function useFind(q: string) {
  return useQuery({
    queryKey: dealKeys.find(q),
    queryFn: () => call('find', { query: { q } }),
    enabled: q.trim() !== '',
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}
