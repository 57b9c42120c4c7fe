/** Saves the edits of a draft: shown at once, kept on the device, and sent in order until the server accepts them. */
import type { QueryClient } from '@tanstack/react-query';
import type { DraftEdit } from '@gatepath/core/packet';
import { listWords } from '@gatepath/core/text';
import type { SavedDraft } from '@gatepath/contract';
import { EDITS_A_PORTION } from '@gatepath/contract/limits';
import { TRANSIENT } from '@gatepath/contract/transient';
import { ApiError, newId } from '../../api/client';
import { RetryQueue, type QueueState } from '../../api/retry-queue';
import type { DraftHome } from './draft-home';
import {
  editsOfRedo,
  editsOfUndo,
  type DraftAction,
  type DraftState,
  type SavedBase,
  type Saving,
} from './draft-state';
import { PendingEdits } from './pending-edits';
import { TEXT } from './words';

/** Identifies this screen among others of the same member. */
const SCREEN = newId();

/** Returns whether the server may accept the same edits later: a sign-in is required, or the problem is transient. */
const isTransient = (error: unknown): boolean =>
  !(error instanceof ApiError) || error.status === 401 || (TRANSIENT as readonly string[]).includes(error.code);

/** Codes of refusals about the draft as a whole: no more edits are accepted. */
const OVER = ['already-sent', 'not-found'];

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
  return waiting.length ? { state: 'saving', sentence: TEXT.saving } : { state: 'saved', sentence: saved };
}

const sentenceOf = ({ over }: SavedDraft): string =>
  over.length
    ? TEXT.savedChangedTheSameThing(listWords(over))
    : TEXT.savedAt(new Date().toLocaleTimeString('en-US', { hour: 'numeric', minute: '2-digit' }));

interface Options {
  packetId: string;
  home: DraftHome;
  client: QueryClient;
  state: () => DraftState;
  dispatch: (action: DraftAction) => void;
}

export class DraftSync {
  private readonly queue: RetryQueue<DraftEdit, SavedDraft>;
  private readonly pending: PendingEdits;
  private saved: string = TEXT.saved;

  constructor(private readonly o: Options) {
    this.pending = new PendingEdits(o.packetId, SCREEN, localStorage, navigator.locks as never);
    this.queue = new RetryQueue<DraftEdit, SavedDraft>({
      store: {
        read: () => ({ waiting: this.pending.read(), aside: [] }),
        writeWaiting: (edits) => this.pending.write(edits),
        // What the server refused for good is named once and deleted.
        writeAside: () => undefined,
      },
      send: async (edits) => {
        const answer = await o.home.save(o.packetId, { edits, base: o.state().base.version, client: SCREEN });
        o.home.note(o.client, o.packetId, answer);
        return answer;
      },
      changed: (state, answer) => this.show(state, answer),
      portion: EDITS_A_PORTION,
      failures: Infinity,
      isTransient,
      refusesAll: (error) => OVER.includes(error.code),
    });
  }

  /** Applies edits as one act, which can be undone, and sends them. */
  readonly edit = (edits: DraftEdit[]): void => {
    if (!edits.length) return;
    this.o.dispatch({ type: 'act', edits });
    this.queue.push(...edits);
  };

  readonly undo = (): void => {
    const edits = editsOfUndo(this.o.state());
    if (!edits) return;
    this.o.dispatch({ type: 'undo' });
    this.queue.push(...edits);
  };

  readonly redo = (): void => {
    const edits = editsOfRedo(this.o.state());
    if (!edits) return;
    this.o.dispatch({ type: 'redo' });
    this.queue.push(...edits);
  };

  /** Replaces the server's draft by a newer one that others changed. Edits that wait are applied on top of it. */
  take({ draft, version }: SavedBase): void {
    if (!this.queue.busy && version > this.o.state().base.version)
      this.o.dispatch({ type: 'base', base: { draft, version } });
  }

  /** Begins to send, with what closed screens left. @returns a function that ends it */
  start(): () => void {
    const again = () => void this.queue.flush();
    window.addEventListener('online', again);
    this.show(this.queue.state);
    void this.queue.flush();
    void this.pending.open((edits) => this.queue.push(...edits));
    return () => {
      window.removeEventListener('online', again);
      this.pending.close();
      this.queue.close();
    };
  }

  private show(state: QueueState<DraftEdit>, answer?: SavedDraft | null): void {
    if (answer) this.saved = sentenceOf(answer);
    else if (answer === null) this.o.dispatch({ type: 'forget-past' });
    this.o.dispatch({
      type: 'queue',
      waiting: state.waiting,
      saving: savingOf(state, this.saved),
      ...(answer ? { base: { draft: answer.draft, version: answer.version } } : {}),
    });
  }
}
