/**
 * Edits of a draft that the server has not accepted yet, saved on the device. Every screen has a list of its own: two
 * that are open at once do not overwrite each other. What a closed screen left is taken over by the next one.
 */
import { isDraftEdit, type DraftEdit } from '@gatepath/core/packet';

export type DeviceStorage = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

/** The part of the browser's locks that is used here. */
export interface ScreenLocks {
  request: (
    name: string,
    options: { ifAvailable?: boolean },
    whileHeld: (lock: unknown) => Promise<unknown>,
  ) => Promise<unknown>;
}

/** Edits of a packet from before every screen had a list of its own are under this key alone. */
const keyOf = (packetId: string) => `gatepath.pending.${packetId}`;

function parsed(text: string | null): DraftEdit[] {
  try {
    const value: unknown = JSON.parse(text ?? '[]');
    // What is no edit would stop the screen at each visit.
    return Array.isArray(value) ? value.filter(isDraftEdit) : [];
  } catch {
    return [];
  }
}

/** The pending edits of one packet on one screen. */
export class PendingEdits {
  private readonly own: string;
  private release: () => void = () => undefined;
  /** Whether the last `write` had room on the device. */
  private isSaved = true;

  /**
   * @param screen identifies this screen among all that are open
   * @param locks  tell whether another screen is still open; without them every list is taken over
   */
  constructor(
    private readonly packetId: string,
    screen: string,
    private readonly storage: DeviceStorage,
    private readonly locks: ScreenLocks | undefined,
  ) {
    this.own = `${keyOf(packetId)}.${screen}`;
  }

  /** Returns the edits that this screen saved and the server has not accepted yet. */
  read(): DraftEdit[] {
    return parsed(this.storage.getItem(this.own));
  }

  /**
   * Saves the edits that the server has not accepted yet. If the device has no room they are in memory only, and are
   * lost when the screen is closed before they are sent.
   */
  write(edits: DraftEdit[]): void {
    try {
      if (edits.length) this.storage.setItem(this.own, JSON.stringify(edits));
      else this.storage.removeItem(this.own);
      this.isSaved = true;
    } catch {
      this.isSaved = false;
    }
  }

  /**
   * Marks this screen as open until `close`, and calls `take` with the edits of each closed screen. `take` has to
   * write them with those of this screen; then the list of the closed screen is removed.
   */
  async open(take: (edits: DraftEdit[]) => void): Promise<void> {
    const held = new Promise<void>((done) => (this.release = done));
    // Not awaited: the lock is held as long as the screen is open.
    void this.locks?.request(this.own, {}, () => held).catch(() => undefined);
    for (const key of this.others()) {
      if (!this.locks) this.takeOver(key, take);
      else
        await this.locks.request(key, { ifAvailable: true }, async (lock) => {
          if (lock) this.takeOver(key, take);
        });
    }
  }

  close(): void {
    this.release();
  }

  private takeOver(key: string, take: (edits: DraftEdit[]) => void): void {
    const text = this.storage.getItem(key);
    const edits = parsed(text);
    // Removed first, so that the device has room for the edits in this screen's list.
    this.storage.removeItem(key);
    if (!edits.length) return;
    take(edits);
    if (!this.isSaved && text !== null) this.storage.setItem(key, text);
  }

  private others(): string[] {
    const root = keyOf(this.packetId);
    const keys = Array.from({ length: this.storage.length }, (_, i) => this.storage.key(i) ?? '');
    return keys.filter((k) => k !== this.own && (k === root || k.startsWith(`${root}.`)));
  }
}
