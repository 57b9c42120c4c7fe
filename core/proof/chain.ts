/** The hash chain over a packet's events: each line's hash covers the line and the hash before it. */
import { canonicalJson } from './canonical';
import { itemAt } from '../sure';

/** SHA-256 of a text's UTF-8 bytes as 64 lower-case hex digits; handed in, since the core does no I/O. */
export type Sha256 = (text: string) => string;

/** What stands before the first event of a packet. */
export const CHAIN_START = '0'.repeat(64);

/** What the chain needs to know of an event: its place and its time. The hash covers all that is in it. */
export interface Chainable {
  seq: number;
  at: string;
}

/** A stored event with its place in the chain. */
export interface ChainedEvent<E extends Chainable = Chainable> {
  event: E;
  prevHash: string;
  hash: string;
}

/** Returns the hash of an event, given the hash of the event before it. */
export function chainHash(prevHash: string, event: Chainable, sha256: Sha256): string {
  return sha256(`${prevHash}\n${canonicalJson(event)}`);
}

/** Returns the position (seq) of the first event that breaks the chain; null if the chain is unbroken. */
export function firstBreak(events: ChainedEvent[], sha256: Sha256): number | null {
  let prev = CHAIN_START;
  for (let i = 0; i < events.length; i++) {
    const e = itemAt(events, i);
    if (e.event.seq !== i + 1 || e.prevHash !== prev || chainHash(prev, e.event, sha256) !== e.hash) return i + 1;
    prev = e.hash;
  }
  return null;
}

/**
 * Returns the position (seq) of the first event with an earlier time than its predecessor; null if there is none. Such
 * an event shows that the clock was set back.
 */
export function firstStepBack(events: { event: Chainable }[]): number | null {
  for (let i = 1; i < events.length; i++) if (itemAt(events, i).event.at < itemAt(events, i - 1).event.at) return i + 1;
  return null;
}
