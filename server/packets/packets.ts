/** The one way into packets, as everybody else sees it; store.ts is what stands behind it. */
import type { PacketCommand, PacketEvent, PacketState } from '@gatepath/core/routing';
import type { Tx } from '../db/tx';
import type { By, Logged } from './logged';
import type { PacketRow } from './queries';

/** What a command came to. */
export interface Done {
  state: PacketState;
  changed: boolean;
  /** What happened, in order; nothing where the act was known already, or changes nothing. */
  events: PacketEvent[];
}

/** A packet locked in a transaction, with its state as it is now. */
export interface Now {
  tx: Tx;
  row: PacketRow;
  state: PacketState | null;
  /** Runs a command on it. @throws `Problem` when the core refuses */
  run(command: PacketCommand, by: By): Promise<Done>;
}

export interface Packets {
  /** The state of a packet as it is now, without locking it. */
  look(packetId: string): Promise<Logged>;
  /**
   * Runs a command on a packet. A command whose act is in the log already changes nothing.
   *
   * @throws `Problem` when there is no such packet, or when the core refuses
   */
  run(packetId: string, command: PacketCommand, by: By): Promise<Done>;
  /** Does something with a locked packet that needs more than a command, in a transaction of its own. */
  alone<T>(packetId: string, work: (now: Now) => Promise<T>): Promise<T>;
}
