/** Types of what goes into a packet's log and comes back. */
import type { Actor, Origin, PacketEvent, PacketEventBody, PacketState } from '@gatepath/core/routing';

/** A state with the hash of its last event. */
export interface Logged {
  state: PacketState | null;
  hash: string;
}

/** Who did something, and from where. */
export interface By {
  actor: Actor;
  origin: Origin | null;
  /** An id made by the sender of the act: sent twice, the act counts once. */
  actId?: string;
}

/** What to append to one packet. */
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
