/**
 * What a packet is made of: parties with their acts, kinds of marks and what may stand in them, the draft with its rules,
 * redlines and edits, and what a printed form proposes for it. It knows the page and what was read of it; it must not
 * know how a packet goes from gate to gate.
 */
export * from './types';
export * from './acts';
export * from './called';
export * from './draft';
export * from './ledger';
export * from './kinds';
export * from './hand';
export * from './resolve';
export * from './redline';
export * from './values';
export * from './proposal';
export * from './proposals';
export * from './further';
export { missingEdits } from './missing';
export * from './swap';
export * from './edits';
export * from './path';
export * from './place-party';
export * from './newcomer';
export * from './correction';
export * from './shown';
