/** Deals as a whole, rules, and the first screen, as hooks. Apart from the others: people who only sign need none of it. */
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

/** What the day needs; asked for again whenever a deal stands otherwise. */
export function useToday() {
  useLive(officeNews, 'today:firm', keys.today);
  return useQuery({ queryKey: keys.today, queryFn: () => call('today'), refetchInterval: 300_000 });
}

/** Marks what was executed up to a time as seen. */
export const useSeen = () => useAct((until: string) => call('seen', { body: { until } }), { shows: keys.today });

/** Changes of a deal; most answer with the deal and with what became of its requirements. */
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

/** What happened in a deal, newest first; of one person or of one paper when it is asked for so. */
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

/** The firm's rules and the facts it added. */
export function useRules() {
  return useQuery({ queryKey: keys.rules, queryFn: () => call('rules') });
}

/** Saves, turns on and off, and deletes rules; each act answers with all rules. */
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

/** What a rule would do as it stands; the last answer stays until the next is there. */
export function useTrial({ kinds, when, paper, title, signers, due, reason }: RuleTrialBody) {
  const body = { kinds, when, paper, title, signers, due, reason };
  return useQuery({
    queryKey: keys.ruleTrial(body),
    queryFn: () => call('tryRule', { body }),
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}

/** The secret address of a deal's calendar, or of the member's own when no deal is named. */
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

/** The address book, by name, page by page. */
export function usePeople(search: string, enabled = true) {
  return useInfiniteQuery({
    queryKey: keys.peopleFound(search),
    enabled,
    initialPageParam: '',
    queryFn: ({ pageParam }) => call('people', { query: { search, ...pageAfter(pageParam) } }),
    getNextPageParam: (last) => last.next,
  });
}

/** One person with all their deals, packets and messages. */
export function usePerson(personId: string) {
  return useQuery({ queryKey: keys.person(personId), queryFn: () => call('person', { params: { personId } }) });
}

/** Corrects a person, or makes one of two. */
export function usePersonActions(personId: string) {
  const params = { personId };
  const changes = { shows: keys.person(personId), renews: [keys.people, keys.everyDeal, keys.find] };
  return {
    set: useAct((body: PersonBody) => call('setPerson', { params, body }), changes),
    merge: useAct((otherId: string) => call('mergePerson', { params, body: { personId: otherId } }), changes),
  };
}

/** What is found by words; the last answer stays until the next is there. */
export function useFind(q: string) {
  return useQuery({
    queryKey: keys.found(q),
    queryFn: () => call('find', { query: { q } }),
    enabled: q.trim() !== '',
    placeholderData: (before) => before,
    staleTime: 10_000,
  });
}
