/**
 * Recognizing documents that were sent before, and placing again what was on them. Knows printed words, drafts and forms;
 * must not know which packets there were, or who may see them.
 */
export { type Fingerprint, FEWEST_WORDS, fingerprintOf, keysOf, likeness } from './fingerprint';
export { type Relation, type RelationKind, relationOf, RELATIONS } from './relation';
export { countCorrections, learnedPlaces, type SentDocument } from './learn';
export { editsOfRecalled, type Recalled, type Remembered, recall, type SlotRecalled, withoutDeal } from './recall';
