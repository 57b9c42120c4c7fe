/** Doing the next acts of a deal from anywhere: most lead to a place, a nudge is done at once. */
import { router } from 'expo-router';
import { useQueryClient } from '@tanstack/react-query';
import type { Next, NextAct } from '@gatepath/core/deal';
import { useAct } from '../../api/act';
import { keys } from '../../api/keys';
import { call } from '../../api/client';

import { useLater } from '../../ui/later';
import { TEXT } from './words';

/** The label of an act's button. */
export const ACT_WORDS: Record<NextAct['do'], string> = {
  answer: TEXT.answer,
  sign: TEXT.sign,
  host: TEXT.open,
  nudge: TEXT.nudge,
  address: TEXT.correct,
  send: TEXT.goOn,
  prepare: TEXT.prepare,
  bring: TEXT.add,
  fact: TEXT.fillIn,
  date: TEXT.set,
  stated: TEXT.review,
};

/** Returns where an act is done; null for one that makes a packet. */
export function placeOf(dealId: string, act: Exclude<NextAct, { do: 'nudge' }>): string | null {
  switch (act.do) {
    case 'answer':
    case 'sign':
    case 'host':
    case 'address':
    case 'send':
      return `/packets/${act.packetId}`;
    case 'bring':
      return `/deals/${dealId}?add=${encodeURIComponent(act.ruleId)}`;
    case 'fact':
      return `/deals/${dealId}?fact=${encodeURIComponent(act.fact)}`;
    case 'date':
      return `/deals/${dealId}?date=${act.date}`;
    case 'stated':
      return `/deals/${dealId}?stated=${act.documentId}`;
    case 'prepare':
      return null;
  }
}

/** Something that can be done in a deal. */
export type DealAct = Pick<Next, 'id' | 'act' | 'title'> & { dealId: string };

export function useActs() {
  const client = useQueryClient();
  const { shown, later, takeBack } = useLater();
  const nudge = useAct((o: { packetId: string; partyId: string }) =>
    call(
      'changePacket',
      { params: { packetId: o.packetId }, body: { type: 'nudge', partyIds: [o.partyId] } },
      // It may be sent because the page is closed.
      { keepalive: true },
    ).finally(() => {
      for (const queryKey of [keys.packet(o.packetId), keys.today]) void client.invalidateQueries({ queryKey });
    }),
  );
  const prepare = useAct(
    (o: { dealId: string; name: string; documentId: string }) =>
      call('newPacket', { params: { dealId: o.dealId }, body: { name: o.name, documentIds: [o.documentId] } }),
    {
      shows: (packet) => [[keys.packet(packet.id), packet]],
      onDone: (packet) => router.push(`/packets/${packet.id}`),
    },
  );
  const act = ({ id, act: what, title, dealId }: DealAct) => {
    if (what.do === 'nudge') {
      const name = title.replace(/^Nudge /, '');
      return later(`${dealId} ${id}`, TEXT.nudged(name), () => nudge.mutate(what));
    }
    const place = placeOf(dealId, what);
    if (place) return router.push(place);
    if (what.do === 'prepare') prepare.mutate({ dealId, name: what.name, documentId: what.documentId });
  };
  return { act, shown, takeBack, busy: prepare.isPending, error: nudge.error ?? prepare.error };
}

/** The acts of a screen, shared by its parts, so that what was done in one can be undone in another. */
export type Acts = ReturnType<typeof useActs>;

/** Returns whether an act was done and can still be undone. */
export const isDone = (shown: { id: string }[], a: { dealId: string; id: string }) =>
  shown.some((d) => d.id === `${a.dealId} ${a.id}`);
