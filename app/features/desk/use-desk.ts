/** The desk in React: screens select what they show, so that only what changed is drawn again. */
import { createContext, useContext, useEffect, useRef, useState } from 'react';
import { useQueries, useQueryClient } from '@tanstack/react-query';
import { useStore } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { PackedFacts, PacketView } from '@gatepath/contract';
import { unpackFacts } from '@gatepath/contract/facts';
import type { DocumentFacts } from '@gatepath/core/packet';
import { factsQuery } from '../../api/hooks';
import type { DeskSetup } from './desk-setup';
import type { DeskState } from './desk-state';
import { DeskStore, type DeskActs } from './desk-store';
import { TEXT } from './words';

export const DeskContext = createContext<DeskStore | null>(null);

/** Returns the store of the desk around this part of the screen. @throws Error outside of a desk */
export function useDeskStore(): DeskStore {
  const desk = useContext(DeskContext);
  if (!desk) throw new Error(TEXT.partOutsideOfADesk);
  return desk;
}

/**
 * Returns what is selected of the desk's state. The part is drawn again only when that changes; objects and arrays are
 * compared member by member.
 */
export function useDesk<T>(select: (state: DeskState) => T): T {
  return useStore(useDeskStore().store, useShallow(select));
}

/** Returns everything that can be done at the desk. It never changes. */
export const useDeskActs = (): DeskActs => useDeskStore().acts;

/** Returns what parts that are shared with other screens need: the draft, what follows from it, and editing it. */
export function useOnDesk(): Pick<DeskState, 'packet' | 'draft' | 'view'> &
  Pick<DeskActs, 'edit'> & { version: number } {
  const { edit } = useDeskActs();
  return useDesk(({ packet, draft, view, base }) => ({ packet, draft, view, version: base.version, edit }));
}

/** Unpacks facts once per document: later calls return the same object, so what was computed for it stays valid. */
function useFacts(packet: PacketView, ids: string[]): { documents: DocumentFacts[]; ready: boolean } {
  // A document that is still being read has no facts to query; the packet is refetched until it has.
  const isRead = (id: string) => packet.documents.find((d) => d.id === id)?.status !== 'reading';
  const facts = useQueries({ queries: ids.map((id) => ({ ...factsQuery(id), enabled: isRead(id) })) });
  const unpacked = useRef(new Map<string, { from: PackedFacts; name: string; facts: DocumentFacts }>());
  const documents = ids.flatMap((id, i) => {
    const from = facts[i]?.data;
    const document = packet.documents.find((d) => d.id === id);
    if (!from || !document) return [];
    const { name, formEnded } = document;
    const had = unpacked.current.get(id);
    if (had && had.from === from && had.name === name && had.facts.formEnded === formEnded) return [had.facts];
    const plain = had && had.from === from ? { ...had.facts, name } : unpackFacts(id, name, from);
    const made: DocumentFacts = { ...plain, ...(formEnded ? { formEnded } : {}) };
    unpacked.current.set(id, { from, name, facts: made });
    return [made];
  });
  return { documents, ready: facts.every((f) => f.isSuccess) };
}

/** Makes the store of a desk and keeps it in step with the packet and the facts of its pages. */
export function useNewDesk(packet: PacketView, setup: DeskSetup): DeskStore {
  const client = useQueryClient();
  const [desk] = useState(() => new DeskStore(packet, setup, client));
  const ids = useStore(
    desk.store,
    useShallow((s) => s.draft.documents.map((d) => d.id)),
  );
  const { documents, ready } = useFacts(packet, ids);
  useEffect(() => desk.start(), [desk]);
  useEffect(() => desk.takePacket(packet), [desk, packet]);
  // The documents are a new list at every render; the store compares what is in it.
  useEffect(() => desk.dispatch({ type: 'facts', documents, ready }));
  return desk;
}
