/** A draft outside of the desk: a kit's, or a form's that is written here. */
import { useEffect, useMemo, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { createStore, useStore } from 'zustand';
import type { Draft, DraftEdit } from '@gatepath/core/packet';
import type { PacketView } from '@gatepath/contract';
import { PACKET_HOME, type DraftHome } from './draft-home';
import { openDraft, reduceDraft, type DraftAction, type Saving } from './draft-state';
import { DraftSync } from './draft-sync';

export interface DraftHandle {
  draft: Draft;
  version: number;
  saving: Saving;
  edit: (edits: DraftEdit[]) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
}

/** What a draft is stored with, of a packet or a shelf item. */
type DraftPacket = Pick<PacketView, 'id' | 'draft' | 'version'>;

export function useDraft(packet: DraftPacket, home: DraftHome = PACKET_HOME): DraftHandle {
  const client = useQueryClient();
  const [store] = useState(() => createStore(() => openDraft({ draft: packet.draft, version: packet.version })));
  const sync = useMemo(
    () =>
      new DraftSync({
        packetId: packet.id,
        home,
        client,
        state: store.getState,
        dispatch: (action: DraftAction) => store.setState((was) => reduceDraft(was, action)),
      }),
    [packet.id, home, client, store],
  );
  useEffect(() => sync.start(), [sync]);
  useEffect(() => sync.take({ draft: packet.draft, version: packet.version }), [sync, packet.version, packet.draft]);
  const { draft, base, saving, past, future } = useStore(store);
  return {
    draft,
    version: base.version,
    saving,
    edit: sync.edit,
    undo: sync.undo,
    redo: sync.redo,
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}
