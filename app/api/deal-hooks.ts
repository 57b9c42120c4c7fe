/** Deals, rules and the Today screen, as hooks. In a file of their own: people who only sign need none of it. */
import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type {
  DealChanged,
  DealPatch,
  DocumentPatch,
  PersonBody,
  OwnFactsBody,
  RuleBody,
  RuleTrialBody,
} from '@gatepath/contract';
import { call } from './client';
import { useAct } from './act';
import { pageAfter } from './hooks';
import { keys } from './keys';
import { officeNews, useLive } from './live';

/** Queries the Today screen; refetched whenever a deal changes. */
export function useToday() {
  useLive(officeNews, 'today:firm', keys.today);
  return useQuery({ queryKey: keys.today, queryFn: () => call('today'), refetchInterval: 300_000 });
}

/** Marks what was executed up to an instant as seen. */
export const useSeen = () => useAct((until: string) => call('seen', { body: { until } }), { shows: keys.today });

/** Changes a deal; most acts answer with the deal and how its requirements changed. */
export function useDealChanges(dealId: string) {
  const params = { dealId };
  const changes = {
    shows: ({ deal }: DealChanged) => [[keys.deal(dealId), deal]] as const,
    renews: [keys.activity(dealId), keys.deals],
  };
  return {
    set: useAct((body: DealPatch) => call('setDeal', { params, body }), changes),
    waive: useAct(
      ({ ruleId, reason }: { ruleId: string; reason: string }) =>
        call('waive', { params: { dealId, ruleId }, body: { reason } }),
      changes,
    ),
    unwaive: useAct((ruleId: string) => call('unwaive', { params: { dealId, ruleId } }), changes),
    drop: useAct(() => call('deleteDeal', { params }), { waitsFor: [keys.deals] }),
    document: useAct(
      ({ documentId, body }: { documentId: string; body: DocumentPatch }) =>
        call('setDocument', { params: { documentId }, body }),
      { waitsFor: [keys.deal(dealId)] },
    ),
  };
}

/** Queries what happened in a deal, newest first; of one person or one paper if given. */
export function useDealActivity(dealId: string, about: { partyId?: string; documentId?: string } = {}) {
  const key = keys.activityAbout(dealId, about.partyId ?? about.documentId ?? '');
  useLive(officeNews, `deal:${dealId}`, key);
  return useInfiniteQuery({
    queryKey: key,
    initialPageParam: '',
    queryFn: ({ pageParam }) =>
      call('dealActivity', { params: { dealId }, query: { ...about, limit: 20, before: pageParam || undefined } }),
    getNextPageParam: (last) => last.next,
  });
}

/** Queries the firm's rules and the facts it added. */
export function useRules() {
  return useQuery({ queryKey: keys.rules, queryFn: () => call('rules') });
}

/** Saves, enables, disables and deletes rules; each act answers with all rules. */
export function useRuleActions() {
  const all = { shows: keys.rules, renews: [keys.everyDeal] };
  return {
    save: useAct(
      ({ id, body }: { id: string | null; body: RuleBody }) =>
        id ? call('setRule', { params: { ruleId: id }, body }) : call('newRule', { body }),
      all,
    ),
    drop: useAct((ruleId: string) => call('deleteOneRule', { params: { ruleId } }), all),
    turn: useAct((body: { ids: string[]; on: boolean }) => call('turnRules', { body }), all),
    facts: useAct((body: OwnFactsBody) => call('setOwnFacts', { body }), all),
  };
}

/** Queries what a rule would do; the last answer stays until the next arrives. */
export function useTrial({ kinds, when, paper, title, signers, due, reason }: RuleTrialBody) {
  const body = { kinds, when, paper, title, signers, due, reason };
  return useQuery({
    queryKey: keys.ruleTrial(body),
    queryFn: () => call('tryRule', { body }),
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}

/** Queries the secret address of a deal's calendar, or of the member's own. */
export function useFeed(dealId: string | null) {
  const shows = keys.feed(dealId);
  return {
    feed: useQuery({
      queryKey: shows,
      queryFn: () => (dealId ? call('dealFeed', { params: { dealId } }) : call('ownFeed')),
    }),
    renew: useAct(() => (dealId ? call('renewDealFeed', { params: { dealId } }) : call('renewOwnFeed')), { shows }),
    end: useAct(() => (dealId ? call('endDealFeed', { params: { dealId } }) : call('endOwnFeed')), { shows }),
  };
}

/** Queries the address book, by name, page by page. */
export function usePeople(search: string, enabled = true) {
  return useInfiniteQuery({
    queryKey: keys.peopleFound(search),
    enabled,
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('people', { query: { search, ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
  });
}

/** Queries one person with all their deals, packets and messages. */
export function usePerson(personId: string) {
  return useQuery({ queryKey: keys.person(personId), queryFn: () => call('person', { params: { personId } }) });
}

/** Corrects a person, or merges two. */
export function usePersonActions(personId: string) {
  const params = { personId };
  const changes = { shows: keys.person(personId), renews: [keys.people, keys.everyDeal, keys.find] };
  return {
    set: useAct((body: PersonBody) => call('setPerson', { params, body }), changes),
    merge: useAct((otherId: string) => call('mergePerson', { params, body: { personId: otherId } }), changes),
  };
}

/** Searches by words; the last answer stays until the next arrives. */
export function useFind(q: string) {
  return useQuery({
    queryKey: keys.found(q),
    queryFn: () => call('find', { query: { q } }),
    enabled: q.trim() !== '',
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}
