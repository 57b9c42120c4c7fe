/** The review of a returned paper, and its acts. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { router } from 'expo-router';
import type { PaperReviewView } from '@gatepath/contract';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { ApiError, call } from '../../api/client';

/**
 * Queries the review of a paper; null if none was begun. Its key is part of the deal's, so news of the deal refetches
 * it.
 */
export function useReview(dealId: string, documentId: string) {
  return useQuery({
    queryKey: keys.review(dealId, documentId),
    queryFn: async (): Promise<PaperReviewView | null> => {
      try {
        return await call('paperReview', { params: { documentId } });
      } catch (error) {
        if (error instanceof ApiError && error.status === 404) return null;
        throw error;
      }
    },
    refetchInterval: (query) => (query.state.data?.status === 'checking' ? 1_500 : false),
  });
}

type Act =
  | { what: 'begin'; blankId: string | null }
  | { what: 'say'; id: string; said: 'yes' | 'no' | null }
  | { what: 'end'; how: 'meets' | 'kept'; reason: string }
  | { what: 'back' };

export function useReviewActs(dealId: string, documentId: string) {
  const client = useQueryClient();
  const params = { documentId };
  return useAct(
    (act: Act): Promise<PaperReviewView> => {
      switch (act.what) {
        case 'begin':
          return call('beginPaperReview', { params, body: { blankId: act.blankId } });
        case 'say':
          return call('sayOfPlaces', { params, body: { places: [{ id: act.id, said: act.said }] } });
        case 'end':
          return call('endReview', { params, body: { how: act.how, reason: act.reason } });
        case 'back':
          return call('sendBack', { params });
      }
    },
    {
      shows: keys.review(dealId, documentId),
      onDone: (view, act) => {
        if (act.what === 'end' || act.what === 'back') void client.invalidateQueries({ queryKey: keys.deal(dealId) });
        if (act.what === 'back' && view.packetId) router.push(`/packets/${view.packetId}`);
      },
    },
  );
}

export type Acts = ReturnType<typeof useReviewActs>;
