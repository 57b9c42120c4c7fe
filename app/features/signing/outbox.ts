/** Sending acts one after another, now or when the connection is back. No screen knows of it but the bar that tells. */
import { ApiError } from '../../api/client';
import { readActs, readAside, writeActs, writeAside, type PendingAct } from './acts';
import { itemAt } from '@gatepath/core/sure';

export interface OutboxState {
  waiting: PendingAct[];
  offline: boolean;
  /** Why the server would not take an act. */
  refused: unknown;
  /** Acts the server would not take, kept on the device until the person decides. */
  aside: PendingAct[];
}

const AGAIN_MS = 3000;
/** How often an act is tried that the server stumbles over each time; then the others go on without it. */
const STUMBLES = 5;

/** Whether the server was not reached, or is busy: trying again later is all there is to do. */
function isPassing(error: unknown): boolean {
  return error instanceof ApiError && [0, 408, 429, 502, 503, 504].includes(error.status);
}

/** Whether the server stumbled: it may be over this act, or for a moment. */
function isStumble(error: unknown): boolean {
  return error instanceof ApiError && error.status >= 500 && !isPassing(error);
}

export class Outbox<View> {
  state: OutboxState;
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private stumbles = 0;

  constructor(
    private readonly token: string,
    private readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>,
    private readonly send: (act: PendingAct) => Promise<View>,
    /** Told of every change; `view` is the server's answer, `null` asks for it anew. */
    private readonly changed: (state: OutboxState, view?: View | null) => void,
  ) {
    this.state = {
      waiting: readActs(token, storage),
      offline: false,
      refused: null,
      aside: readAside(token, storage),
    };
  }

  /** Takes an act: kept first, then sent. */
  push(act: PendingAct): void {
    this.set({ waiting: [...this.state.waiting, act], refused: null });
    void this.flush();
  }

  /** Lets go of what the server would not take. */
  forgive(): void {
    this.set({ refused: null, aside: [] });
  }

  /** Sends what was set aside once more, before anything that came later. */
  tryAside(): void {
    this.set({ waiting: [...this.state.aside, ...this.state.waiting], aside: [], refused: null });
    void this.flush();
  }

  async flush(): Promise<void> {
    if (this.busy || this.closed) return;
    this.busy = true;
    if (this.timer) clearTimeout(this.timer);
    while (this.state.waiting.length && !this.closed) {
      const act = itemAt(this.state.waiting, 0);
      try {
        const view = await this.send(act);
        this.stumbles = 0;
        this.set({ waiting: this.state.waiting.filter((a) => a.id !== act.id), offline: false }, view);
      } catch (error) {
        if (isPassing(error) || (isStumble(error) && ++this.stumbles < STUMBLES)) {
          this.set({ offline: true });
          this.timer = setTimeout(() => void this.flush(), AGAIN_MS);
          break;
        }
        // What follows may build on it, but each is asked for by itself: nothing is thrown away unheard.
        this.stumbles = 0;
        this.set(
          {
            waiting: this.state.waiting.filter((a) => a.id !== act.id),
            aside: [...this.state.aside, act],
            offline: false,
            refused: error,
          },
          null,
        );
      }
    }
    this.busy = false;
  }

  /** Once nothing is being sent. */
  async settled(): Promise<void> {
    while (this.busy && !this.closed) await new Promise((r) => setTimeout(r, 50));
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  private set(change: Partial<OutboxState>, view?: View | null): void {
    this.state = { ...this.state, ...change };
    if (change.waiting) writeActs(this.token, this.state.waiting, this.storage);
    if (change.aside) writeAside(this.token, this.state.aside, this.storage);
    if (!this.closed) this.changed(this.state, view);
  }
}
