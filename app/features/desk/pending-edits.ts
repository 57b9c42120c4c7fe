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

  /** Returns what this screen could not send before the draft was left. */
  read(): DraftEdit[] {
    return parsed(this.storage.getItem(this.own));
  }

  /** Saves the edits that wait. A device without room keeps them in memory only. */
  write(edits: DraftEdit[]): void {
    try {
      if (edits.length) this.storage.setItem(this.own, JSON.stringify(edits));
      else this.storage.removeItem(this.own);
    } catch {
      // They are sent as long as the screen is open.
    }
  }

  /**
   * Marks this screen as open until `close`, and calls `take` with the edits of each closed screen, which are removed
   * from the device after it returns.
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
    const edits = parsed(this.storage.getItem(key));
    if (edits.length) take(edits);
    this.storage.removeItem(key);
  }

  private others(): string[] {
    const root = keyOf(this.packetId);
    const keys = Array.from({ length: this.storage.length }, (_, i) => this.storage.key(i) ?? '');
    return keys.filter((k) => k !== this.own && (k === root || k.startsWith(`${root}.`)));
  }
}
