/**
 * The shelf: forms and kits, which are drafts whose people are slots, and how they become a packet of a deal. Who
 * may use and change them. It knows drafts and pages; it must not know of storage, or which edition is the last.
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
export * from './keep';
