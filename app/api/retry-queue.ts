/**
 * What the server has not accepted yet: saved on the device first, then sent in order until the server accepts it,
 * whatever the connection does. Used for the acts of a ceremony and the edits of a draft.
 */
import { useEffect, useState } from 'react';
import { ApiError } from './client';

export interface QueueState<Item> {
  /** Saved on the device and not accepted by the server yet, oldest first. */
  waiting: Item[];
  /** Whether sending is postponed until the server can be reached. */
  offline: boolean;
  /** The error because of which sending is postponed. */
  delayedBy: unknown;
  /** Why the server refused the last item that was set aside. */
  refused: unknown;
  /** Items that the server refused. */
  aside: Item[];
}

/** Where a queue is saved on the device. */
export interface QueueStore<Item> {
  read: () => Pick<QueueState<Item>, 'waiting' | 'aside'>;
  writeWaiting: (items: Item[]) => void;
  writeAside: (items: Item[]) => void;
}

export interface QueueOptions<Item, Answer> {
  store: QueueStore<Item>;
  /** Hands items to the server; all of them are taken, or none. */
  send: (items: Item[]) => Promise<Answer>;
  /** Reports every change; `answer` is the server's, `null` after a refusal. */
  changed: (state: QueueState<Item>, answer?: Answer | null) => void;
  /** Maximum number of items sent at once. */
  portion: number;
  /** How often items are tried that the server fails over each time, before they are set aside. */
  failures: number;
  /** Whether an error is transient, besides those of a lost connection or a busy server. */
  isTransient?: (error: unknown) => boolean;
  /** Whether a refusal is of everything that waits, not of single items. */
  refusesAll?: (error: ApiError) => boolean;
}

const AGAIN_MS = 3000;
/** Status codes of a server that was not reached, or is busy. */
const PASSING = [0, 408, 425, 429, 502, 503, 504];

export class RetryQueue<Item, Answer> {
  state: QueueState<Item>;
  private sending = 0;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private closed = false;
  private failed = 0;
  private portion: number;

  constructor(private readonly options: QueueOptions<Item, Answer>) {
    this.portion = options.portion;
    this.state = { ...options.store.read(), offline: false, delayedBy: null, refused: null };
  }

  /** Returns whether something is being sent. */
  get busy(): boolean {
    return this.sending > 0;
  }

  /** Saves items on the device, then sends them. */
  push(...items: Item[]): void {
    this.set({ waiting: [...this.state.waiting, ...items], refused: null });
    void this.flush();
  }

  /** Deletes what the server refused. */
  forgive(): void {
    this.set({ refused: null, aside: [] });
  }

  /** Sends the items set aside again, before everything that is not being sent yet. */
  tryAside(): void {
    const { waiting, aside } = this.state;
    const next = [...waiting.slice(0, this.sending), ...aside, ...waiting.slice(this.sending)];
    this.set({ waiting: next, aside: [], refused: null });
    void this.flush();
  }

  /** Sends what waits, until nothing does or the server cannot be reached. */
  async flush(): Promise<void> {
    if (this.busy) return;
    if (this.timer) clearTimeout(this.timer);
    while (this.state.waiting.length && !this.closed) {
      const items = this.state.waiting.slice(0, this.portion);
      this.sending = items.length;
      try {
        const answer = await this.options.send(items);
        this.failed = 0;
        this.portion = Math.min(this.options.portion, this.portion * 2);
        this.taken(items.length, { offline: false, delayedBy: null }, answer);
      } catch (error) {
        this.sending = 0;
        if (this.isDelayed(error)) {
          this.set({ offline: true, delayedBy: error });
          this.timer = setTimeout(() => void this.flush(), AGAIN_MS);
          return;
        }
        this.refuse(items, error);
      }
    }
  }

  private isDelayed(error: unknown): boolean {
    if (this.options.isTransient?.(error)) return true;
    if (!(error instanceof ApiError)) return false;
    if (PASSING.includes(error.status)) return true;
    return error.status >= 500 && ++this.failed < this.options.failures;
  }

  /** Sets aside the refused item. Of several items it is found by halving, so that the others continue. */
  private refuse(items: Item[], error: unknown): void {
    this.failed = 0;
    const isAll = error instanceof ApiError && !!this.options.refusesAll?.(error);
    if (items.length > 1 && !isAll) {
      this.portion = Math.ceil(items.length / 2);
      return;
    }
    this.portion = this.options.portion;
    const gone = isAll ? this.state.waiting : items;
    const aside = [...this.state.aside, ...gone];
    this.taken(gone.length, { aside, offline: false, delayedBy: null, refused: error }, null);
  }

  private taken(n: number, change: Partial<QueueState<Item>>, answer: Answer | null): void {
    this.sending = 0;
    this.set({ ...change, waiting: this.state.waiting.slice(n) }, answer);
  }

  /** Resolves once nothing is being sent. */
  async settled(): Promise<void> {
    while (this.busy && !this.closed) await new Promise((r) => setTimeout(r, 50));
  }

  /** Stops sending and reporting. Items under way are still removed from the device once the server has them. */
  close(): void {
    this.closed = true;
    if (this.timer) clearTimeout(this.timer);
  }

  private set(change: Partial<QueueState<Item>>, answer?: Answer | null): void {
    this.state = { ...this.state, ...change };
    if (change.waiting) this.options.store.writeWaiting(this.state.waiting);
    if (change.aside) this.options.store.writeAside(this.state.aside);
    if (!this.closed) this.options.changed(this.state, answer);
  }
}

/** Runs a queue while a screen is open: what an earlier visit could not send goes first. */
export function useRunning<Item, Answer>(
  queue: RetryQueue<Item, Answer>,
  show: (state: QueueState<Item>) => void,
): void {
  const [shown] = useState(() => show);
  useEffect(() => {
    shown(queue.state);
    void queue.flush();
    const back = () => void queue.flush();
    window.addEventListener('online', back);
    return () => {
      window.removeEventListener('online', back);
      queue.close();
    };
  }, [queue, shown]);
}
