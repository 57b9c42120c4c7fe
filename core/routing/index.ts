/**
 * A packet on its way: commands are decided into events, events make states, and a state says who is waited for, what is
 * left to do and what is shown. It knows what a packet is made of; it must not know of clocks, of storage, or of how
 * anybody is told: the caller stamps events and does what follows.
 */
export * from './delivery';
export * from './types';
export * from './events';
export * from './refusal';
export * from './progress';
export * from './reduce';
export * from './decide';
export * from './gates';
export { ahead, initialsOfChange, type ChangeCommand } from './changes';
export { MAX_QUESTIONS, type PartyCommand } from './party-acts';
export { nextTick, nudgesOf, type SystemCommand } from './system-acts';
export * from './words';
export * from './shown';
