/** Sending acts one after another, now or when the connection is back. No screen knows of it but the bar that tells. */
import { ApiError } from '../../api/client';
import { readActs, writeActs, type Act } from './acts';

export interface OutboxState {
  waiting: Act[];
  offline: boolean;
  /** Why the server would not take an act; the act is gone. */
  refused: unknown;
}

const AGAIN_MS = 3000;

/** Whether trying again later may help: no connection, or a server that is not well. */
function isPassing(error: unknown): boolean {
  return error instanceof ApiError && (error.status === 0 || error.status === 429 || error.status >= 500);
}

export class Outbox<View> {
  state: OutboxState;
  private busy = false;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;

  constructor(
    private readonly token: string,
    private readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>,
    private readonly send: (act: Act) => Promise<View>,
    /** Told of every change; `view` is the server's answer, `null` asks for it anew. */
    private readonly changed: (state: OutboxState, view?: View | null) => void,
  ) {
    this.state = { waiting: readActs(token, storage), offline: false, refused: null };
  }

  /** Takes an act: kept first, then sent. */
  push(act: Act): void {
    this.set({ waiting: [...this.state.waiting, act], refused: null });
    void this.flush();
  }

  forgive(): void {
    this.set({ refused: null });
  }

  async flush(): Promise<void> {
    if (this.busy || this.closed) return;
    this.busy = true;
    if (this.timer) clearTimeout(this.timer);
    while (this.state.waiting.length && !this.closed) {
      const act = this.state.waiting[0]!;
      try {
        const view = await this.send(act);
        this.set({ waiting: this.state.waiting.filter((a) => a.id !== act.id), offline: false }, view);
      } catch (error) {
        if (isPassing(error)) {
          this.set({ offline: true });
          this.timer = setTimeout(() => void this.flush(), AGAIN_MS);
          break;
        }
        // What follows may build on it, but each is asked for by itself: nothing is thrown away unheard.
        this.set({ waiting: this.state.waiting.filter((a) => a.id !== act.id), offline: false, refused: error }, null);
      }
    }
    this.busy = false;
  }

  close(): void {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  private set(change: Partial<OutboxState>, view?: View | null): void {
    this.state = { ...this.state, ...change };
    if (change.waiting) writeActs(this.token, this.state.waiting, this.storage);
    if (!this.closed) this.changed(this.state, view);
  }
}
