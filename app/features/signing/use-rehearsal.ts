/** A ceremony that is only rehearsed: everything shows as it would, and nothing leaves the page. */
import { useState } from 'react';
import { useQuery, type UseMutationResult } from '@tanstack/react-query';
import type { Hand } from '@gatepath/core/packet';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { ApiError, call, newId } from '../../api/client';
import { showAct, type PendingAct } from './acts';
import type { Signing } from './use-signing';
import { TEXT } from './words';

/** Returns a mutation that sends nothing and reports that this is a rehearsal. */
function useNothing<Answer, Body>(): UseMutationResult<Answer, Error, Body> {
  return useAct<Body, Answer>(() => Promise.reject(new ApiError(409, 'invalid', TEXT.rehearsal)));
}

/** Returns the ceremony of a person in a draft, in the form that `useSigning` returns for a packet that was sent. */
export function useRehearsal(packetId: string, partyId: string): Signing {
  const key = keys.rehearsal(packetId, partyId);
  const params = { packetId, partyId };
  const query = useQuery({
    queryKey: key,
    queryFn: () => call('rehearsal', { params }),
    // Fetched each time: the draft may have changed.
    gcTime: 0,
    staleTime: Infinity,
  });
  const [acts, setActs] = useState<PendingAct[]>([]);
  const act = (a: PendingAct) => setActs((all) => [...all, a]);
  return {
    query,
    view: query.data ? acts.reduce(showAct, query.data) : null,
    waiting: [],
    offline: false,
    delayedBy: null,
    refused: null,
    aside: [],
    forgive: () => undefined,
    tryAside: () => undefined,
    agree: (agreement) => act({ id: newId(), type: 'agree', agreement }),
    setHand: (hand: Hand, keep) => act({ id: newId(), type: 'hand', hand, keep }),
    fill: (markId, text) => act({ id: newId(), type: 'fill', markId, ...(text === undefined ? {} : { text }) }),
    finish: () => act({ id: newId(), type: 'finish' }),
    addFile: useNothing(),
    addPicture: useNothing(),
    decline: useNothing(),
    ask: useNothing(),
    handOver: useNothing(),
    // The words come from the server; the choice of language is not stored.
    setLanguage: useAct((language: string) => call('rehearsal', { params, query: { language } }), { shows: key }),
    sendCode: useNothing(),
    giveCode: useNothing(),
    agreementCopy: useNothing(),
  };
}
