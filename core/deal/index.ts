/**
 * A deal as a whole: its kind, facts and key dates, what a firm's rules make of them, how its papers stand, how ready it
 * is and what to do next. It knows types of paper by name only; it must not know of packets' insides, of storage, or of
 * the clock: whoever asks says what day it is.
 */
export * from './kinds';
export * from './facts';
export * from './conditions';
export * from './rules';
export * from './needs';
export * from './signed';
export * from './next';
