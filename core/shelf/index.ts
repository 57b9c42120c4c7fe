/**
 * The shelf: forms and kits, which are drafts whose people are slots, and how they become a packet of a deal; who may
 * use and change them. Knows drafts and pages; must not know storage, or which edition is the last.
 */
export { newSlot, sameSlot, type Slot, slotLetters, slotName, slotsOf, slotsTogether } from './slots';
export { fillSlots, type Filling } from './fill';
export { addForm, draftOfKit, type FormInUse, gatesOf, withDocuments } from './use';
export { brokenLock, type Lock, LOCK_WORDS, lockBrokenBy, lockedWords, lockOf, type Locks, LOCKS } from './locks';
export { mayMake, mayUse, type Members, type Sharing } from './may';
export { slotsOnPages } from './roles';
export { type Again, findAgain, FOUND_AGAIN } from './again';
export { matchWords, printedForm, wordsOf, type Word } from './matched';
export { editsOfAgain } from './again-edits';
export { changesBetween } from './changes';
export { asTags, formFrom, kitFrom, slotsOfPeople, type Tags } from './reuse';
