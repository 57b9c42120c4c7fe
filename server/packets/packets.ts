/** The interface of packets for other features; `store.ts` implements it. */
import type { PacketCommand, PacketEvent, PacketState } from '@gatepath/core/routing';
import type { Tx } from '../db/tx';
import type { By, Logged } from './logged';
import type { PacketRow } from './queries';

/** The result of a command. */
export interface Done {
  state: PacketState;
  changed: boolean;
  /** What happened, in order; empty if the act was known already or changes nothing. */
  events: PacketEvent[];
}

/** A packet locked in a transaction, with its current state. */
export interface Now {
  tx: Tx;
  row: PacketRow;
  state: PacketState | null;
  /** Runs a command on it. @throws `Problem` if the core refuses */
  run(command: PacketCommand, by: By): Promise<Done>;
}

/** What other features may do with packets. */
export interface Packets {
  /** Returns the current state of a packet without locking it. */
  look(packetId: string): Promise<Logged>;
  /**
   * Runs a command on a packet. A command whose act is in the log already changes nothing.
   *
   * @throws `Problem` if the packet does not exist or the core refuses
   */
  run(packetId: string, command: PacketCommand, by: By): Promise<Done>;
  /** Runs work that needs more than a command on a locked packet, in a transaction of its own. */
  alone<T>(packetId: string, work: (now: Now) => Promise<T>): Promise<T>;
}
