/** The ceremony's data and acts. Every act has an id of its own, so that sent twice it counts once. */
import { useRef } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { pathOf, type HandBody, type SigningView } from '@gatepath/contract';
import { ApiError, call, newId, uploadFile } from '../../api/client';
import { keys } from '../../api/hooks';
import { useLive } from '../../api/live';

/** Ids of acts whose answer never came: the next try uses the same id again. */
function useActIds() {
  const ids = useRef(new Map<string, string>());
  return {
    take(what: string): string {
      const id = ids.current.get(what) ?? newId();
      ids.current.set(what, id);
      return id;
    },
    done(what: string) {
      ids.current.delete(what);
    },
  };
}

const again = (n: number, error: unknown) => n < 4 && error instanceof ApiError && error.status === 0;

export function useSigning(token: string) {
  const client = useQueryClient();
  const params = { token };
  const query = useQuery({
    queryKey: keys.signing(token),
    queryFn: () => call<SigningView>('signing', { params }),
    staleTime: 30_000,
  });
  useLive(query.isSuccess ? pathOf('signingLive', params) : null, keys.signing(token));
  const acts = useActIds();
  const onSuccess = (view: SigningView) => client.setQueryData(keys.signing(token), view);
  return {
    query,
    agree: useMutation({
      mutationFn: (agreement: string) => call<SigningView>('agree', { params, body: { agreement } }),
      onSuccess,
      retry: again,
    }),
    setHand: useMutation({
      mutationFn: (hand: HandBody) => call<SigningView>('setHand', { params, body: hand }),
      onSuccess,
      retry: again,
    }),
    fill: useMutation({
      mutationFn: ({ markId, text }: { markId: string; text?: string }) =>
        call<SigningView>('fill', {
          params: { token, markId },
          body: { actId: acts.take(markId), ...(text === undefined ? {} : { text }) },
        }),
      onSuccess: (view, { markId }) => {
        acts.done(markId);
        onSuccess(view);
      },
      retry: again,
    }),
    addFile: useMutation({
      mutationFn: ({ markId, file }: { markId: string; file: File }) =>
        uploadFile<SigningView>(
          `${pathOf('addFile', { token, markId })}?actId=${acts.take(markId)}`,
          file,
          () => undefined,
        ),
      onSuccess: (view, { markId }) => {
        acts.done(markId);
        onSuccess(view);
      },
    }),
    finish: useMutation({
      mutationFn: () => call<SigningView>('finish', { params, body: { actId: acts.take('finish') } }),
      onSuccess,
      retry: again,
    }),
    decline: useMutation({
      mutationFn: (reason: string) => call<SigningView>('decline', { params, body: { reason } }),
      onSuccess,
    }),
  };
}

export type Signing = ReturnType<typeof useSigning>;
export type OwnMark = SigningView['marks'][number];
