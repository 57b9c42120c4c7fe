/** Where a draft is stored: a packet's in its deal, a shelf item's on the shelf. */
import type { QueryClient } from '@tanstack/react-query';
import type { EditsBody, PacketView, SavedDraft } from '@gatepath/contract';
import { keys } from '../../api/keys';
import { call } from '../../api/client';

export interface DraftHome {
  save: (id: string, body: EditsBody) => Promise<SavedDraft>;
  /** Updates the cache this screen has the draft from. */
  note: (client: QueryClient, id: string, saved: SavedDraft) => void;
}

/** A packet's draft. */
export const PACKET_HOME: DraftHome = {
  save: (packetId, body) => call('editPacket', { params: { packetId }, body }),
  note: (client, id, saved) =>
    client.setQueryData<PacketView>(keys.packet(id), (was) =>
      was && was.version < saved.version
        ? { ...was, draft: saved.draft, version: saved.version, name: saved.draft.name }
        : was,
    ),
};
