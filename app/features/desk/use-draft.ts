/** The draft on this screen: every change shows at once, is kept on the device, and travels when it can. */
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useQueryClient, type QueryClient } from '@tanstack/react-query';
import { type Draft, type DraftEdit, applyEdits, invertEdits } from '@gatepath/core/packet';
import type { EditsBody, PacketView, SavedDraft } from '@gatepath/contract';
import { EDITS_A_PORTION } from '@gatepath/contract/limits';
import { TRANSIENT } from '@gatepath/contract/transient';
import { listWords } from '@gatepath/core/text';
import { keys } from '../../api/keys';
import { ApiError, call, newId } from '../../api/client';

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

/** Tells this screen from others of the same person. */
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

/** Answers after which the same request may be taken later: a sign-in is wanted, it took too long, or too much came. */
const FOR_NOW = [401, 408, 425, 429];

/** Whether the server will never take what was sent, as against being away, busy, or wanting a sign-in first. */
function isForGood(error: unknown): error is ApiError {
  return (
    error instanceof ApiError &&
    error.status >= 400 &&
    error.status < 500 &&
    !FOR_NOW.includes(error.status) &&
    !(TRANSIENT as readonly string[]).includes(error.code)
  );
}

/** Codes of refusals that are about the draft as a whole: nothing more of it will be taken. */
const OVER = ['already-sent', 'not-found'];

/** Where a draft is kept: a packet's in its deal, one of the shelf there. */
export interface DraftHome {
  save: (id: string, body: EditsBody) => Promise<SavedDraft>;
  /** Notes what was saved where this screen has the draft from. */
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

/** What of a packet, or of something on the shelf, its draft is kept by. */
type DraftPacket = Pick<PacketView, 'id' | 'draft' | 'version'>;

// eslint-disable-next-line max-lines-per-function -- keeping, sending and taking back edits share one list of what is not saved yet
export function useDraft(packet: DraftPacket, home: DraftHome = PACKET_HOME): DraftHandle {
  const client = useQueryClient();
  const [base, setBase] = useState({ draft: packet.draft, version: packet.version });
  // Edits the server has not taken yet; some may lie here from a visit that was cut off.
  const [pending, setPending] = useState<DraftEdit[]>(() => loadPending(packet.id));
  const [saving, setSaving] = useState<Saving>({ state: 'saved', sentence: 'Saved' });
  const [past, setPast] = useState<DraftEdit[][]>([]);
  const [future, setFuture] = useState<DraftEdit[][]>([]);
  const flushing = useRef(false);
  const [tries, setTries] = useState(0);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  // What others changed meanwhile arrives with the packet; pending edits stay on top of it.
  useEffect(() => {
    if (!flushing.current && packet.version > base.version) setBase({ draft: packet.draft, version: packet.version });
  }, [packet.version, packet.draft, base.version]);

  const draft = useMemo(() => applyEdits(base.draft, pending), [base.draft, pending]);

  // How many edits go at once; fewer after a refusal, until the one the server will not take stands alone.
  const portion = useRef(EDITS_A_PORTION);

  useEffect(() => {
    storePending(packet.id, pending);
    if (!pending.length || flushing.current) return;
    flushing.current = true;
    const sending = pending.slice(0, portion.current);
    setSaving({ state: 'saving', sentence: 'Saving…' });
    home
      .save(packet.id, { edits: sending, base: base.version, client: SCREEN })
      .then((saved) => {
        flushing.current = false;
        portion.current = Math.min(EDITS_A_PORTION, portion.current * 2);
        setBase({ draft: saved.draft, version: saved.version });
        setPending((now) => now.slice(sending.length));
        home.note(client, packet.id, saved);
        setSaving({
          state: 'saved',
          sentence: saved.over.length
            ? `Saved. ${listWords(saved.over)} changed the same thing meanwhile. Your change was saved; please check it.`
            : `Saved ${new Date().toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' })}`,
        });
      })
      .catch((error: unknown) => {
        flushing.current = false;
        if (isForGood(error)) {
          // Of several, only the ones it will never take go: they are looked for by halves.
          const over = OVER.includes(error.code);
          if (sending.length > 1 && !over) {
            portion.current = Math.ceil(sending.length / 2);
            setTries((n) => n + 1);
            return;
          }
          portion.current = EDITS_A_PORTION;
          setPending((now) => now.slice(over ? now.length : 1));
          // What was taken back was made on top of what is gone.
          setPast([]);
          setFuture([]);
          setSaving({ state: 'refused', sentence: `One change was not saved: ${error.message}` });
          return;
        }
        setSaving({
          state: 'offline',
          sentence:
            error instanceof ApiError && error.status === 401
              ? 'You are signed out. Your changes are saved on this device; sign in again and open this draft.'
              : 'No connection. Your changes are saved on this device and sent when it is back.',
        });
        timer.current = setTimeout(() => setTries((n) => n + 1), 3000);
      });
  }, [pending, packet.id, home, client, tries, base.version]);
  useEffect(() => () => clearTimeout(timer.current), []);

  const edit = useCallback(
    (edits: DraftEdit[]) => {
      if (!edits.length) return;
      setPast((all) => [...all.slice(-199), invertEdits(draft, edits)]);
      setFuture([]);
      setPending((now) => [...now, ...edits]);
    },
    [draft],
  );
  const step = (from: DraftEdit[][], setFrom: typeof setPast, setTo: typeof setPast) => {
    const edits = from[from.length - 1];
    if (!edits) return;
    setFrom(from.slice(0, -1));
    setTo((all) => [...all, invertEdits(draft, edits)]);
    setPending((now) => [...now, ...edits]);
  };
  return {
    draft,
    version: base.version,
    saving: pending.length && saving.state === 'saved' ? { state: 'saving', sentence: 'Saving…' } : saving,
    edit,
    undo: () => step(past, setPast, setFuture),
    redo: () => step(future, setFuture, setPast),
    canUndo: past.length > 0,
    canRedo: future.length > 0,
  };
}
