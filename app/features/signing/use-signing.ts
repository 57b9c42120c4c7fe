/** The ceremony's data and acts. */
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import type { ActAnswer, HandOverBody, SigningView } from '@gatepath/contract';
import { urlOf } from '@gatepath/contract/paths';
import type { Hand } from '@gatepath/core/packet';
import { useAct } from '../../api/act';
import { useRunning } from '../../api/retry-queue';
import { keys } from '../../api/keys';
import { ApiError, call, newId, uploadFile } from '../../api/client';

import { News, useLive } from '../../api/live';
import { showAct, withAnswer, type PendingAct } from './acts';
import { Outbox, type OutboxState } from './outbox';

const again = (n: number, error: unknown) => n < 4 && error instanceof ApiError && error.status === 0;

/**
 * Sends one act of the ceremony.
 *
 * @param since  how far the log goes in the view that is shown; the answer is then only what changed
 */
function sendAct(token: string, act: PendingAct, since: number | undefined): Promise<ActAnswer> {
  const params = { token };
  switch (act.type) {
    case 'agree':
      return call('agree', { params, body: { agreement: act.agreement, actId: act.id } });
    case 'hand':
      return call('setHand', { params, body: { ...act.hand, keep: act.keep, actId: act.id } });
    case 'fill':
      return call('fill', {
        params: { token, markId: act.markId },
        body: {
          actId: act.id,
          ...(act.text === undefined ? {} : { text: act.text }),
          ...(since === undefined ? {} : { since }),
        },
      });
    case 'finish':
      return call('finish', { params, body: { actId: act.id } });
  }
}

/** Shows the server's answer. An answer to an earlier request that comes later would be older and is ignored. */
function show(client: QueryClient, token: string, view: SigningView): void {
  void client.cancelQueries({ queryKey: keys.signing(token) });
  client.setQueryData(keys.signing(token), view);
}

function useOutbox(token: string) {
  const client = useQueryClient();
  const [state, setState] = useState<OutboxState>({
    waiting: [],
    offline: false,
    delayedBy: null,
    refused: null,
    aside: [],
  });
  const outbox = useMemo(
    () =>
      new Outbox<ActAnswer>(
        token,
        window.localStorage,
        (act) => sendAct(token, act, client.getQueryData<SigningView>(keys.signing(token))?.seq),
        (next, answer) => {
          const view = answer && withAnswer(client.getQueryData<SigningView>(keys.signing(token)), answer);
          if (view) show(client, token, view);
          else if (answer !== undefined) void client.invalidateQueries({ queryKey: keys.signing(token) });
          setState(next);
        },
      ),
    [client, token],
  );
  useRunning(outbox, setState);
  useEffect(() => {
    const stay = (e: BeforeUnloadEvent) => {
      if (outbox.state.waiting.length) e.preventDefault();
    };
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [outbox]);
  return { outbox, state };
}

// eslint-disable-next-line max-lines-per-function -- puts the pieces of a ceremony together; the outbox and the rules are elsewhere
export function useSigning(token: string) {
  const client = useQueryClient();
  const params = { token };
  const query = useQuery({
    queryKey: keys.signing(token),
    queryFn: () => call('signing', { params }),
    staleTime: 30_000,
  });
  const { outbox, state } = useOutbox(token);
  // The server's news of this page's own acts comes with their answers: it is not refetched.
  const isOwn = useCallback(
    (seq: number) =>
      outbox.settled().then(() => (client.getQueryData<SigningView>(keys.signing(token))?.seq ?? 0) >= seq),
    [client, outbox, token],
  );
  const news = useMemo(() => new News(() => urlOf('signingLive', { token })), [token]);
  useLive(news, query.data ? `packet:${query.data.packetId}` : null, keys.signing(token), isOwn);
  const view = useMemo(
    () => (query.data ? state.waiting.reduce(showAct, query.data) : null),
    [query.data, state.waiting],
  );
  // The engine for members' patterns is large and rarely needed: it is loaded only if one is used.
  const patterns = !!view?.marks.some((m) => m.check?.form === 'pattern');
  useEffect(() => {
    if (patterns) void import('@gatepath/core/patterns');
  }, [patterns]);
  const onDone = (next: SigningView) => show(client, token, next);
  const act = (
    a:
      | Omit<Extract<PendingAct, { type: 'agree' }>, 'id'>
      | Omit<Extract<PendingAct, { type: 'hand' }>, 'id'>
      | Omit<Extract<PendingAct, { type: 'fill' }>, 'id'>
      | { type: 'finish' },
  ) => outbox.push({ id: newId(), ...a } as PendingAct);
  return {
    query,
    view,
    ...state,
    forgive: () => outbox.forgive(),
    tryAside: () => outbox.tryAside(),
    agree: (agreement: string) => act({ type: 'agree', agreement }),
    setHand: (hand: Hand, keep: boolean) => act({ type: 'hand', hand, keep }),
    fill: (markId: string, text?: string) => act({ type: 'fill', markId, ...(text === undefined ? {} : { text }) }),
    finish: () => act({ type: 'finish' }),
    addFile: useAct(
      ({ markId, file, actId }: { markId: string; file: File; actId: string }) =>
        uploadFile('addFile', file, { params: { token, markId }, query: { actId } }),
      { onDone, retry: again },
    ),
    addPicture: useAct((file: File) => uploadFile('addPicture', file, { params: { token } })),
    decline: useAct((reason: string) => call('decline', { params, body: { reason } }), { onDone }),
    ask: useAct((body: { actId: string; text: string }) => call('askQuestion', { params, body }), {
      onDone,
      retry: again,
    }),
    // The link has ended with that: nothing more is requested with it.
    handOver: useAct((body: HandOverBody) => call('handOver', { params, body })),
    setLanguage: useAct((language: string) => call('setLanguage', { params, body: { language } }), { onDone }),
    sendCode: useAct(() => call('sendCode', { params }), { onDone }),
    giveCode: useAct((code: string) => call('giveCode', { params, body: { code } }), {
      onDone,
      onError: () => void client.invalidateQueries({ queryKey: keys.signing(token) }),
    }),
    agreementCopy: useAct(() => call('agreementCopy', { params })),
  };
}

export type Signing = ReturnType<typeof useSigning>;
