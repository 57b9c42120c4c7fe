/**
 * What makes a packet's log provable: one way to write an event down, and a hash that covers it and all before it. It
 * knows that an event has a place and a time; it must not know what happened in it, nor how a hash is computed (that is
 * handed in).
 */
export { canonicalJson } from './canonical';
export { CHAIN_START, type ChainedEvent, chainHash, firstBreak, firstStepBack } from './chain';
