/** What goes into the log of a packet and what comes back. */
import type { Actor, Origin, PacketEvent, PacketEventBody, PacketState } from '@gatepath/core/routing';

/** A state together with the hash its last event has. */
export interface Logged {
  state: PacketState | null;
  hash: string;
}

/** Who did something, and from where. */
export interface By {
  actor: Actor;
  origin: Origin | null;
  /** An id made by whoever acts: sent twice, the act counts once. */
  actId?: string;
}

/** What is to be appended to one packet. */
export interface Append {
  packetId: string;
  before: Logged;
  bodies: PacketEventBody[];
  by: By;
}

/** A packet after events were appended to it. */
export interface Appended {
  state: PacketState;
  hash: string;
  events: PacketEvent[];
}
