/**
 * The shelf: forms and kits, which are drafts whose people are slots, and how they become a packet of a deal. It knows
 * drafts and pages; it must not know of storage, of editions, or of who may use what.
 */
export * from './slots';
export * from './fill';
export * from './use';
export * from './locks';
export * from './may';
export * from './roles';
export * from './again';
export * from './again-edits';
export * from './changes';
