/** The draft on this screen: every change shows at once, is saved on the device, and is sent when possible. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { type Draft, type DraftEdit, applyEdits, invertEdits } from '@gatepath/core/packet';
import type { EditsBody, PacketView, SavedDraft } from '@gatepath/contract';
import { EDITS_A_PORTION } from '@gatepath/contract/limits';
import { TRANSIENT } from '@gatepath/contract/transient';
import { listWords } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { ApiError, call, newId } from '../../api/client';
import { RetryQueue, useRunning, type QueueState } from '../../api/retry-queue';
import { TEXT } from './words';

export interface Saving {
  state: 'saved' | 'saving' | 'offline' | 'refused';
  /** Words for the screen. */
  sentence: string;
}

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

/** Identifies this screen among others of the same member. */
const SCREEN = newId();

const storeKey = (packetId: string) => `gatepath.pending.${packetId}`;

function loadPending(packetId: string): DraftEdit[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(storeKey(packetId)) ?? '[]');
    return Array.isArray(kept) ? kept : [];
  } catch {
    return [];
  }
}

function storePending(packetId: string, edits: DraftEdit[]): void {
  try {
    if (edits.length) localStorage.setItem(storeKey(packetId), JSON.stringify(edits));
    else localStorage.removeItem(storeKey(packetId));
  } catch {
    // A device without room keeps the edits in memory only.
  }
}

/** Returns whether the server may accept the same edits later: a sign-in is required, or the problem is transient. */
const isTransient = (error: unknown): boolean =>
  !(error instanceof ApiError) || error.status === 401 || (TRANSIENT as readonly string[]).includes(error.code);

/** Codes of refusals about the draft as a whole: no more edits are accepted. */
const OVER = ['already-sent', 'not-found'];

/** Where a draft is stored: a packet's in its deal, a shelf item's on the shelf. */
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

/** What a draft is stored with, of a packet or a shelf item. */
type DraftPacket = Pick<PacketView, 'id' | 'draft' | 'version'>;

type Base = Pick<DraftPacket, 'draft' | 'version'>;
type DraftQueue = RetryQueue<DraftEdit, SavedDraft>;

/** Returns what the screen says of edits that are not saved, or were just saved. */
function savingOf({ waiting, offline, delayedBy, refused }: QueueState<DraftEdit>, saved: string): Saving {
  if (offline)
    return {
      state: 'offline',
      sentence:
        delayedBy instanceof ApiError && delayedBy.status === 401
          ? TEXT.youAreSignedOutYour
          : TEXT.noConnectionYourChangesAre,
    };
  if (refused instanceof Error) return { state: 'refused', sentence: TEXT.oneChangeWasNotSaved(refused.message) };
  return waiting.length ? { state: 'saving', sentence: 'Saving…' } : { state: 'saved', sentence: saved };
}

const sentenceOf = ({ over }: SavedDraft): string =>
  over.length
    ? TEXT.savedChangedTheSameThing(listWords(over))
    : TEXT.savedAt(new Date().toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' }));

/** Returns the server's draft with the edits it has not accepted yet, including those of an earlier visit. */
function useEdits(packet: DraftPacket, home: DraftHome, onRefused: () => void) {
  const client = useQueryClient();
  const [base, setBase] = useState<Base>({ draft: packet.draft, version: packet.version });
  const version = useRef(packet.version);
  const [saved, setSaved] = useState(TEXT.saved);
  const refusedNow = useRef(onRefused);
  refusedNow.current = onRefused;
  const rebase = useCallback((next: Base) => {
    version.current = next.version;
    setBase(next);
  }, []);
  const [queue, setState, state] = useDraftQueue(packet.id, {
    send: async (edits) => {
      const answer = await home.save(packet.id, { edits, base: version.current, client: SCREEN });
      home.note(client, packet.id, answer);
      return answer;
    },
    onAnswer: (answer) => {
      if (!answer) return refusedNow.current();
      rebase(answer);
      setSaved(sentenceOf(answer));
    },
  });
  useRunning(queue, setState);
  // Changes of others arrive with the packet; waiting edits stay on top of them.
  useEffect(() => {
    if (!queue.busy && packet.version > version.current) rebase({ draft: packet.draft, version: packet.version });
  }, [packet.version, packet.draft, queue, rebase]);
  return { base, queue, waiting: state.waiting, saving: savingOf(state, saved) };
}

function useDraftQueue(
  packetId: string,
  how: { send: (edits: DraftEdit[]) => Promise<SavedDraft>; onAnswer: (answer: SavedDraft | null) => void },
): [DraftQueue, (state: QueueState<DraftEdit>) => void, QueueState<DraftEdit>] {
  const latest = useRef(how);
  latest.current = how;
  const shown = useRef<(state: QueueState<DraftEdit>) => void>(() => undefined);
  const queue = useMemo(
    () =>
      new RetryQueue<DraftEdit, SavedDraft>({
        store: {
          read: () => ({ waiting: loadPending(packetId), aside: [] }),
          writeWaiting: (edits) => storePending(packetId, edits),
          // What the server refused for good is named once and deleted.
          writeAside: () => undefined,
        },
        send: (edits) => latest.current.send(edits),
        changed: (state, answer) => {
          if (answer !== undefined) latest.current.onAnswer(answer);
          shown.current(state);
        },
        portion: EDITS_A_PORTION,
        failures: Infinity,
        isTransient,
        refusesAll: (error) => OVER.includes(error.code),
      }),
    [packetId],
  );
  const [state, setState] = useState(queue.state);
  shown.current = setState;
  return [queue, setState, state];
}

export function useDraft(packet: DraftPacket, home: DraftHome = PACKET_HOME): DraftHandle {
  const [past, setPast] = useState<DraftEdit[][]>([]);
  const [future, setFuture] = useState<DraftEdit[][]>([]);
  const { base, queue, waiting, saving } = useEdits(packet, home, () => {
    // What can be undone was made on top of what was deleted.
    setPast([]);
    setFuture([]);
  });
  const draft = useMemo(() => applyEdits(base.draft, waiting), [base.draft, waiting]);
  const edit = useCallback(
    (edits: DraftEdit[]) => {
      if (!edits.length) return;
      setPast((all) => [...all.slice(-199), invertEdits(draft, edits)]);
      setFuture([]);
      queue.push(...edits);
    },
    [draft, queue],
  );
  const step = (from: DraftEdit[][], setFrom: typeof setPast, setTo: typeof setPast) => {
    const edits = from[from.length - 1];
    if (!edits) return;
    setFrom(from.slice(0, -1));
    setTo((all) => [...all, invertEdits(draft, edits)]);
    queue.push(...edits);
  };
  return {
    draft,
    version: base.version,
    saving,
    edit,
    undo: () => step(past, setPast, setFuture),
    redo: () => step(future, setFuture, setPast),
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}
